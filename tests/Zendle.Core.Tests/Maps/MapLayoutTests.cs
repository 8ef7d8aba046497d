using CsCheck;
using Zendle.Core.Maps;

namespace Zendle.Core.Tests.Maps;

/// <summary>Where works stand on a map.</summary>
public sealed class MapLayoutTests
{
    private static readonly MapFrame Screen = new(1_080, 600);

    private static Gen<MapWork[]> Works(int most, int lanes) =>
        Gen.Select(
                Gen.Int[0, lanes - 1],
                Gen.Frequency((9, Gen.Int[1960, 2026].Select(y => (int?)y)), (1, Gen.Const((int?)null))),
                Gen.Frequency((3, Gen.Int[0, 12]), (1, Gen.Int[0, 900]))
            )
            .Array[1, most]
            .Select(all => all.Select((w, i) => new MapWork(i + 1, w.Item1, w.Item2, w.Item3)).ToArray());

    /// <summary>No marks overlap, each lies in its lane and column, and later works stand no further left.</summary>
    private static void Sound(MapWork[] works, MapPicture picture)
    {
        var of = works.ToDictionary(w => w.Work);
        Assert.Equal(
            works.Select(w => w.Work).Order(),
            picture.Marks.Select(m => m.Work).Concat(picture.Bins.SelectMany(b => b.Works)).Order()
        );
        foreach (var mark in picture.Marks)
        {
            var (lane, column) = (picture.Lanes[mark.Lane], picture.Scale.Columns[mark.Column]);
            var r = mark.Diameter / 2;
            Assert.Equal(of[mark.Work].Lane, mark.Lane);
            Assert.True(column.Holds(of[mark.Work].At));
            Assert.InRange(mark.Y, lane.Y + r, lane.Y + lane.Height - r);
            Assert.InRange(mark.X, column.X + r - 1e-6, column.X + column.Width - r + 1e-6);
        }
        foreach (var cell in picture.Marks.GroupBy(m => (m.Lane, m.Column)))
        {
            var marks = cell.ToArray();
            for (var a = 0; a < marks.Length; a++)
            for (var b = a + 1; b < marks.Length; b++)
            {
                var apart = Math.Max(Math.Abs(marks[a].X - marks[b].X), Math.Abs(marks[a].Y - marks[b].Y));
                Assert.True(apart >= ((marks[a].Diameter + marks[b].Diameter) / 2) - 1e-6, "Two marks overlap.");
                if (of[marks[a].Work].At < of[marks[b].Work].At)
                    Assert.True(marks[a].X <= marks[b].X + 1e-6);
            }
        }
        for (var i = 1; i < picture.Lanes.Length; i++)
            Assert.Equal(picture.Lanes[i - 1].Y + picture.Lanes[i - 1].Height, picture.Lanes[i].Y, 6);
        for (var i = 1; i < picture.Scale.Columns.Length; i++)
            Assert.Equal(
                picture.Scale.Columns[i - 1].X + picture.Scale.Columns[i - 1].Width,
                picture.Scale.Columns[i].X,
                6
            );
    }

    [Fact]
    public void Marks_lie_in_lane_and_column_and_never_overlap() =>
        Works(2_000, 9).Sample(works => Sound(works, MapLayout.Of(works, 9, Screen)), iter: 60);

    [Fact]
    public void A_further_work_moves_only_those_of_its_lane_and_column() =>
        Gen.Select(Works(300, 5), Gen.Int[0, 4], Gen.Int[1960, 2026], Gen.Int[0, 900])
            .Sample(
                (works, lane, year, size) =>
                {
                    var before = MapLayout.Of(works, 5, Screen);
                    var further = new MapWork(10_000, lane, year, size);
                    var after = MapLayout.On(before.Scale, [.. works, further], 5);
                    var cell = after.Marks.Single(m => m.Work == further.Work).Column;
                    var now = after.Marks.ToDictionary(m => m.Work);
                    foreach (var mark in before.Marks.Where(m => (m.Lane, m.Column) != (lane, cell)))
                    {
                        Assert.Equal(mark.X, now[mark.Work].X, 6);
                        Assert.Equal(
                            mark.Y - before.Lanes[mark.Lane].Middle,
                            now[mark.Work].Y - after.Lanes[mark.Lane].Middle,
                            6
                        );
                    }
                    // Lanes above stay; lanes below go down by what this one grew.
                    var grown = after.Lanes[lane].Height - before.Lanes[lane].Height;
                    Assert.True(grown >= -1e-6);
                    for (var l = 0; l < 5; l++)
                        Assert.Equal(before.Lanes[l].Y + (l > lane ? grown : 0), after.Lanes[l].Y, 6);
                },
                iter: 200
            );

    [Fact]
    public void In_a_column_of_one_value_a_further_small_work_moves_nobody()
    {
        var works = Enumerable.Range(1, 7).Select(i => new MapWork(i, 0, 2020, 4)).Append(new(9, 0, 2000, 4)).ToArray();
        var before = MapLayout.Of(works, 1, new(240, 400));
        var after = MapLayout.On(before.Scale, [.. works, new(10, 0, 2020, 1)], 1);
        var now = after.Marks.ToDictionary(m => m.Work, m => (m.X, m.Y - after.Lanes[0].Middle));
        Assert.All(before.Marks, m => Assert.Equal((m.X, m.Y - before.Lanes[0].Middle), now[m.Work]));
    }

    [Fact]
    public void A_mark_grows_with_its_size_by_area()
    {
        var scale = new MapScale(MapAxis.Of([2020], 400), 20, 100);
        Assert.Equal(20, scale.Diameter(100));
        Assert.Equal(20 * 0.36, scale.Diameter(0), 6);
        // A quarter of the size has half of what lies between smallest and largest.
        Assert.Equal((20 + 7.2) / 2, scale.Diameter(25), 6);
        Assert.Equal(scale.SmallestMark, new MapScale(scale.Columns, 20, 0).Diameter(0));
    }

    [Fact]
    public void One_work_stands_in_the_middle()
    {
        var picture = MapLayout.Of([new(5, 0, 1999, 3)], 1, new(400, 50));
        var mark = Assert.Single(picture.Marks);
        Assert.Equal((200, picture.Lanes[0].Middle), (mark.X, mark.Y));
        Assert.Equal(MapLayout.LeastLane, picture.Height, 6);
    }

    [Fact]
    public void Three_hundred_works_of_one_year_among_many_years_are_shown_as_one_with_their_number()
    {
        MapWork[] works =
        [
            .. Enumerable.Range(1, 300).Select(i => new MapWork(i, 0, 2010, i)),
            .. Enumerable.Range(1980, 46).Select(y => new MapWork(1_000 + y, 0, y, 1)),
        ];
        var picture = MapLayout.Of(works, 1, Screen);
        var bin = Assert.Single(picture.Bins);
        Assert.Equal(301, bin.Works.Length);
        Assert.Equal(45, picture.Marks.Length);
        Assert.InRange(bin.Height, 1, MapLayout.MostStack);
        Sound(works, picture);
    }

    [Fact]
    public void Works_without_a_year_have_a_column_of_their_own()
    {
        var picture = MapLayout.Of([new(1, 0, null, 1), new(2, 0, 2001, 1), new(3, 0, 2002, 1)], 1, new(400, 300));
        Assert.Equal(
            [ColumnKind.Unknown, ColumnKind.Values, ColumnKind.Values],
            picture.Scale.Columns.Select(c => c.Kind)
        );
        Assert.Equal([(1, 0), (2, 1), (3, 2)], picture.Marks.Select(m => (m.Work, m.Column)));
        Assert.Single(MapAxis.Of([null, null], 400), c => c.Kind == ColumnKind.Unknown && c.Width == 400);
    }

    [Fact]
    public void A_few_old_works_share_a_column_and_many_make_columns_of_several_years()
    {
        // 50 years of 16 pixels fit into 856 beside 56 for what came earlier: from 1977.
        int?[] few = [1870, 1912, .. Enumerable.Range(0, 98).Select(i => (int?)(1980 + (i % 47)))];
        var columns = MapAxis.Of(few, 856);
        Assert.Equal((ColumnKind.Earlier, 1870, 1976), (columns[0].Kind, columns[0].From, columns[0].To));
        Assert.Equal(50, columns.Count(c => c.Kind == ColumnKind.Values));
        Assert.All(columns.Skip(1), c => Assert.Equal(c.From, c.To));
        int?[] many = [.. Enumerable.Range(1870, 157).Select(y => (int?)y)];
        var wide = MapAxis.Of(many, 856);
        Assert.All(wide, c => Assert.Equal((ColumnKind.Values, 4), (c.Kind, c.To - c.From)));
        Assert.Equal((1870, 2029), (wide[0].From, wide[^1].To));
    }

    [Fact]
    public void Nothing_is_a_map_without_lanes() => Assert.Equal(0, MapLayout.Of([], 0, new(400, 300)).Height);
}
