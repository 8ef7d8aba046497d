using System.Globalization;
using System.Runtime.ExceptionServices;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>
/// Reads a reply to ListRecords one record after another, each handed on as soon as it is there: a page of thousands is never held as a whole tree.
/// </summary>
public sealed class OaiPageReader
{
    private static readonly XNamespace Oai = OaiReply.Oai;

    private readonly Uri address;
    private readonly XmlReader reader;
    private string? token;
    private int? total;
    private DateTimeOffset? responded;
    private bool hasList;

    private readonly CancellationToken cancel;

    private OaiPageReader(Uri address, XmlReader reader, CancellationToken cancel) => (this.address, this.reader, this.cancel) = (address, reader, cancel);

    /// <summary>Reads a page; what is taken of each record is taken on all cores, in the order of the page.</summary>
    /// <param name="address">Who answers, for sentences.</param>
    /// <param name="reader">The reply, at its start.</param>
    /// <param name="now">Stands for a response date that is missing.</param>
    /// <param name="take">What to make of a record; called from several threads.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>The page.</returns>
    /// <exception cref="XmlException">The reply is not well-formed.</exception>
    /// <exception cref="HarvestFaultException">The service answers with an error of the protocol, or with something that is no list.</exception>
    public static OaiPage<T> Read<T>(Uri address, XmlReader reader, DateTimeOffset now, Func<OaiRecord, T> take, CancellationToken cancel)
    {
        var page = new OaiPageReader(address, reader, cancel);
        T[] records;
        try { records = [.. page.Records().AsParallel().AsOrdered().WithCancellation(cancel).Select(take)]; }
        catch (AggregateException e)
        {
            ExceptionDispatchInfo.Throw(e.Flatten().InnerExceptions[0]);
            throw;
        }
        return page.hasList ? new(records, page.token, page.total, page.responded ?? now) : throw OaiReply.Unfit(address, "Its reply has no list of records.");
    }

    private IEnumerable<OaiRecord> Records()
    {
        reader.MoveToContent();
        if (reader.NamespaceURI != Oai.NamespaceName || reader.LocalName != OaiReply.Root) throw OaiReply.NotSpoken(address);
        reader.Read();
        while (!reader.EOF && reader.NodeType != XmlNodeType.EndElement)
        {
            if (reader.NodeType != XmlNodeType.Element || reader.NamespaceURI != Oai.NamespaceName) reader.Skip();
            else if (reader.LocalName == "responseDate") responded = OaiReply.Moment(Element().Value);
            else if (reader.LocalName == "error") throw OaiReply.Error(address, Element());
            else if (reader.LocalName == "ListRecords") foreach (var record in List()) yield return record;
            else reader.Skip();
        }
        // What follows the list may still be broken; then nothing of the page is believed.
        while (reader.Read()) cancel.ThrowIfCancellationRequested();
    }

    private IEnumerable<OaiRecord> List()
    {
        hasList = true;
        var isEmpty = reader.IsEmptyElement;
        reader.Read();
        if (isEmpty) yield break;
        while (reader.NodeType != XmlNodeType.EndElement)
        {
            if (reader.NodeType != XmlNodeType.Element || reader.NamespaceURI != Oai.NamespaceName) reader.Skip();
            else if (reader.LocalName == "record")
            {
                if (Record(Element()) is { } record) yield return record;
            }
            else if (reader.LocalName == "resumptionToken")
            {
                total = int.TryParse(reader.GetAttribute("completeListSize"), NumberStyles.None, CultureInfo.InvariantCulture, out var size) ? size : null;
                token = Element().Value.Trim() is { Length: > 0 } next ? next : null;
            }
            else reader.Skip();
        }
        reader.Read();
    }

    private XElement Element() => BoundedXml.Element(address, reader, cancel);

    private static OaiRecord? Record(XElement record)
    {
        var header = record.Element(Oai + "header");
        var identifier = header?.Element(Oai + "identifier")?.Value.Trim();
        if (string.IsNullOrEmpty(identifier) || identifier.Length > 500) return null;
        var deleted = (string?)header!.Attribute("status") == "deleted";
        var metadata = record.Element(Oai + "metadata")?.Elements().FirstOrDefault();
        return deleted || metadata is not null ? new(identifier, OaiReply.Moment(header.Element(Oai + "datestamp")?.Value) ?? DateTimeOffset.UnixEpoch, deleted ? null : metadata) : null;
    }
}
