using System.Xml;
using System.Xml.Linq;

namespace Zendle.Connect.Harvest;

/// <summary>
/// Takes an element out of a reply as far as a description of one work, or of a service, can go: so deep, so many
/// elements and attributes, so much text. A reply that is made to cost more is refused in one sentence, before it has
/// cost it.
/// </summary>
internal static class BoundedXml
{
    /// <summary>Deepest nesting; MODS in OAI-PMH needs some fifteen levels.</summary>
    public const int Deepest = 100;

    /// <summary>
    /// Most elements, texts and attributes of one record; one with ten thousand references has some two hundred
    /// thousand.
    /// </summary>
    public const int MostParts = 1_000_000;

    /// <summary>Most attributes of one element.</summary>
    public const int MostAttributes = 200;

    /// <summary>Most characters of text in one record.</summary>
    public const int MostText = 12_000_000;

    /// <summary>Longest single piece of text.</summary>
    public const int LongestText = 4_000_000;

    /// <summary>Reads the element that the reader stands on, and leaves the reader behind it.</summary>
    /// <param name="address">Who answers, for the sentence.</param>
    /// <param name="reader">On a start tag.</param>
    /// <param name="cancel">Stops, also in the middle of an element.</param>
    /// <exception cref="HarvestFaultException">The element is larger than what can be meant.</exception>
    public static XElement Element(Uri address, XmlReader reader, CancellationToken cancel)
    {
        var (parts, text) = (0, 0L);
        var open = new Stack<XElement>();
        while (true)
        {
            if ((++parts & 1023) == 0)
                cancel.ThrowIfCancellationRequested();
            if (parts > MostParts)
                throw TooMuch(address, $"one of more than {MostParts:N0} parts");
            switch (reader.NodeType)
            {
                case XmlNodeType.Element:
                    if (open.Count >= Deepest)
                        throw TooMuch(address, $"one that is nested deeper than {Deepest} levels");
                    if (reader.AttributeCount > MostAttributes)
                        throw TooMuch(address, $"an element of more than {MostAttributes} attributes");
                    var isEmpty = reader.IsEmptyElement;
                    var element = new XElement(XName.Get(reader.LocalName, reader.NamespaceURI));
                    parts += reader.AttributeCount;
                    while (reader.MoveToNextAttribute())
                    {
                        text += reader.Value.Length;
                        element.Add(
                            new XAttribute(
                                XName.Get(
                                    reader.LocalName,
                                    reader.Prefix.Length == 0 && reader.LocalName == "xmlns" ? "" : reader.NamespaceURI
                                ),
                                reader.Value
                            )
                        );
                    }
                    reader.MoveToElement();
                    if (open.TryPeek(out var parent))
                        parent.Add(element);
                    if (!isEmpty)
                        open.Push(element);
                    else if (open.Count == 0)
                    {
                        reader.Read();
                        return element;
                    }
                    break;
                case XmlNodeType.EndElement:
                    var closed = open.Pop();
                    if (open.Count == 0)
                    {
                        reader.Read();
                        return closed;
                    }
                    break;
                case XmlNodeType.Text
                or XmlNodeType.CDATA
                or XmlNodeType.SignificantWhitespace
                or XmlNodeType.Whitespace:
                    var value = reader.Value;
                    text += value.Length;
                    if (value.Length > LongestText)
                        throw TooMuch(address, $"one with a text of more than {LongestText:N0} characters");
                    if (text > MostText)
                        throw TooMuch(address, $"one of more than {MostText:N0} characters");
                    if (reader.NodeType == XmlNodeType.CDATA)
                        open.Peek().Add(new XCData(value));
                    else
                        open.Peek().Add(new XText(value));
                    break;
            }
            if (!reader.Read())
                throw new XmlException("The reply ends in the middle of an element.");
        }
    }

    private static HarvestFaultException TooMuch(Uri address, string what) =>
        OaiReply.Unfit(address, $"One of its records holds {what}, which no record of a work has.");
}
