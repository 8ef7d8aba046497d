namespace Zendle.Core.Queries;

/// <summary>Writes a truncation anew when some of the words it stands for are not meant.</summary>
public static class Truncations
{
    /// <summary>A truncation stands for more than a person has in mind when it brings so many words.</summary>
    public const int ManyWords = 15;

    /// <summary>Or when so few letters stand before its star.</summary>
    public const int FewLetters = 3;

    /// <summary>Whether a folded pattern that stands for <paramref name="words"/> words deserves a look.</summary>
    public static bool IsWide(string pattern, int words) =>
        TermNode.IsPattern(pattern)
        && words > 1
        && (words >= ManyWords || pattern.IndexOfAny(['*', '?']) <= FewLetters);

    /// <summary>
    /// The shortest truncations that still bring every word that is meant and none that is not; a word that stands
    /// alone is written whole. O(letters of all words).
    /// </summary>
    /// <param name="pattern">The pattern, folded. One that does not only end in * is written as the words that are
    /// meant.</param>
    /// <param name="words">All words it stands for, folded.</param>
    /// <param name="notMeant">Those that are not meant.</param>
    /// <returns>Terms in the order of the alphabet; the pattern itself when every word is meant, none when no word
    /// is.</returns>
    public static IReadOnlyList<string> Without(
        string pattern,
        IEnumerable<string> words,
        IReadOnlySet<string> notMeant
    )
    {
        var all = words.Distinct().Order(StringComparer.Ordinal).ToArray();
        if (!all.Any(notMeant.Contains))
            return [pattern];
        var found = new List<string>();
        var isOpenEnd =
            pattern.IndexOf('*', StringComparison.Ordinal) == pattern.Length - 1
            && !pattern.Contains('?', StringComparison.Ordinal);
        if (isOpenEnd)
            Cover(all, pattern.Length - 1, notMeant, found);
        else
            found.AddRange(all.Where(w => !notMeant.Contains(w)));
        return found;
    }

    /// <summary>Covers words that share their first letters.</summary>
    private static void Cover(ReadOnlySpan<string> words, int shared, IReadOnlySet<string> notMeant, List<string> found)
    {
        var (meant, not) = (0, 0);
        foreach (var word in words)
            if (notMeant.Contains(word))
                not++;
            else
                meant++;
        if (meant == 0)
            return;
        if (not == 0)
        {
            found.Add(words.Length == 1 ? words[0] : words[0][..Shared(words)] + "*");
            return;
        }
        for (var i = 0; i < words.Length; )
        {
            if (words[i].Length == shared)
            {
                if (!notMeant.Contains(words[i]))
                    found.Add(words[i]);
                i++;
                continue;
            }
            var end = i + 1;
            while (end < words.Length && words[end].Length > shared && words[end][shared] == words[i][shared])
                end++;
            Cover(words[i..end], shared + 1, notMeant, found);
            i = end;
        }
    }

    /// <summary>How many first letters sorted words share.</summary>
    private static int Shared(ReadOnlySpan<string> words)
    {
        var (first, last) = (words[0], words[^1]);
        var n = 0;
        while (n < first.Length && n < last.Length && first[n] == last[n])
            n++;
        return n;
    }
}
