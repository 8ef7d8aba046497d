using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.FullText;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Export;

/// <summary>What an archive of texts would hold.</summary>
/// <param name="Works">Works of the set.</param>
/// <param name="WithText">Works that have a text in hand.</param>
/// <param name="Texts">Documents; a work may have several versions.</param>
/// <param name="Bytes">Bytes of all documents.</param>
/// <param name="Names">Names of the first few, in order.</param>
/// <param name="Fault">What is wrong with the template; the names are the usual ones then.</param>
internal sealed record TextBundleDto(
    int Works,
    int WithText,
    int Texts,
    long Bytes,
    IReadOnlyList<string> Names,
    string? Fault
);

/// <summary>The texts in hand of any set, as one archive.</summary>
internal static class TextBundleEndpoints
{
    private const int MostWorks = 20_000,
        MostNamed = 5;

    public static void MapTextBundles(this RouteGroupBuilder review)
    {
        review.MapGet("/export/texts", Told).Produces<TextBundleDto>();
        review.MapGet("/export/texts/zip", Zip).Produces(200, contentType: "application/zip");
    }

    private static async Task<IResult> Told(
        int reviewId,
        int stepId,
        string? template,
        SortOrder? sort,
        SearchService search,
        TextBundle bundles,
        CancellationToken cancel
    )
    {
        var fault = TextNames.Fault(template ?? TextNames.Usual);
        var (bundle, refused) = await Of(
            reviewId,
            stepId,
            fault is null ? template : null,
            sort,
            withOthers: false,
            search,
            bundles,
            cancel
        );
        return bundle is null
            ? refused!
            : TypedResults.Ok(
                new TextBundleDto(
                    bundle.Count,
                    bundle.Texts.Select(t => t.Work.WorkId).Distinct().Count(),
                    bundle.Texts.Count,
                    bundle.Bytes,
                    [.. bundle.Texts.Take(MostNamed).Select(t => t.Name)],
                    fault
                )
            );
    }

    private static async Task<IResult> Zip(
        int reviewId,
        int stepId,
        string? template,
        SortOrder? sort,
        SearchService search,
        TextBundle bundles,
        ZendleContext context,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (TextNames.Fault(template ?? TextNames.Usual) is { } fault)
            return Problems.Of(400, fault, "Nothing was exported.");
        var (bundle, refused) = await Of(reviewId, stepId, template, sort, withOthers: true, search, bundles, cancel);
        if (bundle is null)
            return refused!;
        if (bundle.Texts.Count == 0)
            return Problems.Of(404, "No work of this set has a text in hand.", "Gather them first.");
        var title = await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);
        return TypedResults.Stream(
            to => bundles.Write(to, bundle, cancel),
            "application/zip",
            FileNames.Export(title, "texts", bundle.Count, DateOnly.FromDateTime(clock.GetLocalNow().Date), "zip")
        );
    }

    private static async Task<(Bundle? Bundle, IResult? Refused)> Of(
        int reviewId,
        int stepId,
        string? template,
        SortOrder? sort,
        bool withOthers,
        SearchService search,
        TextBundle bundles,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null)
            return (null, Problems.Of(404, "There is no such set."));
        var ids = search.Order(view, sort ?? SortOrder.Newest, false);
        if (ids.Length > MostWorks)
            return (
                null,
                Problems.Of(
                    400,
                    $"The set holds {ids.Length:N0} works; texts of at most {MostWorks:N0} are exported at once.",
                    "Narrow it, or export it by years."
                )
            );
        return (await bundles.Of(reviewId, view, ids, template ?? TextNames.Usual, withOthers, cancel), null);
    }
}
