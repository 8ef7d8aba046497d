using System.Diagnostics.CodeAnalysis;

namespace Zendle.Core.Sets;

/// <summary>
/// Remembers what was worked out, bounded in bytes: when there is more, what was not asked for longest is forgotten. What
/// came last stays, even if it alone is over the bound, so that nobody works out the same again and again.
/// </summary>
/// <remarks>Safe for several threads; every operation is O(1), but for what it forgets.</remarks>
/// <typeparam name="TKey">What is asked.</typeparam>
/// <typeparam name="TValue">What is remembered; not changed afterwards.</typeparam>
public sealed class BoundedCache<TKey, TValue>
    where TKey : notnull
{
    private readonly Lock gate = new();
    private readonly Dictionary<TKey, LinkedListNode<Entry>> entries;
    private readonly LinkedList<Entry> byUse = [];
    private long mostBytes;

    /// <summary>Begins empty.</summary>
    /// <param name="mostBytes">How much is remembered at most.</param>
    /// <param name="comparer">Tells keys apart; null for the usual way.</param>
    public BoundedCache(long mostBytes, IEqualityComparer<TKey>? comparer = null) =>
        (this.mostBytes, entries) = (mostBytes, new(comparer));

    private readonly record struct Entry(TKey Key, TValue Value, long Bytes);

    /// <summary>Bytes that are remembered now, as they were told.</summary>
    public long Bytes { get; private set; }

    /// <summary>How many answers are remembered now.</summary>
    public int Count
    {
        get
        {
            lock (gate)
                return entries.Count;
        }
    }

    /// <summary>How much is remembered at most; less forgets at once.</summary>
    public long MostBytes
    {
        get => mostBytes;
        set
        {
            lock (gate)
            {
                mostBytes = value;
                Fit();
            }
        }
    }

    /// <summary>What is remembered for a key.</summary>
    public bool TryGet(TKey key, [MaybeNullWhen(false)] out TValue value)
    {
        lock (gate)
        {
            if (!entries.TryGetValue(key, out var node))
            {
                value = default;
                return false;
            }
            byUse.Remove(node);
            byUse.AddFirst(node);
            value = node.Value.Value;
            return true;
        }
    }

    /// <summary>Remembers a value in the place of what was remembered for its key.</summary>
    /// <param name="key">The key.</param>
    /// <param name="value">The value.</param>
    /// <param name="bytes">About how much it takes.</param>
    public void Put(TKey key, TValue value, long bytes)
    {
        lock (gate)
        {
            if (entries.Remove(key, out var before))
                Drop(before);
            entries[key] = byUse.AddFirst(new Entry(key, value, bytes));
            Bytes += bytes;
            Fit();
        }
    }

    /// <summary>
    /// What is remembered for a key, or what <paramref name="make"/> gives, which is remembered then. Several who ask at
    /// once may each make it.
    /// </summary>
    public TValue Get(TKey key, Func<TValue> make, Func<TValue, long> bytes)
    {
        if (TryGet(key, out var known))
            return known;
        var made = make();
        Put(key, made, bytes(made));
        return made;
    }

    /// <summary>Forgets everything.</summary>
    public void Clear()
    {
        lock (gate)
        {
            entries.Clear();
            byUse.Clear();
            Bytes = 0;
        }
    }

    private void Fit()
    {
        while (Bytes > mostBytes && byUse.Count > 1)
        {
            var last = byUse.Last!;
            entries.Remove(last.Value.Key);
            Drop(last);
        }
    }

    private void Drop(LinkedListNode<Entry> node)
    {
        byUse.Remove(node);
        Bytes -= node.Value.Bytes;
    }
}
