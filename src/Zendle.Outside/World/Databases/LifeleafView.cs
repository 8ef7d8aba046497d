using System.Globalization;

namespace Zendle.Outside.World.Databases;

/// <summary>
/// The life-science index with its controlled vocabulary, and the extract of it that is sold as a database of its own.
/// </summary>
internal static class LifeleafView
{
    /// <summary>Areas the index covers.</summary>
    public static readonly string[] Areas =
    [
        "Insect science",
        "Ecology",
        "Plant science",
        "Crop science",
        "Animal physiology",
        "Conservation",
        "Human health",
    ];

    private static readonly string[] Months = CultureInfo.InvariantCulture.DateTimeFormat.AbbreviatedMonthNames;

    public static OutsideDatabase Index(Share share)
    {
        var entries = new List<Entry>();
        foreach (
            var w in share.Works.Where(w =>
                Areas.Contains(w.Topic.Area)
                && (w.Journal is not null || w.Type == "conference paper")
                && share.Dice.For("lifeleaf", w.Id).Chance(w.Year >= 1966 ? 0.34 + (w.Topic.Core ? 0.35 : 0) : 0.1)
            )
        )
        {
            var d = share.Dice.For("lifeleaf entry", w.Id);
            var number = (30_000_000 + w.Id * 13).ToString(CultureInfo.InvariantCulture);
            share.Keep(
                entries,
                new()
                {
                    Identifier = $"oai:lifeleaf:{number}",
                    Datestamp = share.Stamp(d, w).AddDays(share.Late.Contains(w.Id) ? 9 : 0),
                    Work = w,
                    Type = w.Type,
                    Title = w.Translated is null ? w.Title + "." : $"[{w.Translated}].",
                    OtherTitle = w.Translated is null ? null : w.Title,
                    People = w.People.Length > 20 && w.Year < 2000 ? w.People[..20] : w.People,
                    Names = w.Year < 2002 ? NameForm.Initials : NameForm.Full,
                    Year = Slips.Year(w.Year, d, 0.01 * share.Noise),
                    Abstract = w.Abstract,
                    Descriptors = Vocabulary.Of(w),
                    Vocabulary = "lifeleaf",
                    Doi = w.Doi is not null && d.Chance(1 - 0.12 * share.Noise) ? w.Doi : null,
                    Own = ("lifeleaf", number),
                    Venue =
                        w.Journal is null ? w.Venue
                        : d.Chance(0.7) ? w.Venue
                        : Slips.Abbreviated(w.Venue!),
                    References =
                        w.Year >= 2004 && d.Chance(0.5) ? Share.References(w, c => share.Works[c].Doi is not null) : [],
                    ReferencesAs = ReferenceForm.Dois,
                    Copies = Share.PublisherCopy(w),
                    Sets = [Share.Set(w.Type)],
                    Date = w.Year >= 1990 ? $"{w.Year} {Months[w.Day / 31 % 12]}" : null,
                },
                d
            );
        }
        return new(
            "lifeleaf",
            "Lifeleaf Index",
            "A life-science index with a controlled vocabulary; titles in other languages are given in English, in brackets.",
            entries,
            share.Works,
            share.Noise
        );
    }

    public static OutsideDatabase Select(Share share, OutsideDatabase index) =>
        new(
            "select",
            "Lifeleaf Select",
            "An extract of Lifeleaf Index: what clinics, growers and planners ask for most.",
            [
                .. index
                    .Entries.Where(e => share.Dice.For("select", e.Work.Id).Chance(e.Work.Topic.Core ? 0.6 : 0.34))
                    .Select(e =>
                        e with
                        {
                            Identifier = e.Identifier.Replace("oai:lifeleaf:", "oai:select:", StringComparison.Ordinal),
                        }
                    ),
            ],
            share.Works,
            share.Noise
        );
}
