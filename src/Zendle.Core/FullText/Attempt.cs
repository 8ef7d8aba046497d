using System.Globalization;

namespace Zendle.Core.FullText;

/// <summary>Ways to a text, in the order they are tried.</summary>
public enum RouteKind
{
    /// <summary>The version of record where it was published.</summary>
    Publisher,

    /// <summary>An accepted manuscript in a repository.</summary>
    Manuscript,

    /// <summary>A submitted manuscript or preprint.</summary>
    Preprint,

    /// <summary>A copy whose version is not said.</summary>
    OtherCopy,

    /// <summary>Where the DOI leads, when no record names a copy there.</summary>
    Doi,

    /// <summary>Brought by a person.</summary>
    Person,

    /// <summary>An address that a person gave.</summary>
    Given,

    /// <summary>A library's holdings, by its link resolver and proxy.</summary>
    Library,

    /// <summary>A copy that another library made for a loan request.</summary>
    Loan,

    /// <summary>The book that a chapter stands in: its table of contents, or its whole file.</summary>
    Book,
}

/// <summary>How an attempt ended.</summary>
public enum AttemptOutcome
{
    /// <summary>The text came and is the work's.</summary>
    Got,

    /// <summary>A text came that may or may not be the work's; a person looks.</summary>
    Doubtful,

    /// <summary>The host asks a price. Noted, never paid.</summary>
    PriceAsked,

    /// <summary>The host asks for a sign-in.</summary>
    SignInAsked,

    /// <summary>There is nothing at the address.</summary>
    DeadLink,

    /// <summary>A page about the work came that leads to no text.</summary>
    NoTextThere,

    /// <summary>What came is no document.</summary>
    NotADocument,

    /// <summary>The document is another work's.</summary>
    AnotherWork,

    /// <summary>The file is empty.</summary>
    Empty,

    /// <summary>The file is cut off or does not parse to its end.</summary>
    Damaged,

    /// <summary>The file asks for a password.</summary>
    Encrypted,

    /// <summary>Pages are pictures without letters.</summary>
    NoLetters,

    /// <summary>The file carries a script.</summary>
    Scripted,

    /// <summary>The file has more pages than a work has.</summary>
    TooManyPages,

    /// <summary>The reply is larger than allowed, after decompression.</summary>
    TooLarge,

    /// <summary>The reply took longer than allowed.</summary>
    TooSlow,

    /// <summary>The host asked to wait, again and again, or for too long.</summary>
    Busy,

    /// <summary>The host could not be reached, or failed.</summary>
    Unreachable,

    /// <summary>The address, or one it led to, is not allowed by the settings.</summary>
    NotAllowed,

    /// <summary>Redirects without end.</summary>
    RedirectLoop,

    /// <summary>There was no room to store it.</summary>
    NoRoom,

    /// <summary>Reading the file takes more memory than a document may have.</summary>
    TooHeavy,

    /// <summary>The file ends whatever reads it.</summary>
    Unreadable,

    /// <summary>The host keeps programs away from the address.</summary>
    KeptAway,

    /// <summary>The text is held back until a day that its record names.</summary>
    Embargoed,
}

/// <summary>Words for routes and outcomes, the same on every screen and in the report.</summary>
public static class AttemptWords
{
    /// <summary>What a route is called.</summary>
    public static string Of(RouteKind route) =>
        route switch
        {
            RouteKind.Publisher => "publisher",
            RouteKind.Manuscript => "repository",
            RouteKind.Preprint => "preprint",
            RouteKind.OtherCopy => "other copy",
            RouteKind.Doi => "DOI",
            RouteKind.Person => "added by hand",
            RouteKind.Given => "address given",
            RouteKind.Library => "library",
            RouteKind.Loan => "loan",
            RouteKind.Book => "its book",
            _ => throw new ArgumentOutOfRangeException(nameof(route)),
        };

    /// <summary>An outcome as a reason why a text was not got, for the report.</summary>
    public static string Of(AttemptOutcome outcome) =>
        outcome switch
        {
            AttemptOutcome.Got => "got",
            AttemptOutcome.Doubtful => "needs a person’s decision",
            AttemptOutcome.PriceAsked => "a price is asked",
            AttemptOutcome.SignInAsked => "a sign-in is asked",
            AttemptOutcome.DeadLink => "dead link",
            AttemptOutcome.NoTextThere => "no text at the address",
            AttemptOutcome.NotADocument => "not a document",
            AttemptOutcome.AnotherWork => "another work behind the link",
            AttemptOutcome.Empty => "an empty file",
            AttemptOutcome.Damaged => "a damaged file",
            AttemptOutcome.Encrypted => "asks for a password",
            AttemptOutcome.NoLetters => "a scan without text",
            AttemptOutcome.Scripted => "carries a script",
            AttemptOutcome.TooManyPages => "too many pages",
            AttemptOutcome.TooLarge => "too large",
            AttemptOutcome.TooSlow => "too slow",
            AttemptOutcome.Busy => "the host asks to wait",
            AttemptOutcome.Unreachable => "the host does not answer",
            AttemptOutcome.NotAllowed => "the settings do not allow the address",
            AttemptOutcome.RedirectLoop => "redirects without end",
            AttemptOutcome.NoRoom => "no room on the disk",
            AttemptOutcome.TooHeavy => "takes too much memory to read",
            AttemptOutcome.Unreadable => "built so that it cannot be read",
            AttemptOutcome.KeptAway => "the host does not allow programs",
            AttemptOutcome.Embargoed => "under embargo",
            _ => throw new ArgumentOutOfRangeException(nameof(outcome)),
        };

    /// <summary>What came of an attempt, in a few words for the chain of attempts.</summary>
    /// <param name="outcome">How it ended.</param>
    /// <param name="sentence">What happened; of a text that came, its first part is said.</param>
    /// <param name="price">The price asked; null when none was said.</param>
    /// <param name="askedToWait">Seconds that hosts asked to be left alone on the way; 0 when none did.</param>
    public static string Brief(AttemptOutcome outcome, string sentence, string? price, int askedToWait = 0) =>
        (
            askedToWait > 0 && outcome != AttemptOutcome.Busy
                ? string.Create(CultureInfo.InvariantCulture, $"asked to wait {askedToWait} s, then ")
                : ""
        ) + Brief(outcome, sentence, price);

    private static string Brief(AttemptOutcome outcome, string sentence, string? price) =>
        outcome switch
        {
            AttemptOutcome.Got => sentence.Split(';')[0] + " received",
            AttemptOutcome.PriceAsked => price is null ? Of(outcome) : $"{price} asked",
            AttemptOutcome.Doubtful => "is it this work?",
            AttemptOutcome.AnotherWork => "another work, refused",
            AttemptOutcome.Damaged => "cut off, refused",
            _ => Of(outcome),
        };
}
