using Zendle.Core.Loans;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Loans;

/// <summary>A desk that a person may ask.</summary>
/// <param name="Library">The library in whose name is asked there.</param>
/// <param name="CopyCost">What a copy costs; null when not said.</param>
/// <param name="LendCost">What a loan costs; null when not said.</param>
/// <param name="MostOpen">How many open requests a person may have there; null for no limit.</param>
/// <param name="Open">How many the person has there.</param>
/// <param name="Days">How many days it usually takes; null when not said.</param>
internal sealed record AskableDeskDto(
    int Id,
    string Name,
    string Library,
    decimal? CopyCost,
    decimal? LendCost,
    string Currency,
    int? MostOpen,
    int Open,
    int? Days
);

/// <summary>A request for a work before it is sent.</summary>
/// <param name="Title">The work's title.</param>
/// <param name="Fields">What it would say.</param>
/// <param name="Faults">What is wrong with it.</param>
/// <param name="Asked">The desks that were asked for the work in vain.</param>
/// <param name="IsOpen">Whether a request for the work is on its way.</param>
/// <param name="HasText">Whether the text is in hand.</param>
internal sealed record LoanDraftDto(
    int WorkId,
    string Title,
    LoanFields Fields,
    IReadOnlyList<LoanFieldFault> Faults,
    IReadOnlyList<int> Asked,
    bool IsOpen,
    bool HasText
);

/// <summary>Requests before they are sent, and where they can be sent to.</summary>
internal sealed record LoanDraftsDto(IReadOnlyList<AskableDeskDto> Desks, IReadOnlyList<LoanDraftDto> Drafts);

/// <summary>For which works.</summary>
internal sealed record LoanDraftsRequest(IReadOnlyList<int> Works);

/// <summary>One request.</summary>
/// <param name="MostCost">What it may cost at most, in the desk's currency; null to say nothing.</param>
/// <param name="NeededBy">The day after which it is of no use; null for none.</param>
/// <param name="Email">Where a copy can be sent to; null for nowhere.</param>
/// <param name="Previous">The request that it repeats otherwise; null for a new one.</param>
internal sealed record NewLoanDto(
    int WorkId,
    int DeskId,
    LoanFields Fields,
    decimal? MostCost,
    DateOnly? NeededBy,
    string? Email,
    int? Previous
);

/// <summary>Requests to make.</summary>
internal sealed record AskLoansRequest(IReadOnlyList<NewLoanDto> Requests);

/// <summary>A request that was not made.</summary>
internal sealed record NotAskedDto(int WorkId, string Sentence);

/// <summary>What came of asking.</summary>
internal sealed record LoansAskedDto(int Asked, IReadOnlyList<NotAskedDto> NotAsked);

/// <summary>What a person does with a request that was made.</summary>
internal enum LoanAct
{
    /// <summary>Takes it back.</summary>
    Cancel,

    /// <summary>Asks the desk how it stands.</summary>
    AskStatus,

    /// <summary>Says that the item has come.</summary>
    Received,

    /// <summary>Says that the item is on its way back.</summary>
    Returned,

    /// <summary>Fetches the copy again.</summary>
    Fetch,
}

/// <summary>An act.</summary>
internal sealed record LoanActRequest(LoanAct Act);

/// <summary>One thing that happened to a request.</summary>
/// <param name="Message">What the supplier wrote; null for anything else.</param>
/// <param name="IsWaiting">Whether the desk is still to be told of it.</param>
/// <param name="Trouble">Why the desk could not be told, or did not take it; null for nothing.</param>
internal sealed record LoanEventDto(
    LoanEventKind Kind,
    DateTimeOffset At,
    LoanToldDto? Message,
    bool IsWaiting,
    string? Trouble
);

/// <summary>What a supplier wrote.</summary>
internal sealed record LoanToldDto(
    LoanMessageReason Reason,
    LoanStatus? Status,
    string? Why,
    string Note,
    bool? Answer
);

/// <summary>A request that was made.</summary>
/// <param name="Number">The number under which the desk knows it.</param>
/// <param name="By">Who asked.</param>
/// <param name="IsMine">Whether that is whoever looks.</param>
/// <param name="State">How it stands.</param>
/// <param name="Trouble">Why it could not be handed over yet; null for nothing.</param>
/// <param name="Delivery">How it is with its copy.</param>
/// <param name="DeliverySentence">What came of fetching that; empty before.</param>
internal sealed record LoanDto(
    int Id,
    int WorkId,
    string Number,
    string By,
    bool IsMine,
    int DeskId,
    string Desk,
    string Library,
    LoanFields Fields,
    decimal? MostCost,
    string Currency,
    LoanState State,
    string? Trouble,
    LoanDelivery Delivery,
    string DeliverySentence,
    DateTimeOffset At,
    IReadOnlyList<LoanEventDto> Events
);

/// <summary>The requests of a review.</summary>
/// <param name="HasDesks">Whether a library of whoever looks has a desk to ask.</param>
/// <param name="Loans">The youngest first.</param>
internal sealed record LoansDto(bool HasDesks, LoanAccount Account, IReadOnlyList<LoanDto> Loans);

/// <summary>A desk of a library, as a curator sees it.</summary>
/// <param name="HasAccount">Whether an account there is known.</param>
internal sealed record LoanDeskDto(
    int Id,
    int LibraryId,
    string Name,
    string Supplier,
    string Requester,
    string Address,
    decimal? CopyCost,
    decimal? LendCost,
    string Currency,
    int? MostOpen,
    int? Days,
    bool HasAccount
);

/// <summary>A desk added by hand.</summary>
/// <param name="Supplier">Identifier of the library that supplies (ISIL).</param>
/// <param name="Requester">Identifier of the library in whose name is asked (ISIL).</param>
/// <param name="Address">Where its messages are sent to.</param>
/// <param name="Account">The account there; null for none.</param>
/// <param name="Code">What proves it; null for nothing.</param>
internal sealed record NewLoanDeskRequest(
    string Name,
    string Supplier,
    string Requester,
    string Address,
    decimal? CopyCost,
    decimal? LendCost,
    string? Currency,
    int? MostOpen,
    int? Days,
    string? Account,
    string? Code
);

/// <summary>Where a desk writes to.</summary>
internal sealed record LoanDeskBackDto(string Address);
