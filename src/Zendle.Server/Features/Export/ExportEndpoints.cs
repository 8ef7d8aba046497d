using System.Text;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Export;

internal static class ExportEndpoints
{
    private const int MostWorks = 50_000;
    private static readonly string[] Formats = ["ris", "bibtex", "csl-json", "csv"];

    public static void MapExport(this RouteGroupBuilder review) =>
        review.MapGet("/export", Export).Produces(200, contentType: "application/octet-stream");

    private static async Task<IResult> Export(
        int reviewId,
        string format,
        int? stepId,
        string? set,
        SortOrder? sort,
        SearchService search,
        CorpusReader reader,
        ZendleContext context,
        KeyRegister keys,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        // "kept" is the set most asked for; any step is one too.
        var view = set is "kept"
            ? await search.View(reviewId, SearchState.Everything.After(new SearchAct("stage:kept")))
            : await search.View(reviewId, stepId ?? 0);
        if (view is null)
            return Problems.Of(404, "There is no such set.");
        using var _ = view;
        var ids = search.Order(view, sort ?? SortOrder.Newest, false);
        if (ids.Length > MostWorks)
            return Problems.Of(
                400,
                $"The set holds {ids.Length:N0} works; at most {MostWorks:N0} are exported at once.",
                "Narrow it, or export it by years."
            );
        var title = await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);
        if (!Formats.Contains(format))
            return Problems.Of(
                400,
                $"“{format}” is not a format Zendle writes.",
                "Choose ris, bibtex, csl-json or csv."
            );
        var citations = await keys.Keyed(reviewId, await WorkCitations.Of(view, ids, reader, cancel), cancel);
        using var to = new MemoryStream();
        var (ending, type) = Write(format, to, citations);
        var holds =
            set is "kept" || view.State.Expression is "stage:kept" ? "kept"
            : view.State.Expression is { Length: > 0 } e ? e
            : "all";
        return TypedResults.File(
            to.ToArray(),
            type,
            FileNames.Export(title, holds, ids.Length, DateOnly.FromDateTime(clock.GetLocalNow().Date), ending)
        );
    }

    private static (string Ending, string Type) Write(string format, Stream to, IReadOnlyList<Citation> citations)
    {
        using var text = new StreamWriter(to, new UTF8Encoding(format == "csv"), leaveOpen: true); // spreadsheets know UTF-8 by its mark
        switch (format)
        {
            case "ris":
                RisWriter.Write(text, citations);
                return ("ris", "application/x-research-info-systems");
            case "bibtex":
                BibTexWriter.Write(text, citations);
                return ("bib", "application/x-bibtex");
            case "csl-json":
                CslJsonWriter.Write(to, citations);
                return ("json", "application/vnd.citationstyles.csl+json");
            case "csv":
                CitationCsvWriter.Write(text, citations);
                return ("csv", "text/csv");
            default:
                throw new ArgumentOutOfRangeException(nameof(format));
        }
    }
}
