using System.Text.RegularExpressions;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Takes names apart that stand in one field: one name into family and given, a whole list into its names.
/// </summary>
internal static partial class NameLists
{
    /// <summary>Splits "Family, Given"; a name without a comma is taken as family name last.</summary>
    public static (string Family, string Given) SplitOne(string whole)
    {
        // Catalogues add the years of a life: "Family, Given, 1961-2020".
        whole = LifeYears().Replace(whole, "").TrimEnd(' ', ',');
        // An organisation has no given names: "World Forum on Bees" is no person called Bees.
        if (Organisation().IsMatch(whole))
            return (whole, "");
        var comma = whole.IndexOf(',', StringComparison.Ordinal);
        if (comma > 0)
            return (whole[..comma].Trim(), whole[(comma + 1)..].Trim());
        var space = whole.LastIndexOf(' ');
        return space > 0 ? (whole[(space + 1)..], whole[..space]) : (whole, "");
    }

    /// <summary>
    /// The names of a list in one string: between semicolons, or between commas and an "and" where it is beyond doubt
    /// what is a name: "Mei Berg, Per Lind and Ola Moe", "Berg, M., Lind, P. and Moe, O.". Anything else is one name.
    /// </summary>
    public static IReadOnlyList<(string Family, string Given)> Split(string text)
    {
        if (text.Contains(';', StringComparison.Ordinal))
            return
            [
                .. text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                    .Select(SplitOne)
                    .Where(n => n.Family.Length > 0),
            ];
        if (Organisation().IsMatch(text))
            return [(text.Trim(), "")];
        var last = And().Match(text);
        var before = (last.Success ? text[..last.Index] : text).Split(
            ',',
            StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
        );
        string[] parts = last.Success
            ?
            [
                .. before,
                .. text[(last.Index + last.Length)..]
                    .Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries),
            ]
            : before;
        // "Berg, M., Lind, P.": family names and initials take turns.
        if (
            parts.Length >= 4
            && parts.Length % 2 == 0
            && parts.Where((_, i) => i % 2 == 1).All(p => Initials().IsMatch(p))
            && parts.Where((_, i) => i % 2 == 0).All(p => !Initials().IsMatch(p))
        )
            return [.. parts.Chunk(2).Select(p => (p[0], p[1]))];
        // "Mei Berg, Per Lind and Ola Moe": without the "and", "Berg, Mei Anna" would look alike.
        return last.Success && parts.All(p => p.Contains(' ', StringComparison.Ordinal))
            ? [.. parts.Select(SplitOne)]
            : [SplitOne(text)];
    }

    [GeneratedRegex(@",?\s*\(?[12]\d{3}\s*[-–]\s*([12]\d{3})?\)?\.?$", RegexOptions.CultureInvariant)]
    private static partial Regex LifeYears();

    [GeneratedRegex(
        @"\b(?:universit(?:y|at|ät|é|e|ad|à|eit)|universidade?|institut(?:e|o|ion)?|forum|association"
            + @"|society|committee|commission|ministr(?:y|erio|ère)|ministerium|agency|organi[sz]ation|consortium"
            + @"|network|council|cent(?:er|re)|department|bureau|foundation|union|academy|federation|alliance"
            + @"|authority|programme|initiative|secretariat|task force|working group|study group|research group"
            + @"|collaboration|panel|gesellschaft|verein|stiftung|college|hospital|museum|library|laborator(?:y"
            + @"|ies)|station|bank|office|survey|service)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Organisation();

    [GeneratedRegex(@",?\s+(?:and|&)\s+", RegexOptions.CultureInvariant | RegexOptions.RightToLeft)]
    private static partial Regex And();

    [GeneratedRegex(@"^(?:\p{Lu}\.?[\s-]?){1,4}$", RegexOptions.CultureInvariant)]
    private static partial Regex Initials();
}
