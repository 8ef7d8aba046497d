using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Records;

namespace Zendle.Core.Citing;

/// <summary>
/// Puts line ends back where a copy lost them: between list elements of a web page, before each running number of a
/// numbered list, behind each DOI, and before the people of the next reference.
/// </summary>
/// <remarks>
/// A line is only cut where both parts could be references of their own. O(length): the one pattern that could go back
/// and forth does not backtrack.
/// </remarks>
internal static partial class RunTogether
{
    private const int ShortestReference = 30;

    /// <summary>The text with a line end between the references that stand on one line.</summary>
    public static string BrokenUp(string text)
    {
        if (Elements().Count(text) >= 2)
            text = Markup.ToText(Elements().Replace(text, "\n"));
        var broken = new StringBuilder(text.Length + 64);
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
        {
            if (broken.Length > 0)
                broken.Append('\n');
            broken.Append(
                line.Length < 2 * ShortestReference
                    ? line
                    : string.Join('\n', Numbered(line).SelectMany(ByDois).SelectMany(ByPeople))
            );
        }
        return broken.ToString();
    }

    /// <summary>Parts of a line that begins with a number of a list and has the numbers that follow in it.</summary>
    private static IEnumerable<string> Numbered(string line)
    {
        var first = FirstNumber().Match(line);
        if (!first.Success)
            return [line];
        var (open, close) = (first.Groups["open"].Value, first.Groups["close"].Value);
        var number = int.Parse(first.Groups["number"].Value, CultureInfo.InvariantCulture);
        var (parts, from) = (new List<string>(), 0);
        var years = new NextYear(line);
        for (var n = 1; n <= PastedReferences.Most; n++)
        {
            var next = string.Create(CultureInfo.InvariantCulture, $" {open}{number + n}{close} ");
            var at = line.IndexOf(next, from + 1, StringComparison.Ordinal);
            while (at >= 0 && !(IsBetween(line, at, at + next.Length) && (open.Length > 0 || years.From(from) < at)))
                at = line.IndexOf(next, at + 1, StringComparison.Ordinal);
            if (at < 0)
                break;
            parts.Add(line[from..at]);
            from = at + 1;
        }
        parts.Add(line[from..]);
        return parts;
    }

    /// <summary>
    /// Whether a number stands between two references: the one before it is at its end, the next begins with a name or a
    /// title. "Part 2. Lamps" and "lamps [8] and moths" hold no such number.
    /// </summary>
    private static bool IsBetween(string line, int at, int behind)
    {
        if (behind >= line.Length || !(char.IsUpper(line[behind]) || line[behind] is '“' or '"' or '‘' or '\''))
            return false;
        var word = line.AsSpan((line.LastIndexOf(' ', at - 1) + 1)..at);
        return word.Length > 0 && ((!char.IsLetter(word[^1]) && word[^1] != ',') || word.Contains('/'));
    }

    /// <summary>Where the next year stands in a line, asked for from left to right: every sign is looked at once.</summary>
    private sealed class NextYear(string line)
    {
        private int at = -1;

        /// <summary>The place of the first year from a place on; behind the line where there is none.</summary>
        public int From(int from)
        {
            if (at < from)
                at = PastedReferences.FreeYear().Match(line, from) is { Success: true } year ? year.Index : line.Length;
            return at;
        }
    }

    /// <summary>Parts of a line, each up to a DOI other than the one before.</summary>
    private static IEnumerable<string> ByDois(string line)
    {
        var (from, last, end) = (0, (string?)null, 0);
        foreach (Match found in Dois().Matches(line))
        {
            var doi = Identifiers.Doi(found.Value);
            if (doi is null)
                continue;
            if (last is not null && doi != last)
            {
                yield return line[from..end];
                from = end + (line.Length - end - line.AsSpan(end).TrimStart(" .,;)]").Length);
            }
            (last, end) = (doi, found.Index + found.Length);
        }
        yield return line[from..];
    }

    /// <summary>Parts of a line, each from the people of one reference to those of the next.</summary>
    private static IEnumerable<string> ByPeople(string line)
    {
        var (from, years) = (0, new NextYear(line));
        foreach (Match found in NextPeople().Matches(line))
        {
            var at = found.Groups["people"].Index;
            if (at - from < ShortestReference || line.Length - at < ShortestReference)
                continue;
            // Each of the two has its year.
            if (years.From(from) >= at || years.From(at) >= line.Length)
                continue;
            yield return line[from..at].TrimEnd();
            from = at;
        }
        yield return line[from..];
    }

    [GeneratedRegex(@"</?(?:li|p|br|div|tr)\b[^<>]{0,300}>", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Elements();

    [GeneratedRegex(
        @"^\s*(?:(?<open>\[)(?<number>\d{1,4})(?<close>\])|(?<open>\()(?<number>\d{1,3})(?<close>\))|(?<number>\d{1,4})(?<close>\.))\s",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex FirstNumber();

    [GeneratedRegex(@"(?<![\d.])10\.\d{4,9}(?:/|%2[Ff])(?:(?!,10\.\d{4})[^\s""<>;])+", RegexOptions.CultureInvariant)]
    private static partial Regex Dois();

    private const string Family = @"\p{Lu}[\p{L}'’-]+(?: \p{Lu}[\p{L}'’-]+)?";

    /// <summary>"Berg, M. K., &amp; Lind, P. (2019)" or "Berg MK, Lind P. Lamps", behind the end of a sentence.</summary>
    [GeneratedRegex(
        @"[.)\]”\d] (?<people>"
            + Family
            + @", \p{Lu}\.(?:[ -]?\p{Lu}\.)*(?:(?:, (?:& |and )?| & | and |; )"
            + Family
            + @", \p{Lu}\.(?:[ -]?\p{Lu}\.)*)*(?:,? et al\.)?,? \((?:1[89]|20)\d\d[a-z]?\)"
            + @"|"
            + Family
            + @" \p{Lu}{1,3}(?:, "
            + Family
            + @" \p{Lu}{1,3})*(?:,? et al)?\. \p{Lu})",
        RegexOptions.CultureInvariant | RegexOptions.NonBacktracking
    )]
    private static partial Regex NextPeople();
}
