using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Queries;

/// <summary>
/// Whether words and phrases hold in a plain text, such as a sentence: what the index answers for records, for texts that are
/// in no index. Fields are not told apart; years and fields other than words hold nowhere.
/// </summary>
public static class PlainMatch
{
    /// <summary>Whether a question can be asked of a plain text: it has words, phrases, AND, OR, NOT and NEAR only.</summary>
    public static bool CanAsk(QueryNode node) =>
        node switch
        {
            TermNode => true,
            NearNode near => near.Parts.All(CanAsk),
            AndNode and => and.Parts.All(CanAsk),
            OrNode or => or.Parts.All(CanAsk),
            NotNode not => CanAsk(not.Part),
            _ => false,
        };

    /// <summary>Whether a question holds in a text. O(words × terms).</summary>
    public static bool Holds(QueryNode node, string text) => Holds(node, Words.Of(text));

    private static bool Holds(QueryNode node, List<Word> words) =>
        node switch
        {
            AndNode and => and.Parts.All(p => Holds(p, words)),
            OrNode or => or.Parts.Any(p => Holds(p, words)),
            NotNode not => !Holds(not.Part, words),
            NearNode near => Near(near, words),
            TermNode => Stands(node, words).Any(),
            _ => false,
        };

    /// <summary>Where a term, or one of several, stands: positions of its first and last word.</summary>
    private static IEnumerable<(int First, int Last)> Stands(QueryNode node, List<Word> words) =>
        node switch
        {
            TermNode term => term.Forms.SelectMany(form => Stands(form, words)),
            OrNode or => or.Parts.SelectMany(p => Stands(p, words)),
            _ => [],
        };

    private static IEnumerable<(int First, int Last)> Stands(ImmutableArray<string> form, List<Word> words)
    {
        for (var i = 0; i < words.Count; i++)
            if (TermMarks.Follow(words, i, form) is >= 0 and var last)
                yield return (words[i].Position, words[last].Position);
    }

    /// <summary>Parts near each other in either order, each within its distance of the one before it.</summary>
    private static bool Near(NearNode near, List<Word> words)
    {
        var standing = Stands(near.Parts[0], words).ToList();
        for (var i = 1; i < near.Parts.Length && standing.Count > 0; i++)
        {
            var distance = near.Distances[i - 1];
            var before = standing;
            standing =
            [
                .. Stands(near.Parts[i], words)
                    .Where(s =>
                        before.Exists(b =>
                            (s.First > b.Last && s.First - b.Last - 1 <= distance)
                            || (b.First > s.Last && b.First - s.Last - 1 <= distance)
                        )
                    ),
            ];
        }
        return standing.Count > 0;
    }
}
