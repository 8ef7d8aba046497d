namespace Zendle.Documents;

/// <summary>What a document may cost before it is given up.</summary>
/// <param name="Pages">Most pages.</param>
/// <param name="Time">Most time for reading it.</param>
public sealed record DocumentLimits(int Pages, TimeSpan Time)
{
    /// <summary>The usual limits: more pages than any thesis has, more time than any of them takes.</summary>
    public static DocumentLimits Usual { get; } = new(2_000, TimeSpan.FromSeconds(30));

    /// <summary>Most managed memory of the process that reads it, in bytes.</summary>
    public long Heap { get; init; } = 768L << 20;

    /// <summary>Most memory of that process in all, in bytes.</summary>
    public long Memory { get; init; } = 1_100L << 20;

    /// <summary>How much longer than <see cref="Time"/> that process may be silent before it is ended.</summary>
    public TimeSpan Grace { get; init; } = TimeSpan.FromSeconds(5);

    /// <summary>Most letters on one page.</summary>
    public int LettersOnPage { get; init; } = 400_000;
}
