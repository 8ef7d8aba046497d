using AngleSharp.Dom;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Zendle.Core.FullText;

namespace Zendle.Documents.Marked;

/// <summary>
/// A text in HTML: its article without what stands around it on a page, piece by piece. Scripts are not run, nothing is
/// loaded.
/// </summary>
internal sealed class MarkedText
{
    private const int MostElements = 400_000,
        FewestLetters = 40;
    private const double ShareOfMain = 0.5;

    private const string Around =
        "script,style,noscript,template,iframe,object,embed,form,nav,aside,footer,button,dialog,[hidden],"
        + "[role=navigation],[role=search],[role=banner],[role=contentinfo],[role=complementary],[aria-hidden=true]";

    private static readonly HashSet<string> Blocks = new(StringComparer.OrdinalIgnoreCase)
    {
        "p",
        "li",
        "dt",
        "dd",
        "td",
        "th",
        "caption",
        "figcaption",
        "blockquote",
        "pre",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
        "div",
        "section",
        "article",
        "main",
        "header",
        "ul",
        "ol",
        "dl",
        "table",
        "thead",
        "tbody",
        "tfoot",
        "tr",
        "figure",
        "address",
        "body",
        "hr",
        "details",
        "summary",
    };

    private readonly Dictionary<string, int> entryOf = new(StringComparer.Ordinal);

    private MarkedText(IElement main, IReadOnlyList<TextBlock> blocks) => (Main, Pieces) = (main, blocks);

    /// <summary>The element that holds the article.</summary>
    public IElement Main { get; }

    /// <summary>Its pieces, in order.</summary>
    public IReadOnlyList<TextBlock> Pieces { get; private set; }

    /// <summary>Reads a page.</summary>
    /// <param name="html">The page.</param>
    /// <exception cref="DocumentFaultException">There are no words in it, or too many parts.</exception>
    public static MarkedText Read(string html)
    {
        var document = new HtmlParser().ParseDocument(html);
        if (document.All.Length > MostElements)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                $"The page has more than {MostElements:N0} parts; it was refused."
            );
        var title = document.QuerySelector("h1");
        foreach (var around in document.QuerySelectorAll(Around).ToArray())
            if (title is null || !around.Contains(title))
                around.Remove();
        if (document.Body is not { } body)
            throw NoWords();
        var main = MainPart(body);
        var pieces = new List<TextBlock>();
        // A page may have its title above its article.
        if (title is not null && !main.Contains(title) && body.Contains(title))
            Add(pieces, title, isListed: false);
        Collect(main, pieces, isListed: false);
        if (pieces.Sum(p => p.Text.Count(char.IsLetter)) < FewestLetters)
            throw NoWords();
        var text = new MarkedText(main, pieces);
        text.FindEntries();
        return text;
    }

    /// <summary>The ordinal of the entry that an element with an id belongs to; null for none.</summary>
    public int? EntryOf(string id) => entryOf.TryGetValue(id, out var entry) ? entry : null;

    /// <summary>The words of an element, with single blanks.</summary>
    public static string Words(INode of) => Plain(Blanks.Single(of.TextContent));

    /// <summary>A text without characters of private use: these mark citations, and are nobody's words.</summary>
    public static string Plain(string text) =>
        text.AsSpan().IndexOfAnyInRange('\uE000', '\uF8FF') < 0
            ? text
            : string.Concat(text.Where(c => c is < '\uE000' or > '\uF8FF'));

    private static DocumentFaultException NoWords() =>
        new(DocumentFault.NoLetters, "There are hardly any words in the file.");

    /// <summary>The part that holds most of the words, where the page says which it is.</summary>
    private static IElement MainPart(IElement body)
    {
        var whole = body.TextContent.Length;
        return body.QuerySelectorAll("article,[itemprop=articleBody],[role=main],main")
                .Where(e => e.TextContent.Length >= whole * ShareOfMain)
                .MinBy(e => e.TextContent.Length)
            ?? body;
    }

    private static void Collect(IElement of, List<TextBlock> into, bool isListed)
    {
        if (IsPiece(of))
        {
            Add(into, of, isListed);
            return;
        }
        foreach (var child in of.Children)
            if (Blocks.Contains(child.LocalName) || child.Children.Length > 0)
                Collect(child, into, isListed || child.LocalName is "li" or "table" or "figure" or "dl");
    }

    /// <summary>Whether an element has words of its own, or no blocks in it: then it is one piece.</summary>
    private static bool IsPiece(IElement of) =>
        of.LocalName is "h1" or "h2" or "h3" or "h4" or "h5" or "h6" or "p" or "pre" or "math"
        || !of.Descendants<IElement>().Any(e => Blocks.Contains(e.LocalName))
        || of.ChildNodes.OfType<IText>().Sum(t => t.Data.Trim().Length) > 40;

    private static void Add(List<TextBlock> into, IElement of, bool isListed)
    {
        if (Words(of) is not { Length: > 0 } text)
            return;
        var isHeading = of.LocalName is ['h', >= '1' and <= '6'];
        into.Add(
            new(
                isHeading ? BlockKind.Heading
                    : isListed || of.LocalName is "li" or "td" or "th" or "caption" or "figcaption" or "dt" or "dd"
                        ? BlockKind.Aside
                    : BlockKind.Paragraph,
                isHeading ? of.LocalName[1] - '0' : 0,
                text,
                of
            )
        );
    }

    /// <summary>What stands under a heading of references, to the next heading of its level, are entries.</summary>
    private void FindEntries()
    {
        var pieces = Pieces.ToArray();
        var entries = 0;
        for (var i = 0; i < pieces.Length; i++)
        {
            if (pieces[i].Kind != BlockKind.Heading || !DocumentFacts.IsReferencesHead(pieces[i].Text))
                continue;
            var level = pieces[i].Level;
            for (i++; i < pieces.Length && !(pieces[i].Kind == BlockKind.Heading && pieces[i].Level <= level); i++)
            {
                if (pieces[i].Kind == BlockKind.Heading || pieces[i].Text.Length < 12)
                    continue;
                pieces[i] = pieces[i] with { Kind = BlockKind.Entry };
                // A link may lead to the entry, to what holds it alone, or to a mark in it.
                foreach (
                    var id in pieces[i]
                        .Element.QuerySelectorAll("[id],a[name]")
                        .Append(pieces[i].Element)
                        .Concat(Holding(pieces[i].Element))
                        .Select(e => e.Id ?? e.GetAttribute("name"))
                )
                    if (!string.IsNullOrEmpty(id))
                        entryOf.TryAdd(id, entries);
                entries++;
            }
            i--;
        }
        Pieces = pieces;
    }

    private static IEnumerable<IElement> Holding(IElement entry)
    {
        for (var e = entry; e.ParentElement is { } above && above.LocalName is "li" or "div" or "dd" or "tr"; e = above)
        {
            if (above.Children.Count(c => c.LocalName == e.LocalName) > 1)
                yield break;
            yield return above;
        }
    }
}
