using System.Collections.Immutable;
using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Says what makes a neighbour.</summary>
/// <param name="Kinds">What neighbours have in common with the seeds, any of it; none for everything there is.</param>
public sealed record KindsAct(IReadOnlyList<NeighbourKind> Kinds) : StepAct
{
    /// <summary>What neighbours have in common with the seeds.</summary>
    public IReadOnlyList<NeighbourKind> Kinds { get; init; } = Kinds ?? [];

    /// <summary>Kinds in their order, each once; all when none is named.</summary>
    internal static ImmutableArray<NeighbourKind> Sorted(IReadOnlyList<NeighbourKind>? kinds) =>
        kinds?.Where(NeighbourQuestion.AllKinds.Contains).Distinct().Order().ToImmutableArray()
            is { IsEmpty: false } some
            ? some
            : NeighbourQuestion.AllKinds;

    /// <summary>What kinds are called in a sentence.</summary>
    public static string Name(IEnumerable<NeighbourKind> kinds) =>
        string.Join(
            ", ",
            kinds.Select(k =>
                k switch
                {
                    NeighbourKind.SharedReferences => "shared references",
                    NeighbourKind.CitedTogether => "cited together",
                    NeighbourKind.SharedTerms => "shared terms",
                    _ => "shared people",
                }
            )
        );

    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        before.Neighbours is { } neighbours
            ? before with
            {
                Question = neighbours with { Kinds = Sorted(Kinds) },
            }
            : before;

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Sorted(Kinds) is var kinds && kinds.Length == NeighbourQuestion.AllKinds.Length
            ? "neighbours of any kind"
            : Name(kinds);

    /// <inheritdoc/>
    public override bool SaysSomethingIn(SearchState before) => before.Neighbours is not null;
}
