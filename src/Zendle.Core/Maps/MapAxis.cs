using System.Collections.Immutable;

namespace Zendle.Core.Maps;

/// <summary>Divides what runs along a map into columns, so that each is wide enough for a mark.</summary>
public static class MapAxis
{
    /// <summary>No column is narrower, in pixels.</summary>
    public const double Narrowest = 16;

    private const double UnknownWidth = 44,
        EarlierWidth = 56;

    /// <summary>So many works, in proportion, may share the column of those that came earlier.</summary>
    private const double MostEarlier = 0.05;

    /// <summary>
    /// The columns, from left to right: those without a value, those before the rest, then equal stretches of values, each
    /// of 1, 2, 5, 10 … of them. Stretches are as short as leaves no more than one work in twenty before the first. O(n log n).
    /// </summary>
    /// <param name="values">The value of each work; null where it is not known.</param>
    /// <param name="width">Of all columns together, in pixels.</param>
    /// <exception cref="ArgumentOutOfRangeException">There is no room for one column.</exception>
    public static ImmutableArray<MapColumn> Of(IReadOnlyCollection<int?> values, double width)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(width, UnknownWidth + EarlierWidth + Narrowest);
        int[] known = [.. values.OfType<int>().Order()];
        if (known.Length == 0)
            return [new(ColumnKind.Unknown, 0, 0, 0, width)];
        var columns = ImmutableArray.CreateBuilder<MapColumn>();
        var left = 0.0;
        if (known.Length < values.Count)
        {
            columns.Add(new(ColumnKind.Unknown, 0, 0, 0, UnknownWidth));
            left = UnknownWidth;
        }
        foreach (var step in Steps())
        {
            var (first, last) = (Begin(known[0], step), Begin(known[^1], step));
            var fitting = (int)((width - left) / Narrowest);
            if ((last - first) / step + 1 > fitting)
            {
                fitting = (int)((width - left - EarlierWidth) / Narrowest);
                first = last - ((fitting - 1) * step);
                if (known.Count(v => v < first) > MostEarlier * known.Length)
                    continue;
                columns.Add(new(ColumnKind.Earlier, known[0], first - 1, left, EarlierWidth));
                left += EarlierWidth;
            }
            var count = ((last - first) / step) + 1;
            var each = (width - left) / count;
            for (var i = 0; i < count; i++)
                columns.Add(
                    new(ColumnKind.Values, first + (i * step), first + ((i + 1) * step) - 1, left + (i * each), each)
                );
            break;
        }
        return columns.ToImmutable();
    }

    private static IEnumerable<int> Steps()
    {
        for (var ten = 1; ten <= 100_000_000; ten *= 10)
        {
            yield return ten;
            yield return 2 * ten;
            yield return 5 * ten;
        }
    }

    private static int Begin(int value, int step) => (int)Math.Floor((double)value / step) * step;
}
