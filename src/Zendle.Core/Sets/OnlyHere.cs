using System.Numerics;

namespace Zendle.Core.Sets;

/// <summary>
/// Counts, for each of some databases, the works that would be lost without it. An extract is counted together with what
/// contains it: without a database goes what it holds and what its extracts hold; without an extract only what that
/// alone holds. The one meaning of "only here", in the ledger, in trails, and on the page of databases.
/// </summary>
public sealed class OnlyHere
{
    private readonly ulong[] whole;
    private readonly bool[] isWhole,
        isOn;
    private readonly int[] wholes,
        counts;
    private readonly ulong on;

    /// <summary>Begins to count.</summary>
    /// <param name="databases">Ids of the databases, at most 64; a work's mask has their bits in this order.</param>
    /// <param name="containers">What contains an extract, by the extract's id; others are passed over.</param>
    /// <param name="chosen">Whether a database is searched; what the others hold saves nothing.</param>
    /// <exception cref="InvalidOperationException">There are more than 64 databases.</exception>
    public OnlyHere(IReadOnlyList<int> databases, IReadOnlyDictionary<int, int> containers, Func<int, bool> chosen)
    {
        if (databases.Count > 64)
            throw new InvalidOperationException("At most 64 databases are counted.");
        var bit = databases.Select((d, i) => (d, i)).ToDictionary(x => x.d, x => x.i);
        (whole, counts) = (new ulong[databases.Count], new int[databases.Count]);
        for (var i = 0; i < whole.Length; i++)
            whole[i] = 1UL << i;
        foreach (var (extract, container) in containers)
            if (bit.TryGetValue(extract, out var part) && bit.TryGetValue(container, out var all))
                whole[all] |= 1UL << part;
        isWhole = Array.ConvertAll(whole, w => (w & (w - 1)) != 0);
        wholes = [.. Enumerable.Range(0, whole.Length).Where(i => isWhole[i])];
        isOn = [.. databases.Select(chosen)];
        for (var i = 0; i < isOn.Length; i++)
            if (isOn[i])
                on |= 1UL << i;
    }

    /// <summary>Works counted for each database, in their order.</summary>
    public IReadOnlyList<int> Counts => counts;

    /// <summary>Takes a work.</summary>
    /// <param name="held">The databases that hold it, a bit for each.</param>
    /// <returns>Whether a database that is searched holds it.</returns>
    public bool Take(ulong held)
    {
        var seen = held & on;
        if (seen == 0)
            return false;
        if ((seen & (seen - 1)) == 0 && BitOperations.TrailingZeroCount(seen) is var single && !isWhole[single])
            counts[single]++;
        foreach (var i in wholes)
            if (isOn[i] && (seen & ~whole[i]) == 0)
                counts[i]++;
        return true;
    }
}
