using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>What was read off a document. A pure value: the check asks nothing else.</summary>
public sealed partial record DocumentFacts
{
    /// <summary>What kind of file it is.</summary>
    public TextFormat Format { get; init; }

    /// <summary>
    /// How many pages it has, at least 1; where its format has none, as many as its words would fill at 500 a page.
    /// </summary>
    public required int Pages { get; init; }

    /// <summary>
    /// Lines of its first pages (at most three), in the order they are drawn in, page after page. Where its format has no
    /// pages, the first is what stands before its body.
    /// </summary>
    public required IReadOnlyList<DocumentLine> Lines { get; init; }

    /// <summary>Whether its pages are pictures without letters: then nothing of it could be read.</summary>
    public bool IsScan { get; init; }

    /// <summary>Size of its running text in points.</summary>
    public double BodySize { get; init; }

    /// <summary>Whether its pages are wider than high.</summary>
    public bool IsLandscape { get; init; }

    /// <summary>How many words it has in all.</summary>
    public required int WordCount { get; init; }

    /// <summary>Whether its lines are numbered in the margin.</summary>
    public bool LineNumbers { get; init; }

    /// <summary>Headings with their page, from 1, in order.</summary>
    public IReadOnlyList<DocumentHeading> Headings { get; init; } = [];

    /// <summary>The entries of its reference lists, in order; empty when none was found.</summary>
    public IReadOnlyList<string> References { get; init; } = [];

    /// <summary>The sentences that cite <see cref="References"/>, in order.</summary>
    public IReadOnlyList<CitingSentence> Citations { get; init; } = [];

    /// <summary>Its running text, for being searched.</summary>
    public IReadOnlyList<TextPage> Text { get; init; } = [];

    /// <summary>The texts of <see cref="Lines"/>.</summary>
    [JsonIgnore]
    public IEnumerable<string> FirstLines => Lines.Select(l => l.Text);

    /// <summary>The texts of the lines of the very first page.</summary>
    [JsonIgnore]
    public IEnumerable<string> FirstPage => Lines.TakeWhile(l => l.Page == 1).Select(l => l.Text);

    /// <summary>The first page up to its references: what stands in those is somebody else's.</summary>
    [JsonIgnore]
    public IEnumerable<string> OwnFirstPage => FirstPage.TakeWhile(l => !IsReferencesHead(l));

    /// <summary>The folded words of each line; worked out once.</summary>
    [JsonIgnore]
    public IReadOnlyList<IReadOnlyList<string>> LineWords =>
        lineWords ??= [.. Lines.Select(l => Words.AsWritten(l.Text).ToArray())];

    private IReadOnlyList<IReadOnlyList<string>>? lineWords;

    /// <summary>Whether a line is the heading of a list of references.</summary>
    public static bool IsReferencesHead(string line) => ReferencesHead().IsMatch(line);

    [GeneratedRegex(
        @"^\W*(?:\d{1,2}\W+)?(?:references?(?: cited)?|bibliography|literature(?: cited)?|works cited"
            + @"|literatur(?:verzeichnis)?|r[ée]f[ée]rences|referencias|refer[êe]ncias)\W*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex ReferencesHead();
}

/// <summary>A line of a document.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Page">Its page, from 1.</param>
/// <param name="Size">Size of its largest letter in points.</param>
/// <param name="Bold">Whether it is set in bold.</param>
public sealed record DocumentLine(string Text, int Page, double Size, bool Bold);

/// <summary>A heading in a document.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Page">Its page, from 1.</param>
public sealed record DocumentHeading(string Text, int Page);

/// <summary>What a document is held against: a work as its records know it.</summary>
/// <param name="Titles">Every title its records give, the chosen one first.</param>
/// <param name="People">Its people.</param>
/// <param name="Dois">DOIs of its records and their versions.</param>
/// <param name="Year">Its year.</param>
/// <param name="Abstract">Its abstract; empty when unknown.</param>
/// <param name="Type">Its kind.</param>
public sealed record ExpectedWork(
    IReadOnlyList<string> Titles,
    IReadOnlyList<Records.PersonName> People,
    IReadOnlyList<string> Dois,
    int? Year,
    string Abstract,
    Records.DocumentType Type = Records.DocumentType.Other
)
{
    /// <summary>
    /// What kind of text a work is to be. What stands in a book is an article to some databases: where one of its records calls
    /// it a chapter, it is looked for in its book.
    /// </summary>
    /// <param name="shown">The kind that the work is shown with.</param>
    /// <param name="said">The kinds that its records say.</param>
    public static Records.DocumentType TypeOf(Records.DocumentType shown, IEnumerable<Records.DocumentType> said) =>
        said.Contains(Records.DocumentType.Chapter) ? Records.DocumentType.Chapter : shown;

    /// <summary>How many pages its record gives it; null when it does not say.</summary>
    public int? PageCount { get; init; }
}
