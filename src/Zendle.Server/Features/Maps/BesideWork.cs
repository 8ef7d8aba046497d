using Zendle.Core.Maps;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work that stands on a map and is not of its set: how it is linked with the set, and the lane it is put in.</summary>
/// <param name="Work">Its id.</param>
/// <param name="Lane">Ordinal of its lane.</param>
/// <param name="Cites">Ordinals of the works of the set that it cites, ascending.</param>
/// <param name="CitedBy">Ordinals of those that cite it, ascending.</param>
internal sealed record BesideWork(int Work, int Lane, int[] Cites, int[] CitedBy)
{
    /// <summary>How many links it has with works of the set.</summary>
    public int Links => Cites.Length + CitedBy.Length;

    /// <summary>What its size says.</summary>
    public double Size { get; init; }

    /// <summary>Finds its links and puts it into a lane. O(its ties).</summary>
    /// <param name="view">The set in view.</param>
    /// <param name="work">The work.</param>
    /// <param name="ordinals">By id: ordinals of the works of the set.</param>
    /// <param name="laneOf">The lane for a work with links to some works of the set; null where it belongs to none.</param>
    /// <returns>Null where it belongs to no lane.</returns>
    public static BesideWork? Of(
        SearchView view,
        int work,
        Dictionary<int, int> ordinals,
        Func<IEnumerable<int>, int?> laneOf
    )
    {
        var graph = view.Snapshot.Columns.Graph;
        int[] cites = [.. graph.Cites(work).ToArray().Where(ordinals.ContainsKey).Select(w => ordinals[w]).Order()];
        int[] citedBy = [.. graph.CitedBy(work).ToArray().Where(ordinals.ContainsKey).Select(w => ordinals[w]).Order()];
        return laneOf(cites.Concat(citedBy)) is { } lane ? new(work, lane, cites, citedBy) : null;
    }

    /// <summary>The lane that most of some works stand in, the first of those; null where there are none.</summary>
    public static int? LaneOfMost(IEnumerable<int> ordinals, LaneChoice lanes) =>
        ordinals
            .Select(i => lanes.Of[i])
            .CountBy(lane => lane)
            .OrderByDescending(l => l.Value)
            .ThenBy(l => l.Key)
            .Select(l => (int?)l.Key)
            .FirstOrDefault();
}
