using System.Text.RegularExpressions;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Records;

/// <summary>
/// Takes the names of people apart as references print them: "Berg, M. K., &amp; Lind, P.", "Berg MK, Lind P",
/// "M. K. Berg and P. Lind", "Berg, Mei; Lind, Per", or one in each line.
/// </summary>
public static partial class PrintedNames
{
    /// <summary>How texts say that there are others whom they do not name, as a pattern. "U. A." are initials.</summary>
    internal const string AndOthers =
        @"(?:\bet\s+(?:al|coll)\b\.?|(?:\band|&)\s+(?:others|colleagues|co-?workers)\b|\b(?-i:u\.\s?a\.)|\by\s+(?:cols?\b\.?|otros\b))";

    /// <summary>The names of a text, in its order; "et al." and what says that they are editors is left out.</summary>
    /// <param name="text">The people of a reference, and nothing else.</param>
    public static IReadOnlyList<PersonName> Read(string text)
    {
        var plain = Editors().Replace(Others().Replace(text.ReplaceLineEndings("\n"), ""), "");
        return
        [
            .. plain
                .Split('\n')
                .SelectMany(Of)
                .Select(n => n with { Family = n.Given.Length > 0 ? Calm(n.Family) : n.Family }),
        ];
    }

    /// <summary>"BERG" with given names is Berg; "WHO", which has none, stays.</summary>
    private static string Calm(string family) =>
        family.Any(char.IsUpper) && !family.Any(char.IsLower) && !family.Contains(' ', StringComparison.Ordinal)
            ? Capital().Replace(family.ToLowerInvariant(), m => m.Value.ToUpperInvariant())
            : family;

    [GeneratedRegex(@"(?<![\p{L}])\p{L}", RegexOptions.CultureInvariant)]
    private static partial Regex Capital();

    private static IEnumerable<PersonName> Of(string line)
    {
        line = line.Trim(' ', ',', ';', '&', '\t');
        if (line.Length == 0)
            return [];
        if (line.Contains(';', StringComparison.Ordinal))
            return line.Split(';').SelectMany(Of);
        var parts = Between()
            .Split(line)
            .SelectMany(p => p.Split(','))
            .Select(p => Blanks().Replace(p, " ").Trim())
            .Where(p => p.Length > 0)
            .ToArray();
        // "Berg, Mei Anna" alone, or a name that stands whole.
        if (parts.Length == 1)
            return [One(parts[0])];
        if (parts.Length == 2 && !Between().IsMatch(line) && IsOne(parts[0], parts[1]))
            return [new(parts[0], parts[1])];
        return Pairs(parts);
    }

    /// <summary>Whether two parts are family and given names of one person rather than two people.</summary>
    private static bool IsOne(string first, string second) =>
        !HasInitialsBehind(first)
        && !HasInitials(first)
        && (
            !first.Contains(' ', StringComparison.Ordinal)
            || (
                !HasInitialsBehind(second)
                && (char.IsLower(first[0]) || !second.Contains(' ', StringComparison.Ordinal))
            )
        );

    /// <summary>Parts between commas and "and": a family name, and behind it what may be its given names.</summary>
    private static List<PersonName> Pairs(string[] parts)
    {
        var names = new List<PersonName>();
        for (var i = 0; i < parts.Length; i++)
        {
            var isFollowed = i + 1 < parts.Length && HasInitials(parts[i + 1]);
            var isShouted = i + 1 < parts.Length && IsShouted(parts[i]) && !IsShouted(parts[i + 1]);
            if (isShouted || (isFollowed && IsFamily(parts[i])))
                names.Add(new(parts[i], parts[++i]));
            // "Berg, Mei, and P. Lind": only the first is turned round, its given names are no initials.
            else if (i == 0 && parts.Length > 1 && IsTurnedRound(parts))
                names.Add(new(parts[i], parts[++i]));
            else if (IsFamily(parts[i]) || HasInitialsBehind(parts[i]))
                names.Add(One(parts[i]));
        }
        return names;
    }

    /// <summary>Whether the first name is written family first, and the others given names first.</summary>
    private static bool IsTurnedRound(string[] parts) =>
        !parts[0].Contains(' ', StringComparison.Ordinal)
        && !HasInitials(parts[1])
        && (HasInitialsBehind(parts[1]) || !parts[1].Contains(' ', StringComparison.Ordinal))
        && parts.Skip(2).All(p => p.Contains(' ', StringComparison.Ordinal));

    private static PersonName One(string name)
    {
        if (InitialsBehind().Match(name) is { Success: true } behind)
            return new(behind.Groups["family"].Value, Spelled(behind.Groups["given"].Value));
        if (InitialsBefore().Match(name) is { Success: true } before)
            return new(before.Groups["family"].Value.Trim(' ', '.'), before.Groups["given"].Value.Trim());
        // A full stop behind a whole name ends the sentence.
        var (family, given) = NameLists.SplitOne(name.Length > 2 && char.IsLower(name[^2]) ? name.TrimEnd('.') : name);
        // "van der Berg": particles belong to the family name.
        while (given.LastIndexOf(' ') is var at && given.Length > 0 && char.IsLower(given[at + 1]))
            (family, given) = ($"{given[(at + 1)..]} {family}", at < 0 ? "" : given[..at]);
        return new(family, given);
    }

    /// <summary>Whether a part is written in capitals, as some styles write family names.</summary>
    private static bool IsShouted(string part) =>
        part.Count(char.IsUpper) > 2 && !part.Any(char.IsLower) && !part.Contains('.', StringComparison.Ordinal);

    /// <summary>Whether a part is more than initials; "LEE" before "K." is.</summary>
    private static bool IsFamily(string part) =>
        !HasInitialsBehind(part) && (!HasInitials(part) || (part.Length > 2 && part.All(char.IsLetter)));

    private static bool HasInitials(string part) => Initials().IsMatch(part);

    private static bool HasInitialsBehind(string part) => InitialsBehind().IsMatch(part);

    /// <summary>"MK" is "M. K.".</summary>
    private static string Spelled(string initials) =>
        string.Join(' ', initials.Where(char.IsUpper).Select(c => $"{c}."));

    [GeneratedRegex(
        @"[,;]?\s*(?:" + AndOthers + @"|…|\.\.\.).*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Others();

    [GeneratedRegex(
        @"[\s,]*[(\[]?\b(?:eds?\.?|editors?|hrsg\.?|coords?\.?)(?:[)\]]|[\s.,]*$)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Editors();

    [GeneratedRegex(@"\s*(?:,\s*)?(?:&|\b(?:and|und|et|y|e)\b)\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Between();

    [GeneratedRegex(@"\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();

    /// <summary>"M. K.", "M.-K.", "MK", "M".</summary>
    [GeneratedRegex(
        @"^(?:\p{Lu}\p{Ll}?\.[\s-]?)+$|^\p{Lu}(?:[\s-]?\p{Lu}){0,2}$|^(?:\p{Lu}\p{Ll}?\.[\s-]?)+\p{Lu}\.?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Initials();

    /// <summary>"Berg MK", "van der Berg M", "Berg M.K.", "BERG M. K.".</summary>
    [GeneratedRegex(
        @"^(?<family>[\p{L}'’.-]*\p{Ll}[\p{L}'’ -]*?) (?<given>\p{Lu}(?:-?\p{Lu}){0,3}\.?|(?:\p{Lu}\p{Ll}?\.[\s-]?){1,4})$"
            + @"|^(?<family>[\p{Lu}'’-]{2,}(?: [\p{Lu}'’-]{2,})*) (?<given>(?:\p{Lu}\.[\s-]?){1,4})$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex InitialsBehind();

    /// <summary>"M. K. Berg", "M.-K. van der Berg".</summary>
    [GeneratedRegex(
        @"^(?<given>(?:\p{Lu}\p{Ll}?\.[\s-]?)+)\s*(?<family>[\p{L}'’][\p{L}'’. -]+)$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex InitialsBefore();
}
