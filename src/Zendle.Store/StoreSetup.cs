using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store.Corpus;
using Zendle.Store.Files;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Store;

/// <summary>Puts the two files of a data folder to use.</summary>
public static class StoreSetup
{
    /// <summary>Adds both contexts, the writer, the reader and the vault of files.</summary>
    public static IServiceCollection AddZendleStore(this IServiceCollection services, string folder)
    {
        services.AddPooledDbContextFactory<ZendleContext>(o => Use(o, Path.Combine(folder, "zendle.db"), "FULL"));
        services.AddScoped(p => p.GetRequiredService<IDbContextFactory<ZendleContext>>().CreateDbContext());
        services.AddPooledDbContextFactory<CorpusContext>(o => Use(o, Path.Combine(folder, "corpus.db"), "NORMAL"));
        return services
            .AddSingleton<CorpusWriter>()
            .AddSingleton<CorpusReader>()
            .AddSingleton(_ => new FileVault(folder));
    }

    /// <summary>Options for one file.</summary>
    public static DbContextOptionsBuilder Use(DbContextOptionsBuilder options, string file, string synchronous) =>
        options.UseSqlite($"Data Source={file};Pooling=True").AddInterceptors(new ConnectionPragmas(synchronous));
}

/// <summary>For the migrations tool only.</summary>
public sealed class ZendleContextDesign : IDesignTimeDbContextFactory<ZendleContext>
{
    /// <inheritdoc/>
    public ZendleContext CreateDbContext(string[] args) =>
        new(
            (DbContextOptions<ZendleContext>)
                StoreSetup.Use(new DbContextOptionsBuilder<ZendleContext>(), "design.db", "FULL").Options
        );
}

/// <summary>For the migrations tool only.</summary>
public sealed class CorpusContextDesign : IDesignTimeDbContextFactory<CorpusContext>
{
    /// <inheritdoc/>
    public CorpusContext CreateDbContext(string[] args) =>
        new(
            (DbContextOptions<CorpusContext>)
                StoreSetup.Use(new DbContextOptionsBuilder<CorpusContext>(), "design.db", "NORMAL").Options
        );
}
