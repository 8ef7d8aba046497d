namespace Zendle.Core.Sets;

/// <summary>A set of works, by their ids.</summary>
public sealed class WorkSet : IdSet<WorkSet>
{
    /// <summary>An empty set for ids below <paramref name="size"/>.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The size is negative.</exception>
    public WorkSet(int size)
        : base(size) { }

    private WorkSet(int size, ulong[] bits)
        : base(size, bits) { }

    /// <summary>A set of the given works; ids outside the size are left out.</summary>
    public static WorkSet Of(int size, IEnumerable<int> ids)
    {
        var set = new WorkSet(size);
        set.AddAll(ids);
        return set;
    }

    private protected override WorkSet Over(ulong[] bits) => new(Size, bits);
}
