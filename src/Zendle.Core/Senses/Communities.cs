namespace Zendle.Core.Senses;

/// <summary>
/// Groups of nodes that hold together more than chance would have it: modularity is raised by moving single nodes, then
/// whole groups, until nothing gains (Blondel, Guillaume, Lambiotte, Lefebvre 2008, the Louvain method).
/// </summary>
/// <remarks>
/// Nodes are taken in the order of their strength (the weight of their links), the strongest first, and ties go to the
/// strongest group: the same graph always gives the same groups, and how its nodes are numbered hardly matters.
/// </remarks>
public static class Communities
{
    private const double Least = 1e-9;
    private const int MostRounds = 40;

    /// <summary>A link between two nodes.</summary>
    /// <param name="A">One node.</param>
    /// <param name="B">The other.</param>
    /// <param name="Weight">How strong it is; above 0.</param>
    public readonly record struct Link(int A, int B, double Weight);

    /// <summary>
    /// The group of each node, numbered in the order of their first nodes. O(links · log links), and O(links) a round, a few
    /// dozen at most.
    /// </summary>
    /// <param name="nodes">How many nodes there are.</param>
    /// <param name="links">Links between them, each pair once; those of a node with itself are passed over.</param>
    /// <param name="resolution">Above 1 for more and smaller groups, below for fewer and larger.</param>
    /// <exception cref="ArgumentOutOfRangeException">A link leads to no node.</exception>
    public static int[] Of(int nodes, IReadOnlyCollection<Link> links, double resolution = 1)
    {
        // Sums of weights differ in their last digits by the order they are added in, and may part a tie.
        links = [.. links.OrderBy(l => Math.Min(l.A, l.B)).ThenBy(l => Math.Max(l.A, l.B)).ThenBy(l => l.Weight)];
        var rank = Ranks(nodes, links);
        var group = Enumerable.Range(0, nodes).ToArray();
        var graph = Graph.Of(nodes, [.. links.Select(l => l with { A = rank[l.A], B = rank[l.B] })]);
        for (var level = 0; level < MostRounds; level++)
        {
            var moved = Move(graph, resolution);
            var numbered = Numbered(moved);
            for (var n = 0; n < nodes; n++)
                group[n] = numbered[group[n]];
            var groups = numbered.Length == 0 ? 0 : numbered.Max() + 1;
            if (groups == graph.Size)
                break;
            graph = graph.Joined(numbered, groups);
        }
        return Numbered(Array.ConvertAll(rank, r => group[r]));
    }

    /// <summary>The place of each node in the order of strength.</summary>
    private static int[] Ranks(int nodes, IReadOnlyCollection<Link> links)
    {
        var strength = new double[nodes];
        foreach (var link in links)
        {
            ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(Math.Max(link.A, link.B), nodes);
            ArgumentOutOfRangeException.ThrowIfNegative(Math.Min(link.A, link.B));
            if (link.A == link.B)
                continue;
            strength[link.A] += link.Weight;
            strength[link.B] += link.Weight;
        }
        var (rank, at) = (new int[nodes], 0);
        foreach (var node in Enumerable.Range(0, nodes).OrderByDescending(n => strength[n]).ThenBy(n => n))
            rank[node] = at++;
        return rank;
    }

    /// <summary>
    /// How much more of the links lies within groups than chance would bring: −½ to 1 (Newman, Girvan 2004).
    /// </summary>
    public static double Modularity(int[] group, IReadOnlyCollection<Link> links)
    {
        var total = links.Sum(l => l.Weight);
        if (total == 0)
            return 0;
        var (within, ends) = (0.0, new Dictionary<int, double>());
        foreach (var link in links)
        {
            if (group[link.A] == group[link.B])
                within += link.Weight;
            foreach (var end in new[] { link.A, link.B })
                ends[group[end]] = ends.GetValueOrDefault(group[end]) + link.Weight;
        }
        return (within / total) - ends.Values.Sum(e => e / (2 * total) * (e / (2 * total)));
    }

    /// <summary>Moves single nodes to the groups of their neighbours as long as that gains.</summary>
    private static int[] Move(Graph graph, double resolution)
    {
        var group = Enumerable.Range(0, graph.Size).ToArray();
        var ends = (double[])graph.Ends.Clone();
        var (toward, touched) = (new double[graph.Size], new List<int>());
        for (var round = 0; round < MostRounds; round++)
        {
            var hasMoved = false;
            for (var node = 0; node < graph.Size; node++)
            {
                touched.Clear();
                foreach (var (other, weight) in graph.Neighbours(node))
                {
                    if (toward[group[other]] == 0)
                        touched.Add(group[other]);
                    toward[group[other]] += weight;
                }
                var from = group[node];
                ends[from] -= graph.Ends[node];
                double Gain(int to) => toward[to] - (resolution * ends[to] * graph.Ends[node] / (2 * graph.Total));
                var (best, most) = (from, Gain(from));
                foreach (var to in touched)
                    if (Gain(to) is var gain && (gain > most + Least || (gain >= most && to < best)))
                        (best, most) = (to, gain);
                group[node] = best;
                ends[best] += graph.Ends[node];
                hasMoved |= best != from;
                foreach (var to in touched)
                    toward[to] = 0;
            }
            if (!hasMoved)
                break;
        }
        return group;
    }

    private static int[] Numbered(int[] groups)
    {
        var numbers = new Dictionary<int, int>();
        foreach (var g in groups)
            numbers.TryAdd(g, numbers.Count);
        return Array.ConvertAll(groups, g => numbers[g]);
    }

    /// <summary>Neighbours of each node in one array.</summary>
    private sealed class Graph
    {
        private readonly int[] at,
            others;
        private readonly double[] weights;

        private Graph(int[] at, int[] others, double[] weights, double[] ends)
        {
            (this.at, this.others, this.weights, Ends) = (at, others, weights, ends);
            Total = ends.Sum() / 2;
        }

        public int Size => at.Length - 1;

        /// <summary>Weight of all links.</summary>
        public double Total { get; }

        /// <summary>Weight of the links that end at each node; one with itself ends twice.</summary>
        public double[] Ends { get; }

        public IEnumerable<(int Other, double Weight)> Neighbours(int node)
        {
            for (var i = at[node]; i < at[node + 1]; i++)
                yield return (others[i], weights[i]);
        }

        public static Graph Of(int nodes, IReadOnlyCollection<Link> links) => Of(nodes, links, new double[nodes]);

        private static Graph Of(int nodes, IReadOnlyCollection<Link> links, double[] ends)
        {
            var at = new int[nodes + 1];
            foreach (var link in links)
            {
                if (link.A == link.B)
                    continue;
                at[link.A + 1]++;
                at[link.B + 1]++;
            }
            for (var n = 0; n < nodes; n++)
                at[n + 1] += at[n];
            var (others, weights, next) = (new int[at[nodes]], new double[at[nodes]], at[..nodes]);
            foreach (var link in links)
            {
                if (link.A == link.B)
                    continue;
                (others[next[link.A]], weights[next[link.A]++]) = (link.B, link.Weight);
                (others[next[link.B]], weights[next[link.B]++]) = (link.A, link.Weight);
                ends[link.A] += link.Weight;
                ends[link.B] += link.Weight;
            }
            return new(at, others, weights, ends);
        }

        /// <summary>The graph of groups: what lies within one counts at its ends, but draws to nobody.</summary>
        public Graph Joined(int[] group, int groups)
        {
            var (between, ends) = (new Dictionary<(int, int), double>(), new double[groups]);
            for (var node = 0; node < Size; node++)
            {
                ends[group[node]] += Ends[node];
                foreach (var (other, weight) in Neighbours(node))
                    if (group[node] < group[other])
                        between[(group[node], group[other])] =
                            between.GetValueOrDefault((group[node], group[other])) + weight;
            }
            var links = between.OrderBy(b => b.Key).Select(b => new Link(b.Key.Item1, b.Key.Item2, b.Value)).ToArray();
            var graph = Of(groups, links, new double[groups]);
            ends.CopyTo(graph.Ends, 0);
            return new(graph.at, graph.others, graph.weights, ends);
        }
    }
}
