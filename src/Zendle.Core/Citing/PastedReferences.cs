using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.Citing;

/// <summary>
/// Splits a list of references as people paste it into its entries: one a line, or over several lines; numbered, with
/// bullets, with the line numbers of a manuscript, with blank lines between, with words divided at line ends, with two
/// columns side by side.
/// </summary>
/// <remarks>What an entry is made of is not looked at here. O(length).</remarks>
public static partial class PastedReferences
{
    /// <summary>More entries than this are not taken at once.</summary>
    public const int Most = 3_000;

    /// <summary>A longer text than this is no list of references, in characters.</summary>
    public const int MostCharacters = 1_500_000;

    /// <summary>An entry is cut after so many characters: a page of text is no reference.</summary>
    public const int LongestEntry = 2_000;

    private const int FewestTitles = 3;

    private const double MostLines = 0.8,
        FewYears = 0.1,
        EnoughColumns = 0.6,
        EnoughWidth = 0.75,
        EnoughIndented = 0.25,
        EnoughBlocks = 1.3,
        LinesOfABroken = 1.8;

    private const int DeepestIndent = 8,
        NarrowestColumn = 16,
        MostLinesOfOne = 8,
        MostMissing = 3,
        ShortestReference = 40,
        FewestStops = 3,
        WidestPage = 120,
        FewestOfAStyle = 4;

    /// <summary>The entries of a pasted list, in its order, each on one line; at most <see cref="Most"/>.</summary>
    public static IReadOnlyList<string> Split(string text) => [.. Laid(text).Select(e => e.Text)];

    /// <summary>
    /// The entries of a pasted list with the lines each was put together from: whoever knows works can tell where lines
    /// that look like one entry are several.
    /// </summary>
    public static IReadOnlyList<PastedEntry> Laid(string text)
    {
        var lines = RunTogether
            .BrokenUp(text[..Math.Min(text.Length, MostCharacters)].Replace("\u00AD", "", StringComparison.Ordinal))
            .ReplaceLineEndings("\n")
            .Split('\n')
            .Select(l => l.TrimEnd())
            .ToList();
        if (AreRows(lines))
            return
            [
                .. lines.Select(l => Tabs().Replace(l.Trim(), ". ")).Where(IsEntry).Select(PastedEntry.Of).Take(Most),
            ];
        lines = [.. WithoutLineNumbers(OneColumn(lines)).Where(l => !Heading().IsMatch(l.Trim()))];
        return
        [
            .. Entries(lines)
                .Select(e => new PastedEntry(
                    Joined(e.Lines),
                    e.IsMarked || IsReference(e.Lines) ? [] : [.. e.Lines.Select(l => l.Trim())]
                ))
                .Where(e => IsEntry(e.Text))
                .Select(e => e.Text.Length > LongestEntry ? e with { Text = e.Text[..LongestEntry] } : e)
                .Take(Most),
        ];
    }

    /// <summary>Whether an entry begins with names, as titles in capitals do too, and has a year, as those have not.</summary>
    private static bool IsReference(List<string> lines) => Begins(lines[0]) && lines.Exists(l => FreeYear().IsMatch(l));

    private static bool IsEntry(string text) => text.Count(char.IsLetter) >= 3 || IsIdentifier(text);

    /// <summary>Whether lines are the rows of a table: as many tabs in each, two or more.</summary>
    private static bool AreRows(List<string> lines)
    {
        var tabs = lines.Where(l => l.Trim().Length > 0).Select(l => l.Trim().Count(c => c == '\t')).ToArray();
        return tabs.Length > 1 && tabs[0] >= 2 && Array.TrueForAll(tabs, t => t == tabs[0]);
    }

    /// <summary>
    /// Whether a line looks like references rather than like words to search for: long, with the stops of one, a year or
    /// an identifier, and no operators.
    /// </summary>
    public static bool LooksLikeSome(string line) =>
        line.Length >= ShortestReference
        && line.Count(c => c is '.' or ',' or ';' or ':') >= FewestStops
        && (FreeYear().IsMatch(line) || Identifiers.Doi(line) is not null)
        && !Operator().IsMatch(line);

    /// <summary>Whether a line is an identifier or an address and little else.</summary>
    private static bool IsIdentifier(string line) =>
        TypedIdentifier.Of(line) is { Kind: not (IdentifierKind.Issn or IdentifierKind.Orcid) };

    /// <summary>Two columns that a copy laid side by side, a wide gap at about the same place between them, one after the other.</summary>
    private static List<string> OneColumn(List<string> lines)
    {
        var full = lines.Where(l => l.Trim().Length > 0).ToArray();
        var gaps = full.Select(GapOf).ToArray();
        if (full.Length < 4 || gaps.Count(g => g > 0) < full.Length * EnoughColumns)
            return lines;
        var middle = gaps.Where(g => g > 0).Order().ElementAt(gaps.Count(g => g > 0) / 2);
        // Where the right column begins; lines of a hanging indent begin a little behind it.
        var at = gaps.Where(g => Math.Abs(g - middle) <= DeepestIndent).Min();
        List<string> left = [],
            right = [];
        foreach (var line in lines)
        {
            var indent = line.Length - line.TrimStart().Length;
            if (Math.Abs(GapOf(line) - at) <= DeepestIndent)
            {
                left.Add(line[..at].TrimEnd());
                right.Add(line[at..]);
            }
            else if (indent >= at)
                right.Add(line[at..]);
            else
                left.Add(line);
        }
        return [.. left, .. right];
    }

    /// <summary>Where a line goes on behind a wide gap; 0 when it has none.</summary>
    private static int GapOf(string line)
    {
        var indent = line.Length - line.TrimStart().Length;
        var gap = WideGap().Match(line, indent);
        return gap.Success && gap.Index + gap.Length >= indent + NarrowestColumn ? gap.Index + gap.Length : 0;
    }

    /// <summary>Without the running numbers that a manuscript prints before each line.</summary>
    private static List<string> WithoutLineNumbers(List<string> lines)
    {
        var numbers = lines
            .Where(l => l.Trim().Length > 0)
            .Select(l => LineNumber().Match(l))
            .Select(m => m.Success ? int.Parse(m.Groups[1].Value, CultureInfo.InvariantCulture) : -1)
            .ToArray();
        var consecutive = numbers.Zip(numbers.Skip(1)).Count(p => p.First >= 0 && p.Second == p.First + 1);
        return numbers.Length >= 4 && consecutive >= (numbers.Length - 1) * MostLines
            ? [.. lines.Select(l => LineNumber().Replace(l, "", 1))]
            : lines;
    }

    /// <summary>The lines of each entry, and whether the list has marks of its own that tell where it begins.</summary>
    private static IEnumerable<(List<string> Lines, bool IsMarked)> Entries(List<string> lines)
    {
        var full = lines.Where(l => l.Trim().Length > 0).ToArray();
        if (full.Length == 0)
            yield break;
        var width = lines.Max(l => l.Length);
        // Markers tell best; then a hanging indent; then blank lines, when they stand between most; then how lines begin.
        var marked = Marked(lines);
        var byMarkers = AreOfAList(marked, lines, full);
        var indented = full.Count(IsIndented);
        var byIndent = !byMarkers && !IsIndented(full[0]) && indented >= 2 && indented >= full.Length * EnoughIndented;
        var blocks = lines.Prepend("").Zip(lines).Count(p => p.First.Trim().Length == 0 && p.Second.Trim().Length > 0);
        var byBlanks =
            !byMarkers
            && !byIndent
            && blocks > 1
            && full.Length > blocks
            && full.Length <= blocks * MostLinesOfOne
            && full.Count(l => NameFirst().IsMatch(l)) <= blocks * EnoughBlocks;
        var areTitles = !byMarkers && !byIndent && !byBlanks && AreTitles(full);
        var style = width <= WidestPage ? StyleOf(full) : NameStyle.Unknown;
        var entry = new List<string>();
        for (var i = 0; i < lines.Count; i++)
        {
            var line = lines[i];
            var isBlank = line.Trim().Length == 0;
            var begins =
                byMarkers ? marked.Contains(i)
                : byIndent ? isBlank || !IsIndented(line)
                : byBlanks ? isBlank
                : areTitles ? true
                : isBlank || entry.Count == 0 || !GoesOn(entry, line, width, style);
            if (begins && entry.Count > 0)
            {
                yield return (entry, byMarkers || byIndent || byBlanks);
                entry = [];
            }
            var rest = byMarkers && begins ? Marker().Replace(line, "", 1) : line;
            if (rest.Trim().Length > 0)
                entry.Add(rest);
        }
        if (entry.Count > 0)
            yield return (entry, byMarkers || byIndent || byBlanks);
    }

    /// <summary>
    /// Whether markers are those of a list. A single one must stand first. Years at the beginnings of lines go up here and
    /// there, too; but few lines begin so, and the first does not.
    /// </summary>
    private static bool AreOfAList(HashSet<int> marked, List<string> lines, string[] full)
    {
        var isFirst = Marker().IsMatch(full[0]);
        return marked.Count < 2
            ? marked.Count == 1 && isFirst
            : full.Length <= marked.Count * MostLinesOfOne
                && (isFirst || !marked.All(i => FreeYear().IsMatch(Marker().Match(lines[i]).Value)));
    }

    /// <summary>
    /// Whether lines are titles, one each: each begins as a title does and none goes on, and hardly one has a year. What is
    /// broken at a margin has lines that begin with a small letter, and references have years.
    /// </summary>
    private static bool AreTitles(string[] full) =>
        full.Length >= FewestTitles
        && full.Count(l => FreeYear().IsMatch(l)) <= full.Length * FewYears
        && Array.TrueForAll(
            full,
            l =>
                l.TrimStart()[0] is var first
                && (char.IsUpper(first) || char.IsDigit(first) || first is '“' or '"' or '‘' or '\'' or '¿' or '¡')
                && !(l[^1] is ',' or '-' or '&' or ':' or ';')
        );

    private static bool IsIndented(string line) => line.Length >= line.TrimStart().Length + 2;

    /// <summary>
    /// The lines that begin with a marker of the list: numbers that go up, or bullets. A number that stands at the beginning
    /// of a line by chance is none of them.
    /// </summary>
    private static HashSet<int> Marked(List<string> lines)
    {
        var markers = lines
            .Select((l, i) => (Line: i, Marker: Marker().Match(l)))
            .Where(m => m.Marker.Success)
            .Select(m =>
                (
                    m.Line,
                    Kind: m.Marker.Value.Trim() is [var open, .., var close]
                        ? (char.IsDigit(open) ? ' ' : open, char.IsDigit(close) ? ' ' : close)
                        : (' ', ' '),
                    Number: int.TryParse(m.Marker.Groups["number"].Value, CultureInfo.InvariantCulture, out var n)
                        ? n
                        : -1
                )
            )
            .ToArray();
        HashSet<int> best = [.. markers.Where(m => m.Number < 0).Select(m => m.Line)];
        // A list writes its numbers in one way. Any of the first may be the one that stands there by chance.
        foreach (var alike in markers.GroupBy(m => m.Kind).Select(g => g.ToArray()))
            for (var start = 0; start < Math.Min(3, alike.Length); start++)
            {
                var (run, last) = (new HashSet<int>(), 0);
                foreach (var (line, _, number) in alike[start..])
                    if (number >= 0 && (run.Count == 0 || (number > last && number <= last + MostMissing)))
                    {
                        run.Add(line);
                        last = number;
                    }
                if (run.Count > best.Count)
                    best = run;
            }
        return best;
    }

    /// <summary>Whether a line goes on with the entry that the line before it belongs to.</summary>
    /// <param name="entry">The entry so far.</param>
    /// <param name="line">The line.</param>
    /// <param name="width">How wide the widest line is.</param>
    /// <param name="style">How the list writes the first name of an entry, where its lines are broken at a margin.</param>
    private static bool GoesOn(List<string> entry, string line, int width, NameStyle style)
    {
        var before = entry[^1];
        var (end, start) = (before.TrimEnd(), line.TrimStart());
        if (IsIdentifier(start) && IsIdentifier(end))
            return false;
        // What was cut short goes no further.
        if (end.EndsWith('…') || end.EndsWith("...", StringComparison.Ordinal))
            return false;
        // A line that was broken at the margin is about as wide as the widest; one that ends sooner is an entry's last.
        var isWide = before.Length >= width * EnoughWidth;
        if (WhereItIs().IsMatch(start) && !IsIdentifier(end))
            return true;
        // In one list names are written in one way; "Quillmere Press, 2010" at a margin is no name.
        if (Begins(start) && !(isWide && style != NameStyle.Unknown && StyleOf(start) != style))
            // People go on over a margin too: an entry without any year is not at its end.
            return isWide && !entry.Exists(l => FreeYear().IsMatch(l));
        if (end.EndsWith('-') || end.EndsWith(',') || end.EndsWith('&') || end.EndsWith(':') || end.EndsWith(';'))
            return true;
        if (char.IsLower(start[0]) || char.IsDigit(start[0]) || start[0] is '(' or '&')
            return true;
        return isWide
            && (style != NameStyle.Unknown || !(end.EndsWith('.') && entry.Exists(l => FreeYear().IsMatch(l))));
    }

    /// <summary>How a list writes the first name of an entry.</summary>
    private enum NameStyle
    {
        Unknown,
        Capitals,
        Comma,
        InitialsBehind,
    }

    /// <summary>
    /// The one way in which a list that is broken at a margin writes first names; unknown for a short list, for one of
    /// mixed styles, and for one whose entries stand on a line each.
    /// </summary>
    private static NameStyle StyleOf(string[] lines)
    {
        var styles = lines.Select(StyleOf).Where(s => s != NameStyle.Unknown).ToArray();
        if (styles.Length < FewestOfAStyle || lines.Length < styles.Length * LinesOfABroken)
            return NameStyle.Unknown;
        var (style, count) = styles.CountBy(s => s).MaxBy(s => s.Value);
        return count >= styles.Length * MostLines ? style : NameStyle.Unknown;
    }

    private static NameStyle StyleOf(string line) =>
        line.TrimStart() is var start && CapitalsFirst().IsMatch(start) ? NameStyle.Capitals
        // Before a comma: "Berg CD, Lind A" has no given name "Lind".
        : InitialsBehind().IsMatch(start) ? NameStyle.InitialsBehind
        : Comma().IsMatch(start) ? NameStyle.Comma
        : NameStyle.Unknown;

    /// <summary>Whether a line begins like a reference: with a family name and initials, or a name and a year.</summary>
    internal static bool Begins(string line) => Beginning().IsMatch(line);

    /// <summary>The lines of an entry as one; a word that was divided at a line's end is whole again.</summary>
    private static string Joined(List<string> lines)
    {
        var joined = new StringBuilder();
        foreach (var line in lines)
            BrokenLines.Add(joined, line.Trim());
        return Blanks().Replace(joined.ToString(), " ").Trim();
    }

    [GeneratedRegex(@"\b(?:AND|OR|NOT|NEAR)\b|\w:\(", RegexOptions.CultureInvariant)]
    private static partial Regex Operator();

    [GeneratedRegex(@"\.?\t+", RegexOptions.CultureInvariant)]
    private static partial Regex Tabs();

    [GeneratedRegex(@"\s+", RegexOptions.CultureInvariant)]
    private static partial Regex Blanks();

    [GeneratedRegex(@"[ \u00A0]{3,}|\t+", RegexOptions.CultureInvariant)]
    private static partial Regex WideGap();

    [GeneratedRegex(@"^\s{0,8}(\d{1,5})\s{1,8}(?=\S)", RegexOptions.CultureInvariant)]
    private static partial Regex LineNumber();

    [GeneratedRegex(
        @"^\s*(?:\[(?<number>\d{1,4})\]|\((?<number>\d{1,3})\)|(?<number>\d{1,4})(?:[.)](?=\s|\p{Lu})|(?=\s+\p{Lu}))"
            + @"|[\u2022\u00B7\u25AA\u25CF\u2013*-](?=\s))\s*",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Marker();

    private const string Name =
        @"^\s*(?:(?:van|von|de|der|den|di|da|dos|la|le|el|al|ten|ter)[ '\u2019-])*\p{Lu}[\p{L}'\u2019.-]+(?: \p{Lu}[\p{L}'\u2019-]+){0,4}";

    [GeneratedRegex(@"^\p{Lu}[\p{Lu}'\u2019-]{2,}(?: \p{Lu}[\p{Lu}'\u2019-]+)*,", RegexOptions.CultureInvariant)]
    private static partial Regex CapitalsFirst();

    /// <summary>Initials or given names: of some people only initials are known.</summary>
    [GeneratedRegex(Name + @", \p{Lu}[.\p{Ll}]", RegexOptions.CultureInvariant)]
    private static partial Regex Comma();

    [GeneratedRegex(Name + @" \p{Lu}(?:-?\p{Lu}){0,3}(?:[.,;:]|$| \()", RegexOptions.CultureInvariant)]
    private static partial Regex InitialsBehind();

    [GeneratedRegex(Name + @",? \p{Lu}(?:\.|\p{Lu}{0,3}[.,;: ])", RegexOptions.CultureInvariant)]
    private static partial Regex NameFirst();

    [GeneratedRegex(
        Name + @"(?:,? \p{Lu}(?:\.|\p{Lu}{0,3}[.,;: ])|, \p{Lu}[\p{L}-]+|[,.]? \(?\d{4}| et al)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Beginning();

    /// <summary>Where the work is to be had stands at the end of an entry, never at its beginning.</summary>
    [GeneratedRegex(
        @"^(?:(?:available|retrieved|accessed|online|downloaded)\b|https?://|doi:)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex WhereItIs();

    [GeneratedRegex(
        @"^(?:references?|bibliography|literature(?: cited)?|works cited)\s*:?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Heading();

    [GeneratedRegex(@"(?<!\d)(?:1[89]|20)\d\d(?!\d)", RegexOptions.CultureInvariant)]
    internal static partial Regex FreeYear();
}
