using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Begins a round: the candidates that trails of works lead to.</summary>
/// <param name="Seeds">Ids of the works it starts from, 1 to <see cref="SeededQuestion.MostSeeds"/>.</param>
/// <param name="Kinds">What makes a neighbour a candidate; none for trails alone.</param>
/// <param name="AtLeast">How much a neighbour has in common at least.</param>
/// <param name="Known">Ids of works that were looked at before.</param>
/// <param name="Number">Which round of the review it is, from 1.</param>
public sealed record RoundAct(
    IReadOnlyList<int>? Seeds,
    IReadOnlyList<NeighbourKind>? Kinds,
    int AtLeast,
    IReadOnlyList<int>? Known,
    int Number
) : SeedsAct(Seeds)
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        SearchState.Everything with
        {
            Question = new RoundQuestion(
                [.. (Seeds ?? []).Distinct()],
                [.. (Kinds ?? []).Where(NeighbourQuestion.AllKinds.Contains).Distinct().Order()],
                Math.Max(1, AtLeast),
                [.. (Known ?? []).Distinct()],
                Math.Max(1, Number)
            ),
        };

    /// <inheritdoc/>
    public override string Label(ActNames names) =>
        Seeds?.Count == 1
            ? $"round {Number} from {names.Work(Seeds[0])}"
            : $"round {Number} from {Seeds?.Count ?? 0:N0} works";

    /// <inheritdoc/>
    private protected override string Starting => "A round starts";

    /// <inheritdoc/>
    public override IEnumerable<int> NamedWorks() => (Seeds ?? []).Concat(Known ?? []);

    /// <inheritdoc/>
    public override StepAct Today(Func<int, int> today) =>
        (RoundAct)base.Today(today) with
        {
            Known = Known is null ? null : [.. Known.Select(today).Distinct()],
        };
}
