using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>
/// Takes from a printed reference what stands in a place beyond doubt: DOI, year, first family name, and the longest
/// sentence as its title.
/// </summary>
/// <remarks>
/// What is taken only proposes; the matching of references holds the whole text against the works it proposes.
/// O(length), no backtracking.
/// </remarks>
public static partial class PrintedReference
{
    private const int EarliestYear = 1800,
        LatestYear = 2099,
        ShortestTitle = 12,
        LongestNotice = 40;

    /// <summary>Reads a printed reference; parts that do not show are null.</summary>
    public static Reference Read(string text)
    {
        var doi = text.Contains("10.", StringComparison.Ordinal) ? Identifiers.Doi(text) : null;
        return new(text, doi, Title(text), Family(text), Year(text));
    }

    /// <summary>
    /// The year: one in parentheses before one that stands free; null when there is none from 1800 to 2099.
    /// </summary>
    private static int? Year(string text)
    {
        int? free = null;
        for (var i = 0; i + 4 <= text.Length; i++)
        {
            if (!char.IsAsciiDigit(text[i]))
                continue;
            var end = i;
            while (end < text.Length && char.IsAsciiDigit(text[end]))
                end++;
            var opens = i > 0 && text[i - 1] == '(';
            // A number after a dash or a colon is a page, one before a dash the first of a range.
            var isPage =
                i > 0 && text[i - 1] is '-' or '–' or ':' or '/' or '.'
                || (end < text.Length && text[end] is '-' or '–' or '/');
            if (
                end - i == 4
                && (opens || !isPage)
                && int.Parse(text.AsSpan(i, 4), CultureInfo.InvariantCulture)
                    is >= EarliestYear
                        and <= LatestYear
                        and var year
            )
            {
                if (opens)
                    return year;
                free ??= year;
            }
            i = end;
        }
        return free;
    }

    /// <summary>The family name the text begins with: up to a comma, or up to initials.</summary>
    private static string? Family(string text)
    {
        var end = 0;
        while (
            end < text.Length
            && text[end] is not (',' or '(' or ':' or '.' or ';' or '&')
            && !(text[end] == ' ' && IsInitials(text, end + 1))
        )
            end++;
        var family = text[..end].Trim();
        var isName = end < text.Length && (text[end] is ',' or '(' || (text[end] == ' ' && IsInitials(text, end + 1)));
        return isName && family.Length is > 1 and < 60 && !char.IsDigit(family[0]) ? family : null;
    }

    private static bool IsInitials(string text, int at)
    {
        var end = at;
        while (end < text.Length && char.IsUpper(text[end]))
            end++;
        return end > at && end - at <= 4 && (end == text.Length || text[end] is '.' or ',' or ' ' or ':');
    }

    /// <summary>The longest part between full stops that is not the people; null when none is long enough.</summary>
    private static string? Title(string text)
    {
        var (from, best) = (0, (Start: 0, Length: 0));
        var people = true;
        for (var i = 0; i <= text.Length; i++)
        {
            if (i < text.Length && !EndsSentence(text, i))
                continue;
            var (start, length) = (from, i - from);
            // People end at a year, a colon or the first full stop that is not an initial's.
            if ((people || text.AsSpan(start).StartsWith("(")) && AfterYear(text, start, i) is var after and > 0)
                (start, length) = (after, i - after);
            else if (
                people
                && text.IndexOf(": ", start, length, StringComparison.Ordinal) is > 0 and var colon
                && text.AsSpan(start, colon - start).Contains('.')
            )
                (start, length) = (colon + 2, i - colon - 2);
            if (!people || start != from || text.AsSpan(start, length).IndexOf('.') < 0)
                if (length > best.Length && start > 0)
                    best = (start, length);
            people = false;
            from = i + 2;
        }
        best = WithNotice(text, best);
        var title = text.AsSpan(
                Math.Min(best.Start, text.Length),
                Math.Min(best.Length, text.Length - Math.Min(best.Start, text.Length))
            )
            .Trim()
            .ToString();
        title = title.TrimEnd('.', ' ');
        return title.Length >= ShortestTitle ? title : null;
    }

    /// <summary>
    /// A title with what stands before it and makes it another work: "Correction to: Lamps and moths" is not that on lamps
    /// and moths.
    /// </summary>
    private static (int Start, int Length) WithNotice(string text, (int Start, int Length) title)
    {
        var from = Math.Max(0, title.Start - LongestNotice);
        return Notice().Match(text, from, title.Start - from) is { Success: true } notice
            ? (notice.Index, title.Start + title.Length - notice.Index)
            : title;
    }

    [GeneratedRegex(
        @"\b(?:corrections?|corrigend(?:um|a)|errat(?:um|a)|retraction(?: notice)?|addendum|expression of concern|reply|response"
            + @"|comment|berichtigung|fe de erratas)(?: (?:to|on|of|for|zu|a))?\s*:\s*[“""‘']?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Notice();

    /// <summary>Where the text goes on after a year in parentheses; 0 when there is none.</summary>
    private static int AfterYear(string text, int from, int to)
    {
        for (var i = from; i + 5 < to; i++)
            if (text[i] == '(' && text.AsSpan(i + 1, 4).IndexOfAnyExceptInRange('0', '9') < 0)
            {
                var end = text.IndexOf(')', i, to - i);
                if (end < 0)
                    return 0;
                end++;
                while (end < to && text[end] is ' ' or ':' or '.' or ',')
                    end++;
                return end < to ? end : 0;
            }
        return 0;
    }

    /// <summary>A full stop (or ? or !) before a blank that does not belong to an initial.</summary>
    private static bool EndsSentence(string text, int i) =>
        text[i] is '.' or '?' or '!'
        && i + 1 < text.Length
        && text[i + 1] == ' '
        && !(i >= 1 && char.IsUpper(text[i - 1]) && (i < 2 || text[i - 2] is ' ' or '.' or '-'));
}
