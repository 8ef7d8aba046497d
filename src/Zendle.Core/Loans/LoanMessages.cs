namespace Zendle.Core.Loans;

/// <summary>An amount of money.</summary>
/// <param name="Amount">The amount, not below 0.</param>
/// <param name="Currency">Its currency, three letters (ISO 4217).</param>
public sealed record LoanCost(decimal Amount, string Currency);

/// <summary>Who speaks of which request, and when (ISO 18626, "header").</summary>
/// <param name="Supplier">The library that is asked (ISIL, ISO 15511).</param>
/// <param name="Requester">The library in whose name a reader asks (ISIL).</param>
/// <param name="At">When the message was written.</param>
/// <param name="RequestId">The requester's number of the request.</param>
public sealed record LoanHeader(string Supplier, string Requester, DateTimeOffset At, string RequestId)
{
    /// <summary>The supplier's own number of it; null while it has said none.</summary>
    public string? SupplierRequestId { get; init; }

    /// <summary>The requester's account at the desk; null for none.</summary>
    public string? Account { get; init; }

    /// <summary>What proves it; null for nothing. Never logged.</summary>
    public string? Code { get; init; }
}

/// <summary>A request ("request").</summary>
/// <param name="Header">Who asks whom.</param>
/// <param name="Fields">For what.</param>
public sealed record LoanRequest(LoanHeader Header, LoanFields Fields)
{
    /// <summary>The number of the request that this one repeats otherwise; null for a new one.</summary>
    public string? Previous { get; init; }

    /// <summary>What it may cost at most; null when that is not said.</summary>
    public LoanCost? MostCost { get; init; }

    /// <summary>The day after which it is of no use; null for none.</summary>
    public DateOnly? NeededBy { get; init; }

    /// <summary>Where a copy can be sent to when the desk cannot put it at an address; null for nowhere.</summary>
    public string? Email { get; init; }
}

/// <summary>What a requester says after a request (closed code list "Action").</summary>
public enum LoanAction
{
    /// <summary>Asks how it stands.</summary>
    StatusRequest,

    /// <summary>The item has come.</summary>
    Received,

    /// <summary>Takes the request back.</summary>
    Cancel,

    /// <summary>The item is on its way back.</summary>
    ShippedReturn,

    /// <summary>Says something.</summary>
    Notification,
}

/// <summary>A later word of the requester ("requestingAgencyMessage").</summary>
/// <param name="Header">Of which request.</param>
/// <param name="Action">What.</param>
/// <param name="Note">In words; empty for none.</param>
public sealed record RequesterMessage(LoanHeader Header, LoanAction Action, string Note = "");

/// <summary>Why a supplier writes (closed code list "ReasonForMessage").</summary>
public enum LoanMessageReason
{
    /// <summary>Answers the request.</summary>
    RequestResponse,

    /// <summary>Answers a question how it stands.</summary>
    StatusRequestResponse,

    /// <summary>Answers a wish to keep it longer.</summary>
    RenewResponse,

    /// <summary>Answers that the request is taken back.</summary>
    CancelResponse,

    /// <summary>It stands differently now.</summary>
    StatusChange,

    /// <summary>Says something.</summary>
    Notification,
}

/// <summary>A word of the supplier ("supplyingAgencyMessage"). What it does not say is null.</summary>
/// <param name="Header">Of which request.</param>
/// <param name="Reason">Why it writes.</param>
public sealed record SupplierMessage(LoanHeader Header, LoanMessageReason Reason)
{
    /// <summary>How it stands.</summary>
    public LoanStatus? Status { get; init; }

    /// <summary>Since when it stands so.</summary>
    public DateTimeOffset? ChangedAt { get; init; }

    /// <summary>Yes or no to what was asked.</summary>
    public bool? Answer { get; init; }

    /// <summary>In words; empty for none.</summary>
    public string Note { get; init; } = "";

    /// <summary>Why it is not supplied, or only otherwise: a code of the open lists "ReasonUnfilled" and "ReasonRetry".</summary>
    public string? Why { get; init; }

    /// <summary>What it would cost.</summary>
    public LoanCost? Offer { get; init; }

    /// <summary>The day from which it is worth asking again.</summary>
    public DateOnly? RetryAfter { get; init; }

    /// <summary>The day on which it is expected to be supplied.</summary>
    public DateOnly? ExpectedOn { get; init; }

    /// <summary>The day on which the item is due back.</summary>
    public DateOnly? DueOn { get; init; }

    /// <summary>How it was sent: a code of the open list "SentVia".</summary>
    public string? SentVia { get; init; }

    /// <summary>What it did cost.</summary>
    public LoanCost? Cost { get; init; }

    /// <summary>Addresses at which the copy lies, as far as the message names any.</summary>
    public IReadOnlyList<Uri> Addresses { get; init; } = [];
}

/// <summary>What a message is answered with at once ("…Confirmation").</summary>
/// <param name="IsTaken">Whether the message was taken.</param>
/// <param name="Fault">Why not: a code of the closed list "ErrorType"; null when it was.</param>
/// <param name="About">What was at fault; null for nothing said.</param>
public sealed record LoanConfirmation(bool IsTaken, string? Fault = null, string? About = null);
