using Zendle.Core.Trails;

namespace Zendle.Core.Reviews.Acts;

/// <summary>Leaves certain works, written down one by one.</summary>
/// <param name="Works">Ids of the works that are left, 1 to <see cref="SeededQuestion.MostSeeds"/>.</param>
/// <param name="Said">What they are, in a few words; null where nobody said.</param>
public sealed record AmongAct(IReadOnlyList<int> Works, string? Said = null) : StepAct
{
    /// <summary>Ids of the works that are left.</summary>
    public IReadOnlyList<int> Works { get; init; } = Works ?? [];

    /// <inheritdoc/>
    public override SearchState After(SearchState before)
    {
        var left = Works.ToHashSet();
        return before with { Among = [.. before.Among is null ? left.Order() : before.Among.Where(left.Contains)] };
    }

    /// <inheritdoc/>
    public override string Label(ActNames names) => Said is { Length: > 0 } ? Said : $"{Works.Count:N0} works";

    /// <inheritdoc/>
    public override ActFault? Fault() =>
        Works.Count is 0 or > SeededQuestion.MostSeeds
            ? new($"A list holds between one and {SeededQuestion.MostSeeds:N0} works.")
            : ActFault.OfWorks(Works) ?? ActFault.OfSaid(Said);

    /// <inheritdoc/>
    public override IEnumerable<int> NamedWorks() => Works;

    /// <inheritdoc/>
    public override StepAct Today(Func<int, int> today) => this with { Works = [.. Works.Select(today).Distinct()] };
}
