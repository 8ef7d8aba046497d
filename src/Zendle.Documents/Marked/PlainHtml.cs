using System.Net;
using System.Text;
using Zendle.Core.FullText;

namespace Zendle.Documents.Marked;

/// <summary>Writes plain text as HTML: paragraphs are parted by empty lines or by indents; heads of references are headings.</summary>
internal static class PlainHtml
{
    /// <summary>Writes a text as a page. O(length).</summary>
    public static string Of(string text)
    {
        var (html, paragraph) = (new StringBuilder("<body><article>"), new List<string>());
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n', '\f'))
        {
            var words = line.Trim();
            if (words.Length == 0 || DocumentFacts.IsReferencesHead(words))
                Finish();
            if (words.Length > 0 && DocumentFacts.IsReferencesHead(words))
                html.Append("<h2>").Append(WebUtility.HtmlEncode(words)).Append("</h2>");
            else if (words.Length > 0)
            {
                // A line that is drawn in begins another paragraph, unless all of this one are.
                if (paragraph.Count > 0 && char.IsWhiteSpace(line[0]) && !char.IsWhiteSpace(paragraph[^1][0]))
                    Finish();
                paragraph.Add(line);
            }
        }
        Finish();
        return html.Append("</article>").ToString();

        void Finish()
        {
            if (paragraph.Count == 0)
                return;
            var words = WebUtility.HtmlEncode(string.Join(' ', paragraph.Select(l => l.Trim())));
            paragraph.Clear();
            html.Append("<p>").Append(words).Append("</p>");
        }
    }
}
