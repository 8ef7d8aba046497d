using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Entries;

/// <summary>
/// Fills the fields of a custom entry from a reference as printed, as far as they show; a person looks at them before
/// they are kept, or mends them later.
/// </summary>
public static partial class PrintedEntry
{
    private const int LongestTitle = 500,
        ShortestVenue = 4;

    /// <summary>The fields of a printed reference; of a text that shows none of them, all of it is the title.</summary>
    public static EntryFields Read(string text)
    {
        var reference = PrintedReference.Read(text);
        var doi = reference.Doi ?? "";
        var isbn = text.Contains("ISBN", StringComparison.OrdinalIgnoreCase) ? Identifiers.Isbn(text) : null;
        var address =
            Address().Match(text) is { Success: true } match && Identifiers.Doi(match.Value) is null
                ? match.Value.TrimEnd('.', ',', ';', ')')
                : "";
        var plain = WithoutAddresses(text);
        var parts = ReferenceParts.Of(Medium().Replace(plain, ""));
        if (!parts.Title.Any(char.IsLetterOrDigit))
            return EntryFields.Empty with
            {
                Title = plain.Any(char.IsLetterOrDigit) ? Cut(plain) : Cut(text),
                Year = Year(reference),
                Doi = doi,
                Isbn = isbn ?? "",
                Address = address,
            };
        var people = PrintedNames.Read(parts.People);
        var isInBook = In().IsMatch(parts.Behind);
        var venue = VenueOf(WithoutEditors(parts.Behind));
        if (venue is not null && IsNoVenue().IsMatch(venue.Title))
            venue = null;
        var type = TypeOf(text, venue, isbn, isInBook);
        return EntryFields.Empty with
        {
            Title = Cut(parts.Title),
            Type = DocumentTypes.Name(type),
            People = string.Join('\n', people.Select(p => p.Inverted)),
            Year = Year(reference),
            Venue = type is DocumentType.Thesis or DocumentType.Report or DocumentType.Book ? "" : venue?.Title ?? "",
            Publisher = type is DocumentType.Thesis or DocumentType.Report or DocumentType.Book
                ? venue?.Title ?? ""
                : "",
            Volume = venue?.Volume ?? "",
            Issue = venue?.Issue ?? "",
            Pages = venue?.Pages() ?? "",
            Doi = doi,
            Isbn = isbn ?? "",
            Address = address,
        };
    }

    /// <summary>
    /// Where it appeared: as much of the text, from stop to stop, as it takes to read a volume, or at least pages; what
    /// follows is a publisher or a place. Where neither shows, the first sentence is the venue.
    /// </summary>
    private static VenuePart? VenueOf(string text)
    {
        if (text.Length < ShortestVenue)
            return null;
        text = NumberThenYear().Replace(text, "($1), ");
        VenuePart[] read =
        [
            .. Stop()
                .Matches(text)
                .Select(m => text[..m.Index])
                .Append(text)
                .Where(t => t.Length >= ShortestVenue)
                .Select(t => SourceLine.Read([YearAtEnd().Replace(t, "")]))
                .OfType<VenuePart>()
                .Select(v => v with { Title = DateBehind().Replace(v.Title, "") }),
        ];
        return Array.FindLast(read, v => v.Volume is not null && v.FirstPage is not null)
            ?? Array.Find(read, v => v.Volume is not null)
            ?? Array.Find(read, v => v.FirstPage is not null)
            ?? read.FirstOrDefault();
    }

    private static DocumentType TypeOf(string text, VenuePart? venue, string? isbn, bool isInBook) =>
        Thesis().IsMatch(text) ? DocumentType.Thesis
        : isInBook && venue?.Volume is null ? DocumentType.Chapter
        : venue?.Volume is not null ? DocumentType.Article
        : isbn is not null ? DocumentType.Book
        : Report().IsMatch(text) ? DocumentType.Report
        : Unpublished().IsMatch(text) ? DocumentType.Manuscript
        : DocumentType.Other;

    private static string Year(Reference reference) => reference.Year?.ToString(CultureInfo.InvariantCulture) ?? "";

    private static string WithoutAddresses(string text) =>
        Trailing().Replace(Doi().Replace(Address().Replace(text, " "), " "), "").Trim();

    private static string WithoutEditors(string text) => Editors().Replace(In().Replace(text, ""), "");

    private static string Cut(string text) => text.Length > LongestTitle ? text[..LongestTitle] : text;

    [GeneratedRegex(@"https?://[^\s""<>]+", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Address();

    [GeneratedRegex(
        @"(?:\bdoi\s*:?\s*)?\b10\.\d{4,9}/[^\s""<>]+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Doi();

    [GeneratedRegex(
        @"(?:[\s.,;]|\bdoi\b:?|\bretrieved from\b|\bavailable (?:at|from)\b:?)+$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Trailing();

    /// <summary>"[Internet]", "[Online]": where a style says that it was read on the web.</summary>
    [GeneratedRegex(
        @"\s*\[(?:internet|online)\]|(?<=\p{L}) Online(?=\.)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Medium();

    /// <summary>"81, no. 2 (March 2024): 282–88".</summary>
    [GeneratedRegex(@",? no\. ([\w–-]{1,8})(?:,)? \([^()]{4,30}\)[:,] ", RegexOptions.CultureInvariant)]
    private static partial Regex NumberThenYear();

    /// <summary>"Bat and Barn. Online. 2016", "Meeting on Lamps, Apr. 2006".</summary>
    [GeneratedRegex(@"[.,]\s*(?:Online\.?)?\s*(?:\p{Lu}\p{Ll}{2,8}\.?\s)?\s*[12]\d{3}$", RegexOptions.CultureInvariant)]
    private static partial Regex DateBehind();

    /// <summary>"Manuscript in preparation", "Report 12": what it is, not where it appeared.</summary>
    [GeneratedRegex(
        @"^(?:manuscript|unpublished|in prep|submitted|under review|(?:technical )?report(?: no\.?)? ?\d)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex IsNoVenue();

    [GeneratedRegex(@"[.,](?= )", RegexOptions.CultureInvariant)]
    private static partial Regex Stop();

    [GeneratedRegex(@"[\s,.;(]*\b[12]\d{3}\b\)?\.?$", RegexOptions.CultureInvariant)]
    private static partial Regex YearAtEnd();

    [GeneratedRegex(@"^[Ii]n:?\s+(?=\p{Lu})", RegexOptions.CultureInvariant)]
    private static partial Regex In();

    [GeneratedRegex(
        @"^.{0,200}?\(eds?\.?\)[,.]?\s*|^.{0,200}?\beds?\.,?\s+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Editors();

    [GeneratedRegex(
        @"\b(?:thesis|dissertation|tesis|tese|thèse|doktorarbeit)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Thesis();

    [GeneratedRegex(
        @"\b(?:report|working paper|technical note|white paper|bericht|rapport|informe)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Report();

    [GeneratedRegex(
        @"\b(?:in preparation|in prep|unpublished|manuscript|submitted|under review)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Unpublished();
}
