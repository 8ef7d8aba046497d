using System.Text.RegularExpressions;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Takes apart what repositories put into one field about where a work appeared: "Journal; Vol. 12 No. 3 (2019): Summer
/// issue; 45-67", "Journal, 12(3), 45–67 (2019)", "ISSN 2434-561X". What cannot be told apart beyond doubt stays whole,
/// as the title of the venue.
/// </summary>
internal static partial class SourceLine
{
    /// <summary>
    /// What follows the title of the work in a citation of it ("Berg, M. (2012) Moths of verges. Night Letters, 12 (3).
    /// pp. 45-67"); null when the title does not stand in it or nothing follows.
    /// </summary>
    /// <param name="citation">The citation.</param>
    /// <param name="title">Title of the work.</param>
    public static string? Behind(string citation, string title)
    {
        if (title.Length < 8 || citation.Length > 2_000)
            return null;
        var at = citation.IndexOf(title.TrimEnd('.'), StringComparison.OrdinalIgnoreCase);
        if (at < 0)
            return null;
        var rest = citation[(at + title.TrimEnd('.').Length)..].Trim(' ', '.', ',', ';', ':', '"', '”', '\'', '’');
        return rest.Length > 3 ? In().Replace(rest, "") : null;
    }

    /// <summary>Reads the values of <c>source</c>: the fullest that names a venue, with the ISSN of any.</summary>
    /// <returns>Null when none names a venue.</returns>
    public static VenuePart? Read(IReadOnlyList<string> values)
    {
        var issn = values.Select(Identifiers.Issn).FirstOrDefault(i => i is not null);
        var parts = values
            .Where(v => !IsOnlyIdentifier(v))
            .Select(One)
            .OfType<VenuePart>()
            .OrderByDescending(Fullness)
            .ToArray();
        return parts.Length == 0 ? null : parts[0] with { Issn = parts[0].Issn ?? issn };
    }

    private static int Fullness(VenuePart v) =>
        (v.Volume is null ? 0 : 4) + (v.Issue is null ? 0 : 1) + (v.FirstPage is null ? 0 : 2);

    private static bool IsOnlyIdentifier(string text) =>
        WebAddress.Of(text) is not null
        || Label().Replace(text, "").Trim(' ', ':', '.', ';', ',', '(', ')') is var rest
            && (
                rest.Length == 0
                || (Identifiers.Issn(rest) is not null && !HasName(rest))
                || (Identifiers.Isbn(text) is not null && rest.Length < 40)
                || rest.Equals(Identifiers.Doi(rest), StringComparison.OrdinalIgnoreCase)
            );

    /// <summary>Whether more than a label stands beside a number.</summary>
    private static bool HasName(string text) =>
        text.Split(' ', StringSplitOptions.RemoveEmptyEntries).Any(w => w.Count(char.IsLetter) >= 3);

    /// <summary>A title without the ISSN that stands in the same field, when enough is left.</summary>
    private static string WithoutIssn(string text) =>
        Identifiers.Issn(text) is not null
        && IssnInText().Replace(text, " ").Trim(' ', ',', ';', '.', ':', '-', '(', ')') is { Length: > 2 } title
        && title.Any(char.IsLetter)
            ? title
            : text;

    /// <summary>A line in no form of those above, when all that stands behind the title can be told apart.</summary>
    private static VenuePart? Loose(string text)
    {
        if (SourceTail.Find(text) is not { } tail)
            return null;
        var title = text[..tail.Start].Trim(' ', ',', ';', ':', '-', '(');
        // A full stop closes the title, unless it is an abbreviation's.
        if (
            title.Length > 5
            && title[^1] == '.'
            && title[..^1].LastIndexOf('.') < 0
            && title.Contains(' ', StringComparison.Ordinal)
        )
            title = title[..^1];
        return title.Length is < 2 or > 300
            ? null
            : new(
                WithoutIssn(title),
                Identifiers.Issn(text),
                tail.Volume,
                tail.Issue,
                tail.First,
                FilledOut(tail.First, tail.Last) ?? tail.First
            );
    }

    /// <summary>
    /// "45-7" is 45-47. Pages that would run backward are not believed: then there is no last page.
    /// </summary>
    internal static string? FilledOut(string? first, string? last)
    {
        if (first is null || last is null || !first.All(char.IsAsciiDigit) || !last.All(char.IsAsciiDigit))
            return last;
        var whole = last.Length < first.Length ? first[..^last.Length] + last : last;
        return int.TryParse(first, out var f) && int.TryParse(whole, out var l) && l < f ? null : whole;
    }

    private static VenuePart? One(string text)
    {
        text = In().Replace(text, "");
        var match = Labelled().Match(text);
        if (!match.Success)
            match = Numbers().Match(text);
        if (!match.Success)
            match = Colon().Match(text);
        if (!match.Success)
            return text.Length > 300 ? null : Loose(text) ?? new(WithoutIssn(text), Identifiers.Issn(text));
        string? Group(string name) => match.Groups[name] is { Success: true, Value.Length: > 0 } g ? g.Value : null;
        var title = match.Groups["title"].Value.Trim(' ', ',', ';', '.', ':', '-');
        var (first, last) = (Group("first"), Group("last"));
        // "45-7" is 45-47; pages that would run backward are not believed.
        if (
            first is not null
            && last is not null
            && last.Length < first.Length
            && last.All(char.IsAsciiDigit)
            && first.All(char.IsAsciiDigit)
        )
            last = first[..^last.Length] + last;
        if (
            first is not null
            && last is not null
            && int.TryParse(first, out var f)
            && int.TryParse(last, out var l)
            && l < f
        )
            (first, last) = (null, null);
        return title.Length is < 2 or > 300 || !title.Any(char.IsLetter)
            ? new(text, Identifiers.Issn(text))
            : new(title, Identifiers.Issn(text), Group("volume"), Group("issue"), first, last ?? first);
    }

    [GeneratedRegex(
        @"^\s*(?:in|published in|appeared in|erschienen in|publicado en|dans)\s*:\s*",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex In();

    [GeneratedRegex(
        @"[,;(]?\s*(?:\b(?:e-?|p-?|print "
            + @"|online )?issn(?:-l)?\b\s*:?\s*)?\b\d{4}-\d{3}[\dXx]\b\s*(?:\((?:print|online|electronic|e"
            + @"|p)\))?\s*\)?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex IssnInText();

    [GeneratedRegex(
        @"\b(?:e-?|p-?|print |online )?(?:issn|isbn)(?:-l|-1[03])?\b|urn:|\((?:print|online|electronic|e|p)\)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Label();

    // "Journal; Vol. 12 No. 3 (2019): Summer issue; 45-67", "Journal; Bd. 12 Nr. 3 (2019); 45-67", "Journal, vol. 12,
    // no. 3, pp. 45-67, 2019"
    [GeneratedRegex(
        @"^(?<title>.{2,300}?)[;,.:]?\s+(?:vol(?:ume|umen|\.)?|v\.|bd\.?|band|jg\.?|tome|t\."
            + @"|núm\. vol\.)\s*:?\s*(?<volume>\d[\dA-Z]{0,7}|[IVXLC]{1,8}\b)(?:\s*[,;]?\s*(?:no|nr|n°|nº|núm|num"
            + @"|number|issue|iss|heft|h|n)\.?\s*:?\s*(?<issue>(?:[A-Z]{0,3}\d[\dA-Z]{0,4}|[IVXLC]{1,6}\b"
            + @"|[A-Z]\b)(?:[-/–]\d{1,4})?))?(?:\s*[,;(]\s*(?:\w+\s)?(?<year>[12]\d{3})\)?)?(?:\s*:[^;]{0,200})?(?:[;,.]\s*(?:pp?\.?"
            + @"|pages?|s\.|art(?:icle)?\.?)?\s*(?<first>[eA-Z]?\d{1,7})(?:\s*[-–]\s*(?<last>[eA-Z]?\d{1,7}))?"
            + @"(?:\s*[,(]\s*[12]\d{3}\)?)?)?\s*\.?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Labelled();

    // "Journal, 12(3), 45–67 (2019)", "Journal 12 (3), 45-67", "Journal 2019, 12 (3), 45-67"
    [GeneratedRegex(
        @"^(?<title>[^\d]{2,300}?)[,;.]?\s+(?:(?:[12]\d{3})[,;]\s+)?(?<volume>\d{1,4})"
            + @"\s*\((?<issue>[\dA-Z]{1,6}(?:[-/–]\d{1,4})?)\)\s*[,:;]\s*(?:pp?\.?\s*)?"
            + @"(?<first>[eA-Z]?\d{1,7})(?:\s*[-–]\s*(?<last>[eA-Z]?\d{1,7}))?\s*[.,]?\s*(?:\(?[12]\d{3}\)?)?\.?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Numbers();

    // "Journal 12, 45-67 (2019)", "Journal 12: 45-67"
    [GeneratedRegex(
        @"^(?<title>[^\d]{2,300}?)[,;.]?\s+(?<volume>\d{1,4})\s*[,:]\s*(?:pp?\.?\s*)?"
            + @"(?<first>\d{1,6})\s*[-–]\s*(?<last>\d{1,6})\s*[.,]?\s*(?:\(?[12]\d{3}\)?)?\.?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Colon();
}
