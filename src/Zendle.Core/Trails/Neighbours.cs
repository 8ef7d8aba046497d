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
    /// <summary>What a work has, ascending.</summary>
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

    /// <summary>How like the seeds each work is by all reasons joined.</summary>
    /// <param name="weight">What a reason weighs; 0 leaves it out.</param>
    public JoinedOrder Order(Func<NeighbourKind, double> weight) => new(lists, weight);

    /// <summary>
    /// Works that cite what the seeds cite: bibliographic coupling (Kessler 1963). O(Σ citations of the seeds'
    /// references).
    /// </summary>
    /// <param name="graph">Who cites whom.</param>
    /// <param name="seeds">The seeds.</param>
    /// <param name="size">Work ids are below this.</param>
    public static NeighbourList SharedReferences(CitationGraph graph, IReadOnlyCollection<int> seeds, int size) =>
        Coupled(
            NeighbourKind.SharedReferences,
            seeds,
            size,
            w => graph.Cites(w),
            w => graph.CitedBy(w),
            graph.CitesCount
        );

    /// <summary>
    /// Works that are cited by what cites the seeds: co-citation (Small 1973). O(Σ references of what cites the seeds).
    /// </summary>
    /// <inheritdoc cref="SharedReferences" path="/param"/>
    public static NeighbourList CitedTogether(CitationGraph graph, IReadOnlyCollection<int> seeds, int size) =>
        Coupled(
            NeighbourKind.CitedTogether,
            seeds,
            size,
            w => graph.CitedBy(w),
            w => graph.Cites(w),
            graph.CitedByCount
        );

    private static NeighbourList Coupled(
        NeighbourKind kind,
        IReadOnlyCollection<int> seeds,
        int size,
        Having things,
        Having having,
        Func<int, int> count
    )
    {
        // Sums come out the same however the seeds are given.
        var weights = WeightOf(seeds, things).OrderBy(t => t.Key).ToArray();
        return NeighbourList.Of(
            kind,
            new([.. weights.Select(t => t.Value)], thing => having(weights[thing].Key), seeds, size),
            (work, sum) => sum / Math.Sqrt(count(work)) / seeds.Count
        );
    }

    /// <summary>
    /// Works that cite seeds or are cited by them, by how many seeds that is, for their number of ties. O(ties of the
    /// seeds).
    /// </summary>
    /// <inheritdoc cref="SharedReferences" path="/param"/>
    public static NeighbourList Tied(CitationGraph graph, IReadOnlyCollection<int> seeds, int size)
    {
        int[] each = [.. seeds];
        double[] ties = [.. Enumerable.Repeat(1.0, each.Length * 2)];
        return NeighbourList.Of(
            NeighbourKind.Tied,
            new(ties, list => list % 2 == 0 ? graph.Cites(each[list / 2]) : graph.CitedBy(each[list / 2]), seeds, size),
            (work, sum) => sum / Math.Sqrt(graph.CitesCount(work) + graph.CitedByCount(work)) / seeds.Count
        );
    }

    /// <summary>Works that have a person in common with the seeds. O(works and their people).</summary>
    /// <param name="people">Numbers of the people of a work, each once.</param>
    /// <param name="seeds">The seeds.</param>
    /// <param name="size">Work ids are below this.</param>
    public static NeighbourList SharedPeople(Having people, IReadOnlyCollection<int> seeds, int size)
    {
        var worksOf = new Dictionary<int, List<int>>();
        foreach (var seed in seeds)
        foreach (var person in people(seed))
            worksOf[person] = [];
        if (worksOf.Count > 0)
            for (var work = 0; work < size; work++)
                foreach (var person in people(work))
                    if (worksOf.TryGetValue(person, out var its))
                        its.Add(work);
        return Coupled(
            NeighbourKind.SharedPeople,
            seeds,
            size,
            people,
            person => CollectionsMarshal.AsSpan(worksOf[person]),
            work => people(work).Length
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
