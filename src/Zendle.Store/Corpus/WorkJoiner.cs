using Zendle.Core.Merging;

namespace Zendle.Store.Corpus;

/// <summary>
/// Keeps works in step with records inside one transaction. Of changed records it looks up who shares a blocking key, keeps the pairs that match, and merges anew
/// only the components those pairs touch. What comes out is what a merge of all records from nothing gives.
/// </summary>
/// <param name="sql">The transaction.</param>
/// <param name="facts">Facts of records by id that were read before; filled further.</param>
/// <param name="filter">Keys that may be held by some record; filled further.</param>
/// <param name="sequence">Change sequence that records get whose work becomes another.</param>
internal sealed class WorkJoiner(SqlSession sql, Dictionary<int, MergeFacts> facts, KeyFilter filter, long sequence)
{
    /// <summary>
    /// A key that more records share than this proposes no pairs: it says "Editorial", not "this work". When a key passes the mark in either direction, all its
    /// records are looked at again, so that the result depends on what is there and not on what was there before.
    /// </summary>
    private const int WidestKey = 48;

    private readonly MergeWeights weights = MergeWeights.Shipped;
    private readonly HashSet<int> dirty = [];
    private readonly HashSet<int> touched = [];
    private readonly Dictionary<long, int> keyChange = [];
    private readonly HashSet<long> fresh = [];
    private readonly Dictionary<long, List<long>> members = [];

    /// <summary>Takes a record's new facts; null when it was deleted.</summary>
    /// <param name="id">The record.</param>
    /// <param name="now">Its facts.</param>
    /// <param name="isNew">Whether the record was not there before.</param>
    public void Changed(int id, MergeFacts? now, bool isNew)
    {
        dirty.Add(id);
        facts.Remove(id);
        if (!isNew)
        {
            foreach (var key in sql.Numbers("SELECT Key FROM RecordKeys WHERE RecordId = $0", id)) keyChange[key] = keyChange.GetValueOrDefault(key) - 1;
            sql.Run("DELETE FROM RecordKeys WHERE RecordId = $0", id);
        }
        if (now is null) return;
        facts[id] = now;
        object?[] keys = [.. MergeKeys.BlockingOf(now).Select(k => (object?)unchecked((long)k)), id];
        foreach (var key in keys.AsSpan(0, keys.Length - 1))
        {
            var k = (long)key!;
            if (!filter.Add(k)) fresh.Add(k);
            keyChange[k] = keyChange.GetValueOrDefault(k) + 1;
        }
        if (keys.Length > 1) sql.Run($"INSERT INTO RecordKeys (Key, RecordId) VALUES {string.Join(',', Enumerable.Range(0, keys.Length - 1).Select(i => $"(${i},${keys.Length - 1})"))}", keys);
    }

    /// <summary>Makes works of what changed. Returns the records whose work is another than before.</summary>
    public IReadOnlyCollection<int> Join()
    {
        LookAgainWhereKeysWidened();
        foreach (var id in dirty) Unmatch(id);
        foreach (var id in dirty) FindMatches(id);
        return Settle(touched.Union(dirty));
    }

    /// <summary>Merges anew what some records belong to, after a person ruled about them.</summary>
    public IReadOnlyCollection<int> Rejoin(IEnumerable<int> records) => Settle(records);

    /// <summary>The works that the components of some records would make under further rulings; nothing is written.</summary>
    public IReadOnlyList<MergedWork> Preview(IEnumerable<int> records, IReadOnlyCollection<Ruling> rulings, IReadOnlyCollection<(int First, int Second)> without)
    {
        var component = Component(records, rulings);
        return RecordMerger.Merge(component.Records, component.Matches, [.. component.Rulings.Where(r => !without.Contains((r.First, r.Second)) && !rulings.Any(n => n.First == r.First && n.Second == r.Second)), .. rulings]);
    }

    private void LookAgainWhereKeysWidened()
    {
        foreach (var (key, change) in keyChange)
        {
            if (change == 0 || (change < WidestKey && fresh.Contains(key))) continue;
            var sharing = Sharing(key);
            if (sharing.Count > WidestKey == sharing.Count - change > WidestKey) continue;
            foreach (var id in sharing) dirty.Add((int)id);
        }
    }

    /// <summary>The records that have a key, as far as they are needed to tell whether it is, or was, too wide.</summary>
    private List<long> Sharing(long key)
    {
        if (!members.TryGetValue(key, out var sharing))
            members[key] = sharing = sql.Numbers("SELECT RecordId FROM RecordKeys WHERE Key = $0 LIMIT $1", key, WidestKey + Math.Abs(keyChange.GetValueOrDefault(key)) + 1);
        return sharing;
    }

    private void Unmatch(int id)
    {
        foreach (var other in sql.Numbers("SELECT Second FROM Matches WHERE First = $0 UNION ALL SELECT First FROM Matches WHERE Second = $0", id)) touched.Add((int)other);
        sql.Run("DELETE FROM Matches WHERE First = $0 OR Second = $0", id);
    }

    private void FindMatches(int id)
    {
        if (Facts(id) is not { } own) return;
        var candidates = new HashSet<int>();
        foreach (var blocking in MergeKeys.BlockingOf(own))
        {
            var key = unchecked((long)blocking);
            // A key that came into the world with this record has nobody else.
            if (fresh.Contains(key) && keyChange.GetValueOrDefault(key) == 1) continue;
            if (Sharing(key) is { Count: <= WidestKey } sharing) foreach (var other in sharing) candidates.Add((int)other);
        }

        foreach (var other in candidates)
        {
            // Of two that are both looked at anew the younger one does it.
            if (other == id || (other > id && dirty.Contains(other)) || Facts(other) is not { } theirs || RecordMerger.Match(own, theirs, weights) is not { } match) continue;
            sql.Run("INSERT OR REPLACE INTO Matches (First, Second, Compared, Score) VALUES ($0, $1, $2, $3)", match.First, match.Second, match.Compared.Packed, match.Score);
            touched.Add(other);
        }
    }

    private HashSet<int> Settle(IEnumerable<int> start)
    {
        var component = Component(start, []);
        var before = component.Records.ToDictionary(r => r.Facts.RecordId, r => r.WorkId);
        var moved = new HashSet<int>();
        foreach (var gone in component.Gone) sql.Run("UPDATE Records SET WorkId = 0 WHERE Id = $0", gone);
        foreach (var merged in RecordMerger.Merge(component.Records, component.Matches, component.Rulings))
        {
            var work = merged.WorkId != 0 ? merged.WorkId : sql.Number("INSERT INTO Works (RedirectTo) VALUES (NULL) RETURNING Id");
            if (merged.WorkId != 0) sql.Run("UPDATE Works SET RedirectTo = NULL WHERE Id = $0 AND RedirectTo IS NOT NULL", work);
            foreach (var gone in merged.Absorbed) sql.Run("UPDATE Works SET RedirectTo = $0 WHERE Id = $1 OR RedirectTo = $1", work, gone);
            foreach (var record in merged.Records)
                if (before[record] != work)
                {
                    sql.Run("UPDATE Records SET WorkId = $0, Sequence = $2 WHERE Id = $1", work, record, sequence);
                    moved.Add(record);
                }
        }
        return moved;
    }

    /// <summary>Every record tied to some others by matches, rulings or a work they have been in, with those ties.</summary>
    private (List<(MergeFacts Facts, int WorkId)> Records, List<Match> Matches, List<Ruling> Rulings, List<int> Gone) Component(IEnumerable<int> start, IReadOnlyCollection<Ruling> further)
    {
        var (records, gone) = (new List<(MergeFacts, int)>(), new List<int>());
        var (matches, rulings) = (new Dictionary<(int, int), Match>(), new Dictionary<(int, int), Ruling>());
        var (seen, waiting, works) = (new HashSet<int>(), new Queue<int>(start.Order()), new HashSet<int>());
        while (waiting.TryDequeue(out var id))
        {
            if (!seen.Add(id)) continue;
            var work = sql.Number("SELECT COALESCE(MAX(WorkId), 0) FROM Records WHERE Id = $0", id);
            if (work > 0 && works.Add(work)) foreach (var other in sql.Numbers("SELECT Id FROM Records WHERE WorkId = $0", work)) waiting.Enqueue((int)other);
            if (Facts(id) is { } own) records.Add((own, work));
            else gone.Add(id);
            using (var reader = sql.Query("SELECT First, Second, Compared, Score FROM Matches WHERE First = $0 OR Second = $0", id))
                while (reader.Read())
                {
                    var match = new Match(reader.GetInt32(0), reader.GetInt32(1), Comparison.Unpack(reader.GetInt32(2)), reader.GetDouble(3));
                    if (!matches.TryAdd((match.First, match.Second), match)) continue;
                    waiting.Enqueue(match.First);
                    waiting.Enqueue(match.Second);
                }
            // The newest ruling of a pair holds; one that was taken back holds nothing.
            using (var reader = sql.Query("SELECT First, Second, Same FROM Rulings r WHERE (First = $0 OR Second = $0) AND Id = (SELECT MAX(Id) FROM Rulings n WHERE n.First = r.First AND n.Second = r.Second)", id))
                while (reader.Read())
                    if (!reader.IsDBNull(2) && rulings.TryAdd((reader.GetInt32(0), reader.GetInt32(1)), new(reader.GetInt32(0), reader.GetInt32(1), reader.GetBoolean(2))) && reader.GetBoolean(2))
                    {
                        waiting.Enqueue(reader.GetInt32(0));
                        waiting.Enqueue(reader.GetInt32(1));
                    }
            foreach (var ruling in further.Where(r => r.First == id || r.Second == id))
            {
                waiting.Enqueue(ruling.First);
                waiting.Enqueue(ruling.Second);
            }
        }
        var live = records.Select(r => r.Item1.RecordId).ToHashSet();
        return (records, [.. matches.Values.Where(m => live.Contains(m.First) && live.Contains(m.Second))], [.. rulings.Values], gone);
    }

    private MergeFacts? Facts(int id)
    {
        if (facts.TryGetValue(id, out var known)) return known;
        using var reader = sql.Query("SELECT DatabaseId, Facts FROM Records WHERE Id = $0 AND Deleted = 0", id);
        return reader.Read() ? facts[id] = MergeFacts.Of(id, reader.GetInt32(0), RecordCodec.Facts(reader.GetFieldValue<byte[]>(1))) : null;
    }
}
