using System.Diagnostics;
using System.Text.Json.Nodes;
using Zendle.Store.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A disk that is full, for real: a small file system in memory. Everything says so, nothing is half-written, and all
/// goes on when there is room.
/// </summary>
public sealed class DiskFullTests : IAsyncLifetime
{
    private const int Megabytes = 320;
    private readonly string disk = Directory.CreateTempSubdirectory("zendle-disk-").FullName;
    private bool isMounted;
    private OutsideHost outside = null!;

    public async ValueTask InitializeAsync()
    {
        isMounted = await Run("mount", "-t", "tmpfs", "-o", $"size={Megabytes}m", "tmpfs", disk);
        outside = await OutsideHost.Start(works: 900, seed: 4);
    }

    public async ValueTask DisposeAsync()
    {
        await outside.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        if (isMounted)
            await Run("umount", "-l", disk);
        Directory.Delete(disk);
    }

    private static async Task<bool> Run(string program, params string[] arguments)
    {
        try
        {
            using var process = Process.Start(
                new ProcessStartInfo(program, arguments) { RedirectStandardError = true, RedirectStandardOutput = true }
            )!;
            await process.WaitForExitAsync();
            return process.ExitCode == 0;
        }
        catch (System.ComponentModel.Win32Exception)
        {
            return false;
        }
    }

    private string Ballast => Path.Combine(disk, "ballast");

    /// <summary>Leaves so many bytes.</summary>
    private void Fill(long left)
    {
        File.Delete(Ballast);
        var free = new DriveInfo(disk).AvailableFreeSpace - left;
        using var file = new FileStream(Ballast, FileMode.Create, FileAccess.Write, FileShare.None, bufferSize: 0);
        var chunk = new byte[1 << 20];
        try
        {
            for (; free > 0; free -= chunk.Length)
                file.Write(chunk, 0, (int)Math.Min(free, chunk.Length));
            file.Flush();
        }
        catch (IOException) { } // fuller than it was
    }

    private static async Task<JsonNode> Job(Visitor visitor) =>
        (await visitor.Get("/api/databases")).List("databases").Last()["job"]!;

    [Fact]
    public async Task A_harvest_ends_with_a_sentence_people_are_told_and_all_goes_on_when_there_is_room()
    {
        Assert.SkipUnless(isMounted, "A file system in memory cannot be mounted here.");
        await using var host = new ZendleHost(
            outside.Address.ToString(),
            false,
            ("Zendle:Data", Path.Combine(disk, "data"))
        );
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("meridian"), trusted: true);
        var review = await ann.Review();
        var step = await ann.Search(review, "moth* OR light");
        var works = await ann.Works(review, step);
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..3] });
        var before = (await ann.Get("/api/databases")).Int("records");

        Fill(left: 1_200_000);
        await ann.Ok("POST", "/api/databases", new { address = outside.Oai("farnet"), trusted = false });
        // It is told as ended, though that cannot be written down.
        for (var i = 0; i < 600 && (await Job(ann)).Text("state") is "Waiting" or "Running"; i++)
        {
            Fill(left: 0);
            await Task.Delay(100);
        }
        var job = await Job(ann);
        Assert.Equal("Failed", job.Text("state"));
        Assert.Contains("There is no room on the disk", job.Text("message"), StringComparison.Ordinal);
        // Every act that has to be written says so; what is read is there.
        Fill(left: 0);
        for (var i = 0; i < 3; i++)
        {
            // As when Zendle rests: the next to read opens the files anew.
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Assert.Equal(3, (await ann.Get($"/api/reviews/{review}")).Int("kept"));
            Assert.Equal("Failed", (await Job(ann)).Text("state"));
        }
        var refused = 0;
        foreach (var w in works[3..].Take(40))
            if (
                await ann.Send("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { w } }) is
                (507, { } told)
            )
            {
                refused++;
                Assert.Equal("There is no room on the disk.", told.Text("title"));
            }
        Assert.True(refused > 0);
        var (status, problem) = await ann.Send(
            "POST",
            $"/api/reviews/{review}/steps",
            new
            {
                parentId = 0,
                act = new
                {
                    kind = "Search",
                    expression = string.Join(" OR ", Enumerable.Range(0, 1_400).Select(i => $"word{i}")),
                },
            }
        );
        Assert.Equal((507, "There is no room on the disk."), (status, problem!.Text("title")));
        var kept = (await ann.Get($"/api/reviews/{review}")).Int("kept");
        Assert.InRange(kept, 3, 43 - refused);
        Assert.Equal(
            before,
            (await ann.Get("/api/databases")).Int("records") is var now && now >= before ? before : now
        );

        File.Delete(Ballast);
        // The lane is alive: the harvest goes on from where it was, and others after it.
        for (var i = 0; i < 100 && (await ann.Send("POST", $"/api/jobs/{job.Int("id")}/resume")).Status != 204; i++)
            await Task.Delay(100);
        var farnet = await ann.Ended((await ann.Get("/api/databases")).List("databases").Last().Int("id"));
        Assert.Equal("Done", farnet["job"]!.Text("state"));
        Assert.Equal("Done", (await ann.Harvest(outside.Oai("harbour")))["job"]!.Text("state"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = new[] { works[50] } });
        Assert.Equal(kept + 1, (await ann.Get($"/api/reviews/{review}")).Int("kept"));
        // What is counted is what an index made from nothing counts: no word was lost on the way.
        string[] questions = ["moth*", "light", "\"artificial light\"", "night", "the"];
        var counted = new List<int>();
        foreach (var question in questions)
            counted.Add(await ann.Count(review, await ann.Search(review, question)));
        await using var anew = host.Restarted(() =>
            Directory.Delete(Path.Combine(disk, "data", "index"), recursive: true)
        );
        var again = await anew.SignedIn();
        foreach (var (question, count) in questions.Zip(counted))
            Assert.Equal(
                (question, count),
                (question, await again.Count(review, await again.Search(review, question)))
            );
    }

    [Fact]
    public void A_full_disk_is_recognised_however_it_is_wrapped()
    {
        var full = new Microsoft.Data.Sqlite.SqliteException("database or disk is full", 13);
        Assert.True(DiskFull.Is(full));
        Assert.True(
            DiskFull.Is(
                new InvalidOperationException("x", new AggregateException(new InvalidOperationException("y"), full))
            )
        );
        Assert.True(DiskFull.Is(new IOException("No space left on device : '/x'")));
        Assert.False(DiskFull.Is(new IOException("The pipe is broken.")));
        Assert.False(DiskFull.Is(new Microsoft.Data.Sqlite.SqliteException("constraint failed", 19)));
    }
}
