using Zendle.Core.Maps;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Maps;

/// <summary>A work, mostly a planned one, whose citations are held against a set: what of the set it leaves out.</summary>
/// <param name="Work">Its id.</param>
/// <param name="At">Its ordinal where it is of the set; else null.</param>
/// <param name="Lane">The lane it stands in: its own, or the one that it has most links with.</param>
/// <param name="Cites">Ordinals of the works of the set that it cites, ascending.</param>
/// <param name="CitedBy">Ordinals of those that cite it, ascending.</param>
/// <param name="LanesLeftOut">Ordinals of the lanes of a value of which it cites no work.</param>
/// <param name="MuchCited">Ordinals of the works most cited inside the set that it does not cite, the most cited first.</param>
internal sealed record Plan(
    int Work,
    int? At,
    int Lane,
    int[] Cites,
    int[] CitedBy,
    int[] LanesLeftOut,
    int[] MuchCited
)
{
    /// <summary>At most so many works are named as left out.</summary>
    private const int MostNamed = 8;

    /// <summary>What fewer works cite is not much cited.</summary>
    private const int LeastCited = 2;

    /// <summary>What its size says.</summary>
    public double Size { get; init; }

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
        var (cites, citedBy) = Suggestions.Links(view, work, ordinals);
        var lane = at is { } of
            ? lanes.Of[of]
            : Suggestions.OfItsLinks([.. cites, .. citedBy], lanes) ?? lanes.Lanes.Length - 1;
        var (cited, has) = (new int[ordinals.Count], cites.Select(c => lanes.Of[c]).ToHashSet());
        for (var i = 0; i < cited.Length; i++)
            foreach (var other in links.Cites(i))
                cited[other] += i == at ? 0 : 1;
        return new(
            work,
            at,
            lane,
            cites,
            citedBy,
            [
                .. Enumerable
                    .Range(0, lanes.Lanes.Length)
                    .Where(l => lanes.Lanes[l].Kind == LaneKind.Value && !has.Contains(l)),
            ],
            [
                .. Enumerable
                    .Range(0, cited.Length)
                    .Except([.. cites, at ?? -1])
                    .Where(i => cited[i] >= LeastCited)
                    .OrderByDescending(i => cited[i])
                    .ThenBy(i => i)
                    .Take(MostNamed),
            ]
        );
    }
}
