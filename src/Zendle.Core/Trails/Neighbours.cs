using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// The works that have something in common with seeds, by one reason or several. The reasons stand side by side; joined,
/// they are one order (<see cref="Order"/>).
/// </summary>
/// <param name="lists">One for each reason.</param>
public sealed class Neighbours(ImmutableArray<NeighbourList> lists)
{
    /// <summary>How much the first ranks are held together, of reciprocal rank fusion (Cormack et al. 2009).</summary>
    private const double Flatness = 60;

    /// <summary>What a work has.</summary>
    /// <param name="work">The work.</param>
    public delegate ReadOnlySpan<int> Having(int work);

    /// <summary>One for each reason.</summary>
    public ImmutableArray<NeighbourList> Lists => lists;

    /// <summary>About how many bytes it takes.</summary>
    public long Bytes => lists.Sum(l => l.Bytes);

    /// <summary>The works that one of the reasons finds, with so much in common. O(neighbours).</summary>
    /// <param name="atLeast">How many references, terms, people or works that cite both.</param>
    /// <param name="size">Work ids are below this.</param>
    public WorkSet Works(int atLeast, int size)
    {
        var set = new WorkSet(size);
        foreach (var list in lists)
            list.AddTo(set, atLeast);
        return set;
    }

    /// <summary>
    /// How like the seeds each work is by all reasons: Σ weight ÷ (60 + rank), reciprocal rank fusion (Cormack, Clarke, Büttcher
    /// 2009). O(neighbours).
    /// </summary>
    /// <param name="weight">What a reason weighs; 0 leaves it out.</param>
    /// <param name="size">Work ids are below this.</param>
    /// <returns>Tells it of a work; 0 for one that is no neighbour.</returns>
    public Func<int, double> Order(Func<NeighbourKind, double> weight, int size)
    {
        // Room for every work only where a good part of them has a place in the order.
        var few = lists.Sum(l => (long)l.Count) < size / 16 ? new Dictionary<int, double>() : null;
        var order = few is null ? new double[size] : [];
        foreach (var list in lists)
        {
            if (weight(list.Kind) is not (> 0 and var its))
                continue;
            var works = list.Works;
            var ranks = list.Ranks;
            for (var i = 0; i < works.Length; i++)
            {
                ref var likeness = ref few is null
                    ? ref order[works[i]]
                    : ref CollectionsMarshal.GetValueRefOrAddDefault(few, works[i], out _);
                likeness += its / (Flatness + ranks[i]);
            }
        }
        return few is null ? w => order[w] : few.GetValueOrDefault;
    }

    /// <summary>
    /// Works that cite what the seeds cite: bibliographic coupling (Kessler 1963). O(Σ citations of the seeds'
    /// references).
    /// </summary>
    /// <param name="graph">Who cites whom.</param>
    /// <param name="seeds">The seeds.</param>
    /// <param name="size">Work ids are below this.</param>
    public static NeighbourList SharedReferences(CitationGraph graph, IReadOnlyCollection<int> seeds, int size) =>
        Coupled(NeighbourKind.SharedReferences, seeds, size, w => graph.Cites(w), w => graph.CitedBy(w));

    /// <summary>
    /// Works that are cited by what cites the seeds: co-citation (Small 1973). O(Σ references of what cites the seeds).
    /// </summary>
    /// <inheritdoc cref="SharedReferences" path="/param"/>
    public static NeighbourList CitedTogether(CitationGraph graph, IReadOnlyCollection<int> seeds, int size) =>
        Coupled(NeighbourKind.CitedTogether, seeds, size, w => graph.CitedBy(w), w => graph.Cites(w));

    private static NeighbourList Coupled(
        NeighbourKind kind,
        IReadOnlyCollection<int> seeds,
        int size,
        Having things,
        Having having
    )
    {
        var weights = WeightOf(seeds, things);
        using var tally = new NeighbourList.Tally(size);
        // Sums come out the same however the seeds are given.
        foreach (var (thing, weight) in weights.OrderBy(t => t.Key))
            tally.Add(having(thing), weight);
        return tally.Finish(kind, seeds, 1, (work, sum) => sum / Math.Sqrt(things(work).Length) / seeds.Count);
    }

    /// <summary>
    /// Works that cite seeds or are cited by them, by how many seeds that is, for their number of ties. O(ties of the
    /// seeds).
    /// </summary>
    /// <inheritdoc cref="SharedReferences" path="/param"/>
    public static NeighbourList Tied(CitationGraph graph, IReadOnlyCollection<int> seeds, int size)
    {
        using var tally = new NeighbourList.Tally(size);
        foreach (var seed in seeds)
        {
            tally.Add(graph.Cites(seed), 1);
            tally.Add(graph.CitedBy(seed), 1);
        }
        return tally.Finish(
            NeighbourKind.Tied,
            seeds,
            1,
            (work, sum) => sum / Math.Sqrt(graph.Cites(work).Length + graph.CitedBy(work).Length) / seeds.Count
        );
    }

    /// <summary>Works that have a person in common with the seeds. O(works and their people).</summary>
    /// <param name="people">Numbers of the people of a work, each once.</param>
    /// <param name="seeds">The seeds.</param>
    /// <param name="size">Work ids are below this.</param>
    public static NeighbourList SharedPeople(Having people, IReadOnlyCollection<int> seeds, int size)
    {
        var weights = WeightOf(seeds, people);
        using var tally = new NeighbourList.Tally(size);
        if (weights.Count > 0)
            for (var work = 0; work < size; work++)
                foreach (var person in people(work))
                    if (weights.TryGetValue(person, out var weight))
                        tally.Add(work, weight);
        return tally.Finish(
            NeighbourKind.SharedPeople,
            seeds,
            1,
            (work, sum) => sum / Math.Sqrt(people(work).Length) / seeds.Count
        );
    }

    /// <summary>
    /// What a shared thing adds to the sum of cosines over the seeds: 1 ÷ √(things of the seed) for each seed that has
    /// it.
    /// </summary>
    private static Dictionary<int, double> WeightOf(IEnumerable<int> seeds, Having things)
    {
        var weights = new Dictionary<int, double>();
        foreach (var seed in seeds.Order())
        {
            var its = things(seed);
            foreach (var thing in its)
                CollectionsMarshal.GetValueRefOrAddDefault(weights, thing, out _) += 1 / Math.Sqrt(its.Length);
        }
        return weights;
    }

    /// <summary>What a work shares with the seeds, and with which of them, those of most seeds first.</summary>
    /// <param name="seeds">The seeds, in the order of their numbers.</param>
    /// <param name="work">The work.</param>
    /// <param name="things">What a work has.</param>
    /// <returns>The shared things with the numbers, from 1, of the seeds that have them.</returns>
    public static IReadOnlyList<(int Thing, ImmutableArray<int> Seeds)> Evidence(
        IReadOnlyList<int> seeds,
        int work,
        Having things
    )
    {
        var shared = new SortedDictionary<int, ImmutableArray<int>.Builder>();
        foreach (var thing in things(work))
            shared[thing] = ImmutableArray.CreateBuilder<int>();
        for (var i = 0; i < seeds.Count; i++)
            foreach (var thing in things(seeds[i]))
                if (shared.TryGetValue(thing, out var those))
                    those.Add(i + 1);
        return
        [
            .. shared
                .Where(s => s.Value.Count > 0)
                .OrderByDescending(s => s.Value.Count)
                .ThenBy(s => s.Key)
                .Select(s => (s.Key, s.Value.ToImmutable())),
        ];
    }
}
