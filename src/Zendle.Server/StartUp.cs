using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Demo;
using Zendle.Server.Features.Events;
using Zendle.Server.Identity;
using Zendle.Store.Corpus;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Server;

/// <summary>Brings the store up to date and the index up, then seeds the demo. Until it is done <c>/health</c> answers 503 and says what it waits for.</summary>
internal sealed class StartUp(
    IServiceProvider services, DataFolder folder, CorpusService corpus, CorpusIdentity identity, MadeOn madeOn, CorpusWriter writer, ZendleOptions options, FirstAccountCode code,
    EventHub hub, ILogger<StartUp> log, IHostApplicationLifetime lifetime) : BackgroundService
{
    /// <summary>Held as long as the container lives, so that it is let go after everything in the folder is closed.</summary>
    private readonly DataFolder held = folder;

    /// <summary>Whether everything is there.</summary>
    public bool IsReady { get; private set; }

    /// <summary>Whether both files and the index are up, so that jobs can run.</summary>
    public bool IsStoreReady { get; private set; }

    /// <summary>What keeps it from being ready, in a sentence; null for nothing.</summary>
    public string? Fault { get; private set; }

    /// <summary>What it is doing while it is not ready, in a sentence.</summary>
    public string Doing { get; private set; } = "Zendle is starting.";

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        _ = held;
        try
        {
            // zendle.db first: an empty one beside a corpus.db then means that it was lost, not that a first start was killed (see DataFolder).
            await Migrate<ZendleContext>("zendle.db", stoppingToken);
            await Migrate<CorpusContext>("corpus.db", stoppingToken);
            await identity.Recognise(stoppingToken);
            Says("Records are being joined into works.");
            if (await writer.BringUpToDate(stoppingToken) is > 0 and var rejoined) log.LogInformation("{Records} records were joined anew.", rejoined);
            await madeOn.Begin(stoppingToken);
            Says("The index is being opened.");
            await corpus.Open(stoppingToken);
            // What was written down before an interruption is shown; what came after it follows behind.
            if (corpus.IsReady && (!options.Demo || await IsInUse(stoppingToken)))
            {
                if (!options.Demo) await OfferFirstAccount(stoppingToken);
                IsReady = true;
            }
            Says(corpus.IsReady ? "The newest records are being put in." : "The index is being built from what was harvested.");
            var wasBehind = corpus.IsBehind;
            await corpus.CatchUp(stoppingToken);
            if (wasBehind) hub.Tell(new("corpus"));
            IsStoreReady = true;
            Says("The demo's databases are being harvested.");
            var seeder = services.GetRequiredService<DemoSeeder>();
            var isSeeded = options.Demo && await seeder.Seed(stoppingToken);
            if (!options.Demo && !IsReady) await OfferFirstAccount(stoppingToken);
            IsReady = true;
            if (options.Demo && !isSeeded) await seeder.ArrangeAgain(stoppingToken);
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            Fault = DiskFull.Is(e) ? $"There is no room on the disk for the data folder {options.Data}. Free some, then start again; nothing was lost."
                : e is IOException or UnauthorizedAccessException ? $"The data folder {options.Data} cannot be used: {e.Message}" : e.Message;
            log.LogCritical(e, "Zendle could not start. {Fault}", Fault);
            Environment.ExitCode = 1;
            lifetime.StopApplication();
        }
    }

    /// <summary>Whether the demo was made already; one that was interrupted while it was made is finished first.</summary>
    private async Task<bool> IsInUse(CancellationToken cancel)
    {
        await using var context = await services.GetRequiredService<IDbContextFactory<ZendleContext>>().CreateDbContextAsync(cancel);
        return await context.Reviews.AnyAsync(cancel);
    }

    private void Says(string doing) => Doing = doing;

    private async Task Migrate<TContext>(string file, CancellationToken cancel) where TContext : DbContext
    {
        Says($"The tables of {file} are being brought up to date.");
        await using var context = await services.GetRequiredService<IDbContextFactory<TContext>>().CreateDbContextAsync(cancel);
        await Schema.BringUpToDate(context, cancel);
    }

    private async Task OfferFirstAccount(CancellationToken cancel)
    {
        await using var context = await services.GetRequiredService<IDbContextFactory<ZendleContext>>().CreateDbContextAsync(cancel);
        if (!await context.Users.AnyAsync(cancel)) Console.WriteLine($"There is no account yet. Open Zendle and bring this code to become curator and owner: {code.Text}");
    }
}
