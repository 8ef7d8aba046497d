using System.Collections.Concurrent;
using System.Text.Json;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Connect.Fetch;
using Zendle.Connect.Loans;
using Zendle.Core.FullText;
using Zendle.Core.Loans;
using Zendle.Server.Events;
using Zendle.Server.Features.Gather;
using Zendle.Server.Loans;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Loans;

/// <summary>
/// Hands over to desks what waits for them, and fetches the copies they have made. What waits is in the store: a stop, a kill or
/// a desk that is down delays it and loses nothing. The messages of one request go in their order.
/// </summary>
internal sealed class LoanPost(
    IDbContextFactory<ZendleContext> contexts,
    LoanDesk desk,
    LoanSecrets secrets,
    TextDelivery delivery,
    FollowedClock followed,
    TimeProvider clock,
    ZendleOptions options,
    EventHub hub,
    StartUp start,
    ILogger<LoanPost> log
) : BackgroundService
{
    /// <summary>A copy that cannot be had after so many tries is left to a person.</summary>
    private const int MostFetches = 8;

    private const int MostDoublings = 14;
    private static readonly TimeSpan Longest = TimeSpan.FromHours(1),
        Idle = TimeSpan.FromMinutes(1);
    private readonly Channel<bool> wakes = Channel.CreateBounded<bool>(
        new BoundedChannelOptions(1) { FullMode = BoundedChannelFullMode.DropWrite }
    );
    private readonly ConcurrentDictionary<int, bool> held = new();

    /// <summary>Something waits.</summary>
    public void Wake() => wakes.Writer.TryWrite(true);

    /// <summary>Keeps anything from being handed over for a request; null when something is on its way just now.</summary>
    public IDisposable? Hold(int loan) => held.TryAdd(loan, true) ? new Held(() => held.TryRemove(loan, out _)) : null;

    private sealed class Held(Action release) : IDisposable
    {
        public void Dispose() => release();
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await start.StoreReady.WaitAsync(stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            var pause = Idle;
            try
            {
                await Tell(stoppingToken);
                await Fetch(stoppingToken);
                pause = await Pause(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
#pragma warning disable CA1031 // a full disk, a locked file: it is tried again
            catch (Exception e)
            {
                log.LogWarning(e, "Requests for loans could not be looked at; it is tried again.");
            }
#pragma warning restore CA1031
            using var limited = CancellationTokenSource.CreateLinkedTokenSource(stoppingToken);
            limited.CancelAfter(pause);
            try
            {
                await wakes.Reader.ReadAsync(limited.Token);
            }
            catch (OperationCanceledException) when (!stoppingToken.IsCancellationRequested) { }
        }
    }

    /// <summary>How long nothing is due.</summary>
    private async Task<TimeSpan> Pause(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var events = await context.LoanEvents.Where(e => e.IsWaiting).MinAsync(e => (DateTimeOffset?)e.NextAt, cancel);
        var copies = await context
            .Loans.Where(l => l.Delivery == LoanDelivery.Waiting)
            .MinAsync(l => (DateTimeOffset?)l.NextAt, cancel);
        var next = events is null || copies < events ? copies : events;
        var wait = next is { } at ? at - clock.GetUtcNow() : Idle;
        return wait < options.FirstRetry ? options.FirstRetry
            : wait > Idle ? Idle
            : wait;
    }

    private DateTimeOffset Next(int tries)
    {
        var wait = options.FirstRetry * Math.Pow(2, Math.Min(tries, MostDoublings));
        return clock.GetUtcNow() + (wait < Longest ? wait : Longest);
    }

    private async Task Tell(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var now = clock.GetUtcNow();
        var first = (
            await context
                .LoanEvents.AsNoTracking()
                .Where(e => e.IsWaiting)
                .OrderBy(e => e.Id)
                .Select(e => new
                {
                    e.Id,
                    e.LoanId,
                    e.NextAt,
                })
                .ToListAsync(cancel)
        ).DistinctBy(e => e.LoanId).Where(e => e.NextAt <= now).ToArray();
        foreach (var e in first)
        {
            using var hold = Hold(e.LoanId);
            if (hold is not null)
                await Tell(e.Id, cancel);
        }
        // The next ones of the same requests.
        if (first.Length > 0)
            Wake();
    }

    private async Task Tell(int id, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var e = await context.LoanEvents.SingleAsync(x => x.Id == id, cancel);
        if (!e.IsWaiting)
            return;
        var loan = await context.Loans.SingleAsync(l => l.Id == e.LoanId, cancel);
        var at = await context.LoanDesks.SingleOrDefaultAsync(d => d.Id == loan.DeskId, cancel);
        var now = await followed.Now(cancel);
        try
        {
            // Taken back while it was on its way in vain: it is not tried again. The desk is told all the same, for it may have come.
            if (
                e.Kind == LoanEventKind.Asked
                && await context.LoanEvents.AnyAsync(
                    x => x.LoanId == loan.Id && x.Kind == LoanEventKind.CancelAsked && x.IsWaiting,
                    cancel
                )
            )
            {
                e.IsWaiting = false;
                context.Happened(loan, LoanEventKind.Withdrawn, now);
                await context.Settle(loan, cancel);
                await context.SaveChangesAsync(cancel);
                hub.Tell(new("gather", loan.ReviewId));
                return;
            }
            if (at is null)
                throw new OutsideFaultException("The desk was removed by a curator.");
            await Register(context, at, loan, cancel);
            var confirmation = await desk.Send(
                new(at.Address),
                await Written(context, e, loan, at, now, cancel),
                cancel
            );
            (e.IsWaiting, e.Trouble) = (false, confirmation.IsTaken ? null : Sentence(confirmation));
            if (IsForgotten(confirmation, at, e))
            {
                // Another account is opened, and it is said once more.
                (at.Account, at.Code, e.IsWaiting, e.NextAt) = (null, null, true, clock.GetUtcNow());
                e.Tries++;
            }
            else if (e.Kind == LoanEventKind.Asked)
                context.Happened(
                    loan,
                    confirmation.IsTaken ? LoanEventKind.Sent : LoanEventKind.Refused,
                    now,
                    said: confirmation.IsTaken
                        ? null
                        : JsonSerializer.Serialize(
                            new LoanBooks.Refusal(confirmation.Fault ?? "", confirmation.About),
                            StoredJson.Options
                        )
                );
            await context.Settle(loan, cancel);
        }
        catch (OutsideFaultException fault)
        {
            (e.Trouble, e.NextAt) = (fault.Message, Next(e.Tries++));
        }
        await context.SaveChangesAsync(cancel);
        hub.Tell(new("gather", loan.ReviewId));
    }

    /// <summary>
    /// Whether a desk that opens accounts by itself does not know ours any more, and was not given another one for this message yet.
    /// </summary>
    private static bool IsForgotten(LoanConfirmation confirmation, LoanDeskRow at, LoanEventRow e) =>
        !confirmation.IsTaken
        && at is { RegisterAddress: not null, Account: not null }
        && e.Tries == 0
        && confirmation.About?.Contains("account", StringComparison.OrdinalIgnoreCase) == true;

    private static string Sentence(LoanConfirmation refusal) =>
        $"The desk did not take it ({refusal.Fault}{(refusal.About is { } about ? $": {about}" : "")}).";

    /// <summary>Opens an account where the desk does so by itself and there is none yet.</summary>
    private async Task Register(ZendleContext context, LoanDeskRow at, LoanRow loan, CancellationToken cancel)
    {
        if (at.Account is not null || at.RegisterAddress is not { } register)
            return;
        var account = await desk.Register(new(register), at.Requester, secrets.Back(new(loan.Back), at.Id), cancel);
        (at.Account, at.Code) = (account.Name, secrets.Keep(account.Code));
        await context.SaveChangesAsync(cancel);
    }

    private async Task<byte[]> Written(
        ZendleContext context,
        LoanEventRow e,
        LoanRow loan,
        LoanDeskRow at,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var told = await context
            .LoanEvents.AsNoTracking()
            .Where(x => x.LoanId == loan.Id && x.Kind == LoanEventKind.Told)
            .OrderByDescending(x => x.Id)
            .Take(1)
            .ToListAsync(cancel);
        var header = new LoanHeader(at.Supplier, at.Requester, now, loan.Number)
        {
            SupplierRequestId = told.Select(t => LoanBooks.Told(t)?.Header.SupplierRequestId).FirstOrDefault(),
            Account = at.Account,
            Code = secrets.Open(at.Code),
        };
        return e.Kind switch
        {
            LoanEventKind.Asked => Iso18626Writer.Write(
                new LoanRequest(header, JsonSerializer.Deserialize<LoanFields>(loan.Fields, StoredJson.Options)!)
                {
                    Previous = loan.PreviousId is { } previous
                        ? await context
                            .Loans.Where(l => l.Id == previous)
                            .Select(l => l.Number)
                            .SingleOrDefaultAsync(cancel)
                        : null,
                    MostCost = loan.MostCost is { } most ? new(most, loan.Currency) : null,
                    NeededBy = loan.NeededBy,
                    Email = loan.Email,
                }
            ),
            _ => Iso18626Writer.Write(
                new RequesterMessage(
                    header,
                    e.Kind switch
                    {
                        LoanEventKind.CancelAsked => LoanAction.Cancel,
                        LoanEventKind.Received => LoanAction.Received,
                        LoanEventKind.Returned => LoanAction.ShippedReturn,
                        _ => LoanAction.StatusRequest,
                    }
                )
            ),
        };
    }

    private async Task Fetch(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var now = clock.GetUtcNow();
        foreach (
            var loan in await context
                .Loans.Where(l => l.Delivery == LoanDelivery.Waiting && l.NextAt <= now)
                .OrderBy(l => l.Id)
                .ToListAsync(cancel)
        )
        {
            var events = await context.LoanEvents.Where(e => e.LoanId == loan.Id).ToListAsync(cancel);
            var (outcome, sentence) = await Fetch(loan, LoanBooks.StateOf(events).Addresses, cancel);
            loan.DeliverySentence = sentence;
            loan.Tries++;
            var isPassing =
                outcome
                    is AttemptOutcome.Unreachable
                        or AttemptOutcome.Busy
                        or AttemptOutcome.TooSlow
                        or AttemptOutcome.NoRoom
                && loan.Tries < MostFetches;
            if (isPassing)
                loan.NextAt = Next(loan.Tries);
            else
                loan.Delivery = outcome switch
                {
                    AttemptOutcome.Got => LoanDelivery.Got,
                    AttemptOutcome.Doubtful => LoanDelivery.Doubtful,
                    _ => LoanDelivery.Failed,
                };
            // Only of a copy that was taken in is the desk told that it has come.
            if (loan.Delivery is LoanDelivery.Got or LoanDelivery.Doubtful)
                context.Happened(loan, LoanEventKind.Received, await followed.Now(cancel), tells: true);
            await context.SaveChangesAsync(cancel);
            hub.Tell(new("gather", loan.ReviewId));
            Wake();
        }
    }

    /// <summary>The first address that gives a text, or may; what the last one gave when none does.</summary>
    private async Task<(AttemptOutcome Outcome, string Sentence)> Fetch(
        LoanRow loan,
        IReadOnlyList<Uri> addresses,
        CancellationToken cancel
    )
    {
        (AttemptOutcome Outcome, string Sentence) last = (
            AttemptOutcome.DeadLink,
            "The desk names no address of its own for the copy."
        );
        var desks = await contexts.CreateDbContextAsync(cancel);
        await using (desks)
            foreach (
                var address in LoanInbox.Fetchable(
                    addresses,
                    await desks
                        .LoanDesks.Where(d => d.Id == loan.DeskId)
                        .Select(d => d.Address)
                        .SingleOrDefaultAsync(cancel)
                )
            )
            {
                last = await delivery.Take(loan.ReviewId, loan.WorkId, address, cancel);
                if (last.Outcome is AttemptOutcome.Got or AttemptOutcome.Doubtful)
                    break;
            }
        return last;
    }
}
