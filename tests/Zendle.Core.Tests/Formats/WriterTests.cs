using System.Text;
using System.Text.Json;
using Zendle.Core.Formats;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Formats;

public sealed class WriterTests
{
    private static readonly Citation Verge = new()
    {
        WorkId = 7,
        Key = "bergh2017verges",
        Title = "Lit verges, idle flowers: 50 % fewer visits by Hyles & co",
        Authors = [new("van der Bergh", "Jan"), new("Night Survey Group", "")],
        Year = 2017,
        Type = DocumentType.Article,
        Language = "eng",
        Venue = new("Small Wings", "0378-5955", "44", "2", "118", "131"),
        Doi = "10.5555/lv.17",
        Abstract = "Visits fell.",
        Keywords = ["moths"],
        Tags = ["anchor"],
        Stage = "kept",
        Copies = [new("http://h.example/7", CopyAccess.Free, WorkVersion.VersionOfRecord)],
        Databases = ["Farnet"],
        Cited = 214,
    };

    private static string Write(Action<TextWriter> write)
    {
        using var to = new StringWriter();
        write(to);
        return to.ToString();
    }

    [Fact]
    public void Ris_has_one_tag_a_line_from_TY_to_ER() =>
        Assert.Equal(
            "TY  - JOUR\r\nID  - bergh2017verges\r\nAU  - van der Bergh, Jan\r\nAU  - Night Survey Group\r\nTI  "
                + "- Lit verges, idle flowers: 50 % fewer visits by Hyles & co\r\nPY  - 2017\r\nJF  - Small "
                + "Wings\r\nVL  - 44\r\nIS  - 2\r\nSP  - 118\r\nEP  - 131\r\nSN  - 0378-5955\r\n"
                + "DO  - 10.5555/lv.17\r\nUR  - http://h.example/7\r\nLA  - English\r\nAB  - Visits fell.\r\nKW  - "
                + "moths\r\nN1  - kept\r\nN1  - tags: anchor\r\nER  - \r\n\r\n",
            Write(to => RisWriter.Write(to, [Verge]))
        );

    [Fact]
    public void Bibtex_escapes_braces_capitals_and_organisations() =>
        Assert.Equal(
            """
            @article{bergh2017verges,
              author = {van der Bergh, Jan and {Night Survey Group}},
              title = {Lit verges, idle flowers: 50 \% fewer visits by {Hyles} \& co},
              year = {2017},
              journal = {Small Wings},
              volume = {44},
              number = {2},
              pages = {118--131},
              issn = {0378-5955},
              doi = {10.5555/lv.17},
              url = {http://h.example/7},
              langid = {english},
              language = {English},
              keywords = {moths},
              tags = {anchor},
              abstract = {Visits fell.},
            }


            """,
            Write(to => BibTexWriter.Write(to, [Verge]))
        );

    [Fact]
    public void Csl_json_follows_the_schema()
    {
        using var to = new MemoryStream();
        CslJsonWriter.Write(to, [Verge]);
        var item = JsonDocument.Parse(Encoding.UTF8.GetString(to.ToArray())).RootElement[0];
        Assert.Equal("article-journal", item.GetProperty("type").GetString());
        Assert.Equal("Night Survey Group", item.GetProperty("author")[1].GetProperty("literal").GetString());
        Assert.Equal(2017, item.GetProperty("issued").GetProperty("date-parts")[0][0].GetInt32());
        Assert.Equal(
            ("118-131", "Small Wings", "10.5555/lv.17", "en"),
            (
                item.GetProperty("page").GetString(),
                item.GetProperty("container-title").GetString(),
                item.GetProperty("DOI").GetString(),
                item.GetProperty("language").GetString()
            )
        );
    }

    [Theory]
    [InlineData("=HYPERLINK(\"http://x\")")]
    [InlineData("+1+2")]
    [InlineData("-2+3")]
    [InlineData("@SUM(A1)")]
    public void A_formula_in_a_title_is_harmless_in_csv(string title)
    {
        var csv = Write(to => CitationCsvWriter.Write(to, [Verge with { Title = title, Reason = title }]));
        var line = csv.Split("\r\n")[1];
        Assert.DoesNotContain($",{title}", line, StringComparison.Ordinal);
        Assert.DoesNotContain(
            $",\"{title.Replace("\"", "\"\"", StringComparison.Ordinal)}",
            line,
            StringComparison.Ordinal
        );
        Assert.Contains("'" + title[0], line, StringComparison.Ordinal);
    }

    [Fact]
    public void Csv_has_a_header_and_quotes_commas()
    {
        var lines = Write(to => CitationCsvWriter.Write(to, [Verge])).Split("\r\n");
        Assert.Equal(
            "work,key,title,authors,editors,ORCID,year,date,type,venue,volume,issue,pages,ISSN,ISBN,"
                + "publisher,series,doi,language,cited,stage,reason,tags,databases,free "
                + "copy,licence,funder,keywords,abstract",
            lines[0]
        );
        Assert.Equal(
            "7,bergh2017verges,\"Lit verges, idle flowers: 50 % fewer visits by Hyles & co\",\"van der Bergh, "
                + "Jan; Night Survey Group\",,,2017,,article,Small "
                + "Wings,44,2,118–131,0378-5955,,,,10.5555/lv.17,English,214,kept,,anchor,Farnet,http://h.example/7,,,moths,Visits fell.",
            lines[1]
        );
    }

    [Fact]
    public void Keys_are_unique_and_plain() =>
        Assert.Equal(
            ["bergh2017verges", "bergh2017verges-a", "angstrom2017verges", "anonndwork"],
            CitationKeys.For(
                [
                    Verge with
                    {
                        Authors = [new("Bergh", "J")],
                    },
                    Verge with
                    {
                        Authors = [new("Bergh", "J")],
                    },
                    Verge with
                    {
                        Authors = [new("Ångström", "A")],
                    },
                    new() { WorkId = 1, Title = "Ode" },
                ],
                new HashSet<string>()
            )
        );

    [Fact]
    public void A_key_that_is_taken_is_given_to_nobody_else() =>
        Assert.Equal(
            ["bergh2017verges-b", "bergh2017verges-c"],
            CitationKeys.For(
                [Verge with { Authors = [new("Bergh", "J")] }, Verge with { Authors = [new("Bergh", "J")] }],
                new HashSet<string> { "bergh2017verges", "bergh2017verges-a" }
            )
        );

    [Fact]
    public void A_file_is_named_by_review_content_number_and_day() =>
        Assert.Equal(
            "street-lighting-and-night-pollination_kept_62-works_2026-11-23.ris",
            FileNames.Export(
                "Street lighting & night-pollination?".Replace("&", "and", StringComparison.Ordinal),
                "kept",
                62,
                new(2026, 11, 23),
                "ris"
            )
        );

    [Fact]
    public void A_work_without_people_year_or_title_is_still_written()
    {
        var bare = new Citation { WorkId = 1, Title = "" };
        Assert.Equal("TY  - GEN\r\nER  - \r\n\r\n", Write(to => RisWriter.Write(to, [bare])));
        Assert.Equal(
            "@misc{anonndwork,\n  title = {},\n}\n\n",
            Write(to => BibTexWriter.Write(to, [bare with { Key = "anonndwork" }]))
        );
    }
}
