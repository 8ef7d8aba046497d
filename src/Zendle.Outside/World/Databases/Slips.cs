using System.Globalization;
using System.Text;

namespace Zendle.Outside.World.Databases;

/// <summary>What goes wrong with text on its way into a database.</summary>
internal static class Slips
{
    private static readonly (string From, string To)[] Misread =
    [
        ("rn", "m"),
        ("li", "h"),
        ("cl", "d"),
        ("ii", "u"),
        ("e", "c"),
        ("o", "0"),
        ("l", "1"),
    ];

    /// <summary>
    /// A title as a careless crawl has it: in capitals, with entities, markup, a lost subtitle, a misread letter, a
    /// trailing stop.
    /// </summary>
    public static string Title(string title, Dice d, double noise)
    {
        if (d.Chance(0.03 * noise))
            return title.ToUpperInvariant();
        if (d.Chance(0.03 * noise))
            return title
                .Replace("'", "&#39;", StringComparison.Ordinal)
                .Replace(" and ", " &amp; ", StringComparison.Ordinal);
        if (d.Chance(0.01 * noise))
            return "<i>" + title + "</i>";
        if (d.Chance(0.02 * noise) && title.IndexOf(": ", StringComparison.Ordinal) is > 24 and var colon)
            return title[..colon];
        if (d.Chance(0.03 * noise))
            return Misspelt(title, d);
        if (d.Chance(0.02 * noise))
            return title + ".";
        if (d.Chance(0.02 * noise))
            return title.Replace(" – ", " - ", StringComparison.Ordinal).Replace('-', '‐');
        return title;
    }

    /// <summary>A title in which, now and then, one letter is wrong.</summary>
    public static string Letter(string title, Dice d, double chance) => d.Chance(chance) ? Misspelt(title, d) : title;

    /// <summary>One letter misread, dropped or doubled.</summary>
    public static string Misspelt(string text, Dice d)
    {
        if (text.Length < 8)
            return text;
        var (from, to) = d.Of(Misread);
        var at = text.IndexOf(from, d.Below(text.Length / 2), StringComparison.Ordinal);
        if (at > 0 && d.Chance(0.5))
            return text[..at] + to + text[(at + from.Length)..];
        at = d.Between(2, text.Length - 3);
        return d.Chance(0.5) ? text.Remove(at, 1) : text.Insert(at, text[at].ToString());
    }

    /// <summary>Without diacritics.</summary>
    public static string Plain(string text) =>
        string.Concat(
                text.Normalize(NormalizationForm.FormD)
                    .Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
            )
            .Replace('ø', 'o')
            .Replace('Ø', 'O')
            .Replace('Ł', 'L')
            .Replace('ł', 'l');

    /// <summary>A venue's title cut as printed lists cut it: "J. Hedge Ecol.".</summary>
    public static string Abbreviated(string title)
    {
        var words = title.Split(' ').Where(w => w is not ("of" or "in" or "and" or "the" or "on" or "for")).ToArray();
        return words.Length < 2
            ? title
            : string.Join(' ', words.Select(w => w.Length <= 5 ? w : w[..(w.Length > 8 ? 5 : 4)] + "."));
    }

    /// <summary>A year that is one off.</summary>
    public static int Year(int year, Dice d, double chance) =>
        d.Chance(chance) ? year + (d.Chance(0.5) ? 1 : -1) : year;

    /// <summary>A DOI as an address, in capitals, or with a stop behind it; as it is most times.</summary>
    public static string? Doi(string? doi, Dice d) =>
        doi is null
            ? null
            : d.Below(10) switch
            {
                < 4 => "https://doi.org/" + doi.ToUpperInvariant(),
                4 => "doi:" + doi,
                5 => doi + ".",
                _ => doi,
            };
}
