using System.IO.Compression;
using System.Text;
using Zendle.Core.FullText;
using Zendle.Documents;
using Zendle.Documents.Reading;

namespace Zendle.Server.Tests;

/// <summary>EPUBs of several dresses are read like any text; broken and hostile ones end in a sentence.</summary>
public sealed class EpubTests
{
    private const string Container = """
        <?xml version="1.0"?><container xmlns="urn:oasis:names:tc:opendocument:xmlns:container" version="1.0"><rootfiles>
        <rootfile full-path="EPUB/my book.opf" media-type="application/oebps-package+xml"/></rootfiles></container>
        """;

    private const string Package = """
        <?xml version="1.0" encoding="UTF-8"?><package xmlns="http://www.idpf.org/2007/opf" version="2.0">
        <manifest><item id="c2" href="two%20parts.xhtml"/><item id="c1" href="../text/one.xhtml"/><item id="cover" href="cover.xhtml"/>
        <item id="away" href="http://elsewhere.example/three.xhtml"/></manifest>
        <spine toc="ncx"><itemref idref="cover" linear="no"/><itemref idref="c1"/><itemref idref="c2"/><itemref idref="away"/>
        <itemref idref="missing"/></spine></package>
        """;

    private const string One = """
        <?xml version="1.0"?><!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.1//EN" "http://www.w3.org/TR/xhtml11/DTD/xhtml11.dtd">
        <html xmlns="http://www.w3.org/1999/xhtml"><head><title/><script src="x.js"/></head><body><h1>What <i>moths</i> carry</h1>
        <p>Ada Vossmann, Bo&nbsp;Lind</p><h2>Introduction</h2>
        <p>Moths visit flowers<a id="here"/> at night <a href="../EPUB/two%20parts.xhtml#r1">[1]</a>.
        Nobody knows why.<br/>It is dark.</p><img src="../pictures/a.png" alt="Counts"/><img src="../../../etc/passwd"/></body></html>
        """;

    private const string Two = """
        <html xmlns="http://www.w3.org/1999/xhtml"><body><h2>Results</h2><p>They carried more than anyone had counted before in hedges.</p>
        <h2>References</h2><ol><li id="r1">Lind B. 2003. Night flowers. Journal of Dusk 4: 1-9.</li></ol></body></html>
        """;

    private static readonly byte[] Png = [0x89, (byte)'P', (byte)'N', (byte)'G', 13, 10, 26, 10, 0, 0, 0, 13];

    private static byte[] Zip(params (string Name, byte[] Bytes)[] entries)
    {
        using var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, bytes) in entries)
            {
                using var stream = zip.CreateEntry(
                        name,
                        name == "mimetype" ? CompressionLevel.NoCompression : CompressionLevel.Optimal
                    )
                    .Open();
                stream.Write(bytes);
            }
        return to.ToArray();
    }

    private static byte[] Bytes(string text) => Encoding.UTF8.GetBytes(text);

    private static byte[] Book(
        string container = Container,
        string package = Package,
        params (string, byte[])[] more
    ) =>
        Zip([
            ("mimetype", "application/epub+zip"u8.ToArray()),
            ("META-INF/container.xml", Bytes(container)),
            ("EPUB/my book.opf", Bytes(package)),
            ("text/one.xhtml", Bytes(One)),
            ("EPUB/two parts.xhtml", Bytes(Two)),
            ("EPUB/cover.xhtml", "<html><body><p>A cover that nobody reads</p></body></html>"u8.ToArray()),
            ("pictures/a.png", Png),
            .. more,
        ]);

    [Fact]
    public void The_documents_of_the_spine_are_one_text_in_their_order()
    {
        var facts = DocumentText.Read(Book(), DocumentLimits.Usual);
        Assert.Equal(TextFormat.Epub, facts.Format);
        Assert.Equal("What moths carry", facts.Lines[0].Text);
        Assert.Equal(["Introduction", "Results", "References"], facts.Headings.Select(h => h.Text));
        Assert.Equal(["Lind B. 2003. Night flowers. Journal of Dusk 4: 1-9."], facts.References);
        // The link leads to another file of the book.
        Assert.Equal("Moths visit flowers at night [1].", Assert.Single(facts.Citations).Text);
        Assert.DoesNotContain("cover", facts.Text.Single().Text, StringComparison.Ordinal);
    }

    [Fact]
    public void Pictures_of_the_archive_are_shown_and_nothing_outside_it_is_asked_for()
    {
        var readable = DocumentText.Readable(Book());
        Assert.Equal(
            [$"data:image/png;base64,{Convert.ToBase64String(Png)}"],
            readable.Figures.Where(f => f.StartsWith("data:", StringComparison.Ordinal))
        );
        Assert.DoesNotContain("script", readable.Html, StringComparison.OrdinalIgnoreCase);
        Assert.DoesNotContain("elsewhere", readable.Html, StringComparison.Ordinal);
    }

    [Fact]
    public void An_archive_that_unpacks_to_too_much_is_refused() => Assert.Equal(DocumentFault.TooHeavy, Fault(Bomb()));

    private static byte[] Bomb() =>
        Zip(
            ("mimetype", "application/epub+zip"u8.ToArray()),
            ("META-INF/container.xml", Bytes(Container)),
            ("EPUB/my book.opf", Bytes(Package)),
            ("text/one.xhtml", new byte[120_000_000])
        );

    [Fact]
    public void What_is_cut_off_or_lacks_its_parts_is_told_so()
    {
        var whole = Book();
        Assert.Equal(DocumentFault.Damaged, Fault(whole[..(whole.Length * 2 / 3)]));
        Assert.Equal(DocumentFault.Damaged, Fault(Book(container: "<container/>")));
        Assert.Equal(
            DocumentFault.Damaged,
            Fault(Book(container: Container.Replace("my book", "other", StringComparison.Ordinal)))
        );
        Assert.Equal(DocumentFault.Damaged, Fault(Book(package: "<package>")));
        Assert.Equal(DocumentFault.NoLetters, Fault(Book(package: "<package/>")));
        // An archive of another kind is no document.
        Assert.Equal(DocumentFault.NotADocument, Fault(Zip(("letter.txt", "Hello"u8.ToArray()))));
    }

    [Fact]
    public void Entities_that_a_part_declares_are_not_read() =>
        Assert.Equal(
            DocumentFault.Damaged,
            Fault(
                Book(
                    package: "<!DOCTYPE package [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><package><a>&x;</a></package>"
                )
            )
        );

    private static DocumentFault Fault(byte[] file) =>
        Assert.Throws<DocumentFaultException>(() => DocumentText.Read(file, DocumentLimits.Usual)).Fault;
}
