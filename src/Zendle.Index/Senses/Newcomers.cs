using System.Runtime.InteropServices;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Columns;

namespace Zendle.Index.Senses;

/// <summary>
/// The groups of single works, those that a set was not parted with among them. Such a work belongs to the group it is linked
/// with most by shared references, citations and keywords, as <see cref="SenseGroups"/> weighs them; the first of those; to
/// none where it is linked with none. Who else came does not matter: that it comes alone or with others, and before or after
/// it is suggested, leads to the same group.
/// </summary>
public sealed class Newcomers
{
    private readonly CorpusColumns columns;
    private readonly WorkSet then;
    private readonly int groups;
    private readonly Dictionary<int, int> groupOf = [];
    private readonly Dictionary<int, List<int>> citing = [],
        having = [];

    /// <summary>Notes what the works of a parted set have. O(their references and keywords).</summary>
    /// <param name="columns">The corpus.</param>
    /// <param name="found">How the set was parted.</param>
    /// <param name="then">The works of the set.</param>
    public Newcomers(CorpusColumns columns, Parting found, WorkSet then)
    {
        (this.columns, this.then, groups) = (columns, then, found.Groups.Count);
        for (var g = 0; g < groups; g++)
            foreach (var work in found.Groups[g].Works)
                groupOf[work] = g;
        foreach (var work in then.Members())
        {
            Note(citing, columns.Graph.Cites(work), work);
            Note(having, columns.Of(Facet.Keyword).Of(work), work);
        }
    }

    /// <summary>The group of a work; null for none. O(what it shares).</summary>
    public int? GroupOf(int work)
    {
        if (then.Contains(work) || groups == 0)
            return groupOf.TryGetValue(work, out var own) ? own : null;
        var weights = new double[groups];
        var references = columns.Graph.Cites(work);
        foreach (var cited in references)
        {
            foreach (var other in Sharing(citing, cited))
                Add(other, SenseGroups.OfReference(references.Length, columns.Graph.CitesCount(other)));
            Add(cited, SenseGroups.CitationWeight);
        }
        foreach (var other in columns.Graph.CitedBy(work))
            Add(other, SenseGroups.CitationWeight);
        foreach (var keyword in columns.Of(Facet.Keyword).Of(work))
            if (Sharing(having, keyword) is { Count: > 0 } those)
                foreach (var other in those)
                    Add(other, SenseGroups.OfKeyword(those.Count + 1));
        var most = weights.Max();
        return most > 0 ? Array.IndexOf(weights, most) : null;

        void Add(int other, double weight)
        {
            if (groupOf.TryGetValue(other, out var group))
                weights[group] += weight;
        }
    }

    private static void Note(Dictionary<int, List<int>> by, ReadOnlySpan<int> things, int work)
    {
        foreach (var thing in things)
        {
            ref var those = ref CollectionsMarshal.GetValueRefOrAddDefault(by, thing, out _);
            (those ??= []).Add(work);
        }
    }

    /// <summary>Who has a thing; nobody where so many have it that it says nothing.</summary>
    private static List<int> Sharing(Dictionary<int, List<int>> by, int thing) =>
        by.TryGetValue(thing, out var those) && those.Count < SenseGroups.MostSharing ? those : [];
}
