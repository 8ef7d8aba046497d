using System.IO.Compression;
using System.Text;

namespace Zendle.Outside.Documents;

/// <summary>Writes a paper as an EPUB (EPUB 3.3): its page cut into two documents, with its figure.</summary>
public static class ArticleEpub
{
    private const string Figure = "figure-1.png";

    /// <summary>The file.</summary>
    /// <param name="paper">The paper.</param>
    /// <param name="figure">Its figure.</param>
    public static byte[] Of(Paper paper, byte[] figure)
    {
        var page = ArticlePage.Html(paper, ".");
        var article = page[page.IndexOf("<article", StringComparison.Ordinal)..];
        article = article[
            (article.IndexOf('>', StringComparison.Ordinal) + 1)..article.IndexOf(
                "</article>",
                StringComparison.Ordinal
            )
        ];
        var cut = article.IndexOf("<h2", article.Length / 3, StringComparison.Ordinal);
        using var to = new MemoryStream();
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            // First, and not compressed, so that the file is known by its beginning.
            Put(zip, "mimetype", "application/epub+zip"u8.ToArray(), CompressionLevel.NoCompression);
            Put(
                zip,
                "META-INF/container.xml",
                """
                <?xml version="1.0"?><container version="1.0" xmlns="urn:oasis:names:tc:opendocument:xmlns:container">
                <rootfiles><rootfile full-path="OPS/package.opf" media-type="application/oebps-package+xml"/></rootfiles></container>
                """
            );
            Put(
                zip,
                "OPS/package.opf",
                """
                <?xml version="1.0"?><package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="id">
                <metadata xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="id">urn:made-up</dc:identifier></metadata>
                <manifest><item id="b" href="text/2.xhtml" media-type="application/xhtml+xml"/>
                <item id="a" href="text/1.xhtml" media-type="application/xhtml+xml"/>
                <item id="f" href="text/figure-1.png" media-type="image/png"/></manifest>
                <spine><itemref idref="a"/><itemref idref="b"/></spine></package>
                """
            );
            Put(zip, "OPS/text/1.xhtml", Document(article[..cut]));
            Put(zip, "OPS/text/2.xhtml", Document(article[cut..]));
            Put(zip, $"OPS/text/{Figure}", figure, CompressionLevel.NoCompression);
        }
        return to.ToArray();
    }

    private static string Document(string body) =>
        $"<?xml version=\"1.0\"?><html xmlns=\"http://www.w3.org/1999/xhtml\"><head><title/></head><body>{body}</body></html>";

    private static void Put(ZipArchive zip, string name, string text) =>
        Put(zip, name, Encoding.UTF8.GetBytes(text), CompressionLevel.Fastest);

    private static void Put(ZipArchive zip, string name, byte[] bytes, CompressionLevel level)
    {
        var entry = zip.CreateEntry(name, level);
        // The same paper is the same file.
        entry.LastWriteTime = new(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);
        using var stream = entry.Open();
        stream.Write(bytes);
    }
}
