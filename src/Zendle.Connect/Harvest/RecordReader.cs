using System.Xml.Linq;
using Zendle.Core.Records;

namespace Zendle.Connect.Harvest;

/// <summary>Chooses the format to ask for and the reader for what comes.</summary>
public static class RecordReader
{
    /// <summary>The best format on offer: MODS before Dublin Core; null when neither is there.</summary>
    public static string? Best(IReadOnlyList<OaiFormat> formats) =>
        (formats.FirstOrDefault(f => f.Namespace == ModsReader.Mods.NamespaceName) ?? formats.FirstOrDefault(f => f.Prefix == "mods") ?? formats.FirstOrDefault(f => f.Prefix == "oai_dc"))?.Prefix;

    /// <summary>Whether there is a reader for some metadata.</summary>
    public static bool CanRead(XElement metadata) => metadata.Name.Namespace == ModsReader.Mods || metadata.Name.LocalName == "dc";

    /// <summary>Reads a record by the namespace of its metadata; null when deleted or in a format we do not read.</summary>
    public static Record? Read(OaiRecord record) => Known(record) is not { } read ? null
        : record.Mended == 0 ? read : read with { Notes = [.. read.Notes, $"In {record.Mended} {(record.Mended == 1 ? "place" : "places")} it was not valid XML; Zendle read it as it was most likely meant."] };

    private static Record? Known(OaiRecord record)
    {
        if (record.Metadata is not { } metadata) return null;
        if (metadata.Name.Namespace == ModsReader.Mods) return ModsReader.Read(metadata, record.Identifier, record.Datestamp);
        if (metadata.Name.LocalName == "dc") return DublinCoreReader.Read(metadata, record.Identifier, record.Datestamp);
        return null;
    }
}
