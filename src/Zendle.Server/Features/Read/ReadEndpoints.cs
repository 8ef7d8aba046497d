using Zendle.Server.Features.Gather;
using Zendle.Store.Files;

namespace Zendle.Server.Features.Read;

internal static class ReadEndpoints
{
    public static void MapRead(this RouteGroupBuilder review)
    {
        review
            .MapGet(
                "/texts/{textId:int}",
                async Task<IResult> (int reviewId, int textId, GatherService gather, CancellationToken cancel) =>
                    await gather.Text(reviewId, textId, cancel) is { Detail: var text }
                        ? TypedResults.Ok(text)
                        : GatherEndpoints.NoText()
            )
            .Produces<TextDetailDto>();
        review.MapGet("/texts/{textId:int}/file", File).Produces(200, contentType: "application/pdf");
    }

    private static async Task<IResult> File(
        int reviewId,
        int textId,
        bool? download,
        GatherService gather,
        FileVault vault,
        HttpContext http,
        CancellationToken cancel
    )
    {
        if (await gather.Text(reviewId, textId, cancel) is not var (detail, hash))
            return GatherEndpoints.NoText();
        if (!vault.Has(hash))
            return Problems.Of(410, "The file is missing from the data folder.", "Gather it again.");
        // Opened by itself it runs nothing and reaches nothing.
        (http.Response.Headers.ContentSecurityPolicy, http.Response.Headers.XContentTypeOptions) = (
            "sandbox; default-src 'none'",
            "nosniff"
        );
        return TypedResults.PhysicalFile(
            vault.PathOf(hash),
            "application/pdf",
            download == true ? detail.FileName : null,
            enableRangeProcessing: true
        );
    }
}
