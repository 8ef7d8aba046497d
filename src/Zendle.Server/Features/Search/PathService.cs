using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>One step as it is shown.</summary>
/// <param name="Id">Its id.</param>
/// <param name="ParentId">The step before it.</param>
/// <param name="Label">What it changed, or the name a person gave it.</param>
/// <param name="Named">Whether a person named it.</param>
/// <param name="Count">Works in view when it was taken.</param>
/// <param name="CountNow">Works in view today.</param>
/// <param name="Act">The act.</param>
/// <param name="Ahead">Whether it lies after the step in view.</param>
/// <param name="Branches">Other steps taken from the same place.</param>
internal sealed record PathStepDto(
    int Id,
    int? ParentId,
    string Label,
    bool Named,
    int Count,
    int CountNow,
    StepAct Act,
    bool Ahead,
    IReadOnlyList<BranchDto> Branches
);

internal sealed record BranchDto(int Id, string Label, int Count);

internal sealed record PathDto(int StepId, IReadOnlyList<PathStepDto> Steps);

/// <summary>Takes, names and removes steps, and shows paths.</summary>
internal sealed class PathService(
    IDbContextFactory<ZendleContext> contexts,
    SearchService search,
    CorpusService corpus,
    MadeOn madeOn,
    EventHub hub,
    TimeProvider clock
)
{
    /// <summary>Takes a step from another (0 for a new path), logs the run, remembers the place.</summary>
    /// <returns>The step's id, or null when there is no such step to go on from.</returns>
    public async Task<int?> Take(int reviewId, string account, int parentId, StepAct act, int? repeats = null)
    {
        var before = parentId == 0 ? SearchState.Everything : await search.StateOf(reviewId, parentId);
        if (before is null)
            return null;
        if (act is SearchAct words)
            act = before.Toward(words.Expression);
        using var view = await search.View(reviewId, before.After(act));
        await using var context = await contexts.CreateDbContextAsync();
        // The same act again from the same step leads to the one that is there; a search from nothing always begins a
        // path of its own.
        var json = StoredActs.Write(act);
        var parent = parentId == 0 ? (int?)null : parentId;
        var same =
            repeats is not null || (parent is null && act is not SeedsAct)
                ? null
                : await context.Steps.FirstOrDefaultAsync(s =>
                    s.ReviewId == reviewId
                    && s.ParentId == parent
                    && s.Act == json
                    && !s.Removed
                    && s.Generation == view.Snapshot.Generation
                );
        var step =
            same
            ?? new StepRow
            {
                ReviewId = reviewId,
                ParentId = parent,
                Act = json,
                Label = act.Label(Names(view.Snapshot)),
                Count = view.Answer.Count,
                Generation = view.Snapshot.Generation,
                AccountId = account,
                At = clock.GetUtcNow(),
            };
        await using var transaction = await context.Database.BeginTransactionAsync();
        if (same is null)
        {
            context.Steps.Add(step);
            await madeOn.Note(context, [.. act.NamedWorks()], CancellationToken.None);
            await context.SaveChangesAsync();
            context.Runs.Add(Run(reviewId, account, step.Id, view, repeats));
        }
        await Remember(context, reviewId, account, step.Id, view.State.HasSeeds);
        await context.SaveChangesAsync();
        await transaction.CommitAsync();
        if (same is null)
            hub.Tell(new("review", reviewId));
        return step.Id;
    }

    /// <summary>The path through a step: from its first step over it to the latest that follows.</summary>
    public async Task<PathDto?> Path(int reviewId, int stepId)
    {
        if (stepId == 0)
            return new(0, []);
        await using var context = await contexts.CreateDbContextAsync();
        var all = await context
            .Steps.AsNoTracking()
            .Where(s => s.ReviewId == reviewId && !s.Removed)
            .ToDictionaryAsync(s => s.Id);
        if (!all.TryGetValue(stepId, out var here))
            return null;
        var children = all.Values.ToLookup(s => s.ParentId ?? 0);
        var chain = new List<StepRow>();
        for (var s = here; ; s = all[s.ParentId.Value])
        {
            chain.Insert(0, s);
            if (s.ParentId is null)
                break;
        }
        for (var next = Latest(children[stepId]); next is not null; next = Latest(children[next.Id]))
            chain.Add(next);
        using var snapshot = corpus.Snapshot();
        var steps = new List<PathStepDto>();
        var state = SearchState.Everything;
        var ahead = false;
        foreach (var s in chain)
        {
            var act = StoredActs.Read(s.Act);
            state = state.After(act);
            var now = s.Count;
            if (s.Generation != snapshot.Generation || state.AsksMoreThanCorpus)
                using (var view = await search.View(reviewId, state, snapshot))
                    now = view.Answer.Count;
            // Other first steps are other paths, not branches of this one.
            var branches = s.ParentId is null
                ? []
                : children[s.ParentId.Value]
                    .Where(b => b.Id != s.Id)
                    .OrderByDescending(b => b.Id)
                    .Select(b => new BranchDto(b.Id, b.Name ?? b.Label, b.Count))
                    .ToArray();
            steps.Add(new(s.Id, s.ParentId, s.Name ?? s.Label, s.Name is not null, s.Count, now, act, ahead, branches));
            if (s.Id == stepId)
                ahead = true;
        }
        return new(stepId, steps);

        static StepRow? Latest(IEnumerable<StepRow> rows) => rows.MaxBy(r => r.Id);
    }

    /// <summary>First steps of all paths of a review, youngest first.</summary>
    public async Task<List<BranchDto>> Paths(int reviewId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        return
        [
            .. (
                await context
                    .Steps.AsNoTracking()
                    .Where(s => s.ReviewId == reviewId && s.ParentId == null && !s.Removed)
                    .OrderByDescending(s => s.Id)
                    .Take(40)
                    .ToListAsync()
            ).Select(s => new BranchDto(s.Id, s.Name ?? s.Label, s.Count)),
        ];
    }

    /// <summary>What some steps are called.</summary>
    public async Task<Dictionary<int, string>> Labels(int reviewId, IReadOnlyCollection<int> steps)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var known = await context
            .Steps.AsNoTracking()
            .Where(s => s.ReviewId == reviewId && steps.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, s => s.Name ?? s.Label);
        return steps.Distinct().ToDictionary(s => s, s => known.GetValueOrDefault(s, "everything"));
    }

    /// <summary>Gives a step a name; an empty one takes it away.</summary>
    public async Task<bool> Rename(int reviewId, int stepId, string name)
    {
        await using var context = await contexts.CreateDbContextAsync();
        return await context
                .Steps.Where(s => s.Id == stepId && s.ReviewId == reviewId && !s.Removed)
                .ExecuteUpdateAsync(u => u.SetProperty(s => s.Name, name.Length == 0 ? null : name)) > 0;
    }

    /// <summary>Takes a step out of its path; what followed follows the step before it, and is counted anew.</summary>
    /// <returns>The step to go to, 0 for none; null when there is no such step.</returns>
    public async Task<int?> Remove(int reviewId, string account, int stepId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        await using var transaction = await context.Database.BeginTransactionAsync();
        var step = await context.Steps.SingleOrDefaultAsync(s =>
            s.Id == stepId && s.ReviewId == reviewId && !s.Removed
        );
        if (step is null)
            return null;
        step.Removed = true;
        var children = await Following(context, reviewId, stepId);
        // What only narrowed the trail that goes away goes with it; what follows that follows on.
        if (StoredActs.Read(step.Act).BeginsAnew())
        {
            var before = await search.StateOf(reviewId, step.ParentId ?? 0) ?? SearchState.Everything;
            for (var i = 0; i < children.Count; )
            {
                if (StoredActs.Read(children[i].Act).SaysSomethingIn(before))
                {
                    i++;
                    continue;
                }
                children[i].Removed = true;
                var next = await Following(context, reviewId, children[i].Id);
                children.RemoveAt(i);
                children.InsertRange(i, next);
            }
        }
        foreach (var child in children)
            child.ParentId = step.ParentId;
        await context.SaveChangesAsync();
        using var snapshot = corpus.Snapshot();
        var states = await Recount(context, snapshot, reviewId, step.ParentId, children);
        var goTo = children.Count > 0 ? children[^1].Id : step.ParentId ?? 0;
        // Who stood on a step that went away stands on the one to go to.
        if (goTo != 0)
            await Remember(context, reviewId, account, goTo, states[goTo].HasSeeds);
        else
        {
            await context
                .Places.Where(p => p.ReviewId == reviewId && p.StepId == stepId)
                .ExecuteUpdateAsync(u => u.SetProperty(p => p.StepId, 0));
            await context
                .Places.Where(p => p.ReviewId == reviewId && p.TrailStepId == stepId)
                .ExecuteUpdateAsync(u => u.SetProperty(p => p.TrailStepId, 0));
        }
        await context.SaveChangesAsync();
        await transaction.CommitAsync();
        return goTo;
    }

    private static Task<List<StepRow>> Following(ZendleContext context, int reviewId, int stepId) =>
        context
            .Steps.Where(s => s.ReviewId == reviewId && s.ParentId == stepId && !s.Removed)
            .OrderBy(s => s.Id)
            .ToListAsync();

    /// <summary>Changes what a step does; what follows it is counted anew, and the changed search is logged.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="account">Who changes it.</param>
    /// <param name="stepId">The step.</param>
    /// <param name="act">The act that takes the place of the old one; of the same kind.</param>
    /// <returns>Null when it is changed; else why not.</returns>
    public async Task<string?> Change(int reviewId, string account, int stepId, StepAct act)
    {
        await using var context = await contexts.CreateDbContextAsync();
        await using var transaction = await context.Database.BeginTransactionAsync();
        var step = await context.Steps.SingleOrDefaultAsync(s =>
            s.Id == stepId && s.ReviewId == reviewId && !s.Removed
        );
        if (step is null)
            return "This step is not part of the review any more.";
        if (!StoredActs.Read(step.Act).CanBecome(act))
            return "A step can be changed, but not into another kind of step.";
        step.Act = StoredActs.Write(act);
        await madeOn.Note(context, [.. act.NamedWorks()], CancellationToken.None);
        using var snapshot = corpus.Snapshot();
        step.Label = act.Label(Names(snapshot));
        var states = await Recount(context, snapshot, reviewId, step.ParentId, [step]);
        using (var view = await search.View(reviewId, states[step.Id], snapshot))
            context.Runs.Add(Run(reviewId, account, step.Id, view, null));
        await context.SaveChangesAsync();
        await transaction.CommitAsync();
        hub.Tell(new("review", reviewId));
        return null;
    }

    /// <summary>Counts steps and all that follow them anew.</summary>
    /// <returns>The states by step; the one before the first of them under its id, or under 0.</returns>
    private async Task<Dictionary<int, SearchState>> Recount(
        ZendleContext context,
        CorpusSnapshot snapshot,
        int reviewId,
        int? parentId,
        IEnumerable<StepRow> first
    )
    {
        var waiting = new Queue<StepRow>(first);
        var states = new Dictionary<int, SearchState>
        {
            [parentId ?? 0] = parentId is { } parent
                ? (await search.StateOf(reviewId, parent))!
                : SearchState.Everything,
        };
        while (waiting.TryDequeue(out var s))
        {
            var state = states[s.Id] = states[s.ParentId ?? 0].After(StoredActs.Read(s.Act));
            using var view = await search.View(reviewId, state, snapshot);
            (s.Count, s.Generation) = (view.Answer.Count, view.Snapshot.Generation);
            foreach (
                var next in await context
                    .Steps.Where(x => x.ReviewId == reviewId && x.ParentId == s.Id && !x.Removed)
                    .ToListAsync()
            )
                waiting.Enqueue(next);
        }
        return states;
    }

    /// <summary>Remembers where an account is.</summary>
    public async Task Visit(int reviewId, string account, int stepId)
    {
        var isTrail = (await search.StateOf(reviewId, stepId))?.HasSeeds == true;
        await using var context = await contexts.CreateDbContextAsync();
        await Remember(context, reviewId, account, stepId, isTrail);
        await context.SaveChangesAsync();
    }

    private static async Task Remember(ZendleContext context, int reviewId, string account, int stepId, bool isTrail)
    {
        var place = await context.Places.SingleOrDefaultAsync(p => p.ReviewId == reviewId && p.AccountId == account);
        if (place is null)
            context.Places.Add(place = new() { ReviewId = reviewId, AccountId = account });
        if (isTrail)
            place.TrailStepId = stepId;
        else
            place.StepId = stepId;
    }

    /// <summary>What the log keeps of a search that is run.</summary>
    public RunRow Run(int reviewId, string account, int stepId, SearchView view, int? repeats)
    {
        return new()
        {
            ReviewId = reviewId,
            StepId = stepId,
            Repeats = repeats,
            State = StoredActs.WriteAll(view.State.Acts()),
            Ledger = JsonSerializer.Serialize(view.Ledger(), StoredJson.Options),
            Count = view.Answer.Count,
            Works = WorkIds.Pack(view.Answer.InView.ToArray()),
            Generation = view.Snapshot.Generation,
            AccountId = account,
            At = clock.GetUtcNow(),
        };
    }

    /// <summary>Names of what acts speak of: a work by its first person and year.</summary>
    private static ActNames Names(CorpusSnapshot snapshot) =>
        new(
            id =>
                snapshot.ReporterNames.GetValueOrDefault(
                    id,
                    id == CorpusColumns.NoDatabase ? CorpusColumns.NoDatabaseName : "?"
                ),
            id => WorkName(snapshot.Columns, id)
        );

    private static string WorkName(CorpusColumns columns, int id) =>
        (uint)id >= (uint)columns.WorkSize ? "a work that is gone" : WorkNames.Of(columns, id);
}
