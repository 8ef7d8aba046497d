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
                async Task<IResult> (
                    int reviewId,
                    TermsRequest request,
                    OfferedTerms terms,
                    SearchService search,
                    CancellationToken cancel
                ) =>
                    await State(reviewId, request.StepId, search) is { } state
                        ? TypedResults.Ok(await terms.For(reviewId, request, state, cancel))
                        : NoStep()
            )
            .Produces<OfferedTermsDto>();
        review
            .MapPost(
                "/terms/against",
                async Task<IResult> (
                    int reviewId,
                    TermsRequest request,
                    OfferedTerms terms,
                    SearchService search,
                    CancellationToken cancel
                ) =>
                    await State(reviewId, request.StepId, search) is { } state
                        ? TypedResults.Ok(await terms.Against(reviewId, request, state, cancel))
                        : NoStep()
            )
            .Produces<TermsAgainstDto>();
        review.MapPost("/terms/trial", Try).Produces<TrialDto>();
        review
            .MapPut(
                "/terms/refused",
                async Task<IResult> (
                    int reviewId,
                    RefuseRequest request,
                    RefusedTerms refused,
                    ClaimsPrincipal user,
                    CancellationToken cancel
                ) =>
                    request.Text.Trim().Length is 0 or > RefusedTerms.Longest
                        ? Problems.Of(400, $"A term has 1 to {RefusedTerms.Longest} characters.")
                    : await refused.Set(reviewId, Access.AccountId(user), request.Text, request.IsRefused, cancel)
                        ? TypedResults.NoContent()
                    : Problems.Of(
                        409,
                        "This review has refused as many terms as it can hold.",
                        "Let some of them be offered again."
                    )
            )
            .Require(Role.Screener);
    }

    private static async Task<IResult> Try(
        int reviewId,
        TrialRequest request,
        OfferedTerms terms,
        SearchService search,
        CancellationToken cancel
    )
    {
        if (await State(reviewId, request.StepId, search) is not { } state)
            return NoStep();
        var (trial, whyNot) = await terms.Try(reviewId, request, state, cancel);
        return trial is null ? Problems.Of(400, whyNot ?? "The board cannot take this term.") : TypedResults.Ok(trial);
    }

    private static async Task<SearchState?> State(int reviewId, int stepId, SearchService search) =>
        stepId == 0 ? SearchState.Everything : await search.StateOf(reviewId, stepId);

    private static IResult NoStep() =>
        Problems.Of(404, "This step is not part of the review any more.", "Start from the path, or from a new search.");
}
