namespace Zendle.Core.Loans;

/// <summary>
/// How a request for a loan stands: the statuses of ISO 18626 (closed code list "Status"), with those before the other library
/// has said anything in front.
/// </summary>
public enum LoanStatus
{
    /// <summary>It could not be handed to the desk yet.</summary>
    Unsent,

    /// <summary>The desk has taken it.</summary>
    Sent,

    /// <summary>The desk would not take it: the message itself was at fault.</summary>
    Refused,

    /// <summary>The library has received it and says no more.</summary>
    RequestReceived,

    /// <summary>The library expects to supply the item.</summary>
    ExpectToSupply,

    /// <summary>The library will supply the item.</summary>
    WillSupply,

    /// <summary>The item is lent, until a day.</summary>
    Loaned,

    /// <summary>The item should be back.</summary>
    Overdue,

    /// <summary>The library asks for the item back before its day.</summary>
    Recalled,

    /// <summary>It can be had if it is asked for otherwise: later, for more money, in another edition.</summary>
    RetryPossible,

    /// <summary>The library does not supply it.</summary>
    Unfilled,

    /// <summary>The copy has been sent.</summary>
    CopyCompleted,

    /// <summary>The item came back to the library.</summary>
    LoanCompleted,

    /// <summary>It ended without the item coming back.</summary>
    CompletedWithoutReturn,

    /// <summary>It was taken back.</summary>
    Cancelled,
}

/// <summary>What statuses mean for whoever waits.</summary>
public static class LoanStatuses
{
    /// <summary>Whether something is still to come of it.</summary>
    public static bool IsOpen(this LoanStatus status) =>
        status
            is LoanStatus.Unsent
                or LoanStatus.Sent
                or LoanStatus.RequestReceived
                or LoanStatus.ExpectToSupply
                or LoanStatus.WillSupply;

    /// <summary>Whether the item is with the reader, and to be given back.</summary>
    public static bool IsLent(this LoanStatus status) =>
        status is LoanStatus.Loaned or LoanStatus.Overdue or LoanStatus.Recalled;

    /// <summary>Whether it is not done with: the item is still to come, or to go back. Desks count such requests.</summary>
    public static bool IsUnfinished(this LoanStatus status) => status.IsOpen() || status.IsLent();

    /// <summary>Whether it was supplied.</summary>
    public static bool IsSupplied(this LoanStatus status) =>
        status.IsLent()
        || status is LoanStatus.CopyCompleted or LoanStatus.LoanCompleted or LoanStatus.CompletedWithoutReturn;

    /// <summary>Whether it ended without the item, so that another desk can be asked.</summary>
    public static bool IsVain(this LoanStatus status) =>
        status is LoanStatus.Refused or LoanStatus.RetryPossible or LoanStatus.Unfilled or LoanStatus.Cancelled;
}
