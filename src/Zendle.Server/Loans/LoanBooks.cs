using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Loans;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Loans;

/// <summary>A request with everything that happened to it.</summary>
/// <param name="Row">The request.</param>
/// <param name="WorkId">Its work, by the id it has today.</param>
/// <param name="Events">What happened, in the order Zendle learned of it.</param>
/// <param name="State">How it stands.</param>
internal sealed record BookedLoan(LoanRow Row, int WorkId, IReadOnlyList<LoanEventRow> Events, LoanState State)
{
    /// <summary>Whether the other library has still to supply the work, or has lent it, so that nobody need do anything.</summary>
    public bool IsOut => State.IsOpen || (State.IsLent && !State.IsReturned) || Row.Delivery == LoanDelivery.Waiting;
}

/// <summary>Reads requests for loans out of the store.</summary>
internal static class LoanBooks
{
    /// <summary>What a desk said when it refused a message.</summary>
    internal sealed record Refusal(string Fault, string? About);

    /// <summary>The requests of a review with their states, the oldest first.</summary>
    public static async Task<IReadOnlyList<BookedLoan>> LoansOf(
        this ZendleContext context,
        int reviewId,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        var loans = await context
            .Loans.AsNoTracking()
            .Where(l => l.ReviewId == reviewId)
            .OrderBy(l => l.Id)
            .ToListAsync(cancel);
        if (loans.Count == 0)
            return [];
        var events = (
            await context
                .LoanEvents.AsNoTracking()
                .Join(context.Loans.Where(l => l.ReviewId == reviewId), e => e.LoanId, l => l.Id, (e, _) => e)
                .OrderBy(e => e.Id)
                .ToListAsync(cancel)
        ).ToLookup(e => e.LoanId);
        var redirects = await reader.Redirects([.. loans.Select(l => l.WorkId)], cancel);
        return
        [
            .. loans.Select(l => new BookedLoan(
                l,
                redirects.GetValueOrDefault(l.WorkId, l.WorkId),
                [.. events[l.Id]],
                StateOf(events[l.Id])
            )),
        ];
    }

    /// <summary>What all that happened to one request makes of it.</summary>
    /// <param name="events">What happened, in the order Zendle learned of it.</param>
    public static LoanState StateOf(IEnumerable<LoanEventRow> events)
    {
        LoanEventRow[] all = [.. events];
        var state = LoanHistory.Of([.. all.Select((e, i) => new LoanEvent(e.Kind, e.At, i, Told(e)))]);
        return
            state.Status == LoanStatus.Refused
            && Array.FindLast(all, e => e.Kind == LoanEventKind.Refused)?.Said is { } said
            && JsonSerializer.Deserialize<Refusal>(said, StoredJson.Options) is { } refusal
            ? state with
            {
                Why = refusal.Fault,
                Note = refusal.About ?? "",
            }
            : state;
    }

    /// <summary>What the supplier wrote; null for anything else that happened.</summary>
    public static SupplierMessage? Told(LoanEventRow e) =>
        e.Kind == LoanEventKind.Told && e.Said is { } said
            ? JsonSerializer.Deserialize<SupplierMessage>(said, StoredJson.Options)
            : null;

    /// <summary>Adds that something happened to a request. Saved by the caller.</summary>
    /// <param name="context">Takes it.</param>
    /// <param name="loan">The request.</param>
    /// <param name="kind">What happened.</param>
    /// <param name="at">When, by the clock that loans follow.</param>
    /// <param name="tells">Whether the desk is to be told of it.</param>
    /// <param name="said">What was said with it, as JSON; null for nothing.</param>
    public static void Happened(
        this ZendleContext context,
        LoanRow loan,
        LoanEventKind kind,
        DateTimeOffset at,
        bool tells = false,
        string? said = null
    ) =>
        context.LoanEvents.Add(
            new()
            {
                LoanId = loan.Id,
                Kind = kind,
                At = at,
                IsWaiting = tells,
                Said = said,
            }
        );

    /// <summary>Brings a request's status to what its events make of it, those not saved yet included. Saved by the caller.</summary>
    public static async Task<LoanState> Settle(this ZendleContext context, LoanRow loan, CancellationToken cancel)
    {
        var stored = await context.LoanEvents.Where(e => e.LoanId == loan.Id).OrderBy(e => e.Id).ToListAsync(cancel);
        var added = context
            .ChangeTracker.Entries<LoanEventRow>()
            .Where(e => e.State == EntityState.Added && e.Entity.LoanId == loan.Id)
            .Select(e => e.Entity);
        var state = StateOf(stored.Concat(added));
        loan.Status = state.Status;
        return state;
    }
}
