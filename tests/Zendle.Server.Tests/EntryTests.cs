using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Custom entries over HTTP: they are searched, counted, merged and followed like all records, and outlive a lost corpus.
/// </summary>
public sealed class EntryTests : IAsyncLifetime
{
    private Harvested harvested = null!;
    private Visitor ann = null!;
    private int review;

    public async ValueTask InitializeAsync()
    {
        harvested = new();
        await harvested.InitializeAsync();
        ann = harvested.Ann;
        review = await ann.Review();
    }

    public ValueTask DisposeAsync() => harvested.DisposeAsync();

    internal static JsonObject Fields(string title, params (string Name, string Value)[] more)
    {
        var fields = new JsonObject();
        foreach (
            var name in (string[])
                [
                    "title",
                    "type",
                    "people",
                    "year",
                    "venue",
                    "volume",
                    "issue",
                    "pages",
                    "publisher",
                    "doi",
                    "isbn",
                    "address",
                    "language",
                    "keywords",
                    "abstract",
                    "references",
                ]
        )
            fields[name] = "";
        fields["title"] = title;
        foreach (var (name, value) in more)
            fields[name] = value;
        return fields;
    }

    private Task<JsonNode> Keep(params JsonObject[] entries) =>
        ann.Ok("POST", $"/api/reviews/{review}/entries", new { entries });

    private async Task<int> Found(string expression) => await ann.Count(review, await ann.Search(review, expression));

    private async Task<JsonNode> Work(int id) => await ann.Get($"/api/reviews/{review}/works/{id}");

    private async Task<List<JsonNode>> WithDoi(int count)
    {
        var found = new List<JsonNode>();
        foreach (var id in await ann.Works(review, await ann.Search(review, "moth* OR light")))
            if (found.Count < count && await Work(id) is var work && work["doi"] is not null)
                found.Add(work);
        return found;
    }

    [Fact]
    public async Task An_entry_is_searched_counted_kept_and_exported_like_any_work()
    {
        var before = (await ann.Get("/api/databases")).Int("works");
        var kept = await Keep(
            Fields(
                "Zwielicht over quarries: a plan",
                ("type", "manuscript"),
                ("people", "Quarrel, Ulla\nLind, Per"),
                ("year", "2027"),
                ("keywords", "quarry moths")
            )
        );
        var work = kept["works"]!.AsArray().Single()!.GetValue<int>();
        Assert.Equal(0, kept.Int("joined"));
        foreach (
            var expression in (string[])
                [
                    "zwielicht",
                    "title:quarries AND year:2027",
                    "type:manuscript",
                    "author:\"quarrel u\"",
                    "keywords:\"quarry moths\"",
                ]
        )
            Assert.Equal(1, await Found(expression));
        var step = await ann.Search(review, "zwielicht");
        Assert.Equal([work], await ann.Works(review, step));
        var ledger = (await ann.Get($"/api/reviews/{review}/steps/{step}")).ToJsonString();
        Assert.Contains("Custom entries", ledger, StringComparison.Ordinal);
        var databases = await ann.Get("/api/databases");
        Assert.Equal(before + 1, databases.Int("works"));
        var own = databases.List("databases").Single(d => d["isOfEntries"]!.GetValue<bool>());
        Assert.Equal((1, 1, 1), (own.Int("records"), own.Int("works"), own.Int("onlyHere")));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { work } });
        Assert.Equal(1, await Found("stage:kept"));
        var (_, csl) = await ann.Send("GET", $"/api/reviews/{review}/export?format=csl-json&stepId={step}");
        Assert.NotNull(csl);
        Assert.Contains("Zwielicht over quarries: a plan", csl.ToJsonString(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_it_cites_ties_it_to_the_works_that_are_here()
    {
        var known = await WithDoi(2);
        int[] cited = [.. known.Select(w => w.Int("id"))];
        var dois = known.Select(w => w.Text("doi"));
        var kept = await Keep(
            Fields("A plan that cites two", ("references", string.Join('\n', dois.Select(d => $"https://doi.org/{d}"))))
        );
        var plan = kept["works"]![0]!.GetValue<int>();
        Assert.Equal(2, (await Work(plan)).Int("citesCount"));
        var trail = await ann.Step(
            review,
            0,
            new
            {
                kind = "Trail",
                seeds = cited,
                way = "Forward",
            }
        );
        Assert.Contains(plan, await ann.Works(review, trail));
    }

    [Fact]
    public async Task An_entry_with_the_DOI_of_a_work_joins_it()
    {
        var work = (await WithDoi(1))[0];
        var there = work.Int("id");
        var kept = await Keep(
            Fields(
                work["title"]!.Text("text"),
                ("doi", work.Text("doi")),
                ("year", $"{work["year"]}"),
                ("people", work["people"]![0]!.Text("family"))
            )
        );
        Assert.Equal((there, 1), (kept["works"]![0]!.GetValue<int>(), kept.Int("joined")));
        var records = (await Work(there)).List("records").ToArray();
        Assert.Equal(1, records.Count(r => r["entryId"] is not null));
        Assert.True(records.Length > 1);
    }

    [Fact]
    public async Task It_is_changed_removed_and_brought_back_under_its_number()
    {
        var kept = await Keep(Fields("Zwergmotte at the weir"));
        var work = kept["works"]![0]!.GetValue<int>();
        var id = (await Work(work)).List("records").Single().Int("entryId");
        var entry = $"/api/reviews/{review}/entries/{id}";
        Assert.True((await ann.Get(entry))["mayChange"]!.GetValue<bool>());
        await ann.Ok("PUT", entry, Fields("Zwergfalter at the weir"));
        Assert.Equal((0, 1), (await Found("zwergmotte"), await Found("zwergfalter")));
        await ann.Ok("PUT", entry + "/removed", new { isRemoved = true });
        Assert.Equal(0, await Found("zwergfalter"));
        Assert.True((await ann.Get(entry))["isRemoved"]!.GetValue<bool>());
        await ann.Ok("PUT", entry + "/removed", new { isRemoved = false });
        Assert.Equal([work], await ann.Works(review, await ann.Search(review, "zwergfalter")));
    }

    [Fact]
    public async Task What_cannot_be_read_is_named_by_its_field_and_nothing_is_kept()
    {
        var (status, body) = await ann.Send(
            "POST",
            $"/api/reviews/{review}/entries",
            new { entries = new[] { Fields("Zwischenruf"), Fields("", ("year", "soon"), ("doi", "none")) } }
        );
        Assert.Equal(400, status);
        Assert.Equal("Entry 2: An entry needs a title.", body!.Text("title"));
        Assert.Equal(["doi", "title", "year"], body!["fields"]!.AsObject().Select(f => f.Key).Order());
        Assert.Equal(0, await Found("zwischenruf"));
        Assert.Equal(
            400,
            (
                await ann.Send("POST", $"/api/reviews/{review}/entries", new { entries = Array.Empty<JsonObject>() })
            ).Status
        );
        Assert.Equal(404, (await ann.Send("GET", $"/api/reviews/{review}/entries/4711")).Status);
    }

    [Fact]
    public async Task Another_persons_entry_is_changed_by_curators_only()
    {
        var ben = await harvested.Host.Another(ann, "ben");
        await ann.Ok("PUT", $"/api/reviews/{review}/members", new { name = "ben", role = "Screener" });
        var kept = await Keep(Fields("Zwiebelmotte of Ann"));
        var id = (await Work(kept["works"]![0]!.GetValue<int>())).List("records").Single().Int("entryId");
        var entry = $"/api/reviews/{review}/entries/{id}";
        Assert.False((await ben.Get(entry))["mayChange"]!.GetValue<bool>());
        Assert.Equal(403, (await ben.Send("PUT", entry, Fields("Of Ben"))).Status);
        var bens = await ben.Ok("POST", $"/api/reviews/{review}/entries", new { entries = new[] { Fields("Of Ben") } });
        var his = (await Work(bens["works"]![0]!.GetValue<int>())).List("records").Single().Int("entryId");
        await ann.Ok("PUT", $"/api/reviews/{review}/entries/{his}", Fields("Of Ben, mended"));
        Assert.Equal(1, await Found("title:\"of ben mended\""));
    }

    [Fact]
    public async Task Pasted_references_fill_the_fields_and_many_are_kept_in_one_act()
    {
        string[] texts =
        [
            .. Enumerable
                .Range(0, 40)
                .Select(i =>
                    $"Berg{i}, M., & Lind, P. (20{i % 20:00}). Zwerchfell number {i} of lamps. Night Letters {i}, {i}(2), 1–9."
                ),
        ];
        var read = await ann.Ok("POST", "/api/entries/read", new { texts });
        var kept = await ann.Ok("POST", $"/api/reviews/{review}/entries", new { entries = read });
        Assert.Equal(40, kept["works"]!.AsArray().Select(w => w!.GetValue<int>()).Distinct().Count());
        Assert.Equal(40, await Found("zwerchfell"));
        Assert.Equal(1, await Found("zwerchfell AND author:berg7"));
        var again = await ann.Ok("POST", $"/api/reviews/{review}/pasted", new { lines = texts });
        Assert.All(again.List("references"), r => Assert.Equal("Sure", r.Text("verdict")));
    }

    [Fact]
    public async Task They_are_no_service_that_is_harvested()
    {
        await Keep(Fields("Zwist"));
        var own = (await ann.Get("/api/databases")).List("databases").Single(d => d["isOfEntries"]!.GetValue<bool>());
        var (status, body) = await ann.Send("POST", $"/api/databases/{own.Int("id")}/harvest");
        Assert.Equal(409, status);
        Assert.Equal("Custom entries are not harvested; people add them.", body!.Text("title"));
    }

    [Fact]
    public async Task They_are_there_again_when_the_corpus_was_lost()
    {
        var kept = await Keep(Fields("Zwillinge of the harbour"), Fields("Zwilling that was removed"));
        var works = kept["works"]!.AsArray().Select(w => w!.GetValue<int>()).ToArray();
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..1] });
        var id = (await Work(works[1])).List("records").Single().Int("entryId");
        await ann.Ok("PUT", $"/api/reviews/{review}/entries/{id}/removed", new { isRemoved = true });
        var host = harvested.Host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            foreach (var file in Directory.GetFiles(harvested.Host.Data, "corpus.db*"))
                File.Delete(file);
        });
        await using (host)
        {
            ann = await host.SignedIn();
            var (kepts, found) = (await Found("stage:kept"), await Found("zwilling*"));
            Assert.Equal((1, 1), (kepts, found));
            Assert.Equal(0, (await ann.Get($"/api/reviews/{review}")).Int("notFound"));
            Assert.DoesNotContain(
                "zendle:entries",
                (await ann.Get("/api/me"))["announcement"]!.Text("text"),
                StringComparison.Ordinal
            );
        }
    }
}
