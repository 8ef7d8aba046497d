using System.Buffers.Binary;
using System.Text.Json;
using Zendle.Core.FullText;

namespace Zendle.Documents.Pdf;

/// <summary>
/// What Zendle and the process that reads documents for it say to each other. A question is a document: its length
/// (four bytes, little-endian), its bytes. An answer is one byte (0 facts, 1 fault), the length of what follows, and
/// that as JSON in UTF-8.
/// </summary>
public static class ReaderProtocol
{
    /// <summary>Longest document in bytes.</summary>
    public const int MostBytes = 200_000_000;

    /// <summary>
    /// Longest answer in bytes. The facts of a document are the lines of its first pages, its headings and its references.
    /// </summary>
    public const int MostAnswered = 16_000_000;

    private sealed record Fault(PdfFault Kind, string Sentence);

    /// <summary>The next document that is asked about; null when nobody asks any more.</summary>
    public static byte[]? Question(Stream from)
    {
        var head = new byte[4];
        if (from.ReadAtLeast(head, 4, throwOnEndOfStream: false) < 4)
            return null;
        var length = BinaryPrimitives.ReadInt32LittleEndian(head);
        if (length is < 0 or > MostBytes)
            return null;
        var bytes = new byte[length];
        return from.ReadAtLeast(bytes, length, throwOnEndOfStream: false) < length ? null : bytes;
    }

    /// <summary>Reads a document and answers.</summary>
    /// <returns>Whether the process is fit to read another.</returns>
    public static bool Answer(Stream to, byte[] document, PdfLimits limits)
    {
        var isFit = true;
        (byte Kind, byte[] Text) said;
        try
        {
            said = (0, JsonSerializer.SerializeToUtf8Bytes(PdfText.Read(document, limits)));
        }
        catch (PdfFaultException e)
        {
            said = (1, JsonSerializer.SerializeToUtf8Bytes(new Fault(e.Fault, e.Message)));
        }
        catch (OutOfMemoryException)
        {
            (isFit, said) = (false, (1, JsonSerializer.SerializeToUtf8Bytes(new Fault(PdfFault.TooHeavy, TooHeavy))));
        }
        var head = new byte[5];
        head[0] = said.Kind;
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(1), said.Text.Length);
        to.Write(head);
        to.Write(said.Text);
        to.Flush();
        return isFit;
    }

    internal const string TooHeavy = "Reading the file needs more memory than is allowed; it was refused.";

    /// <summary>Reads an answer.</summary>
    /// <exception cref="PdfFaultException">The file is no readable PDF.</exception>
    /// <exception cref="EndOfStreamException">The process ended before it had answered.</exception>
    internal static async Task<DocumentFacts> Answered(Stream from, CancellationToken cancel)
    {
        var head = new byte[5];
        await from.ReadExactlyAsync(head, cancel);
        var length = BinaryPrimitives.ReadInt32LittleEndian(head.AsSpan(1));
        if (length is < 0 or > MostAnswered)
            throw new PdfFaultException(
                PdfFault.TooHeavy,
                "The file unpacks to more than a document may hold; it was refused."
            );
        var text = new byte[length];
        await from.ReadExactlyAsync(text, cancel);
        if (head[0] == 0)
            return JsonSerializer.Deserialize<DocumentFacts>(text)!;
        var fault = JsonSerializer.Deserialize<Fault>(text)!;
        throw new PdfFaultException(fault.Kind, fault.Sentence);
    }
}
