using Zendle.Core.Text;

namespace Zendle.Index.Columns;

/// <summary>
/// Names by number, told apart without regard to case unless it is asked for. Names are only added, so that all
/// columns of one field share a table and each looks at as many names as there were when it was made.
/// </summary>
internal sealed class NameTable(StringComparer? comparer = null)
{
    private readonly Lock gate = new();
    private readonly Dictionary<string, int> numbers = new(comparer ?? StringComparer.OrdinalIgnoreCase);
    private string[] names = [];
    private string?[] folded = [];
    private int count;

    public int Count
    {
        get
        {
            lock (gate)
                return count;
        }
    }

    /// <summary>The first names.</summary>
    public ArraySegment<string> First(int many)
    {
        lock (gate)
            return new(names, 0, many);
    }

    /// <summary>The number of a name, a new one when it has none yet.</summary>
    public int Add(string name)
    {
        lock (gate)
        {
            if (numbers.TryGetValue(name, out var number))
                return number;
            // Whoever holds the old array goes on reading it.
            if (count == names.Length)
                Array.Resize(ref names, Math.Max(16, count * 2));
            names[count] = name;
            return numbers[name] = count++;
        }
    }

    /// <summary>The number of a name; −1 when it has none.</summary>
    public int Find(string name)
    {
        lock (gate)
            return numbers.GetValueOrDefault(name, -1);
    }

    /// <summary>The first names as their words, folded, each with a blank before it.</summary>
    public ArraySegment<string?> Folded(int many)
    {
        lock (gate)
        {
            if (folded.Length < many)
                Array.Resize(ref folded, names.Length);
            for (var i = many - 1; i >= 0 && folded[i] is null; i--)
                folded[i] = " " + string.Join(' ', Words.AsWritten(names[i]));
            return new(folded, 0, many);
        }
    }
}
