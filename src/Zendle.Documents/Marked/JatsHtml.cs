using System.Globalization;
using System.Net;
using System.Text;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Documents.Marked;

/// <summary>
/// Writes an article in JATS (ANSI/NISO Z39.96-2019, Journal Article Tag Suite; and the NLM tag set before it) as HTML with
/// the same order and the same ids. What it does not know is left out, and the words in it stay.
/// </summary>
/// <param name="into">Where it is written.</param>
internal sealed class JatsHtml(StringBuilder into)
{
    private const long MostCharacters = 60_000_000;
    private const int Deepest = 120;

    /// <summary>Elements that are written as others, with what stands in them.</summary>
    private static readonly Dictionary<string, string> Same = new(StringComparer.Ordinal)
    {
        ["p"] = "p",
        ["italic"] = "em",
        ["bold"] = "strong",
        ["sup"] = "sup",
        ["sub"] = "sub",
        ["underline"] = "u",
        ["strike"] = "s",
        ["monospace"] = "code",
        ["preformat"] = "pre",
        ["code"] = "pre",
        ["disp-quote"] = "blockquote",
        ["verse-group"] = "blockquote",
        ["list-item"] = "li",
        ["def-list"] = "dl",
        ["term"] = "dt",
        ["def"] = "dd",
        ["table"] = "table",
        ["thead"] = "thead",
        ["tbody"] = "tbody",
        ["tfoot"] = "tfoot",
        ["tr"] = "tr",
        ["caption"] = "div",
        ["fn"] = "div",
        ["ack"] = "section",
        ["app"] = "section",
        ["glossary"] = "section",
        ["boxed-text"] = "section",
        ["attrib"] = "p",
    };

    private static readonly HashSet<string> LeftOut = new(StringComparer.Ordinal)
    {
        "object-id",
        "alternatives",
        "tex-math",
        "journal-id",
        "permissions",
        "counts",
        "custom-meta-group",
        "processing-meta",
        "related-article",
        "supplementary-material",
        "media",
        "index-term",
    };

    /// <summary>Writes a file as a page.</summary>
    /// <param name="file">The file.</param>
    /// <exception cref="DocumentFaultException">It is no such article, or cut off.</exception>
    public static string Of(byte[] file)
    {
        XElement root;
        try
        {
            // A document type may be named; nothing of it is read, and no entity it declares.
            using var reader = XmlReader.Create(
                new MemoryStream(file),
                new()
                {
                    DtdProcessing = DtdProcessing.Ignore,
                    XmlResolver = null,
                    MaxCharactersInDocument = MostCharacters,
                    IgnoreComments = true,
                    IgnoreProcessingInstructions = true,
                }
            );
            root = XElement.Load(reader, LoadOptions.PreserveWhitespace);
        }
        catch (XmlException e)
        {
            throw new DocumentFaultException(
                DocumentFault.Damaged,
                "The file is cut off or damaged: its XML is not complete.",
                e
            );
        }
        if (root.Name.LocalName != "article")
            throw new DocumentFaultException(DocumentFault.NotADocument, "The file is XML, but not an article.");
        var text = new StringBuilder(file.Length);
        new JatsHtml(text).Article(root);
        return text.ToString();
    }

    private void Article(XElement article)
    {
        into.Append("<!doctype html><meta charset=\"utf-8\"><body><article>");
        Front(article);
        if (Child(article, "body") is { } body)
            Each(body, 2);
        if (Child(article, "back") is { } back)
            foreach (var part in back.Elements())
                if (part.Name.LocalName == "ref-list")
                    References(part, 2);
                else
                    Part(part, 2);
        // What floats stands in groups of its own.
        foreach (var group in article.Elements().Where(e => e.Name.LocalName == "floats-group"))
            Each(group, 2);
        into.Append("</article>");
    }

    private void Front(XElement article)
    {
        var front = Child(article, "front") ?? Child(article, "front-stub");
        var meta = front is null ? null : Child(front, "article-meta") ?? front;
        if (meta is null)
            return;
        var title = Child(meta, "title-group") is { } titles
            ? Child(titles, "article-title")
            : Child(meta, "article-title");
        if (title is not null)
        {
            into.Append("<h1>");
            Inline(title, 0);
            if (Child(title.Parent!, "subtitle") is { } subtitle)
            {
                into.Append(": ");
                Inline(subtitle, 0);
            }
            into.Append("</h1>");
        }
        var people = meta.Elements()
            .Where(e => e.Name.LocalName == "contrib-group")
            .SelectMany(g => g.Elements())
            .Where(c => c.Name.LocalName == "contrib" && (string?)c.Attribute("contrib-type") is null or "author")
            .Select(Person)
            .Where(p => p.Length > 0)
            .ToArray();
        if (people.Length > 0)
            Line(string.Join(", ", people));
        Line(Source(front!, meta));
        if (
            Words(
                Child(meta, "article-version") ?? Child(Child(meta, "article-version-alternatives"), "article-version")
            ) is
            { Length: > 0 } version
        )
            Line(version);
        Line(Dates(meta));
        if (
            meta.Elements()
                .FirstOrDefault(e =>
                    e.Name.LocalName == "article-id" && (string?)e.Attribute("pub-id-type") == "doi"
                ) is
            { } doi
        )
            Line("https://doi.org/" + Words(doi));
        foreach (var part in meta.Elements().Where(e => e.Name.LocalName is "abstract" or "trans-abstract"))
        {
            into.Append("<section><h2>")
                .Append(Html(Words(Child(part, "title")) is { Length: > 0 } head ? head : "Abstract"));
            into.Append("</h2>");
            foreach (var child in part.Elements().Where(c => c.Name.LocalName != "title"))
                Part(child, 3);
            into.Append("</section>");
        }
        foreach (var group in meta.Elements().Where(e => e.Name.LocalName == "kwd-group"))
            Line(
                "Keywords: " + string.Join("; ", group.Elements().Where(k => k.Name.LocalName == "kwd").Select(Words))
            );
    }

    private static string Person(XElement contributor)
    {
        if (Child(contributor, "name") is { } name)
            return $"{Words(Child(name, "given-names"))} {Words(Child(name, "surname"))}".Trim();
        return Words(Child(contributor, "string-name") ?? Child(contributor, "collab"));
    }

    /// <summary>Journal, volume, issue, year and pages, as a running head has them.</summary>
    private static string Source(XElement front, XElement meta)
    {
        var journal = front.Descendants().FirstOrDefault(e => e.Name.LocalName == "journal-title");
        var (volume, issue) = (Words(Child(meta, "volume")), Words(Child(meta, "issue")));
        var (first, last) = (Words(Child(meta, "fpage")), Words(Child(meta, "lpage")));
        var year = meta.Elements()
            .Where(e => e.Name.LocalName == "pub-date")
            .Select(d => Words(Child(d, "year")))
            .FirstOrDefault(y => y.Length > 0);
        var place = volume + (issue.Length > 0 ? $"({issue})" : "");
        var pages = first.Length > 0 && last.Length > 0 ? $"{first}–{last}" : Words(Child(meta, "elocation-id"));
        return string.Join(
            ", ",
            ((string?[])[$"{Words(journal)} {place}".Trim(), year, pages]).Where(p => !string.IsNullOrEmpty(p))
        );
    }

    private static string Dates(XElement meta) =>
        Child(meta, "history") is not { } history
            ? ""
            : string.Join(
                "; ",
                history
                    .Elements()
                    .Where(d =>
                        d.Name.LocalName == "date" && (string?)d.Attribute("date-type") is "received" or "accepted"
                    )
                    .Select(d =>
                        $"{(string?)d.Attribute("date-type")} "
                        + string.Join(
                            '-',
                            ((string[])["year", "month", "day"])
                                .Select(n => Words(Child(d, n)))
                                .Where(n => n.Length > 0)
                        )
                    )
            );

    private void Each(XElement of, int level)
    {
        foreach (var part in of.Elements())
            Part(part, level);
    }

    /// <summary>Writes a part that stands by itself.</summary>
    private void Part(XElement part, int level)
    {
        if (level > Deepest)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                "The parts of the file are nested too deeply; it was refused."
            );
        switch (part.Name.LocalName)
        {
            case "sec":
            case "app" or "ack" or "glossary" or "boxed-text" or "app-group" or "fn-group" or "notes" or "bio":
                Open("section", part);
                foreach (var child in part.Elements())
                    if (child.Name.LocalName is "title" or "label")
                        Head(child, part, level);
                    else
                        Part(child, level + 1);
                into.Append("</section>");
                break;
            case "title":
                Head(part, part.Parent!, level);
                break;
            case "ref-list":
                References(part, level);
                break;
            case "fig" or "fig-group" or "table-wrap" or "table-wrap-group" or "disp-formula-group":
                Open("figure", part);
                Caption(part);
                foreach (var child in part.Elements().Where(c => c.Name.LocalName is not ("label" or "caption")))
                    if (child.Name.LocalName == "alternatives")
                        Each(child, level + 1);
                    else
                        Part(child, level + 1);
                into.Append("</figure>");
                break;
            case "graphic" or "inline-graphic":
                Image(part);
                break;
            case "list":
                var tag = (string?)part.Attribute("list-type")
                    is "order"
                        or "alpha-lower"
                        or "alpha-upper"
                        or "roman-lower"
                        or "roman-upper"
                    ? "ol"
                    : "ul";
                Open(tag, part);
                Each(part, level + 1);
                into.Append(CultureInfo.InvariantCulture, $"</{tag}>");
                break;
            case "def-item":
                Each(part, level + 1);
                break;
            case "td" or "th":
                Cell(part, level);
                break;
            case var name when Same.TryGetValue(name, out var same):
                Open(same, part);
                Inline(part, level);
                into.Append(CultureInfo.InvariantCulture, $"</{same}>");
                break;
            case var name when LeftOut.Contains(name):
                break;
            case "disp-formula":
                Open("p", part);
                Inline(part, level);
                into.Append("</p>");
                break;
            default:
                if (part.Elements().Any(e => Same.ContainsKey(e.Name.LocalName) || e.Name.LocalName is "sec" or "list"))
                    Each(part, level + 1);
                else if (Words(part).Length > 0)
                {
                    into.Append("<p>");
                    Inline(part, level);
                    into.Append("</p>");
                }
                break;
        }
    }

    private void Head(XElement title, XElement of, int level)
    {
        // A label is written before its title, and alone only where there is none.
        if (title.Name.LocalName == "label")
        {
            if (Child(of, "title") is null)
                Line(Words(title));
            return;
        }
        var tag = $"h{Math.Clamp(level, 2, 6)}";
        into.Append(CultureInfo.InvariantCulture, $"<{tag}>");
        if (Words(Child(of, "label")) is { Length: > 0 } label)
            into.Append(Html(label)).Append(' ');
        Inline(title, level);
        into.Append(CultureInfo.InvariantCulture, $"</{tag}>");
    }

    private void Caption(XElement of)
    {
        var (label, caption) = (Words(Child(of, "label")), Child(of, "caption"));
        if (label.Length == 0 && caption is null)
            return;
        into.Append("<figcaption>");
        if (label.Length > 0)
            into.Append("<strong>").Append(Html(label)).Append("</strong> ");
        foreach (var child in caption?.Elements() ?? [])
        {
            Inline(child, 0);
            into.Append(' ');
        }
        into.Append("</figcaption>");
    }

    private void Cell(XElement cell, int level)
    {
        into.Append('<').Append(cell.Name.LocalName);
        foreach (var span in (string[])["colspan", "rowspan"])
            if (
                int.TryParse((string?)cell.Attribute(span), CultureInfo.InvariantCulture, out var n)
                && n is > 1 and < 1000
            )
                into.Append(CultureInfo.InvariantCulture, $" {span}=\"{n}\"");
        into.Append('>');
        Inline(cell, level);
        into.Append("</").Append(cell.Name.LocalName).Append('>');
    }

    private void Image(XElement graphic)
    {
        if (graphic.Attributes().FirstOrDefault(a => a.Name.LocalName == "href")?.Value is { Length: > 0 } source)
            into.Append("<img src=\"")
                .Append(Html(source))
                .Append("\" alt=\"")
                .Append(Html(Words(Child(graphic, "alt-text"))))
                .Append("\">");
    }

    private void References(XElement list, int level)
    {
        var tag = $"h{Math.Clamp(level, 2, 6)}";
        into.Append(CultureInfo.InvariantCulture, $"<section><{tag}>");
        // Whatever it is called, it is the list of references.
        var title = Words(Child(list, "title"));
        into.Append(Html(Core.FullText.DocumentFacts.IsReferencesHead(title) ? title : "References"));
        into.Append(CultureInfo.InvariantCulture, $"</{tag}><ol>");
        foreach (var reference in list.Descendants().Where(e => e.Name.LocalName == "ref"))
        {
            Open("li", reference);
            var cited = reference
                .Elements()
                .FirstOrDefault(e =>
                    e.Name.LocalName is "mixed-citation" or "element-citation" or "citation" or "nlm-citation"
                );
            into.Append(Html(cited is null ? Words(reference) : Cited(cited)));
            into.Append("</li>");
        }
        into.Append("</ol></section>");
    }

    /// <summary>A reference as it is printed; where only its parts are given, these in the usual order.</summary>
    private static string Cited(XElement citation)
    {
        var isMixed = citation.Nodes().OfType<XText>().Any(t => t.Value.Any(char.IsPunctuation));
        if (isMixed)
            return Words(citation);
        string Of(string name) => Words(citation.Descendants().FirstOrDefault(e => e.Name.LocalName == name));
        var people = citation
            .Descendants()
            .Where(e => e.Name.LocalName is "name" or "string-name" or "collab")
            .Select(e =>
                Child(e, "surname") is { } family
                    ? $"{Words(family)} {Words(Child(e, "given-names"))}".Trim()
                    : Words(e)
            );
        var (volume, issue, first, last) = (Of("volume"), Of("issue"), Of("fpage"), Of("lpage"));
        var text = new StringBuilder();
        text.Append(string.Join(", ", people));
        Add(" (", Of("year"), ")");
        Add(". ", Of("article-title") is { Length: > 0 } title ? title : Of("chapter-title"), "");
        Add(". ", Of("source"), "");
        Add(", ", volume, issue.Length > 0 ? $"({issue})" : "");
        Add(", ", first, last.Length > 0 ? "–" + last : "");
        Add(". ", Of("publisher-name"), "");
        Add(
            ". doi:",
            Words(
                citation
                    .Descendants()
                    .FirstOrDefault(e => e.Name.LocalName == "pub-id" && (string?)e.Attribute("pub-id-type") == "doi")
            ),
            ""
        );
        return text.ToString();

        void Add(string before, string part, string behind)
        {
            if (part.Length > 0)
                text.Append(before).Append(part).Append(behind);
        }
    }

    /// <summary>Writes what stands in an element.</summary>
    private void Inline(XElement of, int level)
    {
        if (level > Deepest)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                "The parts of the file are nested too deeply; it was refused."
            );
        foreach (var node in of.Nodes())
            switch (node)
            {
                case XText text:
                    into.Append(Html(text.Value));
                    break;
                case XElement { Name.LocalName: "xref" } link:
                    into.Append("<a href=\"#").Append(Html((string?)link.Attribute("rid") ?? "")).Append("\">");
                    Inline(link, level + 1);
                    into.Append("</a>");
                    break;
                case XElement { Name.LocalName: "ext-link" or "uri" } link:
                    var to = link.Attributes().FirstOrDefault(a => a.Name.LocalName == "href")?.Value ?? Words(link);
                    into.Append("<a href=\"").Append(Html(to)).Append("\">");
                    Inline(link, level + 1);
                    into.Append("</a>");
                    break;
                case XElement { Name.LocalName: "break" }:
                    into.Append("<br>");
                    break;
                case XElement { Name: { NamespaceName: "http://www.w3.org/1998/Math/MathML", LocalName: "math" } } math:
                    Formula(math);
                    break;
                case XElement { Name.LocalName: "p" } paragraph
                    when of.Name.LocalName is "p" or "title" or "td" or "th" or "caption":
                    Inline(paragraph, level + 1);
                    into.Append(' ');
                    break;
                case XElement { Name.LocalName: "alternatives" } several:
                    // One of several ways to say the same.
                    if (several.Elements().FirstOrDefault(e => e.Name.LocalName == "math") is { } formula)
                        Formula(formula);
                    else if (
                        several
                            .Elements()
                            .FirstOrDefault(e => e.Name.LocalName.EndsWith("graphic", StringComparison.Ordinal)) is
                        { } image
                    )
                        Image(image);
                    break;
                case XElement { Name.LocalName: "fn" or "label" } when of.Name.LocalName == "p":
                    break;
                case XElement
                {
                    Name.LocalName: "styled-content"
                        or "named-content"
                        or "sc"
                        or "abbrev"
                        or "email"
                        or "roman"
                        or "inline-formula"
                } plain:
                    Inline(plain, level + 1);
                    break;
                case XElement part:
                    Part(part, level + 1);
                    break;
            }
    }

    private void Formula(XElement math)
    {
        into.Append('<').Append(math.Name.LocalName).Append('>');
        foreach (var node in math.Nodes())
            if (node is XText text)
                into.Append(Html(text.Value));
            else if (node is XElement part)
                Formula(part);
        into.Append("</").Append(math.Name.LocalName).Append('>');
    }

    private void Open(string tag, XElement of)
    {
        into.Append('<').Append(tag);
        if ((string?)of.Attribute("id") is { Length: > 0 } id)
            into.Append(" id=\"").Append(Html(id)).Append('"');
        into.Append('>');
    }

    private void Line(string text)
    {
        if (text.Length > 0)
            into.Append("<p>").Append(Html(text)).Append("</p>");
    }

    private static XElement? Child(XElement? of, string name) =>
        of?.Elements().FirstOrDefault(e => e.Name.LocalName == name);

    private static string Words(XElement? of) => of is null ? "" : Blanks.Single(of.Value);

    private static string Html(string text) => WebUtility.HtmlEncode(text);
}
