using System.Globalization;
using System.Text;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Outside.Documents;

/// <summary>Writes a paper as an article in JATS 1.3 (ANSI/NISO Z39.96-2021), with the document type such files name.</summary>
public static class ArticleXml
{
    private static readonly XNamespace Link = "http://www.w3.org/1999/xlink";

    /// <summary>The file.</summary>
    public static byte[] Jats(Paper paper)
    {
        var (w, cited) = (paper.Work, new LinkedCitations(paper));
        string N(int n) => n.ToString(CultureInfo.InvariantCulture);
        var article = new XElement(
            "article",
            new XAttribute("article-type", "research-article"),
            new XAttribute("dtd-version", "1.3"),
            new XAttribute(XNamespace.Xmlns + "xlink", Link),
            new XElement(
                "front",
                new XElement(
                    "journal-meta",
                    new XElement("journal-title-group", new XElement("journal-title", w.Journal?.Title)),
                    new XElement("issn", w.Journal?.Issn)
                ),
                new XElement(
                    "article-meta",
                    paper.Doi is null
                        ? null
                        : new XElement("article-id", new XAttribute("pub-id-type", "doi"), paper.Doi),
                    new XElement("article-version", new XAttribute("vocab", "JAV"), "Version of Record"),
                    new XElement("title-group", new XElement("article-title", paper.Title)),
                    new XElement(
                        "contrib-group",
                        w.People.Select(p => new XElement(
                            "contrib",
                            new XAttribute("contrib-type", "author"),
                            new XElement(
                                "name",
                                new XElement("surname", p.Family),
                                new XElement("given-names", p.Given)
                            )
                        ))
                    ),
                    new XElement("pub-date", new XElement("year", N(w.Year))),
                    new XElement("volume", w.Volume),
                    new XElement("fpage", N(w.FirstPage)),
                    new XElement("lpage", N(w.LastPage)),
                    new XElement("abstract", new XElement("p", w.Abstract)),
                    new XElement("kwd-group", w.Keywords.Select(k => new XElement("kwd", k)))
                )
            ),
            new XElement(
                "body",
                paper.Sections.Select(
                    (s, i) =>
                        new XElement(
                            "sec",
                            new XAttribute("id", $"s{i + 1}"),
                            new XElement("title", s.Heading),
                            s.Paragraphs.Select(p => Paragraph(p, cited)),
                            s.Heading == "Results" ? Table(paper.Counts) : null,
                            s.Heading == "Results" ? Figure(paper.Counts) : null
                        )
                )
            ),
            new XElement(
                "back",
                new XElement(
                    "ref-list",
                    new XElement("title", "References"),
                    paper.References.Select(
                        (r, i) =>
                            new XElement(
                                "ref",
                                new XAttribute("id", $"B{i + 1}"),
                                new XElement("label", N(i + 1)),
                                new XElement("mixed-citation", r)
                            )
                    )
                )
            )
        );
        using var to = new MemoryStream();
        using (
            var writer = XmlWriter.Create(to, new() { Encoding = new UTF8Encoding(false), OmitXmlDeclaration = false })
        )
        {
            writer.WriteStartDocument();
            writer.WriteDocType(
                "article",
                "-//NLM//DTD JATS (Z39.96) Journal Publishing DTD v1.3 20210610//EN",
                "JATS-journalpublishing1-3.dtd",
                null
            );
            article.WriteTo(writer);
        }
        return to.ToArray();
    }

    private static XElement Paragraph(string text, LinkedCitations cited) =>
        new(
            "p",
            cited
                .Of(text)
                .Select(
                    object (r) =>
                        r.Entry is { } entry
                            ? new XElement(
                                "xref",
                                new XAttribute("ref-type", "bibr"),
                                new XAttribute("rid", $"B{entry + 1}"),
                                r.Text
                            )
                            : new XText(r.Text)
                )
        );

    private static XElement Table(CountTable counts) =>
        new(
            "table-wrap",
            new XAttribute("id", "T1"),
            new XElement("label", "Table 1"),
            new XElement("caption", new XElement("p", "Counts by season.")),
            new XElement(
                "table",
                new XElement(
                    "thead",
                    new XElement(
                        "tr",
                        new XElement("th", "Season"),
                        new XElement("th", counts.Without),
                        new XElement("th", counts.With)
                    )
                ),
                new XElement(
                    "tbody",
                    counts.Rows.Select(r => new XElement(
                        "tr",
                        new XElement("td", r.Season),
                        new XElement("td", r.Without),
                        new XElement("td", r.With)
                    ))
                )
            )
        );

    private static XElement Figure(CountTable counts) =>
        new(
            "fig",
            new XAttribute("id", "F1"),
            new XElement("label", "Figure 1"),
            new XElement("caption", new XElement("p", $"Counts {counts.Without} and {counts.With} by season.")),
            new XElement("graphic", new XAttribute(Link + "href", "figure-1.png"))
        );
}
