namespace Zendle.Core.FullText;

/// <summary>Why a text was not got, as one reason for a work that was tried on several routes.</summary>
public static class NotGot
{
    /// <summary>What a work without any known address is counted under.</summary>
    public const string NoCopy = "no copy is known";

    /// <summary>From the reason that a person can do most about to the one they can do least about.</summary>
    private static readonly AttemptOutcome[] Weight =
    [
        AttemptOutcome.Doubtful,
        AttemptOutcome.NoRoom,
        AttemptOutcome.Embargoed,
        AttemptOutcome.PriceAsked,
        AttemptOutcome.SignInAsked,
        AttemptOutcome.KeptAway,
        AttemptOutcome.Encrypted,
        AttemptOutcome.NoLetters,
        AttemptOutcome.Scripted,
        AttemptOutcome.TooManyPages,
        AttemptOutcome.TooLarge,
        AttemptOutcome.NotAllowed,
        AttemptOutcome.AnotherWork,
        AttemptOutcome.Damaged,
        AttemptOutcome.Empty,
        AttemptOutcome.NotADocument,
        AttemptOutcome.TooSlow,
        AttemptOutcome.Busy,
        AttemptOutcome.Unreachable,
        AttemptOutcome.RedirectLoop,
        AttemptOutcome.NoTextThere,
        AttemptOutcome.DeadLink,
    ];

    /// <summary>The one reason; the weightiest of all outcomes.</summary>
    /// <param name="outcomes">How the attempts of the last round ended.</param>
    public static string Reason(IReadOnlyCollection<AttemptOutcome> outcomes) =>
        outcomes.Count == 0
            ? NoCopy
            : AttemptWords.Of(outcomes.MinBy(o => Array.IndexOf(Weight, o) is >= 0 and var i ? i : int.MaxValue));
}
