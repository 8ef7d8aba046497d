using System.Runtime.ExceptionServices;
using Lucene.Net.Index;
using Zendle.Core.Sets;
using Zendle.Index.Columns;
using Zendle.Index.Text;

namespace Zendle.Index.Questions;

/// <summary>
/// The corpus at one moment: words, columns and citations that belong together. A request works on one snapshot from
/// start to end. Sets of records and of works that were worked out are remembered as long as the snapshot lives.
/// </summary>
public sealed class CorpusSnapshot : IDisposable
{
    private const long LeastRemembered = 3L << 20,
        RememberedPerRecord = 56;
    private readonly BoundedCache<SetKey, object> remembered;
    private readonly IHeldWorks? libraries;
    private int users = 1;

    internal CorpusSnapshot(
        DirectoryReader reader,
        CorpusColumns columns,
        IReadOnlyDictionary<int, string> databaseNames,
        long generation,
        IReadOnlyDictionary<int, int> containers,
        IReadOnlyDictionary<int, string> tieSources,
        IHeldWorks? libraries
    )
    {
        this.libraries = libraries;
        Reader = reader;
        Columns = columns;
        DatabaseNames = databaseNames;
        Generation = generation;
        Containers = containers;
        ReporterNames =
            tieSources.Count == 0
                ? databaseNames
                : databaseNames.Concat(tieSources).ToDictionary(n => n.Key, n => n.Value);
        remembered = new(LeastRemembered + (RememberedPerRecord * columns.RecordSize));
        Live = new RecordSet(columns.RecordSize);
        for (var r = 0; r < columns.RecordSize; r++)
            if (columns.RecordWork[r] > 0 && columns.RecordDatabase[r] != CorpusColumns.NoDatabase)
                Live.Add(r);
    }

    internal DirectoryReader Reader { get; }

    /// <summary>The works that a library holds, by the label it is narrowed by. Not remembered here: holdings change while the
    /// corpus does not.</summary>
    internal WorkSet HeldBy(string library) => libraries?.Of(this, library) ?? new(Columns.WorkSize);

    /// <summary>Every record there is.</summary>
    internal RecordSet Live { get; }

    /// <summary>What is known of works beside their words.</summary>
    public CorpusColumns Columns { get; }

    /// <summary>Names of databases by id.</summary>
    public IReadOnlyDictionary<int, string> DatabaseNames { get; }

    /// <summary>
    /// Names of all that report citations, by id: the databases, and where lists come from that no record has.
    /// </summary>
    public IReadOnlyDictionary<int, string> ReporterNames { get; }

    /// <summary>For each database that is an extract of another: which one.</summary>
    public IReadOnlyDictionary<int, int> Containers { get; }

    /// <summary>The store's change sequence the snapshot stands at: the corpus generation.</summary>
    public long Generation { get; }

    private int readers;

    /// <summary>
    /// Does independent pieces of reading: on all cores for whoever reads alone, one after another while others read
    /// too, so that nobody's haste is another's wait.
    /// </summary>
    internal void Read<T>(IReadOnlyList<T> pieces, Action<T> read)
    {
        var alone = Interlocked.Increment(ref readers) == 1;
        try
        {
            if (alone && pieces.Count > 1)
                Parallel.ForEach(pieces, read);
            else
                foreach (var piece in pieces)
                    read(piece);
        }
        catch (AggregateException e)
        {
            // Why one core stopped is why all did.
            ExceptionDispatchInfo.Throw(e.Flatten().InnerExceptions[0]);
        }
        finally
        {
            Interlocked.Decrement(ref readers);
        }
    }

    /// <summary>Bytes of the sets that are remembered, and how many there may be.</summary>
    public (long Bytes, long Most) Remembered => (remembered.Bytes, remembered.MostBytes);

    /// <summary>
    /// Bytes of the words by their ends, which truncation at the start made once for each part of the index; as many as
    /// the corpus has words, however often it is asked.
    /// </summary>
    public long WordsByEnd => SegmentWords.BytesOf(Reader.Leaves.Select(l => l.AtomicReader));

    internal bool Remembers(SetKey key) => remembered.TryGet(key, out _);

    /// <summary>The set that is remembered under a key, or what <paramref name="work"/> finds, which is then.</summary>
    /// <returns>A set that must not be changed.</returns>
    internal TSet Remember<TSet>(SetKey<TSet> key, Func<TSet> work)
        where TSet : IdSet<TSet> =>
        (TSet)remembered.Get(key, work, set => 200 + (2L * key.Letters) + (((TSet)set).Size / 8));

    /// <summary>The snapshot for one user more, who disposes of it too.</summary>
    /// <exception cref="ObjectDisposedException">Nobody uses it any more.</exception>
    public CorpusSnapshot Share()
    {
        ObjectDisposedException.ThrowIf(!TryUse(), this);
        return this;
    }

    /// <summary>Takes part in the snapshot's life; false when it has ended already.</summary>
    internal bool TryUse()
    {
        while (true)
        {
            var n = Volatile.Read(ref users);
            if (n == 0)
                return false;
            if (Interlocked.CompareExchange(ref users, n + 1, n) == n)
                return true;
        }
    }

    /// <summary>Ends one user's part; the files are let go when the last one ends.</summary>
    public void Dispose()
    {
        if (Interlocked.Decrement(ref users) == 0)
            Reader.Dispose();
    }
}
