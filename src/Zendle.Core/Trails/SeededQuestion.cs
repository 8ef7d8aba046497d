using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>A question that starts from works: a trail, or neighbours.</summary>
/// <param name="Seeds">The works it starts from, in the order given; a seed's number is its place, from 1.</param>
/// <param name="AtLeast">A work is in view when it has so much to do with the seeds; 1 or more.</param>
public abstract record SeededQuestion(ImmutableArray<int> Seeds, int AtLeast) : SetQuestion
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
