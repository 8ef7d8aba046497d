using Zendle.Core.Merging;

namespace Zendle.Core.FullText;

/// <summary>Looks for words in a row among others: as they are, or with a slip or two, as records have them.</summary>
internal static class WordRow
{
    private const int FewestForNear = 5,
        MostForNear = 60;
    private const double Near = 0.8;

    /// <summary>Letters of a word in which a slip leaves no doubt which word it is.</summary>
    private const int LongEnough = 6;

    /// <summary>
    /// The word of a title that another one is with a slip, of whoever wrote the record or read the page; the word itself where
    /// there is none. O(title).
    /// </summary>
    public static string Meant(string word, IReadOnlySet<string> title)
    {
        if (word.Length < LongEnough - 1 || title.Contains(word))
            return word;
        foreach (var meant in title)
            if (
                meant.Length >= LongEnough
                && Math.Abs(meant.Length - word.Length) < 2
                && TitleDifference.IsSlip(meant, word)
            )
                return meant;
        return word;
    }

    /// <summary>Where a row begins among the first so many words; −1 for nowhere.</summary>
    public static int Find(ReadOnlySpan<string> words, ReadOnlySpan<string> row, int among) =>
        row.Length == 0 ? -1 : words[..Math.Min(words.Length, among + row.Length - 1)].IndexOf(row);

    /// <summary>
    /// Where a row begins of which at least four fifths stand there in order, some perhaps with a slip; −1 for nowhere, and for rows
    /// of fewer than five words, which too many others are like. O(among · row²).
    /// </summary>
    public static int FindNear(ReadOnlySpan<string> words, ReadOnlySpan<string> row, int among)
    {
        if (row.Length is < FewestForNear or > MostForNear)
            return -1;
        var (best, most) = (-1, (int)Math.Ceiling(Near * row.Length) - 1);
        var whole = row.ToArray().ToHashSet(StringComparer.Ordinal);
        var meant = words[..Math.Min(words.Length, among + row.Length)].ToArray();
        for (var i = 0; i < meant.Length; i++)
            meant[i] = Meant(meant[i], whole);
        for (var at = 0; at < Math.Min(among, words.Length); at++)
            if (
                InOrder(meant.AsSpan(at..Math.Min(meant.Length, at + row.Length + 1)), row) is var shared
                && shared > most
            )
                (best, most) = (at, shared);
        return best;
    }

    /// <summary>The longest sequence of words that both have in order (Wagner and Fischer 1974).</summary>
    private static int InOrder(ReadOnlySpan<string> a, ReadOnlySpan<string> b)
    {
        Span<int> row = stackalloc int[b.Length + 1];
        row.Clear();
        foreach (var word in a)
        {
            var before = 0;
            for (var j = 1; j <= b.Length; j++)
            {
                var here = row[j];
                row[j] = word == b[j - 1] ? before + 1 : Math.Max(row[j], row[j - 1]);
                before = here;
            }
        }
        return row[b.Length];
    }
}
