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
/// No automaton is made of it: to determine one takes time and room that grow exponentially with the number of ? behind
/// a *.
/// </remarks>
internal static class TermWalk
{
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
            if (rest is null || Fits(rest, words.Term, ref letters))
                yield return words;
        } while (words.MoveNext());
    }

    private static bool Fits(string pattern, BytesRef word, ref char[] letters)
    {
        if (letters.Length < word.Length)
            letters = new char[word.Length * 2];
        var length = Encoding.UTF8.GetChars(word.Bytes.AsSpan(word.Offset, word.Length), letters);
        return Glob.Matches(pattern, letters.AsSpan(0, length));
    }
}
