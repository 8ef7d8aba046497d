using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>Knows a title in a table of contents.</summary>
public static class ListedTitle
{
    /// <summary>Titles of fewer words stand in many rows: they must be all of it.</summary>
    private const int FewestWords = 4;

    /// <summary>
    /// Whether a row names a title: its words in a row. A short title, like "Introduction", must be all that the row says.
    /// O(words).
    /// </summary>
    public static bool Names(string row, string title)
    {
        string[] words = [.. Words.AsWritten(row)];
        string[] wanted = [.. Words.AsWritten(title)];
        if (wanted.Length == 0 || words.Length < wanted.Length)
            return false;
        return wanted.Length < FewestWords ? words.AsSpan().SequenceEqual(wanted) : words.AsSpan().IndexOf(wanted) >= 0;
    }

    /// <summary>
    /// Whether a row names a title with a slip or two: nearly all its words in order. O(words of the row · words of the title²).
    /// </summary>
    public static bool NearlyNames(string row, string title)
    {
        string[] words = [.. Words.AsWritten(row)];
        return WordRow.FindNear(words, [.. Words.AsWritten(title)], words.Length) >= 0;
    }
}
