using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Store.Sqlite;

namespace Zendle.Store.Corpus;

/// <summary>Where a harvest stands after a page; written in the same transaction as the page.</summary>
/// <param name="Token">Resumption token; null when the list is complete.</param>
/// <param name="RunStarted">First responseDate of the run.</param>
/// <param name="IsWhole">Whether the run asks for everything again, so that what does not come is not there any
/// more.</param>
/// <param name="Unread">Identifiers of records of the page that are there but could not be read.</param>
public sealed record HarvestMark(
    string? Token,
    DateTimeOffset RunStarted,
    bool IsWhole = false,
    IReadOnlyList<string>? Unread = null
);

/// <summary>What a page changed.</summary>
/// <param name="Sequence">The store's change sequence after it.</param>
/// <param name="Changed">Records that are new or changed, by id; null for deleted ones.</param>
/// <param name="Vanished">How many of them were not told as deleted, but did not come any more in a whole run.</param>
/// <param name="Doubted">So many would have vanished that a fault of the service is likelier; then none is taken as
/// deleted.</param>
public sealed record PageResult(
    long Sequence,
    IReadOnlyList<(int Id, Record? Record)> Changed,
    int Vanished = 0,
    int Doubted = 0
);

/// <summary>
/// Writes harvested pages by prepared statements: records, keys, matches, works and the harvest's mark in one
/// transaction, so that a kill at any moment leaves whole pages only.
/// </summary>
public sealed partial class CorpusWriter(IDbContextFactory<CorpusContext> contexts)
{
    /// <summary>
    /// Changes whenever keys, comparison or weights change; a corpus of another version is joined anew at the start.
    /// </summary>
    public const int MergeVersion = 7;

    private const int MostRemembered = 20_000,
        RejoinAtOnce = 2_000;
    private static readonly SemaphoreSlim OneWriter = new(1, 1);
    private readonly Dictionary<int, MergeFacts> facts = [];
    private readonly KeyRuns keys = new();

    /// <summary>Writes one page. A record whose datestamp and content are as before changes nothing.</summary>
    /// <param name="databaseId">The database.</param>
    /// <param name="page">What came.</param>
    /// <param name="mark">Where the harvest stands after it.</param>
    /// <param name="now">Now.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    /// <param name="spokenOf">Works that people decided on: the last record of such a work stays, as one that is in no
    /// database any more. Null for none.</param>
    public Task<PageResult> Write(
        int databaseId,
        IReadOnlyList<PreparedRecord> page,
        HarvestMark mark,
        DateTimeOffset now,
        CancellationToken cancel,
        IReadOnlySet<int>? spokenOf = null
    ) => InTransaction(sql => Write(sql, databaseId, page, mark, now, spokenOf ?? new HashSet<int>()), cancel);

    private PageResult Write(
        SqlSession sql,
        int databaseId,
        IReadOnlyList<PreparedRecord> page,
        HarvestMark mark,
        DateTimeOffset now,
        IReadOnlySet<int> spokenOf
    )
    {
        if (mark.IsWhole)
            foreach (var identifier in page.Select(p => p.Item.Identifier).Concat(mark.Unread ?? []))
                sql.Run("INSERT OR IGNORE INTO Seen (DatabaseId, Identifier) VALUES ($0, $1)", databaseId, identifier);
        var sequence = NextSequence(sql);
        var joiner = new WorkJoiner(sql, facts, keys, sequence);
        var (changed, newcomers) = (new Dictionary<int, Record?>(), new List<(int Id, PreparedRecord Item)>());
        var next = HighestNumber(sql);
        // Of a record that a page has twice the later one holds.
        foreach (var item in page.GroupBy(p => p.Item.Identifier, StringComparer.Ordinal).Select(g => g.Last()))
        {
            if (Known(sql, databaseId, item.Item.Identifier) is { } known)
            {
                if (
                    known.Deleted
                        ? item.Merge is null
                        : item.Merge is not null && RecordCodec.IsSameSource(known.Source, item.Item.Source)
                )
                    continue;
                if (item.Merge is null)
                    Remove(sql, joiner, known.Id, known.WorkId, item.Item.Datestamp, sequence, spokenOf);
                else
                {
                    joiner.Changed(known.Id, joiner.Facts(known.Id), item.Merge with { RecordId = known.Id });
                    Update(sql, known.Id, databaseId, item, sequence);
                }
                changed[known.Id] = item.Item.Record;
            }
            else if (item.Merge is not null)
            {
                newcomers.Add((++next, item));
                joiner.Came(next, item.Merge with { RecordId = next });
                changed[next] = item.Item.Record;
            }
        }
        var (vanished, doubted) = mark is { IsWhole: true, Token: null }
            ? Vanish(sql, joiner, databaseId, mark.RunStarted, sequence, spokenOf, changed)
            : (0, 0);
        if (changed.Count > 0)
            joiner.Join();
        foreach (var (id, item) in newcomers)
            Insert(sql, id, databaseId, item, sequence, joiner.WorkOf(id));
        Mark(sql, databaseId, mark, page.Count, changed.Count, now);
        if (mark.Token is null)
            keys.Rest();
        return new(
            changed.Count > 0 ? sequence : sequence - 1,
            [.. changed.Select(c => (c.Key, c.Value))],
            vanished,
            doubted
        );
    }

    /// <summary>
    /// Takes a record as deleted. The last one of a work that people decided on keeps its work and its values.
    /// </summary>
    private static void Remove(
        SqlSession sql,
        WorkJoiner joiner,
        int id,
        int work,
        DateTimeOffset when,
        long sequence,
        IReadOnlySet<int> spokenOf
    )
    {
        if (
            spokenOf.Contains(work)
            && sql.Number(
                "SELECT EXISTS (SELECT 1 FROM Records WHERE WorkId = $0 AND Deleted = 0 AND Id <> $1)",
                work,
                id
            ) == 0
        )
        {
            sql.Run(
                "UPDATE Records SET Deleted = 1, Datestamp = $1, Sequence = $2 WHERE Id = $0",
                id,
                Moment(when),
                sequence
            );
            return;
        }
        joiner.Changed(id, joiner.Facts(id), null);
        sql.Run(
            """
            UPDATE Records SET Deleted = 1, Datestamp = $1, Sequence = $2, TitleKey = 0,
                Facts = $3, "References" = $3, ReferenceKeys = $3, Source = $3, OpensOn = NULL
            WHERE Id = $0
            """,
            id,
            Moment(when),
            sequence,
            Array.Empty<byte>()
        );
        sql.Run("DELETE FROM MergeFacts WHERE RecordId = $0", id);
    }

    /// <summary>Takes as deleted what a whole run did not bring; nothing when that is most of what was there.</summary>
    private static (int Vanished, int Doubted) Vanish(
        SqlSession sql,
        WorkJoiner joiner,
        int databaseId,
        DateTimeOffset when,
        long sequence,
        IReadOnlySet<int> spokenOf,
        Dictionary<int, Record?> changed
    )
    {
        const int AlwaysBelieved = 20;
        var gone = new List<(int Id, int Work)>();
        using (
            var reader = sql.Query(
                "SELECT Id, WorkId FROM Records r WHERE DatabaseId = $0 AND Deleted = 0 AND NOT EXISTS (SELECT 1 "
                    + "FROM Seen s WHERE s.DatabaseId = r.DatabaseId AND s.Identifier = r.Identifier)",
                databaseId
            )
        )
            while (reader.Read())
                gone.Add((reader.GetInt32(0), reader.GetInt32(1)));
        sql.Run("DELETE FROM Seen WHERE DatabaseId = $0", databaseId);
        if (
            gone.Count > AlwaysBelieved
            && gone.Count
                > sql.Number("SELECT COUNT(*) FROM Records WHERE DatabaseId = $0 AND Deleted = 0", databaseId) / 2
        )
            return (0, gone.Count);
        foreach (var (id, work) in gone)
        {
            Remove(sql, joiner, id, work, when, sequence, spokenOf);
            changed[id] = null;
        }
        return (gone.Count, 0);
    }

    /// <summary>
    /// Joins all records anew when the corpus was joined by an older version; the ids of works stay with their oldest
    /// records.
    /// </summary>
    /// <returns>How many records were looked at; 0 when the corpus was up to date.</returns>
    public async Task<int> BringUpToDate(CancellationToken cancel)
    {
        var ids = await InTransaction(
            sql =>
            {
                if (sql.Number("PRAGMA user_version") == MergeVersion)
                    return [];
                keys.Clear(sql);
                facts.Clear();
                return sql.Numbers("SELECT Id FROM Records WHERE Deleted = 0 OR WorkId > 0 ORDER BY Id");
            },
            cancel
        );
        foreach (var part in ids.Chunk(RejoinAtOnce))
            await InTransaction(sql => TakeFactsAgain(sql, part), cancel);
        foreach (var part in ids.Chunk(RejoinAtOnce))
            await InTransaction(
                sql =>
                {
                    var joiner = new WorkJoiner(sql, facts, keys, NextSequence(sql));
                    joiner.Again(Array.ConvertAll(part, id => (int)id));
                    return joiner.Join().Count;
                },
                cancel
            );
        await InTransaction(
            sql =>
            {
#pragma warning disable CA2100 // a constant; a pragma takes no parameters
                sql.Run($"PRAGMA user_version = {MergeVersion}");
#pragma warning restore CA2100
                return 0;
            },
            cancel
        );
        return ids.Count;
    }

    /// <summary>Works out again what merging looks at in some records.</summary>
    private static int TakeFactsAgain(SqlSession sql, long[] records)
    {
        var rows = new List<(int Id, int Database, byte[] Facts)>(records.Length);
        foreach (var id in records)
        {
            using var reader = sql.Query("SELECT DatabaseId, Facts FROM Records WHERE Id = $0", id);
            if (reader.Read())
                rows.Add(((int)id, reader.GetInt32(0), reader.GetFieldValue<byte[]>(1)));
        }
        foreach (
            var (id, database, facts) in rows.AsParallel()
                .AsOrdered()
                .Select(r =>
                    (
                        r.Id,
                        r.Database,
                        MergeFactsCodec.Write(MergeFacts.Of(r.Id, r.Database, RecordCodec.Facts(r.Facts)))
                    )
                )
                .ToArray()
        )
            PutFacts(sql, id, database, facts);
        return rows.Count;
    }

    /// <summary>
    /// The works that further rulings would make of some records and what they are tied to; nothing is written.
    /// </summary>
    /// <param name="rulings">Rulings that would hold.</param>
    /// <param name="without">Pairs whose rulings would no longer hold.</param>
    /// <param name="cancel">Stops.</param>
    public Task<IReadOnlyList<MergedWork>> Preview(
        IReadOnlyCollection<Ruling> rulings,
        IReadOnlyCollection<(int First, int Second)> without,
        CancellationToken cancel
    ) =>
        InTransaction(
            sql =>
                new WorkJoiner(sql, facts, keys, 0).Preview(
                    rulings.SelectMany(r => new[] { r.First, r.Second }),
                    rulings,
                    without
                ),
            cancel
        );

    /// <summary>Writes down what a curator ruled, in one act, and makes works accordingly.</summary>
    /// <param name="rulings">The pairs, the older record first; <c>Same</c> null takes an earlier ruling back.</param>
    /// <param name="act">The act they belong to.</param>
    /// <param name="by">Account of the curator.</param>
    /// <param name="now">When.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    public Task Rule(
        IReadOnlyCollection<(int First, int Second, bool? Same)> rulings,
        Guid act,
        string by,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        InTransaction(
            sql =>
            {
                foreach (var (first, second, same) in rulings)
                    sql.Run(
                        "INSERT INTO Rulings (First, Second, Same, Act, By, At) VALUES ($0, $1, $2, $3, $4, $5)",
                        first,
                        second,
                        same,
                        act.ToString().ToUpperInvariant(),
                        by,
                        Moment(now)
                    );
                int[] records = [.. rulings.SelectMany(r => new[] { r.First, r.Second }).Distinct()];
                // The corpus is of a new generation, whatever became of the works: whoever counts must see it.
                var sequence = NextSequence(sql);
                foreach (var record in records)
                    sql.Run("UPDATE Records SET Sequence = $0 WHERE Id = $1", sequence, record);
                new WorkJoiner(sql, facts, keys, sequence).Rejoin(records);
                return 0;
            },
            cancel
        );

    /// <summary>
    /// Says which works references of some names mean. The works that gain or lose a name are of a new generation.
    /// </summary>
    /// <param name="works">By name the work; null for none any more.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    public Task Resolve(IReadOnlyDictionary<ulong, int?> works, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                var touched = new HashSet<int>();
                foreach (var (name, work) in works)
                {
                    var key = unchecked((long)name);
                    var before = (int)
                        sql.Number("SELECT COALESCE((SELECT WorkId FROM ResolvedReferences WHERE Name = $0), 0)", key);
                    if (before == (work ?? 0))
                        continue;
                    touched.Add(before);
                    if (work is { } now)
                    {
                        touched.Add(now);
                        sql.Run("INSERT OR REPLACE INTO ResolvedReferences (Name, WorkId) VALUES ($0, $1)", key, now);
                    }
                    else
                        sql.Run("DELETE FROM ResolvedReferences WHERE Name = $0", key);
                }
                Touch(sql, touched, NextSequence(sql));
                return 0;
            },
            cancel
        );

    /// <summary>Puts lists in that no record has; one of a work takes the place of the one the source had of it.</summary>
    /// <param name="source">Their source, which is there.</param>
    /// <param name="lists">The lists; of a work an empty one takes away what was there.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    /// <returns>How many are others than before.</returns>
    public Task<int> Add(int source, IReadOnlyCollection<PreparedList> lists, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                var (sequence, next, changed) = (NextSequence(sql), HighestNumber(sql), 0);
                var free = new Queue<long>(
                    sql.Numbers(
                        "SELECT Id FROM AddedLists WHERE length(ReferenceKeys) = 0 ORDER BY Id LIMIT $0",
                        lists.Count
                    )
                );
                foreach (var list in lists)
                {
                    var there = list.Work == 0 ? null : Known(sql, source, list.Work);
                    if (there is null ? list.IsEmpty : there.Value.References.AsSpan().SequenceEqual(list.References))
                        continue;
                    changed++;
                    sql.Run(
                        """
                        INSERT OR REPLACE INTO AddedLists (Id, SourceId, WorkId, Citing, Sequence, "References", ReferenceKeys)
                        VALUES ($0, $1, $2, $3, $4, $5, $6)
                        """,
                        there?.Id ?? (free.TryDequeue(out var number) ? number : ++next),
                        source,
                        list.Work,
                        unchecked((long)list.Citing),
                        sequence,
                        list.References,
                        list.ReferenceKeys
                    );
                }
                return changed;
            },
            cancel
        );

    private static (long Id, byte[] References)? Known(SqlSession sql, int source, int work)
    {
        using var reader = sql.Query(
            "SELECT Id, \"References\" FROM AddedLists WHERE SourceId = $0 AND WorkId = $1 AND length(ReferenceKeys) > 0",
            source,
            work
        );
        return reader.Read() ? (reader.GetInt64(0), reader.GetFieldValue<byte[]>(1)) : null;
    }

    /// <summary>Takes away all lists of a source.</summary>
    public Task RemoveLists(int source, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                sql.Run(
                    """
                    UPDATE AddedLists SET SourceId = 0, Sequence = $1, WorkId = 0, Citing = 0, "References" = $2,
                        ReferenceKeys = $2
                    WHERE SourceId = $0
                    """,
                    source,
                    NextSequence(sql),
                    Array.Empty<byte>()
                );
                return 0;
            },
            cancel
        );

    /// <summary>Works are looked at anew, though none of their records changed.</summary>
    private static void Touch(SqlSession sql, IEnumerable<int> works, long sequence)
    {
        foreach (var work in works)
            sql.Run(
                "UPDATE Records SET Sequence = $1 WHERE Id = (SELECT MIN(Id) FROM Records WHERE WorkId = COALESCE((SELECT "
                    + "RedirectTo FROM Works WHERE Id = $0), $0) AND WorkId > 0)",
                work,
                sequence
            );
    }

    /// <summary>Makes lost numbers of works stand for works of today.</summary>
    /// <param name="found">By lost number: the work it turned out to be.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    public Task Redirect(IReadOnlyDictionary<int, int> found, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                // A work that was merged into another since it was looked for stands for that one.
                foreach (var (lost, work) in found)
                    sql.Run(
                        "INSERT INTO Works (Id, RedirectTo) SELECT $0, COALESCE(RedirectTo, Id) FROM Works WHERE "
                            + "Id = $1 ON CONFLICT (Id) DO NOTHING",
                        lost,
                        work
                    );
                // References that were said to mean a lost work mean the one of today.
                Touch(
                    sql,
                    found.Keys.Where(w =>
                        sql.Number("SELECT EXISTS (SELECT 1 FROM ResolvedReferences WHERE WorkId = $0)", w) == 1
                    ),
                    NextSequence(sql)
                );
                return 0;
            },
            cancel
        );

    /// <summary>Writes down what numbering of people gave or changed. O(changes).</summary>
    /// <param name="changes">The changes.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    public Task Number(GivenNumbers changes, CancellationToken cancel) =>
        InTransaction(
            sql =>
            {
                foreach (var (mark, person) in changes.Marks)
                    sql.Run(
                        "INSERT INTO PersonMarks (WorkId, Name, PersonId) VALUES ($0, $1, $2) ON CONFLICT (WorkId, Name) "
                            + "DO UPDATE SET PersonId = $2",
                        mark.WorkId,
                        mark.Name,
                        person
                    );
                foreach (var (label, person) in changes.Labels)
                    sql.Run(
                        "INSERT INTO PersonLabels (Label, PersonId) VALUES ($0, $1) ON CONFLICT (Label) DO NOTHING",
                        label,
                        person
                    );
                foreach (var (person, label) in changes.Shown)
                    sql.Run(
                        "INSERT INTO People (Id, Label, RedirectTo) VALUES ($0, $1, NULL) ON CONFLICT (Id) DO UPDATE "
                            + "SET Label = $1",
                        person,
                        label
                    );
                foreach (var (person, into) in changes.Redirects)
                    sql.Run("UPDATE People SET RedirectTo = NULLIF($1, 0) WHERE Id = $0", person, into);
                return 0;
            },
            cancel
        );

    /// <summary>
    /// Lets go of what was remembered of records between pages; what comes next reads it again. Nothing while somebody
    /// writes.
    /// </summary>
    public void LetGo()
    {
        if (!OneWriter.Wait(0))
            return;
        try
        {
            facts.Clear();
            facts.TrimExcess();
        }
        finally
        {
            OneWriter.Release();
        }
    }

    private async Task<T> InTransaction<T>(Func<SqlSession, T> act, CancellationToken cancel)
    {
        await OneWriter.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            await context.Database.OpenConnectionAsync(cancel);
            var connection = (SqliteConnection)context.Database.GetDbConnection();
            ConnectionPragmas.Widen(connection);
            await using var transaction = connection.BeginTransaction(deferred: false);
            using var sql = new SqlSession(connection, transaction);
            if (facts.Count > MostRemembered)
                facts.Clear();
            var result = act(sql);
            await transaction.CommitAsync(cancel);
            return result;
        }
        catch
        {
            // What was remembered may be of records that were not written.
            facts.Clear();
            keys.Forget();
            throw;
        }
        finally
        {
            OneWriter.Release();
        }
    }

    /// <summary>The highest number that a record or a list of its own was ever given.</summary>
    private static int HighestNumber(SqlSession sql) =>
        sql.Number(
            "SELECT MAX((SELECT COALESCE(MAX(Id), 0) FROM Records), (SELECT COALESCE(MAX(Id), 0) FROM AddedLists), "
                + "(SELECT COALESCE(MAX(RecordFloor), 0) FROM Corpus))"
        );

    private static long NextSequence(SqlSession sql) =>
        Convert.ToInt64(
            sql.Scalar(
                "SELECT 1 + MAX((SELECT COALESCE(MAX(Sequence), 0) FROM Records), (SELECT COALESCE(MAX(Sequence), 0) FROM "
                    + "AddedLists), (SELECT COALESCE(MAX(SequenceFloor), 0) FROM Corpus))"
            ),
            CultureInfo.InvariantCulture
        );

    /// <summary>A record that is in the store.</summary>
    private sealed record KnownRecord(int Id, int WorkId, bool Deleted, byte[] Source);

    private static KnownRecord? Known(SqlSession sql, int databaseId, string identifier)
    {
        using var reader = sql.Query(
            "SELECT Id, WorkId, Deleted, Source FROM Records WHERE DatabaseId = $0 AND Identifier = $1",
            databaseId,
            identifier
        );
        return reader.Read()
            ? new(reader.GetInt32(0), reader.GetInt32(1), reader.GetBoolean(2), reader.GetFieldValue<byte[]>(3))
            : null;
    }

    private static void Insert(SqlSession sql, int id, int databaseId, PreparedRecord item, long sequence, int work)
    {
        sql.Run(
            """
            INSERT INTO Records (DatabaseId, Identifier, Datestamp, Deleted, Sequence, TitleKey, Facts, "References",
                ReferenceKeys, Source, OpensOn, Id, WorkId)
            VALUES ($0, $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
            """,
            [.. Values(databaseId, item, sequence), id, work]
        );
        PutFacts(sql, id, databaseId, item.MergeFacts);
    }

    private static void Update(SqlSession sql, int id, int databaseId, PreparedRecord item, long sequence)
    {
        sql.Run(
            """
            UPDATE Records SET DatabaseId = $0, Identifier = $1, Datestamp = $2, Deleted = $3, Sequence = $4, TitleKey = $5,
            Facts = $6, "References" = $7, ReferenceKeys = $8, Source = $9, OpensOn = $10 WHERE Id = $11
            """,
            [.. Values(databaseId, item, sequence), id]
        );
        PutFacts(sql, id, databaseId, item.MergeFacts);
    }

    private static void PutFacts(SqlSession sql, int id, int databaseId, byte[] facts) =>
        sql.Run(
            "INSERT OR REPLACE INTO MergeFacts (RecordId, DatabaseId, Facts) VALUES ($0, $1, $2)",
            id,
            databaseId,
            facts
        );

    private static object?[] Values(int databaseId, PreparedRecord item, long sequence) =>
        [
            databaseId,
            item.Item.Identifier,
            Moment(item.Item.Datestamp),
            item.Merge is null,
            sequence,
            item.TitleKey,
            item.Facts,
            item.References,
            item.ReferenceKeys,
            item.Item.Source,
            Day(item.Item.Record?.OpensOn),
        ];

    private static void Mark(
        SqlSession sql,
        int databaseId,
        HarvestMark mark,
        int done,
        int changed,
        DateTimeOffset now
    )
    {
        sql.Run(
            "UPDATE Databases SET Token = $1, RunStarted = $2, RunDone = RunDone + $3, RunChanged = RunChanged + "
                + "$4, RunIsWhole = $5 WHERE Id = $0",
            databaseId,
            mark.Token,
            Moment(mark.RunStarted),
            done,
            changed,
            mark.IsWhole
        );
        if (mark.Token is not null)
            return;
        if (mark.IsWhole)
            sql.Run("UPDATE Databases SET WholeAt = $1, WholeAsked = 0 WHERE Id = $0", databaseId, Moment(now));
        sql.Run(
            "UPDATE Databases SET HarvestedUntil = RunStarted, HarvestedAt = $1, RunStarted = NULL, RunDone = 0, "
                + "RunChanged = 0, RunIsWhole = 0 WHERE Id = $0",
            databaseId,
            Moment(now)
        );
    }

    private static string Moment(DateTimeOffset t) =>
        t.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ss.fffZ", CultureInfo.InvariantCulture);
}
