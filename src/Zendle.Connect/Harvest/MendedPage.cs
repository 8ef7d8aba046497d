using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>
/// A page that is not well-formed, read record by record: what is wrong in one costs that one, not those beside it, and
/// the token leads on. The page's own frame, with the token, has to be there; a page that ends in the middle was cut
/// off and has to be asked for again.
/// </summary>
internal sealed partial class MendedPage
{
    private readonly Uri address;
    private readonly long longest;
    private readonly CancellationToken cancel;
    private readonly List<(XElement Record, int Mended)> records = [];
    private readonly List<SkippedRecord> skipped = [];

    private MendedPage(Uri address, long longest, CancellationToken cancel) =>
        (this.address, this.longest, this.cancel) = (address, longest, cancel);

    /// <summary>The reply without its records.</summary>
    public XElement Frame { get; private set; } = null!;

    /// <summary>The records that could be read, in their order, each with how many places were mended in it.</summary>
    public IReadOnlyList<(XElement Record, int Mended)> Records => records;

    /// <summary>Those that could not.</summary>
    public IReadOnlyList<SkippedRecord> Skipped => skipped;

    /// <summary>Takes a page apart.</summary>
    /// <param name="address">Who answers, for sentences.</param>
    /// <param name="reply">The reply.</param>
    /// <param name="longest">So many characters at most.</param>
    /// <param name="broken">What is wrong with it.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="XmlException">It is no reply of the protocol, or not even its frame can be read.</exception>
    /// <exception cref="IOException">The page ends in the middle.</exception>
    public static MendedPage Of(
        Uri address,
        TakenReply reply,
        long longest,
        XmlException broken,
        CancellationToken cancel
    )
    {
        var page = new MendedPage(address, longest, cancel);
        var text = ReplyText.Of(reply.Bytes);
        if (!RootStart().IsMatch(text))
            throw broken;
        page.TakeApart(text);
        // When nothing of it can be read it is the page that is broken; it may be whole another time. Deletions carry
        // nothing that could be broken, so they do not speak for the page.
        if (page.skipped.Count > 1 && !page.records.Exists(r => HasMetadata(r.Record)))
            throw broken;
        return page;
    }

    private static bool HasMetadata(XElement record) => record.Element(OaiReply.Oai + "metadata") is not null;

    private void TakeApart(string text)
    {
        var starts = RecordStart().Matches(text);
        if (starts.Count == 0)
        {
            if (!text.AsSpan().TrimEnd().EndsWith('>') || !RootEnd().IsMatch(text))
                throw new EndOfStreamException();
            Frame = Parsed(text, null);
            return;
        }
        var prefix = starts[0].Groups[1].Value;
        var endTag = $"</{prefix}record>";
        var lastEnd = text.LastIndexOf(endTag, StringComparison.Ordinal);
        // Without anything behind the records the page was cut off: nobody knows what else was in it, or where it leads
        // on.
        if (ListEnd().Match(text, Math.Max(lastEnd, starts[^1].Index)) is not { Success: true } listEnd)
            throw new EndOfStreamException();
        var head = text[..starts[0].Index];
        Frame = Parsed(head + text[listEnd.Index..], null);
        var namespaces = Namespaces(head);
        for (var i = 0; i < starts.Count; i++)
        {
            cancel.ThrowIfCancellationRequested();
            var from = starts[i].Index;
            var until = i + 1 < starts.Count ? starts[i + 1].Index : listEnd.Index;
            var end = text.LastIndexOf(endTag, until - 1, until - from, StringComparison.Ordinal);
            One(text[from..(end < 0 ? until : end + endTag.Length)], namespaces, i + 1);
        }
    }

    private void One(string text, XmlParserContext namespaces, int ordinal)
    {
        var mended = text.AsSpan().Count(ReplyText.Mended);
        try
        {
            records.Add((Parsed(text, namespaces), mended));
        }
        catch (XmlException e)
        {
            var identifier = Identifier().Match(text).Groups[1].Value.Trim();
            skipped.Add(
                new(
                    identifier.Length is > 0 and <= 500
                        ? identifier
                        : $"record {ordinal} of a page, without an identifier",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"It is not well-formed XML (line {e.LineNumber}, position {e.LinePosition} of the record)."
                    )
                )
            );
        }
    }

    private XElement Parsed(string text, XmlParserContext? namespaces)
    {
        var settings = OaiReply.Settings(longest);
        if (namespaces is not null)
            settings.ConformanceLevel = ConformanceLevel.Fragment;
        using var reader = XmlReader.Create(
            new StringReader(text.Replace(ReplyText.Mended.ToString(), "", StringComparison.Ordinal)),
            settings,
            namespaces
        );
        reader.MoveToContent();
        var element = BoundedXml.Element(address, reader, cancel);
        while (reader.Read())
        {
            if (reader.NodeType is XmlNodeType.Element or XmlNodeType.Text)
                throw new XmlException("Something follows the element.");
        }
        return element;
    }

    /// <summary>What the frame declares, so that a record can be read without it.</summary>
    private static XmlParserContext Namespaces(string head)
    {
        var manager = new XmlNamespaceManager(new NameTable());
        foreach (Match declared in Declaration().Matches(head))
        {
            if (declared.Groups[1].Value is not ("xml" or "xmlns"))
                manager.AddNamespace(declared.Groups[1].Value, declared.Groups[2].Value);
        }
        return new(null, manager, null, XmlSpace.None);
    }

    /// <summary>A record of the protocol begins with its header; the records inside MARCXML do not.</summary>
    [GeneratedRegex(@"<((?:[\w.-]+:)?)record\b[^<>]*>\s*(?:<!--.*?-->\s*)*<\1header\b", RegexOptions.Singleline)]
    private static partial Regex RecordStart();

    [GeneratedRegex(@"<(?:[\w.-]+:)?resumptionToken\b|</(?:[\w.-]+:)?ListRecords\s*>")]
    private static partial Regex ListEnd();

    [GeneratedRegex(@"<(?:[\w.-]+:)?OAI-PMH\b")]
    private static partial Regex RootStart();

    [GeneratedRegex(@"</(?:[\w.-]+:)?OAI-PMH\s*>")]
    private static partial Regex RootEnd();

    [GeneratedRegex(@"<(?:[\w.-]+:)?identifier\b[^<>]*>([^<]*)<")]
    private static partial Regex Identifier();

    [GeneratedRegex("""\sxmlns(?::([\w.-]+))?\s*=\s*["']([^"'<]*)["']""")]
    private static partial Regex Declaration();
}

/// <summary>A record that a service sent and that could not be read.</summary>
/// <param name="Identifier">Its identifier, or where it stood.</param>
/// <param name="Why">Why, in a sentence.</param>
public sealed record SkippedRecord(string Identifier, string Why);
