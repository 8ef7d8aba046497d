using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>A question that starts from works: a trail, neighbours, or a round.</summary>
/// <param name="Seeds">The works it starts from, in the order given; a seed's number is its place, from 1.</param>
public abstract record SeededQuestion(ImmutableArray<int> Seeds) : SetQuestion
{
    /// <summary>The most seeds a question starts from.</summary>
    public const int MostSeeds = 5_000;

    /// <inheritdoc/>
    public override IEnumerable<int> Works() => Seeds;

    /// <inheritdoc/>
    public override SetQuestion Today(Func<int, int> today) =>
        this with
        {
            Seeds = [.. Seeds.Select(today).Distinct()],
        };
}
