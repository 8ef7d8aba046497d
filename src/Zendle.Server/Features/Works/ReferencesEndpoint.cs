using Zendle.Core.Merging;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Works;

/// <summary>A reference of a work as printed, with the work it means and why.</summary>
internal sealed record CitedReferenceDto(
    string Text,
    string? Doi,
    IReadOnlyList<string> Databases,
    int? WorkId,
    string? Title,
    string? Evidence,
    double Sure
);

/// <summary>All references of a work over its databases.</summary>
internal sealed record CitedReferencesDto(int Matched, IReadOnlyList<CitedReferenceDto> References);

internal static class ReferencesEndpoint
{
    public static void MapReferences(this RouteGroupBuilder review) =>
        review.MapGet("/works/{workId:int}/references", Get).Produces<CitedReferencesDto>();

    private static async Task<IResult> Get(
        int reviewId,
        int workId,
        SearchService search,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        using var view = (await search.View(reviewId, 0))!;
        var names = view.Snapshot.DatabaseNames;
        var joined = ReferenceList.Join(await reader.ReferencesOf([workId], cancel), view.Snapshot.Columns.Means);
        var works = await reader.OfWorks([.. joined.Select(j => j.Match.Work).Where(w => w != 0)], cancel);
        return TypedResults.Ok(
            new CitedReferencesDto(
                joined.Count(j => j.Match.Work != 0),
                [
                    .. joined.Select(j => new CitedReferenceDto(
                        j.Reference.Text,
                        j.Reference.Doi,
                        [.. j.Databases.Select(d => names.GetValueOrDefault(d, "?"))],
                        j.Match.Work == 0 ? null : j.Match.Work,
                        j.Match.Work == 0 || !works.Contains(j.Match.Work)
                            ? null
                            : ChosenFields.From([.. works[j.Match.Work]]).Title.Value,
                        ReferenceList.Words(j.Match.Evidence),
                        Math.Round(j.Match.Confidence, 2)
                    )),
                ]
            )
        );
    }
}
