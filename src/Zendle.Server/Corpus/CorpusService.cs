using Zendle.Core.Records;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>Keeps the index in step with the store: replays at the start what came after the index's last commit, and makes changes visible.</summary>
public sealed class CorpusService(CorpusReader reader, ColumnsBuild columns, ZendleOptions options, ILogger<CorpusService> log) : IDisposable
{
    private readonly SemaphoreSlim refreshing = new(1, 1);
    private CorpusIndex? index;

    /// <summary>Whether questions can be answered.</summary>
    public bool IsReady { get; private set; }

    /// <summary>Opens the index and brings it to where the store stands. A missing or older index is built anew.</summary>
    public async Task Start(CancellationToken cancel)
    {
        index = new CorpusIndex(Path.Combine(options.Data, "index"));
        var sequence = await reader.Sequence(cancel);
        if (index.Sequence > sequence)
        {
            // The store was put back to an older state: what the index holds beyond it is not true any more.
            index.Dispose();
            Directory.Delete(Path.Combine(options.Data, "index"), recursive: true);
            index = new CorpusIndex(Path.Combine(options.Data, "index"));
        }
        if (index.Sequence < sequence) log.LogInformation("The index stands at {Index}, the store at {Store}; the rest is put in.", index.Sequence, sequence);
        // From nothing, words and columns are made in one reading of all records.
        if (index.Sequence == 0) await Renew(index.Fill, cancel);
        else
        {
            // Cutting records into words takes most of the time; the words of one record know nothing of another's.
            await Parallel.ForEachAsync(reader.Changed(index.Sequence, sequence, cancel), cancel, (changed, _) =>
            {
                index.Put(changed.Id, changed.Facts is { } facts ? RecordCodec.Facts(facts) : null);
                return ValueTask.CompletedTask;
            });
            await Refresh(cancel);
        }
        IsReady = true;
    }

    /// <summary>Puts changed records in; they are seen after <see cref="Refresh"/>.</summary>
    public void Put(IEnumerable<(int Id, Record? Record)> changed)
    {
        foreach (var (id, record) in changed) index!.Put(id, record);
    }

    /// <summary>Builds columns from the store and makes them visible together with the words. O(records).</summary>
    public Task Refresh(CancellationToken cancel) => Renew(null, cancel);

    private async Task Renew(Action<int, Record>? each, CancellationToken cancel)
    {
        await refreshing.WaitAsync(cancel);
        try
        {
            var sequence = await reader.Sequence(cancel);
            var databases = await reader.Databases(cancel);
            var built = await columns.Build(sequence, databases, cancel, each);
            index!.Refresh(built, databases.ToDictionary(d => d.Id, d => d.Name), sequence, databases.Where(d => d.PartOf is not null).ToDictionary(d => d.Id, d => d.PartOf!.Value));
            _ = Task.Run(built.WorkOutPlaces, CancellationToken.None);
            columns.WriteDown(whenDue: true);
        }
        finally { refreshing.Release(); }
    }

    /// <summary>The newest snapshot; dispose of it when done.</summary>
    public CorpusSnapshot Snapshot() => IsReady ? index!.Snapshot() : throw new NotReadyException();

    /// <summary>Closes the index; what changed since the columns were written down is written.</summary>
    public void Dispose()
    {
        if (IsReady) columns.WriteDown();
        index?.Dispose();
        refreshing.Dispose();
    }
}

/// <summary>A question came before the index was ready.</summary>
public sealed class NotReadyException() : Exception("Zendle is still starting; ask again in a moment.");
