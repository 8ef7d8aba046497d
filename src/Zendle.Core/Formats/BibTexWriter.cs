using System.Buffers;
using System.Globalization;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>
/// Writes BibTeX in UTF-8, for BibTeX and biblatex alike. Signs that TeX reads as commands are escaped; capitals inside
/// titles are held by braces. Braces of the text that close each other are escaped like other signs; a lone one is
/// written by its name, for readers count braces whether or not a backslash stands before them, and one too many would
/// swallow the rest of the file.
/// </summary>
public static class BibTexWriter
{
    private static readonly SearchValues<char> Commands = SearchValues.Create(@"\{}%&$#_~^");
    private static readonly string[] Months =
    [
        "jan",
        "feb",
        "mar",
        "apr",
        "may",
        "jun",
        "jul",
        "aug",
        "sep",
        "oct",
        "nov",
        "dec",
    ];

    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IReadOnlyList<Citation> citations)
    {
        foreach (var c in citations)
            WriteOne(to, c);
    }

    private static void WriteOne(TextWriter to, Citation c)
    {
        to.Write($"@{Kind(c)}{{{c.Key},\n");
        Field("author", Names(c.Authors));
        Field("editor", Names(c.Editors));
        // Written even when it is empty: some readers pass over an entry without a field.
        to.Write($"  title = {{{Title(c.Title)}}},\n");
        Field("year", c.Year?.ToString(CultureInfo.InvariantCulture));
        if (c.Month is { } month)
            to.Write($"  month = {Months[month - 1]},\n"); // the abbreviation is a word of the format, not a text
        if (c.Venue is { } venue)
        {
            Field(c.IsInBook ? "booktitle" : "journal", c.IsInBook ? Title(venue.Title) : Escape(venue.Title));
            Field("volume", Escape(venue.Volume ?? ""));
            Field("number", Escape(venue.Issue ?? ""));
            Field("pages", Escape(venue.Pages("--") ?? ""));
            Field("issn", venue.Issn);
        }
        Field("series", Title(c.Series ?? ""));
        Field(
            c.Type == DocumentType.Thesis ? "school"
                : c.Type == DocumentType.Report ? "institution"
                : "publisher",
            Escape(c.Publisher ?? "")
        );
        Field("type", Escape(c.Genre ?? ""));
        Field(
            "note",
            c.Type switch
            {
                DocumentType.Preprint => "Preprint",
                DocumentType.Manuscript => "Manuscript", // unpublished asks for a note
                _ => null,
            }
        );
        Field("isbn", c.Isbn);
        Field("doi", Plain(c.Doi));
        Field("url", Plain(c.FreeAddress));
        Field("langid", Languages.Babel(c.Language));
        Field("language", c.Language is null ? null : Languages.Name(c.Language));
        Field("keywords", string.Join(", ", c.Keywords.Select(Escape)));
        Field("tags", string.Join(", ", c.Tags.Select(Escape)));
        Field("funder", string.Join("; ", c.Funders.Select(Escape)));
        Field("abstract", Escape(c.Abstract));
        to.Write("}\n\n");

        void Field(string name, string? value)
        {
            if (!string.IsNullOrEmpty(value))
                to.Write($"  {name} = {{{value}}},\n");
        }
    }

    private static string Names(IEnumerable<PersonName> people) => string.Join(" and ", people.Select(Name));

    /// <summary>
    /// A name in the order family, given; one without given names is braced whole, so that an organisation stays one
    /// name.
    /// </summary>
    private static string Name(PersonName p) =>
        p.Given.Length == 0 || Parts(p.Family).Concat(Parts(p.Given)).Any(w => w is "and" or "others")
            ? $"{{{Escape(p.Given.Length == 0 ? p.Family : $"{p.Given} {p.Family}")}}}"
            : Escape(p.Inverted);

    private static string[] Parts(string name) => name.Split(' ');

    /// <summary>
    /// Braces every word after the first that has a capital, so that styles which lower titles leave it.
    /// </summary>
    private static string Title(string title)
    {
        var words = title.Split(' ');
        return string.Join(
            ' ',
            words.Select(
                (w, i) => (i > 0 && w.Any(char.IsUpper)) || w.Skip(1).Any(char.IsUpper) ? $"{{{Escape(w)}}}" : Escape(w)
            )
        );
    }

    private static string Escape(string text)
    {
        if (text.AsSpan().IndexOfAny(Commands) < 0 && !text.Any(char.IsControl))
            return text;
        var (escaped, lone) = (new StringBuilder(text.Length + 8), LoneBraces(text));
        for (var i = 0; i < text.Length; i++)
            escaped.Append(
                text[i] switch
                {
                    '{' when lone.Contains(i) => @"\textbraceleft{}",
                    '}' when lone.Contains(i) => @"\textbraceright{}",
                    '\\' => @"\textbackslash{}",
                    '~' => @"\textasciitilde{}",
                    '^' => @"\textasciicircum{}",
                    '{' or '}' or '%' or '&' or '$' or '#' or '_' => $"\\{text[i]}",
                    var c when char.IsControl(c) => " ",
                    var c => c.ToString(),
                }
            );
        return escaped.ToString();
    }

    /// <summary>Places of braces that have no partner.</summary>
    private static HashSet<int> LoneBraces(string text)
    {
        var (lone, open) = (new HashSet<int>(), new Stack<int>());
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '{')
                open.Push(i);
            else if (text[i] == '}' && !open.TryPop(out _))
                lone.Add(i);
        }
        lone.UnionWith(open);
        return lone;
    }

    /// <summary>
    /// An identifier or address is taken as it stands; only braces would be counted, and in an address they have
    /// another form.
    /// </summary>
    private static string? Plain(string? text) =>
        text?.Replace("{", "%7B", StringComparison.Ordinal).Replace("}", "%7D", StringComparison.Ordinal);

    private static string Kind(Citation c) =>
        c.Type switch
        {
            DocumentType.ConferencePaper => "inproceedings",
            DocumentType.Thesis => c.Genre is "Master's thesis" or "Bachelor's thesis" ? "mastersthesis" : "phdthesis",
            DocumentType.Report => "techreport",
            DocumentType.Book => "book",
            DocumentType.Chapter => "incollection",
            DocumentType.Manuscript => "unpublished",
            DocumentType.Preprint or DocumentType.Dataset or DocumentType.Other => "misc",
            _ => "article",
        };
}
