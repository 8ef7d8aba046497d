using System.Buffers.Binary;
using System.Text.Json;
using Zendle.Core.FullText;
using Zendle.Documents.Marked;

namespace Zendle.Documents.Reading;

/// <summary>
/// What Zendle and the process that reads documents for it say to each other. A question is one byte (what is asked, a
/// <see cref="Asked"/>), the length of a document (four bytes, little-endian) and its bytes. An answer is one byte (0 what was
/// asked, 1 a fault), the length of what follows, and that as JSON in UTF-8.
/// </summary>
public static class ReaderProtocol
{
    /// <summary>Longest document in bytes.</summary>
    public const int MostBytes = 200_000_000;

    /// <summary>
    /// Longest answer in bytes. The facts of a document are the lines of its first pages, its headings and its references; a
    /// readable one is its text.
    /// </summary>
    public const int MostAnswered = 16_000_000;

    /// <summary>What is asked of a document.</summary>
    public enum Asked
    {
        /// <summary>Its <see cref="DocumentFacts"/>.</summary>
        Facts,

        /// <summary>How it is shown, a <see cref="ReadableText"/>.</summary>
        Readable,

        /// <summary>Some of its pages as a file of their own: their first and last number, four bytes each, stand before it.</summary>
        Cut,
    }

    private sealed record Fault(DocumentFault Kind, string Sentence, int Pages = 0);

    /// <summary>Bytes of a question before its document.</summary>
    private const int QuestionHead = 5;

    /// <summary>Asks something of a document.</summary>
    internal static async Task Ask(Stream to, Asked what, byte[] document, CancellationToken cancel)
    {
        var head = new byte[QuestionHead];
        head[0] = (byte)what;
        BinaryPrimitives.WriteInt32LittleEndian(head.AsSpan(1), document.Length);
        await to.WriteAsync(head, cancel);
        await to.WriteAsync(document, cancel);
        await to.FlushAsync(cancel);
    }

    /// <summary>The next question; null when nobody asks any more.</summary>
    public static (Asked What, byte[] Document)? Question(Stream from)
    {
        var head = new byte[QuestionHead];
        if (from.ReadAtLeast(head, QuestionHead, throwOnEndOfStream: false) < QuestionHead)
            return null;
        var length = BinaryPrimitives.ReadInt32LittleEndian(head.AsSpan(1));
        if (length is < 0 or > MostBytes)
            return null;
        var bytes = new byte[length];
        return from.ReadAtLeast(bytes, length, throwOnEndOfStream: false) < length ? null : ((Asked)head[0], bytes);
    }

    /// <summary>Reads a document and answers.</summary>
    /// <returns>Whether the process is fit to read another.</returns>
    public static bool Answer(Stream to, Asked what, byte[] document, DocumentLimits limits)
    {
        var isFit = true;
        (byte Kind, byte[] Text) said;
        try
        {
            said = (
                0,
                what == Asked.Cut ? JsonSerializer.SerializeToUtf8Bytes(DocumentText.Cut(document))
                : what == Asked.Readable ? JsonSerializer.SerializeToUtf8Bytes(DocumentText.Readable(document))
                : JsonSerializer.SerializeToUtf8Bytes(DocumentText.Read(document, limits))
            );
        }
        catch (DocumentFaultException e)
        {
            said = (1, JsonSerializer.SerializeToUtf8Bytes(new Fault(e.Fault, e.Message, e.Pages)));
        }
        catch (OutOfMemoryException)
        {
            (isFit, said) = (
                false,
                (1, JsonSerializer.SerializeToUtf8Bytes(new Fault(DocumentFault.TooHeavy, TooHeavy)))
            );
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
    /// <exception cref="DocumentFaultException">The file is no readable document.</exception>
    /// <typeparam name="T">What was asked for.</typeparam>
    /// <exception cref="EndOfStreamException">The process ended before it had answered.</exception>
    internal static async Task<T> Answered<T>(Stream from, CancellationToken cancel)
    {
        var head = new byte[5];
        await from.ReadExactlyAsync(head, cancel);
        var length = BinaryPrimitives.ReadInt32LittleEndian(head.AsSpan(1));
        if (length is < 0 or > MostAnswered)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                "The file unpacks to more than a document may hold; it was refused."
            );
        var text = new byte[length];
        await from.ReadExactlyAsync(text, cancel);
        if (head[0] == 0)
            return JsonSerializer.Deserialize<T>(text)!;
        var fault = JsonSerializer.Deserialize<Fault>(text)!;
        throw new DocumentFaultException(fault.Kind, fault.Sentence, pages: fault.Pages);
    }
}
