using System.Globalization;
using System.Xml.Linq;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Tests.Records;

/// <summary>
/// The tables of what real records look like, one for each reader: every row says what must come out of a shape.
/// </summary>
public sealed class ShapesTests
{
    private static string[] Rows(string name)
    {
        using var stream = typeof(ShapesTests).Assembly.GetManifestResourceStream(name)!;
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd().Split('\n');
    }

    private static readonly XNamespace Xlink = "http://www.w3.org/1999/xlink";

    [Fact]
    public void Bare_dublin_core() =>
        Check(
            "oai_dc.txt",
            400,
            left =>
                DublinCoreReader.Read(
                    new XElement("dc", Pairs(left).Select(p => new XElement(DublinCoreReader.Dc + p.Name, p.Value))),
                    "oai:x:1",
                    DateTimeOffset.UnixEpoch
                )
        );

    [Fact]
    public void Refined_dublin_core() =>
        Check(
            "oai_qdc.txt",
            40,
            left =>
                Read(
                    $"<qualifieddc xmlns='http://shelf.example/qdc/' xmlns:dc='{DublinCoreReader.Dc}' "
                        + $"xmlns:t='{DublinCoreReader.Terms}'>{left}</qualifieddc>"
                )
        );

    [Fact]
    public void Mods() =>
        Check("mods.txt", 110, left => Read($"<mods xmlns='{ModsReader.Mods}' xmlns:xlink='{Xlink}'>{left}</mods>"));

    [Fact]
    public void Mets_around_mods() =>
        Check(
            "mets.txt",
            7,
            left =>
                Read($"<mets xmlns='{MetsReader.Mets}' xmlns:m='{ModsReader.Mods}' xmlns:xlink='{Xlink}'>{left}</mets>")
        );

    /// <summary>The same record of every version of the schema, bare and in the envelope of OAI-PMH services.</summary>
    [Theory]
    [InlineData("<resource xmlns='http://datacite.org/schema/kernel-4'>{0}</resource>")]
    [InlineData("<resource xmlns='http://datacite.org/schema/kernel-3'>{0}</resource>")]
    [InlineData(
        "<oai_datacite xmlns='http://schema.datacite.org/oai/oai-1.1/'><schemaVersion>4.4</schemaVersion>"
            + "<payload><resource xmlns='http://datacite.org/schema/kernel-4'>{0}</resource></payload>"
            + "</oai_datacite>"
    )]
    public void DataCite(string around) =>
        Check("oai_datacite.txt", 60, left => Read(around.Replace("{0}", left, StringComparison.Ordinal)));

    [Fact]
    public void OpenAire() =>
        Check(
            "oai_openaire.txt",
            48,
            left =>
                Read(
                    $"<resource xmlns='{OpenAireReader.Oaire}' "
                        + "xmlns:d='http://datacite.org/schema/kernel-4' "
                        + $"xmlns:dc='{DublinCoreReader.Dc}'>{left}</resource>"
                )
        );

    [Fact]
    public void Marc() =>
        Check(
            "marcxml.txt",
            95,
            left =>
                MarcReader.Read(
                    new XElement(MarcReader.Marc + "record", left.Split(" && ").Select(MarcField)),
                    "oai:x:1",
                    DateTimeOffset.UnixEpoch
                )
        );

    /// <summary>In no namespace, as it mostly comes, and in one.</summary>
    [Theory]
    [InlineData("")]
    [InlineData("xmlns='http://jats.nlm.nih.gov'")]
    public void Jats(string space) =>
        Check(
            "jats.txt",
            65,
            left =>
            {
                var parts = left.Split(" @@ ");
                string Part(int i) => i < parts.Length ? parts[i] : "";
                return Read(
                    $"<article {space} xmlns:xlink='{Xlink}' {Part(2)}><front>"
                        + $"<journal-meta>{Part(1)}</journal-meta><article-meta>{Part(0)}</article-meta></front>"
                        + $"<back><ref-list>{Part(3)}</ref-list></back></article>"
                );
            }
        );

    /// <summary>Reads a record by the reader of its format.</summary>
    private static Core.Records.Record Read(string xml)
    {
        var metadata = XElement.Parse(xml, LoadOptions.PreserveWhitespace);
        return metadata.Name.LocalName switch
        {
            "mods" => ModsReader.Read(metadata, "oai:x:1", DateTimeOffset.UnixEpoch),
            "mets" => MetsReader.Read(metadata, "oai:x:1", DateTimeOffset.UnixEpoch),
            "article" => JatsReader.Read(metadata, "oai:x:1", DateTimeOffset.UnixEpoch),
            "qualifieddc" => DublinCoreReader.Read(metadata, "oai:x:1", DateTimeOffset.UnixEpoch),
            _ when metadata.Name.Namespace == OpenAireReader.Oaire => OpenAireReader.Read(
                metadata,
                "oai:x:1",
                DateTimeOffset.UnixEpoch
            ),
            _ => DataCiteReader.Read(metadata, "oai:x:1", DateTimeOffset.UnixEpoch),
        };
    }

    private static XElement MarcField(string written)
    {
        if (written.StartsWith("LDR ", StringComparison.Ordinal))
            return new(MarcReader.Marc + "leader", written[4..]);
        if (written.StartsWith("00", StringComparison.Ordinal))
            return new(
                MarcReader.Marc + "controlfield",
                new XAttribute("tag", written[..3]),
                written[4..].PadRight(40)
            );
        return new(
            MarcReader.Marc + "datafield",
            new XAttribute("tag", written[..3]),
            new XAttribute("ind1", written[4] == '_' ? ' ' : written[4]),
            new XAttribute("ind2", written[5] == '_' ? ' ' : written[5]),
            written[6..]
                .Split(" $", StringSplitOptions.RemoveEmptyEntries)
                .Select(s => new XElement(MarcReader.Marc + "subfield", new XAttribute("code", s[0]), s[1..].Trim()))
        );
    }

    private static void Check(string file, int fewest, Func<string, Core.Records.Record> read)
    {
        var (checkedRows, wrong) = (0, new List<string>());
        foreach (
            var (row, number) in Rows(file).Select((r, i) => (r, i + 1)).Where(r => r.r.Length > 0 && r.r[0] != '#')
        )
        {
            var at = row.IndexOf(" => ", StringComparison.Ordinal);
            var record = read(row[..at]);
            checkedRows++;
            foreach (var (field, expected) in Pairs(row[(at + 4)..]))
                if (Field(record, field) is var found && found != (expected == "-" ? "" : expected))
                    wrong.Add($"line {number}: {row[..at]}\n    {field} should be “{expected}”, is “{found}”");
        }
        Assert.True(wrong.Count == 0, $"{wrong.Count} wrong in {file}\n{string.Join('\n', wrong)}");
        Assert.True(checkedRows >= fewest, $"{checkedRows} rows");
    }

    private static IEnumerable<(string Name, string Value)> Pairs(string text) =>
        text.Split(" && ")
            .Select(p =>
                (p[..p.IndexOf('=', StringComparison.Ordinal)], p[(p.IndexOf('=', StringComparison.Ordinal) + 1)..])
            );

    /// <summary>A field of a record as the tables write it; empty for none.</summary>
    internal static string Field(Core.Records.Record r, string field) =>
        field switch
        {
            "title" => r.Title,
            "people" => string.Join("; ", r.People.Select(p => p.Inverted + (p.Role is null ? "" : $" ({p.Role})"))),
            "editors" => string.Join("; ", r.Editors.Select(p => p.Inverted)),
            "orcid" => string.Join("; ", r.People.Select(p => p.Orcid).OfType<string>()),
            "funders" => string.Join("; ", r.Funders),
            "year" => r.Year?.ToString(System.Globalization.CultureInfo.InvariantCulture) ?? "",
            "date" => r.Date ?? "",
            "type" => DocumentTypes.Name(r.Type),
            "genre" => r.Genre ?? "",
            "language" => r.Language ?? "",
            "venue" => r.Venue?.Title ?? "",
            "volume" => r.Venue?.Volume ?? "",
            "issue" => r.Venue?.Issue ?? "",
            "pages" => r.Venue?.Pages("-") ?? "",
            "issn" => r.Venue?.Issn ?? "",
            "doi" => r.Doi ?? "",
            "isbn" => r.Isbn ?? "",
            "versions" => string.Join("; ", r.Versions.Select(v => v.Doi)),
            "numbers" => string.Join("; ", r.OwnNumbers),
            "abstract" => r.Abstract,
            "other abstracts" => string.Join("; ", r.OtherAbstracts.Select(a => a.Text)),
            "references" => string.Join("; ", r.References.Select(x => x.Doi ?? x.Text)),
            "licence" => r.Licence ?? "",
            "access" => string.Join("; ", r.Copies.Select(c => c.Access.ToString().ToLowerInvariant())),
            "opens" => string.Join(
                "; ",
                r.Copies.Select(c => c.OpensOn?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? "no day")
            ),
            "copy versions" => string.Join("; ", r.Copies.Select(c => WorkVersions.Name(c.Version))),
            "copies" => string.Join("; ", r.Copies.Select(c => c.Address)),
            "publisher" => r.Publisher ?? "",
            "other titles" => string.Join("; ", r.OtherTitles),
            "affiliations" => string.Join("; ", r.People.Select(p => p.Affiliation).OfType<string>()),
            "keywords" => string.Join("; ", r.Keywords),
            "controlled" => string.Join("; ", r.ControlledTerms),
            "subjects" => string.Join("; ", r.Subjects),
            "places" => string.Join("; ", r.Places),
            "contents" => string.Join("; ", r.Contents),
            "related" => string.Join("; ", r.Related.Select(x => x.Doi ?? x.Title)),
            "version" => WorkVersions.Name(r.Version) ?? "",
            _ => throw new ArgumentOutOfRangeException(nameof(field), field, "No such field."),
        };
}
