using System.Collections.Immutable;
using Zendle.Core.Records;

namespace Zendle.Core.Venues;

/// <summary>A venue told apart from others, under all its spellings.</summary>
/// <param name="Number">Number among all venues, from 0.</param>
/// <param name="Title">Title as shown: the spelling most records have, a full one in mixed case before an abbreviation
/// or capitals.</param>
/// <param name="Issns">Its ISSNs.</param>
public sealed record Venue(int Number, string Title, IReadOnlyList<string> Issns);

/// <summary>
/// Tells venues apart: records with one ISSN speak of one venue; a title without an ISSN joins the venue whose title it
/// is, or abbreviates (<see cref="VenueNames.Agree"/>), when there is only one such. The result depends on the titles
/// only, not on their order.
/// </summary>
public sealed class VenueResolver
{
    private readonly Dictionary<string, int> byIssn = [];
    private readonly Dictionary<string, int> byTitle = [];

    /// <summary>Resolves the venues that some records name. O(spellings, times the few that share initials).</summary>
    public VenueResolver(IEnumerable<VenuePart> named)
        : this([
            .. named.CountBy(v => (v.Title, v.Issn)).Select(v => (new VenuePart(v.Key.Title, v.Key.Issn), v.Value)),
        ]) { }

    /// <summary>Resolves venues by their spellings, each with how often it stands.</summary>
    public VenueResolver(IReadOnlyCollection<(VenuePart Named, int Count)> spellings)
    {
        var spelled = spellings
            .GroupBy(v => (v.Named.Issn, Key: Key(v.Named.Title)))
            .Select(g =>
                (
                    g.Key.Issn,
                    g.Key.Key,
                    Words: VenueNames.WordsOf(g.MinBy(v => v.Named.Title, StringComparer.Ordinal).Named.Title),
                    Titles: g.GroupBy(v => v.Named.Title)
                        .Select(t => KeyValuePair.Create(t.Key, t.Sum(v => v.Count)))
                        .ToArray(),
                    Count: g.Sum(v => v.Count)
                )
            )
            .OrderBy(s => s.Issn is null)
            .ThenByDescending(s => s.Count)
            .ThenBy(s => s.Key, StringComparer.Ordinal)
            .ThenBy(s => s.Issn, StringComparer.Ordinal)
            .ToArray();
        var venues =
            new List<(
                List<KeyValuePair<string, int>> Titles,
                SortedSet<string> Issns,
                List<ImmutableArray<string>> Words
            )>();
        var byInitials = new Dictionary<string, List<int>>();
        // Full titles come before those that abbreviate them, so that there is something to join.
        foreach (var s in spelled.OrderBy(s => s.Issn is null).ThenByDescending(s => s.Words.Sum(w => w.Length)))
        {
            var number =
                s.Issn is not null && byIssn.TryGetValue(s.Issn, out var known) ? known
                : byTitle.TryGetValue(s.Key, out var same) && (s.Issn is null || venues[same].Issns.Count == 0) ? same
                : -1;
            var initials = Initials(s.Words);
            if (number < 0 && s.Issn is null && byInitials.TryGetValue(initials, out var alike))
            {
                var fitting = alike
                    .Where(v => venues[v].Words.Exists(w => VenueNames.Agree(w, s.Words)))
                    .Distinct()
                    .Take(2)
                    .ToArray();
                if (fitting.Length == 1)
                    number = fitting[0];
            }
            if (number < 0)
            {
                number = venues.Count;
                venues.Add(([], [], []));
            }
            venues[number].Titles.AddRange(s.Titles);
            venues[number].Words.Add(s.Words);
            if (s.Issn is not null)
            {
                venues[number].Issns.Add(s.Issn);
                byIssn[s.Issn] = number;
            }
            byTitle.TryAdd(s.Key, number);
            if (!byInitials.TryGetValue(initials, out var there))
                byInitials[initials] = there = [];
            there.Add(number);
        }
        All = [.. venues.Select((v, i) => new Venue(i, Shown(v.Titles), [.. v.Issns]))];
    }

    /// <summary>All venues, by number.</summary>
    public IReadOnlyList<Venue> All { get; }

    /// <summary>The venue a record names.</summary>
    public Venue? Of(VenuePart? named) =>
        named is null ? null
        : named.Issn is not null && byIssn.TryGetValue(named.Issn, out var number) ? All[number]
        : byTitle.TryGetValue(Key(named.Title), out number) ? All[number]
        : null;

    private static string Key(string title) => string.Join(' ', VenueNames.WordsOf(title));

    private static string Initials(ImmutableArray<string> words) => VenueNames.InitialsOf(string.Join(' ', words));

    /// <summary>The commonest title in whole words, under its best spelling.</summary>
    private static string Shown(List<KeyValuePair<string, int>> titles) =>
        VenueTitles.Best(
            titles
                .GroupBy(t => t.Key)
                .Select(g => (Title: g.Key, Count: g.Sum(t => t.Value)))
                .OrderBy(t => t.Title.Contains('.', StringComparison.Ordinal))
                .ThenBy(t => !t.Title.Any(char.IsLower))
                .ThenByDescending(t => t.Count)
                .ThenBy(t => t.Title, StringComparer.Ordinal)
                .First()
                .Title,
            titles.Select(t => t.Key).Order(StringComparer.Ordinal)
        );
}
