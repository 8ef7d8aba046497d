using System.Globalization;
using Zendle.Core.Text;

namespace Zendle.Core.Formats;

/// <summary>
/// Short keys for citations: first family name, year, first telling word of the title; made unique by a letter. A key
/// that was given once stays its work's, whatever else is exported later and however the work's record changes; who
/// keeps the keys says which are taken.
/// </summary>
public static class CitationKeys
{
    /// <summary>
    /// One key for each citation, in order: ASCII letters, digits and a hyphen, unique in the list and among those
    /// taken.
    /// </summary>
    /// <param name="citations">Works that have no key yet.</param>
    /// <param name="taken">Keys of other works.</param>
    public static IReadOnlyList<string> For(IReadOnlyList<Citation> citations, IReadOnlySet<string> taken)
    {
        var (used, last) = (
            taken.ToHashSet(StringComparer.Ordinal),
            new Dictionary<string, int>(StringComparer.Ordinal)
        );
        return
        [
            .. citations.Select(c =>
            {
                var stem = Stem(c);
                for (var n = last.GetValueOrDefault(stem) + 1; ; n++)
                {
                    var key = n == 1 ? stem : stem + Suffix(n);
                    if (!used.Add(key))
                        continue;
                    last[stem] = n;
                    return key;
                }
            }),
        ];
    }

    private static string Stem(Citation c)
    {
        var family = c.Authors.Concat(c.Editors).FirstOrDefault() is { } first ? Ascii(first.Family) : "anon";
        var word = Words.Of(c.Title).Select(w => Ascii(w.Text)).FirstOrDefault(w => w.Length > 3) ?? "work";
        return $"{family}{c.Year?.ToString(CultureInfo.InvariantCulture) ?? "nd"}{word}";
    }

    private static string Ascii(string text) =>
        string.Concat(Words.Fold(text).Where(char.IsAsciiLetterOrDigit)) is { Length: > 0 } plain ? plain : "anon";

    private static string Suffix(int n)
    {
        var suffix = "";
        for (n--; n > 0; n = (n - 1) / 26)
            suffix = (char)('a' + (n - 1) % 26) + suffix;
        return "-" + suffix;
    }
}
