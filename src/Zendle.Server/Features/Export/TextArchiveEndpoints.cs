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
/// <param name="Parts">What a name can say: the parts of a template.</param>
/// <param name="Usual">The template of whoever chooses none.</param>
/// <param name="Fault">What is wrong with the template; the names are the usual ones then.</param>
internal sealed record TextArchiveDto(
    int Works,
    int WithText,
    int Texts,
    long Bytes,
    IReadOnlyList<string> Names,
    IReadOnlyList<string> Parts,
    string Usual,
    string? Fault
);

/// <summary>The texts in hand of any set, as one archive.</summary>
internal static class TextArchiveEndpoints
{
    private const int MostWorks = 20_000,
        MostNamed = 5;

    public static void MapTextArchives(this RouteGroupBuilder review)
    {
        review.MapGet("/export/texts", Told).Produces<TextArchiveDto>();
        review.MapGet("/export/texts/zip", Zip).Produces(200, contentType: "application/zip");
    }

    private static async Task<IResult> Told(
        int reviewId,
        int stepId,
        string? template,
        SortOrder? sort,
        SearchService search,
        TextArchives archives,
        CancellationToken cancel
    )
    {
        var fault = TextNames.Fault(template ?? TextNames.Usual);
        var (archive, refused) = await Of(
            reviewId,
            stepId,
            fault is null ? template : null,
            sort,
            withOthers: false,
            search,
            archives,
            cancel
        );
        return archive is null
            ? refused!
            : TypedResults.Ok(
                new TextArchiveDto(
                    archive.Count,
                    archive.Texts.Select(t => t.Work.WorkId).Distinct().Count(),
                    archive.Texts.Count,
                    archive.Bytes,
                    [.. archive.Texts.Take(MostNamed).Select(t => t.Name)],
                    TextNames.Parts,
                    TextNames.Usual,
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
        TextArchives archives,
        ZendleContext context,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (TextNames.Fault(template ?? TextNames.Usual) is { } fault)
            return Problems.Of(400, fault, "Nothing was exported.");
        var (archive, refused) = await Of(reviewId, stepId, template, sort, withOthers: true, search, archives, cancel);
        if (archive is null)
            return refused!;
        if (archive.Texts.Count == 0)
            return Problems.Of(404, "No work of this set has a text in hand.", "Gather them first.");
        var title = await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);
        return TypedResults.Stream(
            to => archives.Write(to, archive, cancel),
            "application/zip",
            FileNames.Export(title, "texts", archive.Count, DateOnly.FromDateTime(clock.GetLocalNow().Date), "zip")
        );
    }

    private static async Task<(TextArchive? Archive, IResult? Refused)> Of(
        int reviewId,
        int stepId,
        string? template,
        SortOrder? sort,
        bool withOthers,
        SearchService search,
        TextArchives archives,
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
        return (await archives.Of(reviewId, view, ids, template ?? TextNames.Usual, withOthers, cancel), null);
    }
}
