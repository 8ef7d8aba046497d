using Zendle.Core.Maps;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work, mostly a planned one, whose citations are held against a set: what of the set it leaves out.</summary>
/// <param name="Beside">Where it stands: in its own lane, or in the one that it has most links with.</param>
/// <param name="At">Its ordinal where it is of the set; else null.</param>
/// <param name="LanesLeftOut">Ordinals of the lanes of a value of which it cites no work.</param>
/// <param name="MuchCited">Ordinals of the works most cited inside the set that it does not cite, the most cited first.</param>
internal sealed record Plan(BesideWork Beside, int? At, int[] LanesLeftOut, int[] MuchCited)
{
    /// <summary>At most so many works are named as left out.</summary>
    private const int MostNamed = 8;

    /// <summary>What fewer works cite is not much cited.</summary>
    private const int LeastCited = 2;

    /// <summary>Holds a work against a set; null where the set is empty. O(links).</summary>
    /// <param name="view">The set in view.</param>
    /// <param name="work">The work.</param>
    /// <param name="ordinals">By id: ordinals of the works of the set.</param>
    /// <param name="lanes">Its lanes.</param>
    /// <param name="links">Its links.</param>
    public static Plan? Of(SearchView view, int work, Dictionary<int, int> ordinals, LaneChoice lanes, MapLinks links)
    {
        if (lanes.Lanes.IsEmpty)
            return null;
        int? at = ordinals.TryGetValue(work, out var own) ? own : null;
        var beside = BesideWork.Of(
            view,
            work,
            ordinals,
            tied => at is { } of ? lanes.Of[of] : BesideWork.LaneOfMost(tied, lanes) ?? lanes.Lanes.Length - 1
        )!;
        var (cited, has) = (new int[ordinals.Count], beside.Cites.Select(c => lanes.Of[c]).ToHashSet());
        for (var i = 0; i < cited.Length; i++)
            foreach (var other in links.Cites(i))
                cited[other] += i == at ? 0 : 1;
        return new(
            beside,
            at,
            [
                .. Enumerable
                    .Range(0, lanes.Lanes.Length)
                    .Where(l => lanes.Lanes[l].Kind == LaneKind.Value && !has.Contains(l)),
            ],
            [
                .. Enumerable
                    .Range(0, cited.Length)
                    .Except([.. beside.Cites, at ?? -1])
                    .Where(i => cited[i] >= LeastCited)
                    .OrderByDescending(i => cited[i])
                    .ThenBy(i => i)
                    .Take(MostNamed),
            ]
        );
    }
}
