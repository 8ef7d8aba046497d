using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Store;

/// <summary>Brings the tables of a file up to date.</summary>
public static class Schema
{
    private const string OfEfCore =
            "SELECT name FROM sqlite_master WHERE name IN ('__EFMigrationsLock', '__EFMigrationsHistory')",
        Release = "DELETE FROM __EFMigrationsLock",
        Applied = "SELECT MigrationId FROM __EFMigrationsHistory";

    /// <summary>
    /// Applies the migrations that are pending; asks for none when none is. EF Core guards migrations by a row in the
    /// file itself, which a killed process leaves behind and for which every later one would wait without end. Whoever
    /// calls this holds the data folder alone, so such a row is nobody's and is removed.
    /// </summary>
    /// <remarks>
    /// What is pending is asked in plain SQL: EF Core would first make a model of its own table, which takes as long as all
    /// else that a start asks of the file.
    /// </remarks>
    /// <param name="context">The file.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>Whether anything was pending.</returns>
    public static async Task<bool> BringUpToDate(DbContext context, CancellationToken cancel)
    {
        // One connection throughout, with the functions that carry rows over.
        await context.Database.OpenConnectionAsync(cancel);
        try
        {
            var connection = (SqliteConnection)context.Database.GetDbConnection();
            var tables = await Texts(connection, OfEfCore, cancel);
            if (tables.Contains("__EFMigrationsLock"))
                await Texts(connection, Release, cancel);
            var applied = tables.Contains("__EFMigrationsHistory") ? await Texts(connection, Applied, cancel) : [];
            if (context.Database.GetMigrations().All(applied.Contains))
                return false;
            ActUpgrade.AddTo(connection);
            await context.Database.MigrateAsync(cancel);
            return true;
        }
        finally
        {
            await context.Database.CloseConnectionAsync();
        }
    }

    private static async Task<HashSet<string>> Texts(SqliteConnection connection, string sql, CancellationToken cancel)
    {
        await using var command = connection.CreateCommand();
#pragma warning disable CA2100 // constants of ours
        command.CommandText = sql;
#pragma warning restore CA2100
        await using var reader = await command.ExecuteReaderAsync(cancel);
        var texts = new HashSet<string>(StringComparer.Ordinal);
        while (await reader.ReadAsync(cancel))
            texts.Add(reader.GetString(0));
        return texts;
    }
}
