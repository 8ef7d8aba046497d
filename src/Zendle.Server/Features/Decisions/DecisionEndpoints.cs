using System.Security.Claims;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Server.Reviews;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Decisions;

/// <summary>Decides on the works named, or on the first <c>First</c> of a step's list in its order.</summary>
internal sealed record DecisionRequest(
    DecisionAct Act,
    IReadOnlyList<int>? Works,
    int? StepId,
    int? First,
    SortOrder? Sort,
    bool? HideJudged,
    string? Value
);

internal sealed record DecisionDto(Guid? Batch, int Changed);

internal sealed record UndoDto(int Changed, DecisionAct Act);

internal sealed record UndoRequest(Guid? Batch);

internal static class DecisionEndpoints
{
    public static void MapDecisions(this RouteGroupBuilder review)
    {
        review.MapPost("/decisions", Decide).Require(Role.Screener).Produces<DecisionDto>();
        review.MapPost("/undo", Undo).Require(Role.Screener).Produces<UndoDto>();
    }

    private static async Task<IResult> Decide(
        int reviewId,
        DecisionRequest request,
        DecisionService decisions,
        SearchService search,
        ClaimsPrincipal user
    )
    {
        var value = request.Value?.Trim();
        if (request.Act == DecisionAct.SetAside && string.IsNullOrEmpty(value))
            return Problems.Of(400, "Setting aside needs a reason.", "Choose one, or write your own.");
        if (request.Act is DecisionAct.Tag or DecisionAct.Untag && string.IsNullOrEmpty(value))
            return Problems.Of(400, "A tag needs a name.");
        if (value?.Length > 120)
            return Problems.Of(400, "A reason or tag has at most 120 characters.");
        if (request.Works is { Count: > 100_000 })
            return Problems.Of(400, "At most 100,000 works can be decided on at once.");
        IReadOnlyCollection<int> works = request.Works ?? [];
        if (request.StepId is { } stepId)
        {
            if (await search.View(reviewId, stepId) is not { } view)
                return Problems.Of(404, "There is no such step.");
            using (view)
            {
                var order = search.Order(view, request.Sort ?? SortOrder.Relevance, request.HideJudged ?? false);
                works = request.First is { } n ? [.. order.Take(Math.Max(0, n))] : order;
            }
        }
        var (batch, changed) = await decisions.Decide(
            reviewId,
            Access.AccountId(user),
            request.Act,
            works,
            request.Act is DecisionAct.Keep or DecisionAct.Clear ? null : value
        );
        return TypedResults.Ok(new DecisionDto(batch, changed));
    }

    private static async Task<IResult> Undo(
        int reviewId,
        UndoRequest request,
        DecisionService decisions,
        ClaimsPrincipal user
    )
    {
        var (no, changed, act) = await decisions.Undo(reviewId, Access.AccountId(user), request.Batch);
        return no is null
            ? TypedResults.Ok(new UndoDto(changed, act!.Value))
            : Problems.Of(409, no, "Nothing was changed.");
    }
}
