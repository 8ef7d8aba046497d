using Zendle.Index.Questions;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Works;

/// <summary>What one concept adds to a work's score.</summary>
/// <param name="Concept">Its letter.</param>
/// <param name="Unit">Its best term, phrase or nearness.</param>
/// <param name="Records">How many records that stands in.</param>
/// <param name="Rarity">How much its rarity counts.</param>
/// <param name="Weight">How often it stands in the record, weighted by field and length.</param>
/// <param name="Worth">What it adds.</param>
internal sealed record ScorePartDto(
    string Concept,
    string Unit,
    int Records,
    double Rarity,
    double Weight,
    double Worth
);

/// <summary>How a work's score is made; no parts when nothing is looked for, or the work is not found.</summary>
/// <param name="Parts">What each concept adds.</param>
/// <param name="Nearness">What the sum is multiplied by because words stand close.</param>
/// <param name="Total">The score.</param>
internal sealed record ScoreDto(IReadOnlyList<ScorePartDto> Parts, double Nearness, double Total);

/// <summary>How the score by which a work stands in a list is made.</summary>
internal static class ScoreEndpoint
{
    /// <summary>Maps it: asked for on request, for it is looked at seldom.</summary>
    public static void MapScore(this RouteGroupBuilder review) =>
        review.MapGet("/works/{workId:int}/score", Get).Produces<ScoreDto>();

    private static async Task<IResult> Get(int reviewId, int workId, int? stepId, SearchService search)
    {
        using var view = await search.View(reviewId, stepId ?? 0);
        return
            view?.Answer.Concepts is { IsDefaultOrEmpty: false } concepts
            && Relevance.Explain(view.Snapshot, concepts, SearchService.InChosen(view), workId) is { } parts
            ? TypedResults.Ok(
                new ScoreDto(
                    [
                        .. parts.Parts.Select(p => new ScorePartDto(
                            p.Concept.ToString(),
                            p.Unit,
                            p.Found,
                            Math.Round(p.Rarity, 2),
                            Math.Round(p.Weight, 2),
                            Math.Round(p.Worth, 2)
                        )),
                    ],
                    Math.Round(parts.Nearness, 2),
                    Math.Round(parts.Total, 2)
                )
            )
            : TypedResults.Ok(new ScoreDto([], 1, 0));
    }
}
