using F23.StringSimilarity;
using Zendle.Core.Venues;

namespace Zendle.Core.Merging;

/// <summary>
/// What two titles that are nearly alike differ in: a slip of the pen, or a word that makes another study of it ("male"
/// and "female", "managed" and "unmanaged", one place and another, part I and part II). Judged by the words, not by how
/// many letters differ.
/// </summary>
public static class TitleDifference
{
    private const int MostWords = 3;

    /// <summary>Letters dropped, added, wrong, or two that changed places.</summary>
    private static readonly OptimalStringAlignment Slips = new();

    /// <summary>
    /// Beginnings that turn a word over or place it elsewhere: "unmanaged", "postnatal", "subsurface".
    /// </summary>
    private static readonly string[] Prefixes =
    [
        "un",
        "non",
        "in",
        "im",
        "ir",
        "il",
        "dis",
        "de",
        "a",
        "an",
        "anti",
        "counter",
        "pre",
        "post",
        "peri",
        "sub",
        "super",
        "supra",
        "infra",
        "hypo",
        "hyper",
        "intra",
        "inter",
        "extra",
        "trans",
        "micro",
        "macro",
        "meso",
        "mono",
        "bi",
        "di",
        "tri",
        "poly",
        "multi",
        "uni",
        "fe",
        "re",
        "co",
        "auto",
        "allo",
        "iso",
        "hetero",
        "homo",
        "endo",
        "ecto",
        "exo",
        "epi",
        "over",
        "under",
        "up",
        "down",
        "fore",
        "after",
        "out",
        "para",
        "pseudo",
        "neo",
        "paleo",
        "semi",
    ];

    /// <summary>
    /// Endings that name another thing of a kind: nitrate and nitrite, ethane and ethene, predator and predation.
    /// </summary>
    private static readonly string[] Endings =
    [
        "ate",
        "ite",
        "ide",
        "ane",
        "ene",
        "yne",
        "ine",
        "one",
        "ol",
        "al",
        "ase",
        "ose",
        "ic",
        "ous",
        "or",
        "er",
        "ion",
        "ivity",
        "less",
        "ful",
        "ward",
    ];

    /// <summary>
    /// Whether two titles, as folded words joined by blanks, differ in a word that makes another work of it.
    /// </summary>
    public static bool IsMeaningful(string a, string b)
    {
        if (
            a == b
            || string.Equals(
                a.Replace(" ", "", StringComparison.Ordinal),
                b.Replace(" ", "", StringComparison.Ordinal),
                StringComparison.Ordinal
            )
        )
            return false;
        var (onlyA, onlyB) = Apart(a.Split(' '), b.Split(' '));
        // Divided otherwise, or a blank lost in the middle of a misprint.
        if (IsSlip(string.Concat(onlyA), string.Concat(onlyB)) && onlyA.Count != onlyB.Count)
            return false;
        if (onlyA.Count == onlyB.Count)
            RemoveWhereSmall(onlyA, onlyB);
        onlyA.RemoveAll(VenueNames.IsSmall);
        onlyB.RemoveAll(VenueNames.IsSmall);
        if (onlyA.Count == 0 && onlyB.Count == 0)
            return false;
        // More differs than one would call a word: that is for how alike the titles are as a whole.
        if (onlyA.Count != onlyB.Count)
            return Math.Abs(onlyA.Count - onlyB.Count) <= MostWords;
        if (onlyA.Count > MostWords)
            return false;
        for (var i = 0; i < onlyA.Count; i++)
            if (!IsSlip(onlyA[i], onlyB[i]))
                return true;
        return false;
    }

    /// <summary>
    /// Takes out small words of one title that stand misspelt in the other: "o" for "of", "thee" for "the".
    /// </summary>
    private static void RemoveWhereSmall(List<string> a, List<string> b)
    {
        for (var i = a.Count - 1; i >= 0; i--)
        {
            // Two letters by themselves are names of things: vitamin A and vitamin D.
            if (
                (!IsLittle(a[i]) && !IsLittle(b[i]))
                || a[i].Length + b[i].Length < 3
                || Slips.Distance(a[i], b[i]) > 1
                || a[i].Any(char.IsAsciiDigit)
                || b[i].Any(char.IsAsciiDigit)
            )
                continue;
            a.RemoveAt(i);
            b.RemoveAt(i);
        }

        static bool IsLittle(string word) =>
            VenueNames.IsSmall(word)
            || word
                is "at"
                    or "by"
                    or "from"
                    or "with"
                    or "is"
                    or "are"
                    or "as"
                    or "an"
                    or "its"
                    or "how"
                    or "what"
                    or "after"
                    or "under"
                    or "over"
                    or "across"
                    or "between";
    }

    /// <summary>
    /// The words that each of two titles has and the other has not, by their longest common sequence. O(words²).
    /// </summary>
    private static (List<string> OnlyA, List<string> OnlyB) Apart(string[] a, string[] b)
    {
        var length = new int[a.Length + 1, b.Length + 1];
        for (var i = a.Length - 1; i >= 0; i--)
        for (var j = b.Length - 1; j >= 0; j--)
            length[i, j] = a[i] == b[j] ? length[i + 1, j + 1] + 1 : Math.Max(length[i + 1, j], length[i, j + 1]);
        var (onlyA, onlyB, x, y) = (new List<string>(), new List<string>(), 0, 0);
        while (x < a.Length && y < b.Length)
        {
            if (a[x] == b[y])
                (x, y) = (x + 1, y + 1);
            else if (length[x + 1, y] >= length[x, y + 1])
                onlyA.Add(a[x++]);
            else
                onlyB.Add(b[y++]);
        }
        onlyA.AddRange(a[x..]);
        onlyB.AddRange(b[y..]);
        return (onlyA, onlyB);
    }

    /// <summary>
    /// Whether one word may be the other with a slip of pen or scanner: a letter dropped, doubled, misread; never a
    /// number, a letter by itself, or a word turned over by its beginning or ending.
    /// </summary>
    public static bool IsSlip(string a, string b)
    {
        if (a == b)
            return true;
        var (brief, full) = a.Length <= b.Length ? (a, b) : (b, a);
        // One thing and several of it are one study.
        if (
            brief.Length >= 3
            && full.Length == brief.Length + 1
            && full[^1] == 's'
            && full.StartsWith(brief, StringComparison.Ordinal)
        )
            return true;
        if (IsNumber(a) || IsNumber(b))
            return false;
        // What scanners misread counts as no letter at all.
        var (x, y) = (Misread(a), Misread(b));
        if (x == y)
            return true;
        if (brief.Length < 4 && (brief.Length < 2 || full.Length != brief.Length + 1))
            return false;
        foreach (var prefix in Prefixes)
        {
            // "cross" and "across" are not two studies, "biotic" and "abiotic" are.
            if (prefix.Length == 1 && brief.Length < 6)
                continue;
            if (
                full.Length == brief.Length + prefix.Length
                && full.StartsWith(prefix, StringComparison.Ordinal)
                && full.EndsWith(brief, StringComparison.Ordinal)
            )
                return false;
            foreach (var other in Prefixes)
                if (
                    prefix != other
                    && a.Length - prefix.Length == b.Length - other.Length
                    && a.Length - prefix.Length >= 3
                    && a.StartsWith(prefix, StringComparison.Ordinal)
                    && b.StartsWith(other, StringComparison.Ordinal)
                    && a[prefix.Length..] == b[other.Length..]
                )
                    return false;
        }
        if (Math.Abs(a.Length - b.Length) <= 1)
            foreach (var ending in Endings)
            foreach (var other in Endings)
                if (
                    ending != other
                    && a.EndsWith(ending, StringComparison.Ordinal)
                    && b.EndsWith(other, StringComparison.Ordinal)
                    && a[..^ending.Length] == b[..^other.Length]
                )
                    return false;
        return Slips.Distance(x, y) <= (Math.Min(x.Length, y.Length) >= 9 ? 2 : 1);
    }

    private static bool IsNumber(string word) => word.All(char.IsAsciiDigit) || word.All(c => c is 'i' or 'v' or 'x');

    private static string Misread(string word) =>
        word.Replace('0', 'o')
            .Replace('1', 'l')
            .Replace("rn", "m", StringComparison.Ordinal)
            .Replace("li", "h", StringComparison.Ordinal)
            .Replace("cl", "d", StringComparison.Ordinal)
            .Replace("ii", "u", StringComparison.Ordinal)
            .Replace("vv", "w", StringComparison.Ordinal);
}
