using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Trails;

/// <summary>A work on the main line.</summary>
/// <param name="Share">Share of all chains of citations that run from the work before it to this one; 0 for the
/// first.</param>
internal sealed record LineWorkDto(WorkRowDto Work, double Share);

/// <summary>A work that was cited little for long, and then much.</summary>
/// <param name="Beauty">The beauty coefficient.</param>
/// <param name="Awakened">The year it awoke.</param>
/// <param name="Peak">The year of most citations.</param>
/// <param name="AtPeak">Citations in that year.</param>
internal sealed record SleepingDto(WorkRowDto Work, double Beauty, int Awakened, int Peak, int AtPeak);

/// <summary>A retracted work that works of the set cite.</summary>
/// <param name="Year">Year of the notice; null when unknown.</param>
/// <param name="Cited">How many works of the set cite it.</param>
/// <param name="Since">How many of them are younger than the notice.</param>
/// <param name="Kept">The kept works that cite it.</param>
internal sealed record RetractedDto(WorkRowDto Work, int? Year, int Cited, int Since, IReadOnlyList<WorkRowDto> Kept);

/// <summary>What shows in the citations of a set.</summary>
/// <param name="Line">The main line, the oldest first.</param>
/// <param name="Tied">How many works of the set cite another of it or are cited by one.</param>
/// <param name="LeftOut">Ties left out because citations run in a circle.</param>
internal sealed record OutlineDto(
    int Works,
    IReadOnlyList<LineWorkDto> Line,
    int Tied,
    int LeftOut,
    IReadOnlyList<SleepingDto> Sleeping,
    IReadOnlyList<RetractedDto> Retracted,
    IReadOnlyList<string> Tags
);

/// <summary>A work tied to works of two tags.</summary>
/// <param name="First">Works of the first tag that it cites or that cite it.</param>
/// <param name="Second">The same of the second.</param>
internal sealed record BridgeDto(WorkRowDto Work, int First, int Second);

/// <param name="Total">How many works bridge the two.</param>
/// <param name="Works">The strongest of them.</param>
internal sealed record BridgesDto(int Total, IReadOnlyList<BridgeDto> Works);

internal static class OutlineEndpoints
{
    private const int MostWorks = 20_000,
        MostShown = 20,
        MostKeptShown = 12;

    /// <summary>Below this a work was cited about as evenly as others.</summary>
    private const double LeastBeauty = 10;

    public static void MapOutline(this RouteGroupBuilder review)
    {
        review.MapGet("/steps/{stepId:int}/outline", Outline).Produces<OutlineDto>();
        review.MapGet("/steps/{stepId:int}/bridges", Bridges).Produces<BridgesDto>();
    }

    private static async Task<IResult> Outline(
        int reviewId,
        int stepId,
        SearchService search,
        WorkRows rows,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null)
            return SearchEndpoints.NoStep();
        if (view.Answer.Count > MostWorks)
            return TooMany(view.Answer.Count);
        var (columns, set) = (view.Snapshot.Columns, view.Answer.InView);
        var graph = columns.Graph;
        var line = MainLine.Of(set, w => graph.Cites(w).ToArray(), w => columns.Year[w]);
        var sleeping = set.Members()
            .Where(w => columns.Year[w] > 0)
            .Select(w =>
                (
                    Work: w,
                    Paper: SleepingPaper.Of(
                        columns.Year[w],
                        graph.CitedBy(w).ToArray().Select(c => (int)columns.Year[c]).Where(y => y > 0)
                    )
                )
            )
            .Where(s => s.Paper?.Beauty >= LeastBeauty)
            .OrderByDescending(s => s.Paper!.Beauty)
            .ThenBy(s => s.Work)
            .Take(MostShown)
            .ToArray();
        var retracted = Retractions
            .Of(columns)
            .Select(r => (r.Key, Notice: r.Value, Citing: graph.CitedBy(r.Key).ToArray().Where(set.Contains).ToArray()))
            // The notice itself cites it, and says so.
            .Select(r => (r.Key, r.Notice, Citing: r.Citing.Where(c => c != r.Notice).ToArray()))
            .Where(r => r.Citing.Length > 0)
            .OrderByDescending(r => r.Citing.Count(view.Facts.Kept.Contains))
            .ThenByDescending(r => r.Citing.Length)
            .ThenBy(r => r.Key)
            .Take(MostShown)
            .ToArray();
        var kept = retracted.ToDictionary(
            r => r.Key,
            r => r.Citing.Where(view.Facts.Kept.Contains).Take(MostKeptShown).ToArray()
        );
        var shown = await Shown(
            rows,
            view,
            line.Works.Select(w => w.Work)
                .Concat(sleeping.Select(s => s.Work))
                .Concat(retracted.Select(r => r.Key))
                .Concat(kept.Values.SelectMany(k => k)),
            cancel
        );
        return TypedResults.Ok(
            new OutlineDto(
                view.Answer.Count,
                [.. line.Works.Select(w => new LineWorkDto(shown[w.Work], Math.Round(w.Share, 4)))],
                line.Tied,
                line.LeftOut,
                [
                    .. sleeping.Select(s => new SleepingDto(
                        shown[s.Work],
                        Math.Round(s.Paper!.Beauty, 1),
                        s.Paper.Awakened,
                        s.Paper.Peak,
                        s.Paper.AtPeak
                    )),
                ],
                [
                    .. retracted.Select(r => new RetractedDto(
                        shown[r.Key],
                        columns.Year[r.Notice] == 0 ? null : columns.Year[r.Notice],
                        r.Citing.Length,
                        columns.Year[r.Notice] == 0 ? 0 : r.Citing.Count(c => columns.Year[c] > columns.Year[r.Notice]),
                        [.. kept[r.Key].Select(k => shown[k])]
                    )),
                ],
                [.. view.Facts.Tags.Keys.Order(StringComparer.OrdinalIgnoreCase)]
            )
        );
    }

    private static async Task<IResult> Bridges(
        int reviewId,
        int stepId,
        SearchService search,
        WorkRows rows,
        CancellationToken cancel,
        string first = "",
        string second = ""
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null)
            return SearchEndpoints.NoStep();
        if (view.Answer.Count > MostWorks)
            return TooMany(view.Answer.Count);
        if (
            !view.Facts.Tags.TryGetValue(first, out var one)
            || !view.Facts.Tags.TryGetValue(second, out var two)
            || first == second
        )
            return Problems.Of(404, "Works bridge two different tags of this review.", "Choose two of its tags.");
        var graph = view.Snapshot.Columns.Graph;
        var bridges = view
            .Answer.InView.Members()
            .Select(w => (Work: w, First: Ties(graph, w, one), Second: Ties(graph, w, two)))
            .Where(b => b.First > 0 && b.Second > 0)
            .OrderByDescending(b => Math.Min(b.First, b.Second))
            .ThenByDescending(b => b.First + b.Second)
            .ThenBy(b => b.Work)
            .ToArray();
        var shown = await Shown(rows, view, bridges.Take(MostShown).Select(b => b.Work), cancel);
        return TypedResults.Ok(
            new BridgesDto(
                bridges.Length,
                [.. bridges.Take(MostShown).Select(b => new BridgeDto(shown[b.Work], b.First, b.Second))]
            )
        );
    }

    /// <summary>How many works of a set a work cites or is cited by, itself aside.</summary>
    private static int Ties(CitationGraph graph, int work, WorkSet set)
    {
        var tied = new HashSet<int>();
        foreach (var cited in graph.Cites(work))
            if (set.Contains(cited))
                tied.Add(cited);
        foreach (var citing in graph.CitedBy(work))
            if (set.Contains(citing))
                tied.Add(citing);
        return tied.Count;
    }

    private static async Task<Dictionary<int, WorkRowDto>> Shown(
        WorkRows rows,
        SearchView view,
        IEnumerable<int> works,
        CancellationToken cancel
    ) => (await rows.For(view, [.. works.Distinct()], cancel)).ToDictionary(r => r.Id);

    private static IResult TooMany(int works) =>
        Problems.Of(
            400,
            $"The main line is found for at most {MostWorks:N0} works; these are {works:N0}.",
            "Narrow the list first."
        );
}
