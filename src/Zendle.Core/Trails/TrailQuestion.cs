using System.Collections.Immutable;
using Zendle.Core.Sets;

namespace Zendle.Core.Trails;

/// <summary>Which way a trail runs from its seeds.</summary>
public enum TrailWay
{
    /// <summary>Into the past: what the seeds cite.</summary>
    Backward,

    /// <summary>Into the future: what cites the seeds.</summary>
    Forward,

    /// <summary>Both.</summary>
    Both,
}

/// <summary>A trail as the question a work set answers.</summary>
/// <param name="Seeds">The works it starts from, in the order given; a seed's number is its place, from 1.</param>
/// <param name="Way">Which way it runs.</param>
/// <param name="AtLeast">A work is in view when at least so many seeds are tied to it on one side; 1 or more.</param>
public sealed record TrailQuestion(ImmutableArray<int> Seeds, TrailWay Way, int AtLeast = 1) : SetQuestion
{
    /// <summary>The most seeds a trail starts from.</summary>
    public const int MostSeeds = 5_000;

    /// <summary>Whether the past belongs to it.</summary>
    public bool HasPast => Way != TrailWay.Forward;

    /// <summary>Whether the future belongs to it.</summary>
    public bool HasFuture => Way != TrailWay.Backward;

    /// <inheritdoc/>
    public override IEnumerable<int> Works() => Seeds;

    /// <inheritdoc/>
    public override SetQuestion Today(Func<int, int> today) =>
        this with
        {
            Seeds = [.. Seeds.Select(today).Distinct()],
        };
}
