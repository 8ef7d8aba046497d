using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Children and attributes by their local names, for formats whose versions differ in their namespaces.
/// </summary>
internal static class XmlParts
{
    /// <summary>The first child of a name; null for none, and of none.</summary>
    public static XElement? Part(this XElement? parent, string name) =>
        parent?.Elements().FirstOrDefault(e => e.Name.LocalName == name);

    /// <summary>All children of a name.</summary>
    public static IEnumerable<XElement> Parts(this XElement parent, string name) =>
        parent.Elements().Where(e => e.Name.LocalName == name);

    /// <summary>The text of the first child of a name; null for none, or for an empty one.</summary>
    public static string? TextOf(this XElement? parent, string name) =>
        ElementText.Of(parent.Part(name)) is { Length: > 0 } text ? text : null;

    /// <summary>An attribute, trimmed; null for none.</summary>
    public static string? Told(this XElement element, string attribute) =>
        element.Attributes().FirstOrDefault(a => a.Name.LocalName == attribute)?.Value.Trim();
}
