using System.Runtime.InteropServices;

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
/// <param name="Rank">Its rank by citations for each item, 1 the highest; ties share the better; 0 when not
/// ranked.</param>
/// <param name="Ranked">How many journals of the category are ranked.</param>
/// <param name="Quartile">1 to 4; 0 with <see cref="WhyNot"/>.</param>
/// <param name="WhyNot">Why it has no quartile, in words; null when it has one.</param>
public sealed record Standing(
    string Category,
    int Year,
    int Citations,
    int Items,
    int Rank,
    int Ranked,
    int Quartile,
    string? WhyNot
)
{
    /// <summary>What a journal's best quartile is called, by its number; "not ranked" for 0.</summary>
    public static IReadOnlyList<string> Words { get; } =
    ["not ranked", "first quartile", "second quartile", "third quartile", "fourth quartile"];

    /// <summary>The best of a journal's quartiles, 1 to 4; 0 when it has none.</summary>
    public static int Best(IReadOnlyList<Standing> standings) =>
        standings.Where(s => s.Quartile > 0).Select(s => s.Quartile).DefaultIfEmpty(0).Min();

    /// <summary>Citations for each item.</summary>
    public double Ratio => Items == 0 ? 0 : (double)Citations / Items;
}

/// <summary>
/// Quartiles of journals in subject categories, counted in the corpus: citations in a year to articles and reviews of
/// the five years before, divided by their number (at least ten); ranked inside the category (at least eight journals);
/// quartile = ⌈4 · rank ÷ n⌉.
/// </summary>
public static class Quartiles
{
    /// <summary>Fewest articles and reviews of a journal that is ranked.</summary>
    public const int FewestItems = 10;

    /// <summary>Fewest ranked journals of a category that has quartiles.</summary>
    public const int FewestJournals = 8;
    private const int Window = 5;
    private const int FewestDescribed = 3;
    private const double OwnCategory = 0.5;

    /// <summary>Numbers that a work has: its subjects, the works it cites.</summary>
    public delegate ReadOnlySpan<int> NumbersOf(int work);

    /// <summary>
    /// Where each venue stands in its categories. O(works, their subjects, and the references of one year).
    /// </summary>
    /// <param name="size">Works are below this.</param>
    /// <param name="workOf">A work; one that is not there has venue −1 and year 0.</param>
    /// <param name="subjects">The subjects of a work.</param>
    /// <param name="names">Names of subjects, by number.</param>
    /// <param name="cites">The works a work cites.</param>
    /// <param name="year">The year counted: the last complete one.</param>
    /// <returns>By venue number: its standings, one for each category it belongs to.</returns>
    public static IReadOnlyDictionary<int, IReadOnlyList<Standing>> Of(
        int size,
        Func<int, VenueWork> workOf,
        NumbersOf subjects,
        IReadOnlyList<string> names,
        NumbersOf cites,
        int year
    )
    {
        bool IsItem(VenueWork w) => w is { Counts: true, Venue: >= 0 } && w.Year >= year - Window && w.Year < year;
        var (items, citations, described) = (
            new Dictionary<int, int>(),
            new Dictionary<int, int>(),
            new Dictionary<int, int>()
        );
        var carried = new Dictionary<(int Venue, int Subject), int>();
        for (var id = 0; id < size; id++)
        {
            var w = workOf(id);
            if (IsItem(w))
                Count(items, w.Venue);
            if (w.Venue >= 0 && subjects(id) is { IsEmpty: false } of)
            {
                Count(described, w.Venue);
                foreach (var subject in of)
                    Count(carried, (w.Venue, subject));
            }
            if (w.Year != year)
                continue;
            foreach (var cited in cites(id))
                if (workOf(cited) is var item && IsItem(item))
                    Count(citations, item.Venue);
        }
        // A category of a journal is a subject that at least half of its described works carry.
        var members = carried
            .Where(c => described[c.Key.Venue] is >= FewestDescribed and var all && c.Value >= OwnCategory * all)
            .ToLookup(c => names[c.Key.Subject], c => c.Key.Venue);
        var standings = new Dictionary<int, List<Standing>>();
        foreach (var category in members.OrderBy(c => c.Key, StringComparer.Ordinal))
        {
            var ranked = category
                .Where(v => items.GetValueOrDefault(v) >= FewestItems)
                .Select(v => (Venue: v, Ratio: (double)citations.GetValueOrDefault(v) / items[v]))
                .OrderByDescending(v => v.Ratio)
                .ToArray();
            foreach (var venue in category.Order())
            {
                var (own, n) = (citations.GetValueOrDefault(venue), items.GetValueOrDefault(venue));
                var rank = n < FewestItems ? 0 : 1 + ranked.Count(r => r.Ratio > (double)own / n);
                var whyNot =
                    n < FewestItems
                        ? $"not enough items: {n} articles and reviews in five years, {FewestItems} are needed"
                    : ranked.Length < FewestJournals
                        ? $"not enough journals: {ranked.Length} ranked in this category, {FewestJournals} are needed"
                    : null;
                if (!standings.TryGetValue(venue, out var list))
                    standings[venue] = list = [];
                list.Add(
                    new(
                        category.Key,
                        year,
                        own,
                        n,
                        rank,
                        ranked.Length,
                        whyNot is null ? (4 * rank + ranked.Length - 1) / ranked.Length : 0,
                        whyNot
                    )
                );
            }
        }
        return standings.ToDictionary(s => s.Key, s => (IReadOnlyList<Standing>)s.Value);
    }

    private static void Count<T>(Dictionary<T, int> counts, T what)
        where T : notnull => CollectionsMarshal.GetValueRefOrAddDefault(counts, what, out _)++;
}
