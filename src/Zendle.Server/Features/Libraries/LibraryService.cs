using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Library;
using Zendle.Core.Schedules;
using Zendle.Core.Text;
using Zendle.Server.Events;
using Zendle.Server.Jobs;
using Zendle.Server.Libraries;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>The libraries of the installation, and who uses which.</summary>
internal sealed class LibraryService(
    IDbContextFactory<ZendleContext> contexts,
    LibraryDirectory directory,
    LibraryShelf shelf,
    LibraryWays ways,
    LibrarySessions sessions,
    JobRunner jobs,
    JobSchedule schedule,
    EventHub hub,
    ZendleOptions options,
    TimeProvider clock
) : IDisposable
{
    private const int MostFound = 50,
        MostUsed = 10;
    private static readonly TimeSpan Lasts = TimeSpan.FromMinutes(10);
    private readonly SemaphoreSlim asking = new(1, 1);
    private (DateTimeOffset At, IReadOnlyList<ListedLibrary> Libraries) listed;

    /// <summary>All libraries, as a person sees them.</summary>
    public async Task<LibrariesDto> All(string account, CancellationToken cancel)
    {
        var mine = await ways.Of(account, cancel);
        var known = await sessions.Of(account, cancel);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var last = (
            await context
                .Jobs.AsNoTracking()
                .Where(j => j.Kind == HoldingsJob.Kind.Name)
                .GroupBy(j => j.Subject)
                .Select(g => g.OrderByDescending(j => j.Id).First())
                .ToListAsync(cancel)
        ).ToDictionary(j => j.Subject, jobs.AsItStands);
        var others = shelf.All.Where(l => mine.All(m => m.Id != l.Id)).OrderBy(l => l.Name, StringComparer.Ordinal);
        return new(
            [.. mine.Select(l => Dto(l, isMine: true)), .. others.Select(l => Dto(l, isMine: false))],
            options.LibraryDirectory is not null
        );

        LibraryDto Dto(LibraryRow l, bool isMine) =>
            new(
                l.Id,
                l.Name,
                l.Town,
                l.Country,
                LibraryShelf.Label(l),
                l.Identifier,
                l.SignIn,
                l.Resolver is not null,
                l.ProxyPrefix is not null,
                l.HoldingsAddress,
                l.Lines,
                l.Unread,
                l.Faults.Length == 0 ? [] : l.Faults.Split('\n'),
                l.LoadedAt,
                last.GetValueOrDefault(l.Id) is { State: not JobState.Done } job ? JobDto.Of(job) : null,
                isMine,
                known.GetValueOrDefault(l.Id)?.At,
                known.GetValueOrDefault(l.Id)?.EndsAt
            );
    }

    /// <summary>The libraries of the directory in whose name, place or identifier all words begin.</summary>
    /// <exception cref="Connect.Fetch.OutsideFaultException">The directory cannot be had.</exception>
    public async Task<LibraryDirectoryDto> Find(string account, string words, CancellationToken cancel)
    {
        var wanted = Words.Fold(words).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var mine = (await ways.Of(account, cancel)).Select(l => l.Identifier).ToHashSet(StringComparer.Ordinal);
        var fitting = (await Listed(cancel))
            .Where(l =>
                $" {Words.Fold($"{l.Name} {l.Town} {l.Country} {l.Identifier}")}" is var all
                && Array.TrueForAll(wanted, w => all.Contains(" " + w, StringComparison.Ordinal))
            )
            .OrderBy(l => l.Name, StringComparer.Ordinal)
            .ThenBy(l => l.Town, StringComparer.Ordinal)
            .ToArray();
        return new(
            fitting.Length,
            [
                .. fitting
                    .Take(MostFound)
                    .Select(l => new ListedLibraryDto(
                        l.Identifier,
                        l.Name,
                        l.Town,
                        l.Country,
                        mine.Contains(l.Identifier)
                    )),
            ]
        );
    }

    private async Task<IReadOnlyList<ListedLibrary>> Listed(CancellationToken cancel)
    {
        await asking.WaitAsync(cancel);
        try
        {
            if (options.LibraryDirectory is not { } address)
                return [];
            if (listed.Libraries is null || clock.GetUtcNow() - listed.At > Lasts)
                listed = (clock.GetUtcNow(), await directory.Fetch(address, cancel));
            return listed.Libraries;
        }
        finally
        {
            asking.Release();
        }
    }

    /// <summary>Uses a library of the directory, after those the person uses already; false when it is not there.</summary>
    public async Task<bool> Choose(string account, string identifier, CancellationToken cancel)
    {
        if ((await Listed(cancel)).FirstOrDefault(l => l.Identifier == identifier) is not { } found)
            return false;
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var row = await context.Libraries.SingleOrDefaultAsync(l => l.Identifier == identifier, cancel);
        if (row is null)
        {
            row = new()
            {
                Name = found.Name,
                Town = found.Town,
                Country = found.Country,
                Identifier = identifier,
                HoldingsAddress = found.Holdings.AbsoluteUri,
                Resolver = found.Resolver?.AbsoluteUri,
                ProxyPrefix = found.ProxyPrefix?.AbsoluteUri,
                SignIn = found.SignIn switch
                {
                    null => LibrarySignIn.None,
                    { Authorize: not null } => LibrarySignIn.Window,
                    _ => found.ProxyPrefix is null ? LibrarySignIn.None : LibrarySignIn.Password,
                },
                AuthorizeAddress = found.SignIn?.Authorize?.AbsoluteUri,
                TokenAddress = found.SignIn?.Token?.AbsoluteUri,
            };
            await Add(context, row, cancel);
        }
        await Desks(context, row, found.Desks, cancel);
        var used = await context.UsedLibraries.Where(u => u.AccountId == account).ToListAsync(cancel);
        if (used.Count < MostUsed && used.TrueForAll(u => u.LibraryId != row.Id))
            context.UsedLibraries.Add(
                new()
                {
                    AccountId = account,
                    LibraryId = row.Id,
                    Rank = used.Select(u => u.Rank + 1).DefaultIfEmpty(0).Max(),
                }
            );
        await context.SaveChangesAsync(cancel);
        hub.Tell(new("libraries"));
        return true;
    }

    /// <summary>
    /// Brings the desks of a library to what the directory says of them. Accounts at them stay, and so do desks that a curator
    /// has added.
    /// </summary>
    private static async Task Desks(
        ZendleContext context,
        LibraryRow library,
        IReadOnlyList<ListedDesk> listed,
        CancellationToken cancel
    )
    {
        var known = await context.LoanDesks.Where(d => d.LibraryId == library.Id).ToListAsync(cancel);
        for (var rank = 0; rank < listed.Count; rank++)
        {
            var desk = listed[rank];
            var address = desk.Address.AbsoluteUri;
            if (known.Find(d => d.Supplier == desk.Supplier && d.Address == address) is not { } row)
                context.LoanDesks.Add(
                    row = new()
                    {
                        LibraryId = library.Id,
                        Name = desk.Name,
                        Supplier = desk.Supplier,
                        Requester = library.Identifier,
                        Address = address,
                    }
                );
            (row.Rank, row.Name, row.RegisterAddress) = (rank, desk.Name, desk.Register?.AbsoluteUri);
            (row.CopyCost, row.LendCost, row.Currency) = (desk.CopyCost, desk.LendCost, desk.Currency);
            (row.MostOpen, row.Days) = (desk.MostOpen, desk.Days);
        }
    }

    /// <summary>Adds a library; its holdings are fetched when they have an address.</summary>
    public async Task<LibraryRow> Add(LibraryRow row, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await Add(context, row, cancel);
        hub.Tell(new("libraries"));
        return row;
    }

    private async Task Add(ZendleContext context, LibraryRow row, CancellationToken cancel)
    {
        // Works are narrowed by labels: two must not have one.
        var labels = shelf.Labels.ToHashSet(StringComparer.OrdinalIgnoreCase);
        for (var (name, n) = (row.Name, 2); labels.Contains(LibraryShelf.Label(row)); n++)
            row.Name = $"{name} ({n})";
        context.Libraries.Add(row);
        await context.SaveChangesAsync(cancel);
        shelf.Reload();
        if (row.HoldingsAddress is null)
            return;
        await schedule.Set(HoldingsJob.Kind, row.Id, Recurrence.EveryWeek, cancel);
        await jobs.Ask(HoldingsJob.Kind, row.Id);
    }

    /// <summary>Sets which libraries a person uses, in this order.</summary>
    /// <returns>False when one of them is none.</returns>
    public async Task<bool> Use(string account, IReadOnlyList<int> libraries, CancellationToken cancel)
    {
        var wanted = libraries.Distinct().ToArray();
        if (wanted.Length > MostUsed || wanted.Except(shelf.All.Select(l => l.Id)).Any())
            return false;
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await using var transaction = await context.Database.BeginTransactionAsync(cancel);
        await context.UsedLibraries.Where(u => u.AccountId == account).ExecuteDeleteAsync(cancel);
        context.UsedLibraries.AddRange(
            wanted.Select(
                (l, i) =>
                    new UsedLibraryRow
                    {
                        AccountId = account,
                        LibraryId = l,
                        Rank = i,
                    }
            )
        );
        await context
            .LibrarySessions.Where(s => s.AccountId == account && !wanted.Contains(s.LibraryId))
            .ExecuteDeleteAsync(cancel);
        await context.SaveChangesAsync(cancel);
        await transaction.CommitAsync(cancel);
        hub.Tell(new("libraries"));
        return true;
    }

    /// <summary>Removes a library with its holdings and all sessions there; false when there is none.</summary>
    public async Task<bool> Remove(int id, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        if (!await context.Libraries.AnyAsync(l => l.Id == id, cancel))
            return false;
        foreach (var job in await jobs.Running(HoldingsJob.Kind, id))
            await jobs.Stop(job);
        await schedule.Set(HoldingsJob.Kind, id, null, cancel);
        await using var transaction = await context.Database.BeginTransactionAsync(cancel);
        await context.UsedLibraries.Where(u => u.LibraryId == id).ExecuteDeleteAsync(cancel);
        await context.LibrarySessions.Where(s => s.LibraryId == id).ExecuteDeleteAsync(cancel);
        await context.LoanDesks.Where(d => d.LibraryId == id).ExecuteDeleteAsync(cancel);
        await context.Libraries.Where(l => l.Id == id).ExecuteDeleteAsync(cancel);
        await transaction.CommitAsync(cancel);
        var load = shelf.All.FirstOrDefault(l => l.Id == id)?.Load ?? 0;
        shelf.Reload();
        File.Delete(shelf.PathOf(id, load));
        hub.Tell(new("libraries"));
        return true;
    }

    /// <summary>Fetches the holdings of a library anew; null when there is none.</summary>
    public async Task<JobRow?> Refresh(int id) =>
        shelf.All.Any(l => l.Id == id) ? await jobs.Ask(HoldingsJob.Kind, id, again: true) : null;

    /// <inheritdoc/>
    public void Dispose() => asking.Dispose();
}
