using System.Collections.Immutable;
using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work that is suggested beside a set.</summary>
/// <param name="Lane">The lane it belongs to.</param>
/// <param name="IsByLinks">Whether its links say so, and not a value.</param>
/// <param name="Cites">Ordinals of the works of the set that it cites.</param>
/// <param name="CitedBy">Ordinals of those that cite it.</param>
/// <param name="InCommon">Why it is suggested.</param>
internal sealed record Suggestion(int Work, int Lane, bool IsByLinks, int[] Cites, int[] CitedBy, InCommonDto InCommon)
{
    /// <summary>How many links it has with works of the set.</summary>
    public int Links => Cites.Length + CitedBy.Length;

    /// <summary>What its size says.</summary>
    public double Size { get; init; }
}

/// <summary>
/// Neighbours of the kept works of a set, by shared references and by what cites them together, that nobody judged yet.
/// </summary>
internal sealed class Suggestions(SearchView view, NeighbourFinder neighbours)
{
    /// <summary>The most alike that belong to a lane of the map. O(neighbours log neighbours).</summary>
    /// <param name="works">The works of the map.</param>
    /// <param name="lanes">Its lanes.</param>
    /// <param name="values">What its lanes are made of.</param>
    /// <param name="fits">Whether a work has a place along the map.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<Suggestion> For(
        int[] works,
        LaneChoice lanes,
        LaneValues values,
        Func<int, bool> fits,
        int most
    )
    {
        ImmutableArray<int> kept = [.. works.Where(view.Facts.Kept.Contains)];
        if (most == 0 || kept.IsEmpty)
            return [];
        var found = neighbours.Of(view.Snapshot, [NeighbourKind.SharedReferences, NeighbourKind.CitedTogether], kept);
        var columns = view.Snapshot.Columns;
        var order = found.Order(kind => view.Weights.Of(kind), columns.WorkSize);
        var at = works.Select((w, i) => (w, i)).ToDictionary(w => w.w, w => w.i);
        return
        [
            .. found
                .Works(1, columns.WorkSize)
                .Members()
                .Where(w =>
                    !view.Answer.InView.Contains(w)
                    && !columns.OnlyCited.Contains(w)
                    && !columns.Withdrawn.Contains(w)
                    && view.Fold.Of(w).Stage == Stage.Found
                    && fits(w)
                )
                .OrderByDescending(order)
                .ThenBy(w => w)
                .Select(w => Placed(w, found, at, lanes, values))
                .OfType<Suggestion>()
                .Take(most),
        ];
    }

    private Suggestion? Placed(int work, Neighbours found, Dictionary<int, int> at, LaneChoice lanes, LaneValues values)
    {
        var (cites, citedBy) = Links(view, work, at);
        var own = OfItsValues(work, lanes, values);
        var lane = own ?? OfItsLinks([.. cites, .. citedBy], lanes);
        return lane is { } of ? new(work, of, own is null, cites, citedBy, Why(found, work)) : null;
    }

    /// <summary>The works of a map that a work beside it cites, and those that cite it: their ordinals, ascending.</summary>
    /// <param name="view">The set in view.</param>
    /// <param name="work">The work.</param>
    /// <param name="at">By id: ordinals of the works of the map.</param>
    public static (int[] Cites, int[] CitedBy) Links(SearchView view, int work, Dictionary<int, int> at)
    {
        var graph = view.Snapshot.Columns.Graph;
        return (
            [.. graph.Cites(work).ToArray().Where(at.ContainsKey).Select(w => at[w]).Order()],
            [.. graph.CitedBy(work).ToArray().Where(at.ContainsKey).Select(w => at[w]).Order()]
        );
    }

    private static InCommonDto Why(Neighbours found, int work) =>
        new(
            found.Lists.First(l => l.Kind == NeighbourKind.SharedReferences).Shared(work),
            found.Lists.First(l => l.Kind == NeighbourKind.CitedTogether).Shared(work),
            null,
            null
        );

    /// <summary>
    /// The lane of one of its values, or that of values without a lane, or of works without one; null where there is none
    /// of these, where the field says nothing of works outside the set, and where people give the values: what it might be
    /// tagged with its links say better.
    /// </summary>
    private static int? OfItsValues(int work, LaneChoice lanes, LaneValues values)
    {
        if (!values.IsFact)
            return null;
        var own = values.Of(work);
        int? Lane(Func<ChosenLane, bool> which) =>
            lanes
                .Lanes.Select((lane, i) => (lane, i))
                .Where(l => which(l.lane))
                .Select(l => (int?)l.i)
                .FirstOrDefault();
        return own.Count == 0
            ? Lane(l => l.Kind == LaneKind.None)
            : Lane(l => l.Kind == LaneKind.Value && own.Contains(l.Value)) ?? Lane(l => l.Kind == LaneKind.Others);
    }

    /// <summary>The lane that it has most links with; null where it has none.</summary>
    public static int? OfItsLinks(int[] tied, LaneChoice lanes) =>
        tied.Select(i => lanes.Of[i])
            .CountBy(lane => lane)
            .OrderByDescending(l => l.Value)
            .ThenBy(l => l.Key)
            .Select(l => (int?)l.Key)
            .FirstOrDefault();
}
