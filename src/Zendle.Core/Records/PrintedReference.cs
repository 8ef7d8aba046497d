using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>Takes from a printed reference what can be taken without doubt: DOI, year, first family name, title.</summary>
public static partial class PrintedReference
{
    /// <summary>Reads the common order "people (year). title. venue …"; parts that do not show are null.</summary>
    public static Reference Read(string text)
    {
        var doi = Identifiers.Doi(text);
        var match = Common().Match(text);
        if (!match.Success) return new(text, doi);
        var family = match.Groups["people"].Value.Split(',', 2)[0].Trim();
        return new(text, doi, match.Groups["title"].Value.Trim(), family.Length == 0 ? null : family, int.Parse(match.Groups["year"].Value, CultureInfo.InvariantCulture));
    }

    [GeneratedRegex(@"^(?<people>[^(]{1,400}?)\s*\((?<year>[12]\d{3})[a-z]?\)[.:,]?\s*(?<title>.+?)(?:[.?!]\s|\.?$)", RegexOptions.CultureInvariant, 200)]
    private static partial Regex Common();
}
