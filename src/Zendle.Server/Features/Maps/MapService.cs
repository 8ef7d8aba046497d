using System.Collections.Immutable;
using System.Globalization;
using Zendle.Core.Maps;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Columns;
using Zendle.Index.Questions;
using Zendle.Server.Features.Search;

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
internal sealed class MapService(NeighbourFinder neighbours, TimeProvider clock)
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
        var values = LaneValues.For(asked.Lanes, view, works);
        var years = Array.ConvertAll(works, w => YearOf(columns, w));
        int?[] at = asked.Along == MapAlong.Rank ? [.. links.Ranks(works)] : years;
        var lanes = LaneChoice.By(values.Of, asked.Open ? MostOpenLanes : MostLanes);
        lanes = lanes.InOrder(asked.Order, years, links.Between(lanes.Of, lanes.Lanes.Length));
        var size = Sizes(view, asked, works, links);
        MapWork[] marks = [.. works.Select((w, i) => new MapWork(w, lanes.Of[i], at[i], size[i]))];
        var picture = MapLayout.Of(marks, lanes.Lanes.Length, asked.Frame);
        // Where no column is for works without a year, none of them is suggested: it would stand at a year.
        var hasUnknown = asked.Along == MapAlong.Rank || picture.Scale.Columns.Any(c => c.Kind == ColumnKind.Unknown);
        var suggested = new Suggestions(view, neighbours).For(
            works,
            lanes,
            asked.Lanes,
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
                            : YearOf(columns, s.Work),
                        s.Size
                    )),
                ],
                lanes.Lanes.Length
            );
        }
        return Told(view, other, asked, works, links, values, lanes, size, picture, suggested);
    }

    private static int? YearOf(CorpusColumns columns, int work) => columns.Year[work] is > 0 and var year ? year : null;

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
            MapSize.Seeds => Ties(view, works),
            _ => new double[works.Length],
        };
    }

    private static double[] Ties(SearchView view, int[] works)
    {
        var ties = new Dictionary<int, double>();
        var graph = view.Snapshot.Columns.Graph;
        foreach (var seed in (view.State.Question as SeededQuestion)?.Seeds ?? [])
        foreach (var work in graph.Cites(seed).ToArray().Concat(graph.CitedBy(seed).ToArray()).Distinct())
            ties[work] = ties.GetValueOrDefault(work) + 1;
        return [.. works.Select(w => ties.GetValueOrDefault(w))];
    }

    private static MapDto Told(
        SearchView view,
        WorkSet? other,
        MapAsked asked,
        int[] works,
        MapLinks links,
        LaneValues values,
        LaneChoice lanes,
        double[] size,
        MapPicture picture,
        IReadOnlyList<Suggestion> suggested
    )
    {
        var columns = view.Snapshot.Columns;
        var ordinal = works.Select((work, i) => (work, i)).ToDictionary(w => w.work, w => w.i);
        var marks = picture.Marks.ToDictionary(m => m.Work);
        var bins = picture.Bins.SelectMany(b => b.Works.Select(w => (w, b))).ToDictionary(w => w.w, w => w.b);
        var line = MainLine.Of(view.Answer.InView, w => columns.Graph.Cites(w).ToArray(), w => columns.Year[w]);
        return new(
            [
                .. lanes
                    .Lanes.Zip(picture.Lanes)
                    .Select(l => new MapLaneDto(
                        l.First.Kind,
                        l.First.Value < 0 ? "" : values.Name(l.First.Value),
                        l.First.Values,
                        l.First.Works,
                        l.First.Several,
                        Round(l.Second.Y),
                        Round(l.Second.Height)
                    )),
            ],
            [.. picture.Scale.Columns.Select(c => new MapColumnDto(c.Kind, c.From, c.To, Round(c.X), Round(c.Width)))],
            [.. works.Select((_, i) => Work(i))],
            [
                .. picture.Bins.Select(b => new MapBinDto(
                    b.Lane,
                    b.Column,
                    Round(b.X),
                    Round(b.Y),
                    Round(b.Width),
                    Round(b.Height),
                    [.. b.Works.Where(ordinal.ContainsKey).Select(w => ordinal[w])]
                )),
            ],
            links.Count,
            [.. line.Works.Select(w => ordinal[w.Work])],
            values.Modularity is { } modularity ? Math.Round(modularity, 2) : null,
            asked.Size == MapSize.Same ? [] : Samples(picture.Scale),
            asked.Frame.Width,
            Round(picture.Height),
            view.State.HasSeeds,
            [
                .. suggested.Select(s => new SuggestionDto(
                    Placed(
                        s.Work,
                        s.Lane,
                        s.Size,
                        s.Cites,
                        columns.Graph.Cites(s.Work).Length - s.Cites.Length,
                        columns.Graph.CitedBy(s.Work).Length - s.CitedBy.Length
                    ),
                    s.InCommon,
                    s.CitedBy,
                    s.IsByLinks
                )),
            ],
            other is null ? null : new(works.Count(other.Contains), other.Count() - works.Count(other.Contains))
        );

        MapWorkDto Work(int i) =>
            Placed(works[i], lanes.Of[i], size[i], links.Cites(i), links.CitesOutside[i], links.CitedOutside[i]);

        MapWorkDto Placed(int id, int lane, double weight, IReadOnlyList<int> cites, int citesOutside, int citedOutside)
        {
            var isDrawn = marks.TryGetValue(id, out var mark);
            var bin = isDrawn ? null : bins[id];
            return new(
                id,
                lane,
                bin?.Column ?? mark.Column,
                Round(bin is null ? mark.X : bin.X + (bin.Width / 2)),
                Round(bin is null ? mark.Y : bin.Y + (bin.Height / 2)),
                Round(isDrawn ? mark.Diameter : 0),
                YearOf(columns, id),
                view.Fold.Of(id).Stage,
                WorkNames.Of(columns, id),
                columns.SortTitle[id] ?? "",
                weight,
                cites,
                citesOutside,
                citedOutside,
                other?.Contains(id) == true
            );
        }
    }

    /// <summary>The largest size, a quarter of it, and the least that there can be.</summary>
    private static ImmutableArray<SampleDto> Samples(MapScale scale)
    {
        double[] sizes =
            scale.MostSize >= 8 ? [0, Math.Round(scale.MostSize / 4), scale.MostSize] : [0, scale.MostSize];
        return [.. sizes.Distinct().Select(s => new SampleDto(s, Round(scale.Diameter(s))))];
    }

    private static double Round(double pixels) => Math.Round(pixels, 2);
}
