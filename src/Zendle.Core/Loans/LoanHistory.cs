namespace Zendle.Core.Loans;

/// <summary>What happened to a request.</summary>
public enum LoanEventKind
{
    /// <summary>A person asked.</summary>
    Asked,

    /// <summary>The desk has taken the request.</summary>
    Sent,

    /// <summary>The desk would not take it.</summary>
    Refused,

    /// <summary>A person took it back before it was sent.</summary>
    Withdrawn,

    /// <summary>A person takes it back, and the desk is told.</summary>
    CancelAsked,

    /// <summary>The supplier wrote.</summary>
    Told,

    /// <summary>The reader has the item.</summary>
    Received,

    /// <summary>The reader has sent it back.</summary>
    Returned,

    /// <summary>The supplier was asked how it stands.</summary>
    StatusAsked,
}

/// <summary>One thing that happened.</summary>
/// <param name="Kind">What.</param>
/// <param name="At">When, by the clock of whoever did it.</param>
/// <param name="Order">In which order Zendle learned of it.</param>
/// <param name="Message">What the supplier wrote; null for anything else.</param>
public sealed record LoanEvent(LoanEventKind Kind, DateTimeOffset At, int Order, SupplierMessage? Message = null);

/// <summary>How a request stands after all that happened.</summary>
/// <param name="Status">Its status.</param>
/// <param name="Since">Since when.</param>
public sealed record LoanState(LoanStatus Status, DateTimeOffset Since)
{
    /// <summary>Whether something is still to come of it.</summary>
    public bool IsOpen => Status.IsOpen();

    /// <summary>Whether the item is with the reader.</summary>
    public bool IsLent => Status.IsLent();

    /// <summary>Whether it ended without the item.</summary>
    public bool IsVain => Status.IsVain();

    /// <summary>Whether an item that was lent has come, and so was read on paper.</summary>
    public bool WasLent =>
        IsReceived && (IsLent || Status is LoanStatus.LoanCompleted or LoanStatus.CompletedWithoutReturn);

    /// <summary>Why it is not supplied, or only otherwise; null for no reason told.</summary>
    public string? Why { get; init; }

    /// <summary>What the supplier said with it; empty for nothing.</summary>
    public string Note { get; init; } = "";

    /// <summary>What it would cost; null when that was not said.</summary>
    public LoanCost? Offer { get; init; }

    /// <summary>What it did cost; null when that was not said.</summary>
    public LoanCost? Cost { get; init; }

    /// <summary>The day from which it is worth asking again; null for none told.</summary>
    public DateOnly? RetryAfter { get; init; }

    /// <summary>The day on which it is expected; null for none told, and when it has ended.</summary>
    public DateOnly? ExpectedOn { get; init; }

    /// <summary>The day on which the item is due back; null when it is not lent.</summary>
    public DateOnly? DueOn { get; init; }

    /// <summary>How it was sent; null before.</summary>
    public string? SentVia { get; init; }

    /// <summary>Where the copy lies; empty when it came otherwise, or not yet.</summary>
    public IReadOnlyList<Uri> Addresses { get; init; } = [];

    /// <summary>Whether it was taken back and the supplier has not answered yet.</summary>
    public bool IsCancelAsked { get; init; }

    /// <summary>Whether the supplier has said that it cannot be taken back any more.</summary>
    public bool IsCancelDenied { get; init; }

    /// <summary>Whether the reader has the item.</summary>
    public bool IsReceived { get; init; }

    /// <summary>Whether the reader has sent the item back.</summary>
    public bool IsReturned { get; init; }
}

/// <summary>
/// Makes one state of everything that happened to a request. Messages may come late, twice, or in another order than they
/// were written in: the one that was true last counts, whenever it came.
/// </summary>
public static class LoanHistory
{
    /// <summary>How a request stands. O(n log n).</summary>
    /// <param name="events">All that happened; the first is that somebody asked.</param>
    public static LoanState Of(IReadOnlyCollection<LoanEvent> events)
    {
        var own = events.Where(e => e.Kind != LoanEventKind.Told).OrderBy(e => e.Order).ToArray();
        var told = events
            .Where(e => e.Message is not null)
            .OrderBy(e => When(e))
            .ThenBy(e => e.Order)
            .Select(e => e.Message!)
            .ToArray();
        var first = own.Length > 0 ? own[0].At : DateTimeOffset.MinValue;
        LoanState state = new(LoanStatus.Unsent, first);
        foreach (var e in own)
            state = e.Kind switch
            {
                LoanEventKind.Sent => state with { Status = LoanStatus.Sent, Since = e.At },
                LoanEventKind.Refused => state with { Status = LoanStatus.Refused, Since = e.At },
                LoanEventKind.Withdrawn => state with { Status = LoanStatus.Cancelled, Since = e.At },
                LoanEventKind.CancelAsked => state with { IsCancelAsked = true },
                LoanEventKind.Received => state with { IsReceived = true },
                LoanEventKind.Returned => state with { IsReturned = true },
                _ => state,
            };
        foreach (var message in told)
            state = After(state, message);
        return state with { IsCancelAsked = state.IsCancelAsked && state.Status.IsOpen() && !state.IsCancelDenied };
    }

    /// <summary>When what a message says became true.</summary>
    private static DateTimeOffset When(LoanEvent e) => e.Message!.ChangedAt ?? e.Message.Header.At;

    private static LoanState After(LoanState state, SupplierMessage message)
    {
        // Yes to a wish to take it back says how it stands even without a status.
        var status =
            message.Status
            ?? (message is { Reason: LoanMessageReason.CancelResponse, Answer: true } ? LoanStatus.Cancelled : null);
        state = state with
        {
            IsCancelDenied =
                message is { Reason: LoanMessageReason.CancelResponse, Answer: false } || state.IsCancelDenied,
            Note = message.Note.Length > 0 ? message.Note : state.Note,
            Offer = message.Offer ?? state.Offer,
            Cost = message.Cost ?? state.Cost,
            ExpectedOn = message.ExpectedOn ?? state.ExpectedOn,
            SentVia = message.SentVia ?? state.SentVia,
            Addresses = message.Addresses.Count > 0 ? message.Addresses : state.Addresses,
        };
        if (status is not { } now)
            return state;
        var isSame = now == state.Status;
        return state with
        {
            Status = now,
            Since = isSame ? state.Since : message.ChangedAt ?? message.Header.At,
            Why = message.Why ?? (isSame ? state.Why : null),
            // What was said of another status says nothing of this one.
            Note = isSame || message.Note.Length > 0 ? state.Note : "",
            RetryAfter = message.RetryAfter ?? (isSame ? state.RetryAfter : null),
            ExpectedOn = now.IsOpen() ? state.ExpectedOn : null,
            DueOn = now.IsLent() ? message.DueOn ?? state.DueOn : null,
        };
    }

    /// <summary>Whether a message says what one that came before has said already, so that it changes nothing.</summary>
    public static bool IsRepeated(SupplierMessage message, IEnumerable<SupplierMessage> before) =>
        before.Any(b =>
            b.Reason == message.Reason
            && b.Status == message.Status
            && b.Header.At == message.Header.At
            && b.Note == message.Note
            && b.Why == message.Why
            && b.Answer == message.Answer
        );
}
