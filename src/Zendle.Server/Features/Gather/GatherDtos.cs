using Zendle.Core.FullText;
using Zendle.Core.Loans;
using Zendle.Server.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>One try of one route.</summary>
/// <param name="Brief">What came of it, in a few words for the chain.</param>
/// <param name="AskedToWait">Seconds that hosts asked to be left alone on the way.</param>
internal sealed record AttemptDto(
    string Route,
    string Address,
    AttemptOutcome Outcome,
    string Brief,
    string Sentence,
    DateTimeOffset At,
    int Milliseconds,
    int AskedToWait
);

/// <summary>A document of a work.</summary>
/// <param name="Pages">0 where its format has none.</param>
internal sealed record TextDto(
    int Id,
    string? Version,
    TextFormat Format,
    int Pages,
    int Bytes,
    TextVerdict Verdict,
    string Sentence,
    string Route,
    string Source,
    DateTimeOffset At
);

/// <summary>How the text of a work stands.</summary>
internal enum GatherState
{
    /// <summary>Nobody has asked for it.</summary>
    NotSought,

    /// <summary>It waits its turn, or is being tried.</summary>
    Waiting,

    /// <summary>A document came that a person must look at.</summary>
    ToLookAt,

    /// <summary>No route gave it.</summary>
    NotFound,

    /// <summary>It is here.</summary>
    InHand,

    /// <summary>Whoever asked has to sign in to their library; then it goes on.</summary>
    SignIn,

    /// <summary>Another library was asked for it, or has lent it.</summary>
    ByLoan,
}

/// <summary>The last request for a work to another library.</summary>
/// <param name="Desk">The desk that was asked.</param>
/// <param name="IsOpen">Whether something is still to come of it.</param>
/// <param name="IsLent">Whether the item is with the reader.</param>
/// <param name="Why">Why it is not supplied, or only otherwise; null for no reason told.</param>
/// <param name="ExpectedOn">The day on which it is expected; null for none told.</param>
/// <param name="DueOn">The day on which the item is due back; null when it is not lent.</param>
/// <param name="Delivery">How it is with its copy.</param>
/// <param name="IsAtHost">Whether the copy is said to lie at an address.</param>
internal sealed record GatherLoanDto(
    int Id,
    string Desk,
    LoanStatus Status,
    bool IsOpen,
    bool IsLent,
    string? Why,
    DateOnly? ExpectedOn,
    DateOnly? DueOn,
    LoanDelivery Delivery,
    bool IsAtHost
);

/// <summary>One work of the table.</summary>
/// <param name="Copies">How its text can be had, as its records tell.</param>
/// <param name="Sentence">What is the matter, or the next act.</param>
/// <param name="Going">What goes on at this moment; null when nothing does.</param>
/// <param name="Share">Share of the document that has come, 0–1.</param>
/// <param name="Withdrawn">Whether it is in no database any more.</param>
/// <param name="Loan">The last request for it to another library; null for none.</param>
internal sealed record GatherRowDto(
    int WorkId,
    string Title,
    string People,
    int? Year,
    string? Venue,
    string Copies,
    GatherState State,
    string Sentence,
    string? Going,
    double? Share,
    IReadOnlyList<AttemptDto> Attempts,
    IReadOnlyList<TextDto> Texts,
    bool Withdrawn,
    GatherLoanDto? Loan
);

/// <summary>The kept works by how their texts stand.</summary>
internal sealed record GatherDto(
    int NeedYou,
    int OnTheirWay,
    int ByLoan,
    int InHand,
    int NotSought,
    JobDto? Job,
    IReadOnlyList<GatherRowDto> Works
);

/// <summary>
/// Whose texts to seek: the works named, or all kept ones that were not sought; with <c>Again</c> those that were
/// sought in vain.
/// </summary>
/// <param name="Address">Of one work: where its text may lie, to be tried before all else.</param>
internal sealed record GatherRequest(IReadOnlyList<int>? Works, bool Again, string? Address = null);

internal sealed record GatherAskedDto(int Sought, JobDto? Job);

/// <summary>All of one document, for reading it or looking at it beside its record.</summary>
internal sealed record TextDetailDto(
    int Id,
    int WorkId,
    string Title,
    string People,
    int? Year,
    string? Version,
    TextFormat Format,
    int Pages,
    int Bytes,
    TextVerdict Verdict,
    string Sentence,
    string Source,
    IReadOnlyList<CheckLine> Checks,
    IReadOnlyList<DocumentHeading> Headings,
    string FileName,
    DateTimeOffset At
);

/// <summary>What a person says of a document.</summary>
internal enum SettleAnswer
{
    /// <summary>It is the work.</summary>
    This,

    /// <summary>It is another version of the work.</summary>
    OtherVersion,

    /// <summary>It is not the work.</summary>
    Not,
}

internal sealed record SettleRequest(SettleAnswer Answer);

/// <summary>What came of a document that a person brought.</summary>
/// <param name="WorkId">The work it was recognised as; null when it was not.</param>
/// <param name="Title">That work's title.</param>
/// <param name="TextId">The stored document; null when it was not taken.</param>
/// <param name="Sentence">What happened.</param>
/// <param name="Unknown">Where no work fits: what the document says of itself; null for everything else.</param>
internal sealed record BroughtDto(
    int? WorkId,
    string? Title,
    int? TextId,
    TextVerdict? Verdict,
    string Sentence,
    OwnTitle? Unknown = null
);
