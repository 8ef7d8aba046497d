using System.Xml.Linq;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Tests.Records;

/// <summary>What repositories write into the fields of bare Dublin Core, and what must come out.</summary>
public sealed class BareRecordsTests
{
    private static Core.Records.Record Read(params (string Name, string Value)[] fields) =>
        DublinCoreReader.Read(
            new XElement("dc", fields.Select(f => new XElement(DublinCoreReader.Dc + f.Name, f.Value))),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );

    [Theory]
    [InlineData("info:eu-repo/semantics/article", DocumentType.Article)]
    [InlineData("info:eu-repo/semantics/doctoralThesis", DocumentType.Thesis)]
    [InlineData("info:eu-repo/semantics/bookPart", DocumentType.Chapter)]
    [InlineData("info:eu-repo/semantics/conferenceObject", DocumentType.ConferencePaper)]
    [InlineData("info:eu-repo/semantics/workingPaper", DocumentType.Report)]
    [InlineData("info:eu-repo/semantics/publishedVersion", DocumentType.Other)]
    [InlineData("http://purl.org/coar/resource_type/c_6501", DocumentType.Article)]
    [InlineData("http://purl.org/coar/resource_type/c_db06", DocumentType.Thesis)]
    [InlineData("http://purl.org/coar/resource_type/c_3248/", DocumentType.Chapter)]
    [InlineData("http://purl.org/coar/resource_type/c_ddb1", DocumentType.Dataset)]
    [InlineData("Text", DocumentType.Other)]
    [InlineData("Dataset", DocumentType.Dataset)]
    [InlineData("PhD Thesis", DocumentType.Thesis)]
    [InlineData("Ph.D. Thesis", DocumentType.Thesis)]
    [InlineData("Master's thesis", DocumentType.Thesis)]
    [InlineData("Thesis (Doctoral)", DocumentType.Thesis)]
    [InlineData("Working Paper", DocumentType.Report)]
    [InlineData("Conference or Workshop Item", DocumentType.ConferencePaper)]
    [InlineData("Article (peer-reviewed)", DocumentType.Article)]
    [InlineData("Journal Article; Text", DocumentType.Article)]
    [InlineData("Book Section", DocumentType.Chapter)]
    [InlineData("Buchkapitel", DocumentType.Chapter)]
    [InlineData("Zeitschriftenartikel", DocumentType.Article)]
    [InlineData("Übersichtsarbeit", DocumentType.Review)]
    [InlineData("Konferenzbeitrag", DocumentType.ConferencePaper)]
    [InlineData("Thèse de doctorat", DocumentType.Thesis)]
    [InlineData("Chapitre d'ouvrage", DocumentType.Chapter)]
    [InlineData("Communication dans un congrès", DocumentType.ConferencePaper)]
    [InlineData("Artículo de revista", DocumentType.Article)]
    [InlineData("Tesis doctoral", DocumentType.Thesis)]
    [InlineData("Capítulo de libro", DocumentType.Chapter)]
    [InlineData("Dissertação de mestrado", DocumentType.Thesis)]
    [InlineData("Relatório técnico", DocumentType.Report)]
    [InlineData("Systematic Review", DocumentType.SystematicReview)]
    [InlineData("Meta-Analysis", DocumentType.SystematicReview)]
    [InlineData("Preprint", DocumentType.Preprint)]
    [InlineData("A picture of a lamp", DocumentType.Other)]
    [InlineData("", DocumentType.Other)]
    public void A_kind_in_whatever_words(string written, DocumentType type) =>
        Assert.Equal(type, DocumentTypes.Read(written));

    [Fact]
    public void Of_several_kinds_the_one_that_says_something_holds() =>
        Assert.Equal(
            DocumentType.Chapter,
            Read(
                ("title", "x"),
                ("type", "Text"),
                ("type", "info:eu-repo/semantics/publishedVersion"),
                ("type", "Buchkapitel")
            ).Type
        );

    [Theory]
    [InlineData("en_US", "eng")]
    [InlineData("en-GB", "eng")]
    [InlineData("pt-BR", "por")]
    [InlineData("de", "ger")]
    [InlineData("deu", "ger")]
    [InlineData("ger", "ger")]
    [InlineData("Deutsch", "ger")]
    [InlineData("Français", "fre")]
    [InlineData("Español", "spa")]
    [InlineData("português", "por")]
    [InlineData("English; German", "eng")]
    [InlineData("xx; fr", "fre")]
    [InlineData("zh-Hans-CN", "chi")]
    [InlineData("nob", "nor")]
    [InlineData("Nederlands", "dut")]
    [InlineData("日本語", "jpn")]
    [InlineData("English.", "eng")]
    [InlineData("Klingon", null)]
    [InlineData("", null)]
    public void A_language_in_whatever_words(string written, string? code) =>
        Assert.Equal(code, Languages.Code(written));

    [Fact]
    public void A_language_nobody_knows_is_noted() =>
        Assert.Contains(
            Read(("title", "x"), ("language", "Old Kellowish")).Notes,
            n => n.Contains("“Old Kellowish” is not one we know", StringComparison.Ordinal)
        );

    [Theory]
    [InlineData("20120503", "2012-05-03")]
    [InlineData("2012-05", "2012-05")]
    [InlineData("2012-05-03", "2012-05-03")]
    [InlineData("May 2012", "2012-05")]
    [InlineData("3 May 2012", "2012-05")]
    [InlineData("[2012?]", "2012")]
    [InlineData("c2012", "2012")]
    [InlineData("©2012", "2012")]
    [InlineData("2012/2013", "2012")]
    [InlineData("03.05.2012", "2012-05-03")]
    [InlineData("2012-05-03T10:11:12Z", "2012-05-03")]
    [InlineData("20129999", null)]
    [InlineData("n.d.", null)]
    [InlineData("20233", null)]
    public void A_date_in_whatever_form(string written, string? date) =>
        Assert.Equal(date, PublicationDate.Read(written));

    [Fact]
    public void Issue_beats_deposit_release_and_the_end_of_an_embargo()
    {
        var record = Read(
            ("title", "x"),
            ("date", "2015-03-01T10:00:00Z"),
            ("date", "2016-03-01T10:00:00Z"),
            ("date", "2012-05"),
            ("date", "info:eu-repo/date/embargoEnd/2020-01-01")
        );
        Assert.Equal((2012, "2012-05"), (record.Year, record.Date));
        Assert.Contains(
            record.Notes,
            n =>
                n.Contains(
                    "“2012-05” was taken as the date of issue: the others carry a time of day",
                    StringComparison.Ordinal
                )
        );
        // Only dates of the repository: the earliest.
        Assert.Equal(
            "2015-03-01",
            Read(("title", "x"), ("date", "2016-03-01T10:00:00Z"), ("date", "2015-03-01T10:00:00Z")).Date
        );
        // Typed dates that disagree: the earliest, and it is said.
        var typed = Read(("title", "x"), ("date", "2014"), ("date", "2013"));
        Assert.Equal(2013, typed.Year);
        Assert.Contains(typed.Notes, n => n.Contains("it is the earliest", StringComparison.Ordinal));
        // One year in two precisions is no choice.
        var once = Read(("title", "x"), ("date", "2014"), ("date", "2014-06-02"));
        Assert.Equal("2014-06-02", once.Date);
        Assert.DoesNotContain(once.Notes, n => n.Contains("date of issue", StringComparison.Ordinal));
        Assert.Null(Read(("title", "x"), ("date", "embargoEnd 2031")).Year);
    }

    [Theory]
    [InlineData("Small Wings; Vol. 12 No. 3 (2019): Summer issue; 45-67", "Small Wings|12|3|45|67|")]
    [InlineData("Small Wings; Vol 12, No 3 (2019); 45-67", "Small Wings|12|3|45|67|")]
    [InlineData("Small Wings, 12(3), 45–67 (2019)", "Small Wings|12|3|45|67|")]
    [InlineData("Small Wings 12 (3), 45-7", "Small Wings|12|3|45|47|")]
    [InlineData("Small Wings, vol. 12, no. 3, pp. 45-67, 2019", "Small Wings|12|3|45|67|")]
    [InlineData("Small Wings 12, 45-67 (2019)", "Small Wings|12||45|67|")]
    [InlineData("Kleine Flügel; Bd. 12 Nr. 3 (2019); 45-67", "Kleine Flügel|12|3|45|67|")]
    [InlineData("Small Wings; Vol. 12 (2019); e1045", "Small Wings|12||e1045|e1045|")]
    [InlineData("Night Landscapes", "Night Landscapes|||||")]
    [InlineData("Small Wings, 12(3), 67-45 (2019)", "Small Wings|12|3|||")]
    [InlineData(
        "Report of the lamp survey of 1987, second part",
        "Report of the lamp survey of 1987, second part|||||"
    )]
    public void Where_it_appeared_in_one_line(string written, string parts)
    {
        var v = Read(("title", "x"), ("source", written)).Venue!;
        Assert.Equal(parts, string.Join('|', v.Title, v.Volume, v.Issue, v.FirstPage, v.LastPage, v.Issn));
    }

    [Fact]
    public void An_issn_beside_the_venue_is_its_and_one_alone_is_no_venue()
    {
        var venue = Read(
            ("title", "x"),
            ("source", "ISSN 2434-561X"),
            ("source", "Small Wings; Vol. 12 No. 3 (2019); 45-67")
        ).Venue!;
        Assert.Equal(("Small Wings", "2434-561X", "12"), (venue.Title, venue.Issn, venue.Volume));
        Assert.Null(Read(("title", "x"), ("source", "2434-561X"), ("source", "https://press.example/12")).Venue);
    }

    private const string English =
        "The moths of two hedges were counted in the light of a lamp and in the dark, and more of them were "
        + "found where there was no light.";
    private const string German =
        "Die Falter von zwei Hecken wurden im Licht einer Lampe und im Dunkeln gezählt, und mehr von ihnen "
        + "wurden gefunden, wo es nicht hell ist.";

    [Fact]
    public void The_abstract_is_prose_in_the_texts_language_and_the_rest_is_kept_apart()
    {
        (string, string)[] values =
        [
            ("title", "x"),
            ("description", "Peer reviewed"),
            ("description", English),
            ("description", German),
            ("description", "Includes bibliographical references (p. 40-44)."),
            (
                "description",
                "Funded by: the Night Sky Endowment, grant 12, and by others who are named in the text of it all."
            ),
        ];
        var german = Read([.. values, ("language", "de")]);
        Assert.Equal(German, german.Abstract);
        Assert.Equal([new(English, "eng")], german.OtherAbstracts);
        var english = Read([.. values, ("language", "en")]);
        Assert.Equal(English, english.Abstract);
        Assert.Equal([new(German, "ger")], english.OtherAbstracts);
        Assert.Equal(3, english.Notes.Count(n => n.Contains("was taken to be a remark", StringComparison.Ordinal)));
        Assert.Equal("", Read(("title", "x"), ("description", "Peer reviewed")).Abstract);
        Assert.Equal(
            "A short word on lamps.",
            Read(("title", "x"), ("description", "A short word on lamps.")).Abstract
        );
    }

    [Theory]
    [InlineData("10.5555/own", "10.5555/own", "", "")]
    [InlineData("https://doi.org/10.5555/own", "10.5555/own", "", "")]
    [InlineData("info:eu-repo/semantics/altIdentifier/doi/10.5555/own", "10.5555/own", "", "")]
    [InlineData("isVersionOf 10.5555/other", null, "10.5555/other", "")]
    [InlineData("references: 10.5555/cited", null, "", "10.5555/cited")]
    [InlineData("info:eu-repo/semantics/reference/doi/10.5555/cited", null, "", "10.5555/cited")]
    [InlineData("hasPart 10.5555/part", null, "", "")]
    [InlineData("info:eu-repo/grantAgreement/X/10.5555/12", null, "", "")]
    [InlineData("10.5555/a|10.5555/b", null, "", "")]
    public void What_a_relation_says(string written, string? own, string versions, string references)
    {
        var record = Read([("title", "x"), .. written.Split('|').Select(r => ("relation", r))]);
        Assert.Equal(
            (own, versions, references),
            (
                record.Doi,
                string.Join(' ', record.Versions.Select(v => v.Doi)),
                string.Join(' ', record.References.Select(r => r.Doi))
            )
        );
    }

    [Fact]
    public void A_second_doi_is_another_version_and_the_first_stays() =>
        Assert.Equal(
            ("10.5555/a", "10.5555/b"),
            Read(
                ("title", "x"),
                ("identifier", "10.5555/a"),
                ("relation", "info:eu-repo/semantics/altIdentifier/doi/10.5555/b")
            )
                is { } r
                ? (r.Doi, r.Versions.Single().Doi)
                : default
        );

    [Theory]
    [InlineData("World Forum on Bees", "World Forum on Bees", "")]
    [InlineData("University of Kellow, Department of Lamps", "University of Kellow, Department of Lamps", "")]
    [InlineData("Berg, Mei", "Berg", "Mei")]
    [InlineData("Mei Berg", "Berg", "Mei")]
    public void Organisations_stay_whole(string written, string family, string given) =>
        Assert.Equal(
            (family, given),
            Read(("title", "x"), ("creator", written)).People.Single() is var p ? (p.Family, p.Given) : default
        );
}
