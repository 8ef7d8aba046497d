using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Zendle.Store.Sqlite;

/// <summary>
/// Sets every connection up as it is taken: write-ahead log, foreign keys, how hard a commit is, and few pages in memory
/// of its own, for there are many connections and the system keeps the file's pages anyway.
/// </summary>
/// <param name="synchronous">FULL where an acknowledged write must outlive a power cut, NORMAL where it can be fetched
/// again.</param>
public sealed class ConnectionPragmas(string synchronous) : DbConnectionInterceptor
{
    /// <inheritdoc/>
    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData) =>
        SetUp(connection);

    /// <inheritdoc/>
    public override Task ConnectionOpenedAsync(
        DbConnection connection,
        ConnectionEndEventData eventData,
        CancellationToken cancellationToken = default
    )
    {
        SetUp(connection);
        return Task.CompletedTask;
    }

    /// <summary>
    /// Gives a connection room for 24 MB of pages, for one that writes much; whoever takes it next gives them back.
    /// </summary>
    public static void Widen(DbConnection connection)
    {
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA cache_size=-24000;";
        command.ExecuteNonQuery();
    }

    private void SetUp(DbConnection connection)
    {
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // a constant of ours, not input
        command.CommandText =
            "PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON; PRAGMA busy_timeout=20000; PRAGMA "
            + $"cache_size=-2000; PRAGMA synchronous={synchronous};";
#pragma warning restore CA2100
        command.ExecuteNonQuery();
    }
}
