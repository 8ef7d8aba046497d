using Zendle.Core.Records;
using Zendle.Core.Venues;

namespace Zendle.Core.Merging;

/// <summary>A record with what is known of its source.</summary>
/// <param name="RecordId">Id in the store.</param>
/// <param name="DatabaseId">The database it came from.</param>
/// <param name="Trust">Rank of the database, 0 the most trusted.</param>
/// <param name="Record">The record.</param>
/// <param name="IsWithdrawn">Whether the database has deleted it, and it stays with its last values because people
/// decided on its work.</param>
public sealed record SourcedRecord(int RecordId, int DatabaseId, int Trust, Record Record, bool IsWithdrawn = false);

/// <summary>A value with the record it was taken from.</summary>
/// <typeparam name="T">Type of the value.</typeparam>
/// <param name="Value">The value.</param>
/// <param name="RecordId">The record.</param>
public readonly record struct Chosen<T>(T Value, int RecordId);

/// <summary>
/// The fields a work shows, each taken whole from one of its records by rule: the most trusted record that has it; for
/// the year, the one most records agree on; for the title, one in its original language and in mixed case where there
/// is one.
/// </summary>
public sealed record ChosenFields
{
    /// <summary>Title.</summary>
    public required Chosen<string> Title { get; init; }

    /// <summary>Abstract; empty when no record has one.</summary>
    public required Chosen<string> Abstract { get; init; }

    /// <summary>People, in order.</summary>
    public required Chosen<IReadOnlyList<PersonName>> People { get; init; }

    /// <summary>Year.</summary>
    public required Chosen<int?> Year { get; init; }

    /// <summary>Date as far as it is told, of the year shown; null when no record tells more than the year.</summary>
    public string? Date { get; init; }

    /// <summary>Kind of document.</summary>
    public required Chosen<DocumentType> Type { get; init; }

    /// <summary>Of a thesis which one; null when not said.</summary>
    public string? Genre { get; init; }

    /// <summary>Editors beside the people, of the work or of the book it is in.</summary>
    public IReadOnlyList<PersonName> Editors { get; init; } = [];

    /// <summary>Those who paid, over all records.</summary>
    public IReadOnlyList<string> Funders { get; init; } = [];

    /// <summary>Series it belongs to; null for none.</summary>
    public string? Series { get; init; }

    /// <summary>Licence that a record names; null for none.</summary>
    public string? Licence { get; init; }

    /// <summary>Language.</summary>
    public required Chosen<string?> Language { get; init; }

    /// <summary>Venue with the place in it.</summary>
    public required Chosen<VenuePart?> Venue { get; init; }

    /// <summary>DOI.</summary>
    public required Chosen<string?> Doi { get; init; }

    /// <summary>ISBN.</summary>
    public required Chosen<string?> Isbn { get; init; }

    /// <summary>Publisher.</summary>
    public required Chosen<string?> Publisher { get; init; }

    /// <summary>Keywords.</summary>
    public required Chosen<IReadOnlyList<string>> Keywords { get; init; }

    /// <summary>Controlled terms of all records, each once.</summary>
    public required IReadOnlyList<string> ControlledTerms { get; init; }

    /// <summary>Subject categories of all records.</summary>
    public required IReadOnlyList<string> Subjects { get; init; }

    /// <summary>Copies of all records, each address once.</summary>
    public required IReadOnlyList<Copy> Copies { get; init; }

    /// <summary>Chooses from the records of one work; throws when there are none.</summary>
    public static ChosenFields From(IReadOnlyCollection<SourcedRecord> records)
    {
        if (records.Count == 0)
            throw new ArgumentException("A work has at least one record.", nameof(records));
        // The version of record speaks for the work before its manuscripts do.
        var order = records
            .OrderBy(r =>
                r.Record.Type is DocumentType.Preprint or DocumentType.Manuscript
                || WorkVersions.IsBeforeReview(r.Record.Version)
                    ? 1
                    : 0
            )
            .ThenBy(r => r.Trust)
            .ThenBy(r => r.RecordId)
            .ToArray();
        var (year, people) = (Agreed(order), First(order, r => r.People, p => p.Count > 0, []));
        return new()
        {
            Title = OriginalTitle(order),
            Abstract = First(order, r => r.Abstract, a => a.Length > 0, ""),
            People = people with { Value = WithOrcids(people.Value, order) },
            Year = year,
            Date = order
                .Select(r => r.Record.Date)
                .FirstOrDefault(d =>
                    d is { Length: > 4 }
                    && year.Value is { } y
                    && d.StartsWith(
                        y.ToString(System.Globalization.CultureInfo.InvariantCulture),
                        StringComparison.Ordinal
                    )
                ),
            Genre = order.Select(r => r.Record.Genre).FirstOrDefault(g => g is not null),
            Editors = order.Select(r => r.Record.Editors).FirstOrDefault(e => e.Count > 0) ?? [],
            Funders = [.. order.SelectMany(r => r.Record.Funders).Distinct(StringComparer.OrdinalIgnoreCase)],
            Series = order
                .SelectMany(r => r.Record.Related)
                .FirstOrDefault(r => r.Kind == "series" && r.Title is not null)
                ?.Title,
            Licence = order.Select(r => r.Record.Licence).FirstOrDefault(l => l is not null),
            Type = First(order, r => r.Type, t => t != DocumentType.Other, DocumentType.Other),
            Language = First(order, r => r.Language, l => l is not null, null),
            Venue = WholeName(First(order, r => r.Venue, v => v is not null, null), order),
            Doi = First(order, r => r.Doi, d => d is not null, null),
            Isbn = First(order, r => r.Isbn, i => i is not null, null),
            Publisher = First(order, r => r.Publisher, p => p is not null, null),
            Keywords = First(order, r => r.Keywords, k => k.Count > 0, []),
            ControlledTerms =
            [
                .. order.SelectMany(r => r.Record.ControlledTerms).Distinct(StringComparer.OrdinalIgnoreCase),
            ],
            Subjects = [.. order.SelectMany(r => r.Record.Subjects).Distinct(StringComparer.OrdinalIgnoreCase)],
            Copies =
            [
                .. order
                    .SelectMany(r => r.Record.Copies)
                    .GroupBy(c => c.Address)
                    .Select(g => g.OrderBy(c => c.Access == CopyAccess.Unknown).First()),
            ],
        };
    }

    /// <summary>The venue under the best name that a record of the work has for it.</summary>
    private static Chosen<VenuePart?> WholeName(Chosen<VenuePart?> chosen, SourcedRecord[] order) =>
        chosen.Value is { } venue
            ? chosen with
            {
                Value = venue with { Title = VenueTitles.Best(venue.Title, order.Select(r => r.Record.Venue?.Title)) },
            }
            : chosen;

    /// <summary>
    /// The people with the ORCID iDs that other records have for them; one that two people of a family could claim is
    /// left out.
    /// </summary>
    private static IReadOnlyList<PersonName> WithOrcids(IReadOnlyList<PersonName> people, SourcedRecord[] order)
    {
        if (order.Length < 2 || people.All(p => p.Orcid is not null))
            return people;
        var known = order
            .SelectMany(r => r.Record.People)
            .Where(p => p.Orcid is not null)
            .DistinctBy(p => p.Orcid)
            .ToLookup(p => MergeKeys.PersonKey(p.Family));
        var alike = people.ToLookup(p => MergeKeys.PersonKey(p.Family));
        return
        [
            .. people.Select(p =>
                p.Orcid is null
                && MergeKeys.PersonKey(p.Family) is var key
                && alike[key].Count() == 1
                && known[key].Count() == 1
                && known[key].First() is var other
                && SameInitial(p, other)
                    ? p with
                    {
                        Orcid = other.Orcid,
                    }
                    : p
            ),
        ];

        static bool SameInitial(PersonName a, PersonName b) =>
            a.Initials.Length == 0 || b.Initials.Length == 0 || a.Initials[0] == b.Initials[0];
    }

    private static Chosen<string> OriginalTitle(SourcedRecord[] order)
    {
        var best =
            Array.Find(order, r => Original(r) && !Shouts(r.Record.Title))
            ?? Array.Find(order, Original)
            ?? Array.Find(order, r => r.Record.Title.Length > 0)
            ?? order[0];
        return new(best.Record.Title, best.RecordId);

        static bool Original(SourcedRecord r) => r.Record.Title.Length > 0 && !r.Record.TitleIsTranslated;
        static bool Shouts(string title) => !title.Any(char.IsLower) && title.Any(char.IsUpper);
    }

    private static Chosen<int?> Agreed(SourcedRecord[] order)
    {
        var years = order
            .Where(r => r.Record.Year is not null)
            .GroupBy(r => r.Record.Year)
            .OrderByDescending(g => g.Count())
            .FirstOrDefault();
        return years is null ? new(null, order[0].RecordId) : new(years.Key, years.First().RecordId);
    }

    private static Chosen<T> First<T>(SourcedRecord[] order, Func<Record, T> value, Func<T, bool> has, T none)
    {
        foreach (var r in order)
        {
            var v = value(r.Record);
            if (has(v))
                return new(v, r.RecordId);
        }
        return new(none, order[0].RecordId);
    }
}
