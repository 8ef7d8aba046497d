using System.Globalization;
using System.IO.Pipelines;
using System.Xml;
using System.Xml.Linq;
using Zendle.Connect.Fetch;

namespace Zendle.Connect.Harvest;

/// <summary>What all replies of OAI-PMH 2.0 share: how they are read, and how they say that something is wrong.</summary>
public static class OaiReply
{
    /// <summary>Namespace of OAI-PMH 2.0.</summary>
    public static readonly XNamespace Oai = "http://www.openarchives.org/OAI/2.0/";

    /// <summary>Name of the outermost element.</summary>
    internal const string Root = "OAI-PMH";

    /// <summary>A reader over a reply that resolves nothing and refuses document type declarations.</summary>
    /// <param name="reply">The reply.</param>
    /// <param name="longest">So many characters at most.</param>
    public static XmlReader Reader(Stream reply, long longest) =>
        XmlReader.Create(reply, new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null, MaxCharactersInDocument = longest, CheckCharacters = false, CloseInput = true });

    /// <summary>Takes a reply in, up to a limit, into memory that is used again; what reads it then waits for nobody.</summary>
    internal static async Task<Stream> TakeIn(Stream reply, long limit, CancellationToken cancel)
    {
        const int Segment = 65_536;
        var pipe = new Pipe(new(minimumSegmentSize: Segment, pauseWriterThreshold: 0, resumeWriterThreshold: 0, useSynchronizationContext: false));
        try
        {
            await using var limited = new LimitedStream(reply, limit);
            await limited.CopyToAsync(pipe.Writer, cancel);
            await pipe.Writer.CompleteAsync();
            return pipe.Reader.AsStream();
        }
        catch (Exception e)
        {
            await pipe.Writer.CompleteAsync(e);
            await pipe.Reader.CompleteAsync();
            throw;
        }
    }

    /// <summary>The whole of a short reply.</summary>
    internal static XElement Whole(Uri address, XmlReader reader, CancellationToken cancel)
    {
        reader.MoveToContent();
        var root = BoundedXml.Element(address, reader, cancel);
        if (root.Name != Oai + Root) throw NotSpoken(address);
        return root.Element(Oai + "error") is { } error ? throw Error(address, error) : root;
    }

    internal static HarvestFaultException NotSpoken(Uri address) => Unfit(address, "It does not speak OAI-PMH 2.0.");

    internal static HarvestFaultException Error(Uri address, XElement error)
    {
        var code = (string?)error.Attribute("code") ?? "";
        var said = error.Value.Trim();
        return new($"{address.Host}{address.AbsolutePath} answers with the error {Short(code, 60)}: {Short(said, 400)}", code);
    }

    private static string Short(string text, int most) => text.Length > most ? text[..most] + " …" : text;

    internal static HarvestFaultException Broken(Uri address, XmlException e)
    {
        var what = e.Message.Contains("DTD", StringComparison.Ordinal) ? "carries a document type declaration, which is refused"
            : string.Create(CultureInfo.InvariantCulture, $"is not well-formed XML (line {e.LineNumber}, position {e.LinePosition})");
        return new($"The reply of {address.Host}{address.AbsolutePath} {what}.", null, e);
    }

    internal static HarvestFaultException Unfit(Uri address, string sentence) => new($"{address.GetLeftPart(UriPartial.Path)} cannot be harvested now. {sentence}");

    internal static DateTimeOffset? Moment(string? text) =>
        DateTimeOffset.TryParse(text, CultureInfo.InvariantCulture, DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal, out var t) ? t : null;
}
