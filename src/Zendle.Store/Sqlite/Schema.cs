using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Store.Sqlite;

/// <summary>Brings the tables of a file up to date.</summary>
public static class Schema
{
    /// <summary>
    /// Applies the migrations that are pending; asks for none when none is. EF Core guards migrations by a row in the
    /// file itself, which a killed process leaves behind and for which every later one would wait without end. Whoever
    /// calls this holds the data folder alone, so such a row is nobody's and is removed.
    /// </summary>
    /// <param name="context">The file.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>Whether anything was pending.</returns>
    public static async Task<bool> BringUpToDate(DbContext context, CancellationToken cancel)
    {
        var isGuarded =
            await context
                .Database.SqlQuery<int>(
                    $"SELECT COUNT(*) AS Value FROM sqlite_master WHERE name = '__EFMigrationsLock'"
                )
                .SingleAsync(cancel) > 0;
        if (isGuarded)
            await context.Database.ExecuteSqlAsync($"DELETE FROM __EFMigrationsLock", cancel);
        if (!(await context.Database.GetPendingMigrationsAsync(cancel)).Any())
            return false;
        // One connection throughout, with the functions that carry rows over.
        await context.Database.OpenConnectionAsync(cancel);
        try
        {
            ActUpgrade.AddTo((SqliteConnection)context.Database.GetDbConnection());
            await context.Database.MigrateAsync(cancel);
        }
        finally
        {
            await context.Database.CloseConnectionAsync();
        }
        return true;
    }
}
