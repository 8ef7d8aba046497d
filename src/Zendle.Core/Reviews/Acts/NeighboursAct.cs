using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Asks for the neighbours of works, in place of the question before and all that narrowed it.</summary>
/// <param name="Seeds">Ids of the works it starts from, 1 to <see cref="SeededQuestion.MostSeeds"/>; where a person asks,
/// null for all kept works of that moment.</param>
/// <param name="Kinds">What makes a neighbour; null for anything.</param>
public sealed record NeighboursAct(IReadOnlyList<int>? Seeds, IReadOnlyList<NeighbourKind>? Kinds = null)
    : SeedsAct(Seeds)
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        SearchState.Everything with
        {
            Question = new NeighbourQuestion([.. (Seeds ?? []).Distinct()], KindsAct.Sorted(Kinds)),
        };

    /// <inheritdoc/>
    public override string Label(ActNames names)
    {
        var of = Seeds?.Count == 1 ? names.Work(Seeds[0]) : $"{Seeds?.Count ?? 0:N0} works";
        var kinds = KindsAct.Sorted(Kinds);
        return kinds.Length == NeighbourQuestion.AllKinds.Length
            ? $"neighbours of {of}"
            : $"neighbours of {of}: {KindsAct.Name(kinds)}";
    }

    /// <inheritdoc/>
    private protected override string Starting => "Neighbours are found";
}
