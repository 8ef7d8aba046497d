using Microsoft.Data.Sqlite;
using Zendle.Store.Files;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Data folders that earlier versions made are taken over with all that people did. The archives were written by the
/// versions of their day (<c>zendle backup</c>), and the numbers by asking those versions.
/// </summary>
public sealed class UpgradeTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("zendle-upgrade-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    /// <summary>
    /// Of commit 75c8279: before people had numbers and references their years. A review with a search, a named
    /// narrowing, a trail, six works kept, three set aside, two tagged.
    /// </summary>
    [Fact]
    public async Task The_folder_of_26_November_2026_is_taken_over()
    {
        var data = Path.Combine(folder, "data");
        Backup.Restore(Path.Combine(Root.Folder, "tests/Zendle.Server.Tests/Upgrade/2026-11-26.tar.gz"), data);
        var (server, _) = await ServerProcess.Start(data);
        using var running = server;
        var ann = new Visitor(new HttpClient { BaseAddress = new($"http://127.0.0.1:{server.Port}") });
        await ann.Ok("POST", "/api/sign-in", new { name = "ann", password = "a long password" });
        var databases = await ann.Get("/api/databases");
        Assert.Equal((128, 88), (databases.Int("records"), databases.Int("works")));
        Assert.Equal(["Farnet", "Meridian Citations"], databases.List("databases").Select(d => d.Text("name")).Order());
        var review = await ann.Get("/api/reviews/1");
        Assert.Equal(("Lamps and moths", 6, 3), (review.Text("title"), review.Int("kept"), review.Int("setAside")));
        Assert.Equal(39, await ann.Count(1, 2));
        var named = Assert.Single((await ann.Get("/api/reviews/1/searches")).AsArray())!;
        Assert.Equal(("since 1995", 39, 39), (named.Text("name"), named.Int("then"), named.Int("now")));
        Assert.Equal(36, await ann.Count(1, await ann.Search(1, "light")));
        Assert.Equal([32, 46, 58, 61, 64, 71], (await ann.Works(1, await ann.Search(1, "stage:kept"))).Order());
        Assert.Equal(2, await ann.Count(1, await ann.Search(1, "tag:\"field study\"")));
        Assert.NotEmpty(await ann.Works(1, 3, "limit=20&side=Backward"));
        // What was asked for after the archive was made is in the log too.
        Assert.Equal(9, (await ann.Get("/api/reviews/1/log")).Int("searches"));
        Assert.Equal(0, await server.Stop());
    }

    [Fact]
    public async Task A_damaged_step_stops_no_start_and_is_told_where_it_is_looked_at()
    {
        await using var host = new ZendleHost();
        var ann = await host.Curator();
        var review = await ann.Review();
        var (damaged, sound) = (await ann.Search(review, "moth*"), await ann.Search(review, "light"));
        await using var again = host.Restarted(() =>
        {
            using var connection = new SqliteConnection(
                $"Data Source={Path.Combine(host.Data, "zendle.db")};Pooling=False"
            );
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "UPDATE Steps SET Act = '{\"kind\":\"Swarm\"' WHERE Id = $id";
            command.Parameters.AddWithValue("$id", damaged);
            Assert.Equal(1, command.ExecuteNonQuery());
        });
        ann = await again.SignedIn();
        var (status, problem) = await ann.Send("GET", $"/api/reviews/{review}/steps/{damaged}/path");
        Assert.Equal(422, status);
        Assert.StartsWith("One step cannot be read", problem!.Text("title"), StringComparison.Ordinal);
        Assert.Equal(0, await ann.Count(review, sound));
    }

    /// <summary>
    /// Of commit 914d418: before acts had types. A step of every kind, a comparison within a comparison, a search that
    /// was named, run again and marked.
    /// </summary>
    [Fact]
    public async Task The_folder_of_27_November_2026_keeps_every_path_run_and_decision()
    {
        var data = Path.Combine(folder, "data");
        Backup.Restore(Path.Combine(Root.Folder, "tests/Zendle.Server.Tests/Upgrade/2026-11-27.tar.gz"), data);
        var (server, _) = await ServerProcess.Start(data);
        using var running = server;
        var ann = new Visitor(new HttpClient { BaseAddress = new($"http://127.0.0.1:{server.Port}") });
        await ann.Ok("POST", "/api/sign-in", new { name = "ann", password = "a long password" });
        // Counts by step, as that version gave them.
        int[] counts = [33, 33, 11, 30, 29, 23, 15, 52, 5, 39, 22, 4, 4, 5, 6];
        foreach (var (i, count) in counts.Index())
            Assert.Equal((i + 1, count), (i + 1, await ann.Count(1, i + 1)));
        Assert.Equal(
            ["light", "in Farnet", "since 1990", "article, review; without thesis", "inside: night"],
            (await ann.Get("/api/reviews/1/steps/7/path")).List("steps").Select(s => s.Text("label"))
        );
        var log = await ann.Get("/api/reviews/1/log");
        Assert.Equal((16, 1), (log.Int("searches"), log.Int("ofRecord")));
        var runs = log.List("runs").ToDictionary(r => r.Int("id"));
        Assert.Equal(("light", 1990), (runs[16]["state"]!.Text("expression"), runs[16]["state"]!.Int("from")));
        Assert.Equal(5, runs[14]["state"]!.Int("among"));
        Assert.Equal(2, runs[9]["state"]!["trail"]!.Int("atLeast"));
        // A logged search is opened again as a path of its own, with the same works.
        foreach (var run in new[] { 7, 9, 12, 13, 14 })
        {
            var step = (await ann.Ok("POST", $"/api/reviews/1/log/{run}/again", new { })).Int("stepId");
            Assert.Equal(runs[run].Int("count"), await ann.Count(1, step));
        }
        var review = await ann.Get("/api/reviews/1");
        Assert.Equal((6, 3), (review.Int("kept"), review.Int("setAside")));
        // The same act again from the same step leads to the step that is there.
        Assert.Equal(4, await ann.Step(1, 1, new { kind = "Databases", databases = new[] { 1 } }));
        Assert.Equal(0, await server.Stop());
    }
}
