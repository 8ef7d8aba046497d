using System.Collections.Immutable;
using Zendle.Core.Text;

namespace Zendle.Core.Terms;

/// <summary>One idea of a controlled vocabulary (SKOS Reference, W3C 2009).</summary>
/// <param name="Label">Its preferred label.</param>
/// <param name="Others">Its other labels: older words, common and Latin names.</param>
/// <param name="Broader">Numbers of the concepts above it.</param>
/// <param name="Narrower">Numbers of the concepts below it.</param>
public sealed record VocabularyConcept(
    string Label,
    ImmutableArray<string> Others,
    ImmutableArray<int> Broader,
    ImmutableArray<int> Narrower
)
{
    /// <summary>All its labels, the preferred one first.</summary>
    public IEnumerable<string> Labels => Others.Prepend(Label);
}

/// <summary>A controlled vocabulary: concepts with their labels, each under broader ones.</summary>
public sealed class Vocabulary
{
    private readonly ILookup<string, int> byFirstLetter;

    /// <summary>Makes one.</summary>
    /// <param name="concepts">Its concepts; their numbers are their places.</param>
    public Vocabulary(ImmutableArray<VocabularyConcept> concepts)
    {
        Concepts = concepts;
        byFirstLetter = Enumerable
            .Range(0, concepts.Length)
            .SelectMany(i =>
                concepts[i]
                    .Labels.Select(WordsOf)
                    .Where(w => w.Length > 0)
                    .Select(w => (First: w[0][..1], Concept: i))
                    .Distinct()
            )
            .ToLookup(p => p.First, p => p.Concept, StringComparer.Ordinal);
    }

    /// <summary>Its concepts.</summary>
    public ImmutableArray<VocabularyConcept> Concepts { get; }

    /// <summary>
    /// The concepts that have a label of just some words, each of which may have an open end ("moth*"). O(labels that
    /// begin with the same letter).
    /// </summary>
    /// <param name="words">Words as a search folds them.</param>
    public IEnumerable<int> Find(IReadOnlyList<string> words) =>
        words.Count == 0 || words[0].Length == 0
            ? []
            : byFirstLetter[words[0][..1]]
                .Where(c =>
                    Concepts[c]
                        .Labels.Select(WordsOf)
                        .Any(l => l.Length == words.Count && l.Select((w, i) => Glob.Matches(words[i], w)).All(m => m))
                );

    /// <summary>The words of a label as a search folds them.</summary>
    private static string[] WordsOf(string label) =>
        [.. Words.Of(label).Where(w => !w.IsClosedForm).Select(w => w.Text)];
}
