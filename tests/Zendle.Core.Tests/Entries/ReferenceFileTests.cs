using System.Text;
using CsCheck;
using Zendle.Core.Entries;
using Zendle.Core.Formats;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Entries;

/// <summary>Lists of references in RIS, BibTeX and CSL-JSON, as programs write them and as people break them.</summary>
public sealed class ReferenceFileTests
{
    private static EntryFields[] Read(string text) => [.. (ReferenceFile.Read(text) ?? []).Select(f => f.Fields)];

    [Fact]
    public void A_reference_in_ris_is_read_field_by_field()
    {
        var read = Read(
            "TY  - JOUR\r\nAU  - Berg, Mei\r\nAU  - Lind, Per K.\r\nTI  - Lamps and moths\r\nPY  - 2019\r\nJF  - Journal of Dusk\r\n"
                + "VL  - 12\r\nIS  - 3\r\nSP  - 45\r\nEP  - 67\r\nDO  - https://doi.org/10.5555/DUSK.1\r\nKW  - moths\r\nKW  - light\r\n"
                + "AB  - Lamps draw moths.\r\nER  - \r\n"
        );
        Assert.Equal(
            EntryFields.Empty with
            {
                Title = "Lamps and moths",
                Type = "article",
                People = "Berg, Mei\nLind, Per K.",
                Year = "2019",
                Venue = "Journal of Dusk",
                Volume = "12",
                Issue = "3",
                Pages = "45–67",
                Doi = "10.5555/dusk.1",
                Keywords = "moths; light",
                Abstract = "Lamps draw moths.",
            },
            Assert.Single(read)
        );
    }

    [Theory]
    // Other tags for the same, a date with slashes, the DOI in the address, a title over two lines, no end.
    [InlineData(
        "TY  - JOUR\nA1  - Berg, Mei\nT1  - Lamps\n      and moths\nY1  - 2019/03//\nT2  - Journal of "
            + "Dusk\nUR  - https://doi.org/10.5555/dusk.1\n"
    )]
    // One blank less, as some programs write it, a byte order mark, and words before.
    [InlineData(
        "\uFEFFProvider: a shelf\nTY - JOUR\nAU - Berg, Mei\nTI - Lamps and moths\nDA - 2019-03-02\nJO - "
            + "Journal of Dusk\nDO - 10.5555/dusk.1\nER -\n"
    )]
    // The first of these that is there.
    [InlineData(
        "TY  - JOUR\nED  - Berg, Mei\nTI  - Lamps and moths\nPY  - 2019///\nJA  - Journal of Dusk\nM3  - doi:10.5555/dusk.1\nER  -\n"
    )]
    public void Ris_of_other_programs_says_the_same(string text)
    {
        var read = Assert.Single(Read(text));
        Assert.Equal(
            ("Lamps and moths", "Berg, Mei", "2019", "Journal of Dusk", "10.5555/dusk.1"),
            (read.Title, read.People, read.Year, read.Venue, read.Doi)
        );
    }

    [Fact]
    public void References_that_follow_each_other_without_an_end_are_two() =>
        Assert.Equal(["One", "Two"], Read("TY  - JOUR\nTI  - One\nTY  - BOOK\nTI  - Two\n").Select(f => f.Title));

    [Fact]
    public void A_reference_in_bibtex_is_read_field_by_field()
    {
        var read = Read(
            """
            Exported by hand.
            @comment{nothing, title = {Not this}}
            @string{jod = "Journal of " # {Dusk}}
            @article{berg2019,
              author = {Berg, Mei and Per van der Lind and {Society of Lamps and Moths} and others},
              title = {Lamps and {Moths} in {\"O}stersund: na\"{\i}ve \& caf\'{e}s, 5\,\% of {$\beta$}-cells},
              journal = jod, year = 2019, volume = "12", number = {3}, pages = {45--67},
              doi = {10.5555/dusk\_1}, keywords = {moths, light},
            }
            """
        );
        Assert.Equal(
            EntryFields.Empty with
            {
                Title = "Lamps and Moths in Östersund: naïve & cafés, 5 % of β-cells",
                Type = "article",
                People = "Berg, Mei\nvan der Lind, Per\nSociety of Lamps and Moths",
                Year = "2019",
                Venue = "Journal of Dusk",
                Volume = "12",
                Issue = "3",
                Pages = "45–67",
                Doi = "10.5555/dusk_1",
                Keywords = "moths; light",
            },
            Assert.Single(read)
        );
    }

    [Theory]
    [InlineData(@"{\'e}t{\'{e}} {\^\i}le", "été île")]
    [InlineData(@"\v{S}koda, Gar\c con, \O{}re, stra{\ss}e, \L\'od\'z", "Škoda, Garçon, Øre, straße, Łódź")]
    [InlineData(@"a~b -- c --- d ``e''", "a b – c — d “e”")]
    [InlineData(@"\emph{Lampyris} \textit{noctiluca} in pho\-to\-pe\-riod", "Lampyris noctiluca in photoperiod")]
    [InlineData(@"\textbackslash{}x \{y\} 5\textdegree{}C", @"\x {y} 5°C")]
    [InlineData(@"ends in a sign \", "ends in a sign")]
    public void Tex_is_read_as_text(string tex, string text) =>
        Assert.Equal(text, Assert.Single(Read($"@misc{{k, title = {{{tex} }}}}")).Title);

    [Theory]
    [InlineData("Mei Berg", "Berg, Mei")]
    [InlineData("Berg, Jr., Mei", "Berg Jr., Mei")]
    [InlineData("de la Cruz, Ana and Ana de la Cruz", "de la Cruz, Ana\nde la Cruz, Ana")]
    [InlineData("{\\O}re, Ane\n  AND  {W. {Lamp} Board}", "Øre, Ane\nW. {Lamp} Board")]
    [InlineData("Plato", "Plato")]
    public void Names_in_bibtex_stand_in_either_order(string written, string read) =>
        Assert.Equal(
            read.Replace("{", "", StringComparison.Ordinal).Replace("}", "", StringComparison.Ordinal),
            Assert.Single(Read($"@book{{k, title={{T}}, author = {{{written}}}}}")).People
        );

    [Fact]
    public void An_entry_that_breaks_off_takes_no_other_with_it()
    {
        var read = Read(
            "@article{a, title = {Never closed, year = 2001\n\n@article{b,\n title = {Whole}, year = "
                + "{2002}}\n@book(c, title = \"In (round) brackets\")"
        );
        Assert.Equal(["Never closed, year = 2001", "Whole", "In (round) brackets"], read.Select(f => f.Title));
        Assert.Equal("2002", read[1].Year);
    }

    [Theory]
    [InlineData(
        """[{"title":"Lamps and moths","author":["""
            + """{"family":"Berg","given":"Mei"}],"issued":{"date-parts":[[2019,3]]}"""
            + ""","container-title":"Journal of Dusk","DOI":"10.5555/dusk.1"}]"""
    )]
    // One item alone; lists where a text is asked for; numbers as texts; a year that is written out.
    [InlineData(
        """{"title":["Lamps and moths"],"author":["""
            + """{"family":"Berg","given":"Mei"}],"issued":{"date-parts":[["2019"]]}"""
            + ""","container-title":["Journal of Dusk","J. Dusk"],"DOI":"10.5555/dusk.1"}"""
    )]
    [InlineData(
        """{"items":[{"title":"Lamps and <i>moths</i>","author":["""
            + """{"literal":"Berg, Mei"}],"issued":{"raw":"March 2019"}"""
            + ""","container-title":"Journal of Dusk","URL":"https://doi.org/10.5555/dusk.1",}]}"""
    )]
    [InlineData(
        """[null, 3, {"x":1}, {"title":"Lamps and moths","author":["""
            + """{"family":"Berg","given":"Mei"},null]"""
            + ""","issued":"2019-03","container-title":"Journal of Dusk","DOI":"doi:10.5555/dusk.1"}]"""
    )]
    public void Csl_json_is_read_as_services_write_it(string text)
    {
        var read = Assert.Single(Read(text));
        Assert.Equal(
            ("Lamps and moths", "Berg, Mei", "2019", "Journal of Dusk", "10.5555/dusk.1"),
            (read.Title, read.People.Trim(), read.Year, read.Venue, read.Doi)
        );
    }

    [Theory]
    [InlineData(
        "Title,Authors,Year,Source title,DOI\r\n\"Lamps, and moths\",\"Berg, M.; Lind, P.\",2019,Journal of Dusk,10.5555/dusk.1\r\n"
    )]
    [InlineData(
        "DOI;Publication Year;Journal;Author(s);Article Title\n"
            + "https://doi.org/10.5555/DUSK.1;2019;Journal of Dusk;Berg, M.;\"Lamps, and moths\""
    )]
    [InlineData(
        "authors\ttitle\tdate\tvenue\turl\nBerg, M.\tLamps, and moths\t2019-03-02\tJournal of "
            + "Dusk\thttps://doi.org/10.5555/dusk.1\n\t\t\t\t\n"
    )]
    // Zendle's own table says the title where a spreadsheet would take it for a formula.
    [InlineData(
        "work,key,title,authors,year,venue,doi\n7,k7,\"Lamps, and moths\",\"Berg, M.\",2019,'=Journal of Dusk,10.5555/dusk.1"
    )]
    public void A_table_is_read_by_the_names_of_its_columns(string text)
    {
        var read = Assert.Single(Read(text));
        Assert.Equal(
            ("Lamps, and moths", "Berg", "2019", "Journal of Dusk", "10.5555/dusk.1"),
            (read.Title, PrintedNames.Read(read.People)[0].Family, read.Year, read.Venue.TrimStart('='), read.Doi)
        );
    }

    [Theory]
    [InlineData("Lamps and moths, a title\nBats in barns, another")]
    [InlineData("Title\nLamps and moths")]
    [InlineData("Year,Volume\n2019,3")]
    public void What_names_no_columns_is_no_table(string text) => Assert.Null(ReferenceFile.Read(text));

    [Theory]
    [InlineData("article", "article")]
    [InlineData("inproceedings", "conference paper")]
    [InlineData("conference", "conference paper")]
    [InlineData("phdthesis", "thesis")]
    [InlineData("mastersthesis", "thesis")]
    [InlineData("techreport", "report")]
    [InlineData("book", "book")]
    [InlineData("collection", "book")]
    [InlineData("proceedings", "book")]
    [InlineData("incollection", "chapter")]
    [InlineData("inbook", "chapter")]
    [InlineData("unpublished", "manuscript")]
    [InlineData("dataset", "dataset")]
    [InlineData("misc", "other")]
    public void Kinds_of_bibtex_are_kinds_of_document(string kind, string type) =>
        Assert.Equal(type, Assert.Single(Read($"@{kind}{{k, title = {{T}}}}")).Type);

    [Theory]
    [InlineData("article-journal", "article")]
    [InlineData("journal-article", "article")]
    [InlineData("review", "review")]
    [InlineData("paper-conference", "conference paper")]
    [InlineData("proceedings-article", "conference paper")]
    [InlineData("thesis", "thesis")]
    [InlineData("report", "report")]
    [InlineData("article", "preprint")]
    [InlineData("posted-content", "preprint")]
    [InlineData("manuscript", "manuscript")]
    [InlineData("book", "book")]
    [InlineData("edited-book", "book")]
    [InlineData("chapter", "chapter")]
    [InlineData("book-chapter", "chapter")]
    [InlineData("entry-encyclopedia", "chapter")]
    [InlineData("dataset", "dataset")]
    public void Kinds_of_csl_json_are_kinds_of_document(string kind, string type) =>
        Assert.Equal(type, Assert.Single(Read($"[{{\"title\":\"T\",\"type\":\"{kind}\"}}]")).Type);

    [Theory]
    [InlineData("[1] Berg, M. (2019). Lamps and moths. Journal of Dusk, 12, 45–67.")]
    [InlineData("{Berg 2019} Lamps and moths")]
    [InlineData("[]")]
    [InlineData("[{\"a\":1}]")]
    [InlineData("[{\"title\":\"half a character: \\ud800\"}]")]
    [InlineData("Write to mei@article{at}example or TY-3, a lamp.")]
    [InlineData("")]
    public void What_is_no_such_file_is_left_to_others(string text) => Assert.Null(ReferenceFile.Read(text));

    [Fact]
    public void A_reference_is_told_on_one_line_with_what_it_is_found_by()
    {
        var read = Assert.Single(
            ReferenceFile.Read(
                "TY  - JOUR\nAU  - Berg, Mei\nAU  - Lind, Per\nTI  - Lamps and moths\nPY  - 2019\nJF  - "
                    + "Journal of Dusk\nVL  - 12\nIS  - 3\nSP  - 45-67\nDO  - 10.5555/dusk.1\nER  -\n"
            )!
        );
        Assert.Equal(
            new(
                "Berg, Mei, Lind, Per (2019). Lamps and moths. Journal of Dusk, 12(3), 45–67. https://doi.org/10.5555/dusk.1",
                "10.5555/dusk.1",
                "Lamps and moths",
                "Berg",
                2019
            ),
            read.Reference
        );
    }

    [Fact]
    public void No_more_than_a_list_may_have_are_taken_and_long_fields_are_cut()
    {
        var many = string.Concat(Enumerable.Range(0, 3_100).Select(i => $"TY  - JOUR\nTI  - No {i}\nER  -\n"));
        Assert.Equal(3_000, Read(many).Length);
        var one = Assert.Single(
            Read($"TY  - JOUR\nTI  - {new string('a', 5_000)}\nAB  - {new string('b', 50_000)}\nER  -\n")
        );
        Assert.Equal((2_000, 20_000), (one.Title.Length, one.Abstract.Length));
        Assert.Empty(CustomEntry.Faults(one));
    }

    /// <summary>What Zendle writes, in each of the formats, it reads again.</summary>
    [Fact]
    public void What_is_exported_is_read_back()
    {
        var text = Gen.String[Gen.Char["abzäßøλЖ文 ABZ0189{}%&#_^~-.,:;'()"], 1, 40]
            .Select(s => OneBlank(s))
            .Where(s =>
                s.Any(char.IsLetter)
                && !s.Contains("--", StringComparison.Ordinal)
                && !s.Contains("''", StringComparison.Ordinal)
            );
        var name = Gen.String[Gen.Char["abcäßøł"], 2, 9].Select(s => char.ToUpperInvariant(s[0]) + s[1..]);
        var person = Gen.Select(name, name).Select((f, g) => new PersonName(f, g));
        Gen.Select(text, person.List[1, 4], Gen.Int[1000, 2999], text)
            .Sample(
                (title, people, year, venue) =>
                {
                    var citation = new Citation
                    {
                        WorkId = 7,
                        Key = "k7",
                        Title = title,
                        Authors = people,
                        Year = year,
                        Type = DocumentType.Article,
                        Venue = new VenuePart(venue)
                        {
                            Volume = "3",
                            Issue = "4",
                            FirstPage = "5",
                            LastPage = "17",
                        },
                        Doi = "10.5555/a.b",
                    };
                    var expected = (
                        title,
                        string.Join('\n', people.Select(p => p.Inverted)),
                        $"{year}",
                        venue,
                        "3",
                        "4",
                        "5–17",
                        "10.5555/a.b"
                    );
                    foreach (var written in Written(citation))
                    {
                        var f = Assert.Single(Read(written));
                        Assert.Equal(expected, (f.Title, f.People, f.Year, f.Venue, f.Volume, f.Issue, f.Pages, f.Doi));
                    }
                },
                iter: 2_000
            );
    }

    private static string OneBlank(string text) =>
        string.Join(' ', text.Split(' ', StringSplitOptions.RemoveEmptyEntries));

    private static IEnumerable<string> Written(Citation citation)
    {
        using var ris = new StringWriter();
        RisWriter.Write(ris, [citation]);
        yield return ris.ToString();
        using var bib = new StringWriter();
        BibTexWriter.Write(bib, [citation]);
        yield return bib.ToString();
        using var csl = new MemoryStream();
        CslJsonWriter.Write(csl, [citation]);
        yield return Encoding.UTF8.GetString(csl.ToArray());
    }

    private static readonly string[] Beginnings =
    [
        "TY  - JOUR\n",
        "@article{k,\n",
        "[{",
        "{",
        "@string{a=",
        "",
        "TY  - \nTI  - ",
    ];

    [Fact]
    public void Nothing_that_is_pasted_breaks_it() =>
        Gen.Select(
                Gen.Int[0, Beginnings.Length - 1].Select(i => Beginnings[i]),
                Gen.String[Gen.Char["@{}\"#\\,=()[]:\n -'`^~$aTYER"], 0, 200]
            )
            .Sample(
                (start, rest) =>
                {
                    foreach (var read in ReferenceFile.Read(start + rest) ?? [])
                        Assert.True(read.Fields.Title.Length > 0 || read.Reference.Doi is not null);
                },
                iter: 20_000
            );
}
