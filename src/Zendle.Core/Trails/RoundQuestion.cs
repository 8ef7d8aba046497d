using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>
/// The candidates of a round: what the trails of some works lead to, both ways, and their neighbours where they are asked
/// for; less the works themselves and what was looked at before the round.
/// </summary>
/// <param name="Seeds">The works it starts from, in the order given; a seed's number is its place, from 1.</param>
/// <param name="Kinds">What makes a neighbour a candidate; none for trails alone.</param>
/// <param name="AtLeast">How much a neighbour has in common at least; 1 or more.</param>
/// <param name="Known">Works that trails and neighbours lead to and somebody had judged, or who began it looked at.</param>
/// <param name="Number">Which round of the review it is, from 1.</param>
public sealed record RoundQuestion(
    ImmutableArray<int> Seeds,
    ImmutableArray<NeighbourKind> Kinds,
    int AtLeast,
    ImmutableArray<int> Known,
    int Number
) : SeededQuestion(Seeds)
{
    /// <inheritdoc/>
    public override IEnumerable<int> Works() => Seeds.Concat(Known);

    /// <inheritdoc/>
    public override SetQuestion Today(Func<int, int> today) =>
        this with
        {
            Seeds = [.. Seeds.Select(today).Distinct()],
            Known = [.. Known.Select(today).Distinct()],
        };
}
