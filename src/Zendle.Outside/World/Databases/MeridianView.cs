namespace Zendle.Outside.World.Databases;

/// <summary>
/// The curated citation index: chosen journals only, clean, subject categories, references in parts; counts citations
/// inside itself.
/// </summary>
internal static class MeridianView
{
    public static OutsideDatabase Make(Share share)
    {
        var dice = share.Dice;
        var covered = share
            .Works.Where(w =>
                w.Journal is { Curated: true } && dice.For("meridian", w.Id).Chance(w.Year >= 1975 ? 0.93 : 0.5)
            )
            .ToArray();
        var cited = share.Counts(covered);
        var inside = covered.Select(w => w.Id).ToHashSet();
        var entries = new List<Entry>();
        foreach (var w in covered)
        {
            var d = dice.For("meridian entry", w.Id);
            share.Keep(
                entries,
                new()
                {
                    Identifier = $"oai:meridian:MC{w.Id * 7 + 100000}",
                    Datestamp = share.Stamp(d, w),
                    Work = w,
                    Type = w.Type,
                    Title = w.Translated is null ? w.Title : $"[{w.Translated}]",
                    People = w.People,
                    Names = w.Year < 1995 ? NameForm.Initials : NameForm.Full,
                    Year = Slips.Year(w.Year, d, 0.004 * share.Noise),
                    Abstract = w.Year >= 1985 ? w.Abstract : "",
                    Keywords = w.Keywords,
                    Descriptors = [w.Topic.Area],
                    Doi = w.Doi,
                    Venue = w.Venue,
                    References = Share.References(w, c => inside.Contains(c) || d.Chance(0.6)),
                    ReferencesAs = ReferenceForm.Parts,
                    Cited = cited.GetValueOrDefault(w.Id),
                    Copies = Share.PublisherCopy(w),
                    Sets = [Share.Set(w.Type), "subject:" + w.Topic.Area.ToLowerInvariant().Replace(' ', '-')],
                    Version = "version of record",
                },
                d
            );
        }
        share.Recount(entries, covered);
        return new(
            "meridian",
            "Meridian Citations",
            "A curated citation index: journals only, clean, with subject categories; counts citations inside itself.",
            entries,
            share.Works,
            share.Noise
        );
    }
}
