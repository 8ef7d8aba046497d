using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Columns;

namespace Zendle.Index.Terms;

/// <summary>
/// The terms of one to three words that stand in some works, counted there and in others. Two passes over the running
/// words: one over the works that terms are taken from, one over those they are held against. O(words of both).
/// </summary>
public sealed class TermCandidates
{
    /// <summary>At least so many of the good works must have a term, where there are so many.</summary>
    public const int Least = 3;

    /// <summary>Fewer works than this are counted in one go.</summary>
    private const int Part = 4_000;

    /// <summary>Of more other works so many are looked at, evenly spread.</summary>
    private const int MostCounted = 20_000;

    private readonly WordColumn column;
    private readonly bool[] canBound;
    private readonly Dictionary<Key, int> numbers = [];
    private readonly List<Key> keys = [];
    private readonly List<int> good = [];
    private readonly int least;

    /// <summary>A term as the numbers of its words; 0 behind the last.</summary>
    private readonly record struct Key(int First, int Second, int Third);

    /// <summary>Takes the terms of some works.</summary>
    /// <param name="column">The running words.</param>
    /// <param name="from">The works.</param>
    public TermCandidates(WordColumn column, WorkSet from)
    {
        this.column = column;
        var works = from.Count();
        least = Math.Min(Least, works);
        GoodWorks = works;
        canBound = new bool[column.Words.Count];
        for (var n = 1; n < canBound.Length; n++)
            canBound[n] = FunctionWords.CanBound(column.Words[n]);
        var last = new List<int>();
        foreach (var work in from)
        {
            var (before, earlier) = (WordColumn.End, WordColumn.End);
            foreach (var word in column.Of(work))
            {
                if (word != WordColumn.End && canBound[word])
                {
                    Take(new(word, 0, 0), work, last);
                    if (before != WordColumn.End && canBound[before])
                        Take(new(before, word, 0), work, last);
                    if (before != WordColumn.End && earlier != WordColumn.End && canBound[earlier])
                        Take(new(earlier, before, word), work, last);
                }
                earlier = word == WordColumn.End ? WordColumn.End : before;
                before = word;
            }
        }
    }

    /// <summary>How many works the terms were taken from.</summary>
    public int GoodWorks { get; }

    private void Take(Key key, int work, List<int> last)
    {
        if (!numbers.TryGetValue(key, out var number))
        {
            number = numbers[key] = keys.Count;
            keys.Add(key);
            good.Add(0);
            last.Add(-1);
        }
        if (last[number] == work)
            return;
        last[number] = work;
        good[number]++;
    }

    /// <summary>
    /// Counts the terms in other works and tells those that mark the good ones, the surest first. Ties go by the
    /// alphabet.
    /// </summary>
    /// <param name="others">The other works; good ones among them are passed over.</param>
    /// <param name="isGood">The works that the terms were taken from.</param>
    /// <param name="budget">Ends it.</param>
    /// <param name="inParts">Does parts of the work at once where there is room; null for one after another.</param>
    public IReadOnlyList<CountedTerm> Against(
        WorkSet others,
        WorkSet isGood,
        Budget budget,
        Action<IReadOnlyList<int>, Action<int>>? inParts = null
    )
    {
        var rest = others.Copy();
        rest.ExceptWith(isGood);
        var wanted = new Wanted(keys, good, least, column.Words.Count);
        // How much rarer a term is elsewhere shows in a part of the others as well; what is offered is counted exactly.
        var (all, sample) = (rest.Count(), Sampled(rest));
        var counts = Count(sample, wanted, budget, inParts);
        var (of, scale) = (sample.Length, sample.Length == 0 ? 1 : (double)all / sample.Length);
        var found = new List<CountedTerm>();
        for (var i = 0; i < keys.Count; i++)
        {
            if (good[i] < least)
                continue;
            var strength = LikelihoodRatio.Of(good[i], GoodWorks, counts[i], of);
            if (strength > 0)
                found.Add(new(WordsOf(keys[i]), good[i], (int)Math.Round(scale * counts[i]), strength));
        }
        found.Sort(
            (a, b) =>
                a.Strength != b.Strength ? b.Strength.CompareTo(a.Strength) : string.CompareOrdinal(a.Text, b.Text)
        );
        return found;
    }

    /// <summary>The terms that enough of the works have, the commonest first; they are counted nowhere else.</summary>
    public IReadOnlyList<CountedTerm> Common() =>
        [
            .. Enumerable
                .Range(0, keys.Count)
                .Where(i => good[i] >= least)
                .Select(i => new CountedTerm(WordsOf(keys[i]), good[i], 0, 0))
                .OrderByDescending(t => t.Good)
                .ThenBy(t => t.Text, StringComparer.Ordinal),
        ];

    private string[] WordsOf(Key key) =>
        key.Second == 0 ? [column.Words[key.First]]
        : key.Third == 0 ? [column.Words[key.First], column.Words[key.Second]]
        : [column.Words[key.First], column.Words[key.Second], column.Words[key.Third]];

    /// <summary>The works, or so many of them, evenly spread.</summary>
    private static int[] Sampled(WorkSet works)
    {
        var all = works.ToArray();
        return all.Length <= MostCounted
            ? all
            : [.. Enumerable.Range(0, MostCounted).Select(i => all[(long)i * all.Length / MostCounted])];
    }

    private int[] Count(int[] works, Wanted wanted, Budget budget, Action<IReadOnlyList<int>, Action<int>>? inParts)
    {
        if (inParts is null || works.Length < Part)
            return Count(works, wanted, budget);
        var parts = works.Chunk(Math.Max(Part, (works.Length + 7) / 8)).ToArray();
        var counted = new int[parts.Length][];
        inParts([.. Enumerable.Range(0, parts.Length)], i => counted[i] = Count(parts[i], wanted, budget));
        var sum = new int[keys.Count];
        foreach (var part in counted)
            for (var i = 0; i < sum.Length; i++)
                sum[i] += part[i];
        return sum;
    }

    private int[] Count(int[] works, Wanted wanted, Budget budget)
    {
        var (counts, last, looked) = (new int[keys.Count], new int[keys.Count], 0);
        foreach (var work in works)
        {
            budget.Every(ref looked);
            var (before, earlier) = (WordColumn.End, WordColumn.End);
            foreach (var word in column.Of(work))
            {
                if (word < wanted.Single.Length && word != WordColumn.End)
                {
                    Add(wanted.Single[word]);
                    if (wanted.MayBe(before, word) && numbers.TryGetValue(new(before, word, 0), out var two))
                        Add(two);
                    if (
                        before != WordColumn.End
                        && wanted.MayBe(earlier, before, word)
                        && numbers.TryGetValue(new(earlier, before, word), out var three)
                    )
                        Add(three);
                }
                earlier = word == WordColumn.End ? WordColumn.End : before;
                before = word;
            }

            void Add(int number)
            {
                if (number < 0 || last[number] == work)
                    return;
                last[number] = work;
                counts[number]++;
            }
        }
        return counts;
    }

    /// <summary>
    /// The terms that are frequent enough, so that most words of most works are passed over without a look into a table:
    /// a bit for what the numbers of a term's words come to (Bloom 1970, with one function).
    /// </summary>
    private sealed class Wanted
    {
        private const int Places = 1 << 16;
        private readonly bool[] several = new bool[Places];

        public Wanted(List<Key> keys, List<int> good, int least, int words)
        {
            Single = new int[words];
            Array.Fill(Single, -1);
            for (var i = 0; i < keys.Count; i++)
            {
                if (good[i] < least)
                    continue;
                var key = keys[i];
                if (key.Second == 0)
                    Single[key.First] = i;
                else
                    several[Place(key.First, key.Second, key.Third)] = true;
            }
        }

        /// <summary>By word the term of that word alone; −1 for none.</summary>
        public int[] Single { get; }

        /// <summary>Whether a term may be of these words, in this order; false for sure when none is.</summary>
        public bool MayBe(int first, int second, int third = 0) => several[Place(first, second, third)];

        private static int Place(int first, int second, int third)
        {
            // Multiples that share no factor with the number of places scatter neighbouring numbers.
            var mixed = (uint)first * 0x9E3779B1u ^ (uint)second * 0x85EBCA77u ^ (uint)third * 0xC2B2AE3Du;
            return (int)(mixed >> 16);
        }
    }
}
