namespace Zendle.Core.Sets;

/// <summary>What is counted of a work; its default counts nothing.</summary>
public interface ICounted
{
    /// <summary>Whether anything was counted.</summary>
    bool IsNone { get; }
}

/// <summary>
/// What is counted of works while a question is answered: room for every work, and the works that were touched, so that few of
/// them cost little however large the corpus is.
/// </summary>
/// <remarks>
/// The last array is held between questions, clean, as long as memory is not wanted for something else. Not safe for several
/// threads at once.
/// </remarks>
/// <typeparam name="T">What is counted of a work.</typeparam>
public sealed class ById<T> : IDisposable
    where T : struct, ICounted
{
    private static readonly Lock Gate = new();
    private static readonly WeakReference<T[]> Spare = new([]);

    private readonly int size;
    private readonly List<int> touched = [];
    private T[] counted;

    /// <summary>Begins with nothing counted. O(1) where an array is at hand, else O(size).</summary>
    /// <param name="size">Ids are below this.</param>
    public ById(int size)
    {
        this.size = size;
        lock (Gate)
        {
            counted = Spare.TryGetTarget(out var spare) && spare.Length >= size ? spare : [];
            if (counted.Length > 0)
                Spare.SetTarget([]);
        }
        if (counted.Length < size)
            counted = new T[size];
    }

    /// <summary>What is counted of an id, to be changed; whoever asks for it counts something.</summary>
    /// <param name="id">The id, below the size.</param>
    public ref T this[int id]
    {
        get
        {
            ref var its = ref counted[id];
            if (its.IsNone)
                touched.Add(id);
            return ref its;
        }
    }

    /// <summary>What is counted of an id.</summary>
    /// <param name="id">The id, below the size.</param>
    public T Of(int id) => counted[id];

    /// <summary>The ids of which something is counted, as a set. O(size / 64 + ids).</summary>
    public WorkSet Works() => WorkSet.Of(size, touched);

    /// <summary>Leaves the array clean behind for the next question. O(ids touched).</summary>
    public void Dispose()
    {
        foreach (var id in touched)
            counted[id] = default;
        touched.Clear();
        lock (Gate)
            if (!Spare.TryGetTarget(out var spare) || spare.Length <= counted.Length)
                Spare.SetTarget(counted);
        counted = [];
    }
}
