using System.Xml.Linq;
using Zendle.Core.Records;

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

    [Fact]
    public void Bare_dublin_core()
    {
        var (checkedRows, wrong) = (0, new List<string>());
        foreach (
            var (row, number) in Rows("oai_dc.txt")
                .Select((r, i) => (r, i + 1))
                .Where(r => r.r.Length > 0 && r.r[0] != '#')
        )
        {
            var at = row.IndexOf(" => ", StringComparison.Ordinal);
            var record = DublinCoreReader.Read(
                new XElement("dc", Pairs(row[..at]).Select(p => new XElement(DublinCoreReader.Dc + p.Name, p.Value))),
                "oai:x:1",
                DateTimeOffset.UnixEpoch
            );
            checkedRows++;
            foreach (var (field, expected) in Pairs(row[(at + 4)..]))
                if (Field(record, field) is var found && found != (expected == "-" ? "" : expected))
                    wrong.Add($"line {number}: {row[..at]}\n    {field} should be “{expected}”, is “{found}”");
        }
        Assert.True(wrong.Count == 0, string.Join('\n', wrong));
        Assert.True(checkedRows >= 400, $"{checkedRows} rows");
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
            "other abstracts" => string.Join("; ", r.OtherAbstracts),
            "references" => string.Join("; ", r.References.Select(x => x.Doi ?? x.Text)),
            "licence" => r.Licence ?? "",
            "access" => string.Join("; ", r.Copies.Select(c => c.Access.ToString().ToLowerInvariant())),
            "copies" => string.Join("; ", r.Copies.Select(c => c.Address)),
            "publisher" => r.Publisher ?? "",
            _ => throw new ArgumentOutOfRangeException(nameof(field), field, "No such field."),
        };
}
