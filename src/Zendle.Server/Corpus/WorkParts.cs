using System.Runtime.CompilerServices;
using Zendle.Store.Corpus;

namespace Zendle.Server.Corpus;

/// <summary>The parts of all works, kept in step with the store: after a change only the works of changed records are read again.</summary>
/// <remarks>Not for use from several tasks at once. Memory: some 2 KB a record.</remarks>
internal sealed class WorkParts(CorpusReader reader)
{
    private const int MostReadByWork = 20_000;
    private WorkPart?[] parts = [];
    private int[] workOf = [];
    private Dictionary<int, int> trusted = [];
    private long sequence;

    /// <summary>All works, by id.</summary>
    public IEnumerable<WorkPart> All => parts.OfType<WorkPart>();

    /// <summary>Forgets everything; the next renewal reads the whole store.</summary>
    public void Forget() => (parts, workOf, sequence) = ([], [], 0);

    /// <summary>Brings the parts to a change sequence.</summary>
    /// <param name="to">The sequence.</param>
    /// <param name="works">Work ids are below this.</param>
    /// <param name="records">Record ids are below this.</param>
    /// <param name="trust">Rank of trust by database; when it changes, all is read again.</param>
    /// <param name="cancel">Stops; then all is forgotten.</param>
    /// <returns>The keys under which references found, or now find, the works that changed; null when all was read.</returns>
    public async Task<HashSet<ulong>?> Renew(long to, int works, int records, Dictionary<int, int> trust, CancellationToken cancel)
    {
        if (trust.Any(t => trusted.GetValueOrDefault(t.Key, -1) != t.Value) || to < sequence) Forget();
        trusted = trust;
        var keys = sequence == 0 ? null : new HashSet<ulong>();
        try
        {
            Array.Resize(ref parts, Math.Max(works, parts.Length));
            Array.Resize(ref workOf, Math.Max(records, workOf.Length));
            var touched = new HashSet<int>();
            if (keys is not null)
            {
                foreach (var (id, work) in await reader.Touched(sequence, to, cancel))
                {
                    if (workOf[id] > 0) touched.Add(workOf[id]);
                    if (work > 0) touched.Add(work);
                    workOf[id] = 0;
                }
                foreach (var work in touched)
                {
                    if (parts[work] is { } old) keys.UnionWith(old.Keys);
                    parts[work] = null;
                }
            }
            var rows = keys is null || touched.Count > MostReadByWork ? reader.All(to, cancel) : reader.Some(touched, to, cancel);
            await foreach (var part in Of(rows, trust, withPeople: true, cancel))
            {
                if (keys is not null && !touched.Contains(part.Work)) continue;
                parts[part.Work] = part;
                foreach (var (row, _, _) in part.Rows) workOf[row.RecordId] = part.Work;
                keys?.UnionWith(part.Keys);
            }
            sequence = to;
            return keys;
        }
        catch
        {
            Forget();
            throw;
        }
    }

    /// <summary>The parts of the works whose records come one after another. Streams; records are prepared on all cores.</summary>
    public static async IAsyncEnumerable<WorkPart> Of(IAsyncEnumerable<StoredRecord> records, IReadOnlyDictionary<int, int> trust, bool withPeople, [EnumeratorCancellation] CancellationToken cancel)
    {
        const int AtOnce = 512;
        var waiting = new List<List<StoredRecord>>();
        await foreach (var record in records.WithCancellation(cancel))
        {
            if (waiting.Count > 0 && waiting[^1][0].WorkId == record.WorkId)
            {
                waiting[^1].Add(record);
                continue;
            }
            if (waiting.Count == AtOnce)
            {
                foreach (var part in Made()) yield return part;
                waiting.Clear();
            }
            waiting.Add([record]);
        }
        foreach (var part in Made()) yield return part;

        WorkPart[] Made() => [.. waiting.AsParallel().AsOrdered().WithCancellation(cancel).Select(w => WorkPart.Of(w, trust, withPeople))];
    }
}
