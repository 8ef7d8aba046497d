using System.Collections.Immutable;
using Zendle.Core.Queries;
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
    private readonly ILookup<char, (string[] Words, int Concept)> labels;

    /// <summary>Makes one.</summary>
    /// <param name="concepts">Its concepts; their numbers are their places.</param>
    public Vocabulary(ImmutableArray<VocabularyConcept> concepts)
    {
        Concepts = concepts;
        labels = concepts
            .SelectMany((c, i) => c.Labels.Select(l => (Words: Words.AsWritten(l).ToArray(), Concept: i)))
            .Where(l => l.Words.Length > 0)
            .ToLookup(l => l.Words[0][0]);
    }

    /// <summary>Its concepts.</summary>
    public ImmutableArray<VocabularyConcept> Concepts { get; }

    /// <summary>
    /// The concepts that have a label a term asks for, just its words; a word may have an open end ("moth*"). O(labels that
    /// begin with the same letter).
    /// </summary>
    public IEnumerable<int> Find(TermNode term) =>
        term
            .Forms.Select(form => form[0][0])
            .Distinct()
            .SelectMany(first => labels[first])
            .Where(l => term.IsJust(l.Words))
            .Select(l => l.Concept)
            .Distinct();
}
