namespace Zendle.Outside.World.Databases;

/// <summary>
/// The union catalogue: books with their tables of contents, chapters, theses on its members' shelves; transcribed by
/// many hands.
/// </summary>
internal static class UnionView
{
    public static OutsideDatabase Make(Share share)
    {
        var chapters = share
            .Works.Where(w => w.Book is not null)
            .GroupBy(w => w.Book!.Id)
            .ToDictionary(g => g.Key, g => g.Select(c => c.Title).ToArray());
        var entries = new List<Entry>();
        foreach (
            var w in share.Works.Where(w =>
                w.Type is "book" or "chapter"
                || (w.Type is "thesis" or "report" && share.Dice.For("union", w.Id).Chance(0.3))
            )
        )
        {
            var d = share.Dice.For("union entry", w.Id);
            if (w.Type == "chapter" && d.Chance(0.25))
                continue;
            share.Keep(
                entries,
                new()
                {
                    Identifier = $"oai:union:us{w.Id:D7}",
                    Datestamp = share.Stamp(d, w),
                    Work = w,
                    Type = w.Type,
                    Title = Slips.Letter(w.Title, d, 0.08 * share.Noise),
                    People = w.People,
                    Names = NameForm.Catalogue,
                    Year = Slips.Year(w.Year, d, 0.02 * share.Noise),
                    Date = d.Below(4) switch
                    {
                        0 => $"c{w.Year}",
                        1 => $"[{w.Year}]",
                        _ => null,
                    },
                    Descriptors = [w.Topic.Area],
                    Vocabulary = "union",
                    Isbn =
                        w.Isbn is null ? null
                        : d.Chance(0.04 * share.Noise) ? w.Isbn[..^1] + (char)('0' + (w.Isbn[^1] - '0' + 1) % 10)
                        : w.Isbn,
                    Doi = w.Doi is not null && d.Chance(0.3) ? w.Doi : null,
                    Venue = w.Venue,
                    Contents = w.Type == "book" ? chapters.GetValueOrDefault(w.Id, []) : [],
                    Sets = [Share.Set(w.Type)],
                },
                d
            );
        }
        return new(
            "union",
            "Union of Shelves",
            "A union catalogue: books with their tables of contents, chapters, and theses on its members' shelves.",
            entries,
            share.Works,
            share.Noise
        );
    }
}
