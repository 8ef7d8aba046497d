using System.Diagnostics;
using System.Text.Json;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using Zendle.Core.Formats;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Formats;

/// <summary>
/// Exports are read by programs that know nothing of Zendle, where these are installed: what they read is what the
/// works are. Without a program its test says so and passes.
/// </summary>
public sealed class OtherReadersTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("zendle-readers-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    /// <summary>Works with what files trip over.</summary>
    private static readonly Citation[] Odd =
    [
        new()
        {
            WorkId = 1,
            Key = "berg2019lit",
            Title = "Lit verges: 50 % fewer visits by Hyles & co in {Aarhus",
            Authors = [new("van der Bergh", "Jan"), new("Night Survey Group", "")],
            Year = 2019,
            Date = "2019-03-14",
            Type = DocumentType.Article,
            Venue = new("Small Wings & Lamps", "0378-5955", "44", "2", "550", "550"),
            Doi = "10.1002/(SICI)1097-0142(19990815)86:4<693::AID-ASI4>3.0.CO;2-O",
            Language = "ger",
            Keywords = ["moths", "night_time"],
            Tags = ["anchor"],
            Abstract = "A pair of { braces }, a lone { one, a \\command, 100 % of $5, #1 ~ ^ done.",
            Copies = [new("http://h.example/1?a=b&c={d}", CopyAccess.Closed)],
        },
        new()
        {
            WorkId = 2,
            Key = "lind2020atlas",
            Title = "Atlas of DNA in the North Sea",
            Editors = [new("Lind", "Per", Role: "editor"), new("Moe", "Ola", Role: "editor")],
            Year = 2020,
            Type = DocumentType.Book,
            Publisher = "Fjord & Sons",
            Isbn = "9783161484100",
            Series = "Atlases of the Sea",
        },
        new()
        {
            WorkId = 3,
            Key = "moe2021kelp",
            Title = "Kelp forests",
            Authors = [new("Moe", "Ola")],
            Editors = [new("Lind", "Per")],
            Year = 2021,
            Type = DocumentType.Chapter,
            Venue = new("Atlas of DNA in the North Sea", FirstPage: "12", LastPage: "34"),
            Publisher = "Fjord & Sons",
            Isbn = "9783161484100",
        },
        new()
        {
            WorkId = 4,
            Key = "ek2022lamps",
            Title = "Lamps",
            Authors = [new("Ek", "Å.")],
            Year = 2022,
            Date = "2022-06",
            Type = DocumentType.ConferencePaper,
            Venue = new("Proceedings of the Lamp Days", Volume: "3", FirstPage: "e17"),
        },
        new()
        {
            WorkId = 5,
            Key = "ros2018bees",
            Title = "Bees at dusk",
            Authors = [new("Rós", "Ýr")],
            Year = 2018,
            Type = DocumentType.Thesis,
            Genre = "Master's thesis",
            Publisher = "University of Vik",
            Language = "ice",
        },
        new()
        {
            WorkId = 6,
            Key = "anonndwork",
            Title = "",
        },
        new()
        {
            WorkId = 7,
            Key = "board2015report",
            Title = "Report and others",
            Authors = [new("and others Board", "")],
            Year = 2015,
            Type = DocumentType.Report,
            Publisher = "Board of Lamps",
        },
    ];

    private static bool IsThere(string program)
    {
        if (
            (Environment.GetEnvironmentVariable("PATH") ?? "")
                .Split(':')
                .Any(p => File.Exists(Path.Combine(p, program)))
        )
            return true;
        TestContext.Current.TestOutputHelper?.WriteLine($"skipped: {program} is not installed");
        Console.WriteLine($"Other readers: {program} is not installed; its test is skipped.");
        return false;
    }

    private string Written(string name, Action<TextWriter> write)
    {
        var file = Path.Combine(folder, name);
        using var to = new StreamWriter(file);
        write(to);
        return file;
    }

    private (int Code, string Out, string Said) Run(string program, params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo(program, arguments)
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
                WorkingDirectory = folder,
            }
        )!;
        var said = process.StandardError.ReadToEndAsync();
        var text = process.StandardOutput.ReadToEnd();
        process.WaitForExit();
        return (process.ExitCode, text, said.Result);
    }

    [Fact]
    public void Biber_accepts_every_entry_without_a_word()
    {
        if (!IsThere("biber"))
            return;
        var file = Written("odd.bib", to => BibTexWriter.Write(to, Odd));
        // A control file as biblatex writes it, asking for all of the file's entries.
        var (code, said, also) = Run(
            "biber",
            "--tool",
            "--nolog",
            "--output-file",
            Path.Combine(folder, "out.bib"),
            file
        );
        Assert.Equal(0, code);
        Assert.DoesNotContain("ERROR", said + also, StringComparison.Ordinal);
        Assert.DoesNotContain("WARN", said + also, StringComparison.Ordinal);
        var text = File.ReadAllText(Path.Combine(folder, "out.bib"));
        Assert.Equal(Odd.Length, Regex.Count(text, "^@", RegexOptions.Multiline));
        Assert.All(Odd, c => Assert.Contains($"{{{c.Key},", text, StringComparison.Ordinal));
        Assert.Matches(@"(?i)langid\s*=\s*\{ngerman\}", text);
        Assert.Matches(@"(?i)editor\s*=\s*\{Lind, Per and Moe, Ola\}", text);
    }

    [Fact]
    public void Pandoc_reads_what_the_works_are()
    {
        if (!IsThere("pandoc"))
            return;
        var (code, text, said) = Run(
            "pandoc",
            "-f",
            "bibtex",
            "-t",
            "csljson",
            Written("odd.bib", to => BibTexWriter.Write(to, Odd))
        );
        Assert.True(code == 0, said);
        var items = JsonDocument
            .Parse(text)
            .RootElement.EnumerateArray()
            .ToDictionary(i => i.GetProperty("id").GetString()!);
        Assert.Equal(Odd.Select(c => c.Key).Order(), items.Keys.Order());
        Assert.Equal(
            ("article-journal", "550", "Small Wings & Lamps"),
            (
                items["berg2019lit"].GetProperty("type").GetString(),
                items["berg2019lit"].GetProperty("page").GetString(),
                items["berg2019lit"].GetProperty("container-title").GetString()
            )
        );
        Assert.Matches(
            @"^A pair of \{ braces \}, a lone \{? one, a \\command, 100 % of \$5, #1 ~ \^ done\.$",
            items["berg2019lit"].GetProperty("abstract").GetString()
        ); // it knows no name for a lone brace
        Assert.Equal(
            "Night Survey Group",
            items["berg2019lit"].GetProperty("author")[1].GetProperty("literal").GetString()
        );
        Assert.Equal(
            [2019, 3],
            items["berg2019lit"]
                .GetProperty("issued")
                .GetProperty("date-parts")[0]
                .EnumerateArray()
                .Select(n => n.GetInt32())
        );
        Assert.False(items["berg2019lit"].TryGetProperty("URL", out _)); // what costs money is no link for everyone
        Assert.False(items["lind2020atlas"].TryGetProperty("author", out _));
        Assert.Equal("Lind", items["lind2020atlas"].GetProperty("editor")[0].GetProperty("family").GetString());
        Assert.Contains(
            "DNA",
            items["moe2021kelp"].GetProperty("container-title").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal("thesis", items["ros2018bees"].GetProperty("type").GetString());
        Assert.Equal("University of Vik", items["ros2018bees"].GetProperty("publisher").GetString());
        Assert.Equal(
            "and others Board",
            items["board2015report"].GetProperty("author")[0].GetProperty("literal").GetString()
        );
    }

    [Fact]
    public void Pandoc_takes_csl_json_as_it_is()
    {
        if (!IsThere("pandoc"))
            return;
        var file = Path.Combine(folder, "odd.json");
        using (var to = File.Create(file))
            CslJsonWriter.Write(to, Odd);
        var (code, text, said) = Run("pandoc", "-f", "csljson", "-t", "biblatex", file);
        Assert.True(code == 0, said);
        Assert.Equal(Odd.Length, Regex.Count(text, "^@", RegexOptions.Multiline));
        Assert.Contains("@incollection{moe2021kelp", text, StringComparison.Ordinal);
        Assert.Contains("Atlases of the Sea", text, StringComparison.Ordinal);
    }

    [Fact]
    public void Bibutils_finds_the_venue_of_papers_and_chapters_in_ris()
    {
        if (!IsThere("ris2xml"))
            return;
        var (code, text, said) = Run("ris2xml", Written("odd.ris", to => RisWriter.Write(to, Odd)));
        Assert.True(code == 0, said);
        XNamespaced(text, out var mods);
        string Host(string title) => mods.First(m => m.Title == title).Host;
        Assert.Equal("Proceedings of the Lamp Days", Host("Lamps"));
        Assert.Equal("Atlas of DNA in the North Sea", Host("Kelp forests"));
        Assert.Equal(
            "Small Wings & Lamps",
            mods.First(m => m.Title.StartsWith("Lit verges", StringComparison.Ordinal)).Host
        );
        Assert.Contains("editor", mods.First(m => m.Title == "Atlas of DNA in the North Sea").Roles);
        Assert.DoesNotContain("author", mods.First(m => m.Title == "Atlas of DNA in the North Sea").Roles);
    }

    [Fact]
    public void Bibutils_reads_bibtex_with_its_pages_and_numbers()
    {
        if (!IsThere("bib2xml"))
            return;
        var (code, text, said) = Run("bib2xml", Written("odd.bib", to => BibTexWriter.Write(to, Odd)));
        Assert.True(code == 0, said);
        XNamespaced(text, out var mods);
        Assert.Equal(Odd.Length, mods.Count);
        Assert.Contains(mods, m => m.Host == "Small Wings & Lamps");
        Assert.Contains("0378-5955", text, StringComparison.Ordinal);
    }

    private static void XNamespaced(string xml, out List<(string Title, string Host, string[] Roles)> mods)
    {
        XNamespace m = "http://www.loc.gov/mods/v3";
        static string Whole(XElement? info) =>
            info is null
                ? ""
                : string.Join(
                    ": ",
                    info.Elements().Where(e => e.Name.LocalName is "title" or "subTitle").Select(e => e.Value)
                );
        mods =
        [
            .. XElement
                .Parse(xml)
                .Elements(m + "mods")
                .Select(e =>
                    (
                        Whole(e.Element(m + "titleInfo")),
                        Whole(
                            e.Elements(m + "relatedItem")
                                .FirstOrDefault(r => (string?)r.Attribute("type") == "host")
                                ?.Element(m + "titleInfo")
                        ),
                        e.Elements(m + "name")
                            .Elements(m + "role")
                            .Elements(m + "roleTerm")
                            .Select(r => r.Value)
                            .ToArray()
                    )
                ),
        ];
    }

    [Fact]
    public void Bibtexparser_reads_every_entry_whole()
    {
        const string Python = "/usr/bin/python3"; // the one that Debian's packages are for
        if (!File.Exists(Python) || Run(Python, "-c", "import bibtexparser").Code != 0)
        {
            Console.WriteLine("Other readers: python3-bibtexparser is not installed; its test is skipped.");
            return;
        }
        var file = Written("odd.bib", to => BibTexWriter.Write(to, Odd));
        var script = Path.Combine(folder, "read.py");
        File.WriteAllText(
            script,
            """
            import json, sys, bibtexparser
            from bibtexparser.bparser import BibTexParser
            with open(sys.argv[1], encoding="utf-8") as f:
                read = bibtexparser.load(f, parser=BibTexParser(common_strings=True, ignore_nonstandard_types=False))
            print(json.dumps({e["ID"]: e for e in read.entries}))
            """
        );
        var (code, text, said) = Run(Python, script, file);
        Assert.True(code == 0, said);
        var items = JsonDocument.Parse(text).RootElement.EnumerateObject().ToDictionary(i => i.Name, i => i.Value);
        Assert.Equal(Odd.Select(c => c.Key).Order(), items.Keys.Order());
        Assert.Equal(
            ("550", "March", "ngerman", "anchor"),
            (
                items["berg2019lit"].GetProperty("pages").GetString(),
                items["berg2019lit"].GetProperty("month").GetString(),
                items["berg2019lit"].GetProperty("langid").GetString(),
                items["berg2019lit"].GetProperty("tags").GetString()
            )
        );
        Assert.Equal(@"Atlas of {DNA} in the {North} {Sea}", items["moe2021kelp"].GetProperty("booktitle").GetString());
        Assert.Equal("Lind, Per and Moe, Ola", items["lind2020atlas"].GetProperty("editor").GetString());
    }
}
