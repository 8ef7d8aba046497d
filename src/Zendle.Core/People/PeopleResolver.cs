using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>A person told apart from namesakes.</summary>
/// <param name="Number">Ordinal among all persons told apart at once, from 0.</param>
/// <param name="Label">Name as shown; with an institution or years where several persons would be called the same.</param>
/// <param name="Name">The fullest form of the name.</param>
/// <param name="Orcid">ORCID iD; null when no record has one.</param>
/// <param name="Mentions">Where the person is named.</param>
/// <param name="Doubtful">Ordinals of persons that may be the same: their evidence lies just below the
/// threshold.</param>
public sealed record Person(
    int Number,
    string Label,
    PersonName Name,
    string? Orcid,
    IReadOnlyList<Mention> Mentions,
    IReadOnlyList<int> Doubtful
)
{
    /// <summary>Permanent number, from 1; 0 until it is numbered, see <see cref="PersonNumbering"/>.</summary>
    public int Id { get; init; }
}

/// <summary>
/// Tells people apart. ORCID iDs decide where they are present and the names can be one. Else names that can be one are
/// weighed with shared co-authors, institution, subjects and years, and groups of mentions are joined, the best pair first,
/// down to a threshold (agglomerative clustering after blocking by name; a survey of the approach: Ferreira, Gonçalves,
/// Laender 2012). Pairs just below it are kept as doubt. The result depends on the mentions only, not on their order.
/// </summary>
/// <remarks>
/// O(n² log n) in a block of one family name of up to <see cref="LargestWhole"/> groups. A larger one is taken in parts
/// of names that are alike, again and again in other parts, joined people as one: O(n · part), with memory of one part
/// for each core. A resolver remembers its blocks: asked again, it works only on those whose mentions are others.
/// </remarks>
public sealed class PeopleResolver
{
    /// <summary>Up to so many groups every pair of a block is weighed.</summary>
    public const int LargestWhole = 1_200;

    private const int Part = 400,
        MostYears = 50,
        MostDoubtful = 100;

    private readonly PersonWeights weights;

    /// <summary>A resolver that weighs evidence with some weights; the shipped ones when none are given.</summary>
    public PeopleResolver(PersonWeights? weights = null) => this.weights = weights ?? PersonWeights.Shipped;

    private Dictionary<(int, int), Block> known = [];

    /// <summary>
    /// The mentions of one block of names, and who they turned out to be; the evidence that was weighed is not held.
    /// </summary>
    private sealed record Block(Mention[] Mentions, IReadOnlyList<Found> People);

    /// <summary>
    /// One person of a block; <c>Doubtful</c> holds the ordinals in the block of those who may be the same.
    /// </summary>
    private sealed record Found(
        PersonName Name,
        string? Orcid,
        int First,
        int Last,
        Mention[] Mentions,
        int[] Doubtful
    );

    /// <summary>Tells the people of some works apart.</summary>
    public static IReadOnlyList<Person> Resolve(IEnumerable<Mention> mentions) => new PeopleResolver().Again(mentions);

    /// <summary>
    /// Tells the people of some works apart; blocks that hold the very mentions they held before are not looked at
    /// again.
    /// </summary>
    /// <param name="mentions">All mentions.</param>
    /// <param name="cancel">Stops; what was known before is known still.</param>
    public IReadOnlyList<Person> Again(IEnumerable<Mention> mentions, CancellationToken cancel = default)
    {
        var all = mentions.OrderBy(m => m.WorkId).ThenBy(m => m.Position).ToArray();
        var blocks = Blocks(all)
            .AsParallel()
            .AsOrdered()
            .WithCancellation(cancel)
            .Select(b =>
                known.TryGetValue((b[0].WorkId, b[0].Position), out var before)
                && before.Mentions.AsSpan().SequenceEqual(b, ReferenceEqualityComparer.Instance)
                    ? before
                    : new(b, Weighed(b, cancel))
            )
            .ToArray();
        known = blocks.ToDictionary(b => (b.Mentions[0].WorkId, b.Mentions[0].Position));
        var people = blocks
            .SelectMany(b => b.People, (b, p) => (Block: b, Found: p))
            .OrderBy(p => p.Found.Mentions[0].WorkId)
            .ThenBy(p => p.Found.Mentions[0].Position)
            .ToArray();
        var numbers = new Dictionary<Found, int>(people.Length, ReferenceEqualityComparer.Instance);
        for (var i = 0; i < people.Length; i++)
            numbers[people[i].Found] = i;
        var labels = Labels(Array.ConvertAll(people, p => p.Found));
        return
        [
            .. people.Select(
                (p, i) =>
                    new Person(
                        i,
                        labels[i],
                        p.Found.Name,
                        p.Found.Orcid,
                        p.Found.Mentions,
                        [.. p.Found.Doubtful.Select(d => numbers[p.Block.People[d]]).Order()]
                    )
            ),
        ];
    }

    private Found[] Weighed(Mention[] block, CancellationToken cancel)
    {
        var groups = OfBlock(block, cancel);
        for (var i = 0; i < groups.Count; i++)
            groups[i].Ordinal = i;
        return
        [
            .. groups.Select(g => new Found(
                g.Name,
                g.Orcid,
                g.First,
                g.Last,
                [.. g.Mentions],
                [.. g.Doubtful.Select(d => d.Survivor().Ordinal).Where(n => n != g.Ordinal).Distinct()]
            )),
        ];
    }

    /// <summary>
    /// Mentions that may be of one person: those that share a part of a family name, or an ORCID iD (which bridges a
    /// change of name).
    /// </summary>
    private static IEnumerable<Mention[]> Blocks(Mention[] all)
    {
        var parent = Enumerable.Range(0, all.Length).ToArray();
        int Root(int i)
        {
            while (parent[i] != i)
                i = parent[i] = parent[parent[i]];
            return i;
        }
        var first = new Dictionary<string, int>();
        for (var i = 0; i < all.Length; i++)
            foreach (
                var key in (all[i].Orcid is { } orcid ? new[] { orcid } : []).Append(
                    all[i].Family.Count > 0 ? all[i].Family[0] : ""
                )
            )
                if (first.TryGetValue(key, out var other))
                    parent[Root(i)] = Root(other);
                else
                    first[key] = i;
        return Enumerable.Range(0, all.Length).GroupBy(Root).Select(g => g.Select(i => all[i]).ToArray());
    }

    private List<Group> OfBlock(Mention[] block, CancellationToken cancel)
    {
        // Mentions with one ORCID iD are one person from the start, unless their names say that somebody mistyped it.
        var groups = block
            .GroupBy(m => m.Orcid ?? $"{m.WorkId}.{m.Position}")
            .SelectMany(g => Group.Start([.. g]))
            .ToList();
        if (groups.Count == 1)
            return groups;
        // The more names that cannot be one stand under a family name, the commoner it is, and the less two that can be
        // one say.
        var commonness =
            weights.Commonness
            * Math.Log2(
                groups.Select(g => Fullest(g.Givens)).Select(g => g.Count == 0 ? "" : g[0][..1]).Distinct().Count()
            );
        if (groups.Count <= LargestWhole)
        {
            Join(groups, commonness, cancel);
            return groups;
        }
        // Those who may be one are brought side by side in several ways: by name alone, then by a co-author, an institution, a
        // subject they have most in common with others.
        foreach (
            var beside in new Func<Group, int>[]
            {
                g => 0,
                g => Commonest(g.CoAuthors),
                g => Commonest(g.Institutions),
                g => Commonest(g.Topics),
                g => g.First,
            }
        )
        {
            var sorted = groups
                .Select(g => (Group: g, Name: string.Join(' ', Fullest(g.Givens)), Beside: beside(g)))
                .OrderBy(g => g.Name.Length == 0 ? "" : g.Name[..1], StringComparer.Ordinal)
                .ThenBy(g => g.Beside)
                .ThenBy(g => g.Name, StringComparer.Ordinal)
                .ThenBy(g => g.Group.Mentions[0].WorkId)
                .ThenBy(g => g.Group.Mentions[0].Position)
                .Select(g => g.Group)
                .ToArray();
            var parts = sorted.Chunk(Part).Select(p => p.ToList()).ToArray();
            parts.AsParallel().WithCancellation(cancel).ForAll(p => Join(p, commonness, cancel));
            var before = groups.Count;
            groups = [.. parts.SelectMany(p => p)];
            if (groups.Count > LargestWhole)
                continue;
            if (before > groups.Count)
                Join(groups, commonness, cancel);
            break;
        }
        groups.Sort(
            (a, b) =>
                (a.Mentions[0].WorkId, a.Mentions[0].Position).CompareTo((b.Mentions[0].WorkId, b.Mentions[0].Position))
        );
        return groups;

        // Hashes are spread evenly, so the least of a set is as good as any to bring those together that share many.
        static int Commonest(HashSet<int> hashes) => hashes.Count == 0 ? int.MaxValue : hashes.Min();
    }

    /// <summary>Joins groups, the best pair first, as long as the evidence says so. O(n² log n).</summary>
    private void Join(List<Group> groups, double commonness, CancellationToken cancel)
    {
        var queue = new PriorityQueue<(Group A, Group B, int VersionA, int VersionB), (double, int, int, int, int)>();
        void Propose(Group a, Group b)
        {
            if (Score(a, b, commonness) is var score && score >= -weights.Doubt)
                queue.Enqueue(
                    (a, b, a.Version, b.Version),
                    (-score, a.Mentions[0].WorkId, a.Mentions[0].Position, b.Mentions[0].WorkId, b.Mentions[0].Position)
                );
        }
        for (var i = 0; i < groups.Count; i++)
        {
            cancel.ThrowIfCancellationRequested();
            for (var j = i + 1; j < groups.Count; j++)
                Propose(groups[i], groups[j]);
        }
        while (queue.TryDequeue(out var pair, out var key))
        {
            cancel.ThrowIfCancellationRequested();
            if (pair.A.Version != pair.VersionA || pair.B.Version != pair.VersionB)
                continue;
            if (-key.Item1 < 0)
            {
                if (pair.A.Doubtful.Count < MostDoubtful)
                    pair.A.Doubtful.Add(pair.B);
                if (pair.B.Doubtful.Count < MostDoubtful)
                    pair.B.Doubtful.Add(pair.A);
                continue;
            }
            pair.A.Take(pair.B);
            groups.Remove(pair.B);
            foreach (var other in groups)
                if (other != pair.A)
                    Propose(pair.A.Before(other) ? pair.A : other, pair.A.Before(other) ? other : pair.A);
        }
    }

    /// <summary>Log odds of two groups being one person; −∞ when they cannot be.</summary>
    private double Score(Group a, Group b, double commonness)
    {
        if (a.Orcid is not null && b.Orcid is not null && a.Orcid != b.Orcid)
            return double.NegativeInfinity;
        if (Shared(a.Works, b.Works, 1) > 0)
            return double.NegativeInfinity;
        if (!FamiliesCanBeOne(a, b) || !a.Givens.All(x => b.Givens.All(y => GivenNames.Compatible(x, y))))
            return double.NegativeInfinity;
        if (a.First > 0 && b.First > 0 && Math.Max(a.Last, b.Last) - Math.Min(a.First, b.First) > MostYears)
            return double.NegativeInfinity;
        var score = weights.Start + commonness + GivenNames.Worth(Fullest(a.Givens), Fullest(b.Givens), weights);
        score += Said(weights.CoAuthors, a.CoAuthors, b.CoAuthors);
        score += Said(weights.Institutions, a.Institutions, b.Institutions);
        score += Said(weights.Topics, a.Topics, b.Topics);
        var gap = Math.Max(a.First, b.First) - Math.Min(a.Last, b.Last);
        if (gap > weights.YearsApart && a.First > 0 && b.First > 0)
            score += Math.Max(weights.LongestGap, (gap - weights.YearsApart) * weights.Gap);
        return score;

        static double Said(IReadOnlyList<double> worth, HashSet<int> a, HashSet<int> b) =>
            a.Count == 0 || b.Count == 0 ? 0 : worth[Shared(a, b, worth.Count - 1)];
    }

    /// <summary>How many two sets share, up to a number beyond which it does not matter. O(the smaller set).</summary>
    private static int Shared(HashSet<int> a, HashSet<int> b, int most)
    {
        if (a.Count > b.Count)
            (a, b) = (b, a);
        var shared = 0;
        foreach (var item in a)
            if (b.Contains(item) && ++shared == most)
                break;
        return shared;
    }

    private static IReadOnlyList<string> Fullest(List<IReadOnlyList<string>> givens) =>
        givens.MaxBy(g => g.Sum(p => p.Length) + g.Count)!;

    /// <summary>Same family name, or one of two joined by a hyphen is the other: "Ostberg" and "Ostberg-Lin".</summary>
    private static bool FamiliesCanBeOne(Group a, Group b) =>
        a.Orcid is not null && a.Orcid == b.Orcid || a.Families.Overlaps(b.Families);

    /// <summary>Labels that no two persons share: the name, then an institution, then years, then a number.</summary>
    private static string[] Labels(Found[] people)
    {
        var labels = people.Select(g => PersonLabel.Of(g.Name)).ToArray();
        string[] more(Func<Found, string?> what)
        {
            var twice = labels
                .CountBy(l => l, StringComparer.OrdinalIgnoreCase)
                .Where(c => c.Value > 1)
                .Select(c => c.Key)
                .ToHashSet(StringComparer.OrdinalIgnoreCase);
            return
            [
                .. labels.Select((l, i) => twice.Contains(l) && what(people[i]) is { } w ? PersonLabel.With(l, w) : l),
            ];
        }
        labels = more(g =>
            g.Mentions.Where(m => m.Affiliation is not null)
                .CountBy(m => m.Affiliation!)
                .OrderByDescending(c => c.Value)
                .ThenBy(c => c.Key, StringComparer.Ordinal)
                .Select(c => c.Key)
                .FirstOrDefault()
        );
        labels = more(g =>
            g.First == 0 ? null
            : g.First == g.Last ? $"{g.First}"
            : $"{g.First}–{g.Last}"
        );
        var seen = new Dictionary<string, int>(StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < labels.Length; i++)
        {
            seen[labels[i]] = seen.GetValueOrDefault(labels[i]) + 1;
            if (seen[labels[i]] > 1)
                labels[i] = PersonLabel.With(labels[i], $"{seen[labels[i]]}");
        }
        return labels;
    }

    private sealed class Group
    {
        private Group? into;

        private Group(IReadOnlyList<Mention> mentions)
        {
            foreach (var m in mentions)
                Add(m);
        }

        /// <summary>Its ordinal among the groups of its block, once all are joined.</summary>
        public int Ordinal { get; set; }
        public int Version { get; private set; }
        public List<Mention> Mentions { get; } = [];
        public HashSet<int> Works { get; } = [];
        public HashSet<string> Families { get; } = [];
        public List<IReadOnlyList<string>> Givens { get; } = [];
        public HashSet<int> CoAuthors { get; } = [];
        public HashSet<int> Institutions { get; } = [];
        public HashSet<int> Topics { get; } = [];
        public List<Group> Doubtful { get; } = [];
        public string? Orcid { get; private set; }
        public int First { get; private set; }
        public int Last { get; private set; }

        public PersonName Name =>
            Mentions
                .OrderByDescending(m => m.Name.Given.Count(char.IsLetter))
                .ThenByDescending(m => m.Year)
                .ThenBy(m => m.WorkId)
                .First()
                .Name;

        /// <summary>One group, or one for each mention when their names contradict.</summary>
        public static IEnumerable<Group> Start(Mention[] mentions) =>
            mentions.All(m => GivenNames.Compatible(mentions[0].Given, m.Given))
            && mentions.Select(m => m.WorkId).Distinct().Count() == mentions.Length
                ? [new(mentions)]
                : mentions.Select(m => new Group([m]));

        public Group Survivor() => into is null ? this : into.Survivor();

        public bool Before(Group other) =>
            (Mentions[0].WorkId, Mentions[0].Position).CompareTo((other.Mentions[0].WorkId, other.Mentions[0].Position))
            < 0;

        public void Take(Group other)
        {
            foreach (var m in other.Mentions)
                Add(m);
            Mentions.Sort((a, b) => (a.WorkId, a.Position).CompareTo((b.WorkId, b.Position)));
            Doubtful.AddRange(other.Doubtful.Take(MostDoubtful));
            other.into = this;
            Version++;
            other.Version++;
        }

        private void Add(Mention m)
        {
            Mentions.Add(m);
            Works.Add(m.WorkId);
            Families.UnionWith(m.Family);
            if (!Givens.Any(g => g.SequenceEqual(m.Given)))
                Givens.Add(m.Given);
            CoAuthors.UnionWith(m.CoAuthors);
            if (m.Institution != 0)
                Institutions.Add(m.Institution);
            Topics.UnionWith(m.Topics);
            Orcid ??= m.Orcid;
            if (m.Year == 0)
                return;
            First = First == 0 ? m.Year : Math.Min(First, m.Year);
            Last = Math.Max(Last, m.Year);
        }
    }
}
