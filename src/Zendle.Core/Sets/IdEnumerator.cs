using System.Numerics;

namespace Zendle.Core.Sets;

/// <summary>Goes through the members of a set of ids, ascending.</summary>
public ref struct IdEnumerator
{
    private readonly ReadOnlySpan<ulong> words;
    private ulong left;
    private int at;

    internal IdEnumerator(ulong[] words)
    {
        this.words = words;
        at = -1;
    }

    /// <summary>The member.</summary>
    public int Current { get; private set; }

    /// <summary>Goes on to the next one.</summary>
    public bool MoveNext()
    {
        while (left == 0)
        {
            if (++at >= words.Length)
                return false;
            left = words[at];
        }
        Current = (at << 6) + BitOperations.TrailingZeroCount(left);
        left &= left - 1;
        return true;
    }
}
