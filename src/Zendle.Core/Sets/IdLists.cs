namespace Zendle.Core.Sets;

/// <summary>
/// A list of whole numbers for each id, all in one array. Immutable to whoever reads it; an <see cref="Editor"/> makes
/// the next one at the cost of what changes: new lists go behind the old ones into room that no reader of an older one
/// looks at, so the numbers themselves are not copied.
/// </summary>
/// <remarks>
/// Memory: five bytes an id, four a number and a list. Only the newest of a chain may be edited, by one editor at a time.
/// </remarks>
public sealed class IdLists
{
    private const int Long = byte.MaxValue;

    private readonly int[] at; // 0 for none, else one more than the start of the list's length
    private readonly int[] data;
    private readonly byte[] lengths; // Long for what is so long or longer
    private readonly int used,
        dead;

    private IdLists(int[] at, int[] data, byte[] lengths, int used, int dead) =>
        (this.at, this.data, this.lengths, this.used, this.dead) = (at, data, lengths, used, dead);

    /// <summary>No lists.</summary>
    public static IdLists Empty { get; } = new([], [], [], 0, 0);

    /// <summary>Ids are below this.</summary>
    public int Size => at.Length;

    /// <summary>How many bytes its arrays take, with what is dead and the room behind them.</summary>
    public long Bytes => sizeof(int) * ((long)at.Length + data.Length) + lengths.Length;

    /// <summary>The list of an id; empty for an id that has none.</summary>
    public ReadOnlySpan<int> Of(int id) =>
        (uint)id < (uint)at.Length && at[id] is > 0 and var start ? data.AsSpan(start, data[start - 1]) : [];

    /// <summary>
    /// How long the list of an id is. Most lengths stand in a byte each, so that asking for many does not touch the lists.
    /// </summary>
    public int Length(int id) =>
        (uint)id >= (uint)lengths.Length ? 0
        : lengths[id] < Long ? lengths[id]
        : data[at[id] - 1];

    /// <summary>An editor for the lists that come after these.</summary>
    /// <param name="size">Ids will be below this; never less than now.</param>
    /// <param name="room">How many numbers will come, with one for each list, where that is known: room is made for no
    /// more.</param>
    public Editor Edit(int size, long room = 0) => new(this, size, room);

    /// <summary>The arrays, without what is dead, for writing them down.</summary>
    public (int[] At, int[] Data) Arrays()
    {
        if (dead == 0)
            return (at, data[..used]);
        var live = Compacted();
        return (live.at, live.data[..live.used]);
    }

    /// <summary>
    /// How long an array should be that is read for lists that were written down: with room behind them for what comes
    /// next.
    /// </summary>
    public static int LengthFor(int used) => (int)Math.Min(Array.MaxLength, used + used / 16L);

    /// <summary>Lists that were written down.</summary>
    /// <param name="at">By id where its list lies.</param>
    /// <param name="data">The lists, and room behind them.</param>
    /// <param name="used">How much of it is lists.</param>
    /// <exception cref="InvalidDataException">The arrays do not fit each other.</exception>
    public static IdLists From(int[] at, int[] data, int used)
    {
        var lengths = new byte[at.Length];
        for (var id = 0; id < at.Length; id++)
        {
            var start = at[id];
            if (start < 0 || start > used || (start > 0 && (data[start - 1] < 0 || start + data[start - 1] > used)))
                throw new InvalidDataException("A list lies outside its array.");
            if (start > 0)
                lengths[id] = Short(data[start - 1]);
        }
        return new(at, data, lengths, used, 0);
    }

    /// <summary>Lists that were written down.</summary>
    /// <exception cref="InvalidDataException">The arrays do not fit each other.</exception>
    public static IdLists From(int[] at, int[] data) => From(at, data, data.Length);

    private IdLists Compacted()
    {
        var (next, to, n) = (new int[at.Length], new int[used - dead], 0);
        for (var id = 0; id < at.Length; id++)
        {
            if (at[id] == 0)
                continue;
            var length = data[at[id] - 1];
            data.AsSpan(at[id] - 1, length + 1).CopyTo(to.AsSpan(n));
            next[id] = n + 1;
            n += length + 1;
        }
        return new(next, to, lengths, n, 0);
    }

    private static byte Short(int length) => (byte)Math.Min(length, Long);

    /// <summary>Makes the next lists. Ids may be set in any order; the last word holds.</summary>
    public sealed class Editor
    {
        /// <summary>From so many numbers on, room is added sparingly: it is held by whoever reads.</summary>
        private const int Large = 1 << 20;

        private readonly int[] at;
        private readonly byte[] lengths;
        private int[] data;
        private int used,
            dead;

        internal Editor(IdLists from, int size, long room)
        {
            // What nobody can reach any more is left behind when it has become the larger part.
            if (from.dead > from.used / 2 && from.dead > 4_096)
                from = from.Compacted();
            at = new int[Math.Max(size, from.at.Length)];
            from.at.CopyTo(at, 0);
            lengths = new byte[at.Length];
            from.lengths.CopyTo(lengths, 0);
            (data, used, dead) = (from.data, from.used, from.dead);
            if (used + room > data.Length)
                Array.Resize(ref data, (int)Math.Min(Array.MaxLength, used + room));
        }

        /// <summary>Sets the list of an id; an empty one takes it away.</summary>
        public void Set(int id, ReadOnlySpan<int> list)
        {
            if (at[id] > 0)
                dead += data[at[id] - 1] + 1;
            at[id] = 0;
            lengths[id] = Short(list.Length);
            if (list.IsEmpty)
                return;
            if (used + list.Length + 1 > data.Length)
                Array.Resize(
                    ref data,
                    (int)
                        Math.Min(
                            Array.MaxLength,
                            Math.Max(used + list.Length + 1L, used + used / (used < Large ? 2 : 8) + 64L)
                        )
                );
            data[used] = list.Length;
            list.CopyTo(data.AsSpan(used + 1));
            at[id] = used + 1;
            used += list.Length + 1;
        }

        /// <summary>The list of an id as it stands.</summary>
        public ReadOnlySpan<int> Of(int id) => at[id] is > 0 and var start ? data.AsSpan(start, data[start - 1]) : [];

        /// <summary>The lists. The editor is done with.</summary>
        public IdLists Finish() => new(at, data, lengths, used, dead);
    }
}
