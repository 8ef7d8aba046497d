using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>What merging needs to know of a record.</summary>
/// <param name="RecordId">Id in the store, above 0; lower is older.</param>
/// <param name="WorkId">Work it belonged to before; 0 for a new record.</param>
/// <param name="Doi">Normalised DOI, or null.</param>
/// <param name="TitleKey"><see cref="MergeKeys.TitleAndPerson"/> of it; 0 for none.</param>
/// <param name="Year">Year, or null.</param>
/// <param name="Type">Kind of document.</param>
/// <param name="VersionDois">DOIs of other versions the record declares.</param>
public sealed record MergeCandidate(int RecordId, int WorkId, string? Doi, ulong TitleKey, int? Year, DocumentType Type, IReadOnlyList<string> VersionDois);

/// <summary>Why two records were joined.</summary>
public enum MergeReason
{
    /// <summary>The same DOI.</summary>
    Doi,
    /// <summary>One declares the other a version of the same work.</summary>
    DeclaredVersion,
    /// <summary>Same title and first person, years at most one apart (or one missing).</summary>
    TitleYearPerson,
}

/// <summary>The evidence of one join: the pair and its reason.</summary>
/// <param name="First">Id of the older record.</param>
/// <param name="Second">Id of the younger record.</param>
/// <param name="Reason">Why.</param>
public readonly record struct MergeEvidence(int First, int Second, MergeReason Reason);

/// <summary>One work that came out of merging.</summary>
/// <param name="WorkId">Its id; 0 when it needs a new one.</param>
/// <param name="Records">Its records, oldest first.</param>
/// <param name="Absorbed">Ids of works that went into it and now redirect.</param>
/// <param name="Evidence">The joins that made it, a spanning tree over its records.</param>
public sealed record MergedWork(int WorkId, IReadOnlyList<int> Records, IReadOnlyList<int> Absorbed, IReadOnlyList<MergeEvidence> Evidence);

/// <summary>
/// Joins records into works: pairs that share a key are scored, and joined greedily from the best down (ties by record id), so the
/// result does not depend on the order in which records arrived. Two different DOIs keep records apart unless a declared version
/// ties them; notices and letters never join the work they speak of.
/// </summary>
public static class RecordMerger
{
    private const int WidestBucket = 64;

    /// <summary>Merges one closed set of candidates: no record outside it shares a key or a work with one inside. O(n log n) for small buckets.</summary>
    public static IReadOnlyList<MergedWork> Merge(IReadOnlyCollection<MergeCandidate> candidates)
    {
        var records = candidates.OrderBy(c => c.RecordId).ToArray();
        var families = DoiFamilies(records);
        var forest = new Forest(records.Length);
        var family = new string?[records.Length];
        for (var i = 0; i < records.Length; i++) family[i] = records[i].Doi is { } d ? families[d] : null;
        var years = Array.ConvertAll(records, r => (First: r.Year ?? int.MaxValue, Last: r.Year ?? int.MinValue));
        var evidence = new List<(int Index, MergeEvidence Evidence)>();
        foreach (var (a, b, reason) in Pairs(records, families).OrderBy(p => p.Reason).ThenBy(p => p.A).ThenBy(p => p.B))
        {
            var (ra, rb) = (forest.Root(a), forest.Root(b));
            if (ra == rb || (family[ra] is { } fa && family[rb] is { } fb && fa != fb)) continue;
            var span = (First: Math.Min(years[ra].First, years[rb].First), Last: Math.Max(years[ra].Last, years[rb].Last));
            // A record without a year must not chain together works of one title from years apart.
            if (reason == MergeReason.TitleYearPerson && Width(span) > Math.Max(1, Math.Max(Width(years[ra]), Width(years[rb])))) continue;
            var root = forest.Join(ra, rb);
            years[root] = span;
            family[root] = family[ra] ?? family[rb];
            evidence.Add((a, new(records[a].RecordId, records[b].RecordId, reason)));
        }
        return Name(records, forest, evidence);
    }

    private static IEnumerable<(int A, int B, MergeReason Reason)> Pairs(MergeCandidate[] records, Dictionary<string, string> families)
    {
        var indexes = Enumerable.Range(0, records.Length).ToArray();
        foreach (var bucket in indexes.Where(i => records[i].Doi is not null).GroupBy(i => families[records[i].Doi!]))
            foreach (var (a, b) in PairsOf([.. bucket]))
                yield return (a, b, records[a].Doi == records[b].Doi ? MergeReason.Doi : MergeReason.DeclaredVersion);
        foreach (var bucket in indexes.Where(i => records[i].TitleKey != 0).GroupBy(i => records[i].TitleKey))
            foreach (var (a, b) in PairsOf([.. bucket]))
                if (YearsAgree(records[a].Year, records[b].Year) && KindsAgree(records[a].Type, records[b].Type))
                    yield return (a, b, MergeReason.TitleYearPerson);
    }

    /// <summary>All pairs of a small bucket; of a wide one (a common title) each with its neighbour and with the first.</summary>
    private static IEnumerable<(int A, int B)> PairsOf(int[] bucket)
    {
        for (var i = 0; i < bucket.Length; i++)
            for (var j = i + 1; j < bucket.Length; j++)
            {
                if (bucket.Length > WidestBucket && i > 0 && j > i + 1) break;
                yield return (bucket[i], bucket[j]);
            }
    }

    private static bool YearsAgree(int? a, int? b) => a is null || b is null || Math.Abs(a.Value - b.Value) <= 1;

    private static long Width((int First, int Last) span) => (long)span.Last - span.First;

    private static bool KindsAgree(DocumentType a, DocumentType b) => a == b || (Apart(a) == Apart(b));

    /// <summary>Kinds that never join another kind by title alone.</summary>
    private static int Apart(DocumentType type) => type switch
    {
        DocumentType.Correction => 1,
        DocumentType.RetractionNotice => 2,
        DocumentType.Letter => 3,
        DocumentType.Editorial => 4,
        DocumentType.Dataset => 5,
        DocumentType.Book => 6,
        DocumentType.Chapter => 7,
        _ => 0,
    };

    /// <summary>DOIs that declared versions tie together, each under the name of the first in order.</summary>
    private static Dictionary<string, string> DoiFamilies(MergeCandidate[] records)
    {
        var parent = new Dictionary<string, string>();
        string Root(string d)
        {
            parent.TryAdd(d, d);
            while (parent[d] != d) d = parent[d] = parent[parent[d]];
            return d;
        }
        foreach (var record in records)
        {
            if (record.Doi is null) continue;
            foreach (var other in record.VersionDois)
            {
                var (a, b) = (Root(record.Doi), Root(other));
                if (a != b) parent[string.CompareOrdinal(a, b) < 0 ? b : a] = string.CompareOrdinal(a, b) < 0 ? a : b;
            }
            Root(record.Doi);
        }
        return parent.Keys.ToDictionary(d => d, Root);
    }

    /// <summary>
    /// Gives ids: an old work's id stays with its oldest record; a work that took in several keeps the oldest id and the others redirect.
    /// </summary>
    private static List<MergedWork> Name(MergeCandidate[] records, Forest forest, List<(int Index, MergeEvidence Evidence)> evidence)
    {
        var owner = new Dictionary<int, int>();
        for (var i = 0; i < records.Length; i++)
            if (records[i].WorkId != 0) owner.TryAdd(records[i].WorkId, forest.Root(i));
        var claims = owner.GroupBy(o => o.Value, o => o.Key).ToDictionary(g => g.Key, g => g.Order().ToArray());
        var proofs = evidence.ToLookup(e => forest.Root(e.Index), e => e.Evidence);
        return [.. Enumerable.Range(0, records.Length).GroupBy(forest.Root).OrderBy(g => g.First()).Select(group =>
        {
            var ids = claims.GetValueOrDefault(group.Key) ?? [];
            return new MergedWork(ids.FirstOrDefault(), [.. group.Select(i => records[i].RecordId)], [.. ids.Skip(1)], [.. proofs[group.Key]]);
        })];
    }

    /// <summary>Disjoint sets with path halving; the lower index becomes the root, which keeps results independent of order.</summary>
    private sealed class Forest(int size)
    {
        private readonly int[] parent = [.. Enumerable.Range(0, size)];

        public int Root(int i)
        {
            while (parent[i] != i) i = parent[i] = parent[parent[i]];
            return i;
        }

        public int Join(int a, int b)
        {
            var (low, high) = a < b ? (a, b) : (b, a);
            parent[high] = low;
            return low;
        }
    }
}
