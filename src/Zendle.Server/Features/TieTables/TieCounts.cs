using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.TieTables;

/// <summary>What a source of citations brings to the corpus of today.</summary>
/// <param name="Citations">Citations between works here that it reports.</param>
/// <param name="OnlyHere">Those of them that nobody else reports.</param>
internal readonly record struct TieCount(int Citations, int OnlyHere);

/// <summary>What sources of citations bring, counted once for each snapshot: O(works + ties) then.</summary>
internal sealed class TieCounts
{
    private static readonly ConditionalWeakTable<CorpusSnapshot, TieCounts> Counted = [];
    private readonly Dictionary<int, TieCount> counts = [];
    private readonly ConcurrentDictionary<int, int> unknown = [];

    private TieCounts(CorpusSnapshot snapshot)
    {
        var graph = snapshot.Columns.Graph;
        var byKey = new Dictionary<ushort, int>();
        for (var work = 0; work < snapshot.Columns.WorkSize; work++)
        {
            if (snapshot.Columns.CitesByItsText(work))
                Texts++;
            var reported = graph.CitesReported(work);
            for (var i = 0; i < reported.Length; i++)
                byKey[reported[i]] = byKey.GetValueOrDefault(reported[i]) + 1;
        }
        for (var i = 0; i < graph.Databases.Count; i++)
        {
            var bit = 1UL << i;
            counts[graph.Databases[i]] = new(
                byKey.Where(k => (graph.Mask(k.Key) & bit) != 0).Sum(k => k.Value),
                byKey.Where(k => graph.Mask(k.Key) == bit).Sum(k => k.Value)
            );
        }
    }

    /// <summary>The counts of a snapshot.</summary>
    public static TieCounts Of(CorpusSnapshot snapshot) => Counted.GetValue(snapshot, s => new(s));

    /// <summary>How many works cite what they do by their texts.</summary>
    public int Texts { get; }

    /// <summary>What a source brings.</summary>
    public TieCount this[int source] => counts.GetValueOrDefault(source);

    /// <summary>How many DOIs of a table no work here has. O(its rows), once.</summary>
    public async Task<int> Unknown(CorpusSnapshot snapshot, CorpusReader reader, int source, CancellationToken cancel)
    {
        if (unknown.TryGetValue(source, out var known))
            return known;
        var (matcher, seen, count) = (snapshot.Columns.References, new HashSet<ulong>(), 0);
        await foreach (var list in reader.ListsOf(source, cancel))
        foreach (var doi in list.Keys.Select(k => k.Doi).Append(list.Citing))
            if (doi != 0 && seen.Add(doi) && matcher.WithDoi(doi) == 0)
                count++;
        return unknown[source] = count;
    }
}
