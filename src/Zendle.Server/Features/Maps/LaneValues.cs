using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index;
using Zendle.Index.Senses;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>What lanes can be made of: the values of each work, and what they are called.</summary>
/// <param name="Of">By work: the numbers of its values.</param>
/// <param name="Name">The name of a value.</param>
/// <param name="Modularity">How well topics part the set; null for other fields.</param>
internal sealed record LaneValues(
    IReadOnlyList<IReadOnlyList<int>> Of,
    Func<int, string> Name,
    double? Modularity = null
)
{
    /// <summary>Topics are told by so many of their terms.</summary>
    private const int Terms = 3;

    /// <summary>The values of some works for a field.</summary>
    /// <param name="view">The set in view.</param>
    /// <param name="works">Its works.</param>
    public static LaneValues For(LaneField field, SearchView view, int[] works) =>
        field switch
        {
            LaneField.Tag => OfSets(
                [
                    .. view
                        .Facts.Tags.OrderBy(t => t.Key, StringComparer.OrdinalIgnoreCase)
                        .Select(t => (t.Key, t.Value)),
                ],
                works
            ),
            LaneField.Stage => new(
                [.. works.Select(w => (int[])[(int)view.Fold.Of(w).Stage])],
                stage => Stages.Name((Stage)stage)
            ),
            LaneField.Topic => Parted(view, works, Fineness.Topics(works.Length)),
            LaneField.Sense => Parted(view, works, Fineness.Fields),
            LaneField.Seed => OfSeeds(view, works),
            _ => OfColumn(view, works, Column(field)),
        };

    /// <summary>Whether records say it, of any work: not people, and not the company of a set.</summary>
    public static bool IsFact(LaneField field) =>
        field is not (LaneField.Topic or LaneField.Sense or LaneField.Seed or LaneField.Tag or LaneField.Stage);

    private static Facet Column(LaneField field) =>
        field switch
        {
            LaneField.Subject => Facet.Subject,
            LaneField.Venue => Facet.Venue,
            LaneField.Person => Facet.Person,
            LaneField.Database => Facet.Database,
            LaneField.Country => Facet.Country,
            LaneField.Type => Facet.Type,
            _ => throw new ArgumentOutOfRangeException(nameof(field)),
        };

    private static LaneValues OfColumn(SearchView view, int[] works, Facet facet)
    {
        var column = view.Snapshot.Columns.Of(facet);
        return new([.. works.Select(w => column.Of(w).ToArray())], value => column.Names[value]);
    }

    private static LaneValues OfSets((string Name, WorkSet Works)[] sets, int[] works) =>
        new(
            [.. works.Select(w => Enumerable.Range(0, sets.Length).Where(i => sets[i].Works.Contains(w)).ToArray())],
            value => sets[value].Name
        );

    private static LaneValues Parted(SearchView view, int[] works, Fineness fineness)
    {
        var (groups, modularity) = new SenseGroups(view.Snapshot).Part(view.Answer.InView, Budget.Current, fineness);
        var of = new Dictionary<int, int>();
        for (var i = 0; i < groups.Count; i++)
            foreach (var work in groups[i].Works)
                of[work] = i;
        return new(
            [.. works.Select(w => of.TryGetValue(w, out var group) ? new[] { group } : [])],
            value => string.Join(", ", groups[value].Terms.DefaultIfEmpty("works that cite the same").Take(Terms)),
            modularity
        );
    }

    /// <summary>Seeds are tied to what they cite and what cites them; a seed stands in its own lane.</summary>
    private static LaneValues OfSeeds(SearchView view, int[] works)
    {
        var seeds = view.State.Question is Core.Trails.SeededQuestion question ? question.Seeds : [];
        var graph = view.Snapshot.Columns.Graph;
        var ties = works.ToDictionary(w => w, _ => new SortedSet<int>());
        for (var s = 0; s < seeds.Length; s++)
            foreach (var work in (int[])[seeds[s], .. graph.Cites(seeds[s]), .. graph.CitedBy(seeds[s])])
                if (ties.TryGetValue(work, out var tied))
                    tied.Add(s);
        return new(
            [.. works.Select(w => Array.IndexOf([.. seeds], w) is >= 0 and var own ? [own] : ties[w].ToArray())],
            seed => WorkNames.Of(view.Snapshot.Columns, seeds[seed])
        );
    }
}
