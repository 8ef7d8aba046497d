using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>Which seeds of a set works are tied to: those that they cite or that cite them.</summary>
internal sealed class SeedTies
{
    private readonly Dictionary<int, List<int>> tied = [];
    private readonly Dictionary<int, int> numbers = [];

    /// <summary>The ties of a set's seeds; none where it has none. O(their ties).</summary>
    public SeedTies(SearchView view)
    {
        Seeds = [.. (view.State.Question as SeededQuestion)?.Seeds ?? []];
        var graph = view.Snapshot.Columns.Graph;
        for (var seed = 0; seed < Seeds.Length; seed++)
        {
            numbers.TryAdd(Seeds[seed], seed);
            foreach (var work in graph.Cites(Seeds[seed]).ToArray().Union(graph.CitedBy(Seeds[seed]).ToArray()))
                if (tied.TryGetValue(work, out var seeds))
                    seeds.Add(seed);
                else
                    tied[work] = [seed];
        }
    }

    /// <summary>The seeds, in their order.</summary>
    public int[] Seeds { get; }

    /// <summary>Ordinals of the seeds that a work is tied to, ascending.</summary>
    public IReadOnlyList<int> Of(int work) => tied.TryGetValue(work, out var seeds) ? seeds : [];

    /// <summary>The ordinal of a work among the seeds; null where it is none.</summary>
    public int? OrdinalOf(int work) => numbers.TryGetValue(work, out var seed) ? seed : null;
}
