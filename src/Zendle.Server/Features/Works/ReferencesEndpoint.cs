using System.Security.Claims;
using Zendle.Core.Merging;
using Zendle.Server.Features.References;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Works;

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
        ReferenceTeller teller,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        using var view = (await search.View(reviewId, 0))!;
        var joined = ReferenceList.Join(
            await teller.ReferencesOf([workId], view.Snapshot.Columns, cancel),
            view.Snapshot.Columns.Means
        );
        return TypedResults.Ok(
            new CitedReferencesDto(
                joined.Count(j => j.Match.Work != 0),
                await teller.Tell(joined, view.Snapshot.ReporterNames, user, cancel)
            )
        );
    }
}
