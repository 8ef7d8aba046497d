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
}
