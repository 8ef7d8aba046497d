using System.Text;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>A page of a document as one text.</summary>
/// <param name="Page">Its number, from 1; 1 where its format has no pages.</param>
/// <param name="Text">Its words in the order of reading.</param>
public sealed record TextPage(int Page, string Text);

/// <summary>The running text of a document, for being searched: all but its reference lists, which are others' words.</summary>
public static class RunningText
{
    /// <summary>More letters than this are not kept of one document.</summary>
    public const int Most = 2_000_000;

    /// <summary>
    /// The pages of a document. Where a line ends in a hyphen it stays, and the next follows at once: so the word is found
    /// whole, in parts, and as it is printed. O(length).
    /// </summary>
    /// <param name="lines">Its lines in the order of reading.</param>
    /// <param name="lists">Its reference lists.</param>
    public static IReadOnlyList<TextPage> Of(IReadOnlyList<ReadLine> lines, FoundLists lists)
    {
        var isListed = lists.Listed(lines.Count);
        var (pages, text, page, letters) = (new List<TextPage>(), new StringBuilder(), 0, 0);
        void Close()
        {
            if (text.Length > 0)
                pages.Add(new(page, text.ToString()));
            text.Clear();
        }
        for (var i = 0; i < lines.Count && letters < Most; i++)
        {
            if (isListed[i])
                continue;
            if (lines[i].Line.Page != page)
            {
                Close();
                page = lines[i].Line.Page;
            }
            if (text.Length > 0 && !Words.IsHyphen(text[^1]))
                text.Append(' ');
            text.Append(lines[i].Line.Text.Trim());
            letters += lines[i].Line.Text.Length;
        }
        Close();
        return pages;
    }
}
