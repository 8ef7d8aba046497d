namespace Zendle.Outside.World.Databases;

/// <summary>Gives each database its share of the world, with its own faults and counts.</summary>
public static class DatabaseViews
{
    /// <summary>The moment the world is first looked at.</summary>
    public static readonly DateTimeOffset Start = new(2026, 11, 20, 8, 0, 0, TimeSpan.Zero);

    /// <summary>Makes the databases.</summary>
    /// <param name="works">The works.</param>
    /// <param name="seed">Seed of the world.</param>
    /// <param name="noise">How often things go wrong, 1 for as usual.</param>
    public static IReadOnlyList<OutsideDatabase> Make(IReadOnlyList<Work> works, ulong seed, double noise = 1)
    {
        // The youngest works arrive after the start, one by one, when the clock is moved on.
        var late = works
            .Where(w => w.CompanionOf < 0)
            .TakeLast(works.Count(w => w.CompanionOf < 0) / 40)
            .Select(w => w.Id)
            .ToHashSet();
        var share = new Share(works, new Dice(seed).For("views"), late, noise);
        var lifeleaf = LifeleafView.Index(share);
        return
        [
            FarnetView.Make(share),
            MeridianView.Make(share),
            lifeleaf,
            LifeleafView.Select(share, lifeleaf),
            HarbourView.Make(share),
            UnionView.Make(share),
        ];
    }
}

/// <summary>What every view of the world starts from.</summary>
internal sealed record Share(IReadOnlyList<Work> Works, Dice Dice, HashSet<int> Late, double Noise)
{
    /// <summary>Citations from works inside a database at the start, by number of the cited work.</summary>
    public Dictionary<int, int> Counts(IEnumerable<Work> covered) =>
        covered.Where(w => !Late.Contains(w.Id)).SelectMany(w => w.Cites).CountBy(c => c).ToDictionary();

    /// <summary>Counts again two months on, when the late works have come: entries of what they cite change.</summary>
    public void Recount(List<Entry> entries, IEnumerable<Work> covered)
    {
        var more = covered.Where(w => Late.Contains(w.Id)).SelectMany(w => w.Cites).CountBy(c => c).ToDictionary();
        var later = DatabaseViews.Start.AddDays(61);
        entries.AddRange(
            entries
                .Where(e => e.Cited is not null && !e.OnlyCited && more.ContainsKey(e.Work.Id))
                .GroupBy(e => e.Identifier)
                .Select(g => g.MaxBy(e => e.Datestamp)!)
                .Where(e => !e.Deleted)
                .Select(e => e with { Datestamp = later, Cited = e.Cited + more[e.Work.Id] })
                .ToArray()
        );
    }

    /// <summary>A moment before the start, or within two months after it for late works.</summary>
    public DateTimeOffset Stamp(Dice d, Work w) =>
        DatabaseViews.Start.AddSeconds(
            Late.Contains(w.Id) ? d.Between(3_600, 86_400 * 60) : -d.Between(86_400, 86_400 * 600)
        );

    /// <summary>The places of a work's list that a database has, each with a chance; strays among them.</summary>
    public static IReadOnlyList<(int, int)> References(Work w, Func<int, bool> has)
    {
        var list = w.Cites.Select((c, i) => (i, c)).Where(r => has(r.c)).ToList();
        for (var i = 0; i < w.Strays; i++)
            list.Add((w.Cites.Length + i, -1));
        return list;
    }

    /// <summary>The copy in a repository: of a manuscript wherever it was deposited.</summary>
    public static (string, string, string) Manuscript(Work w, string version) =>
        (Deposit.PathOf(w), Deposit.OpensOn(w) is null ? "free" : "embargoed", version);

    /// <summary>
    /// The publisher's copy of what appeared in a journal; of a book and its chapters the book's page, which the records of one
    /// chapter in six do not name.
    /// </summary>
    public static (string, string, string)[] PublisherCopy(Work w) =>
        w.Book is { } book
            ? w.Id % 6 == 5
                ? []
                : [($"/books/{book.Id}", "free", "version of record")]
            : w.Type == "book"
                ? [($"/books/{w.Id}", "free", "version of record")]
                : w.Journal is null
                    ? []
                    :
                    [
                        (
                            $"/publisher/{w.Journal.Publisher.ToLowerInvariant().Replace(' ', '-')}/{w.Id}",
                            w.Journal.Open ? "free" : "closed",
                            "version of record"
                        ),
                    ];

    /// <summary>The set a kind of document belongs to.</summary>
    public static string Set(string type) => "type:" + type.Replace(' ', '-');

    /// <summary>Adds an entry with its later states: corrections of details, and now and then a deletion.</summary>
    public void Keep(List<Entry> entries, Entry entry, Dice d)
    {
        entries.Add(entry);
        if (Late.Contains(entry.Work.Id))
            return;
        var later = DatabaseViews.Start.AddSeconds(d.Between(3_600, 86_400 * 60));
        if (d.Chance(0.012))
            entries.Add(
                entry with
                {
                    Datestamp = later,
                    Cited = entry.Cited + d.Between(1, 3),
                    Title = entry.Work.Title,
                    Year = entry.Work.Year,
                }
            );
        else if (d.Chance(0.006))
            entries.Add(entry with { Datestamp = later, Deleted = true });
        if (d.Chance(0.006) && entry.Datestamp < DatabaseViews.Start)
            entries.Add(entry with { Identifier = entry.Identifier + "-gone", Deleted = true });
    }
}
