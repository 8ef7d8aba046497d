using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>A record as it came from a harvest.</summary>
/// <param name="Identifier">OAI identifier.</param>
/// <param name="Datestamp">OAI datestamp.</param>
/// <param name="Record">The record; null when the database has deleted it.</param>
/// <param name="Source">The original XML.</param>
public sealed record HarvestedRecord(string Identifier, DateTimeOffset Datestamp, Record? Record, string Source);

/// <summary>Where a harvest stands after a page; written in the same transaction as the page.</summary>
/// <param name="Token">Resumption token; null when the list is complete.</param>
/// <param name="RunStarted">First responseDate of the run.</param>
public sealed record HarvestMark(string? Token, DateTimeOffset RunStarted);

/// <summary>What a page changed.</summary>
/// <param name="Sequence">The store's change sequence after it.</param>
/// <param name="Changed">Records that are new or changed, by id; null for deleted ones.</param>
public sealed record PageResult(long Sequence, IReadOnlyList<(int Id, Record? Record)> Changed);

/// <summary>
/// Writes harvested pages by prepared statements: records, keys, works and the harvest's mark in one transaction, so that a kill at
/// any moment leaves whole pages only.
/// </summary>
public sealed class CorpusWriter(IDbContextFactory<CorpusContext> contexts)
{
    private static readonly SemaphoreSlim OneWriter = new(1, 1);

    /// <summary>Writes one page. A record whose datestamp and content are as before changes nothing.</summary>
    public async Task<PageResult> Write(int databaseId, IReadOnlyList<HarvestedRecord> page, HarvestMark mark, DateTimeOffset now, CancellationToken cancel)
    {
        await OneWriter.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            await context.Database.OpenConnectionAsync(cancel);
            var connection = (SqliteConnection)context.Database.GetDbConnection();
            await using var transaction = connection.BeginTransaction(deferred: false);
            using var session = new WriteSession(connection, transaction);
            var result = session.Apply(databaseId, page);
            session.Mark(databaseId, mark, page.Count, result.Changed.Count, now);
            await transaction.CommitAsync(cancel);
            return result;
        }
        finally { OneWriter.Release(); }
    }

    private sealed class WriteSession(SqliteConnection connection, SqliteTransaction transaction) : IDisposable
    {
        private readonly Dictionary<string, SqliteCommand> prepared = [];

        public PageResult Apply(int databaseId, IReadOnlyList<HarvestedRecord> page)
        {
            var sequence = Convert.ToInt64(Scalar("SELECT COALESCE(MAX(Sequence), 0) + 1 FROM Records"), System.Globalization.CultureInfo.InvariantCulture);
            var changed = new Dictionary<int, Record?>();
            var affectedKeys = new HashSet<long>();
            var affectedWorks = new HashSet<int>();
            foreach (var item in page)
                if (Upsert(databaseId, item, sequence, affectedKeys, affectedWorks) is { } id) changed[id] = item.Record;
            if (changed.Count > 0) Merge(Closure(changed.Keys, affectedKeys, affectedWorks));
            return new(changed.Count > 0 ? sequence : sequence - 1, [.. changed.Select(c => (c.Key, c.Value))]);
        }

        private int? Upsert(int databaseId, HarvestedRecord item, long sequence, HashSet<long> affectedKeys, HashSet<int> affectedWorks)
        {
            var source = RecordCodec.Source(item.Source);
            var (id, isNew) = (0, true);
            using (var reader = Query("SELECT Id, Deleted, WorkId, Source FROM Records WHERE DatabaseId = $0 AND Identifier = $1", databaseId, item.Identifier))
            {
                if (reader.Read())
                {
                    (id, isNew) = (reader.GetInt32(0), false);
                    var wasDeleted = reader.GetBoolean(1);
                    if (wasDeleted && item.Record is null) return null;
                    if (!wasDeleted && item.Record is not null && reader.GetFieldValue<byte[]>(3).AsSpan().SequenceEqual(source)) return null;
                    if (reader.GetInt32(2) is > 0 and var work) affectedWorks.Add(work);
                }
            }
            if (isNew && item.Record is null) return null;
            foreach (var key in Numbers("SELECT Key FROM RecordKeys WHERE RecordId = $0", id)) affectedKeys.Add(key);
            if (!isNew) Run("DELETE FROM RecordKeys WHERE RecordId = $0", id);
            var r = item.Record;
            var titleKey = r is null ? 0 : unchecked((long)MergeKeys.TitleAndPerson(r.Title, r.People.Count > 0 ? r.People[0].Family : null));
            object?[] values =
            [
                databaseId, item.Identifier, Moment(item.Datestamp), r is null, sequence, r?.Doi, titleKey, r?.Year, (int)(r?.Type ?? 0),
                r is null || r.Versions.Count == 0 ? null : string.Join('\n', r.Versions.Select(v => v.Doi)),
                r is null ? Array.Empty<byte>() : RecordCodec.Facts(r), r is null ? Array.Empty<byte>() : RecordCodec.References(r.References),
                r is null ? Array.Empty<byte>() : RecordCodec.ReferenceKeys(r.References), source,
            ];
            if (isNew)
                id = Convert.ToInt32(Scalar("""
                    INSERT INTO Records (DatabaseId, Identifier, Datestamp, Deleted, Sequence, Doi, TitleKey, Year, Type, VersionDois, Facts, "References", ReferenceKeys, Source, WorkId)
                    VALUES ($0, $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, 0) RETURNING Id
                    """, values), System.Globalization.CultureInfo.InvariantCulture);
            else
                Run("""
                    UPDATE Records SET DatabaseId = $0, Identifier = $1, Datestamp = $2, Deleted = $3, Sequence = $4, Doi = $5, TitleKey = $6, Year = $7, Type = $8,
                    VersionDois = $9, Facts = $10, "References" = $11, ReferenceKeys = $12, Source = $13 WHERE Id = $14
                    """, [.. values, id]);
            foreach (var key in Keys(r, titleKey))
            {
                Run("INSERT OR IGNORE INTO RecordKeys (Key, RecordId) VALUES ($0, $1)", key, id);
                affectedKeys.Add(key);
            }
            return id;
        }

        private static IEnumerable<long> Keys(Record? record, long titleKey)
        {
            if (record is null) yield break;
            if (titleKey != 0) yield return titleKey;
            if (record.Doi is not null) yield return unchecked((long)MergeKeys.Doi(record.Doi));
            foreach (var version in record.Versions) yield return unchecked((long)MergeKeys.Doi(version.Doi));
        }

        /// <summary>Every record that shares, over any number of links, a key or a work with a changed one. O(size of the closure).</summary>
        private HashSet<int> Closure(IEnumerable<int> changed, HashSet<long> keys, HashSet<int> works)
        {
            var records = new HashSet<int>();
            var waiting = new Queue<int>(changed);
            var (seenKeys, seenWorks) = (new HashSet<long>(), new HashSet<int>());
            foreach (var key in keys) VisitKey(key);
            foreach (var work in works) VisitWork(work);
            while (waiting.TryDequeue(out var id))
            {
                if (!records.Add(id)) continue;
                foreach (var key in Numbers("SELECT Key FROM RecordKeys WHERE RecordId = $0", id)) VisitKey(key);
                if (Scalar("SELECT WorkId FROM Records WHERE Id = $0", id) is long work and > 0) VisitWork((int)work);
            }
            return records;

            void VisitKey(long key)
            {
                if (seenKeys.Add(key)) foreach (var r in Numbers("SELECT RecordId FROM RecordKeys WHERE Key = $0", key)) waiting.Enqueue((int)r);
            }

            void VisitWork(int work)
            {
                if (seenWorks.Add(work)) foreach (var r in Numbers("SELECT Id FROM Records WHERE WorkId = $0", work)) waiting.Enqueue((int)r);
            }
        }

        private void Merge(HashSet<int> ids)
        {
            var candidates = new List<MergeCandidate>(ids.Count);
            var before = new Dictionary<int, int>();
            foreach (var id in ids)
            {
                using var reader = Query("SELECT WorkId, Doi, TitleKey, Year, Type, VersionDois, Deleted FROM Records WHERE Id = $0", id);
                if (!reader.Read()) continue;
                before[id] = reader.GetInt32(0);
                if (reader.GetBoolean(6)) continue;
                candidates.Add(new(id, reader.GetInt32(0), reader.IsDBNull(1) ? null : reader.GetString(1), unchecked((ulong)reader.GetInt64(2)),
                    reader.IsDBNull(3) ? null : reader.GetInt32(3), (DocumentType)reader.GetInt32(4), reader.IsDBNull(5) ? [] : reader.GetString(5).Split('\n')));
            }
            foreach (var work in before.Values.Where(w => w > 0).Distinct()) Run("DELETE FROM Evidence WHERE WorkId = $0", work);
            foreach (var id in before.Keys.Except(candidates.Select(c => c.RecordId))) Run("UPDATE Records SET WorkId = 0 WHERE Id = $0", id);
            foreach (var merged in RecordMerger.Merge(candidates))
            {
                var work = merged.WorkId != 0 ? merged.WorkId
                    : Convert.ToInt32(Scalar("INSERT INTO Works (RedirectTo) VALUES (NULL) RETURNING Id"), System.Globalization.CultureInfo.InvariantCulture);
                if (merged.WorkId != 0) Run("UPDATE Works SET RedirectTo = NULL WHERE Id = $0", work);
                foreach (var gone in merged.Absorbed) Run("UPDATE Works SET RedirectTo = $0 WHERE Id = $1 OR RedirectTo = $1", work, gone);
                foreach (var record in merged.Records) if (before[record] != work) Run("UPDATE Records SET WorkId = $0 WHERE Id = $1", work, record);
                foreach (var e in merged.Evidence) Run("INSERT OR REPLACE INTO Evidence (First, Second, WorkId, Reason) VALUES ($0, $1, $2, $3)", e.First, e.Second, work, (int)e.Reason);
            }
        }

        public void Mark(int databaseId, HarvestMark mark, int done, int changed, DateTimeOffset now)
        {
            Run("UPDATE Databases SET Token = $1, RunStarted = $2, RunDone = RunDone + $3, RunChanged = RunChanged + $4 WHERE Id = $0",
                databaseId, mark.Token, Moment(mark.RunStarted), done, changed);
            if (mark.Token is null)
                Run("UPDATE Databases SET HarvestedUntil = RunStarted, HarvestedAt = $1, RunStarted = NULL, RunDone = 0, RunChanged = 0 WHERE Id = $0", databaseId, Moment(now));
        }

        private static string Moment(DateTimeOffset t) => t.UtcDateTime.ToString("yyyy-MM-ddTHH:mm:ss.fffZ", System.Globalization.CultureInfo.InvariantCulture);

        private SqliteCommand Command(string sql, params ReadOnlySpan<object?> values)
        {
            if (!prepared.TryGetValue(sql, out var command))
            {
                prepared[sql] = command = connection.CreateCommand();
                command.Transaction = transaction;
#pragma warning disable CA2100 // every statement is a constant of this class; values travel as parameters
                command.CommandText = sql;
#pragma warning restore CA2100
                for (var i = 0; i < values.Length; i++) command.Parameters.AddWithValue("$" + i, DBNull.Value);
            }
            for (var i = 0; i < values.Length; i++) command.Parameters[i].Value = values[i] ?? DBNull.Value;
            return command;
        }

        private void Run(string sql, params ReadOnlySpan<object?> values) => Command(sql, values).ExecuteNonQuery();

        private object? Scalar(string sql, params ReadOnlySpan<object?> values) => Command(sql, values).ExecuteScalar();

        private SqliteDataReader Query(string sql, params ReadOnlySpan<object?> values) => Command(sql, values).ExecuteReader();

        private List<long> Numbers(string sql, object value)
        {
            var numbers = new List<long>();
            using var reader = Query(sql, value);
            while (reader.Read()) numbers.Add(reader.GetInt64(0));
            return numbers;
        }

        public void Dispose()
        {
            foreach (var command in prepared.Values) command.Dispose();
        }
    }
}
