using OpenQA.Selenium;
using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>A curator sees the formats of a service side by side, adds it in one and changes to another.</summary>
public sealed class FormatScreenTests : OddHost
{
    private static string Dc(int i) =>
        "<oai_dc:dc xmlns:oai_dc='http://www.openarchives.org/OAI/2.0/oai_dc/' "
        + $"xmlns:dc='http://purl.org/dc/elements/1.1/'><dc:title>Moths of place {i}</dc:title>"
        + $"<dc:creator>Falk, Ida</dc:creator><dc:date>2020</dc:date><dc:source>Night Letters; Vol. {i} No. 3 "
        + "(2020); 4-9</dc:source><dc:rights>CC BY 4.0</dc:rights></oai_dc:dc>";

    private static string Jats(int i) =>
        "<article article-type='research-article' xml:lang='en'><front><journal-meta><journal-title>Night "
        + "Letters</journal-title></journal-meta><article-meta><article-id "
        + $"pub-id-type='doi'>10.5555/moth.{i}</article-id><title-group><article-title>Moths of place "
        + $"{i}</article-title></title-group><contrib-group><contrib><name><surname>Falk</surname>"
        + "<given-names>Ida</given-names></name></contrib></contrib-group><pub-date><year>2020</year>"
        + $"</pub-date><volume>{i}</volume><issue>3</issue><fpage>4</fpage><lpage>9</lpage><abstract><p>We "
        + "counted the moths at forty lamps of a town in two summers, and found that fewer came to the warm "
        + "ones.</p></abstract><kwd-group><kwd>moths</kwd></kwd-group></article-meta></front><back><ref-list>"
        + "<ref><mixed-citation>Vik A (2001) Lamps of verges. Night Letters 3: 4-9.</mixed-citation></ref>"
        + "</ref-list></back></article>";

    private static string Marc(int i) =>
        "<record xmlns='http://www.loc.gov/MARC21/slim'><leader>00000nab a2200000 a 4500</leader>"
        + $"<datafield tag='245' ind1='1' ind2='0'><subfield code='a'>Moths of place {i} /</subfield>"
        + "</datafield></record>";

    public override async ValueTask InitializeAsync()
    {
        await base.InitializeAsync();
        odd.Offer("oai_dc", "", Dc);
        odd.Offer("jats", "http://jats.nlm.nih.gov", Jats);
        odd.Offer("marcxml", "http://www.loc.gov/MARC21/slim", Marc);
        odd.Formats.Add(("rdf", "http://example.org/rdf"));
        odd.Formats.Add(("mets", "http://www.loc.gov/METS/"));
        host = host.Restarted();
        ann = await (await host.Served()).SignedIn();
    }

    [Fact]
    public async Task Formats_are_seen_side_by_side_chosen_and_changed()
    {
        var review = await ann.Review("Lamps and moths");
        using var b = new Browser(host.ClientOptions.BaseAddress);
        b.SignIn("ann", ZendleHost.Password);
        b.Go($"/r/{review}/databases");
        b.Click("Add a database by its address");
        b.Fill("input[placeholder^='https://repository']", odd.Address);
        b.Click("Check the address");
        b.Sees("Formats, compared on their first 3 records");
        b.Sees("most complete");
        Assert.True(b.Find("input[value=jats]").Selected);
        b.Sees("Also on offer, but not read by Zendle: rdf.");
        b.Sees("METS with MODS (mets): ");
        Assert.False(b.Find("input[value=mets]").Enabled);
        b.Look("formats");
        b.Sees("Record 1 of the first 3, as Zendle reads it");
        b.Click("next");
        b.Sees("Night Letters 2(3), 4–9");
        Assert.Empty(b.AxeFindings());
        b.Script("arguments[0].scrollIntoView()", b.Find("section[aria-label='The same record from each format']"));
        b.Look("formats-record");
        b.On("input[value=oai_dc]", e => e.Click());
        b.Click("Add and harvest");
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet to close");
        b.Sees("3 records new or changed");
        // Without abstracts the field is struck out; in the other format every record has one.
        b.Click("oai_dc");
        b.Sees("It is harvested as oai_dc");
        b.Until(() => b.All("input[value=jats]").Count == 1, "the formats");
        b.On("input[value=jats]", e => e.Click());
        Assert.Empty(b.AxeFindings());
        b.Click("Harvest everything as jats");
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet to close");
        b.Sees("abstract 100 %");
        b.Sees("references 100 %");
        b.Look("formats-changed");
        b.Press(Keys.Escape);
        Assert.Empty(b.Complaints());
    }
}
