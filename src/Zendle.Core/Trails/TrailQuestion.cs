using System.Collections.Immutable;

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
public sealed record TrailQuestion(ImmutableArray<int> Seeds, TrailWay Way, int AtLeast = 1) : SeededQuestion(Seeds)
{
    /// <summary>Whether the past belongs to it.</summary>
    public bool HasPast => Way != TrailWay.Forward;

    /// <summary>Whether the future belongs to it.</summary>
    public bool HasFuture => Way != TrailWay.Backward;
}
