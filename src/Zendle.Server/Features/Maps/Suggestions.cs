using System.Collections.Immutable;
using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work that is suggested beside a set.</summary>
/// <param name="Lane">The lane it belongs to.</param>
/// <param name="Links">How many works of the set it cites or is cited by.</param>
/// <param name="InCommon">Why it is suggested.</param>
internal sealed record Suggestion(int Work, int Lane, int Links, InCommonDto InCommon)
{
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
    /// <param name="field">What its lanes are.</param>
    /// <param name="most">How many at most.</param>
    public IReadOnlyList<Suggestion> For(int[] works, LaneChoice lanes, LaneField field, int most)
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
                )
                .OrderByDescending(order)
                .ThenBy(w => w)
                .Select(w => (Work: w, Tied: Tied(w, at)))
                .Select(s => (s.Work, s.Tied, Lane: Lane(s.Work, s.Tied, lanes, field)))
                .Where(s => s.Lane >= 0)
                .Take(most)
                .Select(s => new Suggestion(s.Work, s.Lane, s.Tied.Length, Why(found, s.Work))),
        ];
    }

    private static InCommonDto Why(Neighbours found, int work) =>
        new(
            found.Lists.First(l => l.Kind == NeighbourKind.SharedReferences).Shared(work),
            found.Lists.First(l => l.Kind == NeighbourKind.CitedTogether).Shared(work),
            null,
            null
        );

    private int[] Tied(int work, Dictionary<int, int> at) =>
        [
            .. view
                .Snapshot.Columns.Graph.Cites(work)
                .ToArray()
                .Concat(view.Snapshot.Columns.Graph.CitedBy(work).ToArray())
                .Distinct()
                .Where(at.ContainsKey)
                .Select(w => at[w]),
        ];

    /// <summary>
    /// The lane of its commonest value; where the field says nothing of works outside the set, or the value has no lane,
    /// the lane it has most links with; −1 for none.
    /// </summary>
    private int Lane(int work, int[] tied, LaneChoice lanes, LaneField field)
    {
        if (LaneValues.IsOfAnyWork(field))
        {
            var own = LaneValues.For(field, view, [work]).Of[0];
            for (var lane = 0; lane < lanes.Lanes.Length; lane++)
                if (lanes.Lanes[lane].Kind == LaneKind.Value && own.Contains(lanes.Lanes[lane].Value))
                    return lane;
        }
        return tied.Select(i => lanes.Of[i])
            .CountBy(lane => lane)
            .OrderByDescending(l => l.Value)
            .ThenBy(l => l.Key)
            .Select(l => l.Key)
            .DefaultIfEmpty(-1)
            .First();
    }
}
