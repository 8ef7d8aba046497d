using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace Zendle.Server.Tests;

/// <summary>What stands in the way of a start is told in one sentence with a way out.</summary>
public sealed class ScriptTests : IDisposable
{
    private readonly string fake = Directory.CreateTempSubdirectory("zendle-fake-").FullName;

    public void Dispose() => Directory.Delete(fake, recursive: true);

    private async Task<(int Code, string Said)> Run(string arguments, bool withFake = false)
    {
        var start = new ProcessStartInfo("bash", ["-c", $"./zendle {arguments}"])
        {
            WorkingDirectory = Root.Folder,
            RedirectStandardError = true,
            RedirectStandardOutput = true,
        };
        if (withFake)
            start.Environment["PATH"] = fake + ":" + start.Environment["PATH"];
        using var process = Process.Start(start)!;
        var said = await process.StandardError.ReadToEndAsync() + await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return (process.ExitCode, said);
    }

    private void Fake(string name, string script)
    {
        var file = Path.Combine(fake, name);
        File.WriteAllText(file, "#!/usr/bin/env bash\n" + script + "\n");
        File.SetUnixFileMode(file, UnixFileMode.UserRead | UnixFileMode.UserExecute | UnixFileMode.UserWrite);
    }

    [Fact]
    public async Task A_port_in_use_is_told()
    {
        using var taken = new TcpListener(IPAddress.Loopback, 0);
        taken.Start();
        var port = ((IPEndPoint)taken.LocalEndpoint).Port;
        var (code, said) = await Run($"demo --port {port}");
        Assert.Equal(
            (1, $"zendle: port {port} is in use. Choose another one: ./zendle demo --port {port + 10}\n"),
            (code, said)
        );
    }

    [Fact]
    public async Task When_one_of_the_two_ends_the_demo_ends_the_other_and_says_so_without_a_word_of_the_shell()
    {
        // Stand-ins for the two programs: the outside waits for ever, Zendle ends after a moment.
        Fake(
            "dotnet",
            """
            case "$*" in
              --version) echo 10.0.400 ;;
              *Zendle.Outside.dll*) echo $$ > "$FAKE_DIR/outside"; trap 'exit 0' TERM; while true; do sleep 0.1; done ;;
              *Zendle.Server.dll*) echo $$ > "$FAKE_DIR/server"; sleep 1; kill -KILL $$ ;;
            esac
            """
        );
        Fake("curl", "echo 200");
        var data = Path.Combine(fake, "data");
        var start = new ProcessStartInfo(
            "bash",
            [
                "-c",
                $"source ./zendle help >/dev/null; build_app() {{ :; }}; demo --port 5890 --outside-port 5891 --data {data}",
            ]
        )
        {
            WorkingDirectory = Root.Folder,
            RedirectStandardError = true,
            RedirectStandardOutput = true,
        };
        start.Environment["PATH"] = fake + ":" + start.Environment["PATH"];
        start.Environment["FAKE_DIR"] = fake;
        using var process = Process.Start(start)!;
        var (said, errors) = (
            await process.StandardOutput.ReadToEndAsync(),
            await process.StandardError.ReadToEndAsync()
        );
        await process.WaitForExitAsync();
        Assert.Contains("Zendle has ended, so the other was ended too.", errors, StringComparison.Ordinal);
        Assert.DoesNotContain("Killed", errors + said, StringComparison.Ordinal);
        Assert.DoesNotContain("line ", errors, StringComparison.Ordinal);
        Assert.Equal(1, process.ExitCode);
        Assert.False(
            Directory.Exists($"/proc/{(await File.ReadAllTextAsync(Path.Combine(fake, "outside"))).Trim()}"),
            "the outside still runs"
        );
    }

    [Fact]
    public async Task Too_old_an_sdk_is_told()
    {
        Fake("dotnet", "[ \"$1\" = --version ] && echo 8.0.100 || echo '8.0.100 [/x]'");
        var (code, said) = await Run("build", withFake: true);
        Assert.Equal(1, code);
        Assert.Contains("Zendle needs 10.0; install dotnet-sdk-10.0.", said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Too_old_a_node_is_told()
    {
        Fake("node", "[ \"$1\" = -p ] && echo 16 || echo v16.20.0");
        var (code, said) = await Run("build", withFake: true);
        Assert.Equal(1, code);
        Assert.Contains("Node v16.20.0 is too old; Zendle needs 20 or newer.", said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Unknown_words_and_missing_ones_are_told()
    {
        Assert.Contains("there is no command dance", (await Run("dance")).Said, StringComparison.Ordinal);
        Assert.Contains("serve needs a folder for its data", (await Run("serve")).Said, StringComparison.Ordinal);
        Assert.Contains("demo does not know --colour", (await Run("demo --colour")).Said, StringComparison.Ordinal);
        Assert.Equal(0, (await Run("help")).Code);
    }

    [Fact]
    public void A_disk_that_is_almost_full_is_told()
    {
        Assert.Null(DataFolder.WhyNot(fake, 1));
        Assert.Contains(
            "Free some, or choose another folder with --data.",
            DataFolder.WhyNot(fake, long.MaxValue),
            StringComparison.Ordinal
        );
    }
}
