using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>A curator adds citations from a table; they are ties like any other until the table is removed.</summary>
public sealed class TieTableTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private async Task<(int Status, JsonNode? Body)> Post(string name, string table, Visitor? by = null)
    {
        using var request = new HttpRequestMessage(
            HttpMethod.Post,
            $"/api/tie-sources?name={Uri.EscapeDataString(name)}"
        );
        var who = by ?? Ann;
        request.Headers.Add("X-Zendle-Token", (await who.Get("/api/me")).Text("requestToken"));
        request.Content = new StringContent(table, Encoding.UTF8, "text/csv");
        using var reply = await who.Http.SendAsync(request);
        var text = await reply.Content.ReadAsStringAsync();
        return ((int)reply.StatusCode, text.Length == 0 ? null : JsonNode.Parse(text));
    }

    private async Task<JsonNode> Source(string name, Visitor? by = null)
    {
        for (var i = 0; i < 600; i++)
        {
            var source = (await (by ?? Ann).Get("/api/tie-sources")).AsArray().Single(s => s!.Text("name") == name)!;
            if (source["job"] is null)
                return source;
            Assert.NotEqual("Failed", source["job"]!.Text("state"));
            await Task.Delay(50);
        }
        throw new TimeoutException("The table was not taken in thirty seconds.");
    }

    [Fact]
    public async Task Citations_of_a_table_are_ties_until_it_is_removed()
    {
        var review = await Ann.Review();
        var works = new List<(int Id, string Doi)>();
        foreach (var id in await Ann.Works(review, await Ann.Search(review, "light OR moth*")))
            if ((await Ann.Get($"/api/reviews/{review}/works/{id}"))["doi"]?.GetValue<string>() is { } doi)
                works.Add((id, doi));
        works = [.. works.DistinctBy(w => w.Doi).Take(30)];
        Assert.Equal(30, works.Count);
        var cites = new Dictionary<int, HashSet<int>>();
        foreach (var (id, _) in works)
            cites[id] = await Ann.AllWorks(review, await Ann.Follow(review, "Backward", id));

        // Each cites the next three, the first ten in capitals or as an address; one row twice, some of nobody here.
        var table = new StringBuilder("oci;Citing DOI;Cited DOI;created\n");
        var pairs = new HashSet<(int From, int To)>();
        for (var i = 0; i < works.Count; i++)
        for (var step = 1; step <= 3; step++)
        {
            var (from, to) = (works[i], works[(i + step) % works.Count]);
            pairs.Add((from.Id, to.Id));
            var citing =
                i < 5 ? from.Doi.ToUpperInvariant()
                : i < 10 ? $"https://doi.org/{from.Doi}"
                : from.Doi;
            table.Append(CultureInfo.InvariantCulture, $"0;{citing};{to.Doi};2020\n");
        }
        table.Append(CultureInfo.InvariantCulture, $"0;{works[0].Doi};{works[1].Doi};2020\n");
        for (var i = 0; i < 7; i++)
            table.Append(CultureInfo.InvariantCulture, $"0;{works[i].Doi};10.5555/nobody.{i % 5};2020\n");
        table.Append("0;10.5555/nowhere.1;10.5555/nowhere.2;\n0;;10.5555/half;\n0;none\n");

        var (status, _) = await Post("Open citations", table.ToString());
        Assert.Equal(200, status);
        var source = await Source("Open citations");
        var added = pairs.Count(p => !cites[p.From].Contains(p.To));
        Assert.Equal(
            (101, 2, pairs.Count, added, 7),
            (
                source.Int("rows"),
                source.Int("unread"),
                source.Int("citations"),
                source.Int("onlyHere"),
                source.Int("unknown")
            )
        );
        foreach (var (id, _) in works)
            Assert.Equal(
                cites[id].Union(pairs.Where(p => p.From == id).Select(p => p.To)).Order(),
                (await Ann.AllWorks(review, await Ann.Follow(review, "Backward", id))).Order()
            );
        var step0 = await Ann.Follow(review, "Backward", works[12].Id);
        var ledger = (await Ann.Get($"/api/reviews/{review}/steps/{step0}"))["ledger"]!;
        Assert.Equal(3, ledger.List("databases").Single(d => d.Text("name") == "Open citations").Int("works"));
        // A search is not asked of a table.
        var search = await Ann.Get($"/api/reviews/{review}/steps/{await Ann.Search(review, "moth*")}");
        Assert.DoesNotContain(search["ledger"]!.List("databases"), d => d.Text("name") == "Open citations");
        // A reference that only the table has says so, and one that nothing here has is there to be resolved.
        var references = (await Ann.Get($"/api/reviews/{review}/works/{works[0].Id}/references")).List("references");
        Assert.Contains(
            references,
            r =>
                r["doi"]?.GetValue<string>() == "10.5555/nobody.0"
                && r["workId"] is null
                && r["databases"]!.AsArray().Single()!.GetValue<string>() == "Open citations"
        );

        Assert.Equal(204, (await Ann.Send("DELETE", $"/api/tie-sources/{source.Int("id")}")).Status);
        foreach (var (id, _) in works)
            Assert.Equal(
                cites[id].Order(),
                (await Ann.AllWorks(review, await Ann.Follow(review, "Backward", id))).Order()
            );
        Assert.DoesNotContain((await Ann.Get("/api/tie-sources")).AsArray(), s => s!.Text("name") == "Open citations");
        Assert.Equal(404, (await Ann.Send("DELETE", $"/api/tie-sources/{source.Int("id")}")).Status);
    }

    [Fact]
    public async Task A_table_that_went_with_a_lost_corpus_is_named_and_one_that_was_removed_is_not()
    {
        var host = new ZendleHost(world.Outside.Address.ToString());
        var ann = await host.Curator();
        foreach (var name in new[] { "Taken back", "Left alone" })
            Assert.Equal(200, (await Post(name, "citing,cited\n10.5555/a,10.5555/b\n", ann)).Status);
        await Source("Left alone", ann);
        var back = await Source("Taken back", ann);
        Assert.Equal(204, (await ann.Send("DELETE", $"/api/tie-sources/{back.Int("id")}")).Status);
        await using var again = host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            foreach (var file in Directory.GetFiles(host.Data, "corpus.db*"))
                File.Delete(file);
        });
        var lost = (await (await again.SignedIn()).Get("/api/me"))["announcement"]!.ToJsonString();
        Assert.Contains("tables of citations again: Left alone.", lost, StringComparison.Ordinal);
        Assert.DoesNotContain("Taken back", lost, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "empty")]
    [InlineData("title,year\nMoths,2001\n", "citing")]
    [InlineData("citing,cited\nx,y\n", "No row")]
    [InlineData("\0\u0001\u0002", "citing")]
    public async Task What_is_no_table_of_citations_is_refused_in_a_sentence(string table, string says)
    {
        var (status, body) = await Post("Nothing", table);
        Assert.Equal(422, status);
        Assert.Contains(says, body!.Text("title"), StringComparison.Ordinal);
        Assert.DoesNotContain((await Ann.Get("/api/tie-sources")).AsArray(), s => s!.Text("name") == "Nothing");
    }

    [Fact]
    public async Task Two_tables_of_one_name_are_not_taken()
    {
        Assert.Equal(200, (await Post("Twice", "citing,cited\n10.5555/a,10.5555/b\n")).Status);
        await Source("Twice");
        var (status, body) = await Post("Twice", "citing,cited\n10.5555/a,10.5555/b\n");
        Assert.Equal(422, status);
        Assert.Contains("already", body!.Text("title"), StringComparison.Ordinal);
    }
}
