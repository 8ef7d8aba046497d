using Zendle.Core.Records;
using Zendle.Index.Columns;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>The index over the whole corpus: takes changes from the store, hands out snapshots.</summary>
public sealed class CorpusIndex : IDisposable
{
    /// <summary>Changes whenever the text index holds something more or other of a record; an older one is made anew.</summary>
    public const int Format = 2;

    private readonly string folder;
    private TextIndex text;
    private readonly Lock gate = new();
    private CorpusSnapshot? current;

    private readonly IHeldWorks? libraries;

    /// <summary>Opens the index in a folder; see <see cref="TextIndex.Open"/>.</summary>
    /// <param name="folder">The folder.</param>
    /// <param name="libraries">Tells what libraries hold; null where there are none.</param>
    public CorpusIndex(string folder, IHeldWorks? libraries = null) =>
        (this.folder, this.libraries, text) = (folder, libraries, TextIndex.Open(folder));

    /// <summary>
    /// Whether damaged parts were taken out: the records that <see cref="Missing"/> tells must be put in again.
    /// </summary>
    public bool IsPartial => text.IsPartial;

    /// <summary>Those of some records whose words are not in it.</summary>
    public List<int> Missing(IEnumerable<int> records)
    {
        var there = text.Records();
        return [.. records.Where(r => !there.Contains(r))];
    }

    /// <summary>
    /// Opens the words anew from the last durable state, after something failed to be written: then nobody can tell
    /// which words of those put in since are lost. What the store has beyond <see cref="Sequence"/> must be put in
    /// again. Snapshots that were handed out stay as they are.
    /// </summary>
    public void Reopen()
    {
        text.Dispose();
        text = TextIndex.Open(folder);
    }

    /// <summary>
    /// Change sequence the durable index stands at; what the store has beyond it must be put in again.
    /// </summary>
    public long Sequence => text.Sequence;

    /// <summary>
    /// Puts a record in, or takes it out when <paramref name="record"/> is null. Not seen before <see cref="Refresh"/>.
    /// </summary>
    public void Put(int recordId, Record? record)
    {
        if (record is null)
            text.Remove(recordId);
        else
            text.Put(recordId, record);
    }

    /// <summary>Puts a record into an index that stands at 0: each once, quicker than <see cref="Put"/>.</summary>
    public void Fill(int recordId, Record record) => text.Fill(recordId, record);

    /// <summary>Makes the words put in durable and, with the columns given, visible in one stroke.</summary>
    /// <param name="columns">Columns built from the store at <paramref name="sequence"/>.</param>
    /// <param name="databaseNames">Names of databases.</param>
    /// <param name="sequence">The store's change sequence.</param>
    /// <param name="containers">For each database that is an extract of another: which one; null for none.</param>
    /// <param name="tieSources">Names of where lists come from that no record has; null for none.</param>
    public void Refresh(
        CorpusColumns columns,
        IReadOnlyDictionary<int, string> databaseNames,
        long sequence,
        IReadOnlyDictionary<int, int>? containers = null,
        IReadOnlyDictionary<int, string>? tieSources = null
    )
    {
        text.Commit(sequence);
        Publish(columns, databaseNames, sequence, containers, tieSources);
    }

    /// <summary>Makes the words that are in it visible with the columns given, without writing anything.</summary>
    public void Publish(
        CorpusColumns columns,
        IReadOnlyDictionary<int, string> databaseNames,
        long sequence,
        IReadOnlyDictionary<int, int>? containers = null,
        IReadOnlyDictionary<int, string>? tieSources = null
    )
    {
        var next = new CorpusSnapshot(
            text.OpenReader(),
            columns,
            databaseNames,
            sequence,
            containers ?? new Dictionary<int, int>(),
            tieSources ?? new Dictionary<int, string>(),
            libraries
        );
        CorpusSnapshot? old;
        lock (gate)
            (old, current) = (current, next);
        old?.Dispose();
    }

    /// <summary>
    /// The newest snapshot; dispose of it when the request is done. Throws before the first <see cref="Refresh"/>.
    /// </summary>
    public CorpusSnapshot Snapshot()
    {
        lock (gate)
        {
            if (current is null || !current.TryUse())
                throw new InvalidOperationException("The index is not ready yet.");
            return current;
        }
    }

    /// <summary>Closes everything.</summary>
    public void Dispose()
    {
        lock (gate)
        {
            current?.Dispose();
            current = null;
        }
        text.Dispose();
    }
}
