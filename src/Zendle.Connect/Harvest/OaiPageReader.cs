using System.Globalization;
using System.Runtime.ExceptionServices;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>
/// Reads a reply to ListRecords one record after another, each handed on as soon as it is there: a page of thousands is
/// never held as a whole tree.
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

    private readonly List<SkippedRecord> skipped = [];

    private OaiPageReader(Uri address, XmlReader reader, CancellationToken cancel) =>
        (this.address, this.reader, this.cancel) = (address, reader, cancel);

    /// <summary>
    /// Reads a page that was taken in. One that is not well-formed is mended, or read record by record (see
    /// <see cref="MendedPage"/>).
    /// </summary>
    /// <param name="address">Who answers, for sentences.</param>
    /// <param name="reply">The reply.</param>
    /// <param name="longest">So many characters at most.</param>
    /// <param name="now">Stands for a response date that is missing.</param>
    /// <param name="take">What to make of a record; called from several threads, and again for the same records when
    /// the page has to be mended.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>The page.</returns>
    /// <exception cref="XmlException">The reply is no XML at all.</exception>
    /// <exception cref="IOException">The reply ends in the middle.</exception>
    /// <exception cref="HarvestFaultException">The service answers with an error of the protocol, or with something
    /// that is no list.</exception>
    public static OaiPage<T> Read<T>(
        Uri address,
        TakenReply reply,
        long longest,
        DateTimeOffset now,
        Func<OaiRecord, T> take,
        CancellationToken cancel
    )
    {
        try
        {
            using var sound = OaiReply.Reader(reply.Open(), longest);
            return Read(address, sound, now, take, cancel);
        }
        catch (XmlException e) when (OaiReply.CanBeMended(e))
        {
            var mended = MendedPage.Of(address, reply, longest, e, cancel);
            using var frame = mended.Frame.CreateReader();
            var page = new OaiPageReader(address, frame, cancel);
            page.skipped.AddRange(mended.Skipped);
            _ = page.Records().Count();
            return page.Made(
                mended.Records.Select(r => page.Record(r.Record, r.Mended)).OfType<OaiRecord>(),
                now,
                take
            ) with
            {
                Mended = mended.Records.Count(r => r.Mended > 0),
            };
        }
    }

    /// <summary>Reads a page; what is taken of each record is taken on all cores, in the order of the page.</summary>
    /// <param name="address">Who answers, for sentences.</param>
    /// <param name="reader">The reply, at its start.</param>
    /// <param name="now">Stands for a response date that is missing.</param>
    /// <param name="take">What to make of a record; called from several threads.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>The page.</returns>
    /// <exception cref="XmlException">The reply is not well-formed.</exception>
    /// <exception cref="HarvestFaultException">The service answers with an error of the protocol, or with something
    /// that is no list.</exception>
    public static OaiPage<T> Read<T>(
        Uri address,
        XmlReader reader,
        DateTimeOffset now,
        Func<OaiRecord, T> take,
        CancellationToken cancel
    )
    {
        var page = new OaiPageReader(address, reader, cancel);
        return page.Made(page.Records(), now, take);
    }

    private OaiPage<T> Made<T>(IEnumerable<OaiRecord> found, DateTimeOffset now, Func<OaiRecord, T> take)
    {
        T[] records;
        try
        {
            records = [.. found.AsParallel().AsOrdered().WithCancellation(cancel).Select(take)];
        }
        catch (AggregateException e)
        {
            ExceptionDispatchInfo.Throw(e.Flatten().InnerExceptions[0]);
            throw;
        }
        return hasList
            ? new(records, token, total, responded ?? now, skipped)
            : throw OaiReply.Unfit(address, "Its reply has no list of records.");
    }

    private IEnumerable<OaiRecord> Records()
    {
        reader.MoveToContent();
        if (reader.NamespaceURI != Oai.NamespaceName || reader.LocalName != OaiReply.Root)
            throw OaiReply.NotSpoken(address);
        reader.Read();
        while (!reader.EOF && reader.NodeType != XmlNodeType.EndElement)
        {
            if (reader.NodeType != XmlNodeType.Element || reader.NamespaceURI != Oai.NamespaceName)
                reader.Skip();
            else if (reader.LocalName == "responseDate")
                responded = OaiReply.Moment(Element().Value);
            else if (reader.LocalName == "error")
                throw OaiReply.Error(address, Element());
            else if (reader.LocalName == "ListRecords")
                foreach (var record in List())
                    yield return record;
            else
                reader.Skip();
        }
        // What follows the list may still be broken; then nothing of the page is believed.
        while (reader.Read())
            cancel.ThrowIfCancellationRequested();
    }

    private IEnumerable<OaiRecord> List()
    {
        hasList = true;
        var isEmpty = reader.IsEmptyElement;
        reader.Read();
        if (isEmpty)
            yield break;
        while (reader.NodeType != XmlNodeType.EndElement)
        {
            if (reader.NodeType != XmlNodeType.Element || reader.NamespaceURI != Oai.NamespaceName)
                reader.Skip();
            else if (reader.LocalName == "record")
            {
                if (Record(Element()) is { } record)
                    yield return record;
            }
            else if (reader.LocalName == "resumptionToken")
            {
                total = int.TryParse(
                    reader.GetAttribute("completeListSize"),
                    NumberStyles.None,
                    CultureInfo.InvariantCulture,
                    out var size
                )
                    ? size
                    : null;
                token = Element().Value.Trim() is { Length: > 0 } next ? next : null;
            }
            else
                reader.Skip();
        }
        reader.Read();
    }

    private XElement Element() => BoundedXml.Element(address, reader, cancel);

    private OaiRecord? Record(XElement record, int mended = 0)
    {
        var header = record.Element(Oai + "header");
        var identifier = header?.Element(Oai + "identifier")?.Value.Trim();
        if (string.IsNullOrEmpty(identifier) || identifier.Length > 500)
            return Skip(
                string.IsNullOrEmpty(identifier) ? "a record without an identifier" : identifier[..100] + " …",
                "It has no identifier that can be kept."
            );
        var deleted = (string?)header!.Attribute("status") == "deleted";
        var metadata = record.Element(Oai + "metadata")?.Elements().FirstOrDefault();
        if (!deleted && metadata is null)
            return Skip(identifier, "It has no metadata and is not marked as deleted.");
        if (!deleted && !RecordReader.CanRead(metadata!))
            return Skip(identifier, $"Its metadata is “{metadata!.Name.LocalName}”, which Zendle does not read.");
        return new(
            identifier,
            OaiReply.Moment(header.Element(Oai + "datestamp")?.Value) ?? DateTimeOffset.UnixEpoch,
            deleted ? null : metadata,
            mended
        );
    }

    private OaiRecord? Skip(string identifier, string why)
    {
        skipped.Add(new(identifier, why));
        return null;
    }
}
