using System.Text.Json;
using Zendle.Core.Merging;

namespace Zendle.Store.Corpus;

/// <summary>
/// Keeps works in step with records inside one transaction. Of changed records it looks up who shares a blocking key,
/// keeps the pairs that match, and merges anew only the components those pairs touch. What comes out is what a merge of
/// all records from nothing gives.
/// </summary>
/// <param name="sql">The transaction.</param>
/// <param name="facts">Facts of records by id that were read before; filled further.</param>
/// <param name="keys">Which records have which keys.</param>
/// <param name="sequence">Change sequence that records get whose work becomes another.</param>
internal sealed class WorkJoiner(SqlSession sql, Dictionary<int, MergeFacts> facts, KeyRuns keys, long sequence)
{
    /// <summary>
    /// A key that more records share than this proposes no pairs: it says "Editorial", not "this work". When a key
    /// passes the mark in either direction, all its records are looked at again, so that the result depends on what is
    /// there and not on what was there before.
    /// </summary>
    private const int WidestKey = 48;

    private readonly MergeWeights weights = MergeWeights.Shipped;
    private readonly HashSet<int> dirty = [];
    private readonly HashSet<int> touched = [];
    private readonly HashSet<int> matched = [];
    private readonly Dictionary<int, int> newcomers = [];
    private readonly Dictionary<long, List<int>> pending = [];
    private readonly Dictionary<long, List<int>> members = [];
    private int lastWork;
    private bool? hasRulings;

    /// <summary>
    /// Takes a record that is not in the store yet. Its work is told by <see cref="WorkOf"/> once all are joined; the
    /// row is then written once.
    /// </summary>
    /// <param name="id">The id it will have.</param>
    /// <param name="now">Its facts.</param>
    public void Came(int id, MergeFacts now)
    {
        newcomers[id] = 0;
        Changed(id, null, now);
    }

    /// <summary>
    /// Looks at records again that the store has, as if they had just come: their keys are put in anew.
    /// </summary>
    /// <param name="records">Records that have no keys.</param>
    public void Again(IReadOnlyCollection<int> records)
    {
        Remember(records);
        foreach (var id in records)
            Changed(id, null, facts.GetValueOrDefault(id));
    }

    /// <summary>Takes a record's new facts.</summary>
    /// <param name="id">The record.</param>
    /// <param name="before">Its facts before; null when it was deleted, or has no keys yet.</param>
    /// <param name="now">Its facts; null when it was deleted.</param>
    public void Changed(int id, MergeFacts? before, MergeFacts? now)
    {
        dirty.Add(id);
        facts.Remove(id);
        if (now is not null)
            facts[id] = now;
        foreach (var key in before?.Blocking ?? EmptyKeys)
            if (now?.Blocking.Contains(key) != true)
                Put(key, -id);
        foreach (var key in now?.Blocking ?? EmptyKeys)
            if (before?.Blocking.Contains(key) != true)
                Put(key, id);
    }

    private static IReadOnlySet<ulong> EmptyKeys { get; } = new HashSet<ulong>();

    private void Put(ulong key, int change)
    {
        if (!pending.TryGetValue(unchecked((long)key), out var changes))
            pending[unchecked((long)key)] = changes = new(1);
        changes.Add(change);
    }

    /// <summary>The work of a record that came.</summary>
    public int WorkOf(int newcomer) => newcomers[newcomer];

    /// <summary>Makes works of what changed. Returns the records whose work is another than before.</summary>
    public IReadOnlyCollection<int> Join()
    {
        LookAgainWhereKeysWidened();
        foreach (var id in dirty)
            if (!newcomers.ContainsKey(id))
                Unmatch(id);
        FindMatches();
        keys.Append(sql, [.. pending.SelectMany(p => p.Value, (p, record) => new KeyChange(p.Key, record))]);
        return Settle(touched.Union(dirty));
    }

    /// <summary>Merges anew what some records belong to, after a person ruled about them.</summary>
    public IReadOnlyCollection<int> Rejoin(IEnumerable<int> records) => Settle(records);

    /// <summary>
    /// The works that the components of some records would make under further rulings; nothing is written.
    /// </summary>
    public IReadOnlyList<MergedWork> Preview(
        IEnumerable<int> records,
        IReadOnlyCollection<Ruling> rulings,
        IReadOnlyCollection<(int First, int Second)> without
    )
    {
        var component = Component(records, rulings);
        return RecordMerger.Merge(
            component.Records,
            component.Matches,
            [
                .. component.Rulings.Where(r =>
                    !without.Contains((r.First, r.Second))
                    && !rulings.Any(n => n.First == r.First && n.Second == r.Second)
                ),
                .. rulings,
            ]
        );
    }

    private void LookAgainWhereKeysWidened()
    {
        foreach (var (key, changes) in pending)
        {
            var change = changes.Sum(Math.Sign);
            if (change == 0 || (change <= WidestKey && !keys.MayHave(sql, key)))
                continue;
            var sharing = Sharing(key);
            if (sharing.Count > WidestKey == sharing.Count - change > WidestKey)
                continue;
            dirty.UnionWith(sharing);
        }
    }

    /// <summary>The records that have a key.</summary>
    private List<int> Sharing(long key)
    {
        if (!members.TryGetValue(key, out var sharing))
            members[key] = sharing = keys.Find(sql, key, pending.GetValueOrDefault(key));
        return sharing;
    }

    private void Unmatch(int id)
    {
        foreach (
            var other in sql.Numbers(
                "SELECT Second FROM Matches WHERE First = $0 UNION ALL SELECT First FROM Matches WHERE Second = $0",
                id
            )
        )
            touched.Add((int)other);
        sql.Run("DELETE FROM Matches WHERE First = $0 OR Second = $0", id);
    }

    private void FindMatches()
    {
        Remember(dirty);
        var pairs = dirty
            .Where(facts.ContainsKey)
            .Select(id => (Id: id, Others: Candidates(id)))
            .Where(p => p.Others.Count > 0)
            .ToArray();
        Remember(pairs.SelectMany(p => p.Others));
        // Comparing needs no store: it is done on all cores.
        var found = pairs
            .AsParallel()
            .AsOrdered()
            .SelectMany(p =>
                p.Others.Where(facts.ContainsKey)
                    .Select(other => RecordMerger.Match(facts[p.Id], facts[other], weights))
                    .OfType<Match>()
                    .ToArray()
            )
            .ToArray();
        foreach (var match in found)
        {
            sql.Run(
                "INSERT OR REPLACE INTO Matches (First, Second, Compared, Score) VALUES ($0, $1, $2, $3)",
                match.First,
                match.Second,
                match.Compared.Packed,
                match.Score
            );
            touched.Add(match.First);
            touched.Add(match.Second);
            matched.Add(match.First);
            matched.Add(match.Second);
        }
    }

    /// <summary>
    /// The records that share a key with one and are to be compared with it. Of two that are both looked at anew the
    /// younger one does it.
    /// </summary>
    private HashSet<int> Candidates(int id)
    {
        var candidates = new HashSet<int>();
        foreach (var blocking in facts[id].Blocking)
        {
            var key = unchecked((long)blocking);
            // A key that came into the world with this record has nobody else: looking where keys widened has shown it.
            if (pending.TryGetValue(key, out var changes) && changes.Count == 1 && !members.ContainsKey(key))
                continue;
            if (Sharing(key) is { Count: <= WidestKey } sharing)
                candidates.UnionWith(sharing);
        }
        candidates.RemoveWhere(other => other == id || (other > id && dirty.Contains(other)));
        return candidates;
    }

    /// <summary>Reads the facts of records that are not remembered, together and on all cores.</summary>
    private void Remember(IEnumerable<int> records)
    {
        const int AtOnce = 1_000;
        foreach (var chunk in records.Where(r => !facts.ContainsKey(r)).Distinct().Order().Chunk(AtOnce))
        {
            var rows = new List<(int Id, int Database, byte[] Facts)>(chunk.Length);
            using (
                var reader = sql.Query(
                    "SELECT RecordId, DatabaseId, Facts FROM json_each($0) JOIN MergeFacts ON RecordId = value",
                    JsonSerializer.Serialize(chunk)
                )
            )
                while (reader.Read())
                    rows.Add((reader.GetInt32(0), reader.GetInt32(1), reader.GetFieldValue<byte[]>(2)));
            var read = new MergeFacts[rows.Count];
            Parallel.For(
                0,
                read.Length,
                i => read[i] = MergeFactsCodec.Read(rows[i].Id, rows[i].Database, rows[i].Facts)
            );
            foreach (var one in read)
                facts[one.RecordId] = one;
        }
    }

    /// <summary>Whether a person ever ruled about records; seldom, and then no record is asked about it.</summary>
    private bool HasRulings => hasRulings ??= sql.Number("SELECT EXISTS (SELECT 1 FROM Rulings)") != 0;

    private HashSet<int> Settle(IEnumerable<int> start)
    {
        var component = Component(start, []);
        var before = component.Records.ToDictionary(r => r.Facts.RecordId, r => r.WorkId);
        var moved = new HashSet<int>();
        foreach (var gone in component.Gone)
            sql.Run("UPDATE Records SET WorkId = 0 WHERE Id = $0", gone);
        foreach (var merged in RecordMerger.Merge(component.Records, component.Matches, component.Rulings))
        {
            var work = merged.WorkId != 0 ? merged.WorkId : NewWork();
            if (merged.WorkId != 0)
                sql.Run("UPDATE Works SET RedirectTo = NULL WHERE Id = $0 AND RedirectTo IS NOT NULL", work);
            foreach (var gone in merged.Absorbed)
                sql.Run("UPDATE Works SET RedirectTo = $0 WHERE Id = $1 OR RedirectTo = $1", work, gone);
            foreach (var record in merged.Records)
                if (before[record] != work)
                {
                    if (newcomers.ContainsKey(record))
                        newcomers[record] = work;
                    else
                        sql.Run("UPDATE Records SET WorkId = $0, Sequence = $2 WHERE Id = $1", work, record, sequence);
                    moved.Add(record);
                }
        }
        return moved;
    }

    private int NewWork()
    {
        if (lastWork == 0)
            lastWork = sql.Number(
                "SELECT MAX((SELECT COALESCE(MAX(Id), 0) FROM Works), (SELECT COALESCE(MAX(WorkFloor), 0) FROM Corpus))"
            );
        sql.Run("INSERT INTO Works (Id, RedirectTo) VALUES ($0, NULL)", ++lastWork);
        return lastWork;
    }

    /// <summary>
    /// Every record tied to some others by matches, rulings or a work they have been in, with those ties.
    /// </summary>
    private (
        List<(MergeFacts Facts, int WorkId)> Records,
        List<Match> Matches,
        List<Ruling> Rulings,
        List<int> Gone
    ) Component(IEnumerable<int> start, IReadOnlyCollection<Ruling> further)
    {
        var (records, gone) = (new List<(MergeFacts, int)>(), new List<int>());
        var (matches, rulings) = (new Dictionary<(int, int), Match>(), new Dictionary<(int, int), Ruling>());
        var (seen, waiting, works) = (new HashSet<int>(), new Queue<int>(start.Order()), new HashSet<int>());
        while (waiting.TryDequeue(out var id))
        {
            if (!seen.Add(id))
                continue;
            // One that just came has no work, no ruling, and no matches but those found now.
            var isNew = newcomers.ContainsKey(id);
            if (isNew && !matched.Contains(id))
            {
                if (Facts(id) is { } alone)
                    records.Add((alone, 0));
                continue;
            }
            var work = isNew ? 0 : sql.Number("SELECT COALESCE(MAX(WorkId), 0) FROM Records WHERE Id = $0", id);
            if (work > 0 && works.Add(work))
                foreach (var other in sql.Numbers("SELECT Id FROM Records WHERE WorkId = $0", work))
                    waiting.Enqueue((int)other);
            if (Facts(id) is { } own)
                records.Add((own, work));
            else
                gone.Add(id);
            using (
                var reader = sql.Query(
                    "SELECT First, Second, Compared, Score FROM Matches WHERE First = $0 OR Second = $0",
                    id
                )
            )
                while (reader.Read())
                {
                    var match = new Match(
                        reader.GetInt32(0),
                        reader.GetInt32(1),
                        Comparison.Unpack(reader.GetInt32(2)),
                        reader.GetDouble(3)
                    );
                    if (!matches.TryAdd((match.First, match.Second), match))
                        continue;
                    waiting.Enqueue(match.First);
                    waiting.Enqueue(match.Second);
                }
            if (!HasRulings && further.Count == 0)
                continue;
            // The newest ruling of a pair holds; one that was taken back holds nothing.
            using (
                var reader = sql.Query(
                    "SELECT First, Second, Same FROM Rulings r WHERE (First = $0 OR Second = $0) AND Id = "
                        + "(SELECT MAX(Id) FROM Rulings n WHERE n.First = r.First AND n.Second = r.Second)",
                    id
                )
            )
                while (reader.Read())
                    if (
                        !reader.IsDBNull(2)
                        && rulings.TryAdd(
                            (reader.GetInt32(0), reader.GetInt32(1)),
                            new(reader.GetInt32(0), reader.GetInt32(1), reader.GetBoolean(2))
                        )
                        && reader.GetBoolean(2)
                    )
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
        return (
            records,
            [.. matches.Values.Where(m => live.Contains(m.First) && live.Contains(m.Second))],
            [.. rulings.Values],
            gone
        );
    }

    /// <summary>The facts of a record; null when it was deleted.</summary>
    public MergeFacts? Facts(int id)
    {
        if (!facts.ContainsKey(id))
            Remember([id]);
        return facts.GetValueOrDefault(id);
    }
}
