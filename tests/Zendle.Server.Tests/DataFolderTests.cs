using Microsoft.Data.Sqlite;
using Zendle.Store.Sqlite;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A data folder belongs to one process, which leaves nothing behind that a later one would wait for; what is lost in
/// it is said.
/// </summary>
public sealed class DataFolderTests : IDisposable
{
    private readonly string data = Directory.CreateTempSubdirectory("zendle-folder-").FullName;

    public void Dispose() => Directory.Delete(data, recursive: true);

    private void Run(string file, string sql)
    {
        using var connection = new SqliteConnection($"Data Source={Path.Combine(data, file)};Pooling=False");
        connection.Open();
        using var command = connection.CreateCommand();
#pragma warning disable CA2100 // a constant of this test
        command.CommandText = sql;
#pragma warning restore CA2100
        command.ExecuteNonQuery();
    }

    [Fact]
    public async Task A_second_server_on_one_folder_is_refused_in_one_sentence_and_a_killed_one_holds_nothing()
    {
        var (first, _) = await ServerProcess.Start(data);
        using (var second = ServerProcess.Begin(data))
        {
            Assert.Equal(1, await second.Ended());
            Assert.Contains("is in use by another Zendle", second.Said, StringComparison.Ordinal);
            Assert.Single(second.Said.Trim().Split('\n'));
        }
        first.Dispose(); // SIGKILL
        var (third, _) = await ServerProcess.Start(data);
        Assert.Equal(0, await third.Stop());
        third.Dispose();
    }

    [Theory]
    [InlineData("zendle.db")]
    [InlineData("corpus.db")]
    public async Task The_mark_of_a_killed_migration_blocks_nobody(string file)
    {
        EmptyFolder.CopyTo(data);
        Run(
            file,
            "CREATE TABLE IF NOT EXISTS __EFMigrationsLock (Id INTEGER NOT NULL PRIMARY KEY, Timestamp TEXT NOT "
                + "NULL); INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2020-01-01 00:00:00+00:00')"
        );
        // With every migration applied nothing is asked for; with one to apply the mark is nobody's and goes.
        var (second, _) = await ServerProcess.Start(data);
        await second.Stop();
        second.Dispose();
        Run(file, "INSERT OR REPLACE INTO __EFMigrationsLock VALUES (1, '2020-01-01 00:00:00+00:00')");
        if (file == "corpus.db")
            Run(file, "DROP TABLE Corpus; DELETE FROM __EFMigrationsHistory WHERE MigrationId LIKE '%CorpusIdentity'");
        else
            Run(
                file,
                "DROP TABLE Sessions; DROP TABLE MadeOn; DROP TABLE KnownDatabases; ALTER TABLE Jobs DROP COLUMN "
                    + "Begun; ALTER TABLE Sought DROP COLUMN Begun; DELETE FROM __EFMigrationsHistory WHERE "
                    + "MigrationId LIKE '%SessionsAndNames'"
            );
        var (third, _) = await ServerProcess.Start(data);
        await third.Stop();
        third.Dispose();
    }

    [Fact]
    public void An_emptied_file_of_decisions_is_said_and_a_first_start_that_was_killed_is_not_taken_for_one()
    {
        File.WriteAllText(Path.Combine(data, "zendle.db"), "");
        Assert.Null(DataFolder.WhyNot(data, 1));
        File.WriteAllText(Path.Combine(data, "corpus.db"), "something");
        Assert.Contains("is empty (0 bytes)", DataFolder.WhyNot(data, 1), StringComparison.Ordinal);
        Assert.Contains("Put back a backup", DataFolder.WhyNot(data, 1), StringComparison.Ordinal);
        File.WriteAllText(Path.Combine(data, "zendle.db"), "something");
        Assert.Null(DataFolder.WhyNot(data, 1));
    }

    [Fact]
    public async Task Both_files_hold_everything_by_themselves_when_it_is_quiet_and_after_a_stop()
    {
        await using var host = new ZendleHost();
        var ann = await host.Curator();
        await ann.Review("Copied while it runs");
        var copy = Directory.CreateDirectory(Path.Combine(data, "copy")).FullName;
        // The logs are written back when nobody has written for some seconds.
        for (
            var i = 0;
            i < 200 && new FileInfo(Path.Combine(host.Data, "zendle.db-wal")) is { Exists: true, Length: > 0 };
            i++
        )
            await Task.Delay(100);
        foreach (var file in Directory.GetFiles(host.Data, "*.db"))
            File.Copy(file, Path.Combine(copy, Path.GetFileName(file)));
        await using var again = new ZendleHost(null, false, ("Zendle:Data", copy));
        var visitor = await again.SignedIn();
        Assert.Equal("Copied while it runs", (await visitor.Get("/api/reviews")).AsArray().Single()!.Text("title"));
    }

    [Fact]
    public void What_lies_in_a_log_is_written_into_its_file()
    {
        var file = Path.Combine(data, "x.db");
        using var open = new SqliteConnection($"Data Source={file};Pooling=False");
        open.Open();
        using var command = open.CreateCommand();
        command.CommandText =
            "PRAGMA journal_mode=WAL; PRAGMA wal_autocheckpoint=0; CREATE TABLE T (X TEXT); INSERT INTO T VALUES (zeroblob(50000))";
        command.ExecuteNonQuery();
        Assert.True(new FileInfo(file + "-wal").Length > 50_000);
        using var held = new HeldFile(file);
        Assert.True(held.WriteBack());
        Assert.Equal(0, new FileInfo(file + "-wal").Length);
        Assert.True(new FileInfo(file).Length > 50_000);
        Assert.Throws<SqliteException>(() => new HeldFile(Path.Combine(data, "there-is-none.db")));
    }
}
