using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Core.Terms;

/// <summary>A term that is worth offering.</summary>
/// <param name="Term">The term as most works have it.</param>
/// <param name="Variants">Its other number and spellings, as far as works have them.</param>
public sealed record MarkingTerm(CountedTerm Term, ImmutableArray<CountedTerm> Variants)
{
    /// <summary>All forms as an expression: joined by OR, each of several words in quotation marks.</summary>
    public string Expression { get; } =
        string.Join(" OR ", Variants.Prepend(Term).Select(t => QueryText.OfWords(t.Words)));
}

/// <summary>
/// Chooses among counted terms those that say something new: none that the board has, contains or is contained in, none
/// that was refused, none that hardly stands but within a longer one, and number and spelling of one term together.
/// </summary>
public static class MarkingTerms
{
    /// <summary>A term that stands so often inside another stands for it.</summary>
    private const double SameWorks = 0.8,
        MostlyThere = 0.5;

    /// <summary>A longer term is offered beside a shorter one when it is so much more telling.</summary>
    private const double MoreTelling = 1.5;

    /// <summary>The terms worth offering, the surest first.</summary>
    /// <param name="counted">Terms, the surest first.</param>
    /// <param name="onBoard">Terms of the search; what they cover is left out.</param>
    /// <param name="refused">Terms that are not wanted, folded.</param>
    /// <param name="most">How many at most.</param>
    public static IReadOnlyList<MarkingTerm> Choose(
        IEnumerable<CountedTerm> counted,
        IReadOnlyCollection<TermNode> onBoard,
        IReadOnlySet<string> refused,
        int most
    )
    {
        var (chosen, spellings) = (new List<MarkingTerm>(), new Spellings());
        foreach (var term in counted)
        {
            if (refused.Contains(term.Text) || onBoard.Any(b => IsCovered(term, b)))
                continue;
            if (chosen.FindIndex(c => spellings.AreVariants(c.Term.Words, term.Words)) is >= 0 and var same)
            {
                chosen[same] = new(chosen[same].Term, chosen[same].Variants.Add(term));
                continue;
            }
            // A longer term that nearly always stands where the shorter one does takes its place.
            if (chosen.FindIndex(c => Holds(term.Words, c.Term.Words) && IsSame(term, c.Term)) is >= 0 and var within)
            {
                chosen[within] = new(term, []);
                continue;
            }
            if (chosen.Count < most && !chosen.Exists(c => IsSaidBy(c.Term, term)))
                chosen.Add(new(term, []));
        }
        return chosen;
    }

    /// <summary>Whether a shorter term nearly always stands within a longer one, among the good works and elsewhere.</summary>
    private static bool IsSame(CountedTerm longer, CountedTerm shorter) =>
        longer.Good >= SameWorks * shorter.Good
        && longer.Good + longer.Others >= MostlyThere * (shorter.Good + shorter.Others);

    /// <summary>Whether one term says already what another would.</summary>
    private static bool IsSaidBy(CountedTerm chosen, CountedTerm term) =>
        Holds(chosen.Words, term.Words)
            ? IsSame(chosen, term)
            : Holds(term.Words, chosen.Words) && term.Precision < MoreTelling * chosen.Precision;

    /// <summary>Whether a term of the board finds the term's works, or the term is a part of it.</summary>
    private static bool IsCovered(CountedTerm term, TermNode onBoard) =>
        onBoard.Forms.Any(form => Stands(form, term.Words)) || Holds(onBoard.Slots, term.Words);

    /// <summary>Whether patterns in a row stand somewhere in some words.</summary>
    private static bool Stands(ImmutableArray<string> slots, IReadOnlyList<string> words)
    {
        for (var at = 0; at + slots.Length <= words.Count; at++)
            if (slots.Select((slot, i) => Glob.Matches(slot, words[at + i])).All(fits => fits))
                return true;
        return false;
    }

    /// <summary>Whether words stand in a row in others, and are fewer.</summary>
    private static bool Holds(IReadOnlyList<string> longer, IReadOnlyList<string> shorter)
    {
        for (var at = 0; longer.Count > shorter.Count && at + shorter.Count <= longer.Count; at++)
        {
            var same = 0;
            while (same < shorter.Count && longer[at + same] == shorter[same])
                same++;
            if (same == shorter.Count)
                return true;
        }
        return false;
    }

    /// <summary>Tells variants of terms; those of a word are worked out once.</summary>
    private sealed class Spellings
    {
        private readonly Dictionary<string, IReadOnlyList<string>> known = new(StringComparer.Ordinal);

        public bool AreVariants(IReadOnlyList<string> a, IReadOnlyList<string> b)
        {
            if (a.Count != b.Count)
                return false;
            for (var i = 0; i < a.Count; i++)
                if (a[i] != b[i] && !Of(a[i]).Contains(b[i]) && !Of(b[i]).Contains(a[i]))
                    return false;
            return true;
        }

        private IReadOnlyList<string> Of(string word) =>
            known.TryGetValue(word, out var variants) ? variants : known[word] = SpellingVariants.Of(word);
    }
}
