using System.Collections.Immutable;

namespace Zendle.Core.Trails;

/// <summary>What works can have in common with seeds.</summary>
public enum NeighbourKind
{
    /// <summary>Works that both cite: bibliographic coupling (Kessler 1963).</summary>
    SharedReferences,

    /// <summary>Works that cite both: co-citation (Small 1973).</summary>
    CitedTogether,

    /// <summary>Words that are telling for the seeds.</summary>
    SharedTerms,

    /// <summary>Authors or editors of both.</summary>
    SharedPeople,

    /// <summary>One cites the other; what trails lead to, and no neighbour by itself.</summary>
    Tied,
}

/// <summary>The works that have something in common with some works, as the question a work set answers.</summary>
/// <param name="Seeds">The works it starts from, in the order given; a seed's number is its place, from 1.</param>
/// <param name="Kinds">What makes a neighbour, each once, ascending; at least one.</param>
/// <param name="AtLeast">A work is in view when it shares so many references, terms or people with the seeds, or is cited
/// together with them so often; 1 or more.</param>
public sealed record NeighbourQuestion(ImmutableArray<int> Seeds, ImmutableArray<NeighbourKind> Kinds, int AtLeast = 1)
    : SeededQuestion(Seeds)
{
    /// <summary>All that neighbours can be asked for by.</summary>
    public static ImmutableArray<NeighbourKind> AllKinds { get; } =
    [
        NeighbourKind.SharedReferences,
        NeighbourKind.CitedTogether,
        NeighbourKind.SharedTerms,
        NeighbourKind.SharedPeople,
    ];
}
