using Zendle.Core.Merging;

namespace Zendle.Core.People;

/// <summary>
/// Parts mentions into blocks: those that may be of one person stand in one, which share the first part of a family name,
/// or an ORCID iD (which bridges a change of name). O(mentions), in the order in which they are added.
/// </summary>
internal sealed class PeopleBlocks
{
    private readonly Dictionary<ulong, int> nodeOf = [];
    private readonly List<int> parent = [];
    private readonly List<int> mentions = [];

    /// <summary>What brings a mention together with others: family name, and ORCID iD or 0.</summary>
    internal readonly record struct Keys(ulong Family, ulong Orcid);

    /// <summary>The keys of a mention.</summary>
    public static Keys KeysOf(Mention mention) =>
        new(
            MergeKeys.Of("people block", mention.Family.Count > 0 ? mention.Family[0] : ""),
            mention.Orcid is { } orcid ? MergeKeys.Of("people ORCID iD", orcid) : 0
        );

    /// <summary>Adds a mention; the first has ordinal 0.</summary>
    public void Add(Keys keys)
    {
        var node = Node(keys.Family);
        if (keys.Orcid != 0)
            parent[Root(Node(keys.Orcid))] = Root(node);
        mentions.Add(node);
    }

    /// <summary>The blocks, each with the ordinals of its mentions, ascending; a block stands where its first mention does.</summary>
    public int[][] Finish()
    {
        var blockOf = new int[parent.Count];
        Array.Fill(blockOf, -1);
        var sizes = new List<int>();
        foreach (var node in mentions)
        {
            ref var block = ref blockOf[Root(node)];
            if (block < 0)
            {
                block = sizes.Count;
                sizes.Add(0);
            }
            sizes[block]++;
        }
        var blocks = new int[sizes.Count][];
        for (var i = 0; i < blocks.Length; i++)
            (blocks[i], sizes[i]) = (new int[sizes[i]], 0);
        for (var ordinal = 0; ordinal < mentions.Count; ordinal++)
        {
            var block = blockOf[Root(mentions[ordinal])];
            blocks[block][sizes[block]++] = ordinal;
        }
        return blocks;
    }

    private int Node(ulong key)
    {
        if (nodeOf.TryGetValue(key, out var node))
            return node;
        nodeOf[key] = node = parent.Count;
        parent.Add(node);
        return node;
    }

    private int Root(int node)
    {
        while (parent[node] != node)
            node = parent[node] = parent[parent[node]];
        return node;
    }
}
