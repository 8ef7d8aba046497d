using System.Text;
using Lucene.Net.Index;
using Lucene.Net.Util;
using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Index.Text;

/// <summary>
/// Walks over the indexed words that a folded word or pattern stands for, in one field of one segment.
/// </summary>
/// <remarks>
/// A pattern is held against each word that begins with its first letters, by <see cref="Glob"/>: O(words × pattern).
/// One that is open at its start is held against the words that end in its last letters, or hold its longest run of
/// letters (<see cref="SegmentWords"/>). No automaton is made of it: to determine one takes time and room that grow
/// exponentially with the number of ? behind a *.
/// </remarks>
internal static class TermWalk
{
    /// <summary>Where one word in so many is looked at anyway, the dictionary is walked: to go to a word costs as much as
    /// to pass so many.</summary>
    private const int Seek = 16;

    /// <summary>Positions the enumerator on each fitting word in turn; the caller reads postings from it.</summary>
    public static IEnumerable<TermsEnum> Over(AtomicReader reader, string field, string slot, Budget budget)
    {
        var terms = reader.GetTerms(field);
        if (terms is null)
            yield break;
        var words = terms.GetEnumerator();
        if (!TermNode.IsPattern(slot))
        {
            if (words.SeekExact(new BytesRef(IndexFields.Cut(slot))))
                yield return words;
            yield break;
        }
        var open = slot.AsSpan().IndexOfAny('*', '?');
        if (open == 0 && Likely(reader, field, slot) is { } likely)
        {
            foreach (var word in Chosen(words, likely, slot, budget))
                yield return word;
            yield break;
        }
        var prefix = new BytesRef(slot[..open]);
        // With nothing but a * behind it the beginning says all.
        var rest = slot.AsSpan(open) is "*" ? null : slot;
        var letters = new char[64];
        var looked = 0;
        if (words.SeekCeil(prefix) == TermsEnum.SeekStatus.END)
            yield break;
        do
        {
            if (!StringHelper.StartsWith(words.Term, prefix))
                yield break;
            budget.Every(ref looked);
            if (rest is null || Fits(rest, words.Term.Bytes.AsSpan(words.Term.Offset, words.Term.Length), ref letters))
                yield return words;
        } while (words.MoveNext());
    }

    /// <summary>
    /// The words that may fit a pattern that is open at its start; null where that is no choice, since it has no letters or too
    /// many words have them.
    /// </summary>
    private static (SegmentWords Words, List<int> Places)? Likely(AtomicReader reader, string field, string pattern)
    {
        var letters = pattern.Split('*', '?').MaxBy(p => p.Length)!;
        if (letters.Length == 0 || SegmentWords.Of(reader, field) is not { } words)
            return null;
        var tail = pattern[(pattern.AsSpan().LastIndexOfAny('*', '?') + 1)..];
        var places =
            tail.Length > 0
                ? words.EndingIn(Encoding.UTF8.GetBytes(tail))
                : words.Holding(Encoding.UTF8.GetBytes(letters));
        return places.Count > words.Count / Seek ? null : (words, places);
    }

    private static IEnumerable<TermsEnum> Chosen(
        TermsEnum words,
        (SegmentWords Words, List<int> Places) likely,
        string pattern,
        Budget budget
    )
    {
        // In the order of the dictionary each word is near the one before.
        likely.Places.Sort();
        var (letters, looked) = (new char[64], 0);
        foreach (var place in likely.Places)
        {
            budget.Every(ref looked);
            if (
                Fits(pattern, likely.Words.Word(place), ref letters)
                && words.SeekExact(new BytesRef(likely.Words.Word(place).ToArray()))
            )
                yield return words;
        }
    }

    private static bool Fits(string pattern, ReadOnlySpan<byte> word, ref char[] letters)
    {
        if (letters.Length < word.Length)
            letters = new char[word.Length * 2];
        var length = Encoding.UTF8.GetChars(word, letters);
        return Glob.Matches(pattern, letters.AsSpan(0, length));
    }
}
