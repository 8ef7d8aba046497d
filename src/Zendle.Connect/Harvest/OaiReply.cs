using System.Globalization;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>
/// What all replies of OAI-PMH 2.0 share: how they are read, and how they say that something is wrong.
/// </summary>
public static class OaiReply
{
    /// <summary>Namespace of OAI-PMH 2.0.</summary>
    public static readonly XNamespace Oai = "http://www.openarchives.org/OAI/2.0/";

    /// <summary>Name of the outermost element.</summary>
    internal const string Root = "OAI-PMH";

    /// <summary>A reader over a reply that resolves nothing and refuses document type declarations.</summary>
    /// <param name="reply">The reply.</param>
    /// <param name="longest">So many characters at most.</param>
    public static XmlReader Reader(Stream reply, long longest) => XmlReader.Create(reply, Settings(longest));

    internal static XmlReaderSettings Settings(long longest) =>
        new()
        {
            DtdProcessing = DtdProcessing.Prohibit,
            XmlResolver = null,
            MaxCharactersInDocument = longest,
            CheckCharacters = true,
            CloseInput = true,
        };

    /// <summary>The whole of a short reply; one that is not well-formed is mended as far as it can be.</summary>
    internal static XElement Whole(Uri address, TakenReply reply, long longest, CancellationToken cancel)
    {
        XElement root;
        try
        {
            using var reader = Reader(reply.Open(), longest);
            reader.MoveToContent();
            root = BoundedXml.Element(address, reader, cancel);
        }
        catch (XmlException e) when (CanBeMended(e))
        {
            root = MendedPage.Of(address, reply, longest, e, cancel).Frame;
        }
        if (root.Name != Oai + Root)
            throw NotSpoken(address);
        return root.Element(Oai + "error") is { } error ? throw Error(address, error) : root;
    }

    internal static HarvestFaultException NotSpoken(Uri address) => Unfit(address, "It does not speak OAI-PMH 2.0.");

    internal static HarvestFaultException Error(Uri address, XElement error)
    {
        var code = (string?)error.Attribute("code") ?? "";
        var said = error.Value.Trim();
        return new(
            $"{address.Host}{address.AbsolutePath} answers with the error {Short(code, 60)}: {Short(said, 400)}",
            code
        );
    }

    private static string Short(string text, int most) => text.Length > most ? text[..most] + " …" : text;

    /// <summary>
    /// Whether a reply may be mended: one with a document type declaration is refused, whatever else is wrong with it.
    /// </summary>
    internal static bool CanBeMended(XmlException e) => !IsDeclared(e);

    private static bool IsDeclared(XmlException e) => e.Message.Contains("DTD", StringComparison.Ordinal);

    internal static HarvestFaultException Broken(Uri address, XmlException e)
    {
        var what = IsDeclared(e)
            ? "carries a document type declaration, which is refused"
            : string.Create(
                CultureInfo.InvariantCulture,
                $"is not well-formed XML (line {e.LineNumber}, position {e.LinePosition})"
            );
        return new($"The reply of {address.Host}{address.AbsolutePath} {what}.", null, e);
    }

    internal static HarvestFaultException Unfit(Uri address, string sentence) =>
        new($"{address.GetLeftPart(UriPartial.Path)} cannot be harvested now. {sentence}");

    internal static DateTimeOffset? Moment(string? text) =>
        DateTimeOffset.TryParse(
            text,
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
            out var t
        )
            ? t
            : null;
}
