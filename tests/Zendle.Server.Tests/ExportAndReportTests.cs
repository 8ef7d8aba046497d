using System.Text.Json;
using System.Text.RegularExpressions;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class ExportAndReportTests(HarvestedWithItsOutside world) : IClassFixture<HarvestedWithItsOutside>
{
    private Visitor Ann => world.Ann;

    [Theory]
    [InlineData("ris", "ris", @"^TY  - ")]
    [InlineData("bibtex", "bib", @"^@\w+\{")]
    [InlineData("csl-json", "json", @"""title"": ")]
    [InlineData("csv", "csv", @"^\d+,")]
    public async Task The_kept_works_go_out_in_one_act(string format, string ending, string entry)
    {
        var review = await Ann.Review("Street lighting & moths");
        var works = await Ann.Works(review, await Ann.Search(review, "moth*"), "limit=7");
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works });
        var reply = await Ann.Http.GetAsync($"/api/reviews/{review}/export?format={format}&set=kept");
        Assert.Matches(
            $@"^street-lighting-moths_kept_7-works_\d{{4}}-\d\d-\d\d\.{ending}$",
            reply.Content.Headers.ContentDisposition!.FileNameStar ?? reply.Content.Headers.ContentDisposition.FileName!
        );
        var text = await reply.Content.ReadAsStringAsync();
        Assert.Equal(7, Regex.Count(text, entry, RegexOptions.Multiline));
        if (format == "csl-json")
            Assert.Equal(7, JsonDocument.Parse(text).RootElement.GetArrayLength());
    }

    [Fact]
    public async Task Any_step_is_exported_in_the_order_of_its_list_and_an_unknown_format_is_told()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* AND pollinat*");
        var csv = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?format=csv&stepId={step}&sort=Newest");
        var ids = Regex
            .Matches(csv, @"^(\d+),", RegexOptions.Multiline)
            .Select(m => int.Parse(m.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture))
            .ToArray();
        Assert.Equal(await Ann.Works(review, step, "sort=Newest&limit=200"), ids.Take(200));
        Assert.Equal(
            (400, "“docx” is not a format Zendle writes."),
            (
                (await Ann.Send("GET", $"/api/reviews/{review}/export?format=docx&stepId={step}")) is var (s, b)
                    ? (s, b!.Text("title"))
                    : default
            )
        );
    }

    private async Task<Dictionary<int, string>> Keys(int review, string which)
    {
        var csv = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?format=csv&{which}");
        return Regex
            .Matches(csv, @"^(\d+),([\w-]+),", RegexOptions.Multiline)
            .ToDictionary(
                m => int.Parse(m.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture),
                m => m.Groups[2].Value
            );
    }

    [Fact]
    public async Task A_key_that_a_work_was_cited_under_stays_its_own_in_every_later_file()
    {
        var review = await Ann.Review();
        var all = await Ann.Search(review, "light OR moth* OR night");
        // The oldest few come first; in the whole list, the newest first, others would have had their keys.
        var few = await Keys(
            review,
            $"stepId={await Ann.Step(review, all, new { kind = "Years", from = 1900, to = 2000 })}&sort=Oldest"
        );
        Assert.InRange(few.Count, 5, 400);
        var whole = await Keys(review, $"stepId={all}&sort=Newest");
        Assert.True(whole.Count > few.Count);
        Assert.All(few, k => Assert.Equal(k.Value, whole[k.Key]));
        Assert.Equal(whole.Count, whole.Values.Distinct().Count());
        // The same in every format, and in an order turned round.
        var bib = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?format=bibtex&stepId={all}&sort=Oldest");
        Assert.Equal(
            whole.Values.Order(),
            Regex.Matches(bib, @"^@\w+\{([^,]+),", RegexOptions.Multiline).Select(m => m.Groups[1].Value).Order()
        );
        Assert.Equal(whole, await Keys(review, $"stepId={all}&sort=Cited"));
        // Another review has its own.
        var other = await Ann.Review();
        Assert.Equal(
            whole.Values.Order(),
            (await Keys(other, $"stepId={await Ann.Search(other, "light OR moth* OR night")}")).Values.Order()
        );
    }

    [Fact]
    public async Task Every_committed_run_is_in_the_log_and_marking_it_of_record_stays()
    {
        var review = await Ann.Review();
        var step = await Ann.Step(
            review,
            await Ann.Search(review, "moth*"),
            new
            {
                kind = "Years",
                from = 2000,
                to = 2020,
            }
        );
        var log = (await Ann.Get($"/api/reviews/{review}/log"))["runs"]!.AsArray();
        Assert.Equal(2, log.Count);
        var run = log[0]!;
        Assert.Equal(
            ("moth*", 2000, 2020, "Ann", false),
            (
                run["state"]!.Text("expression"),
                run["state"]!.Int("from"),
                run["state"]!.Int("to"),
                run.Text("by"),
                run["ofRecord"]!.GetValue<bool>()
            )
        );
        Assert.Equal(await Ann.Count(review, step), run.Int("count"));
        Assert.Equal(["Farnet", "Meridian Citations"], run["ledger"]!.List("databases").Select(d => d.Text("name")));
        await Ann.Ok("PATCH", $"/api/reviews/{review}/log/{run.Int("id")}", new { ofRecord = true });
        Assert.True((await Ann.Get($"/api/reviews/{review}/log"))["runs"]![0]!["ofRecord"]!.GetValue<bool>());
    }

    [Fact]
    public async Task The_log_comes_in_pages_that_together_hold_every_run_once()
    {
        var review = await Ann.Review();
        for (var i = 0; i < 7; i++)
            await Ann.Search(review, $"moth* NOT w{i}");
        var (seen, before) = (new List<int>(), (int?)null);
        while (true)
        {
            var page = await Ann.Get($"/api/reviews/{review}/log?limit=3{(before is { } b ? $"&before={b}" : "")}");
            Assert.Equal((7, 0), (page.Int("searches"), page.Int("ofRecord")));
            seen.AddRange(page.List("runs").Select(r => r.Int("id")));
            before = seen[^1];
            Assert.Equal(seen.Count < 7, page["hasEarlier"]!.GetValue<bool>());
            if (seen.Count >= 7)
                break;
        }
        Assert.Equal(7, seen.Distinct().Count());
        Assert.Equal(seen.OrderDescending(), seen);
        await Ann.Ok("PATCH", $"/api/reviews/{review}/log/{seen[6]}", new { ofRecord = true });
        var marked = await Ann.Get($"/api/reviews/{review}/log?ofRecord=true&limit=3");
        Assert.Equal([seen[6]], marked.List("runs").Select(r => r.Int("id")));
        Assert.Equal((7, 1), (marked.Int("searches"), marked.Int("ofRecord")));
    }

    [Fact]
    public async Task A_run_again_says_what_is_new_since()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR moth*");
        var before = await Ann.Works(review, step, "limit=200&sort=Newest");
        var then = await Ann.Count(review, step);
        await world.Outside.Move(45);
        foreach (var database in (await Ann.Get("/api/databases")).List("databases"))
        {
            await Ann.Ok("POST", $"/api/databases/{database.Int("id")}/harvest");
            await Ann.Ended(database.Int("id"));
        }
        var run = (await Ann.Get($"/api/reviews/{review}/log"))["runs"]![0]!.Int("id");
        var again = (await Ann.Ok("POST", $"/api/reviews/{review}/log/{run}/again")).Int("stepId");
        var newest = (await Ann.Get($"/api/reviews/{review}/log"))["runs"]![0]!;
        Assert.Equal((run, again), (newest.Int("repeats"), newest.Int("stepId")));
        Assert.Equal(newest.Int("count") - then, newest.Int("new") - newest.Int("gone"));
        Assert.True(newest.Int("new") > 0, "no work arrived in 45 days of the outside");
        // The old step tells what it found then and what it would find now.
        var old = (await Ann.Get($"/api/reviews/{review}/steps/{step}/path")).List("steps").Single();
        Assert.Equal((then, newest.Int("count")), (old.Int("count"), old.Int("countNow")));
        Assert.NotEmpty((await Ann.Works(review, again, "limit=200&sort=Newest")).Except(before));
    }
}
