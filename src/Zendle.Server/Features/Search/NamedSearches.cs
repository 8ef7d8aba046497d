using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>A search that a person gave a name.</summary>
/// <param name="StepId">The step that bears the name.</param>
/// <param name="Name">The name.</param>
/// <param name="Asks">What it asks: the labels of the steps from its question on.</param>
/// <param name="IsTrail">Whether it starts from works: a trail, or neighbours.</param>
/// <param name="RunAt">When it was last run.</param>
/// <param name="Then">Works it found then.</param>
/// <param name="Now">Works it finds today.</param>
/// <param name="New">Works it finds today and did not then.</param>
/// <param name="Gone">Works it found then and does not today.</param>
internal sealed record NamedSearchDto(
    int StepId,
    string Name,
    IReadOnlyList<string> Asks,
    bool IsTrail,
    DateTimeOffset RunAt,
    int Then,
    int Now,
    int New,
    int Gone
);

/// <summary>What running a named search again gave.</summary>
/// <param name="New">Works that were not there at the last run.</param>
/// <param name="Gone">Works that are not there any more.</param>
/// <param name="NewStepId">A step that holds the new ones; null when there are none, or too many for a list.</param>
internal sealed record RanAgainDto(int New, int Gone, int? NewStepId);

/// <summary>Searches under a name: what each finds today against its last run, and running it again.</summary>
internal sealed class NamedSearches(
    IDbContextFactory<ZendleContext> contexts,
    SearchService search,
    PathService paths,
    SinceThen since
)
{
    private const long MostRemembered = 256 << 10;

    // What an answer is against a run does not change; answers and runs have keys of their own.
    private readonly BoundedCache<(string Answer, int Run), (int New, int Gone)> compared = new(MostRemembered);

    /// <summary>The named searches of a review, by name.</summary>
    public async Task<List<NamedSearchDto>> All(int reviewId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var steps = await context
            .Steps.AsNoTracking()
            .Where(s => s.ReviewId == reviewId && !s.Removed)
            .ToDictionaryAsync(s => s.Id);
        var found = new List<NamedSearchDto>();
        foreach (
            var step in steps
                .Values.Where(s => s.Name is not null)
                .OrderBy(s => s.Name, StringComparer.OrdinalIgnoreCase)
        )
        {
            using var view = await search.View(reviewId, step.Id);
            if (view is null || await LastRun(context, step) is not { } run)
                continue;
            var key = (view.Answer.Key, run.Id);
            if (!compared.TryGet(key, out var against))
            {
                var (_, fresh, gone) = await since.Of(view.Answer.InView, await Found(context, run.Id));
                compared.Put(key, against = (fresh.Length, gone), 200 + (2L * view.Answer.Key.Length));
            }
            var asks = new List<string>();
            for (var s = step; ; s = steps[s.ParentId.Value])
            {
                asks.Insert(0, s.Label);
                // A question put anew leaves nothing of the one before.
                if (s.ParentId is null || StoredActs.Read(s.Act).BeginsAnew())
                    break;
            }
            found.Add(
                new(
                    step.Id,
                    step.Name!,
                    asks,
                    view.State.HasSeeds,
                    run.At,
                    run.Count,
                    view.Answer.Count,
                    against.New,
                    against.Gone
                )
            );
        }
        return found;
    }

    /// <summary>
    /// Runs a named search again: logs the run, counts the step anew, and puts what is new into a step of its own
    /// behind it.
    /// </summary>
    /// <returns>What is new; null when there is no such search.</returns>
    public async Task<RanAgainDto?> Again(int reviewId, string account, int stepId)
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null || stepId == 0)
            return null;
        await using var context = await contexts.CreateDbContextAsync();
        var step = await context.Steps.SingleAsync(s => s.Id == stepId && s.ReviewId == reviewId);
        if (await LastRun(context, step) is not { } last)
            return null;
        var (_, fresh, gone) = await since.Of(view.Answer.InView, await Found(context, last.Id));
        context.Runs.Add(paths.Run(reviewId, account, stepId, view, last.Repeats ?? last.Id));
        (step.Count, step.Generation) = (view.Answer.Count, view.Snapshot.Generation);
        await context.SaveChangesAsync();
        int? holding = fresh.Length is 0 or > Core.Trails.TrailQuestion.MostSeeds
            ? null
            : await paths.Take(
                reviewId,
                account,
                stepId,
                new AmongAct(
                    fresh,
                    $"{fresh.Length:N0} new since "
                        + $"{last.At.UtcDateTime.ToString("d MMM yyyy", System.Globalization.CultureInfo.InvariantCulture)}"
                )
            );
        return new(fresh.Length, gone, holding);
    }

    private sealed record Ran(int Id, int? Repeats, DateTimeOffset At, int Count);

    /// <summary>The last run of a step, without what it found.</summary>
    private static Task<Ran?> LastRun(ZendleContext context, StepRow step) =>
        context
            .Runs.AsNoTracking()
            .Where(r => r.ReviewId == step.ReviewId && r.StepId == step.Id)
            .OrderByDescending(r => r.Id)
            .Select(r => new Ran(r.Id, r.Repeats, r.At, r.Count))
            .FirstOrDefaultAsync();

    /// <summary>The works a run found.</summary>
    private static async Task<int[]> Found(ZendleContext context, int run) =>
        WorkIds.Unpack(await context.Runs.Where(r => r.Id == run).Select(r => r.Works).SingleAsync());
}

internal static class NamedSearchEndpoints
{
    public static void MapNamedSearches(this RouteGroupBuilder review)
    {
        review.MapGet("/searches", (int reviewId, NamedSearches named) => named.All(reviewId));
        review
            .MapPost(
                "/searches/{stepId:int}/again",
                async Task<IResult> (int reviewId, int stepId, NamedSearches named, ClaimsPrincipal user) =>
                    await named.Again(reviewId, Access.AccountId(user), stepId) is { } ran
                        ? TypedResults.Ok(ran)
                        : Problems.Of(404, "There is no such search in the review any more.")
            )
            .Require(Role.Screener)
            .Produces<RanAgainDto>();
    }
}
