using System.Collections.Immutable;
using Zendle.Core.Trails;

namespace Zendle.Core.Maps;

/// <summary>The citations among the works of a map; works are told by their ordinal among them.</summary>
public sealed class MapLinks
{
    private readonly int[][] cites;
    private readonly int[] citedBy;

    private MapLinks(
        int[][] cites,
        int[] citedBy,
        ImmutableArray<int> outsideBack,
        ImmutableArray<int> outsideForward
    ) => (this.cites, this.citedBy, CitesOutside, CitedOutside) = (cites, citedBy, outsideBack, outsideForward);

    /// <summary>By work: how many works it cites that are not on the map.</summary>
    public ImmutableArray<int> CitesOutside { get; }

    /// <summary>By work: how many works cite it that are not on the map.</summary>
    public ImmutableArray<int> CitedOutside { get; }

    /// <summary>How many links there are.</summary>
    public int Count => cites.Sum(c => c.Length);

    /// <summary>The works on the map that a work cites, ascending.</summary>
    public IReadOnlyList<int> Cites(int ordinal) => cites[ordinal];

    /// <summary>How many works on the map a work cites or is cited by.</summary>
    public int Of(int ordinal) => cites[ordinal].Length + citedBy[ordinal];

    /// <summary>Reads the links out of a graph. O(ties of the works).</summary>
    /// <param name="works">Ids of the works, each once.</param>
    /// <param name="graph">Which works cite which.</param>
    public static MapLinks Among(IReadOnlyList<int> works, CitationGraph graph)
    {
        var at = new Dictionary<int, int>(works.Count);
        for (var i = 0; i < works.Count; i++)
            at[works[i]] = i;
        var (cites, citedBy) = (new int[works.Count][], new int[works.Count]);
        for (var i = 0; i < works.Count; i++)
        {
            var inside = new List<int>();
            foreach (var cited in graph.Cites(works[i]))
                if (at.TryGetValue(cited, out var other))
                {
                    inside.Add(other);
                    citedBy[other]++;
                }
            inside.Sort();
            cites[i] = [.. inside];
        }
        return new(
            cites,
            citedBy,
            [.. works.Select((w, i) => graph.CitesCount(w) - cites[i].Length)],
            [.. works.Select((w, i) => graph.CitedByCount(w) - citedBy[i])]
        );
    }

    /// <summary>By citing lane and cited lane: how many links there are.</summary>
    /// <param name="laneOf">By work: its lane.</param>
    /// <param name="lanes">How many lanes there are.</param>
    public int[,] Between(ImmutableArray<int> laneOf, int lanes)
    {
        var between = new int[lanes, lanes];
        for (var i = 0; i < cites.Length; i++)
            foreach (var cited in cites[i])
                between[laneOf[i], laneOf[cited]]++;
        return between;
    }

    /// <summary>
    /// By work: the ordinal of the work it cites that it is bound to most closely, null where it cites none. Two are the more
    /// closely bound, the more works of the map are linked with both, whichever way; then the more linked one counts, then
    /// the first. O(links · links of a work).
    /// </summary>
    public int?[] Strongest()
    {
        var linked = new List<int>[cites.Length];
        for (var i = 0; i < cites.Length; i++)
            linked[i] = [.. cites[i]];
        for (var i = 0; i < cites.Length; i++)
            foreach (var cited in cites[i])
                linked[cited].Add(i);
        var (strongest, seen) = (new int?[cites.Length], new int[cites.Length]);
        for (var i = 0; i < cites.Length; i++)
        {
            // Which works are linked with this one is noted once for all that it cites.
            foreach (var other in linked[i])
                seen[other] = i + 1;
            strongest[i] = cites[i]
                .OrderByDescending(cited => linked[cited].Count(other => seen[other] == i + 1))
                .ThenByDescending(Of)
                .Select(cited => (int?)cited)
                .FirstOrDefault();
        }
        return strongest;
    }

    /// <summary>
    /// By work: its rank by links, the most linked first, 1 to the number of works; ties by <paramref name="works"/>.
    /// </summary>
    /// <param name="works">Ids of the works.</param>
    public int[] Ranks(IReadOnlyList<int> works)
    {
        var ranks = new int[works.Count];
        var at = 1;
        foreach (var i in Enumerable.Range(0, works.Count).OrderByDescending(Of).ThenBy(i => works[i]))
            ranks[i] = at++;
        return ranks;
    }
}
