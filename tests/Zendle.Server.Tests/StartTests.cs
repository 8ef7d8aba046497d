using System.Diagnostics;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

public sealed class StartTests
{
    [Fact]
    public async Task A_data_folder_that_cannot_be_written_is_told_with_a_way_out()
    {
        var file = Path.GetTempFileName(); // a file where a folder should be: not writable as one, whoever asks
        using var process = Process.Start(
            new ProcessStartInfo(
                "dotnet",
                [typeof(Program).Assembly.Location, "--urls", "http://127.0.0.1:0", $"--Zendle:Data={file}"]
            )
            {
                RedirectStandardError = true,
            }
        )!;
        var said = await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        File.Delete(file);
        Assert.Equal(1, process.ExitCode);
        Assert.Contains("cannot be written to", said, StringComparison.Ordinal);
        Assert.Contains("--data", said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_missing_index_is_built_anew_from_the_store()
    {
        await using var outside = await OutsideHost.Start(works: 300, seed: 8);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("farnet"));
        var review = await ann.Review();
        var count = await ann.Count(review, await ann.Search(review, "moth*"));
        var copy = host.Data + "-copy";
        foreach (var file in Directory.GetFiles(host.Data))
        {
            Directory.CreateDirectory(copy);
            File.Copy(file, Path.Combine(copy, Path.GetFileName(file)));
        }
        await using var again = new ZendleHost(outside.Address.ToString(), false, ("Zendle:Data", copy));
        var visitor = await again.SignedIn();
        Assert.Equal(count, await visitor.Count(review, await visitor.Search(review, "moth*")));
        await again.DisposeAsync();
        await host.DisposeAsync();
        Directory.Delete(copy, recursive: true);
    }

    [Fact]
    public async Task Who_comes_before_the_tables_are_there_waits_for_them()
    {
        await using var outside = await OutsideHost.Start(works: 300, seed: 8);
        await using var host = new ZendleHost(outside.Address.ToString(), demo: true);
        // Not waited for: the first request comes while the folder is still empty.
        var visitor = new Visitor(host.CreateClient());
        var me = await visitor.Get("/api/me");
        await visitor.Ok(
            "POST",
            "/api/sign-in",
            new { name = me["demo"]!.Text("name"), password = me["demo"]!.Text("password") }
        );
        Assert.True((await visitor.Get("/api/me"))["signedIn"]!.GetValue<bool>());
    }

    [Fact]
    public async Task The_demo_is_in_mid_work()
    {
        await using var outside = await OutsideHost.Start(works: 1_500, seed: 1);
        await using var host = new ZendleHost(outside.Address.ToString(), demo: true);
        var visitor = await host.Visit(early: true);
        var me = await visitor.Get("/api/me");
        await visitor.Ok(
            "POST",
            "/api/sign-in",
            new { name = me["demo"]!.Text("name"), password = me["demo"]!.Text("password") }
        );
        // Whoever comes early reads how far it is, and what they begin meanwhile is theirs.
        Assert.NotEmpty((await visitor.Get("/api/preparing")).Text("doing"));
        var own = await visitor.Review("Mine");
        while ((await visitor.Get("/api/preparing"))["doing"] is not null)
            await Task.Delay(50);
        var all = (await visitor.Get("/api/reviews")).AsArray();
        Assert.Equal("Mine", all.Single(r => r!.Int("id") == own)!.Text("title"));
        var reviews = all.Where(r => r!.Int("id") != own).ToArray();
        Assert.Equal("Street lighting and night pollination", reviews[0]!.Text("title"));
        Assert.InRange(reviews[0]!.Int("kept"), 50, 65);
        Assert.Equal(12, reviews[0]!.Int("setAside"));
        Assert.Equal(5, reviews[0]!.List("tags").Count());
        Assert.Equal(0, reviews[1]!.Int("kept"));
        Assert.Equal(
            2,
            (await visitor.Get($"/api/reviews/{reviews[0]!.Int("id")}/log"))["runs"]!
                .AsArray()
                .Count(r => r!["ofRecord"]!.GetValue<bool>())
        );
    }
}
