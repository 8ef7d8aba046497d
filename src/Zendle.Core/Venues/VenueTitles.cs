using System.Collections.Immutable;

namespace Zendle.Core.Venues;

/// <summary>
/// Which of several spellings of one venue's title is shown: whole before shortened, mixed case before capitals.
/// Nothing is made up that no record has.
/// </summary>
public static class VenueTitles
{
    /// <summary>The best spelling of a title.</summary>
    /// <param name="chosen">The title as the record has it whose venue was chosen.</param>
    /// <param name="others">Other titles; those that mean another venue are passed over.</param>
    /// <returns><paramref name="chosen"/> itself unless another one says the same better.</returns>
    public static string Best(string chosen, IEnumerable<string?> others)
    {
        var (best, words) = (chosen, VenueNames.WordsOf(chosen));
        foreach (var other in others)
        {
            if (
                other is null
                || other == best
                || VenueNames.WordsOf(other) is not { Length: > 0 } theirs
                || !VenueNames.Agree(words, theirs)
            )
                continue;
            var (longer, louder) = (Letters(theirs) - Letters(words), IsShouted(best) && !IsShouted(other));
            // A shortened title in mixed case is no better than the whole one in capitals, nor the other way round;
            // only what is better in one and worse in neither.
            if (longer > 0 || (longer == 0 && louder))
                (best, words) = (other, theirs);
        }
        return best;
    }

    /// <summary>Whether a title is in capitals throughout; a name of few letters may be one by right.</summary>
    public static bool IsShouted(string title) => !title.Any(char.IsLower) && title.Count(char.IsUpper) > 5;

    private static int Letters(ImmutableArray<string> words) =>
        words.Where(w => !VenueNames.IsSmall(w)).Sum(w => w.Length);
}
