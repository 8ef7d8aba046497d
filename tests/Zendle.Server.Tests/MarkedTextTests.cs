extern alias outside;
using System.Text;
using CsCheck;
using outside::Zendle.Outside.Documents;
using outside::Zendle.Outside.World;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Documents;
using Zendle.Documents.Reading;

namespace Zendle.Server.Tests;

/// <summary>Texts that are web pages, JATS XML or plain text: what they say, and how they are shown.</summary>
public sealed class MarkedTextTests
{
    private const string Page = """
        <!doctype html><html><head><meta charset="utf-8"><title>Moths | A press</title><script>var a = "<p>x</p>";</script></head>
        <body><nav><ul><li>Journals</li></ul></nav>
        <main><h1>What <em>moths</em> carry</h1><p>Ada Vossmann, Bo Lind</p><p>https://doi.org/10.5555/m.1</p>
        <h2>Abstract</h2><p>Moths carry pollen at night, which few have counted.</p>
        <h2>Introduction</h2>
        <p>Moths visit flowers.<sup><a href="#r1">1</a>,<a href="#r2">2</a></sup>
        Lamps draw them away <a href="#r2">(Berg 2010)</a>. Nobody knows why.</p>
        <h3>Aims</h3><p>We counted them.</p>
        <figure><img src="f/one.png" alt="Counts"><figcaption>Figure 1. Counts.</figcaption></figure>
        <table><caption>Table 1</caption><tr><th>Year</th><th colspan="2">Moths</th></tr><tr><td>2001</td><td>4</td><td>5</td></tr></table>
        <h2>References</h2><ol><li id="r1">Lind B. 2003. Night flowers. Journal of Dusk 4: 1-9.</li>
        <li><span id="r2"></span>Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.</li></ol>
        <h2>Thanks</h2><p>To all who held a lamp for us in those nights.</p></main>
        <aside><h2>Also here</h2><p>Another article about something else altogether.</p></aside></body></html>
        """;

    private const string Article = """
        <?xml version="1.0" encoding="UTF-8"?>
        <!DOCTYPE article PUBLIC "-//NLM//DTD JATS (Z39.96) Journal Archiving and Interchange DTD v1.2 20190208//EN"
          "JATS-archivearticle1.dtd">
        <article xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:mml="http://www.w3.org/1998/Math/MathML" article-type="research-article">
        <front><journal-meta><journal-title-group><journal-title>Journal of Dusk</journal-title></journal-title-group></journal-meta>
        <article-meta><article-id pub-id-type="pmid">77</article-id><article-id pub-id-type="doi">10.5555/m.1</article-id>
        <title-group><article-title>What <italic>moths</italic> carry</article-title><subtitle>a count</subtitle></title-group>
        <contrib-group><contrib contrib-type="author"><name><surname>Vossmann</surname><given-names>Ada</given-names></name></contrib>
        <contrib contrib-type="editor"><name><surname>Nobody</surname></name></contrib>
        <contrib contrib-type="author"><collab>Night Group</collab></contrib></contrib-group>
        <pub-date><day>3</day><year>2019</year></pub-date><volume>12</volume><issue>3</issue><fpage>45</fpage><lpage>67</lpage>
        <history><date date-type="received"><year>2018</year><month>5</month></date>
        <date date-type="accepted"><year>2019</year></date></history>
        <abstract><p>Moths carry pollen at night, which few have counted.</p></abstract></article-meta></front>
        <body><sec id="s1"><label>1</label><title>Introduction</title>
        <p>Moths visit flowers <xref ref-type="bibr" rid="B2">[2]</xref>. See <xref ref-type="fig" rid="F1">Figure 1</xref>.</p>
        <sec><title>Aims</title>
        <p>We counted <inline-formula><mml:math><mml:msup><mml:mi>x</mml:mi><mml:mn>2</mml:mn></mml:msup></mml:math></inline-formula>
        of them.</p></sec>
        <fig id="F1"><label>Figure 1</label><caption><p>Counts.</p></caption><graphic xlink:href="one.png"/></fig>
        <table-wrap><label>Table 1</label><table><tbody><tr><td colspan="2" onclick="x()">4</td></tr></tbody></table></table-wrap>
        <list list-type="order"><list-item><p>One</p></list-item></list></sec></body>
        <back><ref-list><title>Cited works of all kinds</title>
        <ref id="B1"><element-citation>
        <person-group><name><surname>Lind</surname><given-names>B</given-names></name></person-group>
        <article-title>Night flowers</article-title><source>Journal of Dusk</source><year>2003</year>
        <volume>4</volume><fpage>1</fpage><lpage>9</lpage>
        <pub-id pub-id-type="doi">10.5555/n.2</pub-id></element-citation></ref>
        <ref id="B2"><label>2</label>
        <mixed-citation>Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.</mixed-citation></ref></ref-list></back></article>
        """;

    private static byte[] Bytes(string text) => Encoding.UTF8.GetBytes(text);

    private static DocumentFacts Read(string text) => DocumentText.Read(Bytes(text), DocumentLimits.Usual);

    [Fact]
    public void A_page_is_read_without_what_stands_around_its_article()
    {
        var facts = Read(Page);
        Assert.Equal(TextFormat.Html, facts.Format);
        Assert.Equal("What moths carry", facts.Lines[0].Text);
        Assert.True(facts.Lines[0].Size > facts.BodySize);
        Assert.Equal(["Abstract", "Introduction", "Aims", "References", "Thanks"], facts.Headings.Select(h => h.Text));
        Assert.DoesNotContain(facts.Lines, l => l.Text.Contains("Another article", StringComparison.Ordinal));
        Assert.DoesNotContain(facts.Lines, l => l.Text.Contains("Journals", StringComparison.Ordinal));
        // Of its running text alone: twelve words of the introduction, three of the aims, eleven of the thanks.
        Assert.Equal(12 + 3 + 11, facts.WordCount);
        Assert.Equal(
            [
                "Lind B. 2003. Night flowers. Journal of Dusk 4: 1-9.",
                "Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.",
            ],
            facts.References
        );
    }

    [Fact]
    public void Links_to_entries_are_citations_raised_numbers_too()
    {
        var cited = Read(Page).Citations;
        Assert.Equal(["Moths visit flowers.", "Lamps draw them away (Berg 2010)."], cited.Select(c => c.Text));
        Assert.Equal([0, 1], cited[0].Entries);
        Assert.Equal([1], cited[1].Entries);
        Assert.Equal("Moths visit flowers. Lamps draw them away (Berg 2010). Nobody knows why.", cited[1].Near);
    }

    [Fact]
    public void A_page_is_shown_with_its_figures_tables_and_places_and_nothing_that_acts()
    {
        var shown = DocumentText.Readable(Bytes(Page));
        Assert.Equal(["f/one.png"], shown.Figures);
        Assert.Contains("<img alt=\"Counts\" data-figure=\"0\">", shown.Html, StringComparison.Ordinal);
        Assert.Contains("<th colspan=\"2\">Moths</th>", shown.Html, StringComparison.Ordinal);
        Assert.Contains("<a href=\"#t-x-r2\">", shown.Html, StringComparison.Ordinal);
        Assert.Contains("id=\"t-x-r2\"", shown.Html, StringComparison.Ordinal);
        Assert.Equal((2, 3), (shown.Headings[1].Level, shown.Headings[2].Level));
        Assert.All(shown.Headings, h => Assert.Contains($"id=\"{h.Id}\"", shown.Html, StringComparison.Ordinal));
        Assert.DoesNotContain("script", shown.Html, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("Another article", shown.Html, StringComparison.Ordinal);
    }

    [Fact]
    public void An_article_in_jats_says_the_same()
    {
        var facts = Read(Article);
        Assert.Equal(TextFormat.Jats, facts.Format);
        Assert.Equal(
            [
                "What moths carry: a count",
                "Ada Vossmann, Night Group",
                "Journal of Dusk 12(3), 2019, 45–67",
                "received 2018-5; accepted 2019",
                "https://doi.org/10.5555/m.1",
                "Abstract",
            ],
            facts.FirstPage.Take(6)
        );
        Assert.Equal(["Abstract", "1 Introduction", "Aims", "References"], facts.Headings.Select(h => h.Text));
        Assert.Equal(
            [
                "Lind B (2003). Night flowers. Journal of Dusk, 4, 1–9. doi:10.5555/n.2",
                "Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.",
            ],
            facts.References
        );
        Assert.Equal([1], Assert.Single(facts.Citations).Entries);
        Assert.Equal("Moths visit flowers [2].", facts.Citations[0].Text);
        Assert.Equal(WorkVersion.VersionOfRecord, VersionSigns.Of(facts));

        var shown = DocumentText.Readable(Bytes(Article));
        Assert.Equal(["one.png"], shown.Figures);
        Assert.Contains("<msup><mi>x</mi><mn>2</mn></msup>", shown.Html, StringComparison.Ordinal);
        Assert.Contains("<td colspan=\"2\">4</td>", shown.Html, StringComparison.Ordinal);
        Assert.Contains("<ol><li><p>One</p></li></ol>", shown.Html, StringComparison.Ordinal);
        Assert.Contains("<a href=\"#t-x-F1\">Figure 1</a>", shown.Html, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(
        "<!DOCTYPE article [<!ENTITY a \"b\">]><article article-type=\"x\"><front><article-meta><title-group>"
            + "<article-title>&a;</article-title></title-group></article-meta></front></article>"
    )]
    [InlineData(
        "<!DOCTYPE article [<!ENTITY a SYSTEM \"file:///etc/passwd\">]><article dtd-version=\"1\"><body><p>&a;</p></body></article>"
    )]
    [InlineData("<article article-type=\"x\"><front><article-meta>")]
    public void Entities_are_never_read_and_what_is_cut_off_is_told(string xml)
    {
        var fault = Assert.Throws<DocumentFaultException>(() => Read(xml));
        Assert.Equal(DocumentFault.Damaged, fault.Fault);
    }

    [Fact]
    public void What_lies_too_deep_or_says_nothing_is_refused_in_a_sentence()
    {
        var deep = string.Concat(Enumerable.Repeat("<sec>", 5_000)) + string.Concat(Enumerable.Repeat("</sec>", 5_000));
        Assert.Equal(
            DocumentFault.TooHeavy,
            Assert
                .Throws<DocumentFaultException>(() =>
                    Read($"<article article-type=\"x\"><body>{deep}</body></article>")
                )
                .Fault
        );
        Assert.Equal(
            DocumentFault.NoLetters,
            Assert.Throws<DocumentFaultException>(() => Read("<html><body><img src=x></body></html>")).Fault
        );
        Assert.Equal(DocumentFault.Empty, Assert.Throws<DocumentFaultException>(() => Read("")).Fault);
    }

    [Theory]
    [InlineData("%PDF-1.7", TextFormat.Pdf)]
    [InlineData("\n\n<!DOCTYPE HTML><p>x", TextFormat.Html)]
    [InlineData("<?xml version='1.0'?><html xmlns='http://www.w3.org/1999/xhtml'>", TextFormat.Html)]
    [InlineData("<article class='post'><h1>x</h1>", TextFormat.Html)]
    [InlineData("<!-- a <b> --><article xml:lang='en' article-type='x'>", TextFormat.Jats)]
    [InlineData("<?xml version='1.0'?>\n<jats:article xmlns:jats='u' dtd-version='1.1'>", TextFormat.Jats)]
    [InlineData("What moths carry\n\nAda Vossmann", TextFormat.Plain)]
    public void A_format_is_told_by_what_stands_in_the_file(string start, TextFormat format) =>
        Assert.Equal(format, TextFormats.Of(Bytes(start)));

    [Fact]
    public void What_is_no_text_has_no_format()
    {
        Assert.Null(TextFormats.Of([]));
        Assert.Null(TextFormats.Of([80, 75, 3, 4, 0, 0]));
        Assert.Null(TextFormats.Of([.. Enumerable.Range(1, 31).Select(n => (byte)n)]));
    }

    [Theory]
    [InlineData("utf-8", true)]
    [InlineData("windows-1252", false)]
    [InlineData("iso-8859-15", true)]
    [InlineData("utf-16", false)]
    public void Letters_are_read_in_the_encoding_they_are_written_in(string name, bool says)
    {
        Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);
        var encoding = Encoding.GetEncoding(name);
        var html =
            $"<html><head>{(says ? $"<meta charset=\"{name}\">" : "")}</head><body>"
            + "<h1>Über die Nachtfalter und das Licht der Städte – müde</h1></body></html>";
        if (name == "iso-8859-15")
            html = html.Replace("–", "-", StringComparison.Ordinal);
        byte[] file = [.. encoding.GetPreamble(), .. encoding.GetBytes(html)];
        Assert.StartsWith(
            "Über die Nachtfalter und das Licht der Städte",
            DocumentText.Read(file, DocumentLimits.Usual).Lines[0].Text,
            StringComparison.Ordinal
        );
    }

    [Fact]
    public void Plain_text_has_paragraphs_and_a_list()
    {
        var facts = Read(
            "What moths carry\n\nAda Vossmann\n\nMoths visit\nflowers (Berg 2010). Lamps draw them.\n\n"
                + "REFERENCES\n\nBerg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.\n"
        );
        Assert.Equal(TextFormat.Plain, facts.Format);
        Assert.Equal(
            ["What moths carry", "Ada Vossmann", "Moths visit flowers (Berg 2010). Lamps draw them."],
            facts.FirstPage.Take(3)
        );
        Assert.Equal(["Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19."], facts.References);
        Assert.Equal("Moths visit flowers (Berg 2010).", Assert.Single(facts.Citations).Text);
    }

    [Theory]
    [InlineData("<p onclick=x()>a</p>")]
    [InlineData("<img src=x onerror=alert(1)>")]
    [InlineData("<svg onload=alert(1)><a xlink:href=javascript:x()>b</a></svg>")]
    [InlineData("<a href=\"java&#10;script:alert(1)\">c</a>")]
    [InlineData("<a href=\"data:text/html,x\">c</a><a href=\"/r/1/report\">inside</a><base href=//evil.example>")]
    [InlineData("<math><mtext><style><img src=x onerror=alert(1)></style></mtext></math>")]
    [InlineData("<iframe srcdoc=\"<script>x</script>\"></iframe><object data=x></object><embed src=x>")]
    [InlineData(
        "<div style=\"background:url(//evil.example/x)\" class=fixed>d</div><link rel=stylesheet href=//evil.example>"
    )]
    [InlineData("<meta http-equiv=refresh content=0><form action=//evil.example><input></form>")]
    [InlineData("<noscript><p title=\"</noscript><img src=x onerror=alert(1)>\">")]
    public void Nothing_that_acts_or_reaches_out_is_shown(string part)
    {
        var html = DocumentText
            .Readable(
                Bytes($"<html><body><h1>A title long enough to count as the words of a text</h1>{part}</body></html>")
            )
            .Html;
        foreach (
            var odd in (string[])
                [
                    "onerror",
                    "onload",
                    "onclick",
                    "javascript:",
                    "<script",
                    "<iframe",
                    "<object",
                    "<embed",
                    "<style",
                    "<link",
                    "<meta",
                    "<form",
                    "<input",
                    "<svg",
                    "<base",
                    "style=",
                    "class=",
                    " src=",
                    "evil.example",
                    "data:text",
                    "/r/1/report",
                ]
        )
            Assert.DoesNotContain(odd, html, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public void No_page_breaks_the_reader_or_acts() =>
        Gen.OneOf(
                "<",
                ">",
                "</",
                "<p>",
                "<ol><li id=r>",
                "<h2>References</h2>",
                "<h1>",
                "<table><tr><td>",
                "<img src='",
                "\"",
                "'",
                " onerror=x",
                "<a href='#r'>",
                "javascript:",
                "<script>",
                "<!--",
                "-->",
                "&lt;",
                "\uE000",
                "word ",
                "<sup>",
                "<math>",
                "<style>",
                "]]>",
                "<![CDATA[",
                "<template>",
                "<svg>"
            )
            .Array[1, 60]
            .Sample(
                parts =>
                {
                    var file = Bytes(
                        $"<html><body><p>Words enough that there is something to be read in this page.</p>{string.Concat(parts)}"
                    );
                    Assert.True(DocumentText.Read(file, DocumentLimits.Usual).Lines.Count > 0);
                    var html = DocumentText.Readable(file).Html;
                    Assert.DoesNotContain("<script", html, StringComparison.OrdinalIgnoreCase);
                    Assert.DoesNotMatch("<[^>]* onerror", html);
                    Assert.DoesNotMatch("<[^>]* (?:src|style)=", html);
                },
                iter: 1_000
            );

    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(Scenario, 6, 900);

    [Fact]
    public void Pages_and_files_of_papers_pass_for_their_work_and_no_other_and_cite_what_it_cites()
    {
        var checkedWorks = 0;
        var articles = Works.Where(w => w.Type == "article" && w.Journal is not null && w.Language == "eng").ToArray();
        foreach (var (i, work) in articles.Take(40).Index())
        {
            var paper = Paper.Of(work, Works, Scenario, Look.Typeset);
            foreach (var file in (byte[][])[Bytes(ArticlePage.Html(paper, "/x")), ArticleXml.Jats(paper)])
            {
                var facts = DocumentText.Read(file, DocumentLimits.Usual);
                var check = DocumentCheck.Of(facts, Expected(work));
                Assert.Equal((DocumentVerdict.Agrees, "All checks agree."), (check.Verdict, check.Sentence));
                Assert.Equal(DocumentVerdict.Refused, DocumentCheck.Of(facts, Expected(articles[^(i + 1)])).Verdict);
                Assert.Equal(
                    paper.References.Select(r => string.Join(' ', r.Split(' ', StringSplitOptions.RemoveEmptyEntries))),
                    facts.References
                );
                Assert.Equal(
                    Enumerable.Range(0, work.Cites.Length),
                    facts.Citations.SelectMany(c => c.Entries).Distinct().Order()
                );
                checkedWorks++;
            }
        }
        Assert.Equal(80, checkedWorks);
    }

    [Fact]
    public void A_page_with_the_abstract_alone_is_no_text()
    {
        var work = Works.First(w => w.Type == "article" && w.Abstract.Length > 200);
        var page =
            $"<html><body><h1>{work.Title}</h1><p>"
            + string.Join(", ", work.People.Select(p => $"{p.Given} {p.Family}"))
            + $"</p><h2>Abstract</h2><p>{work.Abstract}</p><h2>References</h2><ol>"
            + string.Concat(Enumerable.Repeat("<li>Berg M. 2010. Lamps and moths. Dusk Letters 2: 11-19.</li>", 60))
            + "</ol></body></html>";
        Assert.Equal(DocumentVerdict.Doubtful, DocumentCheck.Of(Read(page), Expected(work)).Verdict);
    }

    private static ExpectedWork Expected(Work work) =>
        new(
            [work.Title],
            [.. work.People.Select(p => new PersonName(p.Family, p.Given))],
            work.Doi is null ? [] : [work.Doi],
            work.Year,
            work.Abstract,
            DocumentType.Article
        );
}
