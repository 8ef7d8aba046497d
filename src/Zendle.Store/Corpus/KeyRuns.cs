using System.Buffers.Binary;
using System.Collections.Immutable;

namespace Zendle.Store.Corpus;

/// <summary>A record that came under a key or, negative, left it.</summary>
/// <param name="Key">The key.</param>
/// <param name="Record">The record's id; its negative when the record lost the key.</param>
internal readonly record struct KeyChange(long Key, int Record);

/// <summary>
/// Which records have which keys, as sorted runs that are only added and now and then merged (a log-structured merge
/// tree: O'Neil, Cheng, Gawlick, O'Neil 1996). Keys are hashes, so in a plain table each lies on a page of its own, and
/// a million records write each page hundreds of times; here a page of the harvest is one run, written in one piece.
/// Everything lies in the store and is written in the transaction of the records it speaks of; directory and filters
/// are held in memory.
/// </summary>
/// <remarks>
/// Not for use from several tasks at once. Adding n keys to N writes each key O(log N) times; finding one asks a filter
/// for each of the O(log N) runs.
/// </remarks>
internal sealed class KeyRuns
{
    private const int EntrySize = 12,
        EntriesAPart = 1_024,
        RunsALevel = 6;
    private const int MostHeldParts = 24_000; // 300 MB
    private readonly Dictionary<int, byte[]> held = [];
    private List<Run>? runs;
    private int nextRun,
        nextPart;

    /// <summary>
    /// A sorted run: its parts with their first keys. One that was found in the store has no filter until it was asked
    /// so often that making one pays.
    /// </summary>
    private sealed record Run(
        int Number,
        int Level,
        ImmutableArray<int> Parts,
        ImmutableArray<long> First,
        long Entries
    )
    {
        public KeyFilter? Filter { get; set; }
        public int Asked { get; set; }
    }

    /// <summary>Forgets what is in memory; it is read again when it is next needed.</summary>
    public void Forget()
    {
        runs = null;
        held.Clear();
    }

    /// <summary>Lets the larger part of the memory go, and stays of use.</summary>
    public void Rest() => held.Clear();

    /// <summary>Removes everything.</summary>
    public void Clear(SqlSession sql)
    {
        sql.Run("DELETE FROM KeyParts");
        Forget();
    }

    /// <summary>Whether some record perhaps has, or had, a key.</summary>
    public bool MayHave(SqlSession sql, long key)
    {
        foreach (var run in Runs(sql))
            if (MayHave(sql, run, key))
                return true;
        return false;
    }

    private bool MayHave(SqlSession sql, Run run, long key)
    {
        const int OftenAPart = 4;
        if (run.Filter is null && ++run.Asked > run.Parts.Length * OftenAPart)
            run.Filter = FilterOf(sql, run);
        if (run.Filter is { } filter)
            return filter.MayHave(key);
        var found = new List<int>();
        CollectFrom(sql, run, key, found);
        return found.Count > 0;
    }

    private static KeyFilter FilterOf(SqlSession sql, Run run)
    {
        var filter = new KeyFilter(run.Entries);
        using var reader = sql.Query("SELECT Keys FROM KeyParts WHERE Run = $0", run.Number);
        while (reader.Read())
        {
            var part = reader.GetFieldValue<byte[]>(0);
            for (var at = 0; at < part.Length; at += EntrySize)
                filter.Add(KeyAt(part, at));
        }
        return filter;
    }

    private void CollectFrom(SqlSession sql, Run run, long key, List<int> found)
    {
        // The part before the first that begins with the key or behind it may end with it.
        for (var p = Math.Max(0, LowerBound(run.First, key) - 1); p < run.Parts.Length && run.First[p] <= key; p++)
            Collect(Part(sql, run.Parts[p]), key, found);
    }

    /// <summary>The records that have a key, in no order.</summary>
    /// <param name="sql">The transaction.</param>
    /// <param name="key">The key.</param>
    /// <param name="pending">Changes that are not in a run yet; null for none.</param>
    public List<int> Find(SqlSession sql, long key, IReadOnlyList<int>? pending)
    {
        var found = pending is null ? [] : new List<int>(pending);
        foreach (var run in Runs(sql))
            if (run.Filter is null || run.Filter.MayHave(key))
                CollectFrom(sql, run, key, found);
        return Left(found);
    }

    /// <summary>Adds a run of changes and merges where a level is full.</summary>
    public void Append(SqlSession sql, List<KeyChange> changes)
    {
        if (changes.Count == 0)
            return;
        var all = Runs(sql);
        changes.Sort((a, b) => a.Key != b.Key ? a.Key.CompareTo(b.Key) : a.Record.CompareTo(b.Record));
        all.Add(Write(sql, 0, changes.Count, changes));
        for (var level = 0; all.Where(r => r.Level == level).ToArray() is { Length: >= RunsALevel } full; level++)
        {
            var merged = Write(
                sql,
                level + 1,
                full.Sum(r => r.Entries),
                Merged([.. full.Select(r => Entries(sql, r))])
            );
            foreach (var old in full)
            {
                sql.Run("DELETE FROM KeyParts WHERE Run = $0", old.Number);
                foreach (var part in old.Parts)
                    held.Remove(part);
                all.Remove(old);
            }
            all.Add(merged);
        }
    }

    private List<Run> Runs(SqlSession sql)
    {
        if (runs is not null)
            return runs;
        var parts = new List<(int Run, int Level, int Id, long First, long Bytes)>();
        using (var reader = sql.Query("SELECT Run, Level, Id, First, length(Keys) FROM KeyParts ORDER BY Run, Id"))
            while (reader.Read())
                parts.Add(
                    (reader.GetInt32(0), reader.GetInt32(1), reader.GetInt32(2), reader.GetInt64(3), reader.GetInt64(4))
                );
        (nextRun, nextPart) = parts.Count == 0 ? (0, 0) : (parts.Max(p => p.Run), parts.Max(p => p.Id));
        return runs = [
            .. parts
                .GroupBy(p => (p.Run, p.Level))
                .Select(r => new Run(
                    r.Key.Run,
                    r.Key.Level,
                    [.. r.Select(p => p.Id)],
                    [.. r.Select(p => p.First)],
                    r.Sum(p => p.Bytes) / EntrySize
                )),
        ];
    }

    /// <summary>Writes sorted entries as a run.</summary>
    private Run Write(SqlSession sql, int level, long atMost, IEnumerable<KeyChange> entries)
    {
        var (number, filter, count) = (++nextRun, new KeyFilter(atMost), 0L);
        var (parts, first, part) = (
            ImmutableArray.CreateBuilder<int>(),
            ImmutableArray.CreateBuilder<long>(),
            new byte[EntriesAPart * EntrySize]
        );
        var used = 0;
        void Flush()
        {
            if (used == 0)
                return;
            var keys = part[..used];
            sql.Run(
                "INSERT INTO KeyParts (Id, Run, Level, First, Keys) VALUES ($0, $1, $2, $3, $4)",
                ++nextPart,
                number,
                level,
                first[^1],
                keys
            );
            parts.Add(nextPart);
            Hold(nextPart, keys);
            used = 0;
        }
        foreach (var (key, record) in entries)
        {
            if (used == 0)
                first.Add(key);
            BinaryPrimitives.WriteInt64LittleEndian(part.AsSpan(used), key);
            BinaryPrimitives.WriteInt32LittleEndian(part.AsSpan(used + 8), record);
            filter.Add(key);
            count++;
            if ((used += EntrySize) == part.Length)
                Flush();
        }
        Flush();
        return new(number, level, parts.ToImmutable(), first.ToImmutable(), count) { Filter = filter };
    }

    /// <summary>Sorted runs as one; what came under a key and left it again in them cancels out.</summary>
    private static IEnumerable<KeyChange> Merged(IEnumerator<KeyChange>[] sorted)
    {
        var heads = sorted.Where(s => s.MoveNext()).ToList();
        var of = new List<int>();
        while (heads.Count > 0)
        {
            var key = heads[0].Current.Key;
            for (var i = 1; i < heads.Count; i++)
                key = Math.Min(key, heads[i].Current.Key);
            for (var i = heads.Count - 1; i >= 0; i--)
                while (heads[i].Current.Key == key)
                {
                    of.Add(heads[i].Current.Record);
                    if (heads[i].MoveNext())
                        continue;
                    heads.RemoveAt(i);
                    break;
                }
            if (of.Count > 1)
                of = Cancelled(of);
            foreach (var record in of)
                yield return new(key, record);
            of.Clear();
        }
    }

    private IEnumerator<KeyChange> Entries(SqlSession sql, Run run)
    {
        foreach (var id in run.Parts)
        {
            var part = Part(sql, id);
            for (var at = 0; at < part.Length; at += EntrySize)
                yield return new(KeyAt(part, at), RecordAt(part, at));
        }
    }

    private byte[] Part(SqlSession sql, int id)
    {
        if (held.TryGetValue(id, out var part))
            return part;
        part = (byte[])sql.Scalar("SELECT Keys FROM KeyParts WHERE Id = $0", id)!;
        Hold(id, part);
        return part;
    }

    private void Hold(int id, byte[] part)
    {
        if (held.Count >= MostHeldParts)
            held.Clear();
        held[id] = part;
    }

    private static void Collect(byte[] part, long key, List<int> found)
    {
        var (low, high) = (0, part.Length / EntrySize);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (KeyAt(part, middle * EntrySize) < key)
                low = middle + 1;
            else
                high = middle;
        }
        for (var at = low * EntrySize; at < part.Length && KeyAt(part, at) == key; at += EntrySize)
            found.Add(RecordAt(part, at));
    }

    /// <summary>The records that are there: each came once more than it left.</summary>
    private static List<int> Left(List<int> changes)
    {
        if (!changes.Exists(c => c < 0))
            return changes;
        var left = Cancelled(changes);
        left.RemoveAll(c => c < 0);
        return left;
    }

    private static List<int> Cancelled(List<int> changes)
    {
        if (!changes.Exists(c => c < 0))
            return changes;
        var sums = new Dictionary<int, int>();
        foreach (var change in changes)
            sums[Math.Abs(change)] = sums.GetValueOrDefault(Math.Abs(change)) + Math.Sign(change);
        return [.. sums.Where(s => s.Value != 0).Select(s => s.Key * s.Value)];
    }

    private static int LowerBound(ImmutableArray<long> first, long key)
    {
        var (low, high) = (0, first.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (first[middle] < key)
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    private static long KeyAt(byte[] part, int at) => BinaryPrimitives.ReadInt64LittleEndian(part.AsSpan(at));

    private static int RecordAt(byte[] part, int at) => BinaryPrimitives.ReadInt32LittleEndian(part.AsSpan(at + 8));
}
