using System.Collections.Immutable;
using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work that is suggested beside a set.</summary>
/// <param name="Beside">Where it stands.</param>
/// <param name="IsByLinks">Whether its links say so, and not a value.</param>
/// <param name="InCommon">Why it is suggested.</param>
internal sealed record Suggestion(BesideWork Beside, bool IsByLinks, InCommonDto InCommon);

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
        var order = found.Order(kind => view.Weights.Of(kind));
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
                .OrderByDescending(order.Of)
                .ThenBy(w => w)
                .Select(w => Placed(w, found, at, lanes, values))
                .OfType<Suggestion>()
                .Take(most),
        ];
    }

    private Suggestion? Placed(int work, Neighbours found, Dictionary<int, int> at, LaneChoice lanes, LaneValues values)
    {
        var own = OfItsValues(work, lanes, values);
        return BesideWork.Of(view, work, at, tied => own ?? BesideWork.LaneOfMost(tied, lanes)) is { } beside
            ? new(beside, own is null || values.Then is not null, Why(found, work))
            : null;
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
    /// of these, and where people give the values: what it might be tagged with its links say better.
    /// </summary>
    private static int? OfItsValues(int work, LaneChoice lanes, LaneValues values)
    {
        if (!values.IsOfAny)
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
}
