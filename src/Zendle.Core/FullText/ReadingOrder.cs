using System.Text.RegularExpressions;

namespace Zendle.Core.FullText;

/// <summary>A line in the order of reading.</summary>
/// <param name="Line">The line.</param>
/// <param name="Column">Its column, from 0; what stands over both belongs to the first.</param>
public readonly record struct ReadLine(PlacedLine Line, int Column);

/// <summary>
/// Puts the lines of a document in the order they are read in: column after column where a page has two, whatever order
/// they were drawn in; without running heads and page numbers.
/// </summary>
public static partial class ReadingOrder
{
    private const int FewestOfAColumn = 4,
        EdgeLines = 2,
        LongestPageNumber = 8;
    private const double ShareInColumns = 0.6,
        ShareOfPages = 0.4,
        Slack = 3,
        Apart = 1.3;

    /// <summary>The lines in order. O(n log n).</summary>
    /// <param name="lines">All lines, page after page, as they were drawn.</param>
    public static IReadOnlyList<ReadLine> Of(IReadOnlyList<PlacedLine> lines)
    {
        var pages = lines.GroupBy(l => l.Page).OrderBy(g => g.Key).Select(g => g.ToArray()).ToArray();
        var edges = Edges(pages);
        return [.. pages.SelectMany(p => OfPage([.. p.Where(l => !edges.Contains(l))]))];
    }

    /// <summary>
    /// Running heads and feet: what stands at the edge of several pages, digits aside, and page numbers by themselves.
    /// </summary>
    private static HashSet<PlacedLine> Edges(PlacedLine[][] pages)
    {
        // A heading may stand at the top of a page, and again where its part goes on.
        var outer = pages
            .SelectMany(Outer)
            .Where(l => !(l.Bold && ReferenceSection.HeadsSomethingElse(l.Text)))
            .ToArray();
        var heads = outer.Select(AtItsHeight).Where(h => h.Text.Any(char.IsLetter)).ToHashSet();
        // A page of few lines does not show that its head stands apart; another page does.
        var often = pages
            .SelectMany(p => p)
            .Where(l => heads.Contains(AtItsHeight(l)))
            .GroupBy(l => AtItsHeight(l).Text)
            .Where(g => g.Select(l => l.Page).Distinct().Count() >= Math.Max(2, pages.Length * ShareOfPages))
            .SelectMany(g => g);
        var numbers = outer.Where(l => l.Text.Length <= LongestPageNumber && PageNumber().IsMatch(l.Text));
        return new(often.Concat(numbers), ReferenceEqualityComparer.Instance);
    }

    private static (string Text, double Base) AtItsHeight(PlacedLine line) =>
        (Digits().Replace(line.Text, "#").Trim().ToUpperInvariant(), Math.Round(line.Base));

    /// <summary>The first and the last lines of a page, as far as they stand apart from the rest of it.</summary>
    private static IEnumerable<PlacedLine> Outer(PlacedLine[] page)
    {
        var heights = page.Select(l => Math.Round(l.Base)).Distinct().OrderDescending().ToArray();
        if (heights.Length < 2)
            return page;
        var gaps = heights.Zip(heights.Skip(1), (upper, lower) => upper - lower).ToArray();
        var apart = gaps.Order().ElementAt(gaps.Length / 2) * Apart;
        var outer = new HashSet<double>();
        for (var lines = EdgeLines; lines > 0 && gaps.Length > lines; lines--)
        {
            if (gaps[lines - 1] > apart)
                outer.UnionWith(heights[..lines]);
            if (gaps[^lines] > apart)
                outer.UnionWith(heights[^lines..]);
        }
        return page.Where(l => outer.Contains(Math.Round(l.Base)));
    }

    private static IEnumerable<ReadLine> OfPage(PlacedLine[] page)
    {
        if (page.Length == 0)
            return [];
        var middle = (page.Min(l => l.Left) + page.Max(l => l.Right)) / 2;
        int SideOf(PlacedLine l) =>
            l.Right <= middle + Slack ? 0
            : l.Left >= middle - Slack ? 1
            : -1;
        var sides = Array.ConvertAll(page, SideOf);
        var (left, right) = (sides.Count(s => s == 0), sides.Count(s => s == 1));
        if (
            left < FewestOfAColumn
            || right < FewestOfAColumn
            || left + right < page.Length * ShareInColumns
            || left * FewestOfAColumn < right
        )
            return page.Select(l => new ReadLine(l, right > 0 && SideOf(l) == 1 ? 1 : 0));
        // What goes over both columns parts the page into bands; each is read left column first.
        var ordered = new List<ReadLine>(page.Length);
        var band = new List<PlacedLine>();
        foreach (var line in page.OrderByDescending(l => Math.Round(l.Base)).ThenBy(l => l.Left))
        {
            if (SideOf(line) >= 0)
            {
                band.Add(line);
                continue;
            }
            Finish();
            ordered.Add(new(line, 0));
        }
        Finish();
        return ordered;

        void Finish()
        {
            foreach (var side in (int[])[0, 1])
                ordered.AddRange(band.Where(l => SideOf(l) == side).Select(l => new ReadLine(l, side)));
            band.Clear();
        }
    }

    [GeneratedRegex(@"\d+", RegexOptions.CultureInvariant)]
    private static partial Regex Digits();

    [GeneratedRegex(@"^\W*(?:\d{1,5}|[ivxlc]{1,7})\W*$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex PageNumber();
}
