using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Core.Loans;
using Zendle.Server.Events;
using Zendle.Server.Loans;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Loans;

/// <summary>
/// Takes what desks write. A message is stored before it is confirmed; one that cannot be read, or speaks of no request of that
/// desk, is answered with what is wrong, and changes nothing.
/// </summary>
internal sealed class LoanInbox(
    IDbContextFactory<ZendleContext> contexts,
    LoanPost post,
    FollowedClock followed,
    EventHub hub,
    TimeProvider clock
) : IDisposable
{
    /// <summary>A desk that writes more than this of one request is not listened to any more.</summary>
    private const int MostMessages = 200;

    private readonly SemaphoreSlim taking = new(1, 1);

    /// <summary>Takes a message.</summary>
    /// <param name="desk">The desk whose address it came to.</param>
    /// <param name="bytes">The message.</param>
    /// <param name="cancel">Stops before it is stored.</param>
    /// <returns>The confirmation to answer with.</returns>
    public async Task<byte[]> Take(int desk, byte[] bytes, CancellationToken cancel)
    {
        var now = await followed.Now(cancel);
        SupplierMessage? message = null;
        try
        {
            message = Iso18626Reader.Supplier(bytes);
            await Store(desk, message, now, cancel);
            return Iso18626Writer.Write(message, new(true), now);
        }
        catch (LoanMessageException e)
        {
            return Iso18626Writer.Write(message, new(false, e.Fault, e.About), now);
        }
    }

    private async Task Store(int desk, SupplierMessage message, DateTimeOffset now, CancellationToken cancel)
    {
        // One at a time: each makes a state of all that came before it.
        await taking.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            var loan =
                await context.Loans.SingleOrDefaultAsync(
                    l => l.Number == message.Header.RequestId && l.DeskId == desk,
                    cancel
                )
                ?? throw new LoanMessageException(
                    "UnrecognisedDataValue",
                    $"requestingAgencyRequestId {message.Header.RequestId}"
                );
            var at = await context.LoanDesks.SingleOrDefaultAsync(d => d.Id == desk, cancel);
            if (
                message.Header.Supplier is { Length: > 0 } supplier
                && !string.Equals(supplier, at?.Supplier, StringComparison.OrdinalIgnoreCase)
            )
                throw new LoanMessageException("UnrecognisedDataValue", $"supplyingAgencyId {supplier}");
            var before = await context
                .LoanEvents.AsNoTracking()
                .Where(e => e.LoanId == loan.Id && e.Kind == LoanEventKind.Told)
                .ToListAsync(cancel);
            if (LoanHistory.IsRepeated(message, before.Select(LoanBooks.Told).OfType<SupplierMessage>()))
                return;
            if (before.Count >= MostMessages)
                throw new LoanMessageException("UnrecognisedDataElement", "too many messages about one request");
            context.Happened(
                loan,
                LoanEventKind.Told,
                now,
                said: JsonSerializer.Serialize(message, StoredJson.Options)
            );
            var state = await context.Settle(loan, cancel);
            if (state.Status == LoanStatus.CopyCompleted && loan.Delivery == LoanDelivery.None)
                (loan.Delivery, loan.NextAt) = (
                    Fetchable(state.Addresses, at?.Address).Any() ? LoanDelivery.Waiting
                    : state.Addresses.Count > 0 ? LoanDelivery.Elsewhere
                    : LoanDelivery.None,
                    clock.GetUtcNow()
                );
            await context.SaveChangesAsync(cancel);
            hub.Tell(new("gather", loan.ReviewId));
        }
        finally
        {
            taking.Release();
        }
        post.Wake();
    }

    /// <summary>Of the addresses that a desk names those of its own host: elsewhere Zendle goes on nobody's word.</summary>
    public static IEnumerable<Uri> Fetchable(IEnumerable<Uri> addresses, string? desk) =>
        Uri.TryCreate(desk, UriKind.Absolute, out var at)
            ? addresses.Where(a => a.Scheme is "http" or "https" && a.Authority == at.Authority)
            : [];

    /// <inheritdoc/>
    public void Dispose() => taking.Dispose();
}
