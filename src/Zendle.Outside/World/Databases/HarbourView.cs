namespace Zendle.Outside.World.Databases;

/// <summary>
/// The open repository: accepted manuscripts, preprints, theses, reports and data, each with its text.
/// </summary>
internal static class HarbourView
{
    public static OutsideDatabase Make(Share share)
    {
        var entries = new List<Entry>();
        foreach (
            var w in share.Works.Where(w =>
                w.HasManuscript
                || w.Type is "thesis"
                || (w.Type is "preprint" or "report" or "dataset" && share.Dice.For("harbour", w.Id).Chance(0.6))
            )
        )
        {
            var d = share.Dice.For("harbour entry", w.Id);
            var version =
                w.HasManuscript ? "accepted manuscript"
                : w.Type == "preprint" ? "preprint"
                : "version of record";
            share.Keep(
                entries,
                new()
                {
                    Identifier = $"oai:harbour:item-{w.Id}",
                    Datestamp = share.Stamp(d, w),
                    Work = w,
                    Type = w.Type,
                    Title = Slips.Letter(w.Title, d, 0.04 * share.Noise),
                    People = w.People,
                    Names = d.Chance(0.3) ? NameForm.Whole : NameForm.Full,
                    Year = Slips.Year(w.Year, d, 0.05 * share.Noise),
                    Abstract = w.Abstract,
                    Keywords = d.Chance(0.6) ? w.Keywords : [],
                    Doi = w.Doi is not null && d.Chance(1 - 0.2 * share.Noise) ? w.Doi : null,
                    Venue = w.Venue,
                    NoPages = true,
                    Version = version,
                    Copies = [Share.Manuscript(w, version)],
                    Sets = [Share.Set(w.Type)],
                },
                d
            );
        }
        return new(
            "harbour",
            "Harbour Repository",
            "An open repository: accepted manuscripts, preprints, theses and reports, each with its text.",
            entries,
            share.Works,
            share.Noise
        );
    }
}
