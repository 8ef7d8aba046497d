using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>An act that starts from works, in place of the question before and all that narrowed it.</summary>
/// <param name="Seeds">Ids of the works it starts from, 1 to <see cref="SeededQuestion.MostSeeds"/>; where a person asks,
/// null for all kept works of that moment.</param>
public abstract record SeedsAct(IReadOnlyList<int>? Seeds) : StepAct
{
    /// <summary>How a sentence about its seeds begins: "A trail starts", to which "from …" is added.</summary>
    private protected abstract string Starting { get; }

    /// <inheritdoc/>
    public override ActFault? Fault()
    {
        if (Seeds is not { Count: > 0 })
            return new(
                $"{Starting} from at least one work; none is kept yet.",
                "Keep a work, or start from one in the list."
            );
        if (Seeds.Count > SeededQuestion.MostSeeds)
            return new(
                $"{Starting} from at most {SeededQuestion.MostSeeds:N0} works; these are {Seeds.Count:N0}.",
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
