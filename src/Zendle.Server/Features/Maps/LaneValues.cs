using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Senses;
using Zendle.Index.Terms;
using Zendle.Server.Features.Search;
using Zendle.Server.Features.Search.Senses;

namespace Zendle.Server.Features.Maps;

/// <summary>What lanes can be made of: the values of works, and what they are called.</summary>
/// <param name="Of">By id of a work: the numbers of its values.</param>
/// <param name="Name">The name of a value.</param>
/// <param name="IsOfAny">Whether they are known of any work, not only of those in the set: people give none to others.</param>
/// <param name="Modularity">How well topics part the set; null for other fields.</param>
/// <param name="Then">The works that the values were found among; null where they are not found.</param>
internal sealed record LaneValues(
    Func<int, IReadOnlyList<int>> Of,
    Func<int, string> Name,
    bool IsOfAny = false,
    double? Modularity = null,
    WorkSet? Then = null
)
{
    /// <summary>Topics are told by so many of their terms.</summary>
    private const int Terms = 3;

    /// <summary>Whether the map finds the values itself, among the works of a set.</summary>
    public static bool AreFound(LaneField field) => field is LaneField.Topic or LaneField.Sense;

    /// <summary>The values of a field, for the set in view.</summary>
    /// <param name="field">The field.</param>
    /// <param name="view">The set.</param>
    /// <param name="partings">Parts the set, where <see cref="AreFound"/>.</param>
    /// <param name="among">The works that values are found among; null for those in view.</param>
    public static LaneValues For(LaneField field, SearchView view, Partings partings, FoundAmong? among) =>
        field switch
        {
            LaneField.Tag => OfTags(view),
            LaneField.Stage => new(w => [(int)view.Fold.Of(w).Stage], stage => Stages.Name((Stage)stage)),
            LaneField.Topic => Parted(view, partings, among, Fineness.Topics(among?.Count ?? view.Answer.Count)),
            LaneField.Sense => Parted(view, partings, among, Fineness.Fields),
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
        return new(w => column.Of(w).ToArray(), value => column.Names[value], IsOfAny: true);
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
        return new(named.Of, value => named.Names[value], IsOfAny: true);
    }

    /// <summary>Groups that are found: whatever came since, or is not in the set, belongs where its links are.</summary>
    private static LaneValues Parted(SearchView view, Partings partings, FoundAmong? among, Fineness fineness)
    {
        var then = among?.Works ?? view.Answer.InView;
        var (found, now) = among is null or { IsToday: true }
            ? (partings.Of(view, fineness), null)
            : partings.Grown(view, then, among.Key, fineness);
        var newcomers = new Newcomers(view.Snapshot.Columns, found, then);
        return new(
            w => newcomers.GroupOf(w) is { } group ? [group] : [],
            value =>
                string.Join(", ", found.Groups[value].Terms.DefaultIfEmpty("works that cite the same").Take(Terms)),
            IsOfAny: true,
            Modularity: (now ?? found).Modularity,
            Then: then
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
