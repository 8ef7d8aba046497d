using System.Globalization;
using Zendle.Outside.Documents;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Files;

/// <summary>
/// Writes down what is true of a world, as CSV, for measuring what others make of its records: record → work and
/// version, mention of a person → person, reference → work, record → venue, copy → what it really is, and how far the
/// databases overlap.
/// </summary>
public static class Truth
{
    /// <summary>Writes the files into a folder. Records are those that stand at the given moment.</summary>
    public static void Write(
        string folder,
        IReadOnlyList<Work> works,
        IReadOnlyList<OutsideDatabase> databases,
        DateTimeOffset at
    )
    {
        Directory.CreateDirectory(folder);
        Table(
            folder,
            "works.csv",
            "work,study,type,year,topic,core,doi,design,place,country,setting,things,response,factor,direction,effect,samples,years",
            works.Select(w =>
                Row(
                    w.Id,
                    w.Study.Id,
                    w.Type,
                    w.Year,
                    w.Topic.Key,
                    w.Topic.Core,
                    w.Doi,
                    w.Study.Design,
                    w.Study.Place,
                    w.Study.Country,
                    w.Study.Setting,
                    w.Study.Things,
                    w.Study.Response,
                    w.Study.Factor,
                    w.Study.Direction,
                    w.Study.Effect,
                    w.Study.Figures.Samples,
                    w.Study.Figures.Years
                )
            )
        );
        Table(
            folder,
            "companions.csv",
            "work,companion",
            works.Where(w => w.CompanionOf >= 0).Select(w => Row(w.CompanionOf, w.Id))
        );
        var records = databases
            .SelectMany(d => d.At(at).Where(e => !e.Deleted).Select(e => (Database: d, Entry: e)))
            .ToArray();
        Table(
            folder,
            "records.csv",
            "database,identifier,work,version",
            records.Select(r => Row(r.Database.Key, r.Entry.Identifier, r.Entry.Work.Id, r.Entry.Version))
        );
        Table(
            folder,
            "people.csv",
            "database,identifier,position,person",
            records.SelectMany(r =>
                r.Entry.People.Select((p, i) => Row(r.Database.Key, r.Entry.Identifier, i, p.Person.Id))
            )
        );
        Table(
            folder,
            "references.csv",
            "database,identifier,position,work",
            records.SelectMany(r =>
                Told(r.Entry, works).Select((c, i) => Row(r.Database.Key, r.Entry.Identifier, i, c < 0 ? null : c))
            )
        );
        Table(
            folder,
            "venues.csv",
            "database,identifier,venue",
            records
                .Where(r => r.Entry.Venue is not null && r.Entry.Version != "preprint")
                .Select(r => Row(r.Database.Key, r.Entry.Identifier, r.Entry.Work.Venue))
        );
        var kinds = new CopyKinds();
        Table(
            folder,
            "copies.csv",
            "path,work,version,kind",
            works.SelectMany(w =>
                Pages
                    .Hosts.Copies(w)
                    .Select(c => Row(c.Path, w.Id, c.Look.ToString().ToLowerInvariant(), kinds.Of(c.Path, w, c.Look)))
            )
        );
        var held = databases.ToDictionary(
            d => d.Key,
            d => records.Where(r => r.Database.Key == d.Key).Select(r => r.Entry.Work.Id).ToHashSet()
        );
        Table(
            folder,
            "overlap.csv",
            "database,other,works,also in the other",
            databases.SelectMany(a =>
                databases
                    .Where(b => b != a)
                    .Select(b => Row(a.Key, b.Key, held[a.Key].Count, held[a.Key].Count(held[b.Key].Contains)))
            )
        );
    }

    /// <summary>
    /// The works behind the references of an entry, in the order in which the record tells them; −1 for one that nobody
    /// describes.
    /// </summary>
    private static IEnumerable<int> Told(Entry e, IReadOnlyList<Work> works)
    {
        // Readers take references in parts before printed ones, so strays of a list in parts come last; they stand last
        // in the list as well.
        foreach (var (_, cited) in e.References)
            if (e.ReferencesAs != ReferenceForm.Dois || (cited >= 0 && works[cited].Doi is not null))
                yield return cited;
    }

    private static void Table(string folder, string name, string header, IEnumerable<string> rows) =>
        File.WriteAllText(Path.Combine(folder, name), string.Join('\n', rows.Prepend(header)) + "\n");

    private static string Row(params ReadOnlySpan<object?> values)
    {
        var cells = new string[values.Length];
        for (var i = 0; i < values.Length; i++)
        {
            var text = Convert.ToString(values[i], CultureInfo.InvariantCulture) ?? "";
            cells[i] = text.AsSpan().ContainsAny(",\"\n")
                ? "\"" + text.Replace("\"", "\"\"", StringComparison.Ordinal) + "\""
                : text;
        }
        return string.Join(',', cells);
    }
}
