using Zendle.Core.Queries;

namespace Zendle.Core.Spelling;

/// <summary>What a word of a line may have been meant to be.</summary>
/// <param name="Text">A word of the corpus, or two with a blank between them.</param>
/// <param name="Works">In how many works it stands; of two words, the rarer one's.</param>
/// <param name="Score">
/// How likely it is meant, as the logarithm of a likelihood: how common it is, less what the slips weigh (a noisy
/// channel: Kernighan, Church, Gale 1990).
/// </param>
public readonly record struct MeantWord(string Text, int Works, double Score);

/// <summary>Says which words of the corpus a word may have been meant to be that the corpus hardly knows.</summary>
public static class Misspelling
{
    private const double SlipWeight = 4,
        CommonWeight = 0.6,
        SplitCost = 0.9;

    /// <summary>A word that stands in works is doubted when a near one is so many times as common.</summary>
    private const int Outnumbered = 250;

    private const double OfKnown = 0.9,
        OfShort = 0.8,
        OfMiddling = 1.75,
        OfLong = 2.4;

    /// <summary>Up to so many works a word of the corpus may be a slip of its own.</summary>
    public const int Rare = 3;

    /// <summary>
    /// The likeliest words, the best first; none for a word that the corpus knows, for patterns and for numbers.
    /// </summary>
    /// <param name="typed">The word as it was typed, folded.</param>
    /// <param name="works">In how many works it stands.</param>
    /// <param name="among">The words of the corpus.</param>
    /// <param name="most">How many at most.</param>
    public static IReadOnlyList<MeantWord> Of(string typed, int works, SpelledWords among, int most)
    {
        if (works > Rare || typed.Length < 3 || !typed.All(char.IsLetter) || IsIdeographic(typed))
            return [];
        var farthest =
            works > 0 ? OfKnown
            : typed.Length == 3 ? OfShort
            : typed.Length <= 5 ? OfMiddling
            : OfLong;
        var variants = SpellingVariants.Of(typed);
        var near = among
            .Near(typed, typed.Length <= 3 || works > 0 ? 1 : 2)
            .Where(n => n.Cost <= farthest)
            // Another number or spelling of a word that is there is no slip; it is offered with what it adds.
            .Where(n => works == 0 || (n.Works >= Outnumbered * works && !variants.Contains(n.Word)))
            .Select(n => new MeantWord(n.Word, n.Works, Score(n.Works, n.Cost)));
        return
        [
            .. near.Concat(works > 0 ? [] : Apart(typed, among))
                .OrderByDescending(m => m.Score)
                .ThenBy(m => m.Text, StringComparer.Ordinal)
                .Take(most),
        ];
    }

    /// <summary>How likely a word is meant from which one typed differs by some slips.</summary>
    public static double Score(int works, double cost) => (CommonWeight * Math.Log(works)) - (SlipWeight * cost);

    /// <summary>Two words that were run together.</summary>
    private static IEnumerable<MeantWord> Apart(string typed, SpelledWords among)
    {
        for (var at = 2; at <= typed.Length - 2; at++)
        {
            var (first, second) = (typed[..at], typed[at..]);
            var works = Math.Min(among.Works(first), among.Works(second));
            // Of two short words any letters can be made.
            if (works > Rare && Math.Max(first.Length, second.Length) >= 4)
                yield return new($"{first} {second}", works, Score(works, SplitCost));
        }
    }

    /// <summary>Scripts whose characters are words each have no slips of letters.</summary>
    private static bool IsIdeographic(string word) => word[0] is >= '\u3040' and <= '\uD7AF';
}
