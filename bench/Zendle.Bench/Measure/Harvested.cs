using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Core.Records;
using Zendle.Store;
using Zendle.Store.Corpus;
using Zendle.Store.Sqlite;

namespace Zendle.Bench.Measure;

/// <summary>A world harvested into a corpus of its own, the way the server does it, page by page.</summary>
internal sealed class Harvested : IAsyncDisposable
{
    private readonly ServiceProvider services;

    private Harvested(ServiceProvider services) => this.services = services;

    /// <summary>Reads what was harvested.</summary>
    public CorpusReader Reader => services.GetRequiredService<CorpusReader>();

    /// <summary>Writes more.</summary>
    public CorpusWriter Writer => services.GetRequiredService<CorpusWriter>();

    /// <summary>The corpus file.</summary>
    public Task<CorpusContext> Corpus() =>
        services.GetRequiredService<IDbContextFactory<CorpusContext>>().CreateDbContextAsync();

    /// <summary>Database id and key by turn.</summary>
    public Dictionary<int, string> Keys { get; } = [];

    public static async Task<Harvested> From(WorldFiles world, string folder)
    {
        Directory.CreateDirectory(folder);
        var harvested = new Harvested(new ServiceCollection().AddZendleStore(folder).BuildServiceProvider());
        await using (var context = await harvested.Corpus())
        {
            await Schema.BringUpToDate(context, CancellationToken.None);
            var trust = 0;
            foreach (var key in world.Databases)
            {
                var row = new DatabaseRow
                {
                    Name = key,
                    Address = $"http://outside.example/{key}/oai",
                    Format = "mods",
                    Granularity = "YYYY-MM-DDThh:mm:ssZ",
                    Trust = trust++,
                };
                context.Databases.Add(row);
                await context.SaveChangesAsync();
                harvested.Keys[row.Id] = key;
            }
        }
        foreach (var (id, key) in harvested.Keys)
        foreach (var page in world.Pages(id, key))
            await harvested.Writer.Write(
                id,
                page.Records,
                new(page.Token, page.ResponseDate),
                DateTimeOffset.UnixEpoch,
                default
            );
        return harvested;
    }

    /// <summary>All records with their ids, works and references.</summary>
    public async Task<List<HarvestedEntry>> Entries()
    {
        await using var context = await Corpus();
        var rows = await context
            .Records.AsNoTracking()
            .Where(r => !r.Deleted)
            .OrderBy(r => r.Id)
            .Select(r => new
            {
                r.Id,
                r.WorkId,
                r.DatabaseId,
                r.Identifier,
                r.Facts,
                r.References,
            })
            .ToListAsync();
        return
        [
            .. rows.Select(r => new HarvestedEntry(
                r.Id,
                r.WorkId,
                r.DatabaseId,
                new(Keys[r.DatabaseId], r.Identifier),
                RecordCodec.Facts(r.Facts),
                RecordCodec.References(r.References)
            )),
        ];
    }

    public async ValueTask DisposeAsync()
    {
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        await services.DisposeAsync();
    }
}

/// <summary>A record as it stands in the corpus.</summary>
internal sealed record HarvestedEntry(
    int Id,
    int WorkId,
    int DatabaseId,
    RecordAt At,
    Record Record,
    IReadOnlyList<Reference> References
);
