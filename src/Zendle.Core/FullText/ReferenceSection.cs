using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Citing;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>The reference lists of a document.</summary>
/// <param name="Entries">Their entries in order, each once.</param>
/// <param name="At">The lines of each list with its heading, among those in the order of reading.</param>
/// <param name="IsNumbered">Whether it is one list whose entries have numbers, from 1.</param>
public sealed record FoundLists(IReadOnlyList<string> Entries, IReadOnlyList<Range> At, bool IsNumbered)
{
    /// <summary>Of each line of the document, whether it stands in one of the lists.</summary>
    /// <param name="lines">How many lines it has.</param>
    public bool[] Listed(int lines)
    {
        var listed = new bool[lines];
        foreach (var range in At)
            listed.AsSpan(range).Fill(true);
        return listed;
    }
}

/// <summary>
/// Finds the reference lists of a document and splits them into their entries, by heading, type size, indent and
/// distance of lines. A thesis or a book may have a list for each chapter.
/// </summary>
public static partial class ReferenceSection
{
    private const int LinesThatTellTheSize = 12,
        LongestHeading = 90,
        WidestIndent = 8,
        FewestOfAColumn = 4,
        LargestHanging = 60,
        FewestLetters = 8;
    private const double SameSize = 0.6,
        SameStyle = 0.3,
        LargerHeading = 0.4,
        HigherRank = 1,
        MuchLarger = 1.3,
        NoIndent = 1.5,
        WidthOfABlank = 0.35,
        WideGap = 1.3,
        ShareThatLooksLikeReferences = 0.5,
        ShareThatIsNumbered = 0.8;

    /// <summary>The entries of all lists of a document, in order, each once; empty when it has none. O(n log n).</summary>
    /// <param name="lines">Its lines in the order of reading.</param>
    public static IReadOnlyList<string> In(IReadOnlyList<ReadLine> lines) => Read(lines).Entries;

    /// <summary>The lists of a document, and where they stand in it. O(n log n).</summary>
    /// <param name="lines">Its lines in the order of reading.</param>
    public static FoundLists Read(IReadOnlyList<ReadLine> lines)
    {
        var (found, at, numbered) = (new List<string>(), new List<Range>(), 0);
        for (var i = 0; i < lines.Count; i++)
        {
            if (!DocumentFacts.IsReferencesHead(lines[i].Line.Text))
                continue;
            var (list, end) = ListUnder(lines, i);
            IReadOnlyList<string> entries = [.. PastedReferences.Split(Laid(list)).Where(e => e.Any(char.IsLetter))];
            string[] alike = [.. entries.Where(LooksLikeOne)];
            // The word may stand in a table of contents, or head something else.
            if (alike.Length <= entries.Count * ShareThatLooksLikeReferences)
                continue;
            found.AddRange(alike);
            at.Add(i..end);
            if (list.Count(l => Numbered().IsMatch(l.Line.Text)) >= entries.Count * ShareThatIsNumbered)
                numbered++;
            i = end - 1;
        }
        IReadOnlyList<string> all = [.. found.Distinct(StringComparer.Ordinal).Take(PastedReferences.Most)];
        // A number of one chapter's list says nothing in another's.
        return new(all, at, at.Count == 1 && numbered == 1 && all.Count == found.Count);
    }

    private static (List<ReadLine> List, int End) ListUnder(IReadOnlyList<ReadLine> lines, int heading)
    {
        var head = lines[heading].Line;
        var sizes = lines
            .Skip(heading + 1)
            .Take(LinesThatTellTheSize)
            .Select(l => Math.Round(l.Line.Size * 2))
            .ToArray();
        if (sizes.Length == 0)
            return ([], heading + 1);
        var size = sizes.CountBy(s => s).MaxBy(s => s.Value).Key / 2;
        var headStandsOut = head.Bold || head.Size > size + LargerHeading;
        var list = new List<ReadLine>();
        var end = heading + 1;
        for (; end < lines.Count; end++)
        {
            var l = lines[end].Line;
            if (DocumentFacts.IsReferencesHead(l.Text) || IsOfHigherRank(l, head, size))
                break;
            var standsOut = l.Bold || l.Size > size + LargerHeading;
            if (
                l.Text.Length <= LongestHeading
                && (
                    HeadsSomethingElse(l.Text) && (standsOut || JustAHeading().IsMatch(l.Text))
                    || (
                        headStandsOut
                        && l.Bold == head.Bold
                        && Math.Abs(l.Size - head.Size) <= SameStyle
                        && char.IsLetterOrDigit(l.Text[0])
                    )
                )
            )
                break;
            // Captions and cells of tables that stand between the entries are of another size.
            if (Math.Abs(l.Size - size) <= SameSize)
                list.Add(lines[end]);
        }
        return (list, end);
    }

    /// <summary>
    /// Whether a line is a heading above that of the list: the title of the next chapter of a book, which follows at once where
    /// nothing stands between.
    /// </summary>
    private static bool IsOfHigherRank(PlacedLine line, PlacedLine head, double size) =>
        line.Size > head.Size + HigherRank
        && line.Size > size * MuchLarger
        && line.Text.Count(char.IsLetter) >= FewestLetters;

    /// <summary>The lines as text: what is indented begins with blanks, a wide gap is an empty line.</summary>
    private static string Laid(List<ReadLine> list)
    {
        var edges = LeftEdges(list);
        var gaps = list.Zip(list.Skip(1))
            .Where(p => IsSameColumn(p.First, p.Second))
            .Select(p => p.First.Line.Base - p.Second.Line.Base)
            .Where(g => g > 0)
            .Order()
            .ToArray();
        var usual = gaps.Length == 0 ? double.MaxValue : gaps[gaps.Length / 3];
        var text = new StringBuilder();
        for (var i = 0; i < list.Count; i++)
        {
            var line = list[i].Line;
            var indent = line.Left - edges[ColumnOf(list[i])];
            if (i > 0 && (IsSameColumn(list[i - 1], list[i]) ? IsFar(i) : indent < NoIndent && MayBegin(i)))
                text.Append('\n');
            if (indent >= NoIndent)
                text.Append(' ', Math.Clamp((int)Math.Round(indent / (line.Size * WidthOfABlank)), 2, WidestIndent));
            text.Append(line.Text).Append('\n');
        }
        return text.ToString();

        bool IsFar(int i) => list[i - 1].Line.Base - list[i].Line.Base > usual * WideGap;

        // Over the end of a column nobody sees how far two lines are apart.
        bool MayBegin(int i) =>
            list[i - 1].Line.Text is [.., '.' or ')' or (>= '0' and <= '9')]
            && PastedReferences.Begins(list[i].Line.Text);
    }

    private static (int Parity, int Column) ColumnOf(ReadLine line) => (line.Line.Page % 2, line.Column);

    private static bool IsSameColumn(ReadLine a, ReadLine b) => a.Line.Page == b.Line.Page && a.Column == b.Column;

    /// <summary>
    /// Where the lines of each column begin that are not indented: facing pages may have other margins. A column of a few
    /// lines may hold nothing but the rest of one entry, so it is told by the pages on the other side.
    /// </summary>
    private static Dictionary<(int Parity, int Column), double> LeftEdges(List<ReadLine> list)
    {
        var columns = list.GroupBy(ColumnOf)
            .ToDictionary(g => g.Key, g => g.Select(l => l.Line.Left).Order().ToArray());
        return columns.ToDictionary(
            c => c.Key,
            c =>
            {
                var own = Edge(c.Value);
                var facing = columns.GetValueOrDefault((1 - c.Key.Parity, c.Key.Column));
                return
                    c.Value.Length < FewestOfAColumn
                    && facing is { Length: >= FewestOfAColumn }
                    && own - Edge(facing) is > 0 and < LargestHanging and var off
                    ? own - off
                    : own;
            }
        );
    }

    /// <summary>The smallest beginning that is not one line's alone.</summary>
    private static double Edge(double[] lefts)
    {
        for (var i = 0; i + 1 < lefts.Length; i++)
            if (lefts[i + 1] - lefts[i] < NoIndent)
                return lefts[i];
        return lefts[0];
    }

    /// <summary>Whether a line heads a part of a document that is no list of references.</summary>
    internal static bool HeadsSomethingElse(string line) => EndsList().IsMatch(line);

    private static bool LooksLikeOne(string entry) =>
        Dated().IsMatch(entry) || Identifiers.Doi(entry) is not null || WebAddress().IsMatch(entry);

    [GeneratedRegex(
        @"^\W*(?:[A-Z0-9]{1,3}[.)]?\s+)?(?:append(?:ix|ices)|annex|supplement|supporting information|acknowledge?ments?"
            + @"|authors?['’]? (?:contribution|information|note|affiliation)|about the authors?|(?:data|code) availability"
            + @"|funding|(?:conflicts?|declaration|statement) of|competing interests?|ethic|abbreviations|glossary|index\b"
            + @"|figure (?:legend|caption)s?|list of (?:figures|tables)|tables?\b|figures?\b|fig\.)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex EndsList();

    [GeneratedRegex(
        @"^\s*(?:\[\d{1,4}\]|\(\d{1,3}\)|\d{1,4}[.)]?)\s*\p{Lu}",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Numbered();

    /// <summary>A line of a few words without what references have: no year, no comma, no full stop within.</summary>
    [GeneratedRegex(@"^[^,;:\d]{3,50}$", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex JustAHeading();

    [GeneratedRegex(
        @"(?<!\d)(?:1[5-9]|20)\d\d(?!\d)|\b(?:n\.\s?d\.|in press|forthcoming|submitted|accepted|o\.\s?J\.)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Dated();

    [GeneratedRegex(
        @"https?://\S{4,}",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex WebAddress();
}
