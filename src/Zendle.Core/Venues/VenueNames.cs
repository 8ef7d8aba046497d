using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Venues;

/// <summary>
/// Whether two titles of venues mean one venue: abbreviations and lost small words count as the same.
/// </summary>
public static class VenueNames
{
    private static readonly HashSet<string> Small =
    [
        "of",
        "in",
        "and",
        "the",
        "on",
        "for",
        "a",
        "to",
        "der",
        "die",
        "und",
        "de",
        "la",
        "et",
    ];

    /// <summary>
    /// Two lists of folded words agree when, small words aside, they hold as many words and each is the other's
    /// beginning ("j", "journal"; "hedge"; "ecol", "ecology").
    /// </summary>
    public static bool Agree(ImmutableArray<string> a, ImmutableArray<string> b)
    {
        var (i, j) = (0, 0);
        while (true)
        {
            while (i < a.Length && Small.Contains(a[i]))
                i++;
            while (j < b.Length && Small.Contains(b[j]))
                j++;
            if (i == a.Length || j == b.Length)
                return i == a.Length && j == b.Length;
            if (!a[i].StartsWith(b[j], StringComparison.Ordinal) && !b[j].StartsWith(a[i], StringComparison.Ordinal))
                return false;
            i++;
            j++;
        }
    }

    /// <summary>Whether a folded word is one that abbreviations leave out.</summary>
    public static bool IsSmall(string word) => Small.Contains(word);

    /// <summary>The folded words of a title.</summary>
    public static ImmutableArray<string> WordsOf(string title) => [.. Words.AsWritten(title)];

    /// <summary>
    /// A key that every abbreviation of a title shares: the first letters of its words, small ones aside.
    /// </summary>
    public static string InitialsOf(string title) =>
        string.Concat(WordsOf(title).Where(w => !Small.Contains(w)).Select(w => w[0]));
}
