using System.Collections.Immutable;

namespace Zendle.Core.Maps;

/// <summary>A work that goes onto a map.</summary>
/// <param name="Work">Its id.</param>
/// <param name="Lane">The lane it stands in.</param>
/// <param name="At">Its value along, mostly its year; null where it is not known.</param>
/// <param name="Size">What its size says, 0 or more.</param>
public readonly record struct MapWork(int Work, int Lane, int? At, double Size);

/// <summary>The room a map is given.</summary>
/// <param name="Width">Of all columns, in pixels.</param>
/// <param name="Height">That lanes should not need more than, if they can, in pixels.</param>
public readonly record struct MapFrame(double Width, double Height);

/// <summary>What decides where works stand and how large they are: works on one scale can be held against each other.</summary>
/// <param name="Columns">From left to right.</param>
/// <param name="Mark">Diameter of the largest mark, in pixels.</param>
/// <param name="MostSize">The size that it stands for.</param>
/// <param name="Tracks">On how many lines, 1, 3 or 5, the columns of a lane begin in turn: neighbours then stand apart.</param>
public sealed record MapScale(ImmutableArray<MapColumn> Columns, double Mark, double MostSize, int Tracks = 1)
{
    private static readonly ImmutableArray<int> Turns = [0, -1, 1, -2, 2];

    /// <summary>How far below the lane's middle line the works of a column begin, in pixels; it follows from its first
    /// value alone.</summary>
    public double Track(MapColumn column) =>
        Turns[(((column.From * 2) % Tracks) + Tracks) % Tracks] * 1.25 * (Mark + MapLayout.Gap);

    /// <summary>Diameter of the smallest mark, in pixels.</summary>
    public double SmallestMark => Math.Max(MapLayout.Least, Mark * 0.36);

    /// <summary>The diameter for a size: its area grows with it.</summary>
    public double Diameter(double size) =>
        MostSize <= 0 || size <= 0
            ? SmallestMark
            : SmallestMark + ((Mark - SmallestMark) * Math.Sqrt(Math.Min(1, size / MostSize)));
}

/// <summary>A lane: where it lies and the line its works gather about.</summary>
/// <param name="Y">Upper edge, in pixels.</param>
/// <param name="Height">In pixels.</param>
/// <param name="Middle">The line that works are stacked from, both ways.</param>
public readonly record struct MapLane(double Y, double Height, double Middle);

/// <summary>Where a work stands.</summary>
/// <param name="Work">Its id.</param>
/// <param name="Lane">Ordinal of its lane.</param>
/// <param name="Column">Ordinal of its column.</param>
/// <param name="X">Centre, in pixels.</param>
/// <param name="Y">Centre, in pixels.</param>
/// <param name="Diameter">In pixels.</param>
public readonly record struct MapMark(int Work, int Lane, int Column, double X, double Y, double Diameter);

/// <summary>Works of a lane and column that are too many to be drawn one by one.</summary>
/// <param name="Lane">Ordinal of their lane.</param>
/// <param name="Column">Ordinal of their column.</param>
/// <param name="X">Left edge, in pixels.</param>
/// <param name="Y">Upper edge, in pixels.</param>
/// <param name="Width">In pixels.</param>
/// <param name="Height">In pixels.</param>
/// <param name="Works">Their ids, ascending.</param>
public sealed record MapBin(
    int Lane,
    int Column,
    double X,
    double Y,
    double Width,
    double Height,
    ImmutableArray<int> Works
);

/// <summary>A map, drawn: every work stands in one mark or one bin.</summary>
public sealed record MapPicture(
    MapScale Scale,
    ImmutableArray<MapLane> Lanes,
    ImmutableArray<MapMark> Marks,
    ImmutableArray<MapBin> Bins
)
{
    /// <summary>Height of all lanes, in pixels.</summary>
    public double Height => Lanes.IsEmpty ? 0 : Lanes[^1].Y + Lanes[^1].Height;
}

/// <summary>
/// Puts works into lanes along columns. No two marks overlap; each lies in its lane and its column; a work with a larger
/// value never stands further left. The same works give the same picture.
/// </summary>
/// <remarks>
/// A work's place depends on the works of its own lane and column only. On the same scale, further works therefore move
/// others of their lane and column, and leave all else at its x and at its distance from its lane's middle line; a lane
/// that needs more height moves the lanes below by that much, and no more. In a column of one value a further work with a
/// higher id and no larger mark moves nobody.
/// </remarks>
public static class MapLayout
{
    /// <summary>Diameter below which no mark is drawn, in pixels.</summary>
    public const double Least = 5;

    /// <summary>What a lane needs for its name, in pixels.</summary>
    public const double LeastLane = 46;

    /// <summary>A lane whose works would stand higher shows those of the column as one, with their number.</summary>
    public const double MostStack = 240;

    internal const double Gap = 1;

    private const double LargestMark = 22,
        SmallestLargest = 8,
        Padding = 6;

    /// <summary>
    /// The largest marks with which the lanes fit the frame, and then as many tracks as fit; the smallest marks where none
    /// do, and then works that stand too high are shown as one. O(n log n).
    /// </summary>
    /// <param name="works">Each once.</param>
    /// <param name="lanes">How many lanes there are.</param>
    /// <param name="frame">The room there is.</param>
    public static MapPicture Of(IReadOnlyCollection<MapWork> works, int lanes, MapFrame frame)
    {
        var columns = MapAxis.Of([.. works.Select(w => w.At)], frame.Width);
        var most = works.Select(w => w.Size).DefaultIfEmpty().Max();
        // Where names alone need more, smaller marks would gain nothing.
        var height = Math.Max(frame.Height, lanes * LeastLane);
        var widest = Math.Min(LargestMark, Math.Floor(columns.Min(c => c.Width)) - Gap);
        for (var mark = widest; ; mark = Math.Max(SmallestLargest, mark - 2))
        {
            var picture = On(new(columns, mark, most), works, lanes);
            var fits = picture.Bins.IsEmpty && picture.Height <= height;
            if (fits)
                foreach (var tracks in (int[])[5, 3])
                    if (On(picture.Scale with { Tracks = tracks }, works, lanes) is var wider && wider.Height <= height)
                        return wider;
            if (fits || mark <= SmallestLargest)
                return picture;
        }
    }

    /// <summary>Works on a scale that is there already. A value beyond its columns stands in the nearest. O(n log n).</summary>
    public static MapPicture On(MapScale scale, IReadOnlyCollection<MapWork> works, int lanes)
    {
        var cells = works
            .Select(w => (Work: w, Column: ColumnOf(scale.Columns, w.At)))
            .GroupBy(w => (w.Work.Lane, w.Column), w => w.Work)
            .OrderBy(c => c.Key)
            .Select(c => new Cell(c.Key.Lane, c.Key.Column, scale, [.. c.OrderBy(w => w.At).ThenBy(w => w.Work)]))
            .ToArray();
        var laid = ImmutableArray.CreateBuilder<MapLane>(lanes);
        var y = 0.0;
        foreach (var lane in Enumerable.Range(0, lanes))
        {
            var own = cells.Where(c => c.Lane == lane);
            var up = Math.Max((LeastLane / 2) - Padding, own.Select(c => c.Up).DefaultIfEmpty().Max());
            var down = Math.Max((LeastLane / 2) - Padding, own.Select(c => c.Down).DefaultIfEmpty().Max());
            laid.Add(new(y, up + down + (2 * Padding), y + Padding + up));
            y += laid[^1].Height;
        }
        var at = laid.MoveToImmutable();
        return new(
            scale,
            at,
            [.. cells.Where(c => !c.IsBin).SelectMany(c => c.Marks(at[c.Lane].Middle))],
            [.. cells.Where(c => c.IsBin).Select(c => c.Bin(at[c.Lane].Middle))]
        );
    }

    private static int ColumnOf(ImmutableArray<MapColumn> columns, int? at)
    {
        for (var i = 0; i < columns.Length; i++)
            if (columns[i].Holds(at))
                return i;
        return at is { } value && columns.FirstOrDefault(c => c.Kind != ColumnKind.Unknown) is { } first
            ? value < first.From
                ? columns.IndexOf(first)
                : columns.Length - 1
            : 0;
    }

    /// <summary>The works of one lane and column, in a grid of slots as large as the largest of them.</summary>
    private sealed class Cell
    {
        private readonly MapColumn column;
        private readonly MapScale scale;
        private readonly MapWork[] works;
        private readonly int at,
            across,
            rows;
        private readonly double slot,
            track;

        public Cell(int lane, int at, MapScale scale, MapWork[] works)
        {
            (Lane, this.at, this.scale, this.works) = (lane, at, scale, works);
            column = scale.Columns[at];
            slot = works.Max(w => scale.Diameter(w.Size)) + Gap;
            across = Math.Max(1, (int)(column.Width / slot));
            rows = (works.Length + across - 1) / across;
            IsBin = rows * slot > MostStack;
            track = scale.Track(column);
        }

        public int Lane { get; }

        public bool IsBin { get; }

        /// <summary>How far it reaches above the middle line.</summary>
        public double Up => (IsBin ? BinHeight / 2 : ((rows - 1) / 2 * slot) + (slot / 2)) - track;

        /// <summary>How far it reaches below.</summary>
        public double Down => (IsBin ? BinHeight / 2 : (rows / 2 * slot) + (slot / 2)) + track;

        private double BinHeight => Math.Min(MostStack / 2, 16 + (2 * Math.Sqrt(works.Length)));

        public IEnumerable<MapMark> Marks(double middle)
        {
            var isOne = column.From == column.To;
            // Few works stand about the middle of their column.
            var used = Math.Min(across, works.Length);
            var left = column.X + ((column.Width - (used * slot)) / 2);
            for (var i = 0; i < works.Length; i++)
            {
                // Of one value the next goes beside the last, row after row outward; of several they go down in order, so
                // that none stands left of a smaller one.
                var (row, across) = isOne ? (i / this.across, i % this.across) : (i % rows, i / rows);
                var offset = isOne ? Outward(row) : row - ((rows - 1) / 2);
                var work = works[i];
                yield return new(
                    work.Work,
                    Lane,
                    at,
                    left + ((across + 0.5) * slot),
                    middle + track + (offset * slot),
                    scale.Diameter(work.Size)
                );
            }
        }

        public MapBin Bin(double middle)
        {
            var width = Math.Min(column.Width - 2, 40);
            return new(
                Lane,
                at,
                column.X + ((column.Width - width) / 2),
                middle + track - (BinHeight / 2),
                width,
                BinHeight,
                [.. works.Select(w => w.Work).Order()]
            );
        }

        /// <summary>0, 1, −1, 2, −2 …</summary>
        private static int Outward(int row) => row % 2 == 1 ? (row + 1) / 2 : -row / 2;
    }
}
