using System.Security.Claims;
using Zendle.Core.Reviews;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search.Terms;

internal static class TermEndpoints
{
    public static void MapTerms(this RouteGroupBuilder review)
    {
        review
            .MapPost(
                "/terms",
                (
                    int reviewId,
                    TermsRequest request,
                    OfferedTerms terms,
                    SearchService search,
                    CancellationToken cancel
                ) => At(reviewId, request.StepId, search, state => terms.For(reviewId, request, state, cancel))
            )
            .Produces<OfferedTermsDto>();
        review
            .MapPost(
                "/terms/against",
                (
                    int reviewId,
                    ReadingRequest request,
                    OfferedTerms terms,
                    SearchService search,
                    CancellationToken cancel
                ) => At(reviewId, request.StepId, search, state => terms.Against(reviewId, request, state, cancel))
            )
            .Produces<TermsAgainstDto>();
        review.MapPost("/terms/trial", Try).Produces<TrialDto>();
        review.MapPut("/terms/refused", Refuse).Require(Role.Screener);
    }

    private static async Task<IResult> At<T>(
        int reviewId,
        int stepId,
        SearchService search,
        Func<SearchState, Task<T>> answer
    ) =>
        await SearchEndpoints.StateAt(reviewId, stepId, search) is { } state
            ? TypedResults.Ok(await answer(state))
            : SearchEndpoints.NoStep();

    private static async Task<IResult> Try(
        int reviewId,
        TrialRequest request,
        OfferedTerms terms,
        SearchService search,
        CancellationToken cancel
    )
    {
        if (await SearchEndpoints.StateAt(reviewId, request.StepId, search) is not { } state)
            return SearchEndpoints.NoStep();
        var (trial, whyNot) = await terms.Try(reviewId, request, state, cancel);
        return trial is null ? Problems.Of(400, whyNot ?? "The board cannot take this term.") : TypedResults.Ok(trial);
    }

    private static async Task<IResult> Refuse(
        int reviewId,
        RefuseRequest request,
        RefusedTerms refused,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (request.Text.Trim().Length is 0 or > RefusedTerms.Longest)
            return Problems.Of(400, $"A term has 1 to {RefusedTerms.Longest} characters.");
        return await refused.Set(reviewId, Access.AccountId(user), request.Text, request.IsRefused, cancel)
            ? TypedResults.NoContent()
            : Problems.Of(
                409,
                "This review has refused as many terms as it can hold.",
                "Let some of them be offered again."
            );
    }
}
