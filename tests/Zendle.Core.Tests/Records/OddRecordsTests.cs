using System.Xml.Linq;
using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Records;

/// <summary>What real repositories send: kept, cleaned with a note, never a crash, never merged by accident.</summary>
public sealed class OddRecordsTests
{
    private static Record Mods(string inside) =>
        ModsReader.Read(
            XElement.Parse(
                $"<mods xmlns='http://www.loc.gov/mods/v3' version='3.8'>{inside}</mods>",
                LoadOptions.PreserveWhitespace
            ),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );

    private static Record Dc(string inside) =>
        DublinCoreReader.Read(
            XElement.Parse(
                "<oai_dc:dc xmlns:oai_dc='http://www.openarchives.org/OAI/2.0/oai_dc/' "
                    + $"xmlns:dc='http://purl.org/dc/elements/1.1/'>{inside}</oai_dc:dc>"
            ),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );

    private static string Names(Record r) => string.Join(" | ", r.People.Select(p => $"{p.Family}/{p.Given}"));

    private static IReadOnlyList<MergedWork> Merge(params Record[] records)
    {
        var facts = records.Select((r, i) => MergeFacts.Of(i + 1, i % 3 + 1, r)).ToArray();
        var matches =
            from a in facts
            from b in facts
            where a.RecordId < b.RecordId
            select RecordMerger.Match(a, b, MergeWeights.Shipped);
        return RecordMerger.Merge([.. facts.Select(f => (f, 0))], matches.OfType<Match>(), []);
    }

    [Theory]
    [InlineData("Berg, Mei; Lind, Per", "Berg/Mei | Lind/Per")]
    [InlineData("Berg, Mei; ; Lind, Per;", "Berg/Mei | Lind/Per")]
    [InlineData("Berg, M., Lind, P. and Moe, O.", "Berg/M. | Lind/P. | Moe/O.")]
    [InlineData("Berg, M., Lind, P.-K.", "Berg/M. | Lind/P.-K.")]
    [InlineData("Mei Berg, Per Lind and Ola Moe", "Berg/Mei | Lind/Per | Moe/Ola")]
    [InlineData("Mei Berg & Per Lind", "Berg/Mei | Lind/Per")]
    [InlineData("Berg, Mei Anna", "Berg/Mei Anna")]
    [InlineData("Berg, Mei, 1961-2020", "Berg/Mei")]
    [InlineData("Institute of Dusk and Dawn", "Institute of Dusk and Dawn/")]
    public void All_names_in_one_string_are_told_apart_where_it_is_beyond_doubt(string field, string names)
    {
        var escaped = new XText(field).ToString();
        var read = Mods($"<name><namePart>{escaped}</namePart></name>");
        Assert.Equal(names, Names(read));
        Assert.Equal(names, Names(Dc($"<dc:creator>{escaped}</dc:creator>")));
        Assert.Equal(read.People.Count > 1, read.Notes.Any(n => n.Contains("one field", StringComparison.Ordinal)));
    }

    [Fact]
    public void Empty_names_are_nobody()
    {
        var read = Mods(
            "<name/><name><namePart/></name><name><namePart type='family'> </namePart><namePart "
                + "type='given'>Mei</namePart></name><name><namePart type='family'>Berg</namePart></name>"
        );
        Assert.Equal("Berg/", Names(read));
        Assert.Empty(Dc("<dc:creator> </dc:creator><dc:creator/>").People);
    }

    [Fact]
    public void A_name_that_begins_outside_the_basic_plane_is_a_name()
    {
        var read = Mods(
            "<name><namePart type='family'>Berg</namePart><namePart type='given'>🦋 "
                + "Mei</namePart></name><name><namePart type='family'>𠮷田</namePart><namePart "
                + "type='given'>𠮷</namePart></name>"
        );
        Assert.Equal("Berg, 🦋. M. | 𠮷田, 𠮷.", string.Join(" | ", read.People.Select(p => p.Short)));
        var facts = MergeFacts.Of(1, 1, read with { Title = "Moths of a northern coast" });
        Assert.Equal(2, facts.Initials.Length);
        Assert.True(
            facts.Blocking.SetEquals(MergeFacts.Of(2, 2, read with { Title = "Moths of a northern coast" }).Blocking)
        );
    }

    [Fact]
    public void More_people_than_can_be_meant_are_cut_with_a_note()
    {
        string List(int n) =>
            string.Concat(
                Enumerable
                    .Range(0, n)
                    .Select(i =>
                        $"<name><namePart type='family'>Berg{i}</namePart><namePart type='given'>Mei</namePart></name>"
                    )
            );
        Assert.Equal(
            (1_000, 0),
            (
                Mods(List(1_000)).People.Count,
                Mods(List(1_000)).Notes.Count(n => n.Contains("people", StringComparison.Ordinal))
            )
        );
        var read = Mods(List(2_100));
        Assert.Equal(2_000, read.People.Count);
        Assert.Contains(
            read.Notes,
            n => n.StartsWith("The record names more than 2000 people", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void A_thousand_people_are_each_found_in_the_other_record_and_tie_nobody_to_anybody()
    {
        var record = new Record
        {
            Identifier = "a",
            Title = "Night counts of a whole coast",
            Year = 2020,
            People =
            [
                .. Enumerable
                    .Range(0, 1_000)
                    .Select(i => new PersonName(
                        "Berg" + (char)('a' + i % 26) + (char)('a' + i / 26 % 26),
                        "M" + i % 7
                    )),
            ],
        };
        var sources = new SourcedRecord[] { new(1, 1, 0, record), new(2, 2, 1, record with { Identifier = "b" }) };
        var mentions = Mention.Of(1, sources, ChosenFields.From(sources));
        Assert.Equal(1_000, mentions.Count);
        Assert.All(mentions, m => Assert.Empty(m.CoAuthors));
    }

    [Theory]
    [InlineData("&lt;p&gt;Moths &lt;i&gt;fell&lt;/i&gt; by 62&amp;nbsp;%.&lt;/p&gt;", "Moths fell by 62 %.")]
    [InlineData("Visits fell (&lt;script&gt;alert(1)&lt;/script&gt;) at night", "Visits fell ( alert(1) ) at night")]
    [InlineData("5 &lt; 7 and 9 &gt; 3", "5 < 7 and 9 > 3")]
    [InlineData(
        "{\\rtf1\\ansi{\\fonttbl{\\f0 Arial;}}\\f0\\fs20 Moths in \\b dark\\b0  lanes\\par}",
        "Moths in dark lanes"
    )]
    [InlineData("{\\rtf1 caf\\'e9 lamps}", "café lamps")]
    [InlineData("Moths&#x85;at&#x9F;&#x200;lamps&#x202E;", "Moths atȀlamps")]
    public void Markup_and_control_characters_leave_plain_text(string given, string kept)
    {
        Assert.Equal(kept, Mods($"<abstract>{given}</abstract>").Abstract);
        Assert.Equal(kept, Dc($"<dc:description>{given}</dc:description>").Abstract);
    }

    [Fact]
    public void An_abstract_of_a_megabyte_is_cut_with_a_note_and_an_endless_tag_costs_nothing()
    {
        var long_ = string.Concat(Enumerable.Repeat("lamps and moths ", 65_536));
        foreach (
            var read in new[] { Mods($"<abstract>{long_}</abstract>"), Dc($"<dc:description>{long_}</dc:description>") }
        )
        {
            Assert.InRange(read.Abstract.Length, 59_000, PlainText.Longest);
            Assert.Equal(
                ["The abstract has 1,048,576 characters; 60,000 are kept."],
                read.Notes.Where(n => n.StartsWith("The abstract", StringComparison.Ordinal))
            );
        }
        Assert.Equal(59_999, PlainText.Clean("<" + new string('a', 59_998)).Length);
    }

    [Theory]
    [InlineData("20233")]
    [InlineData("0")]
    [InlineData("forthcoming")]
    [InlineData("99")]
    public void A_year_that_cannot_be_is_left_out_with_a_note(string date)
    {
        foreach (
            var read in new[]
            {
                Mods($"<originInfo><dateIssued>{date}</dateIssued></originInfo>"),
                Dc($"<dc:date>{date}</dc:date>"),
            }
        )
        {
            Assert.Null(read.Year);
            Assert.Contains($"The date “{date}” is not plausible and was left out.", read.Notes);
        }
    }

    [Theory]
    [InlineData("2021 Mar", 2021, "2021-03")]
    [InlineData("March 2021", 2021, "2021-03")]
    [InlineData("c1998", 1998, "1998")]
    [InlineData("[1974?]", 1974, "1974")]
    [InlineData("2021-03-18T00:00:00Z", 2021, "2021-03-18")]
    [InlineData("2021-17", 2021, "2021")]
    public void Dates_are_read_as_far_as_they_are_told(string date, int year, string precise)
    {
        foreach (
            var read in new[]
            {
                Mods($"<originInfo><dateIssued>{date}</dateIssued></originInfo>"),
                Dc($"<dc:date>{date}</dc:date>"),
            }
        )
            Assert.Equal(((int?)year, precise), (read.Year, read.Date));
    }

    [Fact]
    public void Wrong_check_digits_are_left_out_each_with_its_note()
    {
        var read = Mods(
            """
            <name><namePart type='family'>Berg</namePart><namePart type='given'>Mei</namePart>
            <nameIdentifier type='orcid'>0000-0002-1825-0098</nameIdentifier></name>
            <identifier type='isbn'>978-3-16-148410-1</identifier>
            <relatedItem type='host'><titleInfo><title>Small Wings</title></titleInfo>
            <identifier type='issn'>0378-5954</identifier></relatedItem>
            """
        );
        Assert.Equal((null, null, null), (read.People[0].Orcid, read.Isbn, read.Venue!.Issn));
        Assert.Contains(
            "The ORCID iD “0000-0002-1825-0098” of Berg, M. has a wrong check digit and was left out.",
            read.Notes
        );
        Assert.Contains("The ISBN “978-3-16-148410-1” has a wrong check digit and was left out.", read.Notes);
        Assert.Contains("The ISSN “0378-5954” has a wrong check digit and was left out.", read.Notes);
    }

    [Theory]
    [InlineData("10.5555/AB.C")]
    [InlineData("DOI:10.5555/ab.c")]
    [InlineData("https://doi.org/10.5555/ab.c.")]
    [InlineData("http://dx.doi.org/10.5555%2Fab.c")]
    [InlineData("<10.5555/ab.c>;")]
    public void A_DOI_in_any_dress_is_one_DOI_and_joins(string written)
    {
        var escaped = new XText(written).ToString();
        var (mods, dc) = (
            Mods(
                $"<titleInfo><title>Moths at lamps of a coast</title></titleInfo><identifier type='doi'>{escaped}</identifier>"
            ),
            Dc($"<dc:title>Moths at lamps of a coast</dc:title><dc:identifier>{escaped}</dc:identifier>")
        );
        Assert.Equal(("10.5555/ab.c", "10.5555/ab.c"), (mods.Doi, dc.Doi));
        Assert.Single(Merge(mods, dc with { Identifier = "oai:y:1" }));
    }

    [Fact]
    public void Records_that_say_next_to_nothing_are_never_merged()
    {
        Record R(string id, string title, int? year = null, params PersonName[] people) =>
            new()
            {
                Identifier = id,
                Title = title,
                Year = year,
                People = people,
            };
        PersonName berg = new("Berg", "Mei");
        Assert.Equal(2, Merge(R("a", ""), R("b", "")).Count);
        Assert.Equal(2, Merge(R("a", "", 2001, berg), R("b", "", 2001, berg)).Count);
        Assert.Equal(2, Merge(R("a", "Editorial", 2001, berg), R("b", "Editorial", 2002, berg)).Count);
        Assert.Equal(2, Merge(R("a", "Editorial", 2001, berg), R("b", "Editorial", 2001, berg)).Count);
        Assert.Equal(2, Merge(R("a", "Introduction"), R("b", "Introduction")).Count);
        Assert.Equal(2, Merge(R("a", "Moths at the lamps of a coast"), R("b", "Moths at the lamps of a coast")).Count);
        // With the year beside it a long title is enough, and with page and venue a short one.
        Assert.Single(
            Merge(R("a", "Moths at the lamps of a coast", 2001), R("b", "Moths at the lamps of a coast", 2001))
        );
        VenuePart at = new("Verge Studies", Volume: "4", FirstPage: "7");
        Assert.Single(
            Merge(
                R("a", "Editorial", 2001, berg) with
                {
                    Venue = at,
                },
                R("b", "Editorial", 2001, berg) with
                {
                    Venue = at,
                }
            )
        );
        Assert.Equal(
            2,
            Merge(
                R("a", "Moths at lamps. Part 1, Larvae", 2001, berg),
                R("b", "Moths at lamps. Part 2, Pupae", 2001, berg)
            ).Count
        );
    }

    [Fact]
    public void A_correction_is_not_what_it_corrects()
    {
        Record of = new()
        {
            Identifier = "a",
            Title = "Moths at the lamps of a coast",
            Year = 2019,
            Doi = "10.5555/a",
            People = [new("Berg", "Mei")],
        };
        Assert.Equal(
            2,
            Merge(
                of,
                of with
                {
                    Identifier = "b",
                    Title = "Correction to: Moths at the lamps of a coast",
                    Doi = "10.5555/b",
                    Type = DocumentType.Correction,
                }
            ).Count
        );
    }

    [Fact]
    public void Relations_in_a_circle_and_to_oneself_end()
    {
        Record R(string id, string doi, string version) =>
            new()
            {
                Identifier = id,
                Title = "Moths at the lamps of a coast",
                Year = 2019,
                Doi = doi,
                Versions = [new(version)],
                People = [new("Berg", "Mei")],
            };
        Assert.Single(
            Merge(R("a", "10.5555/a", "10.5555/b"), R("b", "10.5555/b", "10.5555/c"), R("c", "10.5555/c", "10.5555/a"))
        );
        Assert.Single(Merge(R("a", "10.5555/a", "10.5555/a")));
    }

    [Fact]
    public void A_record_of_nothing_is_kept_with_a_note()
    {
        Assert.Equal(("", "The record has no title."), (Mods("").Title, Mods("").Notes.Single()));
        Assert.Equal(("", "The record has no title."), (Dc("").Title, Dc("").Notes.Single()));
    }

    [Fact]
    public void No_field_of_names_breaks_its_reader_and_nobody_has_an_empty_name()
    {
        var piece = Gen.OneOf(
            "Berg",
            "Mei",
            "M.",
            "P.-K.",
            "and",
            "&",
            ",",
            ";",
            " ",
            "Å",
            "1961-2020",
            "(ed.)",
            "O'Lind",
            "..",
            "-"
        );
        Check.Sample(
            Gen.Select(piece.Array[0, 12], Gen.Bool),
            row =>
            {
                var field = new XText(string.Join(row.Item2 ? " " : "", row.Item1)).ToString();
                foreach (
                    var read in new[]
                    {
                        Mods($"<name><namePart>{field}</namePart></name>"),
                        Dc($"<dc:creator>{field}</dc:creator>"),
                    }
                )
                    Assert.All(read.People, p => Assert.NotEqual("", p.Family.Trim()));
            },
            iter: 3_000
        );
    }

    [Fact]
    public void A_long_fault_is_told_briefly()
    {
        var note = Mods($"<originInfo><dateIssued>{new string('x', 500)}</dateIssued></originInfo>")
            .Notes.Single(n => n.StartsWith("The date", StringComparison.Ordinal));
        Assert.Equal($"The date “{new string('x', 40)}…” is not plausible and was left out.", note);
    }

    [Fact]
    public void A_reference_in_parts_is_put_together_without_a_double_stop()
    {
        var read = Mods(
            "<relatedItem type='references'><titleInfo><title>Old lamps</title></titleInfo><name><namePart "
                + "type='family'>Berg</namePart><namePart type='given'>Mei "
                + "K.</namePart></name><originInfo><dateIssued>1988</dateIssued></originInfo></relatedItem>"
        );
        Assert.Equal("Berg, M. K. 1988. Old lamps", Assert.Single(read.References).Text);
    }
}
