using System.Globalization;
using Zendle.Core.Maps;
using Zendle.Core.Merging;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Server.Features.Search.Senses;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Maps;

/// <summary>What a person asked of a map.</summary>
/// <param name="StepId">The step whose set it shows.</param>
/// <param name="Lanes">What its lanes are.</param>
/// <param name="Database">The database whose counts are the size; 0 for none.</param>
/// <param name="Open">Whether every value has a lane of its own.</param>
/// <param name="Suggest">How many works beside the set are suggested.</param>
/// <param name="Plan">The work whose citations are held against the set; 0 for none.</param>
internal sealed record MapAsked(
    int StepId,
    LaneField Lanes,
    LaneOrder Order,
    MapAlong Along,
    MapSize Size,
    int Database,
    bool Open,
    int Suggest,
    int Plan,
    MapFrame Frame
);

/// <summary>Draws the set in view of a step as a map; the last ones are remembered.</summary>
internal sealed class MapService(
    NeighbourFinder neighbours,
    Partings partings,
    TopicMemory topics,
    FoundDays foundDays,
    CorpusReader reader,
    TimeProvider clock
)
{
    /// <summary>More works than this are no map.</summary>
    public const int MostWorks = 5_000;

    /// <summary>At most so many works are suggested.</summary>
    public const int MostSuggested = 50;

    private const int MostLanes = 12,
        MostOpenLanes = 400;
    private const long MostRemembered = 8 << 20;
    private readonly BoundedCache<string, MapDto> known = new(MostRemembered);

    /// <summary>The map of a set that is not too large.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="view">The set in view.</param>
    /// <param name="other">What it is held against; null for nothing.</param>
    /// <param name="asked">How it is looked at.</param>
    /// <param name="cancel">Stops reading what the store alone knows: days and pages.</param>
    public async Task<MapDto> Of(int reviewId, SearchView view, Answer? other, MapAsked asked, CancellationToken cancel)
    {
        // What is no step, all works there are, is found anew each time.
        var among =
            asked.StepId > 0 && LaneValues.AreFound(asked.Lanes) ? await topics.For(view, asked.StepId, cancel) : null;
        var key = string.Create(
            CultureInfo.InvariantCulture,
            $"{reviewId} {view.Facts.Version} {view.Answer.Key} {other?.Key} {asked} {among?.Key}"
        );
        if (known.TryGet(key, out var map))
            return map;
        map = await Drawn(reviewId, view, other?.InView, asked, among, cancel);
        known.Put(key, map, 2_000 + map.Works.Sum(w => 180L + (2 * w.Title.Length) + (4 * w.Cites.Count)));
        return map;
    }

    private async Task<MapDto> Drawn(
        int reviewId,
        SearchView view,
        WorkSet? other,
        MapAsked asked,
        FoundAmong? among,
        CancellationToken cancel
    )
    {
        var (works, columns) = (view.Answer.InView.ToArray(), view.Snapshot.Columns);
        var links = MapLinks.Among(works, columns.Graph);
        var values = LaneValues.For(asked.Lanes, view, partings, among);
        var days = asked.Along == MapAlong.Found ? await foundDays.Of(reviewId, works, columns, cancel) : null;
        int?[] at = asked.Along switch
        {
            MapAlong.Rank => [.. links.Ranks(works)],
            MapAlong.Found => [.. works.Select(w => days!.TryGetValue(w, out var day) ? day : (int?)null)],
            _ => Array.ConvertAll(works, columns.YearOf),
        };
        // Lanes that were found stand where they stood when they were found: whatever came moves none of them.
        var lanes = among is { IsToday: false }
            ? Ordered([.. among.Works.Members()]).Over([.. works.Select(values.Of)])
            : Ordered(works);
        var size = await Sizes(view, asked, works, links, cancel);
        MapWork[] marks = [.. works.Select((w, i) => new MapWork(w, lanes.Of[i], at[i], size[i]))];
        var picture = MapLayout.Of(marks, lanes.Lanes.Length, asked.Frame);
        var ordinals = works.Select((w, i) => (w, i)).ToDictionary(w => w.w, w => w.i);
        // Where no column is for works without a year, none of them is suggested: it would stand at a year.
        var hasUnknown = asked.Along != MapAlong.Year || picture.Scale.Columns.Any(c => c.Kind == ColumnKind.Unknown);
        var suggested = new Suggestions(view, neighbours).For(
            works,
            lanes,
            values,
            w => w != asked.Plan && (hasUnknown || columns.Year[w] > 0),
            asked.Suggest
        );
        var plan = asked.Plan == 0 ? null : Plan.Of(view, asked.Plan, ordinals, lanes, links);
        var beside = suggested.Select(s => s.Beside).ToList();
        if (plan is { At: null })
            beside.Add(plan.Beside);
        if (beside.Count > 0)
        {
            int[] ids = [.. beside.Select(b => b.Work)];
            var sizes =
                asked.Size == MapSize.Links
                    ? [.. beside.Select(b => (double)b.Links)]
                    : await Sizes(view, asked, ids, MapLinks.Among(ids, columns.Graph), cancel);
            beside = [.. beside.Select((b, i) => b with { Size = sizes[i] })];
            suggested = [.. suggested.Select((s, i) => s with { Beside = beside[i] })];
            if (plan is { At: null })
                plan = plan with { Beside = beside[^1] };
            // On the scale that is there: what stands beside the set moves only those next to it.
            picture = MapLayout.On(
                picture.Scale,
                [.. marks, .. beside.Select(b => new MapWork(b.Work, b.Lane, At(b), b.Size))],
                lanes.Lanes.Length
            );
        }
        return new DrawnMap(
            view,
            other,
            asked,
            works,
            links,
            values,
            lanes,
            size,
            picture,
            suggested,
            plan,
            among
        ).Told();

        LaneChoice Ordered(int[] of)
        {
            var chosen = LaneChoice.By([.. of.Select(values.Of)], asked.Open ? MostOpenLanes : MostLanes);
            var between = MapLinks.Among(of, columns.Graph).Between(chosen.Of, chosen.Lanes.Length);
            return chosen.InOrder(asked.Order, Array.ConvertAll(of, columns.YearOf), between);
        }

        // What is not found yet would be found today, the last day there can be.
        int? At(BesideWork of) =>
            asked.Along switch
            {
                MapAlong.Rank => 1 + works.Where((_, i) => links.Of(i) > of.Links).Count(),
                MapAlong.Found => DateOnly.FromDateTime(clock.GetLocalNow().Date).DayNumber,
                _ => columns.YearOf(of.Work),
            };
    }

    private async Task<double[]> Sizes(
        SearchView view,
        MapAsked asked,
        int[] works,
        MapLinks links,
        CancellationToken cancel
    )
    {
        var (columns, thisYear) = (view.Snapshot.Columns, clock.GetUtcNow().Year);
        int Cited(int work) => columns.Graph.CitedByCount(work);
        return asked.Size switch
        {
            MapSize.Cited => [.. works.Select(w => (double)Cited(w))],
            MapSize.CitedPerYear =>
            [
                .. works.Select(w => Math.Round(WorkOrder.PerYear(Cited(w), columns.Year[w], thisYear), 1)),
            ],
            MapSize.DatabaseCited => columns.DatabaseCited.TryGetValue(asked.Database, out var counted)
                ? [.. works.Select(w => (double)Math.Max(0, counted[w]))]
                : new double[works.Length],
            MapSize.Links => [.. works.Select((_, i) => (double)links.Of(i))],
            MapSize.Seeds => Ties(new(view), works),
            MapSize.Pages => await Pages(works, cancel),
            _ => new double[works.Length],
        };
    }

    private static double[] Ties(SeedTies ties, int[] works) => [.. works.Select(w => (double)ties.Of(w).Count)];

    /// <summary>Pages as the chosen record of each work tells them; 0 where none does.</summary>
    private async Task<double[]> Pages(int[] works, CancellationToken cancel)
    {
        var records = await reader.OfWorks(works, cancel);
        return
        [
            .. works.Select(w =>
                records.Contains(w) ? ChosenFields.From([.. records[w]]).Venue.Value?.PageCount ?? 0.0 : 0.0
            ),
        ];
    }
}
