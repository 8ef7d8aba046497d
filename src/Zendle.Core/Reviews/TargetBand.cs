namespace Zendle.Core.Reviews;

/// <summary>How many works a person means to read: the band the stair walks down to.</summary>
/// <param name="Low">Fewest works, at least 1.</param>
/// <param name="High">Most works, above <paramref name="Low"/>.</param>
public readonly record struct TargetBand(int Low, int High)
{
    /// <summary>Twenty to a hundred works: a set one can read.</summary>
    public static TargetBand Usual { get; } = new(20, 100);

    /// <summary>Why the band cannot be used, in a sentence; null when it can.</summary>
    public string? Fault =>
        Low < 1 || High <= Low || High > 1_000_000
            ? "The band goes from at least 1 to a larger number, at most 1,000,000."
            : null;
}
