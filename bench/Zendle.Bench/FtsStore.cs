using Microsoft.Data.Sqlite;
using Zendle.Core.Records;

namespace Zendle.Bench;

/// <summary>The same records in SQLite FTS5, with the same answers in SQL: the yardstick.</summary>
public sealed class FtsStore : IDisposable
{
    private readonly SqliteConnection connection;

    /// <summary>Makes an empty store in a file.</summary>
    public FtsStore(string file)
    {
        connection = new($"Data Source={file}");
        connection.Open();
        Run(
            "PRAGMA journal_mode=OFF; PRAGMA synchronous=OFF; PRAGMA cache_size=-400000; PRAGMA "
                + "mmap_size=2000000000; PRAGMA temp_store=MEMORY;"
        );
        Run(
            "CREATE VIRTUAL TABLE words USING fts5(title, abstract, keywords, content='', tokenize='unicode61'); "
                + "CREATE TABLE records (id INTEGER PRIMARY KEY, work INTEGER, database INTEGER, year INTEGER, type "
                + "INTEGER);"
        );
    }

    /// <summary>Puts all records in.</summary>
    public void Fill(IEnumerable<SyntheticRecord> records)
    {
        using var transaction = connection.BeginTransaction();
        using var words = connection.CreateCommand();
        words.CommandText = "INSERT INTO words (rowid, title, abstract, keywords) VALUES ($0, $1, $2, $3)";
        using var facts = connection.CreateCommand();
        facts.CommandText = "INSERT INTO records VALUES ($0, $1, $2, $3, $4)";
        for (var i = 0; i < 5; i++)
        {
            if (i < 4)
                words.Parameters.AddWithValue("$" + i, 0);
            facts.Parameters.AddWithValue("$" + i, 0);
        }
        foreach (var (id, work, database, r) in records)
        {
            (
                words.Parameters[0].Value,
                words.Parameters[1].Value,
                words.Parameters[2].Value,
                words.Parameters[3].Value
            ) = (id, r.Title, r.Abstract, string.Join(" . ", r.Keywords));
            words.ExecuteNonQuery();
            (
                facts.Parameters[0].Value,
                facts.Parameters[1].Value,
                facts.Parameters[2].Value,
                facts.Parameters[3].Value,
                facts.Parameters[4].Value
            ) = (id, work, database, r.Year ?? 0, (int)r.Type);
            facts.ExecuteNonQuery();
        }
        transaction.Commit();
        Run("INSERT INTO words (words) VALUES ('optimize')");
    }

    /// <summary>Ledger, count after narrowing by years and type, and the first page by rank.</summary>
    public (int Records, int Works, int Narrowed, int Page) Answer(string match, int fromYear, DocumentType type)
    {
        Run("DROP TABLE IF EXISTS temp.hits");
        Run(
            "CREATE TEMP TABLE hits AS SELECT r.id, r.work, r.database, r.year, r.type FROM words w JOIN records "
                + "r ON r.id = w.rowid WHERE words MATCH $m",
            match
        );
        var records = Number("SELECT count(*) FROM temp.hits");
        using (var ledger = connection.CreateCommand())
        {
            ledger.CommandText =
                "SELECT database, count(*), count(DISTINCT work), sum(only) FROM (SELECT database, work, CASE "
                + "WHEN count(database) OVER (PARTITION BY work) = 1 THEN 1 ELSE 0 END AS only FROM (SELECT "
                + "DISTINCT work, database FROM temp.hits)) GROUP BY database";
            using var reader = ledger.ExecuteReader();
            while (reader.Read()) { }
        }
        var works = Number("SELECT count(DISTINCT work) FROM temp.hits");
        var narrowed = Number(
            $"SELECT count(*) FROM (SELECT work FROM temp.hits GROUP BY work HAVING max(year >= {fromYear}) AND max(type = {(int)type}))"
        );
        using var page = connection.CreateCommand();
        page.CommandText =
            "SELECT r.work, min(w.rank) FROM words w JOIN records r ON r.id = w.rowid WHERE words MATCH $m "
            + $"AND w.rank MATCH 'bm25(3.0, 1.0, 2.0)' AND r.year >= {fromYear} AND r.type = {(int)type} "
            + "GROUP BY r.work ORDER BY 2, 1 LIMIT 50";
        page.Parameters.AddWithValue("$m", match);
        var shown = 0;
        using (var reader = page.ExecuteReader())
            while (reader.Read())
                shown++;
        return (records, works, narrowed, shown);
    }

    /// <summary>Matching records, works, and works by database.</summary>
    public (int Records, int Works, int[] Databases) Counts(string match)
    {
        Run("DROP TABLE IF EXISTS temp.hits");
        Run(
            "CREATE TEMP TABLE hits AS SELECT r.work, r.database FROM words w JOIN records r ON r.id = w.rowid WHERE words MATCH $m",
            match
        );
        int[] databases =
        [
            .. SyntheticCorpus
                .Databases.Keys.Order()
                .Select(d => Number($"SELECT count(DISTINCT work) FROM temp.hits WHERE database = {d}")),
        ];
        Number("SELECT count(*) FROM (SELECT work FROM temp.hits GROUP BY work HAVING count(DISTINCT database) = 1)");
        return (
            Number("SELECT count(*) FROM temp.hits"),
            Number("SELECT count(DISTINCT work) FROM temp.hits"),
            databases
        );
    }

    private int Number(string sql)
    {
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // numbers of ours
        command.CommandText = sql;
#pragma warning restore CA2100
        return Convert.ToInt32(command.ExecuteScalar(), System.Globalization.CultureInfo.InvariantCulture);
    }

    private void Run(string sql, string? match = null)
    {
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // constants of ours
        command.CommandText = sql;
#pragma warning restore CA2100
        if (match is not null)
            command.Parameters.AddWithValue("$m", match);
        command.ExecuteNonQuery();
    }

    /// <summary>Closes the file.</summary>
    public void Dispose() => connection.Dispose();
}
