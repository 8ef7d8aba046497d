using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>
/// The lines of a document where the words of a title stand, and whether they stand there as a title: in lines of their
/// own, set apart or at the head of a page, not in running text, a list of references or a list of contents.
/// </summary>
/// <param name="Share">Share of the title's words that stand there in order, 0–1.</param>
/// <param name="FirstLine">First line, in the document's lines.</param>
/// <param name="LastLine">Last line.</param>
/// <param name="WhyNot">Why it does not stand there as a title; null when it does.</param>
internal sealed partial record FoundTitle(double Share, int FirstLine, int LastLine, string? WhyNot)
{
    /// <summary>
    /// Words of the lines that are not the title's: more than this, and the title is inside something else.
    /// </summary>
    private const double LeastOfItsLines = 0.6;

    /// <summary>So much larger than the running text is set apart.</summary>
    internal const double Larger = 1.12;

    /// <summary>Lines that may stand above a title: a running head, a label, a date.</summary>
    private const int MostAbove = 14,
        MostAbovePlain = 8;

    /// <summary>A word of the document with the line it stands in.</summary>
    internal readonly record struct Placed(string Word, int Line);

    /// <summary>
    /// The words of the lines in order. A word divided at the end of a line is one word when the title has it so.
    /// </summary>
    public static List<Placed> WordsOf(DocumentFacts facts, IReadOnlySet<string> whole)
    {
        var (words, lines) = (new List<Placed>(), facts.Lines);
        for (var i = 0; i < lines.Count; i++)
        {
            var ofLine = facts.LineWords[i];
            var from = 0;
            if (
                i > 0
                && ofLine.Count > 0
                && words.Count > 0
                && words[^1].Line == i - 1
                && Divided().IsMatch(lines[i - 1].Text)
                && whole.Contains(words[^1].Word + ofLine[0])
            )
            {
                words[^1] = words[^1] with { Word = words[^1].Word + ofLine[0] };
                from = 1;
            }
            for (var w = from; w < ofLine.Count; w++)
                words.Add(new(ofLine[w], i));
        }
        return words;
    }

    /// <summary>
    /// Where a title stands best: as a title before as anything else, then by how much of it stands there. O(words ·
    /// title²).
    /// </summary>
    /// <remarks>
    /// Where a part of it stands, its other words may stand there with a slip, of whoever wrote the record or read the page:
    /// so it is looked for once more with those taken for what they are.
    /// </remarks>
    /// <param name="facts">The document.</param>
    /// <param name="title">A title.</param>
    public static FoundTitle? Find(DocumentFacts facts, string title)
    {
        var wanted = Words.AsWritten(title).Take(60).ToArray();
        if (wanted.Length == 0)
            return null;
        var inTitle = wanted.ToHashSet(StringComparer.Ordinal);
        var words = WordsOf(facts, inTitle);
        var found = Find(facts, wanted, inTitle, words);
        if (found?.Share is not (>= DocumentCheck.Least and < DocumentCheck.Sure))
            return found;
        List<Placed> meant = [.. words.Select(w => w with { Word = WordRow.Meant(w.Word, inTitle) })];
        return Find(facts, wanted, inTitle, meant) is { } mended && mended.Share > found.Share ? mended : found;
    }

    private static FoundTitle? Find(DocumentFacts facts, string[] wanted, HashSet<string> inTitle, List<Placed> words)
    {
        var window = wanted.Length + wanted.Length / 2 + 1;
        FoundTitle? best = null;
        var row = new int[wanted.Length + 1];
        for (var start = 0; start < words.Count; start++)
        {
            // A window that does best begins with a word of the title.
            if (!inTitle.Contains(words[start].Word))
                continue;
            var (found, last) = Common(start, Math.Min(words.Count, start + window));
            var share = (double)found / wanted.Length;
            if (best is not null && (best.WhyNot is null || share < DocumentCheck.Sure) && share <= best.Share)
                continue;
            // A small word of the title may stand in the line above it: the window begins where the title does.
            var first = start;
            for (var next = start + 1; share >= DocumentCheck.Least && next < last; next++)
            {
                if (!inTitle.Contains(words[next].Word))
                    continue;
                if (Common(next, last + 1).Found < found)
                    break;
                first = next;
            }
            var whyNot = share < DocumentCheck.Least ? "" : WhyNoTitle(facts, words, first, last, found);
            if (best is not null && whyNot is not null && share <= best.Share)
                continue;
            if (best is { WhyNot: null } && best.Share >= DocumentCheck.Sure && whyNot is not null)
                continue;
            best = new(share, words[first].Line, words[last].Line, whyNot);
            if (share >= 1 && whyNot is null)
                break;
        }
        return best;

        // How many words of the title stand in order in a part of the text, and where the last of them is.
        (int Found, int Last) Common(int from, int until)
        {
            Array.Clear(row);
            var last = from;
            for (var i = from; i < until; i++)
            {
                if (!inTitle.Contains(words[i].Word))
                    continue;
                var (diagonal, had) = (0, row[wanted.Length]);
                for (var j = 1; j <= wanted.Length; j++)
                {
                    var above = row[j];
                    row[j] = words[i].Word == wanted[j - 1] ? diagonal + 1 : Math.Max(row[j], row[j - 1]);
                    diagonal = above;
                }
                if (row[wanted.Length] > had)
                    last = i;
            }
            return (row[wanted.Length], last);
        }
    }

    private static string? WhyNoTitle(DocumentFacts facts, List<Placed> words, int start, int end, int found)
    {
        var (lines, first, last) = (facts.Lines, words[start].Line, words[end].Line);
        var page = lines[first].Page;
        if (lines[last].Page != page)
            return "it runs over from one page to the next";
        var top = first;
        while (top > 0 && lines[top - 1].Page == page)
            top--;
        for (var i = 0; i < first; i++)
            if (DocumentFacts.IsReferencesHead(lines[i].Text))
                return "it stands in a list of references";
        if (found < LeastOfItsLines * words.Count(w => w.Line >= first && w.Line <= last))
            return "it stands in running text";
        var size = Enumerable.Range(first, last - first + 1).Max(i => lines[i].Size);
        var isBold = Enumerable.Range(first, last - first + 1).All(i => lines[i].Bold);
        var isLarger = size >= facts.BodySize * Larger;
        // A title begins its line; what may stand before it there is a word that says what it is the title of.
        for (var w = start - 1; w >= 0 && words[w].Line == first; w--)
            if (!Labels.Contains(words[w].Word) && !words[w].Word.All(char.IsDigit))
                return "words stand before it in its line";
        if (!isLarger && !isBold)
        {
            // Not set apart by its letters, it has to be by its place: nothing before it or behind it in its lines, no
            // running text above.
            if (words.Skip(end + 1).TakeWhile(w => w.Line == last).Count(w => !w.Word.All(char.IsDigit)) > 2)
                return "words stand behind it in its line";
            if (
                first > top
                && Math.Abs(lines[first - 1].Size - size) < 0.3
                && lines[first - 1].Text.Count(c => c == ' ') >= 10
            )
                return "it stands in running text";
        }
        if (first - top > (isLarger || isBold ? MostAbove : MostAbovePlain))
            return "it does not stand at the head of a page";
        for (var i = top; i < first; i++)
            if (ContentsHead().IsMatch(lines[i].Text))
                return "it stands in a list of contents";
        // A list has several like it, or lines that end in the numbers of pages.
        var (alike, numbered, after) = (0, 0, 0);
        for (var i = top; i < lines.Count && lines[i].Page == page; i++)
        {
            if (i >= first - 1 && i <= last + 1)
                continue;
            if (
                (isLarger || isBold)
                && Math.Abs(lines[i].Size - size) < 0.3
                && lines[i].Bold == isBold
                && lines[i].Text.Count(c => c == ' ') >= 3
            )
                alike++;
            if (i > last && after < 16)
            {
                after++;
                if (EndsInPage().IsMatch(lines[i].Text))
                    numbered++;
            }
        }
        if (alike >= 3)
            return "it is one of several titles on the page";
        if (after >= 4 && numbered * 10 >= after * 3 && numbered >= 3)
            return "it stands in a list of contents";
        return null;
    }

    private static readonly HashSet<string> Labels =
    [
        "article",
        "original",
        "research",
        "paper",
        "title",
        "report",
        "thesis",
        "preprint",
        "study",
        "short",
        "communication",
        "full",
        "length",
        "review",
        "no",
        "working",
        "technical",
        "accepted",
        "manuscript",
        "the",
    ];

    /// <summary>Whether the title is set apart by its letters: larger than the running text, or bold.</summary>
    public bool IsSetApart(DocumentFacts facts)
    {
        for (var i = FirstLine; i <= LastLine; i++)
            if (facts.Lines[i].Size >= facts.BodySize * Larger)
                return true;
        return Enumerable.Range(FirstLine, LastLine - FirstLine + 1).All(i => facts.Lines[i].Bold);
    }

    /// <summary>How many of some people are named near the title: on the lines around it, on its page.</summary>
    public int Named(DocumentFacts facts, IEnumerable<PersonName> people)
    {
        const int Above = 5,
            Below = 14;
        var page = facts.Lines[FirstLine].Page;
        var near = Enumerable
            .Range(
                Math.Max(0, FirstLine - Above),
                Math.Min(facts.Lines.Count, LastLine + Below + 1) - Math.Max(0, FirstLine - Above)
            )
            .Where(i => facts.Lines[i].Page == page)
            .SelectMany(i => facts.LineWords[i])
            .ToHashSet(StringComparer.Ordinal);
        return people.Count(p => IsNamed(p, near));
    }

    /// <summary>Whether a person's family name stands whole among some words.</summary>
    public static bool IsNamed(PersonName person, IReadOnlySet<string> words)
    {
        var family = Words.AsWritten(person.Family).ToArray();
        return family.Length > 0 && family.All(words.Contains);
    }

    [GeneratedRegex(@"\p{L}[-\u00AD\u2010]$", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Divided();

    [GeneratedRegex(
        @"^\W*(?:table of contents|contents(?: of (?:this|the) issue)?|in this (?:issue|volume)"
            + @"|inhalt(?:sverzeichnis)?|sommaire|table des mati[èe]res|[íi]ndice|sum[áa]rio|contenido)\b.{0,30}$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex ContentsHead();

    [GeneratedRegex(
        @"(?:\.{3,}|\s|…)\s*(?:p\.?\s*)?[eA-Z]?\d{1,5}(?:[-–]\d{1,5})?$",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex EndsInPage();
}
