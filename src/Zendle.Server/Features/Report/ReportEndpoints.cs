using System.Security.Claims;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;
using Zendle.Server.Features.Gather;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Report;

/// <summary>One run in the log.</summary>
/// <param name="New">Against the run it repeats: works that were not there then.</param>
/// <param name="Gone">Against the run it repeats: works that are not there any more.</param>
internal sealed record RunDto(
    int Id,
    int StepId,
    bool StepRemoved,
    SearchStateDto State,
    LedgerDto Ledger,
    int Count,
    DateTimeOffset At,
    string By,
    bool OfRecord,
    int? Repeats,
    int? New,
    int? Gone
);

internal sealed record OfRecordRequest(bool OfRecord);

internal static class ReportEndpoints
{
    public static void MapReport(this RouteGroupBuilder review)
    {
        review.MapGet("/log", Log);
        review.MapGet(
            "/report/texts",
            (int reviewId, GatherService gather, CancellationToken cancel) => gather.Account(reviewId, cancel)
        );
        review.MapPatch("/log/{runId:int}", Mark).Require(Role.Screener);
        review.MapPost("/log/{runId:int}/again", Again).Require(Role.Screener).Produces<StepTakenDto>();
    }

    private static async Task<List<RunDto>> Log(int reviewId, ZendleContext context, CancellationToken cancel)
    {
        var runs = await context
            .Runs.AsNoTracking()
            .Where(r => r.ReviewId == reviewId)
            .OrderByDescending(r => r.Id)
            .ToListAsync(cancel);
        var names = await context.Users.ToDictionaryAsync(u => u.Id, u => u.DisplayName, cancel);
        var removed = (
            await context.Steps.Where(s => s.ReviewId == reviewId && s.Removed).Select(s => s.Id).ToListAsync(cancel)
        ).ToHashSet();
        var byId = runs.ToDictionary(r => r.Id);
        return
        [
            .. runs.Select(r =>
            {
                int? fresh = null,
                    gone = null;
                if (r.Repeats is { } first && byId.TryGetValue(first, out var then))
                {
                    var (now, before) = (WorkIds.Unpack(r.Works).ToHashSet(), WorkIds.Unpack(then.Works).ToHashSet());
                    (fresh, gone) = (now.Count(w => !before.Contains(w)), before.Count(w => !now.Contains(w)));
                }
                return new RunDto(
                    r.Id,
                    r.StepId,
                    removed.Contains(r.StepId),
                    SearchStateDto.Of(JsonSerializer.Deserialize<SearchState>(r.State, SearchService.Json)!),
                    JsonSerializer.Deserialize<LedgerDto>(r.Ledger, SearchService.Json)!,
                    r.Count,
                    r.At,
                    names.GetValueOrDefault(r.AccountId, "a former member"),
                    r.OfRecord,
                    r.Repeats,
                    fresh,
                    gone
                );
            }),
        ];
    }

    private static async Task<IResult> Mark(int reviewId, int runId, OfRecordRequest request, ZendleContext context) =>
        await context
            .Runs.Where(r => r.Id == runId && r.ReviewId == reviewId)
            .ExecuteUpdateAsync(u => u.SetProperty(r => r.OfRecord, request.OfRecord)) > 0
            ? TypedResults.NoContent()
            : Problems.Of(404, "There is no such run in the log.");

    /// <summary>
    /// Runs a logged search again as a path of its own: one step for the question, one for each limit, the last of
    /// which repeats the run.
    /// </summary>
    private static async Task<IResult> Again(
        int reviewId,
        int runId,
        ZendleContext context,
        PathService paths,
        ClaimsPrincipal user
    )
    {
        var run = await context.Runs.AsNoTracking().SingleOrDefaultAsync(r => r.Id == runId && r.ReviewId == reviewId);
        if (run is null)
            return Problems.Of(404, "There is no such run in the log.");
        var acts = Acts(JsonSerializer.Deserialize<SearchState>(run.State, SearchService.Json)!).ToArray();
        var step = 0;
        for (var i = 0; i < acts.Length; i++)
            step =
                await paths.Take(
                    reviewId,
                    Access.AccountId(user),
                    step,
                    acts[i],
                    i == acts.Length - 1 ? run.Repeats ?? run.Id : null
                ) ?? throw new InvalidOperationException("A step vanished while it was taken.");
        return TypedResults.Ok(new StepTakenDto(step));
    }

    private static IEnumerable<StepAct> Acts(SearchState state)
    {
        if (state.Trail is { } trail)
        {
            yield return new(StepKind.Trail, Seeds: [.. trail.Seeds], Way: trail.Way);
            if (trail.AtLeast > 1)
                yield return new(StepKind.Ties, AtLeast: trail.AtLeast);
        }
        else
            yield return new(StepKind.Search, state.Expression);
        if (!state.Databases.IsEmpty)
            yield return new(StepKind.Databases, Databases: state.Databases);
        if (state.From is not null || state.To is not null)
            yield return new(StepKind.Years, From: state.From, To: state.To);
        foreach (var n in state.Narrowings)
            yield return new(StepKind.Narrow, Facet: n.Facet, Values: n.Values, Excluded: n.Excluded);
        if (!state.Inside.IsEmpty)
            yield return new(StepKind.Inside, Values: state.Inside);
        foreach (var other in state.Others ?? [])
            yield return new(StepKind.Compare, Other: other.Acts, Apart: other.Apart, Said: other.Said);
        if (state.Among is { } among)
            yield return new(StepKind.Among, Seeds: among, Said: $"{among.Count:N0} works written down");
    }
}
