namespace Zendle.Core.Merging;

/// <summary>A pair of records that agree enough to be one work.</summary>
/// <param name="First">Id of the older record.</param>
/// <param name="Second">Id of the younger record.</param>
/// <param name="Compared">How they compare, field by field.</param>
/// <param name="Score">Sum of the log odds.</param>
public sealed record Match(int First, int Second, Comparison Compared, double Score);

/// <summary>What a person decided about two records.</summary>
/// <param name="First">Id of the older record.</param>
/// <param name="Second">Id of the younger record.</param>
/// <param name="Same">True: one work, whatever the records say. False: never one work.</param>
public readonly record struct Ruling(int First, int Second, bool Same);

/// <summary>One work that came out of merging.</summary>
/// <param name="WorkId">Its id; 0 when it needs a new one.</param>
/// <param name="Records">Its records, oldest first.</param>
/// <param name="Absorbed">Ids of works that went into it and now redirect.</param>
public sealed record MergedWork(int WorkId, IReadOnlyList<int> Records, IReadOnlyList<int> Absorbed);

/// <summary>
/// Joins records into works: pairs that score above the threshold are joined greedily, the best first, unless some pair
/// of the two groups forbids it. Ties are broken by <see cref="MergeFacts.Stamp"/>, so the result does not depend on
/// the order in which records arrived. What a person ruled stands above every score.
/// </summary>
public static class RecordMerger
{
    /// <summary>Compares two records; null when they can never be one work or do not agree enough.</summary>
    public static Match? Match(MergeFacts a, MergeFacts b, MergeWeights weights)
    {
        var compared = Comparison.Of(a, b);
        if (Comparison.Forbids(a, b, compared))
            return null;
        var score = weights.Score(compared);
        return score < weights.Threshold
            ? null
            : new(Math.Min(a.RecordId, b.RecordId), Math.Max(a.RecordId, b.RecordId), compared, score);
    }

    /// <summary>
    /// Merges one closed set of records: no record outside it has a match, a ruling or a work with one inside. O(n²)
    /// for the few records of a set.
    /// </summary>
    /// <param name="records">The records, each with the work it belonged to before (0 for a new one).</param>
    /// <param name="matches">The matches among them.</param>
    /// <param name="rulings">What persons decided about them.</param>
    public static IReadOnlyList<MergedWork> Merge(
        IReadOnlyCollection<(MergeFacts Facts, int WorkId)> records,
        IEnumerable<Match> matches,
        IReadOnlyCollection<Ruling> rulings
    )
    {
        var all = records.OrderBy(r => r.Facts.RecordId).ToArray();
        var index = new Dictionary<int, int>(all.Length);
        for (var i = 0; i < all.Length; i++)
            index[all[i].Facts.RecordId] = i;
        var groups = new Groups(
            Array.ConvertAll(all, r => r.Facts),
            rulings
                .Where(r => !r.Same && index.ContainsKey(r.First) && index.ContainsKey(r.Second))
                .Select(r => (index[r.First], index[r.Second]))
        );
        foreach (
            var ruling in rulings
                .Where(r => r.Same && index.ContainsKey(r.First) && index.ContainsKey(r.Second))
                .OrderBy(r => r.First)
                .ThenBy(r => r.Second)
        )
            groups.Join(index[ruling.First], index[ruling.Second], ruled: true);
        ulong StampOf(int id) => all[index[id]].Facts.Stamp;
        foreach (
            var match in matches
                .OrderByDescending(m => m.Score)
                .ThenBy(m => Math.Min(StampOf(m.First), StampOf(m.Second)))
                .ThenBy(m => Math.Max(StampOf(m.First), StampOf(m.Second)))
        )
            groups.Join(index[match.First], index[match.Second], ruled: false);
        return Name(all, groups);
    }

    /// <summary>
    /// Gives ids: an old work's id stays with its oldest record; a work that took in several keeps the oldest id and
    /// the others redirect.
    /// </summary>
    private static List<MergedWork> Name((MergeFacts Facts, int WorkId)[] records, Groups groups)
    {
        var owner = new Dictionary<int, int>();
        for (var i = 0; i < records.Length; i++)
            if (records[i].WorkId != 0)
                owner.TryAdd(records[i].WorkId, groups.Of(i));
        var claims = owner.GroupBy(o => o.Value, o => o.Key).ToDictionary(g => g.Key, g => g.Order().ToArray());
        return
        [
            .. Enumerable
                .Range(0, records.Length)
                .GroupBy(groups.Of)
                .OrderBy(g => g.First())
                .Select(group =>
                {
                    var ids = claims.GetValueOrDefault(group.Key) ?? [];
                    return new MergedWork(
                        ids.FirstOrDefault(),
                        [.. group.Select(i => records[i].Facts.RecordId)],
                        [.. ids.Skip(1)]
                    );
                }),
        ];
    }

    /// <summary>
    /// Records in groups that grow; a join is refused when a pair across forbids it. Only what the records themselves
    /// joined is asked: whom a person put together may contradict each other.
    /// </summary>
    private sealed class Groups
    {
        private readonly MergeFacts[] facts;
        private readonly Partition all,
            own;
        private readonly HashSet<(int, int)> apart;
        private readonly DoiFamilies families;

        public Groups(MergeFacts[] facts, IEnumerable<(int, int)> apart)
        {
            this.facts = facts;
            (all, own) = (new(facts.Length), new(facts.Length));
            this.apart = [.. apart.SelectMany(p => new[] { p, (p.Item2, p.Item1) })];
            families = new(facts);
        }

        public int Of(int record) => all.Of(record);

        public void Join(int a, int b, bool ruled)
        {
            if (all.Pairs(a, b).Any(apart.Contains))
                return;
            if (!ruled)
            {
                if (own.Pairs(a, b).Any(p => Forbidden(facts[p.Item1], facts[p.Item2])))
                    return;
                own.Join(a, b);
            }
            all.Join(a, b);
        }

        private bool Forbidden(MergeFacts a, MergeFacts b)
        {
            // What two records do not declare of each other a third may have declared of both.
            if (a.Doi is not null && b.Doi is not null && families.Tie(a.Doi, b.Doi))
                return false;
            return Comparison.Forbids(a, b, Comparison.Of(a, b));
        }
    }

    private sealed class Partition(int size)
    {
        private readonly int[] of = [.. Enumerable.Range(0, size)];
        private readonly Dictionary<int, List<int>> members = Enumerable
            .Range(0, size)
            .ToDictionary(i => i, i => new List<int> { i });

        public int Of(int i) => of[i];

        /// <summary>All pairs of one from each group; none when both are in one.</summary>
        public IEnumerable<(int, int)> Pairs(int a, int b) =>
            of[a] == of[b] ? [] : members[of[a]].SelectMany(i => members[of[b]].Select(j => (i, j)));

        public void Join(int a, int b)
        {
            if (of[a] == of[b])
                return;
            var (into, from) = of[a] < of[b] ? (of[a], of[b]) : (of[b], of[a]);
            foreach (var i in members[from])
                of[i] = into;
            members[into].AddRange(members[from]);
            members.Remove(from);
        }
    }

    /// <summary>DOIs that declared versions tie together.</summary>
    private sealed class DoiFamilies
    {
        private readonly Dictionary<string, string> parent = [];

        public DoiFamilies(IEnumerable<MergeFacts> records)
        {
            foreach (var record in records)
            foreach (var other in record.VersionDois)
                if (record.Doi is not null)
                    parent[Root(record.Doi)] = Root(other);
        }

        public bool Tie(string a, string b) => a == b || Root(a) == Root(b);

        private string Root(string doi)
        {
            while (parent.TryGetValue(doi, out var up) && up != doi)
                doi = up;
            return doi;
        }
    }
}
