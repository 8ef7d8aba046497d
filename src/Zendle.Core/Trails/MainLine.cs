using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>A work on the main line.</summary>
/// <param name="Work">The work.</param>
/// <param name="Share">Of all chains of citations in the set, the share that runs from the work before it to this one; 0
/// for the first.</param>
public readonly record struct LineWork(int Work, double Share);

/// <summary>
/// The main line of a set: of all chains of citations from a work that cites nothing in the set to one that nothing in it
/// cites, the one whose ties most chains run through. Search path count: Hummon and Doreian 1989; as a share of all chains,
/// and the path of the greatest sum of them: Batagelj 2003.
/// </summary>
/// <param name="Works">Its works, the oldest first; empty when nothing in the set cites anything in it.</param>
/// <param name="Tied">How many works of the set cite another of it or are cited by one.</param>
/// <param name="LeftOut">Ties that were left out because citations run in a circle.</param>
public sealed record MainLine(IReadOnlyList<LineWork> Works, int Tied, int LeftOut)
{
    /// <summary>
    /// Finds the main line. Circles are opened at the tie that closes them, the older works being walked through first. Of
    /// lines of the same weight the one through the works of lower numbers. O(works + ties, sorted).
    /// </summary>
    /// <param name="set">The works.</param>
    /// <param name="cites">What a work cites.</param>
    /// <param name="year">Year of a work; 0 for none.</param>
    public static MainLine Of(WorkSet set, Func<int, ReadOnlyMemory<int>> cites, Func<int, int> year)
    {
        int[] works = [.. set.Members().OrderBy(w => year(w) == 0 ? int.MaxValue : year(w)).ThenBy(w => w)];
        var ordinal = works.Select((w, i) => (w, i)).ToDictionary(p => p.w, p => p.i);
        var before = works
            .Select(w =>
                cites(w)
                    .ToArray()
                    .Where(c => c != w && ordinal.ContainsKey(c))
                    .Select(c => ordinal[c])
                    .Distinct()
                    .Order()
                    .ToArray()
            )
            .ToArray();
        var (order, leftOut) = Order(before);
        var after = new List<int>[works.Length];
        for (var v = 0; v < works.Length; v++)
            after[v] = [];
        foreach (var v in order)
        foreach (var u in before[v])
            after[u].Add(v);
        var (into, outOf) = (new double[works.Length], new double[works.Length]);
        foreach (var v in order)
            into[v] = before[v].Length == 0 ? 0 : LogSum(before[v].Select(u => into[u]));
        foreach (var v in Enumerable.Reverse(order))
            outOf[v] = after[v].Count == 0 ? 0 : LogSum(after[v].Select(w => outOf[w]));
        bool IsTied(int v) => before[v].Length > 0 || after[v].Count > 0;
        var ends = order.Where(v => IsTied(v) && after[v].Count == 0).ToArray();
        if (ends.Length == 0)
            return new([], 0, leftOut);
        var all = LogSum(ends.Select(v => into[v]));
        double Share(int u, int v) => Math.Exp(into[u] + outOf[v] - all);
        var (best, from) = (new double[works.Length], new int[works.Length]);
        foreach (var v in order)
        {
            from[v] = -1;
            foreach (var u in before[v])
                if (best[u] + Share(u, v) is var sum && (from[v] < 0 || sum > best[v]))
                    (best[v], from[v]) = (sum, u);
        }
        var line = new List<LineWork>();
        for (var v = ends.OrderByDescending(e => best[e]).ThenBy(e => works[e]).First(); v >= 0; v = from[v])
            line.Add(new(works[v], from[v] < 0 ? 0 : Share(from[v], v)));
        line.Reverse();
        return new(line, Enumerable.Range(0, works.Length).Count(IsTied), leftOut);
    }

    /// <summary>
    /// Puts works in an order in which each stands behind what it cites, and takes out of their lists what closes a circle.
    /// </summary>
    private static (List<int> Order, int LeftOut) Order(int[][] before)
    {
        const byte New = 0,
            Open = 1,
            Done = 2;
        var (state, at) = (new byte[before.Length], new int[before.Length]);
        var (order, closing, path) = (new List<int>(), new HashSet<(int, int)>(), new Stack<int>());
        for (var start = 0; start < before.Length; start++)
        {
            if (state[start] != New)
                continue;
            path.Push(start);
            state[start] = Open;
            while (path.TryPeek(out var v))
            {
                if (at[v] == before[v].Length)
                {
                    state[v] = Done;
                    order.Add(v);
                    path.Pop();
                    continue;
                }
                var u = before[v][at[v]++];
                if (state[u] == Open)
                    closing.Add((v, u));
                else if (state[u] == New)
                {
                    state[u] = Open;
                    path.Push(u);
                }
            }
        }
        foreach (var v in closing.Select(c => c.Item1).Distinct())
            before[v] = [.. before[v].Where(u => !closing.Contains((v, u)))];
        return (order, closing.Count);
    }

    /// <summary>The logarithm of a sum whose parts are given by their logarithms; counts of chains are far beyond numbers.</summary>
    private static double LogSum(IEnumerable<double> logs)
    {
        var parts = logs.ToArray();
        var most = parts.Max();
        return most + Math.Log(parts.Sum(p => Math.Exp(p - most)));
    }
}
