using System.Globalization;
using System.Xml;

namespace Zendle.Core.Formats;

/// <summary>A node of a graph with what is known of it.</summary>
/// <param name="Id">Unlike every other node's.</param>
/// <param name="Data">By the name of a key; what is null is left out.</param>
public sealed record GraphNode(string Id, IReadOnlyDictionary<string, object?> Data);

/// <summary>What nodes can say: the name and the kind of value.</summary>
/// <param name="Name">Unlike every other key's.</param>
/// <param name="Type">As GraphML names it: string, int or double.</param>
public readonly record struct GraphKey(string Name, string Type);

/// <summary>
/// Writes directed graphs as GraphML (Brandes, Eiglsperger, Herman, Himsolt, Marshall 2002; graphml.graphdrawing.org).
/// </summary>
public static class GraphMlWriter
{
    /// <summary>The namespace of the format.</summary>
    public const string Namespace = "http://graphml.graphdrawing.org/xmlns";

    /// <summary>Writes a graph. O(nodes and edges).</summary>
    /// <param name="to">Where to; it stays open.</param>
    /// <param name="name">What the graph is of.</param>
    /// <param name="keys">What nodes can say.</param>
    /// <param name="nodes">The nodes.</param>
    /// <param name="edges">Ids of two nodes each: where it starts, where it ends.</param>
    public static void Write(
        Stream to,
        string name,
        IReadOnlyList<GraphKey> keys,
        IEnumerable<GraphNode> nodes,
        IEnumerable<(string From, string To)> edges
    )
    {
        using var xml = XmlWriter.Create(to, new() { Indent = true, CloseOutput = false });
        xml.WriteStartElement("graphml", Namespace);
        Key(xml, "name", "graph", "string");
        foreach (var key in keys)
            Key(xml, key.Name, "node", key.Type);
        xml.WriteStartElement("graph", Namespace);
        xml.WriteAttributeString("id", "map");
        xml.WriteAttributeString("edgedefault", "directed");
        Data(xml, "name", name);
        foreach (var node in nodes)
        {
            xml.WriteStartElement("node", Namespace);
            xml.WriteAttributeString("id", node.Id);
            foreach (var key in keys)
                if (node.Data.GetValueOrDefault(key.Name) is { } value)
                    Data(xml, key.Name, value);
            xml.WriteEndElement();
        }
        foreach (var (from, target) in edges)
        {
            xml.WriteStartElement("edge", Namespace);
            xml.WriteAttributeString("source", from);
            xml.WriteAttributeString("target", target);
            xml.WriteEndElement();
        }
        xml.WriteEndElement();
        xml.WriteEndElement();
    }

    private static void Key(XmlWriter xml, string name, string of, string type)
    {
        xml.WriteStartElement("key", Namespace);
        xml.WriteAttributeString("id", name);
        xml.WriteAttributeString("for", of);
        xml.WriteAttributeString("attr.name", name);
        xml.WriteAttributeString("attr.type", type);
        xml.WriteEndElement();
    }

    private static void Data(XmlWriter xml, string key, object value)
    {
        xml.WriteStartElement("data", Namespace);
        xml.WriteAttributeString("key", key);
        // A title may hold what XML cannot.
        xml.WriteString(
            string.Concat((Convert.ToString(value, CultureInfo.InvariantCulture) ?? "").EnumerateRunes().Where(IsText))
        );
        xml.WriteEndElement();
    }

    private static bool IsText(System.Text.Rune rune) =>
        rune.Value is >= 0x20 and not (0xFFFE or 0xFFFF) or '\t' or '\n' or '\r';
}
