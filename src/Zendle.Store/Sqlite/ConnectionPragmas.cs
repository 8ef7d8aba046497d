using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Zendle.Store.Sqlite;

/// <summary>
/// Sets every new connection up: write-ahead log, foreign keys, up to 24 MB of pages in memory, how hard a commit is.
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

    private void SetUp(DbConnection connection)
    {
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // a constant of ours, not input
        command.CommandText =
            "PRAGMA journal_mode=WAL; PRAGMA foreign_keys=ON; PRAGMA busy_timeout=20000; PRAGMA "
            + $"cache_size=-24000; PRAGMA synchronous={synchronous};";
#pragma warning restore CA2100
        command.ExecuteNonQuery();
    }
}
