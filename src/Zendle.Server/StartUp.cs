using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Demo;
using Zendle.Server.Features.Entries;
using Zendle.Server.Features.Gather;
using Zendle.Server.Features.References;
using Zendle.Server.Features.TieTables;
using Zendle.Server.Identity;
using Zendle.Server.Reviews;
using Zendle.Store;
using Zendle.Store.Corpus;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Server;

/// <summary>
/// Brings the store up to date and the index up; until then <c>/health</c> answers 503 and says what it waits for. The demo
/// is made behind that, while people can sign in already and read how far it is.
/// </summary>
internal sealed class StartUp(
    IServiceProvider services,
    DataFolder folder,
    CorpusService corpus,
    CorpusIdentity identity,
    MadeOn madeOn,
    CorpusWriter writer,
    ZendleOptions options,
    FirstAccountCode code,
    ILogger<StartUp> log,
    IHostApplicationLifetime lifetime
) : BackgroundService
{
    /// <summary>
    /// How long after the process began the newest records are waited for at most before what there is is shown.
    /// </summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(3.5);

    /// <summary>
    /// Held as long as the container lives, so that it is let go after everything in the folder is closed.
    /// </summary>
    private readonly DataFolder held = folder;

    private readonly TaskCompletionSource tablesReady = new(TaskCreationOptions.RunContinuationsAsynchronously),
        storeReady = new(TaskCreationOptions.RunContinuationsAsynchronously);

    /// <summary>Whether everything is there.</summary>
    public bool IsReady { get; private set; }

    /// <summary>Ends when the tables of both files are those of this version, so that they can be asked.</summary>
    public Task TablesReady => tablesReady.Task;

    /// <summary>Ends when both files are up and the index takes words, so that jobs can run.</summary>
    public Task StoreReady => storeReady.Task;

    /// <summary>Whether the demo is being made.</summary>
    public bool IsSeeding { get; private set; }

    /// <summary>What the demo waits for while it is being made, in a sentence; null when nothing is.</summary>
    public string? Preparing => IsSeeding ? Doing : null;

    /// <summary>What keeps it from being ready, in a sentence; null for nothing.</summary>
    public string? Fault { get; private set; }

    /// <summary>What it is doing while it is not ready, in a sentence.</summary>
    public string Doing { get; private set; } = "Zendle is starting.";

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        _ = held;
        try
        {
            // A new zendle.db first: an empty one beside a corpus.db then means that it was lost, not that a first
            // start was killed (see DataFolder).
            var made = Task.Run(() => Migrate<ZendleContext>("zendle.db", stoppingToken), stoppingToken);
            if (new FileInfo(Path.Combine(options.Data, "zendle.db")) is not { Exists: true, Length: > 0 })
                await made;
            await Task.WhenAll(made, Task.Run(() => Migrate<CorpusContext>("corpus.db", stoppingToken), stoppingToken));
            var seeder = services.GetRequiredService<DemoSeeder>();
            if (options.Demo)
                await seeder.Begin();
            tablesReady.SetResult();
            await identity.Recognise(stoppingToken);
            Says("Merging duplicate records.");
            if (await writer.BringUpToDate(stoppingToken) is > 0 and var rejoined)
                log.LogInformation("{Records} records were joined anew.", rejoined);
            await madeOn.Begin(stoppingToken);
            Says("Opening the index.");
            await corpus.Open(stoppingToken);
            Says(
                corpus.IsReady
                    ? "Adding the newest records to the index."
                    : "Building the index from the harvested records."
            );
            var catchingUp = Task.Run(
                async () =>
                {
                    await corpus.PutWords(stoppingToken);
                    storeReady.SetResult();
                    await corpus.CatchUp(stoppingToken);
                },
                stoppingToken
            );
            // What came after an interruption is mostly in at once. If not, what was written down before it is shown,
            // and the rest follows behind.
            if (
                corpus.IsReady
                && (!options.Demo || await seeder.Made(stoppingToken) is not null)
                && await Task.WhenAny(catchingUp, Task.Delay(Remaining(), stoppingToken)) != catchingUp
            )
            {
                if (!options.Demo)
                    await OfferFirstAccount(stoppingToken);
                IsReady = true;
            }
            await catchingUp;
            await services.GetRequiredService<EntryService>().BringBack(stoppingToken);
            await services.GetRequiredService<ResolutionService>().BringBack(stoppingToken);
            await services.GetRequiredService<TextLists>().BringBack(stoppingToken);
            services.GetRequiredService<TieTableService>().ForgetHalves();
            if (IsReady)
                services.GetRequiredService<CorpusChange>().Tell();
            if (!options.Demo)
            {
                if (!IsReady)
                    await OfferFirstAccount(stoppingToken);
                IsReady = true;
                return;
            }
            Says("Harvesting the demo's databases.");
            (IsSeeding, IsReady) = (!IsReady, true);
            var isSeeded = await seeder.Seed(Says, stoppingToken);
            IsSeeding = false;
            services.GetRequiredService<CorpusChange>().Tell();
            if (!isSeeded)
                await seeder.ArrangeAgain(stoppingToken);
        }
        catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested) { }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            Fault =
                DiskFull.Is(e)
                    ? $"There is no room on the disk for the data folder {options.Data}. Free some, then start again; nothing was lost."
                : e is IOException or UnauthorizedAccessException
                    ? $"The data folder {options.Data} cannot be used: {e.Message}"
                : e.Message;
            log.LogCritical(e, "Zendle could not start. {Fault}", Fault);
            Environment.ExitCode = 1;
            lifetime.StopApplication();
        }
    }

    private static TimeSpan Remaining()
    {
        using var self = System.Diagnostics.Process.GetCurrentProcess();
        var left = Patience - (DateTime.Now - self.StartTime);
        return left > TimeSpan.Zero ? left : TimeSpan.Zero;
    }

    private void Says(string doing) => Doing = doing;

    private async Task Migrate<TContext>(string file, CancellationToken cancel)
        where TContext : DbContext
    {
        Says($"Updating the tables of {file}.");
        await using var context = await services
            .GetRequiredService<IDbContextFactory<TContext>>()
            .CreateDbContextAsync(cancel);
        await Schema.BringUpToDate(context, cancel);
    }

    private async Task OfferFirstAccount(CancellationToken cancel)
    {
        await using var context = await services
            .GetRequiredService<IDbContextFactory<ZendleContext>>()
            .CreateDbContextAsync(cancel);
        if (!await context.Users.AnyAsync(cancel))
            Console.WriteLine(
                $"There is no account yet. Open Zendle and enter this code to become curator and owner: {code.Text}"
            );
    }
}
