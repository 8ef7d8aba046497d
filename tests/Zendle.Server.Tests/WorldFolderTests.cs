extern alias outside;
using System.Xml.Linq;
using outside::Zendle.Outside.Files;
using outside::Zendle.Outside.World;

namespace Zendle.Server.Tests;

/// <summary>A world on disk: the same seed, the same bytes; and what its truth says fits its records.</summary>
public sealed class WorldFolderTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("zendle-world-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string World(string name, ulong seed, double noise = 1)
    {
        var to = Path.Combine(folder, name);
        WorldFolder.Write(to, seed, 300, noise, TextWriter.Null);
        return to;
    }

    private static string[] Files(string world) =>
        [
            .. Directory
                .EnumerateFiles(world, "*", SearchOption.AllDirectories)
                .Select(f => Path.GetRelativePath(world, f))
                .Order(StringComparer.Ordinal),
        ];

    private static string[][] Rows(string world, string table) =>
        [.. File.ReadLines(Path.Combine(world, "truth", table)).Skip(1).Select(l => l.Split(','))];

    [Fact]
    public void The_same_seed_writes_the_same_bytes_and_noise_changes_them()
    {
        var (a, b, c) = (World("a", 5), World("b", 5), World("c", 5, 2));
        Assert.Equal(Files(a), Files(b));
        Assert.All(
            Files(a),
            f => Assert.Equal(File.ReadAllBytes(Path.Combine(a, f)), File.ReadAllBytes(Path.Combine(b, f)))
        );
        Assert.NotEqual(
            File.ReadAllBytes(Path.Combine(a, "databases/farnet/0001.xml")),
            File.ReadAllBytes(Path.Combine(c, "databases/farnet/0001.xml"))
        );
        // Noise is of records, not of works, but for the companion studies that noisy worlds have.
        var companions = Rows(c, "companions.csv").ToArray();
        Assert.NotEmpty(companions);
        Assert.Empty(Rows(a, "companions.csv"));
        var touched = companions.SelectMany(r => r).ToHashSet();
        Assert.Equal(
            Rows(a, "works.csv").Where(r => !touched.Contains(r[0])).Select(r => string.Join('|', r)),
            Rows(c, "works.csv").Where(r => !touched.Contains(r[0])).Select(r => string.Join('|', r))
        );
    }

    [Fact]
    public void The_truth_knows_every_record_person_and_reference_in_the_order_the_record_tells_them()
    {
        var world = World("a", 7);
        XNamespace mods = "http://www.loc.gov/mods/v3",
            oai = "http://www.openarchives.org/OAI/2.0/";
        var told = new Dictionary<string, XElement>();
        foreach (var database in Directory.EnumerateDirectories(Path.Combine(world, "databases")))
        foreach (var page in Directory.EnumerateFiles(database, "0*.xml"))
        foreach (
            var record in XDocument
                .Load(page)
                .Descendants(oai + "record")
                .Where(r => r.Element(oai + "metadata") is not null)
        )
            told[$"{Path.GetFileName(database)} {record.Element(oai + "header")!.Element(oai + "identifier")!.Value}"] =
                record.Element(oai + "metadata")!.Elements().Single();
        Assert.Equal(6, Directory.EnumerateDirectories(Path.Combine(world, "databases")).Count());
        Assert.Equal(
            told.Keys.Order(StringComparer.Ordinal),
            Rows(world, "records.csv").Select(r => $"{r[0]} {r[1]}").Order(StringComparer.Ordinal)
        );
        foreach (var people in Rows(world, "people.csv").GroupBy(r => $"{r[0]} {r[1]}"))
            Assert.Equal(told[people.Key].Elements(mods + "name").Count(), people.Count());
        foreach (var references in Rows(world, "references.csv").GroupBy(r => $"{r[0]} {r[1]}"))
            Assert.Equal(
                told[references.Key]
                    .Elements()
                    .Count(e => (string?)e.Attribute("type") is "citation/reference" or "references"),
                references.Count()
            );
        // The extract lies wholly inside what it is taken from.
        var overlap = Rows(world, "overlap.csv").Single(r => r[0] == "select" && r[1] == "lifeleaf");
        Assert.Equal(overlap[2], overlap[3]);
        Assert.All(Rows(world, "copies.csv"), c => Assert.StartsWith("/", c[0], StringComparison.Ordinal));
    }

    [Fact]
    public void No_sentence_stands_in_many_abstracts_and_no_two_abstracts_are_alike()
    {
        var sentences = new List<IReadOnlyList<string>>();
        var works = WorldMaker.Make(
            Scenario.Read(Path.Combine(Root.Folder, "demo")),
            11,
            4_000,
            (_, s) => sentences.Add([.. s.Sentences.Select(x => x.Text)])
        );
        var abstracts = works.Where(w => w.Abstract.Length > 0).ToArray();
        var most = sentences.SelectMany(s => s.Distinct()).CountBy(s => s).MaxBy(s => s.Value);
        Assert.True(
            most.Value <= abstracts.Length * 0.002 + 2,
            $"“{most.Key}” stands in {most.Value} of {abstracts.Length}"
        );
        Assert.Equal(abstracts.Length, abstracts.Select(w => w.Abstract).Distinct().Count());
        // Findings conflict, and some find nothing.
        Assert.Equal([-1, 0, 1], works.Select(w => w.Study.Direction).Distinct().Order());
        Assert.True(works.GroupBy(w => w.Study.Id).Any(g => g.Count() > 1), "no study is reported twice");
        Assert.Contains(works, w => w.Type == "retraction notice" && w.About >= 0 && w.Cites.Contains(w.About));
        Assert.Contains(works, w => w.Book is not null && w.Type == "chapter");
    }
}
