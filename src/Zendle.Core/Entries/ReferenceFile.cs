using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Citing;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>One reference of a file, in fields, and as a reference that works can be matched with.</summary>
/// <param name="Reference">DOI, title, first person and year as the file has them; its text is put together from all.</param>
/// <param name="Fields">All that the file says of it.</param>
public sealed record FiledReference(Reference Reference, EntryFields Fields);

/// <summary>
/// Reads lists of references in the open formats that reference managers exchange: RIS, BibTeX and CSL-JSON,
/// and tables whose first row names the columns.
/// </summary>
/// <remarks>
/// Lenient: what cannot be read of one reference is left out, and the others are read. O(length). Line ends, a byte
/// order mark and text around the references do not matter.
/// </remarks>
public static partial class ReferenceFile
{
    /// <summary>The references of a text in one of the formats, in its order; null where it is in none of them.</summary>
    public static IReadOnlyList<FiledReference>? Read(string text)
    {
        text = text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n');
        IEnumerable<EntryFields>? read =
            text.StartsWith('[') || text.StartsWith('{') ? CslJsonEntries.Read(text)
            : RisEntries.Looks(text) ? RisEntries.Read(text)
            : BibTexEntries.Looks(text) ? BibTexEntries.Read(text)
            : TableEntries.Read(text);
        return read is null
            ? null
            :
            [
                .. read.Select(Fitting)
                    .Where(f => f.Title.Length > 0 || f.Doi.Length > 0)
                    .Take(PastedReferences.Most)
                    .Select(f => new FiledReference(Of(f), f)),
            ];
    }

    /// <summary>
    /// The fields as a custom entry takes them, of the texts that a format has for them: identifiers and names in their
    /// normal form, none where they are wrong, and nothing longer than it may be.
    /// </summary>
    private static EntryFields Fitting(EntryFields fields) =>
        fields with
        {
            Title = Cut(fields.Title, CustomEntry.LongestLine),
            Venue = Cut(fields.Venue, CustomEntry.LongestLine),
            Publisher = Cut(fields.Publisher, CustomEntry.LongestLine),
            Volume = Cut(fields.Volume, CustomEntry.LongestLine),
            Issue = Cut(fields.Issue, CustomEntry.LongestLine),
            Pages = Cut(Dashes().Replace(fields.Pages.Trim(), "–"), CustomEntry.LongestLine),
            Year = YearOf(fields.Year),
            Doi = Identifiers.Doi(fields.Doi) ?? Identifiers.Doi(fields.Address) ?? "",
            Isbn = Identifiers.Isbn(fields.Isbn) ?? "",
            Address = WebAddress.Of(fields.Address)?.AbsoluteUri ?? "",
            Language = Languages.Code(fields.Language) is { } code ? Languages.Name(code) : "",
            Keywords = string.Join(
                "; ",
                fields
                    .Keywords.Split([';', ','], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                    .Take(CustomEntry.MostKeywords)
            ),
            Abstract = Cut(fields.Abstract, CustomEntry.LongestAbstract),
            People = string.Join('\n', fields.People.Split('\n').Take(CustomEntry.MostPeople)),
        };

    private static string Cut(string text, int most) => text.Length > most ? text[..most] : text;

    /// <summary>The fields as one printed reference.</summary>
    private static Reference Of(EntryFields fields)
    {
        var people = PrintedNames.Read(fields.People);
        var text = new StringBuilder();
        text.AppendJoin(", ", people.Take(20).Select(p => p.Inverted));
        if (fields.Year.Length > 0)
            text.Append(text.Length > 0 ? " " : "").Append('(').Append(fields.Year).Append(')');
        if (text.Length > 0)
            text.Append(". ");
        text.Append(fields.Title.TrimEnd('.')).Append('.');
        if (fields.Venue.Length > 0)
        {
            text.Append(' ').Append(fields.Venue);
            if (fields.Volume.Length > 0)
                text.Append(", ").Append(fields.Volume);
            if (fields.Issue.Length > 0)
                text.Append('(').Append(fields.Issue).Append(')');
            if (fields.Pages.Length > 0)
                text.Append(", ").Append(fields.Pages);
            text.Append('.');
        }
        if (fields.Publisher.Length > 0)
            text.Append(' ').Append(fields.Publisher).Append('.');
        if (fields.Doi.Length > 0)
            text.Append(" https://doi.org/").Append(fields.Doi);
        else if (fields.Isbn.Length > 0)
            text.Append(" ISBN ").Append(fields.Isbn).Append('.');
        else if (fields.Address.Length > 0)
            text.Append(' ').Append(fields.Address);
        return new(
            text.ToString(),
            fields.Doi.Length > 0 ? fields.Doi : null,
            fields.Title.Length > 0 ? fields.Title : null,
            people.Count > 0 ? people[0].Family : null,
            int.TryParse(fields.Year, CultureInfo.InvariantCulture, out var year) ? year : null
        );
    }

    /// <summary>The first year of four digits in a date of any form; empty where there is none.</summary>
    internal static string YearOf(string date) => FourDigits().Match(date).Value;

    /// <summary>Text of a field on one line, without markup.</summary>
    internal static string Line(string text) => Blanks().Replace(Markup.ToText(text), " ").Trim();

    [GeneratedRegex(@"(?<!\d)[12]\d{3}(?!\d)", RegexOptions.CultureInvariant)]
    private static partial Regex FourDigits();

    [GeneratedRegex(@"\s*(?:--?-?|[–—‐‑])\s*", RegexOptions.CultureInvariant)]
    private static partial Regex Dashes();

    [GeneratedRegex(@"\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();
}
