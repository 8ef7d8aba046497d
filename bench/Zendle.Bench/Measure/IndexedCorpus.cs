using Zendle.Core.Records;
using Zendle.Index.Questions;
using Zendle.Server;
using Zendle.Server.Corpus;

namespace Zendle.Bench.Measure;

/// <summary>A harvested world with the index that searches ask, built the way the server does it.</summary>
internal sealed class IndexedCorpus : IDisposable
{
    private readonly CorpusIndex index;

    private IndexedCorpus(CorpusIndex index) => (this.index, Snapshot) = (index, index.Snapshot());

    /// <summary>The corpus as searches see it.</summary>
    public CorpusSnapshot Snapshot { get; }

    /// <summary>Builds it in an empty folder.</summary>
    public static async Task<IndexedCorpus> Of(Harvested harvested, string folder)
    {
        var index = new CorpusIndex(Path.Combine(folder, "index"));
        await using var corpus = await harvested.Corpus();
        var databases = corpus.Databases.ToList();
        var sequence = await harvested.Reader.Sequence(default);
        var build = new ColumnsBuild(
            harvested.Reader,
            harvested.Writer,
            TimeProvider.System,
            new ZendleOptions { Data = folder }
        );
        var columns = await build.Build(sequence, databases, default, (id, record) => index.Fill(id, record));
        index.Refresh(columns, databases.ToDictionary(d => d.Id, d => d.Name), sequence);
        return new(index);
    }

    public void Dispose()
    {
        Snapshot.Dispose();
        index.Dispose();
    }
}
