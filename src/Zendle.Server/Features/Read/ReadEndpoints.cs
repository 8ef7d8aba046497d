using System.Globalization;
using System.Security.Claims;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Server.Features.Gather;
using Zendle.Server.Identity;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Read;

/// <summary>What a person says of a text they have open.</summary>
/// <param name="IsRead">Whether they have read it; null when they only opened it.</param>
internal sealed record ReadingNoteRequest(bool? IsRead);

internal static class ReadEndpoints
{
    public static void MapRead(this RouteGroupBuilder review)
    {
        review
            .MapGet(
                "/texts/{textId:int}",
                async Task<IResult> (int reviewId, int textId, GatherService gather, CancellationToken cancel) =>
                    await gather.Text(reviewId, textId, cancel) is { } text
                        ? TypedResults.Ok(text)
                        : GatherEndpoints.NoText()
            )
            .Produces<TextDetailDto>();
        review.MapGet("/texts/{textId:int}/file", File).Produces(200, contentType: "application/pdf");
        review
            .MapGet(
                "/reading",
                (int reviewId, ReadingList list, ClaimsPrincipal user, CancellationToken cancel) =>
                    list.Of(reviewId, Access.AccountId(user), cancel)
            )
            .Produces<IReadOnlyList<TextToReadDto>>();
        review.MapPut("/texts/{textId:int}/reading", Note).Require(Role.Reader).Produces(204);
        review.MapGet("/texts/{textId:int}/readable", Readable).Produces<ReadableDto>();
        review.MapGet("/texts/{textId:int}/figures/{figure:int}", Figure).Produces(200, contentType: "image/png");
    }

    private static async Task<IResult> Note(
        int reviewId,
        int textId,
        ReadingNoteRequest request,
        ReadingList list,
        ClaimsPrincipal user
    ) =>
        await list.Note(reviewId, Access.AccountId(user), textId, request.IsRead)
            ? TypedResults.NoContent()
            : GatherEndpoints.NoText();

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
        if (
            await gather.Stored(reviewId, textId, cancel) is not { } text
            || await gather.Text(reviewId, textId, cancel) is not { } detail
        )
            return GatherEndpoints.NoText();
        if (!vault.Has(text.Hash))
            return Missing();
        Still(http);
        return TypedResults.PhysicalFile(
            vault.PathOf(text.Hash),
            text.Format switch
            {
                TextFormat.Pdf => "application/pdf",
                TextFormat.Html => "text/html",
                TextFormat.Jats => "application/xml",
                TextFormat.Epub => "application/epub+zip",
                _ => "text/plain",
            },
            // A page of somebody else is never shown as one of ours.
            download == true
            || text.Format != TextFormat.Pdf
                ? detail.FileName
                : null,
            enableRangeProcessing: true
        );
    }

    /// <summary>Opened by itself it runs nothing and reaches nothing.</summary>
    private static void Still(HttpContext http) =>
        (http.Response.Headers.ContentSecurityPolicy, http.Response.Headers.XContentTypeOptions) = (
            "sandbox; default-src 'none'",
            "nosniff"
        );

    private static async Task<IResult> Readable(
        int reviewId,
        int textId,
        GatherService gather,
        ReadableTexts readable,
        FileVault vault,
        CancellationToken cancel
    )
    {
        if (await gather.Stored(reviewId, textId, cancel) is not { } text)
            return GatherEndpoints.NoText();
        if (text.Format == TextFormat.Pdf)
            return Problems.Of(400, "This text is a PDF: it is shown page by page.");
        if (!vault.Has(text.Hash))
            return Missing();
        try
        {
            return TypedResults.Ok(
                await readable.Of(
                    string.Create(CultureInfo.InvariantCulture, $"/api/reviews/{reviewId}/texts/{textId}"),
                    text.Hash,
                    cancel
                )
            );
        }
        catch (DocumentFaultException e)
        {
            return Problems.Of(422, e.Message, "The file can still be saved.");
        }
    }

    private static async Task<IResult> Figure(
        int reviewId,
        int textId,
        int figure,
        GatherService gather,
        TextFigures figures,
        FileVault vault,
        HttpContext http,
        CancellationToken cancel
    )
    {
        if (await gather.Stored(reviewId, textId, cancel) is not { } text)
            return GatherEndpoints.NoText();
        if (!(await figures.Of(text.Hash, cancel)).TryGetValue(figure, out var row) || !vault.Has(row.Hash))
            return Problems.Of(404, "This figure did not come with the text.");
        Still(http);
        return TypedResults.PhysicalFile(vault.PathOf(row.Hash), row.MediaType);
    }

    private static IResult Missing() =>
        Problems.Of(410, "The file is missing from the data folder.", "Gather it again.");
}
