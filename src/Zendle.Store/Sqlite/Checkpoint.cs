using Microsoft.Data.Sqlite;

namespace Zendle.Store.Sqlite;

/// <summary>Moves what lies in a write-ahead log into its file, so that a copy of the file alone has it.</summary>
public static class Checkpoint
{
    /// <summary>Writes all of the log into the file and empties it, as far as nobody reads older states.</summary>
    /// <param name="file">Path of the SQLite file.</param>
    /// <returns>Whether the log is empty now.</returns>
    public static bool Of(string file)
    {
        if (!File.Exists(file))
            return true;
        using var connection = new SqliteConnection(
            new SqliteConnectionStringBuilder
            {
                DataSource = file,
                Mode = SqliteOpenMode.ReadWrite,
                Pooling = false,
            }.ToString()
        );
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA busy_timeout=500; PRAGMA synchronous=FULL; PRAGMA wal_checkpoint(TRUNCATE);";
        using var reader = command.ExecuteReader();
        // The answer of the checkpoint: whether it was kept from its end, the pages of the log, those that were written
        // back.
        do
        {
            while (reader.Read())
                if (reader.FieldCount == 3)
                    return reader.GetInt32(0) == 0;
        } while (reader.NextResult());
        return false;
    }
}
