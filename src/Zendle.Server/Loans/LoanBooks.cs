using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Loans;
using Zendle.Store.Made;

namespace Zendle.Server.Loans;

/// <summary>A request with everything that happened to it.</summary>
/// <param name="Row">The request.</param>
/// <param name="Events">What happened, in the order Zendle learned of it.</param>
/// <param name="State">How it stands.</param>
internal sealed record BookedLoan(LoanRow Row, IReadOnlyList<LoanEventRow> Events, LoanState State);

/// <summary>Reads requests for loans out of the store.</summary>
internal static class LoanBooks
{
    /// <summary>What a desk said when it refused a message.</summary>
    internal sealed record Refusal(string Fault, string? About);

    /// <summary>The requests of a review with their states, the oldest first.</summary>
    public static async Task<IReadOnlyList<BookedLoan>> LoansOf(
        this ZendleContext context,
        int reviewId,
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
        return [.. loans.Select(l => new BookedLoan(l, [.. events[l.Id]], StateOf(events[l.Id])))];
    }

    /// <summary>What all that happened to one request makes of it.</summary>
    public static LoanState StateOf(IEnumerable<LoanEventRow> events)
    {
        LoanEventRow[] all = [.. events];
        var state = LoanHistory.Of([.. all.Select(e => new LoanEvent(e.Kind, e.At, e.Id, Told(e)))]);
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

    /// <summary>Brings a request's status to what its events make of it. Saved by the caller.</summary>
    public static async Task<LoanState> Settle(this ZendleContext context, LoanRow loan, CancellationToken cancel)
    {
        var stored = await context.LoanEvents.Where(e => e.LoanId == loan.Id).OrderBy(e => e.Id).ToListAsync(cancel);
        // What was added and is not saved yet comes last.
        var added = context
            .ChangeTracker.Entries<LoanEventRow>()
            .Where(e => e.State == EntityState.Added && e.Entity.LoanId == loan.Id)
            .Select(e => e.Entity)
            .ToArray();
        var order = stored.Count == 0 ? 0 : stored[^1].Id;
        var events = stored
            .Select(e => new LoanEvent(e.Kind, e.At, e.Id, Told(e)))
            .Concat(added.Select((e, i) => new LoanEvent(e.Kind, e.At, order + 1 + i, Told(e))));
        var state = LoanHistory.Of([.. events]);
        loan.Status = state.Status;
        return state;
    }
}
