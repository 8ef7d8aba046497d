namespace Zendle.Outside.World;

/// <summary>
/// Seeded random numbers (SplitMix64, Steele, Lea, Flood 2014): the same on every machine and version.
/// </summary>
public sealed class Dice
{
    private readonly ulong seed;
    private ulong state;

    /// <summary>Starts a stream.</summary>
    public Dice(ulong seed) => this.seed = state = seed;

    /// <summary>A fresh stream for a named purpose, so that adding one purpose does not shift the others.</summary>
    public Dice For(string purpose, int number = 0)
    {
        var h = 14695981039346656037UL;
        foreach (var c in purpose)
            h = (h ^ c) * 1099511628211UL;
        // Mixed once more: streams whose seeds differ by a multiple of the step would be one stream, shifted.
        return new(Mix(Mix(seed ^ h) + (ulong)number * 0xD1342543DE82EF95UL));
    }

    /// <summary>A number from 0 to <paramref name="n"/> − 1.</summary>
    public int Below(int n) => (int)(Next() % (ulong)n);

    /// <summary>A number between two, both included.</summary>
    public int Between(int low, int high) => low + Below(high - low + 1);

    /// <summary>A number in [0, 1).</summary>
    public double Unit() => (Next() >> 11) * (1.0 / (1UL << 53));

    /// <summary>
    /// A number from the normal distribution, mean 0 and deviation 1, by the sum of twelve (never beyond ±6).
    /// </summary>
    public double Bell()
    {
        var sum = -6.0;
        for (var i = 0; i < 12; i++)
            sum += Unit();
        return sum;
    }

    /// <summary>True with a chance.</summary>
    public bool Chance(double p) => Unit() < p;

    /// <summary>One of a list.</summary>
    public T Of<T>(IReadOnlyList<T> list) => list[Below(list.Count)];

    private ulong Next() => Mix(state += 0x9E3779B97F4A7C15UL);

    private static ulong Mix(ulong z)
    {
        z = (z ^ z >> 30) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ z >> 27) * 0x94D049BB133111EBUL;
        return z ^ z >> 31;
    }
}
