using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>
/// From which day anyone may read a text that is held back, as records say it: in the words of the OpenAIRE guidelines
/// (<c>info:eu-repo/date/embargoEnd/2027-05-01</c>), or in a sentence that speaks of an embargo and names a day.
/// </summary>
public static partial class EmbargoEnd
{
    /// <summary>
    /// The day. Of a month or a year alone its last day, so that nothing is promised too early; null where no embargo or no day
    /// is named.
    /// </summary>
    /// <param name="statement">What a record says of rights or dates.</param>
    public static DateOnly? In(string statement) =>
        Embargo().Match(statement) is { Success: true } word
            ? PartialDate.Read(PublicationDate.Read(statement[(word.Index + word.Length)..].Trim(Around)))?.Last
            : null;

    /// <summary>Whether a statement speaks of an embargo, in words or by the concept of the COAR access rights.</summary>
    /// <param name="statement">What a record says of rights or dates.</param>
    public static bool IsTold(string statement) => Told().IsMatch(statement);

    /// <summary>What a field that holds the day alone says, as a statement.</summary>
    /// <param name="day">The day, in any form.</param>
    public static string Said(string day) => $"embargo until {day}";

    private static readonly char[] Around = [' ', ':', '/', '.', ',', '(', ')', '-', '–'];

    [GeneratedRegex(
        @"embargo(?:ed|ado|end)?(?:[ _-]*(?:access|period|end|ends|date|until|till|to|bis|jusqu.au|hasta|at[ée]))*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Embargo();

    [GeneratedRegex(@"embargo|c_f1cf\b", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Told();
}
