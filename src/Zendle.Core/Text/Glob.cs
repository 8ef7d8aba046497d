namespace Zendle.Core.Text;

/// <summary>
/// Matches a word against a pattern with * (any run, also none) and ? (one character, be it one code unit or two).
/// </summary>
public static class Glob
{
    /// <summary>
    /// Whether the whole of <paramref name="word"/> fits <paramref name="pattern"/>. Linear in practice, O(word ×
    /// pattern) at worst.
    /// </summary>
    public static bool Matches(ReadOnlySpan<char> pattern, ReadOnlySpan<char> word)
    {
        int p = 0,
            w = 0,
            star = -1,
            mark = 0;
        while (w < word.Length)
        {
            if (p < pattern.Length && pattern[p] == '?')
            {
                p++;
                w += char.IsHighSurrogate(word[w]) && w + 1 < word.Length ? 2 : 1;
            }
            else if (p < pattern.Length && pattern[p] != '*' && pattern[p] == word[w])
            {
                p++;
                w++;
            }
            else if (p < pattern.Length && pattern[p] == '*')
            {
                star = p++;
                mark = w;
            }
            else if (star >= 0)
            {
                p = star + 1;
                w = ++mark;
            }
            else
                return false;
        }
        while (p < pattern.Length && pattern[p] == '*')
            p++;
        return p == pattern.Length;
    }
}
