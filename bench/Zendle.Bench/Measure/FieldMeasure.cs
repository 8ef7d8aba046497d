using System.Globalization;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;
using Zendle.Outside.Files;
using Zendle.Outside.World;

namespace Zendle.Bench.Measure;

/// <summary>
/// How much of bare Dublin Core is read right: records of twelve made-up repositories, each with habits of its own, held
/// field by field against the works they describe.
/// </summary>
internal static class FieldMeasure
{
    /// <summary>A field: what is true, what was read, and what is aimed at.</summary>
    private sealed record FieldOf(string Name, double Aim, Func<ShelfRecord, string?> Told, Func<Record, string?> Read)
    {
        public FieldOf(string name, double aim, Func<Work, string?> of, Func<Record, string?> read)
            : this(name, aim, (ShelfRecord s) => of(s.Work), read) { }
    }

    private static readonly FieldOf[] Fields =
    [
        new("title", 0.99, w => w.Title.Trim(), r => r.Title.TrimEnd('.')),
        new(
            "people",
            0.99,
            w => string.Join("; ", w.People.Select(p => p.Family)),
            r => string.Join("; ", r.People.Select(p => p.Family))
        ),
        new(
            "editors are told",
            0.99,
            w => w.Type == "book" && w.People.Length > 1 ? "editor" : "",
            r => r.People is [{ Role: { } role }, ..] ? role : ""
        ),
        new(
            "year",
            0.99,
            w => w.Year.ToString(CultureInfo.InvariantCulture),
            r => r.Year?.ToString(CultureInfo.InvariantCulture)
        ),
        new("type", 0.99, w => w.Type, r => DocumentTypes.Name(r.Type)),
        new("language", 0.99, w => w.Language, r => r.Language),
        new("venue", 0.99, w => w.Type == "book" ? null : w.Venue, r => r.Venue?.Title),
        new("DOI", 0.99, w => w.Doi, r => r.Doi),
        new("volume", 0.97, w => Numbered(w, w.Volume), r => r.Venue?.Volume),
        new("issue", 0.97, w => Numbered(w, w.Issue), r => r.Venue?.Issue),
        new(
            "pages",
            0.97,
            (ShelfRecord s) =>
                s.Work.Venue is null || s.Work.Type == "book" || s.Work.FirstPage == 0 ? null
                // Proceedings and books tell pages on every other shelf only.
                : s.Work.Journal is null && s.Shelf % 2 == 1 ? null
                : s.Work.Journal is not null && s.Work.FirstPage == s.Work.LastPage ? $"{s.Work.FirstPage}"
                : $"{s.Work.FirstPage}-{s.Work.LastPage}",
            r => r.Venue?.Pages("-")
        ),
        new("abstract", 0.97, w => w.Abstract, r => r.Abstract),
    ];

    private static string? Numbered(Work w, int number) =>
        w.Journal is null ? null : number.ToString(CultureInfo.InvariantCulture);

    /// <summary>Prints the share of records in which a field is right, of those in which there is something to read.</summary>
    public static void Print(ulong seed, TextWriter to, bool examples)
    {
        var scenario = Scenario.Read(Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = WorldMaker.Make(scenario, seed + 900, 6_000);
        var read = BareShelves
            .Of(works, new Dice(seed))
            .Select(s => (Truth: s, Record: DublinCoreReader.Read(s.Record, "oai:x:1", DateTimeOffset.UnixEpoch)))
            .ToArray();
        to.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"fields of bare Dublin Core, {read.Length:N0} records of {BareShelves.Count} repositories"
            )
        );
        foreach (var field in Fields)
        {
            // Nothing may be read where nothing is: what is made up counts as wrong.
            var told = Array.FindAll(
                read,
                r => field.Told(r.Truth) is { Length: > 0 } || field.Read(r.Record) is { Length: > 0 }
            );
            var wrong = Array.FindAll(told, r => !Same(field.Told(r.Truth), field.Read(r.Record)));
            var share = told.Length == 0 ? 1 : 1 - (double)wrong.Length / told.Length;
            to.WriteLine(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"  {field.Name, -17} {share:0.0000}   of {told.Length, 5}   aim "
                        + $"{field.Aim:0.00}{(share < field.Aim ? "   MISSED" : "")}"
                )
            );
            if (examples)
                foreach (var (truth, record) in wrong.Take(8))
                    to.WriteLine($"      shelf {truth.Shelf}: “{field.Told(truth)}” read as “{field.Read(record)}”");
        }
    }

    private static bool Same(string? a, string? b) =>
        string.Equals(PlainText.Clean(a ?? ""), PlainText.Clean(b ?? ""), StringComparison.Ordinal);
}
