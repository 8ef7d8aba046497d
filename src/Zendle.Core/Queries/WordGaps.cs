using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>Phrases whose words stand in a text with others in between, or the other way round.</summary>
public static class WordGaps
{
    /// <summary>How many words may stand between two words of a phrase for it to be told of.</summary>
    public const int Widest = 2;

    /// <summary>The phrase with its words near each other instead of in a row: <c>flower NEAR/2 visit*</c>.</summary>
    public static string Loose(TermNode phrase) => string.Join($" NEAR/{Widest} ", phrase.Slots);

    /// <summary>
    /// The first stretch of a text in which the words of a phrase stand, each at most <see cref="Widest"/> words from
    /// the next, but not in a row.
    /// </summary>
    /// <param name="text">The text of one field.</param>
    /// <param name="slots">The words, folded; patterns allowed.</param>
    /// <returns>The stretch; null when there is none.</returns>
    public static TextSpan? First(string text, ImmutableArray<string> slots)
    {
        var words = Words.Of(text).Where(w => !w.IsClosedForm).ToArray();
        for (var i = 0; i < words.Length; i++)
            if (
                Fits(slots[0], words[i])
                && Follow(words, i, slots) is { } at
                && at.Zip(at.Skip(1)).Any(p => p.Second != p.First + 1)
            )
                return new(words[at.Min()].Start, words[at.Max()].End - words[at.Min()].Start);
        return null;
    }

    private static int[]? Follow(Word[] words, int first, ImmutableArray<string> slots)
    {
        var at = new int[slots.Length];
        at[0] = first;
        for (var s = 1; s < slots.Length; s++)
        {
            // The nearest place counts; a row is tried last, for it is what the phrase finds already.
            var near = Enumerable
                .Range(-(Widest + 1), 2 * (Widest + 1) + 1)
                .Where(d => d is not 0 and not 1)
                .OrderBy(Math.Abs)
                .Append(1)
                .Select(d => at[s - 1] + d)
                .Where(n => n >= 0 && n < words.Length && Array.IndexOf(at, n, 0, s) < 0 && Fits(slots[s], words[n]))
                .Cast<int?>()
                .FirstOrDefault();
            if (near is not { } there)
                return null;
            at[s] = there;
        }
        return at;
    }

    private static bool Fits(string slot, Word word) =>
        TermNode.IsPattern(slot) ? Glob.Matches(slot, word.Text) : slot == word.Text;
}
