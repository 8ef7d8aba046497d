namespace Zendle.Outside.World.Databases;

/// <summary>
/// The broad crawl: nearly everything, messy, printed references; meets some works twice, knows some only from
/// reference lists.
/// </summary>
internal static class FarnetView
{
    public static OutsideDatabase Make(Share share)
    {
        var (works, dice, noise) = (share.Works, share.Dice, share.Noise);
        bool Covers(Work w) =>
            dice.For("farnet", w.Id)
                .Chance(
                    w.Type is "book" or "chapter" ? 0.5
                    : w.Type == "thesis" ? 0.75
                    : w.Topic.Core ? 0.93
                    : 0.84
                );
        var covered = works.Where(Covers).ToArray();
        var cited = share.Counts(covered);
        var entries = new List<Entry>();
        foreach (var w in works)
        {
            var d = dice.For("farnet entry", w.Id);
            if (!Covers(w))
            {
                if (cited.GetValueOrDefault(w.Id) >= 2 && d.Chance(0.8))
                    share.Keep(entries, OnlyCited(share, w, d, cited[w.Id]), d);
                continue;
            }
            var entry = new Entry
            {
                Identifier = $"oai:farnet:{w.Id:D6}",
                Datestamp = share.Stamp(d, w),
                Work = w,
                Type = d.Chance(0.03 * noise) ? "article" : w.Type,
                Title = Slips.Title(w.Title, d, noise),
                People = w.People.Length > 2 && d.Chance(0.04 * noise) ? w.People[..^1] : w.People,
                Names = d.Below(20) switch
                {
                    < 9 => NameForm.Initials,
                    < 11 => NameForm.Whole,
                    11 => NameForm.Bare,
                    _ => NameForm.Full,
                },
                Year = Slips.Year(w.Year, d, 0.03 * noise),
                Abstract = d.Chance(0.82) ? w.Abstract : "",
                Keywords = d.Chance(0.35) ? w.Keywords : [],
                Doi = d.Chance(0.06 * noise) ? null : Slips.Doi(w.Doi, d),
                Isbn = w.Book is null ? w.Isbn : null,
                Venue =
                    w.Venue is null ? null
                    : d.Chance(0.12) ? Slips.Abbreviated(w.Venue)
                    : d.Chance(0.1) ? w.Venue.ToUpperInvariant()
                    : w.Venue,
                NoPages = d.Chance(0.15),
                References = Share.References(w, _ => d.Chance(0.9)),
                ReferencesAs = ReferenceForm.Printed,
                Cited = cited.GetValueOrDefault(w.Id),
                Copies = w.HasManuscript
                    ? [Share.Manuscript(w, "accepted manuscript"), .. Share.PublisherCopy(w)]
                    : Share.PublisherCopy(w),
                Sets = [Share.Set(w.Type)],
                Version = w.Type == "preprint" ? "preprint" : null,
            };
            share.Keep(entries, entry, d);
            // The crawl meets some works twice and does not notice.
            if (d.Chance(0.02 * noise))
                entries.Add(
                    entry with
                    {
                        Identifier = entry.Identifier + "-b",
                        Title = Slips.Title(w.Title, d, 2 * noise),
                        Abstract = "",
                        Keywords = [],
                        References = [],
                        Doi = null,
                        Cited = d.Below(3),
                        Names = NameForm.Initials,
                        Year = Slips.Year(w.Year, d, 0.05 * noise),
                    }
                );
            if (w.PreprintDoi is not null)
                entries.Add(
                    entry with
                    {
                        Identifier = entry.Identifier + "-pre",
                        Type = "preprint",
                        Title = d.Chance(0.1) ? Earlier(w.Title) : w.Title,
                        Doi = w.PreprintDoi,
                        OtherVersion = d.Chance(1 - 0.1 * noise) ? w.Doi : null,
                        Year = Math.Max(2013, w.Year - 1),
                        Venue = null,
                        NoPages = true,
                        References = [],
                        Cited = d.Below(4),
                        Version = "preprint",
                        Copies = [($"/harbour/preprint/{w.Id}", "free", "preprint")],
                        Sets = ["type:preprint"],
                        Datestamp =
                            entry.Datestamp < DatabaseViews.Start ? entry.Datestamp : DatabaseViews.Start.AddDays(-20),
                    }
                );
        }
        share.Recount(entries, covered);
        return new(
            "farnet",
            "Farnet",
            "A broad crawl of scholarly pages: nearly everything, searched whole, messy.",
            entries,
            works,
            noise
        );
    }

    /// <summary>The title a preprint had before the study was worded anew.</summary>
    private static string Earlier(string title) =>
        title.IndexOf(": ", StringComparison.Ordinal) is > 20 and var at ? title[..at] : title;

    /// <summary>What lists of references tell of a work nobody has harvested: title, first person, year.</summary>
    private static Entry OnlyCited(Share share, Work w, Dice d, int cited) =>
        new()
        {
            Identifier = $"oai:farnet:c{w.Id:D6}",
            Datestamp = share.Stamp(d, w),
            Work = w,
            Type = w.Type is "book" ? "book" : "article",
            Title = Slips.Title(w.Title, d, share.Noise),
            People = w.People[..1],
            Names = NameForm.Bare,
            Year = Slips.Year(w.Year, d, 0.05 * share.Noise),
            Venue = w.Venue is null ? null : Slips.Abbreviated(w.Venue),
            NoPages = true,
            Cited = cited,
            OnlyCited = true,
            Sets = [Share.Set(w.Type)],
        };
}
