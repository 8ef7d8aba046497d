using System.Buffers.Binary;
using Zendle.Core.FullText;
using Zendle.Documents.Marked;
using Zendle.Documents.Pdf;

namespace Zendle.Documents.Reading;

/// <summary>Reads a document of any format that is taken. Run it where it can do no harm: see <see cref="DocumentReader"/>.</summary>
public static class DocumentText
{
    /// <summary>Most bytes of a format that is read as a whole.</summary>
    private const int MostMarked = 40_000_000;

    /// <summary>The facts of a document.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="limits">When to give up.</param>
    /// <exception cref="DocumentFaultException">The file is no readable document.</exception>
    public static DocumentFacts Read(byte[] file, DocumentLimits limits)
    {
        var format = FormatOf(file);
        return format == TextFormat.Pdf ? PdfText.Read(file, limits) : MarkedFacts.Of(Marked(file, format), format);
    }

    /// <summary>A document that is no PDF as it is shown.</summary>
    /// <param name="file">The whole file.</param>
    /// <exception cref="DocumentFaultException">The file is no readable document, or a PDF.</exception>
    public static ReadableText Readable(byte[] file)
    {
        var format = FormatOf(file);
        return format == TextFormat.Pdf
            ? throw new DocumentFaultException(DocumentFault.NotADocument, "A PDF is shown page by page.")
            : ReadableText.Of(Marked(file, format));
    }

    /// <summary>Pages of a PDF as a file of their own.</summary>
    /// <param name="asked">The first and the last page, four bytes each (little-endian), and the whole file.</param>
    /// <exception cref="DocumentFaultException">They cannot be cut out.</exception>
    public static byte[] Cut(byte[] asked) =>
        PdfCut.Of(
            asked[8..],
            new(BinaryPrimitives.ReadInt32LittleEndian(asked), BinaryPrimitives.ReadInt32LittleEndian(asked.AsSpan(4)))
        );

    private static TextFormat FormatOf(byte[] file)
    {
        if (file.Length == 0)
            throw new DocumentFaultException(DocumentFault.Empty, "The file is empty.");
        return TextFormats.Of(file)
            ?? throw new DocumentFaultException(
                DocumentFault.NotADocument,
                "The file is not a PDF, web page, JATS XML article, EPUB or plain text."
            );
    }

    private static MarkedText Marked(byte[] file, TextFormat format)
    {
        if (file.Length > MostMarked)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                $"The file is larger than {MostMarked / 1_000_000} MB, which no article is; it was refused."
            );
        return MarkedText.Read(
            format switch
            {
                TextFormat.Jats => JatsHtml.Of(file),
                TextFormat.Epub => EpubHtml.Of(file),
                TextFormat.Plain => PlainHtml.Of(PageText.Of(file)),
                _ => PageText.Of(file),
            }
        );
    }
}
