namespace Zendle.Core.FullText;

/// <summary>
/// Whether anyone may read a work without paying, and in which version, in words. Follows from the best copy
/// (<see cref="TextAtHand"/>).
/// </summary>
public static class OpenAccess
{
    /// <summary>What a rank of <see cref="TextAtHand"/> means for open access.</summary>
    public static string Of(int textRank) =>
        textRank switch
        {
            0 => "open as published",
            _ when TextAtHand.IsFree(textRank) => "open in another version",
            _ when TextAtHand.IsLater(textRank) => "not open yet",
            _ when TextAtHand.IsSold(textRank) => "not open",
            _ => "not said",
        };
}
