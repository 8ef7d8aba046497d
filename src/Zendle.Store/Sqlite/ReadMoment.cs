using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Zendle.Store.Sqlite;

/// <summary>Lets several reads see the store as it was at one moment.</summary>
public static class ReadMoment
{
    /// <summary>Begins a deferred transaction: in the write-ahead log a reader in one sees one state, and keeps no writer waiting. Dispose of it when the reads are done.</summary>
    public static async Task<IDbContextTransaction> OneMoment(this DbContext context, CancellationToken cancel)
    {
        await context.Database.OpenConnectionAsync(cancel);
        var transaction = ((SqliteConnection)context.Database.GetDbConnection()).BeginTransaction(deferred: true);
        return (await context.Database.UseTransactionAsync(transaction, cancel))!;
    }
}
