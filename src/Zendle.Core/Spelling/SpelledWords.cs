namespace Zendle.Core.Spelling;

/// <summary>A word that is spelled much like one that was typed.</summary>
/// <param name="Word">The word, folded.</param>
/// <param name="Works">In how many works it stands.</param>
/// <param name="Cost">How far it is from what was typed; see <see cref="SlipCost"/>.</param>
public readonly record struct NearWord(string Word, int Works, double Cost);

/// <summary>
/// Words in the order of their first letters and in that of their last, among which those within two slips of a given one
/// are found: an order is walked like a tree, and whole branches are left out whose beginning is already too far. Of two
/// slips at most one stands in one half of a word or in the other, so each walk allows one in the half it begins with, and
/// what one of them misses the other finds.
/// </summary>
/// <remarks>Memory: twelve bytes a word beside the words themselves.</remarks>
public sealed class SpelledWords
{
    private const int MostSlips = 2,
        Far = 1_000;
    private readonly string[] words;
    private readonly int[] works;

    /// <summary>Numbers of words in the order of their letters from the last to the first.</summary>
    private readonly int[] fromEnd;

    /// <summary>A direction in which words are read.</summary>
    private interface IReading
    {
        /// <summary>The letter at a depth, counted from where reading begins.</summary>
        static abstract char Letter(string word, int depth);

        /// <summary>How many letters two words have in common from where reading begins.</summary>
        static abstract int Common(string a, string b);
    }

    private readonly struct Forward : IReading
    {
        public static char Letter(string word, int depth) => word[depth];

        public static int Common(string a, string b) => a.AsSpan().CommonPrefixLength(b);
    }

    private readonly struct Backward : IReading
    {
        public static char Letter(string word, int depth) => word[^(depth + 1)];

        public static int Common(string a, string b)
        {
            var (n, most) = (0, Math.Min(a.Length, b.Length));
            while (n < most && a[^(n + 1)] == b[^(n + 1)])
                n++;
            return n;
        }
    }

    /// <summary>Takes words with the number of works they stand in; those of none are left out. O(n log n).</summary>
    public SpelledWords(IEnumerable<(string Word, int Works)> counted)
    {
        var kept = counted.Where(c => c.Works > 0 && c.Word.Length is > 1 and <= SlipCost.Longest).ToArray();
        words = Array.ConvertAll(kept, k => k.Word);
        works = Array.ConvertAll(kept, k => k.Works);
        Array.Sort(words, works, StringComparer.Ordinal);
        fromEnd = new int[words.Length];
        for (var i = 0; i < fromEnd.Length; i++)
            fromEnd[i] = i;
        Array.Sort(
            fromEnd,
            (a, b) =>
            {
                var (first, second) = (words[a], words[b]);
                var at = Backward.Common(first, second);
                return at < first.Length && at < second.Length
                    ? Backward.Letter(first, at) - Backward.Letter(second, at)
                    : first.Length - second.Length;
            }
        );
    }

    /// <summary>How many words there are.</summary>
    public int Count => words.Length;

    /// <summary>In how many works a word stands; 0 for a word that is not there. O(log n).</summary>
    public int Works(string word) =>
        Array.BinarySearch(words, word, StringComparer.Ordinal) is >= 0 and var at ? works[at] : 0;

    /// <summary>
    /// The words within some slips of one (letters too many, missing, swapped or other), itself left out, in
    /// alphabetical order. O(words that begin or end much like it), some thousandths of a second for half a million.
    /// </summary>
    /// <param name="typed">The word as it was typed, folded.</param>
    /// <param name="slips">At most so many slips, 1 or 2.</param>
    public IEnumerable<NearWord> Near(string typed, int slips = MostSlips)
    {
        if (typed.Length is 0 or > SlipCost.Longest)
            return [];
        var half = typed.Length / 2;
        // Of two slips at most one comes before the middle letter, which reading forward finds, or none after it, which reading
        // backward finds. One slip may be a swap across the middle, which counts in both halves: one walk looks for that.
        if (slips < MostSlips || half < MostSlips)
            return Told(typed, new Walk<Forward>(typed, slips, closeUntil: -1).Over(words, null));
        var reversed = string.Create(
            typed.Length,
            typed,
            (letters, of) =>
            {
                of.CopyTo(letters);
                letters.Reverse();
            }
        );
        return Told(
            typed,
            new Walk<Forward>(typed, slips, half - 1)
                .Over(words, null)
                .Concat(new Walk<Backward>(reversed, slips, typed.Length - half).Over(words, fromEnd))
                .Distinct()
                .Order()
        );
    }

    private NearWord[] Told(string typed, IEnumerable<int> found) =>
        [
            .. found
                .Where(at => words[at] != typed)
                .Select(at => new NearWord(words[at], works[at], SlipCost.Of(typed, words[at]))),
        ];

    /// <summary>One walk through words in the order in which they are read.</summary>
    /// <param name="typed">What was typed, as it is read.</param>
    /// <param name="slips">At most so many slips.</param>
    /// <param name="closeUntil">In its first letters, so many of them, one slip less is allowed; −1 for no such limit.</param>
    private readonly struct Walk<TReading>(string typed, int slips, int closeUntil)
        where TReading : struct, IReading
    {
        /// <summary>Numbers of the words that are near.</summary>
        /// <param name="words">The words.</param>
        /// <param name="order">Their numbers in the order of reading; null where that is their own.</param>
        public List<int> Over(string[] words, int[]? order)
        {
            var found = new List<int>();
            // rows[d][i]: slips between the first d letters of the word at hand and the first i of what was typed.
            var rows = new int[SlipCost.Longest + 1][];
            for (var d = 0; d < rows.Length; d++)
                Array.Fill(rows[d] = new int[typed.Length + 1], Far);
            for (var i = 0; i <= typed.Length && Allowed(i, i) < Far; i++)
                rows[0][i] = i;
            var (at, known) = (0, 0); // rows up to this depth hold for the word at hand
            while (at < words.Length)
            {
                var number = Number(order, at);
                var word = words[number];
                var depth = known;
                var isFar = false;
                while (depth < word.Length && !isFar)
                    isFar = Row(rows, word, ++depth) > slips;
                if (isFar)
                {
                    // Nothing that begins with these letters can be near.
                    at = After(words, order, at, depth);
                    known =
                        at < words.Length ? Math.Min(depth - 1, TReading.Common(word, words[Number(order, at)])) : 0;
                    continue;
                }
                if (Math.Abs(word.Length - typed.Length) <= slips && rows[word.Length][typed.Length] <= slips)
                    found.Add(number);
                at++;
                known = at < words.Length ? TReading.Common(word, words[Number(order, at)]) : 0;
            }
            return found;
        }

        private static int Number(int[]? order, int at) => order is null ? at : order[at];

        private int Allowed(int i, int cost) => i <= closeUntil && cost >= slips ? Far : cost;

        /// <summary>
        /// Works out one row, and tells the least that the rows after it can come to. Only what lies near the diagonal can
        /// be within the slips that count.
        /// </summary>
        private int Row(int[][] rows, string word, int depth)
        {
            var (row, last) = (rows[depth], rows[depth - 1]);
            var (from, to) = (Math.Max(1, depth - MostSlips), Math.Min(typed.Length, depth + MostSlips));
            var letter = TReading.Letter(word, depth - 1);
            row[from - 1] = from == 1 ? Allowed(0, depth) : Far;
            if (to < typed.Length)
                row[to + 1] = Far;
            var least = row[from - 1];
            for (var i = from; i <= to; i++)
            {
                var cost = Math.Min(Math.Min(last[i], row[i - 1]) + 1, last[i - 1] + (typed[i - 1] == letter ? 0 : 1));
                if (i > 1 && depth > 1 && typed[i - 1] == TReading.Letter(word, depth - 2) && typed[i - 2] == letter)
                    cost = Math.Min(cost, rows[depth - 2][i - 2] + 1);
                row[i] = Allowed(i, cost);
                least = Math.Min(least, row[i]);
                // A swap reaches over a row: what follows may be as near as the row before, and one slip more.
                if (last[i - 1] < least && i < typed.Length && typed[i] == letter)
                    least = Math.Min(least, last[i - 1] + 1);
            }
            return least;
        }

        /// <summary>The first word behind those that begin with the first letters of another, as many as said. O(log n).</summary>
        private static int After(string[] words, int[]? order, int from, int letters)
        {
            var word = words[Number(order, from)];
            var (low, high) = (from + 1, words.Length);
            while (low < high)
            {
                var middle = (low + high) / 2;
                if (TReading.Common(words[Number(order, middle)], word) >= letters)
                    low = middle + 1;
                else
                    high = middle;
            }
            return low;
        }
    }
}
