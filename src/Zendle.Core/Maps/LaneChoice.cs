using System.Collections.Immutable;

namespace Zendle.Core.Maps;

/// <summary>What a lane of a map holds.</summary>
public enum LaneKind
{
    /// <summary>Works of one value.</summary>
    Value,

    /// <summary>Works of values that have no lane of their own.</summary>
    Others,

    /// <summary>Works without a value.</summary>
    None,
}

/// <summary>A lane before it is drawn.</summary>
/// <param name="Kind">What it holds.</param>
/// <param name="Value">Number of its value; −1 for others and none.</param>
/// <param name="Values">How many values it stands for.</param>
/// <param name="Works">How many works stand in it.</param>
/// <param name="Several">How many of them have other values, too.</param>
public sealed record ChosenLane(LaneKind Kind, int Value, int Values, int Works, int Several);

/// <summary>By what lanes are put in order.</summary>
public enum LaneOrder
{
    /// <summary>That of most works first.</summary>
    Size,

    /// <summary>That of the oldest work first.</summary>
    First,

    /// <summary>The largest, then always the one with most links to the last, for its size.</summary>
    Links,
}

/// <summary>The lanes of a map and the lane of each work, which stands on it once.</summary>
/// <param name="Lanes">From the top.</param>
/// <param name="Of">By work, in the order given: its lane.</param>
public sealed record LaneChoice(ImmutableArray<ChosenLane> Lanes, ImmutableArray<int> Of)
{
    /// <summary>
    /// A work of several values stands in the lane of the one that most works have. Lanes beyond the most that are asked
    /// for, the smallest, are one; works without a value stand in the last. O(n log n).
    /// </summary>
    /// <param name="values">By work: the numbers of its values, 0 or more.</param>
    /// <param name="most">How many values get a lane of their own, 1 or more.</param>
    public static LaneChoice By(IReadOnlyList<IReadOnlyList<int>> values, int most)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(most, 1);
        var total = new Dictionary<int, int>();
        foreach (var value in values.SelectMany(v => v))
            total[value] = total.GetValueOrDefault(value) + 1;
        var own = values
            .Select(v => v.Count == 0 ? -1 : v.OrderByDescending(x => total[x]).ThenBy(x => x).First())
            .ToArray();
        var lanes = own.Where(v => v >= 0)
            .GroupBy(v => v)
            .Select(g => (Value: g.Key, Works: g.Count()))
            .OrderByDescending(g => g.Works)
            .ThenBy(g => g.Value)
            .ToArray();
        // One that is left over keeps its own name.
        var named = lanes.Length <= most + 1 ? lanes.Length : most;
        return Put(values, own, [.. lanes.Take(named).Select(l => l.Value)]);
    }

    /// <summary>
    /// The lanes that are here, in their order, for other works: values without a lane of their own are one, and a lane that
    /// none of these works is in is left out. A work of several values stands in the first of their lanes. O(values · lanes).
    /// </summary>
    /// <param name="values">By work: the numbers of its values, 0 or more.</param>
    public LaneChoice Over(IReadOnlyList<IReadOnlyList<int>> values)
    {
        int[] named = [.. Lanes.Where(l => l.Kind == LaneKind.Value).Select(l => l.Value)];
        return Put(
            values,
            [
                .. values.Select(v =>
                    v.Count == 0 ? -1
                    : Array.FindIndex(named, v.Contains) is >= 0 and var lane ? named[lane]
                    : v[0]
                ),
            ],
            named
        );
    }

    /// <summary>Puts works into lanes; lanes that none is in are left out.</summary>
    /// <param name="values">By work: its values.</param>
    /// <param name="own">By work: the value it stands for; −1 for none.</param>
    /// <param name="named">The values that have a lane, from the top; all others are one below them.</param>
    private static LaneChoice Put(IReadOnlyList<IReadOnlyList<int>> values, int[] own, int[] named)
    {
        var (others, none) = (named.Length, named.Length + 1);
        var at = named.Index().ToDictionary(n => n.Item, n => n.Index);
        int[] of = [.. own.Select(v => v < 0 ? none : at.GetValueOrDefault(v, others))];
        var inLane = Enumerable.Range(0, of.Length).ToLookup(i => of[i]);
        var (lanes, shown) = (ImmutableArray.CreateBuilder<ChosenLane>(), new int[none + 1]);
        for (var lane = 0; lane <= none; lane++)
        {
            shown[lane] = lanes.Count;
            int[] works = [.. inLane[lane]];
            if (works.Length == 0)
                continue;
            var several = works.Count(i => values[i].Count > 1);
            lanes.Add(
                lane < others ? new(LaneKind.Value, named[lane], 1, works.Length, several)
                : lane == none ? new(LaneKind.None, -1, 0, works.Length, 0)
                : new(LaneKind.Others, -1, works.Select(i => own[i]).Distinct().Count(), works.Length, several)
            );
        }
        return new(lanes.ToImmutable(), [.. of.Select(l => shown[l])]);
    }

    /// <summary>The same lanes in another order; others and none stay last.</summary>
    /// <param name="order">By what.</param>
    /// <param name="years">By work: its year, or null.</param>
    /// <param name="links">By lane and lane: the links between them, both ways.</param>
    public LaneChoice InOrder(LaneOrder order, IReadOnlyList<int?> years, int[,] links)
    {
        var named = Enumerable.Range(0, Lanes.Length).Where(l => Lanes[l].Kind == LaneKind.Value);
        int[] sorted = order switch
        {
            LaneOrder.First => [.. named.OrderBy(Oldest).ThenBy(l => l)],
            LaneOrder.Links => Chain([.. named], links),
            _ => [.. named],
        };
        int[] all = [.. sorted, .. Enumerable.Range(sorted.Length, Lanes.Length - sorted.Length)];
        var now = new int[all.Length];
        for (var i = 0; i < all.Length; i++)
            now[all[i]] = i;
        return new([.. all.Select(l => Lanes[l])], [.. Of.Select(l => now[l])]);

        int Oldest(int lane) =>
            Of.Select((l, i) => l == lane ? years[i] : null).OfType<int>().DefaultIfEmpty(int.MaxValue).Min();
    }

    private int[] Chain(List<int> left, int[,] links)
    {
        var chain = new List<int>();
        while (left.Count > 0)
        {
            var next =
                chain.Count == 0
                    ? left[0]
                    : left.OrderByDescending(l => (double)(links[l, chain[^1]] + links[chain[^1], l]) / Lanes[l].Works)
                        .ThenBy(l => l)
                        .First();
            chain.Add(next);
            left.Remove(next);
        }
        return [.. chain];
    }
}
