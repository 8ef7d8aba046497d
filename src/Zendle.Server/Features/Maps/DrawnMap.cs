using System.Collections.Immutable;
using Zendle.Core.Maps;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A map as it was drawn, and how it is told.</summary>
/// <param name="Other">The set it is held against; null for none.</param>
/// <param name="Works">The works of the set, ascending; ordinals count them.</param>
/// <param name="Size">By work: what its size says.</param>
/// <param name="Picture">Where the works, the suggestions and the plan stand.</param>
/// <param name="Plan">The work that is held against the set; null for none.</param>
/// <param name="Among">The works that its lanes were found among; null where lanes are not found.</param>
internal sealed record DrawnMap(
    SearchView View,
    WorkSet? Other,
    MapAsked Asked,
    int[] Works,
    MapLinks Links,
    LaneValues Values,
    LaneChoice Lanes,
    double[] Size,
    MapPicture Picture,
    IReadOnlyList<Suggestion> Suggested,
    Plan? Plan,
    FoundAmong? Among
)
{
    /// <summary>The map as it goes to the interface.</summary>
    public MapDto Told()
    {
        var columns = View.Snapshot.Columns;
        var ordinal = Works.Select((work, i) => (work, i)).ToDictionary(w => w.work, w => w.i);
        var marks = Picture.Marks.ToDictionary(m => m.Work);
        var bins = Picture.Bins.SelectMany(b => b.Works.Select(w => (w, b))).ToDictionary(w => w.w, w => w.b);
        var strongest = Links.Strongest();
        string[] tags =
        [
            .. View
                .Facts.Tags.Where(t => Works.Any(t.Value.Contains))
                .Select(t => t.Key)
                .Order(StringComparer.OrdinalIgnoreCase),
        ];
        var line = MainLine.Of(View.Answer.InView, w => columns.Graph.Cites(w).ToArray(), w => columns.Year[w]);
        return new(
            [
                .. Lanes
                    .Lanes.Zip(Picture.Lanes)
                    .Select(l => new MapLaneDto(
                        l.First.Kind,
                        l.First.Value < 0 ? "" : Values.Name(l.First.Value),
                        l.First.Values,
                        l.First.Works,
                        l.First.Several,
                        Round(l.Second.Y),
                        Round(l.Second.Height)
                    )),
            ],
            [.. Picture.Scale.Columns.Select(c => new MapColumnDto(c.Kind, c.From, c.To, Round(c.X), Round(c.Width)))],
            [.. Works.Select((_, i) => Work(i))],
            [
                .. Picture.Bins.Select(b => new MapBinDto(
                    b.Lane,
                    b.Column,
                    Round(b.X),
                    Round(b.Y),
                    Round(b.Width),
                    Round(b.Height),
                    [.. b.Works.Where(ordinal.ContainsKey).Select(w => ordinal[w])]
                )),
            ],
            Links.Count,
            [.. line.Works.Select(w => ordinal[w.Work])],
            Values.Modularity is { } modularity ? Math.Round(modularity, 2) : null,
            Asked.Size == MapSize.Same ? [] : Samples(Picture.Scale),
            Asked.Frame.Width,
            Round(Picture.Height),
            View.State.HasSeeds,
            [.. Suggested.Select(s => new SuggestionDto(Beside(s.Beside), s.InCommon, s.Beside.CitedBy, s.IsByLinks))],
            Other is null ? null : new(Works.Count(Other.Contains), Other.Count() - Works.Count(Other.Contains)),
            [.. tags.Select(t => new MapTagDto(t, Works.Count(View.Facts.Tags[t].Contains)))],
            Plan is null
                ? null
                : new(
                    Plan.At is { } at ? Work(at) : Beside(Plan.Beside),
                    Plan.At,
                    Plan.Beside.CitedBy,
                    Plan.LanesLeftOut,
                    Plan.MuchCited
                ),
            Among is null ? null : new(Among.Count, Among.At, Among.Came, Among.Gone)
        );

        MapWorkDto Work(int i) =>
            Placed(
                Works[i],
                Lanes.Of[i],
                Size[i],
                Links.Cites(i),
                Links.CitesOutside[i],
                Links.CitedOutside[i],
                strongest[i]
            );

        MapWorkDto Beside(BesideWork b) =>
            Placed(
                b.Work,
                b.Lane,
                b.Size,
                b.Cites,
                columns.Graph.CitesCount(b.Work) - b.Cites.Length,
                columns.Graph.CitedByCount(b.Work) - b.CitedBy.Length
            );

        MapWorkDto Placed(
            int id,
            int lane,
            double weight,
            IReadOnlyList<int> cites,
            int citesOutside,
            int citedOutside,
            int? bound = null
        )
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
                columns.YearOf(id),
                View.Fold.Of(id).Stage,
                WorkNames.Of(columns, id),
                columns.SortTitle[id] ?? "",
                weight,
                cites,
                citesOutside,
                citedOutside,
                Other?.Contains(id) == true,
                [.. Enumerable.Range(0, tags.Length).Where(t => View.Facts.Tags[tags[t]].Contains(id))],
                bound
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
