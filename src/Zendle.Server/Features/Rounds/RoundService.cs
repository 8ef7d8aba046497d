using System.Collections.Immutable;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Server.Events;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Rounds;

/// <summary>
/// Rounds of a review: trails of what was kept are followed, their candidates looked through, what is kept of them starts
/// the next round; and whether that is enough.
/// </summary>
internal sealed class RoundService(
    IDbContextFactory<ZendleContext> contexts,
    SearchService search,
    PathService paths,
    FoundByRuns runs,
    CorpusReader reader,
    EventHub hub,
    TimeProvider clock
)
{
    /// <summary>Rounds are begun one at a time, so that each has a number of its own; a look is noted once.</summary>
    private static readonly SemaphoreSlim Changing = new(1, 1);

    /// <summary>Begins a round.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="account">Who begins it.</param>
    /// <param name="request">What makes a candidate.</param>
    /// <returns>The step that holds the candidates; or why there is no round to begin.</returns>
    public async Task<(int? StepId, ActFault? Fault)> Begin(int reviewId, string account, NewRoundRequest request)
    {
        await Changing.WaitAsync();
        try
        {
            await using var context = await contexts.CreateDbContextAsync();
            var rounds = await Rows(context, reviewId);
            using var all = (await search.View(reviewId, 0))!;
            var kept = all.Facts.Kept.Copy();
            if (request.FromAllKept != true)
                foreach (var (_, state) in await States(reviewId, rounds))
                foreach (var seed in state?.Round?.Seeds ?? [])
                    if (kept.Contains(seed))
                        kept.Remove(seed);
            int[] seeds = kept.ToArray();
            if (seeds.Length == 0 && !all.Facts.Kept.IsEmpty)
                return (
                    null,
                    new(
                        "Nothing was kept since the last round.",
                        "Keep works of its candidates first, or begin one from all kept works."
                    )
                );
            var number = rounds.Count == 0 ? 1 : rounds[^1].Number + 1;
            var act = new RoundAct(seeds, request.Kinds, request.AtLeast ?? 1, [], number);
            if (act.Fault() is { } fault)
                return (null, fault);
            int[] known;
            int found;
            using (var view = await search.View(reviewId, SearchState.Of([act])))
            {
                var met = Judged(view);
                foreach (var work in await LookedBy(context, reviewId, account))
                    if (work < met.Size)
                        met.Add(work);
                met.IntersectWith(view.Answer.Before);
                (known, found) = (met.ToArray(), view.Answer.Before.Count());
            }
            var step = await paths.Take(reviewId, account, 0, act with { Known = known });
            context.Rounds.Add(
                new()
                {
                    ReviewId = reviewId,
                    Number = number,
                    StepId = step!.Value,
                    Found = found,
                    New = found - known.Length,
                    AccountId = account,
                    At = clock.GetUtcNow(),
                }
            );
            await context.SaveChangesAsync();
            hub.Tell(new("review", reviewId));
            return (step, null);
        }
        finally
        {
            Changing.Release();
        }
    }

    /// <summary>The rounds of a review, and what they say of what is missing.</summary>
    public async Task<RoundsDto> Of(int reviewId, string account, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = await Rows(context, reviewId);
        using var all = (await search.View(reviewId, 0))!;
        var looked = WorkSet.Of(all.Facts.Kept.Size, await LookedBy(context, reviewId, account));
        var names = await context.DisplayNamesOf(rows.Select(r => r.AccountId), cancel);
        var (rounds, seeds) = (new List<RoundDto>(), new HashSet<int>());
        var left = new WorkSet(all.Facts.Kept.Size);
        SearchView? last = null;
        try
        {
            foreach (var (row, state) in await States(reviewId, rows))
            {
                if (state?.Round is not { } question)
                    continue;
                seeds.UnionWith(question.Seeds);
                var view = await search.View(reviewId, state, all.Snapshot);
                var ofRound = Left(view, looked);
                left.UnionWith(ofRound);
                var told = Told(row, question, view, ofRound.Count(), names.GetValueOrDefault(row.AccountId, ""));
                rounds.Add(told);
                if (told.Kept > 0)
                    (last, view) = (view, last);
                view?.Dispose();
            }
            var fresh = all.Facts.Kept.Members().Count(w => !seeds.Contains(w));
            return new(
                rounds,
                fresh,
                all.Facts.Kept.Count(),
                await Enough(context, reviewId, all, left.Count(), cancel),
                last is null ? null : Arriving(last, rounds[^1].Number)
            );
        }
        finally
        {
            last?.Dispose();
        }
    }

    /// <summary>Notes works as looked at. O(works, and those noted before).</summary>
    public async Task Looked(int reviewId, string account, IReadOnlyCollection<int> works)
    {
        await Changing.WaitAsync();
        try
        {
            await using var context = await contexts.CreateDbContextAsync();
            var at = clock.GetUtcNow();
            var known = await LookedBy(context, reviewId, account);
            context.Looked.AddRange(
                works
                    .Except(known)
                    .Select(work => new LookedRow
                    {
                        ReviewId = reviewId,
                        AccountId = account,
                        WorkId = work,
                        At = at,
                    })
            );
            await context.SaveChangesAsync();
        }
        finally
        {
            Changing.Release();
        }
    }

    /// <summary>The works of a step that a person looked at; null when the review has no such step.</summary>
    public async Task<int[]?> LookedIn(int reviewId, string account, int stepId)
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null)
            return null;
        await using var context = await contexts.CreateDbContextAsync();
        return [.. (await LookedBy(context, reviewId, account)).Where(view.Answer.Before.Contains)];
    }

    private static Task<List<RoundRow>> Rows(ZendleContext context, int reviewId) =>
        context.Rounds.AsNoTracking().Where(r => r.ReviewId == reviewId).OrderBy(r => r.Number).ToListAsync();

    private static Task<List<int>> LookedBy(ZendleContext context, int reviewId, string account) =>
        context
            .Looked.Where(l => l.ReviewId == reviewId && l.AccountId == account)
            .OrderBy(l => l.WorkId)
            .Select(l => l.WorkId)
            .ToListAsync();

    private async Task<List<(RoundRow Row, SearchState? State)>> States(int reviewId, List<RoundRow> rows)
    {
        var states = new List<(RoundRow, SearchState?)>();
        foreach (var row in rows)
            states.Add((row, await search.StateOf(reviewId, row.StepId)));
        return states;
    }

    private static WorkSet Judged(SearchView view)
    {
        var judged = view.Facts.Kept.Copy();
        judged.UnionWith(view.Facts.SetAside);
        return judged;
    }

    /// <summary>The candidates of a round that nobody judged and a person has not looked at.</summary>
    private static WorkSet Left(SearchView view, WorkSet looked)
    {
        var left = view.Answer.Before.Copy();
        left.ExceptWith(Judged(view));
        left.ExceptWith(looked);
        return left;
    }

    private static RoundDto Told(RoundRow row, RoundQuestion question, SearchView view, int left, string by)
    {
        var candidates = view.Answer.Before;
        return new(
            row.Number,
            row.StepId,
            row.At,
            by,
            question.Seeds.Length,
            question.Kinds,
            question.AtLeast,
            row.Found,
            row.New,
            candidates.Count(),
            candidates.CountWith(view.Facts.Kept),
            candidates.CountWith(view.Facts.SetAside),
            left
        );
    }

    /// <summary>
    /// How many works there are in all, from two ways of finding: searches, and ties to other kept works.
    /// </summary>
    private async Task<EnoughDto> Enough(
        ZendleContext context,
        int reviewId,
        SearchView view,
        int left,
        CancellationToken cancel
    )
    {
        var (kept, graph) = (view.Facts.Kept, view.Snapshot.Columns.Graph);
        var searched = await Searched(context, reviewId, view, cancel);
        searched.Works.IntersectWith(kept);
        var tied = new WorkSet(kept.Size);
        foreach (var work in kept)
            if (Any(graph.Cites(work), kept) || Any(graph.CitedBy(work), kept))
                tied.Add(work);
        var (first, second, both) = (searched.Works.Count(), tied.Count(), searched.Works.CountWith(tied));
        return new(
            first,
            second,
            both,
            kept.Count(),
            left,
            searched.OfRecord,
            left > 0 ? null : MissingEstimate.Of(first, second, both)
        );
    }

    private static bool Any(ReadOnlySpan<int> works, WorkSet kept)
    {
        foreach (var work in works)
            if (kept.Contains(work))
                return true;
        return false;
    }

    /// <summary>What searches found when they were run: those of record, or all where none is.</summary>
    private async Task<(WorkSet Works, bool OfRecord)> Searched(
        ZendleContext context,
        int reviewId,
        SearchView view,
        CancellationToken cancel
    )
    {
        var (works, ofRecord) = await runs.Of(context, reviewId, cancel);
        // What was merged since stands for what it was merged into.
        var gone = works.Where(w => !view.Snapshot.Columns.IsWork(w)).ToArray();
        var today = gone.Length == 0 ? [] : (await reader.Redirects(gone, cancel)).Values.ToArray();
        return (WorkSet.Of(view.Snapshot.Columns.WorkSize, works.Concat(today)), ofRecord);
    }

    /// <summary>What kind of works the last round that brought any still brought.</summary>
    private static ArrivingDto Arriving(SearchView view, int last)
    {
        var (columns, trail) = (view.Snapshot.Columns, view.Answer.Trail!);
        var kept = view.Answer.Before.Copy();
        kept.IntersectWith(view.Facts.Kept);
        int[] years = [.. kept.Members().Select(w => (int)columns.Year[w]).Where(y => y > 0).Order()];
        var databases = columns.Of(Facet.Database);
        return new(
            view.State.Round!.Number,
            view.State.Round.Number == last,
            kept.Count(),
            kept.Members().Count(w => trail.Past.Ties(w) > 0),
            kept.Members().Count(w => trail.Future.Ties(w) > 0),
            kept.Members().Count(w => trail.Past.Ties(w) == 0 && trail.Future.Ties(w) == 0),
            years.Length == 0 ? null : years[0],
            years.Length == 0 ? null : years[^1],
            [
                .. databases
                    .Count(kept)
                    .OrderByDescending(d => d.Count)
                    .ThenBy(d => d.Value)
                    .Select(d => new HeldByDto(databases.Names[d.Value], d.Count)),
            ]
        );
    }
}
