using Zendle.Core.Loans;

namespace Zendle.Store.Made;

/// <summary>A desk that people of a library ask for loans (ISO 18626).</summary>
public sealed class LoanDeskRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The library whose readers may ask it.</summary>
    public int LibraryId { get; set; }

    /// <summary>Its rank among the desks of the library, the one asked first at 0.</summary>
    public int Rank { get; set; }

    /// <summary>Its name.</summary>
    public required string Name { get; set; }

    /// <summary>The library that supplies (ISIL, ISO 15511).</summary>
    public required string Supplier { get; set; }

    /// <summary>The library in whose name is asked (ISIL).</summary>
    public required string Requester { get; set; }

    /// <summary>Where messages are sent to.</summary>
    public required string Address { get; set; }

    /// <summary>Where an account is opened by itself; null where people have agreed on one, or on none.</summary>
    public string? RegisterAddress { get; set; }

    /// <summary>The account at the desk; null for none.</summary>
    public string? Account { get; set; }

    /// <summary>What proves the account, encrypted (ASP.NET Core Data Protection); null for nothing.</summary>
    public byte[]? Code { get; set; }

    /// <summary>What a copy costs; null when not said.</summary>
    public decimal? CopyCost { get; set; }

    /// <summary>What a loan costs; null when not said.</summary>
    public decimal? LendCost { get; set; }

    /// <summary>The currency of both (ISO 4217); empty when none is said.</summary>
    public string Currency { get; set; } = "";

    /// <summary>How many open requests a reader may have there; null for no limit.</summary>
    public int? MostOpen { get; set; }

    /// <summary>How many days it usually takes; null when not said.</summary>
    public int? Days { get; set; }
}

/// <summary>How it is with a copy that a desk has put at an address.</summary>
public enum LoanDelivery
{
    /// <summary>No copy lies anywhere that Zendle would fetch.</summary>
    None,

    /// <summary>It is to be fetched.</summary>
    Waiting,

    /// <summary>It was fetched and taken in.</summary>
    Got,

    /// <summary>It was fetched; a person must look.</summary>
    Doubtful,

    /// <summary>What came is not the text, or nothing came.</summary>
    Failed,

    /// <summary>It lies at a host that is not the desk's: a person opens it.</summary>
    Elsewhere,
}

/// <summary>A request to another library for a work of a review.</summary>
public sealed class LoanRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>Who asked.</summary>
    public required string AccountId { get; set; }

    /// <summary>The desk; it may be gone.</summary>
    public int DeskId { get; set; }

    /// <summary>Its name then.</summary>
    public required string DeskName { get; set; }

    /// <summary>The library in whose name was asked.</summary>
    public required string LibraryName { get; set; }

    /// <summary>The number under which desks know it.</summary>
    public required string Number { get; set; }

    /// <summary>The request that this one repeats otherwise; null for none.</summary>
    public int? PreviousId { get; set; }

    /// <summary>What was asked for, as JSON: <see cref="LoanFields"/>.</summary>
    public required string Fields { get; set; }

    /// <summary>What it may cost at most; null for nothing said.</summary>
    public decimal? MostCost { get; set; }

    /// <summary>The currency of that.</summary>
    public string Currency { get; set; } = "";

    /// <summary>The day after which it is of no use; null for none.</summary>
    public DateOnly? NeededBy { get; set; }

    /// <summary>Where a copy can be sent to; null for nowhere.</summary>
    public string? Email { get; set; }

    /// <summary>Where this installation is reached, for the desk's messages.</summary>
    public required string Back { get; set; }

    /// <summary>How it stands: what <see cref="LoanHistory"/> makes of its events.</summary>
    public LoanStatus Status { get; set; }

    /// <summary>When it was made, by the clock that loans follow.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>How it is with its copy.</summary>
    public LoanDelivery Delivery { get; set; }

    /// <summary>What came of fetching it, in a sentence; empty before.</summary>
    public string DeliverySentence { get; set; } = "";

    /// <summary>How often it was tried to be fetched.</summary>
    public int Tries { get; set; }

    /// <summary>When it is tried next, UTC.</summary>
    public DateTimeOffset NextAt { get; set; }
}

/// <summary>One thing that happened to a request. Rows are only ever added; of a message of ours it is noted when it went.</summary>
public sealed class LoanEventRow
{
    /// <summary>Id; a later one is larger.</summary>
    public int Id { get; set; }

    /// <summary>The request.</summary>
    public int LoanId { get; set; }

    /// <summary>What.</summary>
    public LoanEventKind Kind { get; set; }

    /// <summary>When, by the clock that loans follow.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>What the supplier wrote, as JSON; for a refusal what the desk said; null for anything else.</summary>
    public string? Said { get; set; }

    /// <summary>Whether the desk is still to be told of it.</summary>
    public bool IsWaiting { get; set; }

    /// <summary>How often it was tried to tell it.</summary>
    public int Tries { get; set; }

    /// <summary>When it is tried next, UTC.</summary>
    public DateTimeOffset NextAt { get; set; }

    /// <summary>Why the desk could not be told last time, in a sentence; null before.</summary>
    public string? Trouble { get; set; }
}
