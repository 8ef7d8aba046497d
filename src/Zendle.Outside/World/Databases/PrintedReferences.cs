using System.Globalization;

namespace Zendle.Outside.World.Databases;

/// <summary>
/// Writes references as printed lists have them: five styles, one for each venue that cites, with slips of the pen.
/// </summary>
public static class PrintedReferences
{
    private static readonly string[] StrayKinds =
    [
        "Unpublished report to the council of {0}",
        "Personal communication, {0}",
        "Minutes of the {0} field society",
        "Proceedings of the {0} naturalists",
        "Leaflet on lamps and gardens, {0}",
    ];

    /// <summary>One entry of a work's list.</summary>
    /// <param name="from">The citing work.</param>
    /// <param name="place">Place in its list.</param>
    /// <param name="cited">The cited work; null for one that nobody describes.</param>
    /// <param name="noise">How often slips happen, 1 for as usual.</param>
    public static string Of(Work from, int place, Work? cited, double noise = 1)
    {
        var d = new Dice(41).For("reference", from.Id * 1009 + place);
        var style = (from.Journal?.Id ?? from.Id) % 5;
        if (cited is null)
            return Stray(d, from, style);
        var w = cited;
        var title = w.Translated is not null && d.Chance(0.3) ? w.Translated : w.Title;
        title = Slips.Letter(title, d, 0.05 * noise);
        if (d.Chance(0.03 * noise))
            title = title.Replace(" of ", " on ", StringComparison.Ordinal);
        if (d.Chance(0.03 * noise) && title.IndexOf(": ", StringComparison.Ordinal) is > 20 and var colon)
            title = title[..colon];
        var year = Slips.Year(w.Year, d, 0.025 * noise);
        var first = d.Chance(0.02 * noise) && w.FirstPage > 9 ? w.FirstPage + 1 : w.FirstPage;
        var people = People(w, style, d, noise);
        var venue =
            w.Venue is null ? w.Publisher ?? w.People[0].Institute
            : d.Chance(0.4) ? Slips.Abbreviated(w.Venue)
            : w.Venue;
        var paged = w.Journal is not null || w.Proceedings is not null || w.Book is not null;
        var doi = w.Doi is not null && d.Chance(0.3) ? $" doi:{w.Doi}" : "";
        FormattableString text = style switch
        {
            0 => $"{people} ({year}). {title}. {venue}{(paged ? $" {w.Volume}, {first}–{w.LastPage}" : "")}.{doi}",
            1 => $"{people}. {title}. {venue}. {year}{(paged ? $";{w.Volume}:{first}-{w.LastPage}" : "")}.{doi}",
            2 =>
                $"{people}: {title}. In: {venue}{(paged ? $" {w.Volume}" : "")} ({year}){(paged ? $" {first}-{w.LastPage}" : "")}.{doi}",
            // Short lists leave titles out, as some fields do.
            3 when paged && w.Journal is not null => $"{people}, {venue} {w.Volume}, {first} ({year}).{doi}",
            _ => $"{people} {year}. {title}. {venue}{(paged ? $" {w.Volume}: {first}–{w.LastPage}" : "")}.{doi}",
        };
        return text.ToString(CultureInfo.InvariantCulture);
    }

    private static string People(Work w, int style, Dice d, double noise)
    {
        var shown = w.People.Length > 6 ? w.People[..(style == 1 ? 6 : 1)] : w.People;
        if (shown.Length > 2 && d.Chance(0.02 * noise))
            shown = shown[1..];
        var names = shown
            .Select(
                (p, i) =>
                {
                    var family = d.Chance(0.25) ? Slips.Plain(p.Family) : p.Family;
                    var initials = p.Given.Split([' ', '-'], StringSplitOptions.RemoveEmptyEntries).Select(g => g[..1]);
                    return style switch
                    {
                        1 => $"{family} {string.Concat(initials)}",
                        2 when i > 0 => $"{string.Join(' ', initials.Select(g => g + "."))} {family}",
                        _ => $"{family}, {string.Join(' ', initials.Select(g => g + "."))}",
                    };
                }
            )
            .ToArray();
        var joined =
            names.Length > 1 && style is 0 or 4
                ? string.Join(", ", names[..^1]) + (names.Length > 1 ? " & " : "") + names[^1]
                : string.Join(style == 3 ? "; " : ", ", names);
        return shown.Length < w.People.Length ? joined + " et al." : joined;
    }

    private static string Stray(Dice d, Work from, int style)
    {
        var year = from.Year - d.Between(1, 25);
        var what = string.Format(CultureInfo.InvariantCulture, d.Of(StrayKinds), from.Study.Place);
        var who = $"{from.Study.Country} Office {(char)('A' + d.Below(20))}";
        return style == 0
            ? $"{who} ({year.ToString(CultureInfo.InvariantCulture)}). {what}."
            : $"{who}. {what}. {year.ToString(CultureInfo.InvariantCulture)}.";
    }
}
