using System.Globalization;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>Pages of a file.</summary>
/// <param name="From">The first, from 1.</param>
/// <param name="To">The last.</param>
public readonly record struct PageRange(int From, int To);

/// <summary>
/// Finds the pages of a chapter in the file of its whole book: where its title stands on top of a page with its people near it;
/// and as far as the record's pages, the table of contents or the running heads say.
/// </summary>
public static class ChapterPages
{
    private const int TopWords = 70,
        NearWords = 50,
        HeadWords = 25,
        ContentsAmong = 40,
        NextWords = 5,
        LongestTable = 6,
        LongestChapter = 200;

    /// <summary>A chapter's own file may have a cover and a page of imprint.</summary>
    private const int MostFrontPages = 2;

    /// <summary>
    /// The pages of a chapter, or of an article in the file of its whole issue; null where the document is no more than the work
    /// itself, passes for it as it is, or does not show them.
    /// </summary>
    /// <param name="facts">The document.</param>
    /// <param name="work">The work.</param>
    public static PageRange? OutOf(DocumentFacts facts, ExpectedWork work)
    {
        var isLonger = work.PageCount is { } own ? facts.Pages > own + MostFrontPages : HasContents(facts.Text, work);
        var isChapter = work.Type == DocumentType.Chapter;
        // The first chapter of a book stands on its first pages: that it passes says nothing of where it ends.
        var mayPass = !(isChapter && isLonger);
        return
            facts.Format != TextFormat.Pdf
            || !(isChapter || isLonger)
            || (mayPass && DocumentCheck.Of(facts, work).Verdict == DocumentVerdict.Agrees)
            || Find(facts.Text, facts.Pages, work) is not { } pages
            || pages.To - pages.From + 1 >= facts.Pages
            ? null
            : pages;
    }

    /// <summary>The pages; null when the file does not show them.</summary>
    /// <param name="text">The running text of the file.</param>
    /// <param name="pages">How many pages it has.</param>
    /// <param name="work">The chapter.</param>
    public static PageRange? Find(IReadOnlyList<TextPage> text, int pages, ExpectedWork work)
    {
        var words = text.Select(p => (p.Page, Words: Words.AsWritten(p.Text).ToArray())).ToArray();
        string[][] titles = [.. work.Titles.Select(t => Words.AsWritten(t).ToArray()).Where(t => t.Length > 0)];
        // A title as records have it may have slips: then one that is nearly it, with its people, is taken.
        foreach (var (title, near) in titles.Select(t => (t, false)).Concat(titles.Select(t => (t, true))))
        {
            var start = words
                .Where(p => !IsContents(p.Words))
                .Where(p => IsBegun(p.Words, title, near, work.People))
                .Select(p => p.Page)
                .FirstOrDefault();
            if (start == 0)
                continue;
            // What a record or a table of contents says may be wrong; a page that has the chapter's head belongs to it.
            var said = work.PageCount ?? FromContents(words, title, start) ?? 0;
            var length = Math.Max(said, FromHeads(words, title, start) ?? 0);
            if (length > 0)
                return new(start, Math.Min(pages, start + length - 1));
        }
        return null;
    }

    /// <summary>Whether a chapter begins on a page: its title stands on top, and one of its people behind it.</summary>
    private static bool IsBegun(string[] page, string[] title, bool near, IReadOnlyList<PersonName> people)
    {
        var at = near ? WordRow.FindNear(page, title, TopWords) : WordRow.Find(page, title, TopWords);
        if (at < 0 || people.Count == 0)
            return at >= 0 && !near;
        return people.Any(a => IsNear(page, at + title.Length - (near ? 1 : 0), a));
    }

    /// <summary>
    /// Whether a file has a table of contents that lists the chapter on its first page: then it is a book's. A chapter's own lists
    /// its sections.
    /// </summary>
    /// <param name="text">The running text of the file.</param>
    /// <param name="work">The chapter.</param>
    public static bool HasContents(IReadOnlyList<TextPage> text, ExpectedWork work)
    {
        var table =
            text.Take(ContentsAmong).Select(p => Words.AsWritten(p.Text).ToArray()).FirstOrDefault(IsContents) ?? [];
        return work.Titles.Any(t => WordRow.Find(table, [.. Words.AsWritten(t)], table.Length) >= 0);
    }

    private static bool IsNear(string[] words, int from, PersonName person)
    {
        var family = Words.AsWritten(person.Family).ToArray();
        return family.Length > 0 && WordRow.Find(words.AsSpan(Math.Min(from, words.Length)), family, NearWords) >= 0;
    }

    private static bool IsContents(string[] words) =>
        Array.IndexOf(words, "contents", 0, Math.Min(12, words.Length)) >= 0;

    /// <summary>
    /// The pages from the chapter to the next of the table of contents: where that begins in the file, else as the table numbers
    /// them; null when it tells neither.
    /// </summary>
    private static int? FromContents((int Page, string[] Words)[] pages, string[] title, int start)
    {
        string[] table = [.. TableOf(pages).SelectMany(p => p.Words)];
        var at = WordRow.Find(table, title, table.Length);
        if (at < 0)
            at = WordRow.FindNear(table, title, table.Length);
        if (at < 0)
            return null;
        var own = -1;
        for (var i = at + title.Length; i < table.Length; i++)
        {
            if (!int.TryParse(table[i], NumberStyles.None, CultureInfo.InvariantCulture, out var number))
                continue;
            if (own >= 0 && number > own && number - own <= LongestChapter)
                return number - own;
            // A smaller number is none of the table's, which has come to its end.
            if (own >= 0)
                break;
            own = number;
            string[] next = [.. table.Skip(i + 1).Take(NextWords)];
            var begins = pages
                .Where(p => p.Page > start && next.Length == NextWords && WordRow.Find(p.Words, next, TopWords) >= 0)
                .Select(p => p.Page)
                .FirstOrDefault();
            if (begins > 0 && begins - start <= LongestChapter)
                return begins - start;
        }
        // The last of the table goes on to what stands at the end of books, or to the end.
        return own < 0
            ? null
            : pages
                .Where(p => p.Page > start && p.Words is [var first, ..] && BackMatter.Contains(first))
                .Select(p => p.Page)
                .Append(pages[^1].Page + 1)
                .First() - start;
    }

    /// <summary>
    /// The pages of the table of contents: it may go on for several, of which the first alone is called so, up to where the first
    /// that it lists begins.
    /// </summary>
    private static (int Page, string[] Words)[] TableOf((int Page, string[] Words)[] pages)
    {
        var from = Array.FindIndex(pages, p => IsContents(p.Words));
        if (from < 0 || from >= ContentsAmong)
            return [];
        var called = Array.IndexOf(pages[from].Words, "contents");
        // Some tables number what they list in front.
        string[] first = [.. pages[from].Words.Skip(called + 1).SkipWhile(w => w.All(char.IsDigit)).Take(NextWords)];
        var to = Array.FindIndex(pages, from + 1, p => WordRow.Find(p.Words, first, TopWords) >= 0);
        return pages[from..Math.Min(pages.Length, to < 0 ? from + LongestTable : Math.Min(to, from + LongestTable))];
    }

    private static readonly string[] BackMatter = ["index", "contributors", "glossary"];

    /// <summary>How many pages in a row have the title in their running head; null when the next one has not.</summary>
    private static int? FromHeads((int Page, string[] Words)[] pages, string[] title, int start)
    {
        var byPage = pages.ToDictionary(p => p.Page, p => p.Words);
        bool HasHead(int page) => byPage.TryGetValue(page, out var words) && WordRow.Find(words, title, HeadWords) >= 0;
        // Heads may change from left to right: one page without is passed over.
        var end = start;
        while (HasHead(end + 1) || HasHead(end + 2))
            end += HasHead(end + 1) ? 1 : 2;
        return end > start ? end - start + 1 : null;
    }
}
