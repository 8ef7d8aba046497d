using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Demo;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server;

/// <summary>Brings the store up to date and the index up, then seeds the demo. Until it is done <c>/health</c> answers 503.</summary>
internal sealed class StartUp(IServiceProvider services, CorpusService corpus, CorpusWriter writer, ZendleOptions options, FirstAccountCode code, ILogger<StartUp> log, IHostApplicationLifetime lifetime) : BackgroundService
{
    /// <summary>Whether everything is there.</summary>
    public bool IsReady { get; private set; }

    /// <summary>Whether both files and the index are up, so that jobs can run.</summary>
    public bool IsStoreReady { get; private set; }

    /// <summary>What keeps it from being ready, in a sentence; null for nothing.</summary>
    public string? Fault { get; private set; }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        try
        {
            // The two files know nothing of each other, so both are brought up at once.
            await Task.WhenAll(Task.Run(() => Migrate<ZendleContext>(stoppingToken), stoppingToken), Task.Run(async () =>
            {
                await Migrate<CorpusContext>(stoppingToken);
                if (await writer.BringUpToDate(stoppingToken) is > 0 and var rejoined) log.LogInformation("{Records} records were joined anew.", rejoined);
                await corpus.Start(stoppingToken);
            }, stoppingToken));
            IsStoreReady = true;
            var seeder = services.GetRequiredService<DemoSeeder>();
            var isSeeded = options.Demo && await seeder.Seed(stoppingToken);
            if (!options.Demo) await OfferFirstAccount(stoppingToken);
            IsReady = true;
            if (options.Demo && !isSeeded) await seeder.ArrangeAgain(stoppingToken);
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            Fault = e is IOException or UnauthorizedAccessException || e.Message.Contains("disk", StringComparison.OrdinalIgnoreCase)
                ? $"The data folder {options.Data} cannot be used: {e.Message}" : e.Message;
            log.LogCritical(e, "Zendle could not start.");
            Environment.ExitCode = 1;
            lifetime.StopApplication();
        }
    }

    private async Task Migrate<TContext>(CancellationToken cancel) where TContext : DbContext
    {
        await using var context = await services.GetRequiredService<IDbContextFactory<TContext>>().CreateDbContextAsync(cancel);
        await context.Database.MigrateAsync(cancel);
    }

    private async Task OfferFirstAccount(CancellationToken cancel)
    {
        await using var context = await services.GetRequiredService<IDbContextFactory<ZendleContext>>().CreateDbContextAsync(cancel);
        if (!await context.Users.AnyAsync(cancel)) Console.WriteLine($"There is no account yet. Open Zendle and bring this code to become curator and owner: {code.Text}");
    }
}
