using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Zendle as a process of its own, which can be killed.</summary>
internal sealed partial class ServerProcess : IDisposable
{
    private readonly StringBuilder said = new();
    private readonly Process process;

    private ServerProcess(Process process, int port)
    {
        (this.process, Port) = (process, port);
        process.OutputDataReceived += (_, e) =>
        {
            lock (said)
                said.AppendLine(e.Data);
        };
        process.ErrorDataReceived += (_, e) =>
        {
            lock (said)
                said.AppendLine(e.Data);
        };
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
    }

    public int Port { get; }

    public int Id => process.Id;

    public string Said
    {
        get
        {
            lock (said)
                return said.ToString();
        }
    }

    /// <summary>The one-time code of the first account, as it was printed.</summary>
    public string Code => FirstCode().Match(Said).Groups[1].Value;

    /// <summary>Begins one; it need not come up.</summary>
    public static ServerProcess Begin(string data, params string[] more)
    {
        var port = FreePort();
        return new(
            Process.Start(
                new ProcessStartInfo(
                    "dotnet",
                    [
                        typeof(Program).Assembly.Location,
                        "--urls",
                        $"http://127.0.0.1:{port}",
                        $"--Zendle:Data={data}",
                        "--Zendle:SignInsPerMinute=1000",
                        .. more,
                    ]
                )
                {
                    RedirectStandardOutput = true,
                    RedirectStandardError = true,
                    // As in the tests themselves (Directory.Build.props): it lives too briefly to win it back.
                    Environment = { ["DOTNET_TieredPGO"] = "0" },
                }
            )!,
            port
        );
    }

    /// <summary>Begins one and waits until it answers.</summary>
    /// <returns>It, and how long that took.</returns>
    public static async Task<(ServerProcess Server, TimeSpan Took)> Start(string data, params string[] more)
    {
        // The port is free when it is asked for; another test's connection may take it before Zendle does. Then another
        // is tried.
        for (var attempt = 1; ; attempt++)
        {
            var watch = Stopwatch.StartNew();
            var server = Begin(data, more);
            if (await server.Answers())
                return (server, watch.Elapsed);
            Assert.True(
                attempt < 5 && server.Said.Contains("address already in use", StringComparison.OrdinalIgnoreCase),
                $"Zendle ended at its start: {server.Said}"
            );
            server.Dispose();
        }
    }

    private async Task<bool> Answers()
    {
        using var http = new HttpClient { BaseAddress = new($"http://127.0.0.1:{Port}") };
        for (var i = 0; i < 2_400; i++)
        {
            try
            {
                if ((await http.GetAsync("/health")).IsSuccessStatusCode)
                    return true;
            }
            catch (HttpRequestException) when (!process.HasExited) { }
            catch (HttpRequestException)
            {
                process.WaitForExit(); // so that all it said has arrived
                return false;
            }
            if (process.HasExited)
            {
                process.WaitForExit();
                return false;
            }
            await Task.Delay(50);
        }
        throw new TimeoutException($"Zendle was not ready in two minutes: {Said}");
    }

    /// <summary>Someone who talks to it.</summary>
    public Visitor Visit(CookieContainer cookies) =>
        new(
            new HttpClient(new HttpClientHandler { CookieContainer = cookies })
            {
                BaseAddress = new($"http://127.0.0.1:{Port}"),
            }
        );

    /// <summary>Waits until it has ended by itself.</summary>
    public async Task<int> Ended()
    {
        await process.WaitForExitAsync(TestContext.Current.CancellationToken);
        process.WaitForExit();
        return process.ExitCode;
    }

    /// <summary>Asks it to end (SIGTERM) and waits.</summary>
    public async Task<int> Stop()
    {
        using var kill = Process.Start(
            "kill",
            ["-TERM", process.Id.ToString(System.Globalization.CultureInfo.InvariantCulture)]
        );
        await kill.WaitForExitAsync();
        return await Ended();
    }

    /// <summary>Kills it (SIGKILL).</summary>
    public void Dispose()
    {
        if (!process.HasExited)
            process.Kill();
        process.WaitForExit();
        process.Dispose();
    }

    public static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }

    [GeneratedRegex("owner: ([A-Z0-9-]{19})")]
    private static partial Regex FirstCode();
}
