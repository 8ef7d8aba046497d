using System.Text.RegularExpressions;
using Zendle.Core.Records;

namespace Zendle.Core.Citing;

/// <summary>
/// A work as texts cite it by name and year: "Berg 2019", "Berg et al. (2019a)", "Berg and colleagues, 2019", "(Berg &amp; Lind, 2019)".
/// </summary>
/// <param name="First">Family name of the first person.</param>
/// <param name="Second">Family name of the second one; null where only one is named.</param>
/// <param name="Year">Year, four digits.</param>
public sealed partial record NameAndYear(string First, string? Second, string Year)
{
    /// <summary>Reads a citation; null for a text that is more than that, or something else.</summary>
    public static NameAndYear? Of(string text) =>
        Cited().Match(text) is { Success: true } cited
            ? new(
                cited.Groups["first"].Value,
                cited.Groups["second"] is { Success: true } second ? second.Value : null,
                cited.Groups["year"].Value
            )
            : null;

    private const string Family =
        @"(?:(?:van|von|de|der|den|di|da|dos|la|le|el|al|ten|ter) )*\p{Lu}[\p{L}'’-]+(?: \p{Lu}[\p{L}'’-]+)?";

    [GeneratedRegex(
        @"^\(?(?<first>"
            + Family
            + @")(?:,? "
            + PrintedNames.AndOthers
            + @"|,? (?:and|&|und|et|y) (?<second>"
            + Family
            + @"))?,? \(?(?<year>(?:1[89]|20)\d\d)[a-z]?\)?[.;]?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Cited();
}
