using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// References that match nothing are said to mean a work: for every work that prints them, in every count, until it is
/// taken back.
/// </summary>
public sealed class ResolutionTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> References(int review, int work) =>
        Ann.Get($"/api/reviews/{review}/works/{work}/references");

    /// <summary>Seeds with an unmatched reference that several of them list, and a work that none of them cites.</summary>
    private async Task<(int Review, int Step, JsonNode Reference, int[] Citing, int Target)> Open()
    {
        var review = await Ann.Review();
        var seeds = await Ann.Works(review, await Ann.Search(review, "light OR moth*"), "sort=Cited&limit=60");
        var step = await Ann.Follow(review, "Backward", seeds);
        var cited = await Ann.AllWorks(review, step);
        var all = await Ann.Works(review, await Ann.Search(review, "light OR moth*"));
        var open = (await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched"))
            .List("references")
            .MaxBy(r => r["seeds"]!.AsArray().Count)!;
        int[] citing = [.. open["seeds"]!.AsArray().Select(n => seeds[n!.GetValue<int>() - 1])];
        return (review, step, open["reference"]!, citing, all.First(w => !cited.Contains(w) && !seeds.Contains(w)));
    }

    private static object At(JsonNode reference) => reference["listed"]!.DeepClone();

    private Task<JsonNode> Resolve(int review, JsonNode reference, int workId) =>
        Ann.Ok("POST", $"/api/reviews/{review}/resolutions", new { listed = At(reference), workId });

    [Fact]
    public async Task A_reference_is_resolved_for_every_work_that_prints_it_and_undone()
    {
        var (review, step, reference, citing, target) = await Open();
        var whole = await Ann.Count(review, step);
        var total = (await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched")).Int("total");
        var cited = (await Ann.Get($"/api/reviews/{review}/works/{target}")).Int("citedCount");
        var choices = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/references/choices",
            new { listed = At(reference), text = (string?)null }
        );

        var said = await Resolve(review, reference, target);
        Assert.True(said["mayUndo"]!.GetValue<bool>());
        var unmatched = await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched");
        Assert.Equal(total - 1, unmatched.Int("total"));
        var resolved = Assert.Single(unmatched.List("resolved"))["reference"]!;
        Assert.Equal((target, said.Int("id")), (resolved.Int("workId"), resolved["resolution"]!.Int("id")));
        Assert.Equal(whole + 1, await Ann.Count(review, step));
        // As many works cite it as were said to print the reference, the seeds among them.
        Assert.Equal(
            cited + choices.Int("printed"),
            (await Ann.Get($"/api/reviews/{review}/works/{target}")).Int("citedCount")
        );
        var forward = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", target));
        Assert.All(citing, c => Assert.Contains(c, forward));
        foreach (var work in citing.Take(3))
            Assert.Contains((await References(review, work)).List("references"), r => (int?)r["workId"] == target);

        // Somebody else may not take it back, unless a curator.
        var name = "ben" + review;
        var ben = await world.Host.Another(Ann, name);
        await Ann.Ok("PUT", $"/api/reviews/{review}/members", new { name, role = "Screener" });
        Assert.Equal(403, (await ben.Send("DELETE", $"/api/reviews/{review}/resolutions/{said.Int("id")}")).Status);
        Assert.Equal(204, (await Ann.Send("DELETE", $"/api/reviews/{review}/resolutions/{said.Int("id")}")).Status);
        Assert.Equal(404, (await Ann.Send("DELETE", $"/api/reviews/{review}/resolutions/{said.Int("id")}")).Status);
        Assert.Equal(whole, await Ann.Count(review, step));
        Assert.Equal(cited, (await Ann.Get($"/api/reviews/{review}/works/{target}")).Int("citedCount"));
        Assert.Equal(total, (await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched")).Int("total"));
    }

    [Fact]
    public async Task The_newest_word_holds_and_what_was_said_before_holds_again_after_it()
    {
        var (review, step, reference, _, first) = await Open();
        var other = (await Ann.Works(review, await Ann.Search(review, "bird* OR bat*"))).First(w => w != first);
        async Task<int?> Means() =>
            (int?)
                (await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched"))
                    .List("resolved")
                    .FirstOrDefault()
                    ?["reference"]!["workId"];
        var one = await Resolve(review, reference, first);
        var two = await Resolve(review, reference, other);
        Assert.Equal(other, await Means());
        await Ann.Send("DELETE", $"/api/reviews/{review}/resolutions/{two.Int("id")}");
        Assert.Equal(first, await Means());
        await Ann.Send("DELETE", $"/api/reviews/{review}/resolutions/{one.Int("id")}");
        Assert.Null(await Means());
    }

    [Fact]
    public async Task Candidates_are_offered_for_the_print_and_for_what_is_typed_instead()
    {
        var (review, _, reference, _, target) = await Open();
        var work = await Ann.Get($"/api/reviews/{review}/works/{target}");
        var title = work["title"]!["text"]!.GetValue<string>();
        async Task<JsonNode> Choices(string? text) =>
            (await Ann.Ok("POST", $"/api/reviews/{review}/references/choices", new { listed = At(reference), text }))[
                "found"
            ]!;
        Assert.Equal(reference.Text("text"), (await Choices(null)).Text("text"));
        Assert.Equal(target, (await Choices(title)).List("candidates").First().Int("workId"));
        if (work["doi"] is { } doi)
            Assert.Equal(target, (await Choices(doi.GetValue<string>())).List("candidates").Single().Int("workId"));
        Assert.Empty((await Choices("zzz qqq xxx")).List("candidates"));
    }

    [Fact]
    public async Task What_cannot_be_resolved_is_said_and_changes_nothing()
    {
        var (review, _, reference, _, target) = await Open();
        async Task<int> Status(object listed, int workId) =>
            (await Ann.Send("POST", $"/api/reviews/{review}/resolutions", new { listed, workId })).Status;
        Assert.Equal(404, await Status(At(reference), 0));
        Assert.Equal(404, await Status(At(reference), int.MaxValue));
        Assert.Equal(404, await Status(Array.Empty<object>(), target));
        Assert.Equal(404, await Status(new[] { new { record = 1, ordinal = -1 } }, target));
        Assert.Equal(404, await Status(new[] { new { record = int.MaxValue, ordinal = 0 } }, target));
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/references/choices",
                    new { listed = At(reference), text = new string('x', 100_000) }
                )
            ).Status
        );
    }

    [Fact]
    public async Task A_lost_corpus_loses_no_word_of_what_a_reference_means()
    {
        await using var outside = await OutsideHost.Start(works: 400, seed: 6);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.HarvestTwo(outside);
        var review = await ann.Review();
        var seeds = await ann.Works(review, await ann.Search(review, "light OR moth*"), "sort=Cited&limit=60");
        var step = await ann.Follow(review, "Backward", seeds);
        var cited = await ann.AllWorks(review, step);
        var target = (await ann.Works(review, await ann.Search(review, "light OR moth*"))).First(w =>
            !cited.Contains(w) && !seeds.Contains(w)
        );
        var reference = (await ann.Get($"/api/reviews/{review}/steps/{step}/unmatched")).List("references").First()[
            "reference"
        ]!;
        await ann.Ok("POST", $"/api/reviews/{review}/resolutions", new { listed = At(reference), workId = target });
        var title = (await ann.Get($"/api/reviews/{review}/works/{target}"))["title"]!["text"]!.GetValue<string>();

        host = host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            foreach (var file in Directory.GetFiles(host.Data, "corpus.db*"))
                File.Delete(file);
        });
        ann = await host.SignedIn();
        await ann.HarvestTwo(outside);
        var resolved = Assert.Single((await ann.Get($"/api/reviews/{review}/steps/{step}/unmatched")).List("resolved"))[
            "reference"
        ]!;
        Assert.Equal((reference.Text("text"), title), (resolved.Text("text"), resolved.Text("title")));
        Assert.Equal(cited.Count + 1, await ann.Count(review, step));

        // A process that ends between the two files: the one says what the other does not know yet.
        host = host.Restarted(() =>
        {
            SqliteConnection.ClearAllPools();
            using var corpus = new SqliteConnection($"Data Source={Path.Combine(host.Data, "corpus.db")}");
            corpus.Open();
            using var other = corpus.CreateCommand();
            other.CommandText =
                "UPDATE ResolvedReferences SET WorkId = (SELECT MIN(WorkId) FROM Records WHERE WorkId > 0)";
            Assert.True(other.ExecuteNonQuery() > 0);
        });
        ann = await host.SignedIn();
        Assert.Equal(
            title,
            Assert.Single((await ann.Get($"/api/reviews/{review}/steps/{step}/unmatched")).List("resolved"))[
                "reference"
            ]!.Text("title")
        );
        await host.DisposeAsync();
    }
}
