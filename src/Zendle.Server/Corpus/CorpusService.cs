using Zendle.Core.Records;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>
/// Keeps the index in step with the store. A start shows what was written down last and puts in behind it what came
/// after, while questions are answered already; only an index that is missing, or that nothing fits, is waited for.
/// </summary>
public sealed class CorpusService(
    CorpusReader reader,
    ColumnsBuild columns,
    ICorpusMarks identity,
    ZendleOptions options,
    ILogger<CorpusService> log,
    IHeldWorks? libraries = null
) : IDisposable
{
    private readonly SemaphoreSlim refreshing = new(1, 1),
        changing = new(1, 1);
    private CorpusIndex? index;
    private volatile bool isBroken;

    /// <summary>Whether questions can be answered.</summary>
    public bool IsReady { get; private set; }

    /// <summary>Whether what is shown lags behind the store, because the last process was interrupted.</summary>
    public bool IsBehind { get; private set; }

    private string Folder => Path.Combine(options.Data, "index");

    /// <summary>Opens the index and brings it to where the store stands.</summary>
    public async Task Start(CancellationToken cancel)
    {
        await Open(cancel);
        await PutWords(cancel);
        await CatchUp(cancel);
    }

    /// <summary>
    /// Opens the index and shows what was written down last, if it was. Follow with <see cref="CatchUp"/>.
    /// </summary>
    public async Task Open(CancellationToken cancel)
    {
        ForgetOthers();
        index = new CorpusIndex(Folder, libraries);
        var sequence = await reader.Sequence(cancel);
        if (index.Sequence > sequence)
        {
            // The store was put back to an older state: what the index holds beyond it is not true any more.
            index.Dispose();
            Directory.Delete(Folder, recursive: true);
            ForgetOthers();
            index = new CorpusIndex(Folder, libraries);
        }
        if (index.IsPartial || columns.WrittenDown() is not { } written || written.Sequence > index.Sequence)
            return;
        Publish(
            written.Sequence,
            written.Columns,
            await reader.Databases(cancel),
            Names(await reader.TieSources(cancel))
        );
        (IsBehind, IsReady) = (written.Sequence < sequence || index.Sequence < sequence, true);
    }

    /// <summary>
    /// Puts in the words of what the store has beyond the index; from then on records may be written. Follow with
    /// <see cref="CatchUp"/>.
    /// </summary>
    public async Task PutWords(CancellationToken cancel)
    {
        var sequence = await reader.Sequence(cancel);
        if (index!.Sequence < sequence)
            log.LogInformation(
                "The index stands at {Index}, the store at {Store}; the rest is put in.",
                index.Sequence,
                sequence
            );
        if (index.Sequence == 0)
        {
            // From nothing, words and columns are made in one reading of all records.
            await Renew(index.Fill, cancel);
            (IsBehind, IsReady) = (false, true);
            return;
        }
        if (index.IsPartial)
        {
            var missing = index.Missing(await reader.LiveRecords(cancel));
            log.LogWarning(
                "Parts of the index were damaged; the words of {Records} records are put in again.",
                missing.Count
            );
            foreach (var chunk in missing.Chunk(500))
            foreach (var (id, record) in await reader.Records(chunk, cancel))
                index.Put(id, record.Record);
        }
        await Replay(cancel);
    }

    /// <summary>Brings what is shown to where the store stands.</summary>
    public async Task CatchUp(CancellationToken cancel)
    {
        await Refresh(cancel);
        (IsBehind, IsReady) = (false, true);
    }

    /// <summary>
    /// What was derived from another corpus is of no use for this one, nor is an index that lacks what this version looks
    /// for.
    /// </summary>
    private void ForgetOthers()
    {
        var (mark, own) = (Path.Combine(Folder, "of-corpus"), $"{identity.Identity} {CorpusIndex.Format}");
        if (Directory.Exists(Folder) && (!File.Exists(mark) || File.ReadAllText(mark) != own))
            Directory.Delete(Folder, recursive: true);
        Directory.CreateDirectory(Folder);
        File.WriteAllText(mark, own);
    }

    /// <summary>Puts in the words of what the store has beyond the index.</summary>
    private async Task Replay(CancellationToken cancel)
    {
        var sequence = await reader.Sequence(cancel);
        if (index!.Sequence >= sequence)
            return;
        // Cutting records into words takes most of the time; the words of one record know nothing of another's.
        await Parallel.ForEachAsync(
            reader.Changed(index.Sequence, sequence, cancel),
            cancel,
            (changed, _) =>
            {
                index.Put(changed.Id, changed.Facts is { } facts ? RecordCodec.Facts(facts) : null);
                return ValueTask.CompletedTask;
            }
        );
    }

    /// <summary>
    /// Lets a page be written and puts its words in, so that no refresh takes the store for further than the index.
    /// </summary>
    /// <param name="write">Writes the page.</param>
    /// <param name="cancel">Stops before it is written.</param>
    public async Task<PageResult> Take(Func<Task<PageResult>> write, CancellationToken cancel)
    {
        await changing.WaitAsync(cancel);
        try
        {
            var result = await write();
            Put(result.Changed);
            return result;
        }
        finally
        {
            changing.Release();
        }
    }

    /// <summary>Puts changed records in; they are seen after <see cref="Refresh"/>.</summary>
    public void Put(IEnumerable<(int Id, Record? Record)> changed)
    {
        if (isBroken)
            return; // they are put in from the store before the next refresh
        try
        {
            foreach (var (id, record) in changed)
                index!.Put(id, record);
        }
        catch
        {
            isBroken = true;
            throw;
        }
    }

    /// <summary>
    /// Makes changes visible: words and columns together. O(changed records), and now and then O(records).
    /// </summary>
    public Task Refresh(CancellationToken cancel) => Renew(null, cancel);

    private async Task Renew(Action<int, Record>? each, CancellationToken cancel)
    {
        await refreshing.WaitAsync(cancel);
        try
        {
            await changing.WaitAsync(cancel);
            long sequence;
            try
            {
                await Mend(cancel);
                sequence = await reader.Sequence(cancel);
            }
            finally
            {
                changing.Release();
            }
            var databases = await reader.Databases(cancel);
            var sources = await reader.TieSources(cancel);
            var built = await columns.Build(sequence, databases, cancel, each);
            await identity.Mark(built.RecordSize - 1, built.WorkSize - 1, sequence, cancel);
            try
            {
                index!.Refresh(built, Names(databases), sequence, Containers(databases), Names(sources));
            }
            catch
            {
                isBroken = true;
                throw;
            }
            _ = Task.Run(built.WorkOutRanks, CancellationToken.None);
            columns.WriteDown(whenDue: true);
        }
        finally
        {
            refreshing.Release();
        }
    }

    /// <summary>
    /// After something could not be written (a full disk) words that were put in since the last commit may be lost, so
    /// they are put in again.
    /// </summary>
    private async Task Mend(CancellationToken cancel)
    {
        if (!isBroken)
            return;
        index!.Reopen();
        await Replay(cancel);
        isBroken = false;
    }

    /// <summary>Lets go of what only the next change asks for, unless one is being made.</summary>
    public void LetGo()
    {
        if (!IsReady || IsBehind || !refreshing.Wait(0))
            return;
        try
        {
            columns.LetGo();
        }
        finally
        {
            refreshing.Release();
        }
    }

    private void Publish(
        long sequence,
        Zendle.Index.Columns.CorpusColumns built,
        List<DatabaseRow> databases,
        Dictionary<int, string> sources
    )
    {
        index!.Publish(built, Names(databases), sequence, Containers(databases), sources);
        _ = Task.Run(built.WorkOutRanks, CancellationToken.None);
    }

    private static Dictionary<int, string> Names(List<DatabaseRow> databases) =>
        databases.ToDictionary(d => d.Id, d => d.Name);

    private static Dictionary<int, string> Names(List<TieSourceRow> sources) =>
        sources.ToDictionary(s => s.Id, s => s.Name);

    private static Dictionary<int, int> Containers(List<DatabaseRow> databases) =>
        databases.Where(d => d.PartOf is not null).ToDictionary(d => d.Id, d => d.PartOf!.Value);

    /// <summary>The newest snapshot; dispose of it when done.</summary>
    public CorpusSnapshot Snapshot() => IsReady ? index!.Snapshot() : throw new NotReadyException();

    /// <summary>Closes the index; what changed since the columns were written down is written.</summary>
    public void Dispose()
    {
        if (IsReady)
            columns.WriteDown();
        index?.Dispose();
        refreshing.Dispose();
        changing.Dispose();
    }
}

/// <summary>A question came before the index was ready.</summary>
public sealed class NotReadyException() : Exception("Zendle is still starting; ask again in a moment.");
