using System.Security.Claims;
using Zendle.Connect.Fetch;
using Zendle.Core.Records;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

internal static class GatherEndpoints
{
    private const long LargestBrought = 100_000_000;

    public static void MapGather(this RouteGroupBuilder review)
    {
        review.MapGet(
            "/gather",
            (int reviewId, GatherService gather, CancellationToken cancel) => gather.List(reviewId, cancel)
        );
        review.MapPost("/gather", Seek).Require(Role.Screener).Produces<GatherAskedDto>();
        review
            .MapPost(
                "/gather/stop",
                async Task<IResult> (int reviewId, GatherService gather) =>
                    await gather.Stop(reviewId)
                        ? TypedResults.NoContent()
                        : Problems.Of(409, "Nothing is being gathered.")
            )
            .Require(Role.Screener);
        // the group's own filter has looked at the token already
        review.MapPost("/texts", Bring).Require(Role.Screener).Produces<BroughtDto>().DisableAntiforgery();
        review
            .MapPost(
                "/texts/{textId:int}/settle",
                async Task<IResult> (
                    int reviewId,
                    int textId,
                    SettleRequest request,
                    GatherService gather,
                    ClaimsPrincipal user
                ) =>
                    await gather.Settle(reviewId, Access.AccountId(user), textId, request.Answer)
                        ? TypedResults.NoContent()
                        : NoText()
            )
            .Require(Role.Screener);
    }

    public static IResult NoText() =>
        Problems.Of(404, "This document is not part of the review any more.", "Gather shows what is there.");

    private static async Task<IResult> Seek(
        int reviewId,
        GatherRequest request,
        GatherService gather,
        AddressPolicy policy,
        ClaimsPrincipal user
    )
    {
        if (request.Works is { Count: > 5_000 })
            return Problems.Of(400, "At most 5,000 texts are sought at once.");
        Uri? given = null;
        if (request.Address is { } address)
        {
            if (request.Works is not { Count: 1 })
                return Problems.Of(400, "An address leads to the text of one work.", "Nothing was asked for.");
            (given, var fault) = WrittenAddress.Read(
                address,
                policy,
                "This is not the address of a page or a file.",
                "Nothing was asked for."
            );
            if (fault is not null)
                return fault;
        }
        var (sought, job) = await gather.Seek(reviewId, Access.AccountId(user), request.Works, request.Again, given);
        return TypedResults.Ok(new GatherAskedDto(sought, job is null ? null : JobDto.Of(job)));
    }

    /// <summary>
    /// The body is the file itself; its name and, if a person chose it, its work stand in the address.
    /// </summary>
    private static async Task<IResult> Bring(
        int reviewId,
        string name,
        int? workId,
        HttpContext http,
        GatherService gather,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (
            http.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>() is
            { IsReadOnly: false } size
        )
            size.MaxRequestBodySize = LargestBrought;
        if (http.Request.ContentLength > LargestBrought)
            return Problems.Of(413, $"The file is larger than {LargestBrought / 1_000_000} MB.", "Nothing was stored.");
        using var to = new MemoryStream();
        try
        {
            await http.Request.Body.CopyToAsync(to, cancel);
        }
        catch (BadHttpRequestException)
        {
            return Problems.Of(
                413,
                $"The file is larger than {LargestBrought / 1_000_000} MB, or broke off on its way.",
                "Nothing was stored."
            );
        }
        var brought = await gather.Bring(
            reviewId,
            Access.AccountId(user),
            to.ToArray(),
            Path.GetFileName(name) is { Length: > 0 } n ? n[..Math.Min(n.Length, 200)] : "a file",
            workId,
            cancel
        );
        return brought.TextId is null && brought.Unknown is null
            ? Problems.Of(422, brought.Sentence, "Nothing was stored.")
            : TypedResults.Ok(brought);
    }
}
