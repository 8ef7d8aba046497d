using System.Globalization;
using System.Text.RegularExpressions;
using Zendle.Core.Citing;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Entries;

/// <summary>What is wrong with a field of a custom entry.</summary>
/// <param name="Field">The field, as <see cref="EntryFields"/> names it.</param>
/// <param name="Sentence">What is wrong, in a sentence.</param>
public sealed record EntryFault(string Field, string Sentence);

/// <summary>Turns what a person typed into a record like any other, or says which fields cannot be read.</summary>
public static partial class CustomEntry
{
    /// <summary>Most characters of a line.</summary>
    public const int LongestLine = 2_000;

    /// <summary>Most characters of an abstract.</summary>
    public const int LongestAbstract = 20_000;

    /// <summary>Most people of an entry.</summary>
    public const int MostPeople = 3_000;

    /// <summary>Most keywords of an entry.</summary>
    public const int MostKeywords = 200;

    private const int EarliestYear = 1000,
        LatestYear = 2999;

    /// <summary>The record of an entry.</summary>
    /// <param name="number">Number of the entry.</param>
    /// <param name="fields">What was typed.</param>
    /// <param name="at">When.</param>
    /// <exception cref="ArgumentException">A field cannot be read; see <see cref="Faults"/>.</exception>
    public static Record Read(int number, EntryFields fields, DateTimeOffset at)
    {
        if (Faults(fields) is [var fault, ..])
            throw new ArgumentException(fault.Sentence, nameof(fields));
        return new Record
        {
            Identifier = IdentifierOf(number),
            Datestamp = at,
            Title = OneLine(fields.Title),
            Type = DocumentTypes.Read(fields.Type),
            People = PrintedNames.Read(fields.People),
            Year = YearOf(fields.Year),
            Date = YearOf(fields.Year)?.ToString(CultureInfo.InvariantCulture),
            Venue = VenueOf(fields),
            Publisher = Text(fields.Publisher),
            Doi = Identifiers.Doi(fields.Doi),
            Isbn = Identifiers.Isbn(fields.Isbn),
            Language = Languages.Code(fields.Language),
            Keywords = KeywordsOf(fields.Keywords),
            Abstract = Paragraphs(fields.Abstract),
            Copies = WebAddress.Of(fields.Address) is { } address ? [new(address.AbsoluteUri, CopyAccess.Unknown)] : [],
            References = ReferencesOf(fields.References),
        };
    }

    /// <summary>What cannot be read, field by field; empty when all can.</summary>
    public static IReadOnlyList<EntryFault> Faults(EntryFields fields)
    {
        var faults = new List<EntryFault>();
        void Unless(bool isRight, string field, string sentence)
        {
            if (!isRight && !faults.Exists(f => f.Field == field))
                faults.Add(new(field, sentence));
        }
        bool Reads(string text, Func<string, bool> read) => text.Trim().Length == 0 || read(text);
        foreach (
            var (name, text) in new[]
            {
                (nameof(fields.Title), fields.Title),
                (nameof(fields.Venue), fields.Venue),
                (nameof(fields.Volume), fields.Volume),
                (nameof(fields.Issue), fields.Issue),
                (nameof(fields.Pages), fields.Pages),
                (nameof(fields.Publisher), fields.Publisher),
                (nameof(fields.Doi), fields.Doi),
                (nameof(fields.Address), fields.Address),
            }
        )
            Unless(text.Length <= LongestLine, name, $"This is longer than {LongestLine:N0} characters.");
        Unless(OneLine(fields.Title).Any(char.IsLetterOrDigit), nameof(fields.Title), "An entry needs a title.");
        Unless(
            fields.Type.Trim().Length == 0 || DocumentTypes.All.Any(t => t.Name == fields.Type),
            nameof(fields.Type),
            $"“{Cut(fields.Type)}” is not a kind of document."
        );
        Unless(
            Reads(fields.Year, y => YearOf(y) is not null),
            nameof(fields.Year),
            $"A year has four digits, from {EarliestYear} to {LatestYear}; leave it empty if there is none yet."
        );
        Unless(
            Reads(fields.Doi, d => Identifiers.Doi(d) is not null),
            nameof(fields.Doi),
            "This is not a DOI; one begins with 10. and a number, then a slash."
        );
        Unless(
            Reads(fields.Isbn, i => Identifiers.Isbn(i) is not null),
            nameof(fields.Isbn),
            "This is not an ISBN: its digits do not add up. Please check them."
        );
        Unless(
            Reads(fields.Address, a => WebAddress.Of(a) is not null),
            nameof(fields.Address),
            "A web address begins with http:// or https://."
        );
        Unless(
            Reads(fields.Language, l => Languages.Code(l) is not null),
            nameof(fields.Language),
            $"“{Cut(fields.Language)}” is not a language that Zendle knows."
        );
        Unless(
            fields.Abstract.Length <= LongestAbstract,
            nameof(fields.Abstract),
            $"This is longer than {LongestAbstract:N0} characters."
        );
        Unless(
            PrintedNames.Read(fields.People).Count <= MostPeople,
            nameof(fields.People),
            $"An entry names at most {MostPeople:N0} people."
        );
        Unless(
            KeywordsOf(fields.Keywords).Count <= MostKeywords,
            nameof(fields.Keywords),
            $"An entry has at most {MostKeywords} keywords."
        );
        return faults;
    }

    /// <summary>The identifier of an entry's record.</summary>
    public static string IdentifierOf(int number) => string.Create(CultureInfo.InvariantCulture, $"entry:{number}");

    /// <summary>The number of the entry that a record's identifier names; null when it is none.</summary>
    public static int? NumberOf(string identifier) =>
        identifier.StartsWith("entry:", StringComparison.Ordinal)
        && int.TryParse(identifier.AsSpan("entry:".Length), CultureInfo.InvariantCulture, out var number)
            ? number
            : null;

    private static int? YearOf(string text) =>
        int.TryParse(text.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var year)
        && year is >= EarliestYear and <= LatestYear
            ? year
            : null;

    /// <summary>Volume, issue and pages without a venue are kept under none: they would be pages of nothing.</summary>
    private static VenuePart? VenueOf(EntryFields fields)
    {
        if (Text(fields.Venue) is not { } title)
            return null;
        var pages = Dash().Split(OneLine(fields.Pages), 2);
        var first = Text(pages[0]);
        return new(
            title,
            null,
            Text(fields.Volume),
            Text(fields.Issue),
            first,
            pages.Length > 1 ? SourceLine.FilledOut(first, Text(pages[1])) ?? first : first
        );
    }

    private static IReadOnlyList<string> KeywordsOf(string text)
    {
        // Commas part keywords only where nothing better does: "lights, street" may be one.
        var by =
            text.Contains(';', StringComparison.Ordinal) || text.Trim().Contains('\n', StringComparison.Ordinal)
                ? new[] { ';', '\n', '\r' }
                : [','];
        return [.. text.Split(by, StringSplitOptions.RemoveEmptyEntries).Select(OneLine).Where(k => k.Length > 0)];
    }

    private static IReadOnlyList<Reference> ReferencesOf(string text) =>
        text.Trim().Length == 0 ? [] : [.. PastedReferences.Split(text).Select(PrintedReference.Read)];

    private static string? Text(string text) => OneLine(text) is { Length: > 0 } one ? one : null;

    private static string OneLine(string text) => PlainText.Clean(text);

    private static string Paragraphs(string text) =>
        string.Join('\n', text.ReplaceLineEndings("\n").Split('\n').Select(PlainText.Clean)).Trim();

    private static string Cut(string text) => text.Trim() is { Length: > 40 } longer ? longer[..40] + "…" : text.Trim();

    [GeneratedRegex(@"\s*(?:--|[-–—])\s*", RegexOptions.CultureInvariant)]
    private static partial Regex Dash();
}
