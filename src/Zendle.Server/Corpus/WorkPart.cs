using System.Runtime.CompilerServices;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>What the columns need of one work, as far as it follows from the work's own records.</summary>
/// <param name="Work">The work.</param>
/// <param name="Rows">Its records, the oldest first: what the columns take, and what references are held against.</param>
/// <param name="Mentions">The people it names; empty when people are not told apart.</param>
/// <param name="Venue">The venue it shows; null for none.</param>
/// <param name="Year">The year it shows; 0 for none.</param>
/// <param name="IsItem">Whether it counts for the standing of its journal: an article or a review.</param>
internal sealed record WorkPart(int Work, IReadOnlyList<(ColumnRow Row, MergeFacts Facts)> Rows, IReadOnlyList<Mention> Mentions, VenuePart? Venue, int Year, bool IsItem)
{
    /// <summary>The parts of the works whose records come one after another. Streams; records are prepared on all cores.</summary>
    /// <param name="records">The records, those of one work together.</param>
    /// <param name="trust">Rank of trust by database.</param>
    /// <param name="withPeople">Whether people are told apart.</param>
    /// <param name="cancel">Stops.</param>
    public static async IAsyncEnumerable<WorkPart> Of(IAsyncEnumerable<StoredRecord> records, IReadOnlyDictionary<int, int> trust, bool withPeople, [EnumeratorCancellation] CancellationToken cancel)
    {
        const int AtOnce = 512;
        var waiting = new List<List<StoredRecord>>();
        await foreach (var record in records.WithCancellation(cancel))
        {
            if (waiting.Count > 0 && waiting[^1][0].WorkId == record.WorkId)
            {
                waiting[^1].Add(record);
                continue;
            }
            if (waiting.Count == AtOnce)
            {
                foreach (var part in Made()) yield return part;
                waiting.Clear();
            }
            waiting.Add([record]);
        }
        foreach (var part in Made()) yield return part;

        WorkPart[] Made() => [.. waiting.AsParallel().AsOrdered().WithCancellation(cancel).Select(w => Of(w, trust, withPeople))];
    }

    private static WorkPart Of(List<StoredRecord> stored, IReadOnlyDictionary<int, int> trust, bool withPeople)
    {
        var work = stored[0].WorkId;
        var records = stored.Select(s => new SourcedRecord(s.Id, s.DatabaseId, trust[s.DatabaseId], s.Record)).ToArray();
        var chosen = ChosenFields.From(records);
        return new(work, [.. stored.Select(s => (Row(s, trust[s.DatabaseId]), MergeFacts.Of(s.Id, s.DatabaseId, s.Record)))], withPeople ? Mention.Of(work, records, chosen) : [], chosen.Venue.Value,
            chosen.Year.Value ?? 0, chosen.Type.Value is DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview);
    }

    private static ColumnRow Row(StoredRecord s, int trust)
    {
        var r = s.Record;
        return new(s.Id, s.WorkId, s.DatabaseId, trust, r.Year, r.Type, r.Language, r.Title, r.People.Count > 0 ? r.People[0].Family : null,
            [.. r.People.Select(p => p.Short)], r.Venue?.Title, r.Subjects, TextAtHand.Best(r.Copies), r.CitedCount, MergeKeys.Doi(r.Doi), s.TitleKey, s.ReferenceKeys, r.IsOnlyCited,
            new([.. r.People.Select(p => p.Affiliation).OfType<string>().Distinct()], r.Places, r.Funders, r.Keywords));
    }
}
