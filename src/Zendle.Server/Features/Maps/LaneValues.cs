using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Index.Senses;
using Zendle.Index.Terms;
using Zendle.Server.Features.Search;
using Zendle.Server.Features.Search.Senses;

namespace Zendle.Server.Features.Maps;

/// <summary>What lanes can be made of: the values of works, and what they are called.</summary>
/// <param name="Of">By id of a work: the numbers of its values.</param>
/// <param name="Name">The name of a value.</param>
/// <param name="IsFact">Whether records say it, of any work: not people, and not the company of a set.</param>
/// <param name="Modularity">How well topics part the set; null for other fields.</param>
internal sealed record LaneValues(
    Func<int, IReadOnlyList<int>> Of,
    Func<int, string> Name,
    bool IsFact = false,
    double? Modularity = null
)
{
    /// <summary>Topics are told by so many of their terms.</summary>
    private const int Terms = 3;

    /// <summary>The values of a field, for the set in view.</summary>
    public static LaneValues For(LaneField field, SearchView view, Partings partings) =>
        field switch
        {
            LaneField.Tag => OfTags(view),
            LaneField.Stage => new(w => [(int)view.Fold.Of(w).Stage], stage => Stages.Name((Stage)stage)),
            LaneField.Topic => Parted(partings.Of(view, Fineness.Topics(view.Answer.Count))),
            LaneField.Sense => Parted(partings.Of(view, Fineness.Fields)),
            LaneField.Seed => OfSeeds(view),
            LaneField.Subject => OfColumn(view, Facet.Subject),
            LaneField.Venue => OfColumn(view, Facet.Venue),
            LaneField.Person => OfColumn(view, Facet.Person),
            LaneField.Database => OfColumn(view, Facet.Database),
            LaneField.Country => OfColumn(view, Facet.Country),
            LaneField.Type => OfColumn(view, Facet.Type),
            LaneField.Method => OfMethods(view),
            _ => throw new ArgumentOutOfRangeException(nameof(field)),
        };

    private static LaneValues OfColumn(SearchView view, Facet facet)
    {
        var column = view.Snapshot.Columns.Of(facet);
        return new(w => column.Of(w).ToArray(), value => column.Names[value], IsFact: true);
    }

    private static LaneValues OfTags(SearchView view)
    {
        var tags = view.Facts.Tags.OrderBy(t => t.Key, StringComparer.OrdinalIgnoreCase).ToArray();
        return new(
            w => [.. Enumerable.Range(0, tags.Length).Where(i => tags[i].Value.Contains(w))],
            value => tags[value].Key
        );
    }

    private static LaneValues OfMethods(SearchView view)
    {
        var named = new MethodsNamed(view.Snapshot.Columns.Words, view.Answer.InView);
        return new(named.Of, value => named.Names[value], IsFact: true);
    }

    private static LaneValues Parted(Parting parting)
    {
        var of = new Dictionary<int, int>();
        for (var i = 0; i < parting.Groups.Count; i++)
            foreach (var work in parting.Groups[i].Works)
                of[work] = i;
        return new(
            w => of.TryGetValue(w, out var group) ? [group] : [],
            value =>
                string.Join(", ", parting.Groups[value].Terms.DefaultIfEmpty("works that cite the same").Take(Terms)),
            Modularity: parting.Modularity
        );
    }

    /// <summary>A seed stands in its own lane.</summary>
    private static LaneValues OfSeeds(SearchView view)
    {
        var ties = new SeedTies(view);
        return new(
            w => ties.OrdinalOf(w) is { } own ? [own] : ties.Of(w),
            seed => WorkNames.Of(view.Snapshot.Columns, ties.Seeds[seed])
        );
    }
}
