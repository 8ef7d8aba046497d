namespace Zendle.Core.Sets;

/// <summary>A set of records, by their ids.</summary>
public sealed class RecordSet : IdSet<RecordSet>
{
    /// <summary>An empty set for ids below <paramref name="size"/>.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The size is negative.</exception>
    public RecordSet(int size)
        : base(size) { }

    private RecordSet(int size, ulong[] bits)
        : base(size, bits) { }

    /// <summary>A set of the given records; ids outside the size are left out.</summary>
    public static RecordSet Of(int size, IEnumerable<int> ids)
    {
        var set = new RecordSet(size);
        set.AddAll(ids);
        return set;
    }

    private protected override RecordSet Over(ulong[] bits) => new(Size, bits);
}
