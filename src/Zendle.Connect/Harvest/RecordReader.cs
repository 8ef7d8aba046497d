using System.Xml.Linq;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Connect.Harvest;

/// <summary>A format that Zendle reads.</summary>
/// <param name="Name">What people call it.</param>
/// <param name="NamespaceStart">What its namespace begins with, in every version.</param>
/// <param name="Prefixes">What services call it whose namespace says nothing.</param>
public sealed record ReadableFormat(string Name, string NamespaceStart, IReadOnlyList<string> Prefixes);

/// <summary>Knows the formats that can be read, and the reader for what comes.</summary>
public static class RecordReader
{
    /// <summary>
    /// The formats, the one that tells most of a work first. What a service really fills is told by its records (see
    /// <see cref="FormatTrial"/>); the order decides between formats whose records tell as much.
    /// </summary>
    public static IReadOnlyList<ReadableFormat> Formats { get; } =
    [
        new("MODS", "http://www.loc.gov/mods/", ["mods", "mods3", "mods3.8"]),
        new("OpenAIRE", "http://namespace.openaire.eu/schema/oaire", ["oai_openaire", "oaire"]),
        new("DataCite", "http://datacite.org/schema/kernel", ["oai_datacite", "datacite", "oai_datacite4"]),
        new("MARCXML", "http://www.loc.gov/MARC21/slim", ["marcxml", "marc21", "marc", "oai_marc21"]),
        new("JATS", "http://jats.nlm.nih.gov", ["jats", "nlm", "oai_jats", "pmc_fm"]),
        new("METS with MODS", "http://www.loc.gov/METS", ["mets", "mets_mods"]),
        new("qualified Dublin Core", "http://purl.org/dc/terms", ["qdc", "oai_qdc", "qualifieddc", "dcterms"]),
        new("Dublin Core", "http://www.openarchives.org/OAI/2.0/oai_dc", ["oai_dc", "dc"]),
    ];

    /// <summary>The format that a service offers under a prefix; null when it is none that can be read.</summary>
    public static ReadableFormat? FormatOf(OaiFormat offered) =>
        Formats.FirstOrDefault(f => offered.Namespace.StartsWith(f.NamespaceStart, StringComparison.OrdinalIgnoreCase))
        ?? Formats.FirstOrDefault(f => f.Prefixes.Contains(offered.Prefix, StringComparer.OrdinalIgnoreCase));

    /// <summary>Of the formats on offer those that can be read, in the order of <see cref="Formats"/>.</summary>
    public static IReadOnlyList<(OaiFormat Offered, ReadableFormat Format)> Readable(
        IReadOnlyList<OaiFormat> offered
    ) =>
        [
            .. offered
                .Select(o => (Offered: o, Format: FormatOf(o)))
                .Where(f => f.Format is not null)
                .Select(f => (f.Offered, Format: f.Format!))
                .OrderBy(f => Array.IndexOf([.. Formats], f.Format)),
        ];

    private delegate Record Reading(XElement metadata, string identifier, DateTimeOffset datestamp);

    /// <summary>The reader for some metadata, by its namespace and name; null when there is none.</summary>
    private static Reading? For(XElement metadata)
    {
        var (space, name) = (metadata.Name.NamespaceName, metadata.Name.LocalName);
        if (metadata.Name.Namespace == ModsReader.Mods)
            return name == "modsCollection"
                ? (m, i, d) => ModsReader.Read(m.Elements(ModsReader.Mods + "mods").FirstOrDefault() ?? m, i, d)
                : ModsReader.Read;
        if (metadata.Name.Namespace == OpenAireReader.Oaire)
            return OpenAireReader.Read;
        if (metadata.Name.Namespace == MetsReader.Mets)
            return MetsReader.Read;
        if (metadata.Name.Namespace == MarcReader.Marc)
            return MarcReader.Read;
        if (
            space.StartsWith(DataCiteReader.NamespaceStart, StringComparison.Ordinal)
            || name is "oai_datacite" or "resource" && DataCiteReader.IsIn(metadata)
        )
            return DataCiteReader.Read;
        if (name == "article" || (name == "pmc-articleset" && metadata.Elements().Any()))
            return name == "article" ? JatsReader.Read : (m, i, d) => JatsReader.Read(m.Elements().First(), i, d);
        // Dublin Core goes by many names; what is in it tells.
        return name == "dc" || metadata.Elements().Any(DublinCoreReader.IsTerm) ? DublinCoreReader.Read : null;
    }

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
                    $"In {record.Mended} {(record.Mended == 1 ? "place" : "places")} it was not valid XML; "
                        + "Zendle read it as it was most likely meant.",
                ],
            };
    }
}
