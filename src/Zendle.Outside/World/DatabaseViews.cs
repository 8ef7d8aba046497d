using System.Globalization;

namespace Zendle.Outside.World;

/// <summary>How one database describes a work at one time.</summary>
public sealed record Entry
{
    /// <summary>OAI identifier.</summary>
    public required string Identifier { get; init; }
    /// <summary>When it became so.</summary>
    public required DateTimeOffset Datestamp { get; init; }
    /// <summary>Whether it is deleted.</summary>
    public bool Deleted { get; init; }
    /// <summary>The work it is about.</summary>
    public required Work Work { get; init; }
    /// <summary>Kind, in the database's words.</summary>
    public required string Type { get; init; }
    /// <summary>Title as the database spells it.</summary>
    public required string Title { get; init; }
    /// <summary>People as the database names them.</summary>
    public required IReadOnlyList<Person> People { get; init; }
    /// <summary>Whether given names are cut to initials.</summary>
    public bool InitialsOnly { get; init; }
    /// <summary>Year as the database has it.</summary>
    public required int Year { get; init; }
    /// <summary>Abstract.</summary>
    public string Abstract { get; init; } = "";
    /// <summary>Keywords.</summary>
    public string[] Keywords { get; init; } = [];
    /// <summary>Subject category; null when the database has none.</summary>
    public string? Subject { get; init; }
    /// <summary>DOI as the database writes it.</summary>
    public string? Doi { get; init; }
    /// <summary>DOI of another version.</summary>
    public string? OtherVersion { get; init; }
    /// <summary>Which version is described.</summary>
    public string? Version { get; init; }
    /// <summary>Whether pages are missing.</summary>
    public bool NoPages { get; init; }
    /// <summary>References: printed strings, or structured parts.</summary>
    public IReadOnlyList<Work> References { get; init; } = [];
    /// <summary>Whether references are printed strings.</summary>
    public bool PrintedReferences { get; init; }
    /// <summary>The database's own citation count.</summary>
    public int? Cited { get; init; }
    /// <summary>Copies: path on this host, access, version.</summary>
    public IReadOnlyList<(string Path, string Access, string Version)> Copies { get; init; } = [];
    /// <summary>Sets it belongs to.</summary>
    public IReadOnlyList<string> Sets { get; init; } = [];
}

/// <summary>A database of the outside: its name, what it says of itself, and its entries, each with all its states by time.</summary>
public sealed record OutsideDatabase(string Key, string Name, string Description, IReadOnlyList<Entry> Entries, bool HasMods = true)
{
    /// <summary>Newest state of every entry at a moment, ordered by identifier, not by datestamp: the protocol promises no order.</summary>
    public List<Entry> At(DateTimeOffset now) =>
        [.. Entries.Where(e => e.Datestamp <= now).GroupBy(e => e.Identifier).Select(g => g.MaxBy(e => e.Datestamp)!).OrderBy(e => e.Identifier, StringComparer.Ordinal)];
}

/// <summary>Gives each database its share of the world, with its own faults and counts.</summary>
public static class DatabaseViews
{
    /// <summary>The moment the world is first looked at.</summary>
    public static readonly DateTimeOffset Start = new(2026, 11, 20, 8, 0, 0, TimeSpan.Zero);

    /// <summary>Makes the databases.</summary>
    public static IReadOnlyList<OutsideDatabase> Make(IReadOnlyList<Work> works, ulong seed)
    {
        var dice = new Dice(seed).For("views");
        // The youngest works arrive after the start, one by one, when the clock is moved on.
        var late = works.Where(w => w.Year == 2026 && w.Day > 250).Select(w => w.Id).ToHashSet();
        return [Farnet(works, dice, late), Meridian(works, dice, late), Harbour(works, dice, late)];
    }

    private static OutsideDatabase Farnet(IReadOnlyList<Work> works, Dice dice, HashSet<int> late)
    {
        var covered = works.Where(w => dice.For("farnet", w.Id).Chance(0.965)).ToArray();
        var cited = Counts(covered);
        var entries = new List<Entry>();
        foreach (var w in covered)
        {
            var d = dice.For("farnet entry", w.Id);
            var entry = new Entry
            {
                Identifier = $"oai:farnet:{w.Id:D6}",
                Datestamp = Stamp(d, w, late),
                Work = w,
                Type = w.Type,
                Title = d.Chance(0.03) ? w.Title.ToUpperInvariant() : d.Chance(0.03) ? w.Title.Replace("'", "&#39;", StringComparison.Ordinal).Replace(" and ", " &amp; ", StringComparison.Ordinal) : w.Title,
                People = w.People.Length > 2 && d.Chance(0.04) ? w.People[..^1] : w.People,
                InitialsOnly = d.Chance(0.5),
                Year = d.Chance(0.03) ? w.Year + (d.Chance(0.5) ? 1 : -1) : w.Year,
                Abstract = d.Chance(0.82) ? w.Abstract : "",
                Keywords = d.Chance(0.35) ? w.Keywords : [],
                Doi = w.Doi is null ? null : d.Chance(0.5) ? w.Doi : "https://doi.org/" + w.Doi.ToUpperInvariant(),
                NoPages = d.Chance(0.15),
                References = [.. w.Cites.Where(_ => d.Chance(0.9)).Select(c => works[c])],
                PrintedReferences = true,
                Cited = cited.GetValueOrDefault(w.Id),
                Copies = w.HasManuscript ? [($"/harbour/item/{w.Id}", "free", "accepted manuscript"), .. PublisherCopy(w)] : PublisherCopy(w),
                Sets = ["type:" + w.Type.Replace(' ', '-')],
                Version = w.Type == "preprint" ? "preprint" : null,
            };
            Keep(entries, entry, d, late.Contains(w.Id));
            // The crawl meets some works twice and does not notice.
            if (d.Chance(0.02)) entries.Add(entry with { Identifier = $"oai:farnet:{w.Id:D6}-b", Abstract = "", Keywords = [], References = [], Doi = null, Cited = d.Below(3), InitialsOnly = true });
            if (w.PreprintDoi is not null)
                entries.Add(entry with
                {
                    Identifier = $"oai:farnet:{w.Id:D6}-pre",
                    Type = "preprint",
                    Doi = w.PreprintDoi,
                    OtherVersion = w.Doi,
                    Year = Math.Max(2013, w.Year - 1),
                    NoPages = true,
                    References = [],
                    Cited = d.Below(4),
                    Version = "preprint",
                    Copies = [($"/harbour/preprint/{w.Id}", "free", "preprint")],
                    Sets = ["type:preprint"],
                    Datestamp = entry.Datestamp < Start ? entry.Datestamp : Start.AddDays(-20),
                });
        }
        return new("farnet", "Farnet", "A broad crawl of scholarly pages: nearly everything, searched whole, messy.", entries);
    }

    private static OutsideDatabase Meridian(IReadOnlyList<Work> works, Dice dice, HashSet<int> late)
    {
        var covered = works.Where(w => w.Journal is { Curated: true } && w.Type != "conference paper" && dice.For("meridian", w.Id).Chance(w.Year >= 1975 ? 0.93 : 0.5)).ToArray();
        var cited = Counts(covered);
        var inside = covered.Select(w => w.Id).ToHashSet();
        var entries = new List<Entry>();
        foreach (var w in covered)
        {
            var d = dice.For("meridian entry", w.Id);
            var entry = new Entry
            {
                Identifier = $"oai:meridian:MC{w.Id * 7 + 100000}",
                Datestamp = Stamp(d, w, late),
                Work = w,
                Type = w.Type,
                Title = w.Translated is null ? w.Title : $"[{w.Translated}]",
                People = w.People,
                Year = w.Year,
                Abstract = w.Abstract,
                Keywords = w.Keywords,
                Subject = w.Topic.Area,
                Doi = w.Doi,
                References = [.. w.Cites.Where(c => inside.Contains(c) || d.Chance(0.6)).Select(c => works[c])],
                Cited = cited.GetValueOrDefault(w.Id),
                Copies = PublisherCopy(w),
                Sets = ["type:" + w.Type.Replace(' ', '-'), "subject:" + w.Topic.Area.ToLowerInvariant().Replace(' ', '-')],
                Version = "version of record",
            };
            Keep(entries, entry, d, late.Contains(w.Id));
        }
        return new("meridian", "Meridian Citations", "A curated citation index: journals only, clean, with subject categories; counts citations inside itself.", entries);
    }

    private static OutsideDatabase Harbour(IReadOnlyList<Work> works, Dice dice, HashSet<int> late)
    {
        var entries = new List<Entry>();
        foreach (var w in works.Where(w => w.HasManuscript || w.Type is "thesis" || (w.Type is "preprint" or "report" && dice.For("harbour", w.Id).Chance(0.6))))
        {
            var d = dice.For("harbour entry", w.Id);
            var version = w.HasManuscript ? "accepted manuscript" : w.Type == "preprint" ? "preprint" : "version of record";
            Keep(entries, new()
            {
                Identifier = $"oai:harbour:item-{w.Id}",
                Datestamp = Stamp(d, w, late),
                Work = w,
                Type = w.Type,
                Title = w.Title,
                People = w.People,
                Year = w.Year,
                Abstract = w.Abstract,
                Keywords = d.Chance(0.6) ? w.Keywords : [],
                Doi = w.Doi is not null && d.Chance(0.8) ? w.Doi : null,
                NoPages = true,
                Version = version,
                Copies = [($"/harbour/item/{w.Id}", "free", version)],
                Sets = ["type:" + w.Type.Replace(' ', '-')],
            }, d, late.Contains(w.Id));
        }
        return new("harbour", "Harbour Repository", "An open repository: accepted manuscripts, preprints, theses and reports, each with its text.", entries);
    }

    private static (string, string, string)[] PublisherCopy(Work w) =>
        w.Journal is null ? [] : [($"/publisher/{w.Journal.Publisher.ToLowerInvariant().Replace(' ', '-')}/{w.Id}", w.Journal.Open ? "free" : "closed", "version of record")];

    private static Dictionary<int, int> Counts(Work[] covered) => covered.SelectMany(w => w.Cites).CountBy(c => c).ToDictionary();

    private static DateTimeOffset Stamp(Dice d, Work w, HashSet<int> late)
    {
        var age = late.Contains(w.Id) ? d.Between(3_600, 86_400 * 60) : -d.Between(86_400, 86_400 * 600);
        return Start.AddSeconds(age);
    }

    /// <summary>Adds an entry with its later states: corrections of details, and now and then a deletion.</summary>
    private static void Keep(List<Entry> entries, Entry entry, Dice d, bool isLate)
    {
        entries.Add(entry);
        if (isLate) return;
        var later = Start.AddSeconds(d.Between(3_600, 86_400 * 60));
        if (d.Chance(0.012)) entries.Add(entry with { Datestamp = later, Cited = entry.Cited + d.Between(1, 3), Title = entry.Work.Title, Year = entry.Work.Year });
        else if (d.Chance(0.003)) entries.Add(entry with { Datestamp = later, Deleted = true });
        if (d.Chance(0.006) && entry.Datestamp < Start) entries.Add(entry with { Identifier = entry.Identifier + "-gone", Deleted = true });
    }

    /// <summary>A reference as an older printed list would have it: initials, now and then a slip.</summary>
    public static string Printed(Work w, int slip)
    {
        var people = string.Join(", ", w.People.Take(3).Select(p => $"{p.Family}, {string.Join(' ', p.Given.Split(' ').Select(g => g[..1] + "."))}")) + (w.People.Length > 3 ? " et al." : "");
        var title = slip % 23 == 0 && w.Title.Length > 20 ? w.Title.Replace(" of ", " on ", StringComparison.Ordinal) : w.Title;
        var year = slip % 41 == 0 ? w.Year + 1 : w.Year;
        var venue = w.Journal is null ? "" : string.Create(CultureInfo.InvariantCulture, $" {w.Journal.Title} {w.Volume}, {w.FirstPage}–{w.LastPage}.");
        var doi = w.Doi is not null && slip % 3 == 0 ? $" doi:{w.Doi}" : "";
        return string.Create(CultureInfo.InvariantCulture, $"{people} ({year}). {title}.{venue}{doi}");
    }
}
