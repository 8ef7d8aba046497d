using System.IO.Compression;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using AngleSharp.Dom;
using AngleSharp.Html.Parser;
using Zendle.Core.FullText;
using Zendle.Core.Text;

namespace Zendle.Documents.Marked;

/// <summary>
/// Writes an EPUB (EPUB 3.3, W3C; EPUB 2.0.1) as one page: the documents of its spine in their order, with the pictures they
/// show put into them. What lies outside the archive is not asked for.
/// </summary>
/// <remarks>
/// Read with the archive and XML readers of .NET rather than a package for electronic books: those take all of a book into
/// memory, whatever it unpacks to.
/// </remarks>
internal static partial class EpubHtml
{
    private const long MostUnpacked = 80_000_000;
    private const int MostEntries = 10_000,
        MostPicture = 8_000_000,
        MostPictures = 9_000_000;

    /// <summary>Writes a file as a page.</summary>
    /// <param name="file">The file.</param>
    /// <exception cref="DocumentFaultException">It is no such book, cut off, or unpacks to too much.</exception>
    public static string Of(byte[] file)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
            if (zip.Entries.Count > MostEntries)
                throw TooMuch();
            return new Book(zip).Page();
        }
        catch (Exception e) when (e is InvalidDataException or XmlException or IOException)
        {
            throw new DocumentFaultException(
                DocumentFault.Damaged,
                "The EPUB is cut off or damaged: its parts cannot be unpacked.",
                e
            );
        }
    }

    private static DocumentFaultException TooMuch() =>
        new(DocumentFault.TooHeavy, "The EPUB unpacks to more than a book has; it was refused.");

    /// <summary>An archive that is being read; it counts what it unpacks.</summary>
    private sealed class Book(ZipArchive zip)
    {
        private readonly Dictionary<string, ZipArchiveEntry> entries = zip
            .Entries.GroupBy(e => e.FullName, StringComparer.Ordinal)
            .ToDictionary(g => g.Key, g => g.First(), StringComparer.Ordinal);

        private long left = MostUnpacked;

        // What is shown goes from process to process in one piece.
        private int pictures = MostPictures;

        public string Page()
        {
            var container = Xml("META-INF/container.xml");
            var package = container
                .Descendants()
                .FirstOrDefault(e => e.Name.LocalName == "rootfile")
                ?.Attribute("full-path")
                ?.Value;
            if (package is null)
                throw new InvalidDataException("The container names no package.");
            var opf = Xml(package);
            var manifest = opf.Descendants()
                .Where(e => e.Name.LocalName == "item" && e.Attribute("id") is not null)
                .GroupBy(e => e.Attribute("id")!.Value)
                .ToDictionary(g => g.Key, g => g.First().Attribute("href")?.Value ?? "");
            var page = new StringBuilder("<html><body><article>");
            foreach (var item in opf.Descendants().Where(e => e.Name.LocalName == "itemref"))
                if (
                    item.Attribute("linear")?.Value != "no"
                    && manifest.TryGetValue(item.Attribute("idref")?.Value ?? "", out var href)
                    && Inside(package, href) is { } path
                    && entries.ContainsKey(path)
                )
                    Add(page, path);
            return page.Append("</article></body></html>").ToString();
        }

        private void Add(StringBuilder page, string path)
        {
            // As XHTML an element may end where it begins; in HTML it would go on to the end of the page.
            var xhtml = Ended()
                .Replace(
                    Text(path),
                    m => IsVoid(m.Groups[1].Value) ? m.Value : $"<{m.Groups[1]}{m.Groups[2]}></{m.Groups[1]}>"
                );
            using var document = new HtmlParser().ParseDocument(xhtml);
            if (document.Body is not { } body)
                return;
            foreach (var picture in body.QuerySelectorAll("img[src],image[href]"))
                if (Picture(path, picture.GetAttribute("src") ?? picture.GetAttribute("href")) is { } data)
                    picture.SetAttribute("src", data);
            // Parts of the book that lay in other files lie in this page now.
            foreach (var link in body.QuerySelectorAll("a[href]"))
                if (link.GetAttribute("href") is { } to && to.IndexOf('#', StringComparison.Ordinal) is > 0 and var at)
                    if (!to.Contains("://", StringComparison.Ordinal))
                        link.SetAttribute("href", to[at..]);
            page.Append("<section>").Append(body.InnerHtml).Append("</section>");
        }

        private string? Picture(string from, string? address)
        {
            if (
                address is null
                || Inside(from, address) is not { } path
                || !entries.TryGetValue(path, out var entry)
                || entry.Length > Math.Min(MostPicture, pictures)
            )
                return null;
            var bytes = Bytes(entry);
            pictures -= bytes.Length;
            return FigureFormats.TypeOf(bytes) is { } type
                ? $"data:{type};base64,{Convert.ToBase64String(bytes)}"
                : null;
        }

        /// <summary>The path in the archive that an address in one of its files means; null for one outside.</summary>
        private static string? Inside(string from, string address)
        {
            var root = new Uri("epub://book/");
            return
                Uri.TryCreate(
                    new Uri(root, Uri.EscapeDataString(from).Replace("%2F", "/", StringComparison.Ordinal)),
                    address,
                    out var at
                )
                && at.Scheme == root.Scheme
                ? Uri.UnescapeDataString(at.AbsolutePath).TrimStart('/')
                : null;
        }

        private XElement Xml(string path)
        {
            if (!entries.TryGetValue(path, out var entry))
                throw new InvalidDataException("A part that the archive names is not in it.");
            using var reader = XmlReader.Create(
                new MemoryStream(Bytes(entry)),
                new() { DtdProcessing = DtdProcessing.Ignore, XmlResolver = null }
            );
            return XElement.Load(reader);
        }

        private string Text(string path)
        {
            using var reader = new StreamReader(new MemoryStream(Bytes(entries[path])), Encoding.UTF8);
            return reader.ReadToEnd();
        }

        /// <summary>What an entry unpacks to; what the archive says of its length is not believed.</summary>
        private byte[] Bytes(ZipArchiveEntry entry)
        {
            using var stream = entry.Open();
            using var to = new MemoryStream();
            var buffer = new byte[81_920];
            for (int n; (n = stream.Read(buffer)) > 0; )
            {
                if ((left -= n) < 0)
                    throw TooMuch();
                to.Write(buffer, 0, n);
            }
            return to.ToArray();
        }
    }

    private static bool IsVoid(string name) =>
        name.ToLowerInvariant()
            is "area"
                or "base"
                or "br"
                or "col"
                or "embed"
                or "hr"
                or "img"
                or "input"
                or "link"
                or "meta"
                or "source"
                or "track"
                or "wbr";

    [GeneratedRegex(
        @"<([a-zA-Z][\w:.-]{0,40})((?:\s[^<>]{0,4000})?)/>",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Ended();
}
