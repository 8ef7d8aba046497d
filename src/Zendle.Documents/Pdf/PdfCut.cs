using UglyToad.PdfPig;
using UglyToad.PdfPig.Writer;
using Zendle.Core.FullText;

namespace Zendle.Documents.Pdf;

/// <summary>Cuts pages out of a PDF into one of their own.</summary>
internal static class PdfCut
{
    /// <summary>The pages of a range.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="range">Which pages.</param>
    /// <exception cref="DocumentFaultException">They cannot be cut out.</exception>
    public static byte[] Of(byte[] file, PageRange range)
    {
        try
        {
            using var document = PdfDocument.Open(file);
            using var builder = new PdfDocumentBuilder();
            for (var page = Math.Max(1, range.From); page <= Math.Min(range.To, document.NumberOfPages); page++)
                builder.AddPage(document, page);
            return builder.Build();
        }
#pragma warning disable CA1031 // whatever the engine throws at an odd file: its pages cannot be cut
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            throw new DocumentFaultException(DocumentFault.Damaged, "The pages cannot be cut out of the file.", e);
        }
#pragma warning restore CA1031
    }
}
