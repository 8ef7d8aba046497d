using System.Diagnostics;
using Zendle.Core.Merging;
using Zendle.Index.Columns;
using Zendle.Index.Questions;

namespace Zendle.Bench;

/// <summary>The index of a synthetic corpus, words and columns, as a harvest would leave it.</summary>
internal static class SyntheticIndex
{
    /// <summary>Builds it and says how long that took.</summary>
    /// <param name="folder">An empty folder.</param>
    /// <param name="corpus">The corpus.</param>
    /// <param name="works">How many works it has.</param>
    /// <param name="count">How many records.</param>
    /// <param name="cites">What a work cites; null for nothing.</param>
    public static CorpusIndex Built(
        string folder,
        SyntheticCorpus corpus,
        int works,
        int count,
        Func<int, IEnumerable<int>>? cites = null
    )
    {
        var watch = Stopwatch.StartNew();
        var index = new CorpusIndex(Path.Combine(folder, "index"));
        var columns = new CorpusColumns.Builder(count + 1, works + 1, SyntheticCorpus.Databases);
        // Cutting into words takes most of the time, as in a harvest; columns are laid by one.
        foreach (var chunk in corpus.Records().Chunk(20_000))
        {
            Parallel.ForEach(chunk, r => index.Put(r.Id, r.Record));
            foreach (var (r, findable) in chunk.AsParallel().AsOrdered().Select(r => (r, Findable(r))))
                columns.Add(SearchBench.Shown(r), Row(r), findable);
        }
        index.Refresh(columns.Build(), SyntheticCorpus.Databases, 1);
        Console.WriteLine(
            $"{works:N0} works, {count:N0} records. Index: {watch.Elapsed.TotalSeconds:N0} s, "
                + $"{count / watch.Elapsed.TotalSeconds:N0} records/s; {Measures.Memory()}"
        );
        return index;

        ColumnRow Row(SyntheticRecord r) =>
            cites is null
                ? SearchBench.Row(r)
                : SearchBench.Row(r) with
                {
                    References =
                    [
                        .. cites(r.Work).Select(w => new ReferenceKeys(MergeKeys.Doi($"10.5555/bench.{w}"), 0, 0)),
                    ],
                };
    }

    /// <summary>What references find a record by, as it follows from the record in a harvest.</summary>
    private static Findable Findable(SyntheticRecord r)
    {
        var row = SearchBench.Row(r);
        var facts = MergeFacts.Of(r.Id, r.Database, r.Record);
        return Core.Merging.Findable.Of(row.WorkId, row.Doi, row.TitleKey, row.Year ?? 0, facts);
    }
}
