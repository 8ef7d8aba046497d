using System.Security.Claims;
using Zendle.Core.Trails;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Rounds;

/// <summary>A round to begin.</summary>
/// <param name="Kinds">What makes a neighbour a candidate; none for trails alone.</param>
/// <param name="AtLeast">How much a neighbour has in common at least.</param>
/// <param name="FromAllKept">Whether it starts from all kept works, not only from those kept since the last round.</param>
internal sealed record NewRoundRequest(IReadOnlyList<NeighbourKind>? Kinds, int? AtLeast, bool? FromAllKept);

internal sealed record RoundBegunDto(int StepId);

/// <summary>A round.</summary>
/// <param name="Found">Works that its trails and neighbours led to when it was begun.</param>
/// <param name="New">Those of them that had not been looked at.</param>
/// <param name="Candidates">Works in it today.</param>
/// <param name="Kept">Those of them that are kept.</param>
/// <param name="SetAside">Those that are set aside.</param>
/// <param name="Left">Those that nobody judged and who asks has not looked at.</param>
internal sealed record RoundDto(
    int Number,
    int StepId,
    DateTimeOffset At,
    string By,
    int Seeds,
    IReadOnlyList<NeighbourKind> Kinds,
    int AtLeast,
    int Found,
    int New,
    int Candidates,
    int Kept,
    int SetAside,
    int Left
);

/// <summary>A database and how many works it holds.</summary>
internal sealed record HeldByDto(string Database, int Works);

/// <summary>What the last round that brought anything brought.</summary>
/// <param name="Number">Which round.</param>
/// <param name="IsLast">Whether it is the last of all.</param>
/// <param name="Kept">Works kept of it.</param>
/// <param name="Cited">Those that a seed cites.</param>
/// <param name="Citing">Those that cite a seed.</param>
/// <param name="Untied">Those that are neighbours only.</param>
/// <param name="From">Year of the oldest.</param>
/// <param name="To">Year of the newest.</param>
/// <param name="Databases">The databases that hold them.</param>
internal sealed record ArrivingDto(
    int Number,
    bool IsLast,
    int Kept,
    int Cited,
    int Citing,
    int Untied,
    int? From,
    int? To,
    IReadOnlyList<HeldByDto> Databases
);

/// <summary>What two ways of finding say of what is missing.</summary>
/// <param name="BySearches">Kept works that searches found.</param>
/// <param name="ByTies">Kept works that another kept work cites or is cited by.</param>
/// <param name="Both">Kept works of which both hold.</param>
/// <param name="Kept">All kept works.</param>
/// <param name="Left">Candidates of all rounds that still stand to be looked at, each once.</param>
/// <param name="OfRecord">Whether only searches of record count, because some are.</param>
/// <param name="Estimate">The estimate; null while candidates are left, and where too few works were found both ways.</param>
internal sealed record EnoughDto(
    int BySearches,
    int ByTies,
    int Both,
    int Kept,
    int Left,
    bool OfRecord,
    MissingEstimate? Estimate
);

/// <summary>The rounds of a review.</summary>
/// <param name="KeptSince">Kept works that no round started from.</param>
internal sealed record RoundsDto(
    IReadOnlyList<RoundDto> Rounds,
    int KeptSince,
    int Kept,
    EnoughDto Enough,
    ArrivingDto? Arriving
);

internal sealed record LookedRequest(IReadOnlyList<int> Works);

internal static class RoundEndpoints
{
    private const int MostLooked = 1_000;

    public static void MapRounds(this RouteGroupBuilder review)
    {
        review.MapGet(
            "/rounds",
            (int reviewId, RoundService rounds, ClaimsPrincipal user, CancellationToken cancel) =>
                rounds.Of(reviewId, Access.AccountId(user), cancel)
        );
        review.MapPost("/rounds", Begin).Require(Role.Screener).Produces<RoundBegunDto>();
        review.MapPost("/looked", Looked).Require(Role.Screener);
        review.MapGet("/steps/{stepId:int}/looked", LookedIn).Produces<IReadOnlyList<int>>();
    }

    private static async Task<IResult> Begin(
        int reviewId,
        NewRoundRequest request,
        RoundService rounds,
        ClaimsPrincipal user
    )
    {
        var (step, fault) = await rounds.Begin(reviewId, Access.AccountId(user), request);
        return fault is null
            ? TypedResults.Ok(new RoundBegunDto(step!.Value))
            : Problems.Of(400, fault.Sentence, fault.Advice);
    }

    private static async Task<IResult> Looked(
        int reviewId,
        LookedRequest request,
        RoundService rounds,
        ClaimsPrincipal user
    )
    {
        if (request.Works.Count > MostLooked || request.Works.Any(w => w <= 0))
            return Problems.Of(400, $"At most {MostLooked:N0} works at once, each by its number.");
        await rounds.Looked(reviewId, Access.AccountId(user), request.Works);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> LookedIn(int reviewId, int stepId, RoundService rounds, ClaimsPrincipal user) =>
        await rounds.LookedIn(reviewId, Access.AccountId(user), stepId) is { } works
            ? TypedResults.Ok<IReadOnlyList<int>>(works)
            : Problems.Of(404, "There is no such step in this review.");
}
