using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>
/// When a work came out, chosen among what a bare record calls a date: of deposit, of release, the end of an embargo,
/// and of issue.
/// </summary>
/// <param name="Written">The date as it was written.</param>
/// <param name="Year">Its year.</param>
/// <param name="Date">As far as it is told, in W3CDTF: "2012", "2012-05", "2012-05-03".</param>
/// <param name="Why">Why it was taken, when there was a choice; null when there was none.</param>
public sealed partial record PublicationDate(string Written, int Year, string Date, string? Why)
{
    /// <summary>
    /// The date of issue. A repository writes its own dates (accession, availability) with a time of day, and
    /// vocabularies name the end of an embargo; what is left was typed for the work. Of several such the earliest
    /// holds, for a work comes out before it is corrected, released or described.
    /// </summary>
    /// <param name="dates">All dates of a record.</param>
    /// <returns>Null when none is plausible.</returns>
    public static PublicationDate? Choose(IReadOnlyList<string> dates)
    {
        if (dates.Count == 0)
            return null;
        if (dates is [var single])
            return !IsOther(single) && Read(single) is { } only
                ? new(single, int.Parse(only.AsSpan(0, 4), CultureInfo.InvariantCulture), only, null)
                : null;
        var read = dates
            .Where(d => !IsOther(d))
            .Select(d => (Written: d, Date: Read(d) ?? "", HasTime: TimeOfDay().IsMatch(d)))
            .Where(d => d.Date.Length > 0)
            .ToArray();
        if (read.Length == 0)
            return null;
        var typed = Array.FindAll(read, d => !d.HasTime);
        var pool = typed.Length > 0 ? typed : read;
        var year = pool.Min(d => d.Date[..4])!;
        // Of one year the most precise.
        var chosen = pool.Where(d => d.Date[..4] == year).MaxBy(d => d.Date.Length);
        var why =
            read.Select(d => d.Date[..4]).Distinct().Count() < 2 ? null
            : typed.Length is > 0 && typed.Length < read.Length
                ? $"Of {read.Length} dates “{chosen.Written}” was taken as the date of issue: the others "
                    + "carry a time of day, as dates of deposit do."
            : $"Of {read.Length} dates “{chosen.Written}” was taken as the date of issue: it is the earliest.";
        return new(chosen.Written, int.Parse(year, CultureInfo.InvariantCulture), chosen.Date, why);
    }

    /// <summary>Whether a value says itself that it is another date: the end of an embargo, a deposit.</summary>
    private static bool IsOther(string text) =>
        text.Contains("embargo", StringComparison.OrdinalIgnoreCase)
        || text.Contains("accession", StringComparison.OrdinalIgnoreCase)
        || text.Contains("available", StringComparison.OrdinalIgnoreCase);

    /// <summary>Reads a date in any common form into W3CDTF; null when it holds no plausible year.</summary>
    public static string? Read(string text)
    {
        // Most are a year, or a year with month and day between dashes.
        if (IsPlain(text))
            return text;
        var compact = Compact().Match(text);
        if (
            compact.Success
            && int.Parse(compact.Groups[2].Value, CultureInfo.InvariantCulture) is >= 1 and <= 12
            && int.Parse(compact.Groups[3].Value, CultureInfo.InvariantCulture) is >= 1 and <= 31
        )
            return $"{compact.Groups[1].Value}-{compact.Groups[2].Value}-{compact.Groups[3].Value}";
        var european = DayFirst().Match(text);
        if (
            european.Success
            && int.Parse(european.Groups[2].Value, CultureInfo.InvariantCulture) is >= 1 and <= 12 and var month
            && int.Parse(european.Groups[1].Value, CultureInfo.InvariantCulture) is >= 1 and <= 31 and var day
        )
            return string.Create(CultureInfo.InvariantCulture, $"{european.Groups[3].Value}-{month:00}-{day:00}");
        return ReadDate(text);
    }

    /// <summary>
    /// The year in a date written in any common way; null when none between 1000 and 2999 stands in it.
    /// </summary>
    internal static int? ReadYear(string date)
    {
        var match = YearPattern().Match(date);
        return match.Success ? int.Parse(match.Value, CultureInfo.InvariantCulture) : null;
    }

    /// <summary>
    /// Reads a date into W3CDTF as far as it is told: "2021-03-18", "2021 Mar", "March 2021", "c1998".
    /// </summary>
    private static string? ReadDate(string text)
    {
        if (ReadYear(text) is not { } year)
            return null;
        var iso = IsoDate().Match(text);
        if (iso.Success && int.Parse(iso.Groups[1].Value, CultureInfo.InvariantCulture) is >= 1 and <= 12)
            return text.Trim()[iso.Index..(iso.Index + iso.Length)];
        var word = MonthWord().Match(text);
        if (!word.Success)
            return year.ToString(CultureInfo.InvariantCulture);
        var month =
            Array.FindIndex(
                CultureInfo.InvariantCulture.DateTimeFormat.AbbreviatedMonthNames,
                m => m.Equals(word.Value[..3], StringComparison.OrdinalIgnoreCase)
            ) + 1;
        return string.Create(CultureInfo.InvariantCulture, $"{year}-{month:00}");
    }

    /// <summary>Whether a date is in W3CDTF as it stands: "2012", "2012-05", "2012-05-03".</summary>
    private static bool IsPlain(string text)
    {
        if (text.Length is not (4 or 7 or 10) || text[0] is not ('1' or '2'))
            return false;
        for (var i = 0; i < text.Length; i++)
            if (i is 4 or 7 ? text[i] != '-' : !char.IsAsciiDigit(text[i]))
                return false;
        return (text.Length < 7 || int.Parse(text.AsSpan(5, 2), CultureInfo.InvariantCulture) is >= 1 and <= 12)
            && (text.Length < 10 || int.Parse(text.AsSpan(8, 2), CultureInfo.InvariantCulture) is >= 1 and <= 31);
    }

    [GeneratedRegex(@"\dT\d{2}:?\d{2}|\d{1,2}:\d{2}", RegexOptions.CultureInvariant)]
    private static partial Regex TimeOfDay();

    [GeneratedRegex(@"^\s*([12]\d{3})([01]\d)([0-3]\d)\s*$", RegexOptions.CultureInvariant)]
    private static partial Regex Compact();

    // With points the day stands first everywhere; with slashes nobody can tell.
    [GeneratedRegex(@"^\s*(\d{1,2})\.\s?(\d{1,2})\.\s?([12]\d{3})\s*$", RegexOptions.CultureInvariant)]
    private static partial Regex DayFirst();

    [GeneratedRegex(@"(?<!\d)[12]\d{3}-([01]\d)(-[0-3]\d)?(?!\d)", RegexOptions.CultureInvariant)]
    private static partial Regex IsoDate();

    [GeneratedRegex(
        @"\b(jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\b",
        RegexOptions.CultureInvariant | RegexOptions.IgnoreCase
    )]
    private static partial Regex MonthWord();

    [GeneratedRegex(@"(?<!\d)[12]\d{3}(?!\d)", RegexOptions.CultureInvariant)]
    private static partial Regex YearPattern();
}
