using System.Runtime.CompilerServices;
using System.Threading.Channels;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>What the columns need of one work, as far as it follows from the work's own records.</summary>
/// <param name="Work">The work.</param>
/// <param name="Shown">Its single values.</param>
/// <param name="Rows">Its records, the oldest first: what the columns take, and what references are held
/// against.</param>
/// <param name="Mentions">The people it names.</param>
/// <param name="Venue">The venue it shows; null for none.</param>
/// <param name="IsItem">Whether it counts for the standing of its journal: an article or a review.</param>
internal sealed record WorkPart(
    int Work,
    WorkValues Shown,
    IReadOnlyList<(ColumnRow Row, Findable Findable)> Rows,
    IReadOnlyList<Mention> Mentions,
    VenuePart? Venue,
    bool IsItem
)
{
    /// <summary>
    /// The parts of the works whose records come one after another. Streams; records are prepared on all cores, and
    /// while some works are taken up the next are prepared and those after them read.
    /// </summary>
    /// <param name="records">The records, those of one work together.</param>
    /// <param name="trust">Rank of trust by database.</param>
    /// <param name="cancel">Stops.</param>
    /// <param name="each">Is shown every record with its id, on whichever core; null for nobody.</param>
    /// <param name="resolved">By work the names of references that people said mean it; null for none.</param>
    public static async IAsyncEnumerable<WorkPart> Of(
        IAsyncEnumerable<StoredRecord> records,
        IReadOnlyDictionary<int, int> trust,
        [EnumeratorCancellation] CancellationToken cancel,
        Action<int, Record>? each = null,
        ILookup<int, ulong>? resolved = null
    )
    {
        using var stop = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        var prepared = Channel.CreateBounded<WorkPart[]>(1);
        var preparing = Task.Run(Prepare, CancellationToken.None);
        try
        {
            await foreach (var parts in prepared.Reader.ReadAllAsync(cancel))
            foreach (var part in parts)
                yield return part;
        }
        finally
        {
            await stop.CancelAsync();
            await preparing;
        }

        async Task Prepare()
        {
            try
            {
                await foreach (var works in Portions(records, stop.Token))
                    await prepared.Writer.WriteAsync(
                        works
                            .AsParallel()
                            .AsOrdered()
                            .WithCancellation(stop.Token)
                            .Select(w => Of(w, trust, each, resolved))
                            .ToArray(),
                        stop.Token
                    );
                prepared.Writer.Complete();
            }
            // Whoever takes the parts is told.
            catch (Exception e)
            {
                prepared.Writer.Complete(e);
            }
        }
    }

    /// <summary>Works by the thousand, each with its records; the next are read while some are looked at.</summary>
    private static async IAsyncEnumerable<List<List<StoredRecord>>> Portions(
        IAsyncEnumerable<StoredRecord> records,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        const int AtOnce = 1_024;
        await using var rows = records.GetAsyncEnumerator(cancel);
        StoredRecord? following = null;
        var reading = Task.Run(Next, cancel);
        try
        {
            while (await reading is { Count: > 0 } works)
            {
                reading = Task.Run(Next, cancel);
                yield return works;
            }
        }
        finally
        {
            await reading.ContinueWith(
                _ => { },
                CancellationToken.None,
                TaskContinuationOptions.None,
                TaskScheduler.Default
            );
        }

        async Task<List<List<StoredRecord>>> Next()
        {
            var works = new List<List<StoredRecord>>();
            if (following is not null)
                works.Add([following]);
            following = null;
            while (await rows.MoveNextAsync())
            {
                if (works.Count > 0 && works[^1][0].WorkId == rows.Current.WorkId)
                    works[^1].Add(rows.Current);
                else if (works.Count < AtOnce)
                    works.Add([rows.Current]);
                else
                {
                    following = rows.Current;
                    break;
                }
            }
            return works;
        }
    }

    private static WorkPart Of(
        List<StoredRecord> stored,
        IReadOnlyDictionary<int, int> trust,
        Action<int, Record>? each,
        ILookup<int, ulong>? resolved
    )
    {
        var work = stored[0].WorkId;
        var records = stored
            .Select(s => new SourcedRecord(s.Id, s.DatabaseId, trust[s.DatabaseId], s.Record(), s.IsWithdrawn))
            .ToArray();
        if (each is not null)
            foreach (var record in records)
                if (!record.IsWithdrawn)
                    each(record.RecordId, record.Record);
        var chosen = ChosenFields.From(records);
        // One record of a work is enough for a reference to find it.
        var oldest = stored.Min(s => s.Id);
        return new(
            work,
            WorkValues.Of(chosen),
            [
                .. stored.Zip(
                    records,
                    (s, r) => WithFindable(Row(s, r.Record), s, s.Id == oldest ? [.. resolved?[work] ?? []] : [])
                ),
            ],
            Mention.Of(work, records, chosen),
            chosen.Venue.Value,
            chosen.Type.Value is DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview
        );
    }

    private static (ColumnRow, Findable) WithFindable(ColumnRow row, StoredRecord s, ulong[] resolved) =>
        (row, Findable.Of(row.WorkId, row.Doi, row.TitleKey, row.Year ?? 0, s.Compared()) with { Resolved = resolved });

    /// <summary>
    /// What the columns take of a record. One that is in no database any more cites nothing, for no database says so;
    /// it can still be cited.
    /// </summary>
    private static ColumnRow Row(StoredRecord s, Record r) =>
        new(
            s.Id,
            s.WorkId,
            s.IsWithdrawn ? CorpusColumns.NoDatabase : s.DatabaseId,
            r.Year,
            r.Type,
            [.. r.People.Select(p => p.Short)],
            r.Subjects,
            TextAtHand.Best(r.Copies),
            r.CitedCount,
            MergeKeys.Doi(r.Doi),
            s.TitleKey,
            s.IsWithdrawn ? [] : s.ReferenceKeys,
            r.IsOnlyCited,
            new(
                [.. r.People.Select(p => p.Affiliation).OfType<string>().Distinct()],
                r.Places,
                r.Funders,
                [.. r.Keywords, .. r.ControlledTerms]
            ),
            r.Abstract.Length > 0
        );
}
