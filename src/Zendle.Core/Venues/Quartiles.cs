namespace Zendle.Core.Venues;

/// <summary>What quartiles need to know of a work.</summary>
/// <param name="Venue">Its venue; −1 for none.</param>
/// <param name="Year">Its year; 0 when unknown.</param>
/// <param name="Counts">Whether it is an article or a review.</param>
public readonly record struct VenueWork(int Venue, int Year, bool Counts);

/// <summary>Where a journal stands in a subject category.</summary>
/// <param name="Category">The category.</param>
/// <param name="Year">The year counted.</param>
/// <param name="Citations">Citations in that year to its articles and reviews of the five years before.</param>
/// <param name="Items">How many articles and reviews those are.</param>
/// <param name="Rank">Its rank by citations for each item, 1 the highest; ties share the better; 0 when not ranked.</param>
/// <param name="Ranked">How many journals of the category are ranked.</param>
/// <param name="Quartile">1 to 4; 0 with <see cref="WhyNot"/>.</param>
/// <param name="WhyNot">Why it has no quartile, in words; null when it has one.</param>
public sealed record Standing(string Category, int Year, int Citations, int Items, int Rank, int Ranked, int Quartile, string? WhyNot)
{
    private static readonly string[] Words = ["not ranked", "first quartile", "second quartile", "third quartile", "fourth quartile"];

    /// <summary>The best of a journal's quartiles, in words: "first quartile" … "fourth quartile", or "not ranked".</summary>
    public static string Best(IReadOnlyList<Standing> standings) => Words[standings.Where(s => s.Quartile > 0).Select(s => s.Quartile).DefaultIfEmpty(0).Min()];

    /// <summary>Citations for each item.</summary>
    public double Ratio => Items == 0 ? 0 : (double)Citations / Items;
}

/// <summary>
/// Quartiles of journals in subject categories, counted in the corpus: citations in a year to articles and reviews of the five years before, divided by their
/// number (at least ten); ranked inside the category (at least eight journals); quartile = ⌈4 · rank ÷ n⌉.
/// </summary>
public static class Quartiles
{
    /// <summary>Fewest articles and reviews of a journal that is ranked.</summary>
    public const int FewestItems = 10;
    /// <summary>Fewest ranked journals of a category that has quartiles.</summary>
    public const int FewestJournals = 8;
    private const int Window = 5;
    private const double OwnCategory = 0.5;

    /// <summary>Where each venue stands in its categories. O(works + their references).</summary>
    /// <param name="works">The works by id; ids without a work have venue −1 and year 0.</param>
    /// <param name="subjects">The subjects of a work.</param>
    /// <param name="cites">The works a work cites.</param>
    /// <param name="year">The year counted: the last complete one.</param>
    /// <returns>By venue number: its standings, one for each category it belongs to.</returns>
    public static IReadOnlyDictionary<int, IReadOnlyList<Standing>> Of(IReadOnlyList<VenueWork> works, Func<int, IReadOnlyList<string>> subjects, Func<int, ReadOnlyMemory<int>> cites, int year)
    {
        bool IsItem(VenueWork w) => w is { Counts: true, Venue: >= 0 } && w.Year >= year - Window && w.Year < year;
        var (items, citations) = (new Dictionary<int, int>(), new Dictionary<int, int>());
        var carried = new Dictionary<int, (int Works, Dictionary<string, int> Of)>();
        for (var id = 0; id < works.Count; id++)
        {
            var w = works[id];
            if (IsItem(w)) items[w.Venue] = items.GetValueOrDefault(w.Venue) + 1;
            if (w.Venue >= 0 && subjects(id) is { Count: > 0 } of)
            {
                if (!carried.TryGetValue(w.Venue, out var own)) carried[w.Venue] = own = (0, new(StringComparer.OrdinalIgnoreCase));
                foreach (var s in of) own.Of[s] = own.Of.GetValueOrDefault(s) + 1;
                carried[w.Venue] = (own.Works + 1, own.Of);
            }
            if (w.Year != year) continue;
            foreach (var cited in cites(id).Span)
                if (IsItem(works[cited])) citations[works[cited].Venue] = citations.GetValueOrDefault(works[cited].Venue) + 1;
        }
        // A category of a journal is a subject that at least half of its described works carry.
        var members = carried.SelectMany(s => s.Value.Of.Where(c => c.Value >= OwnCategory * s.Value.Works && s.Value.Works >= 3).Select(c => (Venue: s.Key, Category: c.Key))).ToLookup(m => m.Category, m => m.Venue, StringComparer.OrdinalIgnoreCase);
        var standings = new Dictionary<int, List<Standing>>();
        foreach (var category in members.OrderBy(c => c.Key, StringComparer.Ordinal))
        {
            var ranked = category.Where(v => items.GetValueOrDefault(v) >= FewestItems).Select(v => (Venue: v, Ratio: (double)citations.GetValueOrDefault(v) / items[v])).OrderByDescending(v => v.Ratio).ToArray();
            foreach (var venue in category.Order())
            {
                var (own, n) = (citations.GetValueOrDefault(venue), items.GetValueOrDefault(venue));
                var rank = n < FewestItems ? 0 : 1 + ranked.Count(r => r.Ratio > (double)own / n);
                var whyNot = n < FewestItems ? $"not enough items: {n} articles and reviews in five years, {FewestItems} are asked for" : ranked.Length < FewestJournals ? $"not enough journals: {ranked.Length} ranked in this category, {FewestJournals} are asked for" : null;
                if (!standings.TryGetValue(venue, out var list)) standings[venue] = list = [];
                list.Add(new(category.Key, year, own, n, rank, ranked.Length, whyNot is null ? (4 * rank + ranked.Length - 1) / ranked.Length : 0, whyNot));
            }
        }
        return standings.ToDictionary(s => s.Key, s => (IReadOnlyList<Standing>)s.Value);
    }
}
