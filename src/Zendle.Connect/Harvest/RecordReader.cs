using System.Xml.Linq;
using Zendle.Core.Records;

namespace Zendle.Connect.Harvest;

/// <summary>Chooses the format to ask for and the reader for what comes.</summary>
public static class RecordReader
{
    /// <summary>The best format on offer: MODS before Dublin Core; null when neither is there.</summary>
    public static string? Best(IReadOnlyList<OaiFormat> formats) =>
        (
            formats.FirstOrDefault(f => f.Namespace == ModsReader.Mods.NamespaceName)
            ?? formats.FirstOrDefault(f => f.Prefix == "mods")
            ?? formats.FirstOrDefault(f => f.Prefix == "oai_dc")
        )?.Prefix;

    private delegate Record Reading(XElement metadata, string identifier, DateTimeOffset datestamp);

    /// <summary>The reader for some metadata, by its namespace; null when there is none.</summary>
    private static Reading? For(XElement metadata) =>
        metadata.Name.Namespace == ModsReader.Mods ? ModsReader.Read
        : metadata.Name.LocalName == "dc" ? DublinCoreReader.Read
        : null;

    /// <summary>Whether there is a reader for some metadata.</summary>
    public static bool CanRead(XElement metadata) => For(metadata) is not null;

    /// <summary>Reads a record; null when deleted or in a format we do not read.</summary>
    public static Record? Read(OaiRecord record)
    {
        if (record.Metadata is not { } metadata || For(metadata) is not { } reader)
            return null;
        var read = reader(metadata, record.Identifier, record.Datestamp);
        return record.Mended == 0
            ? read
            : read with
            {
                Notes =
                [
                    .. read.Notes,
                    $"In {record.Mended} {(record.Mended == 1 ? "place" : "places")} it was not valid XML; Zendle read it as it was most likely meant.",
                ],
            };
    }
}
