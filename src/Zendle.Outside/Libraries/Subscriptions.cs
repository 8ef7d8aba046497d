using Zendle.Outside.World;

namespace Zendle.Outside.Libraries;

/// <summary>What a library holds of one title.</summary>
/// <param name="Title">Title of the journal or book.</param>
/// <param name="Number">Its ISSN or ISBN.</param>
/// <param name="Publisher">Its publisher.</param>
/// <param name="IsBook">Whether it is a book.</param>
/// <param name="From">Year, volume and issue it begins with; issue 1 for a whole year.</param>
/// <param name="To">Year, volume and issue it ends with; null when it goes on.</param>
/// <param name="Embargo">Code of what is held back; empty for nothing.</param>
/// <param name="AbstractsOnly">Whether there are no texts.</param>
/// <param name="IsFree">Whether anyone may read it.</param>
public sealed record Subscription(
    string Title,
    string Number,
    string Publisher,
    bool IsBook,
    (int Year, int Volume, int Issue) From,
    (int Year, int Volume, int Issue)? To,
    string Embargo,
    bool AbstractsOnly,
    bool IsFree
)
{
    /// <summary>Whether the library may open a work on a day.</summary>
    public bool Covers(Work work, DateOnly today)
    {
        if (AbstractsOnly)
            return false;
        if (IsBook)
            return work.Isbn == Number;
        if (work.Journal?.Issn != Number)
            return false;
        if ((work.Volume, work.Issue).CompareTo((From.Volume, From.Issue)) < 0)
            return false;
        if (To is { } to && (work.Volume, work.Issue).CompareTo((to.Volume, to.Issue)) > 0)
            return false;
        return Embargo switch
        {
            "P1Y" => work.Year < today.Year,
            "P2Y" => work.Year < today.Year - 1,
            "R10Y" => work.Year > today.Year - 10,
            _ => true,
        };
    }

    /// <summary>All that a library holds of a world.</summary>
    public static IReadOnlyList<Subscription> Of(OutsideLibrary library, IReadOnlyList<Work> works, Scenario scenario)
    {
        var publishers = library.Publishers.Select(p => scenario.Words.Publishers[p]).ToHashSet();
        var held = new List<Subscription>();
        foreach (
            var journal in works
                .Where(w => w.Journal is not null)
                .GroupBy(w => w.Journal!)
                .OrderBy(g => g.Key.Id)
                .Where(g => publishers.Contains(g.Key.Publisher) || (g.Key.Open && g.Key.Id % 2 == 0))
        )
        {
            var (of, id) = (journal.Key, journal.Key.Id);
            var years = journal.GroupBy(w => w.Year).ToDictionary(g => g.Key, g => g.Min(w => w.Volume));
            var first = years.Keys.Min() + (id % 4 * 4);
            var begin = years.Keys.Where(y => y >= first).DefaultIfEmpty(years.Keys.Max()).Min();
            Subscription Line((int, int, int) from, (int, int, int)? to, string embargo, bool abstracts = false) =>
                new(of.Title, of.Issn, of.Publisher, false, from, to, embargo, abstracts, of.Open);
            var from = (begin, years[begin], id % 3 == 0 ? 4 : 1);
            var embargo = of.Open
                ? ""
                : (id % 7) switch
                {
                    0 => "P1Y",
                    1 => "R10Y",
                    2 => "P2Y",
                    _ => "",
                };
            if (id % 11 == 5)
                held.Add(Line(from, null, "", abstracts: true));
            else if (id % 6 == 4 && years.Keys.Where(y => y > begin && y < 2019).ToArray() is { Length: > 0 } before)
            {
                // Given up for some years, and taken again.
                held.Add(Line(from, (before.Max(), years[before.Max()], 6), ""));
                if (years.Keys.Where(y => y >= 2022).ToArray() is { Length: > 0 } after)
                    held.Add(Line((after.Min(), years[after.Min()], 1), null, embargo));
            }
            else
                held.Add(Line(from, null, embargo));
        }
        held.AddRange(
            works
                .Where(w =>
                    w is { Type: "book", Isbn: not null, Publisher: not null } && publishers.Contains(w.Publisher)
                )
                .Select(w => new Subscription(
                    w.Title,
                    w.Isbn!,
                    w.Publisher!,
                    true,
                    (w.Year, 0, 0),
                    null,
                    "",
                    AbstractsOnly: false,
                    IsFree: false
                ))
        );
        return held;
    }
}
