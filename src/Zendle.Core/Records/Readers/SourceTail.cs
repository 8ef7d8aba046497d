using System.Text.RegularExpressions;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// What stands behind the title of a venue: volume, issue, pages and year, with or without labels, in any order. It is
/// believed only when all of it can be told apart: one word that is none of these, and nothing is.
/// </summary>
/// <param name="Start">Where in the line it begins; before it stands the title.</param>
/// <param name="Volume">Volume.</param>
/// <param name="Issue">Issue.</param>
/// <param name="First">First page.</param>
/// <param name="Last">Last page.</param>
internal sealed partial record SourceTail(int Start, string? Volume, string? Issue, string? First, string? Last)
{
    private const int ShortestTitle = 2;

    /// <summary>Finds the tail of a line: the longest whose parts can all be told apart. O(length²) at worst, over at
    /// most 300 characters.</summary>
    /// <param name="line">The line.</param>
    /// <returns>Null when there is none that tells a volume, an issue or pages.</returns>
    public static SourceTail? Find(string line)
    {
        if (line.Length > 300)
            return null;
        var letters = 0;
        for (var at = 0; at < line.Length; at++)
        {
            if (char.IsLetter(line[at]))
                letters++;
            var begins = at > 0 && line[at - 1] is ' ' or ',' or ';' or '.' or ':' or '(';
            if (begins && letters >= ShortestTitle && Read(line, line[at - 1] == '(' ? at - 1 : at) is { } tail)
                return tail;
        }
        return null;
    }

    private static SourceTail? Read(string line, int start)
    {
        string? volume = null,
            issue = null,
            first = null,
            last = null;
        for (var at = start; at < line.Length; )
        {
            var between = Between().Match(line, at);
            at += between.Length;
            if (at == line.Length)
                break;
            var token = Token().Match(line, at);
            if (!token.Success)
                return null;
            string? Group(string name) => token.Groups[name] is { Success: true, Value.Length: > 0 } g ? g.Value : null;
            // What is told twice is not understood.
            if (
                (volume is not null && Group("volume") is not null)
                || (issue is not null && Group("issue") is not null)
                || (first is not null && Group("first") is not null)
            )
                return null;
            (volume, issue, first, last) = (
                volume ?? Group("volume"),
                issue ?? Group("issue"),
                first ?? Group("first"),
                last ?? Group("last")
            );
            at += token.Length;
        }
        return volume is null && first is null ? null : new(start, volume, issue, first, last);
    }

    [GeneratedRegex(@"\G[\s,;.·|()]*", RegexOptions.CultureInvariant)]
    private static partial Regex Between();

    // In this order: labelled numbers; 12(3); the year with its month; 12:3; 45-67; 12 before pages; :45; an ISSN; the
    // title of an issue.
    [GeneratedRegex(
        @"\G(?:(?:vol(?:ume|umen|\.)?|v\.|bd\.?|band|jg\.?|jahrgang|tome|tomo"
            + @"|t\.)\s*:?\s*(?<volume>\d[\dA-Z]{0,6}"
            + @"|[IVXLC]{1,8}\b)(?:\s*\((?<issue>[A-Z]{0,3}\d[\dA-Z]{0,4}(?:[-/–]\d{1,4})?)\))?"
            + @"|(?:no|nr|n°|nº|n\.|num(?:ber|ero)?|núm(?:ero)?|issue|iss|heft|h\."
            + @"|fasc)\.?\s*:?\s*(?<issue>[A-Z]{0,3}\d[\dA-Z]{0,4}(?:[-/–]\d{1,4})?)"
            + @"|(?:pp?\b\.?|pages?|seiten?|s\.|págs?\.?"
            + @"|páginas?)\s*:?\s*(?<first>[A-Za-z]?\d{1,7})(?:\s*[-–—]\s*(?<last>[A-Za-z]?\d{1,7}))?"
            + @"|(?:art(?:icle|ikel)?\.?)\s*(?:no\.?|id|number|nr\.?)?\s*:?\s*(?<first>[A-Za-z]{0,4}\d{1,9})"
            + @"|(?<volume>\d{1,4})\s*\((?<issue>[A-Z]{0,3}\d[\dA-Z]{0,4}(?:[-/–]\d{1,4})?)\)(?!\s*\()"
            + @"|(?:\d{1,2}\s+)?(?:(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec|winter|spring|summer"
            + @"|autumn|fall)[a-z.]*[\s/-]*){0,2}\(?(?:1[5-9]|20)\d{2}\)?(?![\d-–])"
            + @"|(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]{0,6}\.?(?:\s+\d{1,2}(?!\d|\())?(?=\W)"
            + @"|(?<volume>\d{1,4})\s*:\s*(?<issue>\d{1,3})(?=\s*[(,;.]|\s+\d)(?!\s*[-–])"
            + @"|:?\s*(?<first>[A-Za-z]?\d{1,7})\s*[-–—]\s*(?<last>[A-Za-z]?\d{1,7})"
            + @"|(?<volume>\d{1,4})(?=\s*[:,;(]\s*(?:pp?\.?\s*|[12]\d{3}\)?[,;:]?\s*)?[A-Za-z]?\d)"
            + @"|:\s*(?<first>[A-Za-z]?\d{1,7})\b"
            + @"|(?:e-?|p-?|print |online )?issn(?:-l)?\s*:?\s*\d{4}-\d{3}[\dXx]"
            + @"|:[^;:\d][^;:]{0,80}(?=;))",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Token();
}
