using System.Globalization;
using Zendle.Core.Maps;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;
using Zendle.Server.Features.Search.Senses;

namespace Zendle.Server.Features.Maps;

/// <summary>What a person asked of a map.</summary>
/// <param name="Lanes">What its lanes are.</param>
/// <param name="Database">The database whose counts are the size; 0 for none.</param>
/// <param name="Open">Whether every value has a lane of its own.</param>
/// <param name="Suggest">How many works beside the set are suggested.</param>
internal sealed record MapAsked(
    LaneField Lanes,
    LaneOrder Order,
    MapAlong Along,
    MapSize Size,
    int Database,
    bool Open,
    int Suggest,
    MapFrame Frame
);

/// <summary>Draws the set in view of a step as a map; the last ones are remembered.</summary>
internal sealed class MapService(NeighbourFinder neighbours, Partings partings, TimeProvider clock)
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
    /// <param name="other">What it is held against; null for nothing.</param>
    public MapDto Of(int reviewId, SearchView view, Answer? other, MapAsked asked) =>
        known.Get(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{reviewId} {view.Facts.Version} {view.Answer.Key} {other?.Key} {asked}"
            ),
            () => Drawn(view, other?.InView, asked),
            map => 2_000 + map.Works.Sum(w => 160L + (2 * w.Title.Length) + (4 * w.Cites.Count))
        );

    private MapDto Drawn(SearchView view, WorkSet? other, MapAsked asked)
    {
        var (works, columns) = (view.Answer.InView.ToArray(), view.Snapshot.Columns);
        var links = MapLinks.Among(works, columns.Graph);
        var values = LaneValues.For(asked.Lanes, view, partings);
        var years = Array.ConvertAll(works, columns.YearOf);
        int?[] at = asked.Along == MapAlong.Rank ? [.. links.Ranks(works)] : years;
        var lanes = LaneChoice.By([.. works.Select(values.Of)], asked.Open ? MostOpenLanes : MostLanes);
        lanes = lanes.InOrder(asked.Order, years, links.Between(lanes.Of, lanes.Lanes.Length));
        var size = Sizes(view, asked, works, links);
        MapWork[] marks = [.. works.Select((w, i) => new MapWork(w, lanes.Of[i], at[i], size[i]))];
        var picture = MapLayout.Of(marks, lanes.Lanes.Length, asked.Frame);
        // Where no column is for works without a year, none of them is suggested: it would stand at a year.
        var hasUnknown = asked.Along == MapAlong.Rank || picture.Scale.Columns.Any(c => c.Kind == ColumnKind.Unknown);
        var suggested = new Suggestions(view, neighbours).For(
            works,
            lanes,
            values,
            w => hasUnknown || columns.Year[w] > 0,
            asked.Suggest
        );
        if (suggested.Count > 0)
        {
            // On the scale that is there: what is suggested moves only those beside it.
            var ids = suggested.Select(s => s.Work).ToArray();
            var sizes = Sizes(view, asked, ids, MapLinks.Among(ids, columns.Graph));
            suggested =
            [
                .. suggested.Select((s, i) => s with { Size = asked.Size == MapSize.Links ? s.Links : sizes[i] }),
            ];
            picture = MapLayout.On(
                picture.Scale,
                [
                    .. marks,
                    .. suggested.Select(s => new MapWork(
                        s.Work,
                        s.Lane,
                        asked.Along == MapAlong.Rank
                            ? 1 + works.Where((_, i) => links.Of(i) > s.Links).Count()
                            : columns.YearOf(s.Work),
                        s.Size
                    )),
                ],
                lanes.Lanes.Length
            );
        }
        return new DrawnMap(view, other, asked, works, links, values, lanes, size, picture, suggested).Told();
    }

    private double[] Sizes(SearchView view, MapAsked asked, int[] works, MapLinks links)
    {
        var (columns, thisYear) = (view.Snapshot.Columns, clock.GetUtcNow().Year);
        int Cited(int work) => columns.Graph.CitedBy(work).Length;
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
            _ => new double[works.Length],
        };
    }

    private static double[] Ties(SeedTies ties, int[] works) => [.. works.Select(w => (double)ties.Of(w).Count)];
}
