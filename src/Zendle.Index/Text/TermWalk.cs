using Lucene.Net.Index;
using Lucene.Net.Search;
using Lucene.Net.Util;
using Lucene.Net.Util.Automaton;
using Zendle.Core.Queries;

namespace Zendle.Index.Text;

/// <summary>Walks over the indexed words that a folded word or pattern stands for, in one field of one segment.</summary>
internal static class TermWalk
{
    /// <summary>Positions the enumerator on each fitting word in turn; the caller reads postings from it.</summary>
    public static IEnumerable<TermsEnum> Over(AtomicReader reader, string field, string slot)
    {
        var terms = reader.GetTerms(field);
        if (terms is null) yield break;
        if (!TermNode.IsPattern(slot))
        {
            var exact = terms.GetEnumerator();
            if (exact.SeekExact(new BytesRef(slot))) yield return exact;
            yield break;
        }
        if (slot.IndexOf('*') == slot.Length - 1 && !slot.Contains('?', StringComparison.Ordinal))
        {
            var prefix = new BytesRef(slot[..^1]);
            var ahead = terms.GetEnumerator();
            if (ahead.SeekCeil(prefix) == TermsEnum.SeekStatus.END) yield break;
            do
            {
                if (!StringHelper.StartsWith(ahead.Term, prefix)) yield break;
                yield return ahead;
            }
            while (ahead.MoveNext());
            yield break;
        }
        var fitting = new CompiledAutomaton(WildcardQuery.ToAutomaton(new Term(field, slot)), null, true).GetTermsEnum(terms);
        while (fitting.MoveNext()) yield return fitting;
    }
}
