using System.Diagnostics;
using System.Formats.Tar;
using System.IO.Compression;
using Zendle.Store.Files;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>A backup is written while Zendle runs and is written to, and is what it says it is.</summary>
public sealed class BackupTests : IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("zendle-backup-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string At(string name) => Path.Combine(folder, name);

    [Fact]
    public async Task Under_load_it_holds_all_that_was_acknowledged_before_it_began()
    {
        await using var outside = await OutsideHost.Start(works: 400, seed: 9);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("farnet"));
        var review = await ann.Review();
        var works = await ann.Works(review, await ann.Search(review, "light OR moth* OR night"));
        await ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..30] });
        // While it is written a harvest goes on and works are kept one by one.
        using var over = new CancellationTokenSource();
        await ann.Ok("POST", "/api/databases", new { address = outside.Oai("meridian"), trusted = true });
        var load = Task.Run(async () =>
        {
            for (var i = 30; i < works.Length && !over.IsCancellationRequested; i++)
                await ann.Ok(
                    "POST",
                    $"/api/reviews/{review}/decisions",
                    new { act = "Keep", works = new[] { works[i] } }
                );
        });
        var kept = Backup.Write(host.Data, At("all.tar.gz"));
        await over.CancelAsync();
        await load;
        Assert.True(kept.Bytes > 10_000);
        var now = (await ann.Get($"/api/reviews/{review}")).Int("kept");
        await host.DisposeAsync();

        Backup.Restore(At("all.tar.gz"), At("data"));
        await using var restored = new ZendleHost(outside.Address.ToString(), false, ("Zendle:Data", At("data")));
        var visitor = await restored.SignedIn();
        Assert.InRange((await visitor.Get($"/api/reviews/{review}")).Int("kept"), 30, now);
        Assert.Equal(
            (await visitor.Get($"/api/reviews/{review}")).Int("kept"),
            await visitor.Count(review, await visitor.Search(review, "stage:kept"))
        );
        Assert.Null((await visitor.Get("/api/me"))["announcement"]);
        foreach (var database in (await visitor.Get("/api/databases")).List("databases").ToArray())
            Assert.Equal("Done", (await visitor.Ended(database.Int("id")))["job"]!.Text("state"));
        await restored.DisposeAsync();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
    }

    [Fact]
    public async Task The_command_says_what_it_did_or_why_not()
    {
        await using (var host = new ZendleHost())
        {
            await host.Curator();
            Assert.Equal(0, (await Run("backup", host.Data, At("b.tar.gz"))).Code);
            var (code, said) = await Run("backup", host.Data, Path.Combine(host.Data, "inside.tar.gz"));
            Assert.Equal(
                (1, true),
                (code, said.Contains("must not lie in the data folder itself", StringComparison.Ordinal))
            );
            (code, said) = await Run("restore", At("b.tar.gz"), host.Data);
            Assert.Equal((1, true), (code, said.Contains("is not empty", StringComparison.Ordinal)));
        }
        Assert.Contains(
            "There is no zendle.db",
            (await Run("backup", folder, At("c.tar.gz"))).Said,
            StringComparison.Ordinal
        );
        File.WriteAllText(At("no.tar.gz"), "no archive");
        var (wrong, why) = await Run("restore", At("no.tar.gz"), At("new"));
        Assert.Equal((1, true), (wrong, why.Contains("could not be restored", StringComparison.Ordinal)));
        Assert.False(Directory.Exists(At("new")));
        Assert.Equal(0, (await Run("restore", At("b.tar.gz"), At("new"))).Code);
        Assert.True(File.Exists(Path.Combine(At("new"), "zendle.db")));
    }

    [Theory]
    [InlineData("../outside.txt")]
    [InlineData("files/../../outside.txt")]
    [InlineData("/etc/outside.txt")]
    [InlineData("index/columns")]
    public void An_archive_that_reaches_outside_the_folder_is_refused(string name)
    {
        using (var zip = new GZipStream(File.Create(At("evil.tar.gz")), CompressionLevel.Fastest))
        using (var tar = new TarWriter(zip, TarEntryFormat.Pax))
        {
            File.WriteAllText(At("x"), "x");
            tar.WriteEntry(At("x"), "zendle.db");
            tar.WriteEntry(
                new PaxTarEntry(TarEntryType.RegularFile, name) { DataStream = new MemoryStream([1, 2, 3]) }
            );
        }
        Assert.Throws<BackupFaultException>(() => Backup.Restore(At("evil.tar.gz"), At("into")));
        Assert.False(Directory.Exists(At("into")) || File.Exists(At("outside.txt")));
    }

    [Fact]
    public void A_damaged_database_in_an_archive_is_refused()
    {
        using (var zip = new GZipStream(File.Create(At("bad.tar.gz")), CompressionLevel.Fastest))
        using (var tar = new TarWriter(zip, TarEntryFormat.Pax))
        {
            File.WriteAllBytes(At("x"), [.. "SQLite format 3\0"u8.ToArray(), .. new byte[5_000]]);
            tar.WriteEntry(At("x"), "zendle.db");
        }
        Assert.Throws<BackupFaultException>(() => Backup.Restore(At("bad.tar.gz"), At("into")));
        Assert.False(Directory.Exists(At("into")));
    }

    private static async Task<(int Code, string Said)> Run(params string[] arguments)
    {
        using var process = Process.Start(
            new ProcessStartInfo("dotnet", [typeof(Program).Assembly.Location, .. arguments])
            {
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            }
        )!;
        var said = await process.StandardOutput.ReadToEndAsync() + await process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        return (process.ExitCode, said);
    }
}
