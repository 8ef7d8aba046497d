using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Tests.Shared;

/// <summary>
/// The tables of a new data folder, made once a run by the real migrations and copied for each host: three hundred
/// hosts would otherwise make the same tables three hundred times. The migrations themselves are tested by hosts that
/// are processes, and by the tests of the store.
/// </summary>
internal static class EmptyFolder
{
    private static readonly Lazy<string> Made = new(Make);

    /// <summary>Puts the two files into a folder that is not there yet.</summary>
    public static void CopyTo(string folder)
    {
        Directory.CreateDirectory(folder);
        foreach (var file in Directory.GetFiles(Made.Value))
            File.Copy(file, Path.Combine(folder, Path.GetFileName(file)));
    }

    private static string Make()
    {
        var folder = Directory.CreateTempSubdirectory("zendle-empty-").FullName;
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(folder, recursive: true);
        using (var services = new ServiceCollection().AddZendleStore(folder).BuildServiceProvider())
        {
            Migrate<ZendleContext>(services);
            Migrate<CorpusContext>(services);
        }
        return folder;
    }

    private static void Migrate<TContext>(ServiceProvider services)
        where TContext : DbContext
    {
        using var context = services.GetRequiredService<IDbContextFactory<TContext>>().CreateDbContext();
        Schema.BringUpToDate(context, CancellationToken.None).GetAwaiter().GetResult();
        context.Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE)");
        context.Database.ExecuteSqlRaw("PRAGMA journal_mode=DELETE");
        Microsoft.Data.Sqlite.SqliteConnection.ClearPool(
            (Microsoft.Data.Sqlite.SqliteConnection)context.Database.GetDbConnection()
        );
    }
}
