using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Zendle.Store.Sqlite;

/// <summary>
/// Lets several reads of a context see the store as it was at one moment: in the write-ahead log a reader inside a
/// transaction sees one state, and keeps no writer waiting.
/// </summary>
public sealed class ReadMoment : IAsyncDisposable
{
    private readonly DbContext context;
    private readonly SqliteTransaction transaction;

    private ReadMoment(DbContext context, SqliteTransaction transaction) =>
        (this.context, this.transaction) = (context, transaction);

    /// <summary>Begins the moment; the first read fixes it. Dispose of it when the reads are done.</summary>
    public static async Task<ReadMoment> Of(DbContext context, CancellationToken cancel)
    {
        await context.Database.OpenConnectionAsync(cancel);
        var transaction = ((SqliteConnection)context.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await context.Database.UseTransactionAsync(transaction, cancel);
        return new(context, transaction);
    }

    /// <summary>Ends the moment; nothing was written, so nothing is kept.</summary>
    public async ValueTask DisposeAsync()
    {
        await context.Database.UseTransactionAsync(null);
        await transaction.DisposeAsync();
        await context.Database.CloseConnectionAsync();
    }
}
