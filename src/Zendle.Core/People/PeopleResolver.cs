using Zendle.Core.Records;

namespace Zendle.Core.People;

/// <summary>
/// Tells people apart. ORCID iDs decide where they are present and the names can be one. Else names that can be one are
/// weighed with shared co-authors, institution, subjects and years, and groups of mentions are joined, the best pair first,
/// down to a threshold (agglomerative clustering after blocking by name; a survey of the approach: Ferreira, Gonçalves,
/// Laender 2012). Pairs just below it are kept as doubt. The result depends on the mentions only, not on their order.
/// </summary>
/// <remarks>
/// O(n² log n) in a block of one family name of up to <see cref="LargestWhole"/> groups. A larger one is taken in parts
/// of names that are alike, again and again in other parts, joined people as one: O(n · part), with memory of one part
/// for each core. What follows when works change is told by <see cref="PeopleByBlock"/>.
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

    /// <summary>Tells the people of some works apart, with the shipped weights.</summary>
    public static IReadOnlyList<Person> Resolve(IEnumerable<Mention> mentions) => new PeopleResolver().All(mentions);

    /// <summary>Tells the people of some works apart; they come in the order in which works name them first.</summary>
    /// <param name="mentions">All mentions of all works.</param>
    /// <param name="cancel">Stops.</param>
    public IReadOnlyList<Person> All(IEnumerable<Mention> mentions, CancellationToken cancel = default)
    {
        var all = mentions.OrderBy(m => m.WorkId).ThenBy(m => m.Position).ToArray();
        var keys = new PeopleBlocks();
        foreach (var mention in all)
            keys.Add(PeopleBlocks.KeysOf(mention));
        var people = keys.Finish()
            .AsParallel()
            .AsOrdered()
            .WithCancellation(cancel)
            .Select(b => OfBlock(Array.ConvertAll(b, i => all[i]), cancel))
            .ToArray()
            .SelectMany(block => block, (block, person) => (Block: block, Person: person))
            .OrderBy(p => p.Person.Mentions[0].WorkId)
            .ThenBy(p => p.Person.Mentions[0].Position)
            .ToArray();
        var ordinals = new Dictionary<Person, int>(people.Length, ReferenceEqualityComparer.Instance);
        for (var i = 0; i < people.Length; i++)
            ordinals[people[i].Person] = i;
        return
        [
            .. people.Select(
                (p, i) =>
                    p.Person with
                    {
                        Number = i,
                        Doubtful = [.. p.Person.Doubtful.Select(d => ordinals[p.Block[d]]).Order()],
                    }
            ),
        ];
    }

    /// <summary>The people of one block of names, in the order in which works name them first.</summary>
    /// <param name="block">All mentions that may be of one person, in order of works and positions; one at least.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>The people; labels tell them apart, and nobody outside the block has one of them.</returns>
    public IReadOnlyList<Person> OfBlock(Mention[] block, CancellationToken cancel)
    {
        var groups = Joined(block, cancel);
        groups.Sort(
            (a, b) =>
                (a.Mentions[0].WorkId, a.Mentions[0].Position).CompareTo((b.Mentions[0].WorkId, b.Mentions[0].Position))
        );
        for (var i = 0; i < groups.Count; i++)
            groups[i].Ordinal = i;
        var labels = Labels(groups);
        return
        [
            .. groups.Select(g => new Person(
                g.Ordinal,
                labels[g.Ordinal],
                g.Name,
                g.Orcid,
                [.. g.Mentions.Select(NamedAt.Of)],
                [.. g.Doubtful.Select(d => d.Survivor().Ordinal).Where(n => n != g.Ordinal).Distinct().Order()]
            )),
        ];
    }

    private List<Group> Joined(Mention[] block, CancellationToken cancel)
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
    private static string[] Labels(List<Group> people)
    {
        var labels = people.Select(g => PersonLabel.Of(g.Name)).ToArray();
        string[] more(Func<Group, string?> what)
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
