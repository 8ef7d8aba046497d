using Microsoft.Data.Sqlite;

namespace Zendle.Store.Sqlite;

/// <summary>
/// A SQLite file that stays open. SQLite takes the write-ahead log and its shared index away with the last connection
/// and makes them anew for the next, which needs room on the disk: held open, what was stored can be read even when the
/// disk is full.
/// </summary>
public sealed class HeldFile : IDisposable
{
    private readonly SqliteConnection connection;

    /// <summary>Opens a file, and its write-ahead log with it.</summary>
    /// <param name="file">Path of a SQLite file that is there.</param>
    /// <exception cref="SqliteException">It is missing, no such file, or there is no room for its log.</exception>
    public HeldFile(string file)
    {
        connection = new(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadWrite,
                Pooling = false,
            }.ToString()
        );
        try
        {
            connection.Open();
            using var command = connection.CreateCommand();
            // The first reading is what opens the log.
            command.CommandText =
                "PRAGMA busy_timeout=500; PRAGMA cache_size=-64; PRAGMA synchronous=FULL; "
                + "SELECT count(*) FROM sqlite_schema;";
            command.ExecuteNonQuery();
        }
        catch
        {
            connection.Dispose();
            throw;
        }
    }

    /// <summary>
    /// Moves what lies in the write-ahead log into the file, so that a copy of the file alone has it, and empties the
    /// log as far as nobody reads older states.
    /// </summary>
    /// <returns>Whether the log is empty now.</returns>
    /// <exception cref="SqliteException">The file is gone or cannot be written.</exception>
    public bool WriteBack()
    {
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE);";
        using var reader = command.ExecuteReader();
        // Its answer: whether somebody was in the way, the pages of the log, those that were written back.
        return reader.Read() && reader.GetInt32(0) == 0;
    }

    /// <inheritdoc/>
    public void Dispose() => connection.Dispose();
}
