using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Asks for the neighbours of works, in place of the question before and all that narrowed it.</summary>
/// <param name="Seeds">Ids of the works it starts from, 1 to <see cref="SeededQuestion.MostSeeds"/>; where a person asks,
/// null for all kept works of that moment.</param>
/// <param name="Kinds">What makes a neighbour; null for anything.</param>
public sealed record NeighboursAct(IReadOnlyList<int>? Seeds, IReadOnlyList<NeighbourKind>? Kinds = null) : StepAct
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
    public override ActFault? Fault()
    {
        if (Seeds is not { Count: > 0 })
            return new(
                "Neighbours are those of at least one work; none is kept yet.",
                "Keep a work, or press = on one in the list."
            );
        if (Seeds.Count > SeededQuestion.MostSeeds)
            return new(
                $"Neighbours can be found of at most {SeededQuestion.MostSeeds:N0} works; these are {Seeds.Count:N0}.",
                "Choose fewer, by a tag for instance."
            );
        return ActFault.OfWorks(Seeds);
    }

    /// <inheritdoc/>
    public override bool BeginsAnew() => true;

    /// <inheritdoc/>
    public override IEnumerable<int> NamedWorks() => Seeds ?? [];

    /// <inheritdoc/>
    public override StepAct Today(Func<int, int> today) =>
        this with
        {
            Seeds = Seeds is null ? null : [.. Seeds.Select(today).Distinct()],
        };
}
