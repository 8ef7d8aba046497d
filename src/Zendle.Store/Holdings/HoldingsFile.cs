using System.Globalization;
using Microsoft.Data.Sqlite;
using Zendle.Core.Holdings;
using Zendle.Core.Records;

namespace Zendle.Store.Holdings;

/// <summary>
/// The holdings of one library: an SQLite file of its own, written whole and never changed. A line is found by its
/// identifiers in O(log lines).
/// </summary>
public sealed class HoldingsFile : IDisposable
{
    private readonly SqliteConnection connection;
    private readonly SqliteCommand command;
    private readonly SqliteParameter key;
    private readonly Lock gate = new();

    private HoldingsFile(string path)
    {
        connection = Connect(path, SqliteOpenMode.ReadOnly);
        command = connection.CreateCommand();
        command.CommandText = """
            SELECT Title, IsBook, FirstDate, FirstVolume, FirstIssue, LastDate, LastVolume, LastIssue, Embargo, Depth, Address
            FROM Keys JOIN Lines ON Lines.Id = Keys.Line WHERE Keys.Key = $key ORDER BY Lines.Id
            """;
        key = command.Parameters.Add("$key", SqliteType.Integer);
    }

    /// <summary>Opens a file.</summary>
    public static HoldingsFile Open(string path) => new(path);

    private static SqliteConnection Connect(string path, SqliteOpenMode mode)
    {
        var made = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = path,
                Mode = mode,
                Pooling = false,
            }.ToString()
        );
        made.Open();
        return made;
    }

    /// <summary>The lines that name an identifier, as they stand in the file; see <see cref="HoldingKey"/>.</summary>
    public IReadOnlyList<HoldingLine> Find(long identifier)
    {
        lock (gate)
        {
            key.Value = identifier;
            using var reader = command.ExecuteReader();
            var found = new List<HoldingLine>();
            while (reader.Read())
                found.Add(
                    new()
                    {
                        Title = reader.GetString(0),
                        Keys = [identifier],
                        IsBook = reader.GetBoolean(1),
                        First = Edge(reader, 2),
                        Last = Edge(reader, 5),
                        Embargo = Embargo.Read(reader.GetString(8)),
                        EmbargoCode = reader.GetString(8),
                        Depth = (HoldingDepth)reader.GetInt32(9),
                        Address = reader.IsDBNull(10) ? null : reader.GetString(10),
                    }
                );
            return found;
        }
    }

    private static CoverageEdge Edge(SqliteDataReader reader, int from) =>
        new(
            reader.IsDBNull(from) ? null : PartialDate.Read(reader.GetString(from)),
            reader.IsDBNull(from + 1) ? null : reader.GetInt32(from + 1),
            reader.IsDBNull(from + 2) ? null : reader.GetInt32(from + 2)
        );

    /// <summary>Writes a file.</summary>
    /// <param name="path">Where; what was there is replaced.</param>
    /// <param name="lines">The lines; taken as they come.</param>
    /// <param name="cancel">Stops; the file is of no use then.</param>
    /// <returns>How many lines.</returns>
    public static int Write(string path, IEnumerable<HoldingLine> lines, CancellationToken cancel)
    {
        File.Delete(path);
        using var connection = Connect(path, SqliteOpenMode.ReadWriteCreate);
        void Run(string sql)
        {
            using var command = connection.CreateCommand();
            command.CommandText = sql;
            command.ExecuteNonQuery();
        }
        // It is put in place when it is whole, so that nothing has to be undone.
        Run("PRAGMA journal_mode = OFF; PRAGMA synchronous = OFF");
        Run(
            """
            CREATE TABLE Lines (Id INTEGER PRIMARY KEY, Title TEXT NOT NULL, IsBook INTEGER NOT NULL, FirstDate TEXT,
              FirstVolume INTEGER, FirstIssue INTEGER, LastDate TEXT, LastVolume INTEGER, LastIssue INTEGER,
              Embargo TEXT NOT NULL, Depth INTEGER NOT NULL, Address TEXT)
            """
        );
        Run("CREATE TABLE Keys (Key INTEGER NOT NULL, Line INTEGER NOT NULL, PRIMARY KEY (Key, Line)) WITHOUT ROWID");
        using var transaction = connection.BeginTransaction();
        using var command = connection.CreateCommand();
        command.Transaction = transaction;
        command.CommandText = "INSERT INTO Lines VALUES ($0, $1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)";
        for (var i = 0; i < 12; i++)
            command.Parameters.Add(new() { ParameterName = string.Create(CultureInfo.InvariantCulture, $"${i}") });
        var (count, keys) = (0, new List<(long Key, int Line)>());
        foreach (var line in lines)
        {
            cancel.ThrowIfCancellationRequested();
            count++;
            object?[] values =
            [
                count,
                line.Title,
                line.IsBook,
                Text(line.First.Date),
                line.First.Volume,
                line.First.Issue,
                Text(line.Last.Date),
                line.Last.Volume,
                line.Last.Issue,
                line.EmbargoCode,
                (int)line.Depth,
                line.Address,
            ];
            for (var i = 0; i < values.Length; i++)
                command.Parameters[i].Value = values[i] ?? DBNull.Value;
            command.ExecuteNonQuery();
            foreach (var key in line.Keys)
                keys.Add((key, count));
        }
        // In the order of the table they are put at its end one by one, wherever the lines stood.
        keys.Sort();
        command.CommandText = "INSERT INTO Keys VALUES ($0, $1)";
        while (command.Parameters.Count > 2)
            command.Parameters.RemoveAt(2);
        foreach (var (key, line) in keys)
        {
            (command.Parameters[0].Value, command.Parameters[1].Value) = (key, line);
            command.ExecuteNonQuery();
        }
        transaction.Commit();
        return count;
    }

    private static string? Text(PartialDate? date) =>
        date is not { } d ? null
        : d.Month == 0 ? string.Create(CultureInfo.InvariantCulture, $"{d.Year:0000}")
        : d.Day == 0 ? string.Create(CultureInfo.InvariantCulture, $"{d.Year:0000}-{d.Month:00}")
        : string.Create(CultureInfo.InvariantCulture, $"{d.Year:0000}-{d.Month:00}-{d.Day:00}");

    /// <inheritdoc/>
    public void Dispose()
    {
        command.Dispose();
        connection.Dispose();
    }
}
