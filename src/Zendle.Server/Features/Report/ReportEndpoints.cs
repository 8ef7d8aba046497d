using System.Security.Claims;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
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

/// <summary>A page of the log.</summary>
/// <param name="Searches">All runs of the review.</param>
/// <param name="OfRecord">Those of them that are of record.</param>
/// <param name="HasEarlier">Whether there are earlier ones than those of the page.</param>
/// <param name="Runs">The runs, youngest first.</param>
internal sealed record LogPageDto(int Searches, int OfRecord, bool HasEarlier, IReadOnlyList<RunDto> Runs);

internal sealed record OfRecordRequest(bool OfRecord);

internal static class ReportEndpoints
{
    private const int UsualPage = 60,
        LongestPage = 500;

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

    /// <summary>A page of the log, youngest first. O(runs of the page), whatever they found.</summary>
    private static async Task<LogPageDto> Log(
        int reviewId,
        int? before,
        int? limit,
        bool? ofRecord,
        ZendleContext context,
        CancellationToken cancel
    )
    {
        var all = context.Runs.AsNoTracking().Where(r => r.ReviewId == reviewId);
        var (searches, marked) = (await all.CountAsync(cancel), await all.CountAsync(r => r.OfRecord, cancel));
        var most = Math.Clamp(limit ?? UsualPage, 1, LongestPage);
        var page = await all.Where(r => (before == null || r.Id < before) && (ofRecord != true || r.OfRecord))
            .OrderByDescending(r => r.Id)
            .Take(most + 1)
            .Select(r => new
            {
                r.Id,
                r.StepId,
                r.State,
                r.Ledger,
                r.Count,
                r.At,
                r.AccountId,
                r.OfRecord,
                r.Repeats,
            })
            .ToListAsync(cancel);
        var shown = page.Take(most).ToArray();
        // What was found is read only of runs that repeat one, and of those they repeat.
        int[] compared =
        [
            .. shown.Where(r => r.Repeats is not null).SelectMany(r => new[] { r.Id, r.Repeats!.Value }).Distinct(),
        ];
        var found = await all.Where(r => compared.Contains(r.Id))
            .ToDictionaryAsync(r => r.Id, r => WorkIds.Unpack(r.Works).ToHashSet(), cancel);
        var names = await context.DisplayNamesOf(shown.Select(r => r.AccountId), cancel);
        int[] steps = [.. shown.Select(r => r.StepId).Distinct()];
        var removed = await context
            .Steps.Where(s => s.ReviewId == reviewId && s.Removed && steps.Contains(s.Id))
            .Select(s => s.Id)
            .ToHashSetAsync(cancel);
        return new(
            searches,
            marked,
            page.Count > most,
            [
                .. shown.Select(r =>
                {
                    var then = r.Repeats is { } first ? found.GetValueOrDefault(first) : null;
                    return new RunDto(
                        r.Id,
                        r.StepId,
                        removed.Contains(r.StepId),
                        SearchStateDto.Of(SearchState.Of(StoredActs.ReadAll(r.State))),
                        JsonSerializer.Deserialize<LedgerDto>(r.Ledger, StoredJson.Options)!,
                        r.Count,
                        r.At,
                        names.GetValueOrDefault(r.AccountId, "a former member"),
                        r.OfRecord,
                        r.Repeats,
                        then is null ? null : found[r.Id].Count(w => !then.Contains(w)),
                        then?.Count(w => !found[r.Id].Contains(w))
                    );
                }),
            ]
        );
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
        var acts = StoredActs.ReadAll(run.State);
        var step = 0;
        for (var i = 0; i < acts.Count; i++)
            step =
                await paths.Take(
                    reviewId,
                    Access.AccountId(user),
                    step,
                    acts[i],
                    i == acts.Count - 1 ? run.Repeats ?? run.Id : null
                ) ?? throw new InvalidOperationException("The step was deleted while it was being opened.");
        return TypedResults.Ok(new StepTakenDto(step));
    }
}
