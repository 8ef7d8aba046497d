using System.Collections.Concurrent;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;
using Zendle.Server.Corpus;
using Zendle.Server.Features.Events;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Decisions;

/// <summary>Writes decision events and holds each review's fold, rebuilt when the corpus moves under it.</summary>
internal sealed class DecisionService(
    IDbContextFactory<ZendleContext> contexts,
    CorpusService corpus,
    CorpusReader reader,
    MadeOn madeOn,
    EventHub hub,
    TimeProvider clock
)
{
    private readonly ConcurrentDictionary<int, Cached> folds = new();

    /// <summary>A review's stages and tags over the works of today.</summary>
    public async Task<ReviewFacts> Facts(int reviewId) => (await Load(reviewId)).Facts;

    /// <summary>A review's fold and facts, of one moment. The fold must not be changed.</summary>
    public async Task<(DecisionFold Fold, ReviewFacts Facts)> Of(int reviewId)
    {
        var cached = await Load(reviewId);
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
        var entry = await Load(reviewId);
        await entry.Gate.WaitAsync();
        try
        {
            entry = await Load(reviewId);
            using var snapshot = corpus.Snapshot();
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
            entry.Gate.Release();
        }
    }

    /// <summary>Takes an act back; by default the last own one.</summary>
    /// <returns>Why not, or how many works changed and what had been done.</returns>
    public async Task<(string? WhyNot, int Changed, DecisionAct? Act)> Undo(int reviewId, string account, Guid? batch)
    {
        var entry = await Load(reviewId);
        await entry.Gate.WaitAsync();
        try
        {
            entry = await Load(reviewId);
            var target = batch ?? entry.Fold.LastBatchOf(account);
            if (target is null)
                return ("There is no act of yours left to take back in this review.", 0, null);
            if (entry.Fold.WhyNotUndo(target.Value, account) is { } no)
                return (no, 0, null);
            var own = entry.Fold.Events.Where(e => e.Batch == target).ToArray();
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
            return (null, own.Length, own[0].Act);
        }
        finally
        {
            entry.Gate.Release();
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
        // The fold that readers hold is left alone; a new one takes its place.
        var events = entry.Fold.Events.Concat(rows.OrderBy(r => r.Id).Select(Event));
        folds[reviewId] = await Build(entry.Gate, [.. events]);
        hub.Tell(new("review", reviewId));
    }

    private async Task<Cached> Load(int reviewId)
    {
        using var snapshot = corpus.Snapshot();
        var known = folds.GetValueOrDefault(reviewId);
        if (known is not null && known.Generation == snapshot.Generation)
            return known;
        List<DecisionEvent> events;
        await using (var context = await contexts.CreateDbContextAsync())
            events =
            [
                .. (
                    await context
                        .Decisions.AsNoTracking()
                        .Where(d => d.ReviewId == reviewId)
                        .OrderBy(d => d.Id)
                        .ToListAsync()
                ).Select(Event),
            ];
        var built = await Build(known?.Gate ?? new SemaphoreSlim(1, 1), events);
        return folds.AddOrUpdate(
            reviewId,
            _ => built,
            (_, other) =>
                other.Generation == snapshot.Generation
                && other.Fold.LastSequence >= (events.Count == 0 ? 0 : events[^1].Sequence)
                    ? other
                    : built with
                    {
                        Gate = other.Gate,
                    }
        );
    }

    /// <summary>
    /// Forgets what decisions stand for: numbers that stood for nothing may stand for a work now. Those who are
    /// deciding are waited for by the next.
    /// </summary>
    public void Forget()
    {
        foreach (var review in folds.Keys)
            folds.AddOrUpdate(
                review,
                _ => throw new InvalidOperationException(),
                (_, old) => old with { Generation = -1 }
            );
    }

    private async Task<Cached> Build(SemaphoreSlim gate, IReadOnlyList<DecisionEvent> events)
    {
        using var snapshot = corpus.Snapshot();
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
            gate,
            snapshot.Generation,
            fold,
            new ReviewFacts(fold, snapshot.Columns.WorkSize, w => (uint)w < (uint)first.Length && first[w] > 0)
        );
    }

    private static DecisionEvent Event(DecisionRow d) =>
        new(d.Id, d.Batch, d.WorkId, d.RecordId, d.Act, d.Value, d.AccountId, d.At, d.Undoes);

    private sealed record Cached(SemaphoreSlim Gate, long Generation, DecisionFold Fold, ReviewFacts Facts);
}
