using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Follows a trail from seeds, in place of the question before and all that narrowed it.</summary>
/// <param name="Seeds">Ids of the works it starts from, 1 to <see cref="SeededQuestion.MostSeeds"/>; where a person asks,
/// null for all kept works of that moment.</param>
/// <param name="Way">Which way it runs.</param>
public sealed record TrailAct(IReadOnlyList<int>? Seeds, TrailWay Way = TrailWay.Both) : SeedsAct(Seeds)
{
    /// <inheritdoc/>
    public override SearchState After(SearchState before) =>
        SearchState.Everything with
        {
            Question = new TrailQuestion([.. (Seeds ?? []).Distinct()], Way),
        };

    /// <inheritdoc/>
    public override string Label(ActNames names)
    {
        var many = Seeds?.Count != 1;
        var from = many ? $"{Seeds?.Count ?? 0:N0} works" : names.Work(Seeds![0]);
        return Way switch
        {
            TrailWay.Backward => many ? $"what {from} cite" : $"what {from} cites",
            TrailWay.Forward => $"what cites {from}",
            _ => $"both ways from {from}",
        };
    }

    /// <inheritdoc/>
    private protected override string Starting => "A trail starts";
}
