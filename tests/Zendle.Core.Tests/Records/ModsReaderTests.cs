using System.Xml.Linq;
using Zendle.Core.Records;
using Zendle.Core.Records.Readers;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Records;

public sealed class ModsReaderTests
{
    private static Record Read(string inside) =>
        ModsReader.Read(
            XElement.Parse($"<mods xmlns='http://www.loc.gov/mods/v3' version='3.8'>{inside}</mods>"),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );

    [Fact]
    public void Reads_a_full_article()
    {
        var r = Read(
            """
            <titleInfo><nonSort>The</nonSort><title>lit verge</title><subTitle>moths at lamps</subTitle></titleInfo>
            <name type="personal"><namePart type="family">Okwemsalo</namePart><namePart type="given">Ilse M.</namePart>
              <nameIdentifier type="orcid">0000-0002-1825-0097</nameIdentifier>
              <affiliation>Cordrey College</affiliation><role><roleTerm>aut</roleTerm></role></name>
            <name type="personal"><namePart>Tchabury, Noor</namePart></name>
            <name type="personal"><namePart>A. Sponsor</namePart><role><roleTerm>spn</roleTerm></role></name>
            <genre>Research Article</genre><originInfo><publisher>Ambry House</publisher><dateIssued>2019-05-02</dateIssued></originInfo>
            <language><languageTerm type="code">en</languageTerm></language>
            <abstract>Visits fell by 62&#160;%.</abstract>
            <subject><topic>moths</topic><topic>Moths</topic></subject><subject authority="local"><topic>Plant ecology</topic></subject>
            <identifier type="doi">https://doi.org/10.5555/LV.19</identifier>
            <relatedItem type="host"><titleInfo><title>Small Wings</title></titleInfo><identifier type="issn">0378-5955</identifier>
              <part><detail type="volume"><number>44</number></detail><detail type="issue">
              <number>2</number></detail><extent unit="page"><start>118</start>
              <end>31</end></extent></part></relatedItem>
            <relatedItem type="otherVersion"><identifier type="doi">10.5555/pre.7</identifier></relatedItem>
            <relatedItem type="references"><titleInfo><title>Old lamps</title></titleInfo><name>
            <namePart type="family">Berg</namePart></name><originInfo>
            <dateIssued>1988</dateIssued></originInfo></relatedItem>
            <note type="citation/reference">Laurist, K. (1990). Moth traps: a plea. Small Wings 3, 1–9. doi:10.5555/mt.1</note>
            <note type="funding">Fund for Dark Places</note><note type="version">accepted manuscript</note>
            <location><url note="free" displayLabel="accepted manuscript">http://h.example/1</url><url>ftp://h.example/2</url></location>
            <extension><citedCount xmlns="">17</citedCount></extension>
            """
        );
        Assert.Equal("The lit verge: moths at lamps", r.Title);
        Assert.Equal(
            [new("Okwemsalo", "Ilse M.", "0000-0002-1825-0097", "Cordrey College"), new("Tchabury", "Noor")],
            r.People
        );
        Assert.Equal(
            (2019, DocumentType.Article, "eng", "10.5555/lv.19", 17),
            (r.Year, r.Type, r.Language, r.Doi, r.CitedCount)
        );
        Assert.Equal("Visits fell by 62 %.", r.Abstract);
        Assert.Equal(["moths"], r.Keywords);
        Assert.Equal(["Plant ecology"], r.ControlledTerms);
        Assert.Equal(new VenuePart("Small Wings", "0378-5955", "44", "2", "118", "131"), r.Venue);
        Assert.Equal(["10.5555/pre.7"], r.Versions.Select(v => v.Doi));
        Assert.Equal(WorkVersion.AcceptedManuscript, r.Version);
        Assert.Equal(
            [(null, "Old lamps", "Berg", 1988), ("10.5555/mt.1", "Moth traps: a plea", "Laurist", 1990)],
            r.References.Select(x => (x.Doi, x.Title, x.FirstPerson, x.Year))
        );
        Assert.Equal([new Copy("http://h.example/1", CopyAccess.Free, WorkVersion.AcceptedManuscript)], r.Copies);
        Assert.Empty(r.Notes);
    }

    [Fact]
    public void A_bracketed_title_is_a_translated_one()
    {
        var r = Read("<titleInfo><title>[Moths at street lamps]</title></titleInfo>");
        Assert.Equal(("Moths at street lamps", true), (r.Title, r.TitleIsTranslated));
    }

    [Theory]
    [InlineData("<originInfo><dateIssued>20233</dateIssued></originInfo>", "not plausible")]
    [InlineData("<identifier type='doi'>none</identifier>", "not a DOI")]
    [InlineData(
        "<relatedItem type='host'><titleInfo><title>X</title></titleInfo><identifier type='issn'>0378-5954</identifier></relatedItem>",
        "wrong check digit"
    )]
    [InlineData("", "no title")]
    public void What_cannot_be_used_is_left_out_with_a_note(string inside, string says) =>
        Assert.Contains(Read(inside).Notes, n => n.Contains(says, StringComparison.Ordinal));

    [Fact]
    public void Dublin_core_gives_what_it_can()
    {
        var r = DublinCoreReader.Read(
            XElement.Parse(
                """
                <oai_dc:dc xmlns:oai_dc="http://www.openarchives.org/OAI/2.0/oai_dc/" xmlns:dc="http://purl.org/dc/elements/1.1/">
                <dc:title>Lamps</dc:title><dc:creator>Berg, Mei</dc:creator>
                <dc:date>1999-01</dc:date><dc:type>thesis</dc:type><dc:language>German</dc:language>
                <dc:identifier>doi:10.5555/x.1</dc:identifier>
                <dc:identifier>http://h.example/1</dc:identifier></oai_dc:dc>
                """
            ),
            "oai:x:1",
            DateTimeOffset.UnixEpoch
        );
        Assert.Equal(
            ("Lamps", 1999, DocumentType.Thesis, "ger", "10.5555/x.1"),
            (r.Title, r.Year, r.Type, r.Language, r.Doi)
        );
        Assert.Equal([new PersonName("Berg", "Mei")], r.People);
        Assert.Equal(["http://h.example/1"], r.Copies.Select(c => c.Address));
    }
}
