namespace Zendle.Index.Columns;

/// <summary>Which works cite which, merged over databases; each tie once, a work citing itself left out.</summary>
public sealed class CitationGraph
{
    private readonly int[] backStart, back, forwardStart, forward;

    private CitationGraph(int[] backStart, int[] back, int[] forwardStart, int[] forward) =>
        (this.backStart, this.back, this.forwardStart, this.forward) = (backStart, back, forwardStart, forward);

    /// <summary>How many ties there are.</summary>
    public int Ties => back.Length;

    /// <summary>Backward trail: the works a work cites, ascending.</summary>
    public ReadOnlySpan<int> Cites(int work) => Slice(backStart, back, work);

    /// <summary>Forward trail: the works that cite it, ascending.</summary>
    public ReadOnlySpan<int> CitedBy(int work) => Slice(forwardStart, forward, work);

    private static ReadOnlySpan<int> Slice(int[] start, int[] all, int work) => work + 1 < start.Length ? all.AsSpan(start[work], start[work + 1] - start[work]) : [];

    /// <summary>Builds the graph from pairs (citing work in the upper half, cited work in the lower). O(n log n).</summary>
    internal static CitationGraph Build(List<long> ties, int size)
    {
        var pairs = ties.ToArray();
        Array.Sort(pairs);
        var count = 0;
        for (var i = 0; i < pairs.Length; i++)
            if ((i == 0 || pairs[i] != pairs[i - 1]) && (int)(pairs[i] >> 32) != (int)pairs[i]) pairs[count++] = pairs[i];
        var (backStart, forwardStart) = (new int[size + 1], new int[size + 1]);
        for (var i = 0; i < count; i++)
        {
            backStart[(int)(pairs[i] >> 32) + 1]++;
            forwardStart[(int)pairs[i] + 1]++;
        }
        for (var w = 0; w < size; w++)
        {
            backStart[w + 1] += backStart[w];
            forwardStart[w + 1] += forwardStart[w];
        }
        var (back, forward, next) = (new int[count], new int[count], forwardStart[..size]);
        for (var i = 0; i < count; i++)
        {
            back[i] = (int)pairs[i];
            forward[next[(int)pairs[i]]++] = (int)(pairs[i] >> 32);
        }
        return new(backStart, back, forwardStart, forward);
    }
}
