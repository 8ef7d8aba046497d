namespace Zendle.Core.Spelling;

/// <summary>A word that is spelled much like one that was typed.</summary>
/// <param name="Word">The word, folded.</param>
/// <param name="Works">In how many works it stands.</param>
/// <param name="Cost">How far it is from what was typed; see <see cref="SlipCost"/>.</param>
public readonly record struct NearWord(string Word, int Works, double Cost);

/// <summary>
/// Words in alphabetical order, among which those within two slips of a given one are found: the order is walked like
/// a tree, and whole branches are left out whose beginning is already too far.
/// </summary>
/// <remarks>Memory: eight bytes a word beside the words themselves.</remarks>
public sealed class SpelledWords
{
    private const int MostSlips = 2,
        Far = 1_000;
    private readonly string[] words;
    private readonly int[] works;

    /// <summary>Takes words with the number of works they stand in; those of none are left out. O(n log n).</summary>
    public SpelledWords(IEnumerable<(string Word, int Works)> counted)
    {
        var kept = counted.Where(c => c.Works > 0 && c.Word.Length is > 1 and <= SlipCost.Longest).ToArray();
        words = Array.ConvertAll(kept, k => k.Word);
        works = Array.ConvertAll(kept, k => k.Works);
        Array.Sort(words, works, StringComparer.Ordinal);
    }

    /// <summary>How many words there are.</summary>
    public int Count => words.Length;

    /// <summary>In how many works a word stands; 0 for a word that is not there. O(log n).</summary>
    public int Works(string word) =>
        Array.BinarySearch(words, word, StringComparer.Ordinal) is >= 0 and var at ? works[at] : 0;

    /// <summary>
    /// The words within some slips of one (letters too many, missing, swapped or other), itself left out, in
    /// alphabetical order. O(words that begin much like it), some thousandths of a second for half a million.
    /// </summary>
    /// <param name="typed">The word as it was typed, folded.</param>
    /// <param name="slips">At most so many slips, 1 or 2.</param>
    public IEnumerable<NearWord> Near(string typed, int slips = MostSlips)
    {
        if (typed.Length is 0 or > SlipCost.Longest)
            return [];
        var found = new List<NearWord>();
        // rows[d][i]: slips between the first d letters of the word at hand and the first i of what was typed.
        var rows = new int[SlipCost.Longest + 1][];
        for (var d = 0; d < rows.Length; d++)
            Array.Fill(rows[d] = new int[typed.Length + 1], Far);
        for (var i = 0; i <= typed.Length; i++)
            rows[0][i] = i;
        var (at, known) = (0, 0); // rows up to this depth hold for the word at hand
        while (at < words.Length)
        {
            var word = words[at];
            var depth = known;
            var isFar = false;
            while (depth < word.Length && !isFar)
                isFar = Row(rows, word, ++depth, typed) > slips;
            if (isFar)
            {
                // Nothing that begins with these letters can be near.
                at = After(at, word.AsSpan(0, depth));
                known = at < words.Length ? Math.Min(depth - 1, Common(word, words[at])) : 0;
                continue;
            }
            if (
                Math.Abs(word.Length - typed.Length) <= slips
                && rows[word.Length][typed.Length] <= slips
                && word != typed
            )
                found.Add(new(word, works[at], SlipCost.Of(typed, word)));
            at++;
            known = at < words.Length ? Common(word, words[at]) : 0;
        }
        return found;
    }

    /// <summary>
    /// Works out one row, and tells the least that the rows after it can come to. Only what lies near the diagonal can
    /// be within the slips that count.
    /// </summary>
    private static int Row(int[][] rows, string word, int depth, string typed)
    {
        var (row, last) = (rows[depth], rows[depth - 1]);
        var (from, to) = (Math.Max(1, depth - MostSlips), Math.Min(typed.Length, depth + MostSlips));
        var letter = word[depth - 1];
        row[from - 1] = from == 1 ? depth : Far;
        if (to < typed.Length)
            row[to + 1] = Far;
        var least = row[from - 1];
        for (var i = from; i <= to; i++)
        {
            var slips = Math.Min(Math.Min(last[i], row[i - 1]) + 1, last[i - 1] + (typed[i - 1] == letter ? 0 : 1));
            if (i > 1 && depth > 1 && typed[i - 1] == word[depth - 2] && typed[i - 2] == letter)
                slips = Math.Min(slips, rows[depth - 2][i - 2] + 1);
            row[i] = slips;
            least = Math.Min(least, slips);
            // A swap reaches over a row: what follows may be as near as the row before, and one slip more.
            if (last[i - 1] < least && i < typed.Length && typed[i] == letter)
                least = Math.Min(least, last[i - 1] + 1);
        }
        return least;
    }

    /// <summary>The first word behind those that begin with some letters. O(log n).</summary>
    private int After(int from, ReadOnlySpan<char> beginning)
    {
        var (low, high) = (from + 1, words.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (words[middle].AsSpan().StartsWith(beginning, StringComparison.Ordinal))
                low = middle + 1;
            else
                high = middle;
        }
        return low;
    }

    private static int Common(string a, string b) => a.AsSpan().CommonPrefixLength(b);
}
