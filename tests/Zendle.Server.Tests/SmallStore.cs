using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store;
using Zendle.Store.Corpus;

namespace Zendle.Server.Tests;

/// <summary>An empty corpus of two databases on a real SQLite file.</summary>
public sealed class SmallStore : IAsyncDisposable
{
    public static readonly HarvestMark Mark = new("more", DateTimeOffset.UnixEpoch);
    private readonly string folder = Directory.CreateTempSubdirectory("zendle-store-").FullName;
    private ServiceProvider services = null!;

    public CorpusReader Reader => services.GetRequiredService<CorpusReader>();

    public async Task Open()
    {
        services = new ServiceCollection().AddZendleStore(folder).BuildServiceProvider();
        await using var context = Context();
        await Schema.BringUpToDate(context, CancellationToken.None);
        foreach (var name in new[] { "one", "two" })
            context.Databases.Add(
                new()
                {
                    Name = name,
                    Address = "http://x.example/" + name,
                    Format = "mods",
                    Granularity = "YYYY-MM-DD",
                }
            );
        await context.SaveChangesAsync();
    }

    public CorpusContext Context() => services.GetRequiredService<IDbContextFactory<CorpusContext>>().CreateDbContext();

    /// <summary>A writer that remembers nothing yet.</summary>
    public CorpusWriter NewWriter() => ActivatorUtilities.CreateInstance<CorpusWriter>(services);

    public async ValueTask DisposeAsync()
    {
        await services.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(folder, recursive: true);
    }
}
