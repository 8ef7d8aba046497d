using System.Collections.Immutable;
using System.Text;
using Zendle.Core.Records;
using Zendle.Core.Text;
using Zendle.Core.Venues;

namespace Zendle.Core.Merging;

/// <summary>
/// What merging looks at in a record, brought into forms that compare: folded words, hashed trigrams, keys of names.
/// </summary>
public sealed record MergeFacts
{
    /// <summary>Id in the store, above 0; lower is older.</summary>
    public required int RecordId { get; init; }

    /// <summary>
    /// A number that follows from database and identifier alone: breaks ties the same way in whatever order records
    /// arrive.
    /// </summary>
    public required ulong Stamp { get; init; }

    /// <summary>Its database.</summary>
    public required int DatabaseId { get; init; }

    /// <summary>Normalised DOI; null for none.</summary>
    public string? Doi { get; init; }

    /// <summary>ISBN-13 of the document itself; null for none.</summary>
    public string? Isbn { get; init; }

    /// <summary>
    /// Numbers that databases give ("kind:number"), which an extract shares with what it was taken from.
    /// </summary>
    public IReadOnlyList<string> OwnNumbers { get; init; } = [];

    /// <summary>DOIs of other versions the record declares.</summary>
    public IReadOnlyList<string> VersionDois { get; init; } = [];

    /// <summary>Titles, the shown one first, as folded words joined by blanks.</summary>
    public required ImmutableArray<string> Titles { get; init; }

    /// <summary>
    /// For each title the hashes of its letter trigrams, ascending, each once. Worked out when first asked for.
    /// </summary>
    public IReadOnlyList<int[]> Trigrams => trigrams ??= [.. Titles.Select(TrigramsOf)];

    /// <summary>The shown title up to its subtitle, as folded words; the whole when there is none.</summary>
    public required string MainTitle { get; init; }

    /// <summary>Whether the shown title is a translation.</summary>
    public bool IsTranslated { get; init; }

    /// <summary>
    /// Numbers in the shown title ("2", "1998", "ii"), in order: parts of a series differ in nothing else.
    /// </summary>
    public required string Numbers { get; init; }

    /// <summary>
    /// What the title announces it to be about another work: "correction", "retraction", "comment", "reply"; empty for
    /// none.
    /// </summary>
    public required string Notice { get; init; }

    /// <summary>Year; null for none.</summary>
    public int? Year { get; init; }

    /// <summary>Keys of the family names, in order.</summary>
    public required ImmutableArray<string> Families { get; init; }

    /// <summary>First letters of the given names; '\0' where unknown.</summary>
    public required ImmutableArray<char> Initials { get; init; }

    /// <summary>ISSN of the venue; null for none.</summary>
    public string? Issn { get; init; }

    /// <summary>Folded words of the venue's title; empty for none.</summary>
    public required ImmutableArray<string> Venue { get; init; }

    /// <summary>Volume; null for none.</summary>
    public string? Volume { get; init; }

    /// <summary>First page; null for none.</summary>
    public string? FirstPage { get; init; }

    /// <summary>Kind of document.</summary>
    public DocumentType Type { get; init; }

    /// <summary>Whether the record describes a version from before review ended.</summary>
    public bool IsBeforeReview { get; init; }

    /// <summary>Whether the record is known from reference lists only.</summary>
    public bool IsOnlyCited { get; init; }

    private int[][]? trigrams;
    private HashSet<ulong>? blocking;

    /// <summary>
    /// The keys under which the record is proposed to others: see <see cref="MergeKeys.BlockingOf"/>. Worked out when
    /// first asked for.
    /// </summary>
    public IReadOnlySet<ulong> Blocking => blocking ??= MergeKeys.BlockingOf(this);

    private static readonly string[] Romans = ["i", "ii", "iii", "iv", "v", "vi", "vii", "viii", "ix", "x"];

    /// <summary>Takes the facts of a record.</summary>
    /// <param name="recordId">Its id in the store.</param>
    /// <param name="databaseId">Its database.</param>
    /// <param name="record">The record.</param>
    public static MergeFacts Of(int recordId, int databaseId, Record record)
    {
        ImmutableArray<string> titles = [.. record.Titles.Select(Plain).Where(t => t.Length > 0).Distinct()];
        var words = titles.Length == 0 ? [] : titles[0].Split(' ');
        return new()
        {
            RecordId = recordId,
            Stamp = MergeKeys.Of("record", $"{databaseId}\u0001{record.Identifier}"),
            DatabaseId = databaseId,
            Doi = record.Doi,
            Isbn = record.Type == DocumentType.Chapter ? null : record.Isbn,
            OwnNumbers = record.OwnNumbers,
            VersionDois = [.. record.Versions.Select(v => v.Doi)],
            Titles = titles,
            MainTitle =
                EndOfMainTitle(record.Title) is > 0 and var end && Plain(record.Title[..end]) is { Length: > 0 } main
                    ? main
                : titles.Length > 0 ? titles[0]
                : "",
            IsTranslated = record.TitleIsTranslated,
            Numbers = string.Join(
                ' ',
                words.Where(
                    (w, i) =>
                        w.All(char.IsAsciiDigit)
                        || (i > 0 && words[i - 1] is "part" or "teil" or "paper" && Romans.Contains(w))
                )
            ),
            Notice = NoticeOf(words),
            Year = record.Year,
            Families = [.. record.People.Select(p => MergeKeys.PersonKey(p.Family))],
            Initials = [.. record.People.Select(p => Initial(p.Given))],
            Issn = record.Venue?.Issn,
            Venue = VenueNames.WordsOf(record.Venue?.Title ?? ""),
            Volume = record.Venue?.Volume,
            FirstPage = record.Venue?.FirstPage,
            Type = record.Type,
            IsBeforeReview =
                record.Type is DocumentType.Preprint or DocumentType.Manuscript
                || WorkVersions.IsBeforeReview(record.Version),
            IsOnlyCited = record.IsOnlyCited,
        };
    }

    /// <summary>Where a title ends and its subtitle begins; 0 when it has none.</summary>
    private static int EndOfMainTitle(string title)
    {
        var first = 0;
        foreach (var sign in SubtitleSigns)
            if (title.IndexOf(sign, StringComparison.Ordinal) is > 0 and var at && (first == 0 || at < first))
                first = at;
        return first;
    }

    private static readonly string[] SubtitleSigns = [": ", "? ", "! ", ". ", " – ", " — ", " - ", "; "];

    private static char Initial(string given) =>
        given.Length > 0
        && Rune.TryGetRuneAt(given, 0, out var first)
        && Words.Fold(first.ToString()) is { Length: > 0 } folded
            ? folded[0]
            : '\0';

    /// <summary>A title as folded words joined by blanks; empty for none.</summary>
    public static string Plain(string title) => string.Join(' ', Words.AsWritten(title));

    /// <summary>Hashes of the letter trigrams of a plain title, ascending, each once.</summary>
    public static int[] TrigramsOf(string plain)
    {
        var padded = $" {plain} ";
        var found = new int[Math.Max(0, padded.Length - 2)];
        for (var i = 0; i < found.Length; i++)
            found[i] = padded[i] * 31 * 31 * 7919 + padded[i + 1] * 7919 * 31 + padded[i + 2] * 7919;
        Array.Sort(found);
        var once = 0;
        for (var i = 0; i < found.Length; i++)
            if (i == 0 || found[i] != found[i - 1])
                found[once++] = found[i];
        return found[..once];
    }

    private static string NoticeOf(string[] words) =>
        words switch
        {
            [
                "correction"
                or "corrections"
                or "erratum"
                or "errata"
                or "corrigendum"
                or "corrigenda"
                or "addendum"
                or "berichtigung"
                or "rectificatif",
                ..,
            ]
            or ["author" or "publisher", "correction", ..]
            or [.., "erratum" or "corrigendum"] => "correction",
            ["retraction" or "retracted", ..] => "retraction",
            ["expression", "of", "concern", ..] => "concern",
            ["comment", "on", ..] or ["reply", "to", ..] or ["response", "to", ..] => words[0],
            [.., "a", "comment"] => "comment",
            _ => "",
        };
}
