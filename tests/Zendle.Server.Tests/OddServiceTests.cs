using System.Text;
using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// What real services do wrong costs as little as it can: one record, or some patience, and it is told.
/// </summary>
public sealed class OddServiceTests : OddHost
{
    private static string Titled(int id, string title) =>
        OddService.Dc(id, $"<dc:title>{title}</dc:title><dc:creator>Falk, Ida</dc:creator><dc:date>2020</dc:date>");

    private async Task<string[]> Titles(string question = "moths")
    {
        var review = await ann.Review();
        var rows = (await ann.Get($"/api/reviews/{review}/steps/{await ann.Search(review, question)}/works?limit=200"))[
            "works"
        ]!.AsArray();
        return [.. rows.Select(r => r!["title"]!.Text("text")).Order(StringComparer.Ordinal)];
    }

    [Theory]
    [InlineData("Moths at night &nbsp;&eacute;lan", "Moths at night élan", true)] // names of signs that only HTML has
    [InlineData("Moths & lamps", "Moths & lamps", true)]
    [InlineData("Moths where p < 0.05", "Moths where p < 0.05", true)]
    [InlineData("Moths\u000b at\u0002 night", "Moths at night", true)] // control characters
    [InlineData("Moths &#x1F; at &#0; night", "Moths at night", true)]
    [InlineData("Moths &unknown; night", "Moths &unknown; night", true)]
    [InlineData("<![CDATA[Moths & lamps]]>", "Moths & lamps", false)] // nothing wrong with it
    public async Task A_fault_in_one_records_xml_is_mended_and_told(string written, string read, bool isMended)
    {
        odd.Pages.Add(
            OddService.Around(Titled(1, written) + Titled(2, "Quiet moths"), "<resumptionToken>1</resumptionToken>")
        );
        odd.Pages.Add(OddService.Around(Titled(3, "Later moths")));
        var database = await ann.Harvest(odd.Address);
        Assert.Equal(("Done", 3), (database["job"]!.Text("state"), database.Int("records")));
        Assert.Equal(
            isMended,
            database["job"]!.Text("message").Contains("1 record had faults in the XML", StringComparison.Ordinal)
        );
        Assert.Equal(new[] { "Later moths", read, "Quiet moths" }.Order(StringComparer.Ordinal), await Titles());
    }

    [Fact]
    public async Task Bytes_that_are_no_utf8_are_read_as_what_they_most_likely_are()
    {
        var page = Encoding.Latin1.GetString(
            OddService.Around(Titled(1, "Moths in Köln and Malmö") + Titled(2, "Quiet moths of Århus"))
        );
        // The first record's umlauts are single bytes, as a program writes that thinks it is elsewhere.
        odd.Pages.Add(Encoding.Latin1.GetBytes(page.Replace("K\u00c3\u00b6ln", "K\u00f6ln", StringComparison.Ordinal)));
        await ann.Harvest(odd.Address);
        Assert.Equal(["Moths in Köln and Malmö", "Quiet moths of Århus"], await Titles());
    }

    [Theory]
    [InlineData("windows-1252")]
    [InlineData("iso-8859-1")]
    public async Task Another_encoding_that_is_declared_is_read(string encoding)
    {
        odd.Pages.Add(
            Encoding.Latin1.GetBytes(
                Encoding.UTF8.GetString(
                    OddService.Around(
                        Titled(1, "Moths in Köln"),
                        null,
                        $"<?xml version=\"1.0\" encoding=\"{encoding}\"?>"
                    )
                )
            )
        );
        await ann.Harvest(odd.Address);
        Assert.Equal(["Moths in Köln"], await Titles());
    }

    [Fact]
    public async Task A_record_that_cannot_be_read_is_left_out_by_name_and_the_rest_comes()
    {
        odd.Pages.Add(
            OddService.Around(
                Titled(1, "Early moths")
                    + Titled(2, "Broken <b>moths</dc:title>")
                    + Titled(3, "Quiet moths")
                    + "<record><header><identifier>oai:odd:4</identifier><datestamp>2026-01-01</datestamp>"
                    + "</header><metadata><foo xmlns='urn:x'/></metadata></record>",
                "<resumptionToken>1</resumptionToken>"
            )
        );
        odd.Pages.Add(OddService.Around(Titled(5, "Later moths")));
        var job = (await ann.Harvest(odd.Address))["job"]!;
        Assert.Equal("Done", job.Text("state"));
        Assert.Equal("3 records new or changed. 2 records could not be read.", job.Text("message"));
        Assert.Equal(["oai:odd:2", "oai:odd:4"], job.List("skipped").Select(s => s.Text("identifier")));
        Assert.Contains("not well-formed", job.List("skipped").First().Text("why"), StringComparison.Ordinal);
        Assert.Equal("Its metadata is “foo”, which Zendle does not read.", job.List("skipped").Last().Text("why"));
        Assert.Equal(["Early moths", "Later moths", "Quiet moths"], await Titles());
    }

    [Theory]
    [InlineData("500")]
    [InlineData("502")]
    [InlineData("504")]
    [InlineData("cut")]
    [InlineData("short")] // ends in the middle, and nobody says so
    public async Task What_may_pass_is_tried_again(string fault)
    {
        odd.Pages.Add(OddService.Around(Titled(1, "Early moths"), "<resumptionToken>1</resumptionToken>"));
        odd.Pages.Add(OddService.Around(Titled(2, "Later moths")));
        foreach (var _ in Enumerable.Range(0, 3))
            odd.Faults.Enqueue(fault);
        var database = await ann.Harvest(odd.Address);
        Assert.Equal(("Done", 2), (database["job"]!.Text("state"), database.Int("records")));
        Assert.Equal(5, odd.Asked.Count); // three in vain, then the two pages
    }

    [Theory]
    [InlineData("404")]
    [InlineData("403")]
    public async Task What_will_not_pass_is_told_at_once(string status)
    {
        odd.Pages.Add(OddService.Around(""));
        odd.Faults.Enqueue(status);
        var job = (await ann.Harvest(odd.Address))["job"]!;
        Assert.Equal("Failed", job.Text("state"));
        Assert.Contains($"status {status}", job.Text("message"), StringComparison.Ordinal);
        Assert.Single(odd.Asked);
    }

    [Theory]
    [InlineData("\n\n<?xml version=\"1.0\"?>\n")]
    [InlineData("\ufeff\r\n<?xml version=\"1.0\" encoding=\"utf-8\"?>")]
    [InlineData("  ")]
    public async Task What_stands_before_the_declaration_is_forgiven(string before)
    {
        odd.Pages.Add(OddService.Around(Titled(1, "Early moths"), null, before));
        Assert.Equal(1, (await ann.Harvest(odd.Address)).Int("records"));
    }

    [Theory]
    [InlineData("completeListSize='1' cursor='0'")]
    [InlineData("completeListSize='-5'")]
    [InlineData("completeListSize='many' cursor='many'")]
    [InlineData("completeListSize='99999999999999'")]
    public async Task Wrong_counts_in_tokens_break_nothing(string counts)
    {
        odd.Pages.Add(
            OddService.Around(
                Titled(1, "Early moths") + Titled(2, "Quiet moths"),
                $"<resumptionToken {counts}>1</resumptionToken>"
            )
        );
        odd.Pages.Add(OddService.Around(Titled(3, "Later moths"), $"<resumptionToken {counts}/>"));
        var job = (await ann.Harvest(odd.Address))["job"]!;
        Assert.Equal(("Done", 3, 3), (job.Text("state"), job.Int("done"), job.Int("total")));
    }

    private async Task<JsonNode> Again(int database, bool whole)
    {
        await ann.Ok("POST", $"/api/databases/{database}/harvest{(whole ? "?whole=true" : "")}");
        return await ann.Ended(database);
    }

    [Fact]
    public async Task Where_nobody_keeps_word_of_deletions_asking_for_everything_shows_them()
    {
        string[] titles = ["Early moths", "Quiet moths", "Later moths"];
        byte[] Whole(params int[] ids) => OddService.Around(string.Concat(ids.Select(i => Titled(i, titles[i - 1]))));
        odd.Page = query =>
            query.ContainsKey("from")
                ? Encoding.UTF8.GetBytes(
                    "<OAI-PMH xmlns='http://www.openarchives.org/OAI/2.0/'><error code='noRecordsMatch'/></OAI-PMH>"
                )
                : Whole(1, 2, 3);
        var database = await ann.Harvest(odd.Address);
        Assert.Equal("no", database.Text("deletedRecord"));
        odd.Page = query => query.ContainsKey("from") ? OddService.Around("") : Whole(1, 3);
        // What changed is asked for: that tells nothing of what went.
        Assert.Equal(3, (await Again(database.Int("id"), whole: false)).Int("records"));
        var whole = await Again(database.Int("id"), whole: true);
        Assert.DoesNotContain("from=", odd.Asked[^1], StringComparison.Ordinal);
        Assert.Equal("1 record new or changed. 1 record is not there any more.", whole["job"]!.Text("message"));
        Assert.Equal(["Early moths", "Later moths"], await Titles());
        Assert.NotNull(whole["wholeAt"]);
        // It comes back.
        odd.Page = _ => Whole(1, 2, 3);
        Assert.Equal(3, (await Again(database.Int("id"), whole: true)).Int("records"));
    }

    [Fact]
    public async Task A_whole_run_that_brings_hardly_anything_deletes_nothing()
    {
        odd.Page = _ =>
            OddService.Around(
                string.Concat(Enumerable.Range(1, 60).Select(i => Titled(i, $"Moths number {i} of the {i * 7} lamps")))
            );
        var id = (await ann.Harvest(odd.Address)).Int("id");
        odd.Page = _ => OddService.Around(Titled(1, "Moths number 1 of the 7 lamps"));
        var after = await Again(id, whole: true);
        Assert.Equal(60, after.Int("records"));
        Assert.Contains(
            "59 records did not come, which is most of the database",
            after["job"]!.Text("message"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_kept_work_that_every_database_has_deleted_stays_with_its_last_values()
    {
        // The first, which will go, cites the second, and the third cites the first.
        static string Citing(int id, string title, string own, string? cited) =>
            OddService.Dc(
                id,
                $"<dc:title>{title}</dc:title><dc:creator>Falk, Ida</dc:creator><dc:date>2020</dc:date>"
                    + $"<dc:identifier>10.5555/{own}</dc:identifier>"
                    + (cited is null ? "" : $"<dc:relation>cites 10.5555/{cited}</dc:relation>")
            );
        odd.Page = _ =>
            OddService.Around(
                Citing(1, "Early moths", "early", "quiet")
                    + Citing(2, "Quiet moths", "quiet", "early")
                    + Citing(3, "Later moths", "later", "early")
            );
        var database = (await ann.Harvest(odd.Address)).Int("id");
        var (review, other) = (await ann.Review(), await ann.Review("Another review"));
        var works = await ann.Works(review, await ann.Search(review, "early OR quiet"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works });
        // The service deletes one that was kept, and one that nobody speaks of.
        odd.Page = _ => OddService.Around(OddService.Dc(1, null) + OddService.Dc(3, null));
        var after = await Again(database, whole: false);
        Assert.Equal(1, after.Int("records"));
        Assert.Equal(
            (1, 1),
            ((await ann.Get("/api/databases")).Int("records"), (await ann.Get("/api/databases")).Int("works"))
        );

        // It is in no search any more, nor in another review; the kept list, the gathering and the export have it, and
        // every count is two.
        Assert.Equal(["Quiet moths"], await Titles());
        Assert.Equal(0, await ann.Count(other, await ann.Search(other, "year:2020 AND early")));
        Assert.Equal(1, await ann.Count(other, await ann.Search(other, "year:2020")));
        var step = await ann.Search(review, "stage:kept");
        Assert.Equal(2, await ann.Count(review, step));
        // No database says any more that it cites; that it is cited one still says.
        async Task<int[]> Trail(int of, int seed) =>
            await ann.Works(
                of,
                await ann.Step(
                    of,
                    0,
                    new
                    {
                        kind = "Trail",
                        seeds = new[] { seed },
                        way = "Both",
                    }
                )
            );
        var (early, quiet) = (works[0], works[1]);
        if ((await ann.Get($"/api/reviews/{review}/works/{early}"))["title"]!.Text("text") != "Early moths")
            (early, quiet) = (quiet, early);
        Assert.Equal([quiet], await Trail(review, early));
        Assert.Equal([early], await Trail(review, quiet)); // its own tie, for the one that went is kept here
        Assert.Empty(await Trail(other, quiet)); // another review does not see it
        Assert.Equal(0, (await ann.Get($"/api/reviews/{review}/works/{quiet}")).Int("citedCount"));
        var rows = (await ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=50"))["works"]!.AsArray();
        Assert.Equal(
            [("Early moths", true, 0), ("Quiet moths", false, 1)],
            rows.Select(r => (r!["title"]!.Text("text"), r["withdrawn"]!.GetValue<bool>(), r.Int("databases"))).Order()
        );
        Assert.Equal(
            (2, 0),
            (
                (await ann.Get($"/api/reviews/{review}")).Int("kept"),
                (await ann.Get($"/api/reviews/{review}")).Int("notFound")
            )
        );
        var view = await ann.Get($"/api/reviews/{review}/steps/{step}");
        Assert.Equal(
            [("no longer in any database", 1), ("Odd Shelf", 1)],
            view["ledger"]!.List("databases").Select(d => (d.Text("name"), d.Int("works")))
        );
        Assert.Equal((2, 2), (view["ledger"]!.Int("records"), view["ledger"]!.Int("works")));
        Assert.Equal(2, (await ann.Get($"/api/reviews/{review}/gather")).List("works").Count());
        var csv = await ann.Http.GetStringAsync($"/api/reviews/{review}/export?format=csv&stepId={step}");
        Assert.Contains("Early moths", csv, StringComparison.Ordinal);
        Assert.Contains("no longer in any database", csv, StringComparison.Ordinal);
        var gone = rows.First(r => r!["withdrawn"]!.GetValue<bool>())!.Int("id");
        var pane = await ann.Get($"/api/reviews/{review}/works/{gone}");
        Assert.Equal(
            ("Early moths", 2020, "Odd Shelf (no longer there)"),
            (pane["title"]!.Text("text"), pane.Int("year"), pane.List("records").Single().Text("database"))
        );

        // The same after a restart with an index made from nothing, and when the database has it again it is one of its
        // records.
        host = host.Restarted(() => Directory.Delete(Path.Combine(host.Data, "index"), recursive: true));
        ann = await host.Visit();
        await ann.SignedIn();
        Assert.Equal(
            (2, 1),
            (
                await ann.Count(review, await ann.Search(review, "stage:kept")),
                await ann.Count(review, await ann.Search(review, "moths"))
            )
        );
        odd.Page = _ => OddService.Around(Titled(1, "Early moths"));
        Assert.Equal(2, (await Again(database, whole: false)).Int("records"));
        Assert.Equal(["Early moths", "Quiet moths"], await Titles());
        Assert.Contains(gone, await ann.Works(review, await ann.Search(review, "early")));
    }
}
