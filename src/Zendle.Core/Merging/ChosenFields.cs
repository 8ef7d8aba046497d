using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>A record with what is known of its source.</summary>
/// <param name="RecordId">Id in the store.</param>
/// <param name="DatabaseId">The database it came from.</param>
/// <param name="Trust">Rank of the database, 0 the most trusted.</param>
/// <param name="Record">The record.</param>
/// <param name="IsWithdrawn">Whether the database has deleted it, and it stays with its last values because people decided on its work.</param>
public sealed record SourcedRecord(int RecordId, int DatabaseId, int Trust, Record Record, bool IsWithdrawn = false);

/// <summary>A value with the record it was taken from.</summary>
/// <typeparam name="T">Type of the value.</typeparam>
/// <param name="Value">The value.</param>
/// <param name="RecordId">The record.</param>
public readonly record struct Chosen<T>(T Value, int RecordId);

/// <summary>
/// The fields a work shows, each taken whole from one of its records by rule: the most trusted record that has it; for the year, the
/// one most records agree on; for the title, one in its original language and in mixed case where there is one.
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
    /// <summary>Kind of document.</summary>
    public required Chosen<DocumentType> Type { get; init; }
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
    /// <summary>Subject categories of all records.</summary>
    public required IReadOnlyList<string> Subjects { get; init; }
    /// <summary>Copies of all records, each address once.</summary>
    public required IReadOnlyList<Copy> Copies { get; init; }

    /// <summary>Chooses from the records of one work; throws when there are none.</summary>
    public static ChosenFields From(IReadOnlyCollection<SourcedRecord> records)
    {
        if (records.Count == 0) throw new ArgumentException("A work has at least one record.", nameof(records));
        // The version of record speaks for the work before its manuscripts do.
        var order = records.OrderBy(r => r.Record.Type == DocumentType.Preprint || WorkVersions.IsBeforeReview(r.Record.Version) ? 1 : 0)
            .ThenBy(r => r.Trust).ThenBy(r => r.RecordId).ToArray();
        return new()
        {
            Title = OriginalTitle(order),
            Abstract = First(order, r => r.Abstract, a => a.Length > 0, ""),
            People = First(order, r => r.People, p => p.Count > 0, []),
            Year = Agreed(order),
            Type = First(order, r => r.Type, t => t != DocumentType.Other, DocumentType.Other),
            Language = First(order, r => r.Language, l => l is not null, null),
            Venue = First(order, r => r.Venue, v => v is not null, null),
            Doi = First(order, r => r.Doi, d => d is not null, null),
            Isbn = First(order, r => r.Isbn, i => i is not null, null),
            Publisher = First(order, r => r.Publisher, p => p is not null, null),
            Keywords = First(order, r => r.Keywords, k => k.Count > 0, []),
            Subjects = [.. order.SelectMany(r => r.Record.Subjects).Distinct(StringComparer.OrdinalIgnoreCase)],
            Copies = [.. order.SelectMany(r => r.Record.Copies).GroupBy(c => c.Address).Select(g => g.OrderBy(c => c.Access == CopyAccess.Unknown).First())],
        };
    }

    private static Chosen<string> OriginalTitle(SourcedRecord[] order)
    {
        var best = Array.Find(order, r => Original(r) && !Shouts(r.Record.Title)) ?? Array.Find(order, Original) ?? Array.Find(order, r => r.Record.Title.Length > 0) ?? order[0];
        return new(best.Record.Title, best.RecordId);

        static bool Original(SourcedRecord r) => r.Record.Title.Length > 0 && !r.Record.TitleIsTranslated;
        static bool Shouts(string title) => !title.Any(char.IsLower) && title.Any(char.IsUpper);
    }

    private static Chosen<int?> Agreed(SourcedRecord[] order)
    {
        var years = order.Where(r => r.Record.Year is not null).GroupBy(r => r.Record.Year).OrderByDescending(g => g.Count()).FirstOrDefault();
        return years is null ? new(null, order[0].RecordId) : new(years.Key, years.First().RecordId);
    }

    private static Chosen<T> First<T>(SourcedRecord[] order, Func<Record, T> value, Func<T, bool> has, T none)
    {
        foreach (var r in order)
        {
            var v = value(r.Record);
            if (has(v)) return new(v, r.RecordId);
        }
        return new(none, order[0].RecordId);
    }
}
