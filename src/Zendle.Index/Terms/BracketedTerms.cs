using Zendle.Index.Columns;

namespace Zendle.Index.Terms;

/// <summary>
/// Finds the works that may explain a term: those in which it stands beside a very short stretch whose letters it has in
/// their order, or is such a stretch itself, as an abbreviation in brackets is. One pass over the running words of the
/// works; no record is read.
/// </summary>
/// <param name="column">The running words, whose stretches end at brackets.</param>
public sealed class BracketedTerms(WordColumn column)
{
    /// <summary>An abbreviation has at most so many words.</summary>
    private const int MostWords = 2;

    /// <summary>The works among some that may explain a term, in their order.</summary>
    /// <param name="works">The works.</param>
    /// <param name="words">The words of the term, folded.</param>
    /// <remarks>O(words of the works).</remarks>
    public IEnumerable<int> Among(IEnumerable<int> works, IReadOnlyList<string> words)
    {
        int[] term = [.. words.Select(column.NumberOf)];
        return term.Length == 0 || term.Contains(WordColumn.End) ? [] : works.Where(w => Stands(w, term));
    }

    private bool Stands(int work, int[] term)
    {
        var (before, stretch) = (new List<int>(), new List<int>());
        foreach (var word in column.Of(work))
        {
            if (word != WordColumn.End)
            {
                stretch.Add(word);
                continue;
            }
            if (Explains(before, stretch, term))
                return true;
            (before, stretch) = (stretch, before);
            stretch.Clear();
        }
        return Explains(before, stretch, term);
    }

    /// <summary>Whether of two stretches one can be short for the end of the other, and the term is one of the two.</summary>
    private bool Explains(List<int> before, List<int> after, int[] term)
    {
        // "… artificial light at night (ALAN)", or "… ALAN (artificial light at night)" when ALAN is the term.
        if (
            EndsWith(before, term)
            && (
                (after.Count is > 0 and <= MostWords && IsShortFor(after, term))
                || (term.Length <= MostWords && IsShortFor(term, after))
            )
        )
            return true;
        var isIt = after.Count == term.Length && EndsWith(after, term);
        return isIt
            && before.Count > 0
            && (
                // "… ALAN (artificial light at night)"
                IsShortFor([before[^1]], term)
                // The term is the abbreviation: its letters stand in the words before it.
                || (term.Length <= MostWords && IsShortFor(after, [.. before.TakeLast(2 * Letters(after).Length)]))
            );
    }

    /// <summary>Whether the letters of some words stand in others in their order, and are fewer.</summary>
    private bool IsShortFor(IReadOnlyList<int> brief, IReadOnlyList<int> whole)
    {
        var (wanted, letters) = (Letters(brief), Letters(whole));
        var found = 0;
        foreach (var letter in letters)
            if (found < wanted.Length && letter == wanted[found])
                found++;
        return found == wanted.Length && letters.Length > wanted.Length;
    }

    private string Letters(IReadOnlyList<int> words) => string.Concat(words.Select(w => column.Words[w]));

    private static bool EndsWith(List<int> stretch, int[] term)
    {
        if (stretch.Count < term.Length)
            return false;
        for (var i = 0; i < term.Length; i++)
            if (stretch[stretch.Count - term.Length + i] != term[i])
                return false;
        return true;
    }
}
