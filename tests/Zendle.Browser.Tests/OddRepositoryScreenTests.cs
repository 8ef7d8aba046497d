using OpenQA.Selenium;
using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>
/// A bare repository with faults, as a curator and a researcher see it: what could not be read, from where fields were
/// taken, and what is in no database any more.
/// </summary>
public sealed class OddRepositoryScreenTests : OddHost
{
    private const string Bare =
        "<dc:title>Moths of the lit verge: a count of CO&lt;sub&gt;2&lt;/sub&gt; and "
        + "wings</dc:title><dc:creator>Falk, Ida (0000-0002-1825-0097)</dc:creator><dc:creator>Moe, "
        + "Ola</dc:creator><dc:contributor>Advisor: Lind, Per</dc:contributor>"
        + "<dc:date>2021-03-02T10:00:00Z</dc:date><dc:date>2018-05</dc:date><dc:type>Text</dc:type>"
        + "<dc:type>Zeitschriftenartikel</dc:type><dc:language>en_US</dc:language><dc:source>SMALL WINGS; "
        + "Vol. 12 No. 3 (2018): Summer issue; 45-67</dc:source>"
        + "<dc:description>Peer reviewed</dc:description><dc:description>We counted the moths at forty lamps in a "
        + "town and found that fewer of them came to the warm ones.</dc:description><dc:title>Falter am beleuchteten "
        + "Rain</dc:title><dc:description>Wir haben in der Stadt die Nachtfalter an vierzig Laternen gezählt, und an "
        + "den warmen Lampen waren es weniger.</dc:description><dc:rights>CC BY "
        + "4.0</dc:rights>"
        + "<dc:identifier>http://hdl.handle.net/20.500.1/77</dc:identifier><dc:relation>https://doi.org/10.5555/wings.77</dc:relation>";

    private int review;

    public override async ValueTask InitializeAsync()
    {
        await base.InitializeAsync();
        odd.Page = _ =>
            OddService.Around(
                OddService.Dc(1, Bare)
                    + OddService.Dc(2, "<dc:title>Broken <b>moths</dc:title>")
                    + OddService.Dc(
                        3,
                        "<dc:title>Lamps & moths of a harbour</dc:title><dc:creator>Vik, Ada</dc:creator><dc:date>2020</dc:date>"
                    )
            );
        await ann.Harvest(odd.Address);
        review = await ann.Review("Lamps and moths");
        var works = await ann.Works(review, await ann.Search(review, "moths"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works });
        odd.Page = _ =>
            OddService.Around(OddService.Dc(3, null) + OddService.Dc(2, "<dc:title>Broken <b>moths</dc:title>"));
        await ann.Ok("POST", "/api/databases/1/harvest");
        await ann.Ended(1);
        host = host.Restarted();
        ann = await (await host.Served()).SignedIn();
    }

    [Fact]
    public async Task What_was_left_out_taken_and_withdrawn_is_seen()
    {
        using var b = new Browser(host.ClientOptions.BaseAddress);
        b.SignIn("ann", ZendleHost.Password);
        b.Go($"/r/{review}/databases");
        b.Sees("1 record could not be read");
        b.Sees("harvest all again");
        b.Click("which");
        b.Sees("oai:odd:2");
        b.Sees("not well-formed XML");
        Assert.Empty(b.AxeFindings());
        b.Look("odd-skipped");
        b.Press(Keys.Escape);
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet to close");
        // The service has mended its record; everything is asked for again.
        odd.Page = _ =>
            OddService.Around(
                OddService.Dc(1, Bare) + OddService.Dc(2, "<dc:title>Mended moths</dc:title>") + OddService.Dc(3, null)
            );
        b.Click("harvest all again");
        b.Until(
            () =>
                !b.TextOf("main").Contains("could not be read", StringComparison.Ordinal)
                && b.TextOf("main").Contains("1 record new or changed", StringComparison.Ordinal),
            "the harvest to come whole"
        );

        var step = await ann.Search(review, "stage:kept");
        b.Go($"/r/{review}/search?step={step}");
        b.Until(() => b.All("[role=option], article").Count >= 2, "two kept works");
        b.Sees("no longer in any database");
        b.Sees("SMALL WINGS"); // no record has it otherwise, and nothing is made up
        Assert.Empty(b.AxeFindings());
        b.Look("odd-withdrawn");
        b.Size(1024, 768);
        b.Dark(true);
        b.Go($"/r/{review}/gather");
        b.Sees("no longer in any database");
        Assert.Empty(b.AxeFindings());
        b.Look("odd-gather");
        b.Dark(false);
        b.Size(1280, 800);
        var bare = (await ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=9"))["works"]!
            .AsArray()
            .First(w => w!["title"]!.Text("text").StartsWith("Moths of the lit verge", StringComparison.Ordinal))!
            .Int("id");
        b.Go($"/r/{review}/search?step={step}&work={bare}");
        b.Until(
            () => b.TextOf("main").Contains("CO₂ and wings", StringComparison.Ordinal),
            "the title with its subscript"
        );
        b.Click("Show its fields");
        b.Sees("Of 2 dates “2018-05” was taken as the date of issue");
        b.Sees("from source “SMALL WINGS; Vol. 12 No. 3 (2018)");
        b.Sees("No identifier is a DOI; the relation names the work’s own.");
        Assert.Empty(b.AxeFindings());
        b.Look("odd-records");
        b.Press(Keys.Escape);

        // What a record says in another language is found, and read where the work is.
        var german = await ann.Search(review, "nachtfalter");
        b.Go($"/r/{review}/search?step={german}&work={bare}");
        b.Sees("Also: Falter am beleuchteten Rain");
        b.Sees("Abstract in German · 1 of the words looked for");
        Assert.Equal("Nachtfalter", b.TextOf("[data-field='other-abstract'] mark"));
        Assert.Empty(b.AxeFindings());
        b.Look("odd-german");
        Assert.Empty(b.Complaints());
    }
}
