using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Reviews;

/// <summary>
/// Writes decision events and remembers the folds of reviews that are worked on, bounded in bytes. A decision adds to the
/// fold; it is made anew only when the corpus moves under it.
/// </summary>
internal sealed class DecisionService(
    IDbContextFactory<ZendleContext> contexts,
    CorpusService corpus,
    CorpusReader reader,
    MadeOn madeOn,
    EventHub hub,
    TimeProvider clock
)
{
    private const long MostRemembered = 24L << 20,
        RememberedPerWork = 16;
    private readonly ConcurrentDictionary<int, SemaphoreSlim> gates = new();
    private readonly BoundedCache<int, Cached> folds = new(MostRemembered);

    /// <summary>A review's fold and facts over the works of today, of one moment. The fold must not be changed.</summary>
    public async Task<(DecisionFold Fold, ReviewFacts Facts)> Of(int reviewId)
    {
        using var snapshot = corpus.Snapshot();
        return await Of(reviewId, snapshot);
    }

    /// <summary>
    /// A review's fold and facts over the works of a snapshot, of one moment. The fold must not be changed. Whoever has a
    /// snapshot already asks with it: sets of two snapshots do not fit each other.
    /// </summary>
    public async Task<(DecisionFold Fold, ReviewFacts Facts)> Of(int reviewId, CorpusSnapshot snapshot)
    {
        var cached = await Load(reviewId, snapshot);
        return (cached.Fold, cached.Facts);
    }

    /// <summary>Decides on works in one act. Works that already stand so are left as they are.</summary>
    /// <returns>The act's batch (null when nothing changed) and how many works changed.</returns>
    public async Task<(Guid? Batch, int Changed)> Decide(
        int reviewId,
        string account,
        DecisionAct act,
        IReadOnlyCollection<int> works,
        string? value
    )
    {
        var gate = Gate(reviewId);
        await gate.WaitAsync();
        try
        {
            using var snapshot = corpus.Snapshot();
            var entry = await Loaded(reviewId, snapshot);
            var changing = works
                .Where(w =>
                    w > 0
                    && w < snapshot.Columns.WorkSize
                    && snapshot.Columns.WorkFirstRecord[w] > 0
                    && Changes(entry.Fold.Of(w), act, value)
                )
                .Distinct()
                .ToArray();
            if (changing.Length == 0)
                return (null, 0);
            var batch = Guid.NewGuid();
            var at = clock.GetUtcNow();
            await Write(
                reviewId,
                entry,
                [
                    .. changing.Select(w => new DecisionRow
                    {
                        ReviewId = reviewId,
                        Batch = batch,
                        WorkId = w,
                        RecordId = snapshot.Columns.WorkFirstRecord[w],
                        Act = act,
                        Value = value,
                        AccountId = account,
                        At = at,
                    }),
                ]
            );
            return (batch, changing.Length);
        }
        finally
        {
            gate.Release();
        }
    }

    /// <summary>Takes an act back; by default the last own one.</summary>
    /// <returns>Why not, or how many works changed and what had been done.</returns>
    public async Task<(string? WhyNot, int Changed, DecisionAct? Act)> Undo(int reviewId, string account, Guid? batch)
    {
        var gate = Gate(reviewId);
        await gate.WaitAsync();
        try
        {
            using var snapshot = corpus.Snapshot();
            var entry = await Loaded(reviewId, snapshot);
            var target = batch ?? entry.Fold.LastBatchOf(account);
            if (target is null)
                return ("There is nothing of yours left to undo in this review.", 0, null);
            if (entry.Fold.WhyNotUndo(target.Value, account) is { } no)
                return (no, 0, null);
            var own = entry.Fold.Batch(target.Value);
            await Write(
                reviewId,
                entry,
                [
                    new DecisionRow
                    {
                        ReviewId = reviewId,
                        Batch = Guid.NewGuid(),
                        WorkId = own[0].WorkId,
                        RecordId = own[0].RecordId,
                        Act = own[0].Act,
                        Value = own[0].Value,
                        AccountId = account,
                        At = clock.GetUtcNow(),
                        Undoes = target,
                    },
                ]
            );
            return (null, own.Count, own[0].Act);
        }
        finally
        {
            gate.Release();
        }
    }

    private static bool Changes(Judgement now, DecisionAct act, string? value) =>
        act switch
        {
            DecisionAct.Keep => now.Stage != Stage.Kept,
            DecisionAct.SetAside => now.Stage != Stage.SetAside || now.Reason != value,
            DecisionAct.Clear => now.Stage != Stage.Found,
            DecisionAct.Tag => !now.Tags.Contains(value!),
            DecisionAct.Untag => now.Tags.Contains(value!),
            _ => throw new ArgumentOutOfRangeException(nameof(act)),
        };

    private async Task Write(int reviewId, Cached entry, List<DecisionRow> rows)
    {
        await using (var context = await contexts.CreateDbContextAsync())
        {
            context.Decisions.AddRange(rows);
            // An undo speaks of what was noted already.
            if (rows.All(r => r.Undoes is null))
                await madeOn.Note(context, [.. rows.Select(r => r.WorkId)], CancellationToken.None);
            await context.SaveChangesAsync();
        }
        // The fold that readers hold is left alone; another that shares most of it takes its place.
        DecisionEvent[] events = [.. rows.OrderBy(r => r.Id).Select(Event)];
        var (fold, works) = (entry.Fold.With(events), entry.Fold.WorksOf(events));
        Remember(reviewId, entry with { Fold = fold, Facts = entry.Facts.With(entry.Fold, fold, works) });
        hub.Tell(new("review", reviewId));
    }

    private SemaphoreSlim Gate(int reviewId) => gates.GetOrAdd(reviewId, _ => new(1, 1));

    private async Task<Cached> Load(int reviewId, CorpusSnapshot snapshot)
    {
        if (Known(reviewId, snapshot) is { } known)
            return known;
        var gate = Gate(reviewId);
        await gate.WaitAsync();
        try
        {
            return await Loaded(reviewId, snapshot);
        }
        finally
        {
            gate.Release();
        }
    }

    private Cached? Known(int reviewId, CorpusSnapshot snapshot) =>
        folds.TryGet(reviewId, out var known)
        && known.Generation == snapshot.Generation
        && known.Epoch == madeOn.TimesFound
            ? known
            : null;

    /// <summary>A review's decisions over the works of a snapshot; called by whoever is in the review's gate.</summary>
    private async Task<Cached> Loaded(int reviewId, CorpusSnapshot snapshot)
    {
        if (Known(reviewId, snapshot) is { } known)
            return known;
        // Read first: what is put in under an older count is looked at no more.
        var now = madeOn.TimesFound;
        await using var context = await contexts.CreateDbContextAsync();
        var events = (
            await context.Decisions.AsNoTracking().Where(d => d.ReviewId == reviewId).OrderBy(d => d.Id).ToListAsync()
        ).ConvertAll(Event);
        return Remember(reviewId, await Build(events, now, snapshot));
    }

    private Cached Remember(int reviewId, Cached entry)
    {
        folds.Put(reviewId, entry, entry.Bytes);
        return entry;
    }

    private async Task<Cached> Build(List<DecisionEvent> events, int now, CorpusSnapshot snapshot)
    {
        folds.MostBytes = MostRemembered + RememberedPerWork * snapshot.Columns.WorkSize;
        var (work, first) = (snapshot.Columns.RecordWork, snapshot.Columns.WorkFirstRecord);
        // An event follows its record to the work it belongs to today, or the work it was in when the record is gone.
        bool IsThere(DecisionEvent e) => e.RecordId < work.Length && work[e.RecordId] > 0;
        var redirects = await reader.Redirects(
            [.. events.Where(e => !IsThere(e)).Select(e => e.WorkId).Distinct()],
            CancellationToken.None
        );
        var fold = new DecisionFold(
            events,
            e => IsThere(e) ? work[e.RecordId] : redirects.GetValueOrDefault(e.WorkId, e.WorkId)
        );
        return new(
            snapshot.Generation,
            now,
            fold,
            new ReviewFacts(fold, snapshot.Columns.WorkSize, w => (uint)w < (uint)first.Length && first[w] > 0)
        );
    }

    private static DecisionEvent Event(DecisionRow d) =>
        new(d.Id, d.Batch, d.WorkId, d.RecordId, d.Act, d.Value, d.AccountId, d.At, d.Undoes);

    private sealed record Cached(long Generation, int Epoch, DecisionFold Fold, ReviewFacts Facts)
    {
        public long Bytes => 700L * Fold.Judgements.Count + Facts.Bytes + 1_000;
    }
}
