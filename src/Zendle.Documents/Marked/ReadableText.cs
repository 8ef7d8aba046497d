using System.Globalization;
using AngleSharp.Dom;
using Ganss.Xss;

namespace Zendle.Documents.Marked;

/// <summary>A heading of a readable text.</summary>
/// <param name="Text">Its words.</param>
/// <param name="Level">1 to 6.</param>
/// <param name="Id">The id of its element.</param>
public sealed record ReadableHeading(string Text, int Level, string Id);

/// <summary>
/// A text as it is shown: its article in plain HTML, without scripts, styles, classes or anything that is loaded from
/// elsewhere.
/// </summary>
/// <param name="Html">The article. Figures are <c>img</c> elements without a source, with the ordinal of theirs in
/// <c>data-figure</c>; ids begin with <c>t-</c>.</param>
/// <param name="Headings">Its headings below the title.</param>
/// <param name="Figures">Addresses of its figures as they are written, in order, each once.</param>
public sealed record ReadableText(string Html, IReadOnlyList<ReadableHeading> Headings, IReadOnlyList<string> Figures)
{
    /// <summary>At most so many figures are shown.</summary>
    public const int MostFigures = 60;

    private const string IdStart = "t-";

    private static readonly string[] Math =
    [
        "math",
        "mi",
        "mn",
        "mo",
        "mrow",
        "ms",
        "mtext",
        "mspace",
        "msup",
        "msub",
        "msubsup",
        "mfrac",
        "msqrt",
        "mroot",
        "munder",
        "mover",
        "munderover",
        "mtable",
        "mtr",
        "mtd",
        "semantics",
    ];

    private static readonly string[] Tags =
    [
        .. Math,
        .. (string[])
            [
                "article",
                "section",
                "div",
                "span",
                "p",
                "br",
                "hr",
                "h1",
                "h2",
                "h3",
                "h4",
                "h5",
                "h6",
                "em",
                "i",
                "strong",
                "b",
                "u",
                "s",
                "small",
                "sup",
                "sub",
                "code",
                "kbd",
                "samp",
                "var",
                "pre",
                "q",
                "blockquote",
                "cite",
                "abbr",
                "dfn",
                "mark",
                "time",
                "a",
                "ul",
                "ol",
                "li",
                "dl",
                "dt",
                "dd",
                "figure",
                "figcaption",
                "img",
                "table",
                "caption",
                "colgroup",
                "col",
                "thead",
                "tbody",
                "tfoot",
                "tr",
                "th",
                "td",
            ],
    ];

    private static readonly string[] Attributes =
    [
        "id",
        "href",
        "colspan",
        "rowspan",
        "scope",
        "alt",
        "start",
        "lang",
        "dir",
        "data-figure",
    ];

    /// <summary>The headings below the title, as they stand in the readable text.</summary>
    internal static IEnumerable<ReadableHeading> HeadingsOf(MarkedText text) =>
        text
            .Pieces.Where(p => p is { Kind: BlockKind.Heading, Level: > 1 })
            .Select((p, i) => new ReadableHeading(p.Text, p.Level, HeadingId(i)));

    private static string HeadingId(int i) => string.Create(CultureInfo.InvariantCulture, $"{IdStart}h-{i + 1}");

    /// <summary>Makes a text readable. The text is changed: use it for nothing else afterwards.</summary>
    internal static ReadableText Of(MarkedText text)
    {
        ReadableHeading[] headings = [.. HeadingsOf(text)];
        foreach (var element in text.Main.QuerySelectorAll("[id],a[name]"))
            element.Id = IdStart + "x-" + (element.Id ?? element.GetAttribute("name"));
        foreach (var link in text.Main.QuerySelectorAll("a[href^='#']"))
            link.SetAttribute("href", "#" + IdStart + "x-" + Uri.UnescapeDataString(link.GetAttribute("href")![1..]));
        var at = 0;
        foreach (var heading in text.Pieces.Where(p => p is { Kind: BlockKind.Heading, Level: > 1 }))
            heading.Element.Id = headings[at++].Id;
        var figures = new List<string>();
        foreach (var image in text.Main.QuerySelectorAll("img").ToArray())
        {
            var source = image.GetAttribute("src") ?? image.GetAttribute("data-src");
            var figure = source is null ? -1 : figures.IndexOf(source);
            if (figure < 0 && !string.IsNullOrWhiteSpace(source) && figures.Count < MostFigures)
            {
                figure = figures.Count;
                figures.Add(source);
            }
            image.RemoveAttribute("src");
            if (figure >= 0)
                image.SetAttribute("data-figure", figure.ToString(CultureInfo.InvariantCulture));
            else
                image.Remove();
        }
        // A title that stands above the article is shown with it.
        var above =
            text.Pieces is [{ Kind: BlockKind.Heading, Level: 1 } first, ..] && !text.Main.Contains(first.Element)
                ? $"<h1>{System.Net.WebUtility.HtmlEncode(first.Text)}</h1>"
                : "";
        return new(above + Sanitizer().Sanitize(text.Main.InnerHtml), headings, figures);
    }

    private static HtmlSanitizer Sanitizer()
    {
        var sanitizer = new HtmlSanitizer();
        void Only(ISet<string> set, IEnumerable<string> allowed)
        {
            set.Clear();
            set.UnionWith(allowed);
        }
        Only(sanitizer.AllowedTags, Tags);
        Only(sanitizer.AllowedAttributes, Attributes);
        Only(sanitizer.AllowedSchemes, ["http", "https"]);
        sanitizer.AllowedCssProperties.Clear();
        sanitizer.AllowDataAttributes = false;
        // What is not known is left out, what stands in it stays: an unknown element may hold the whole text.
        sanitizer.KeepChildNodes = true;
        sanitizer.PostProcessNode += (_, e) =>
        {
            if (e.Node is not IElement { LocalName: "a" } link || link.GetAttribute("href") is not { } to)
                return;
            if (to.StartsWith('#'))
                return;
            // What leads on from where the page stood would lead into Zendle here.
            if (!Uri.IsWellFormedUriString(to, UriKind.Absolute))
            {
                link.RemoveAttribute("href");
                return;
            }
            link.SetAttribute("target", "_blank");
            link.SetAttribute("rel", "noopener noreferrer nofollow");
        };
        return sanitizer;
    }
}
