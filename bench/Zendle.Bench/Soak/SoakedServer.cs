using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Zendle.Bench.Soak;

/// <summary>
/// The demo as it ships, in processes of its own (the outside, Zendle), over an empty folder; and how much memory Zendle
/// holds.
/// </summary>
internal sealed class SoakedServer : IDisposable
{
    /// <summary>What ./zendle (of_this_size) tells the runtime where the corpus is small; what is set already stays.</summary>
    private static readonly (string Name, string Value)[] SmallCorpus =
    [
        ("DOTNET_EnableWriteXorExecute", "0"),
        ("DOTNET_GCgen0size", "0x600000"),
        ("DOTNET_TieredPGO", "0"),
        ("DOTNET_gcConcurrent", "0"),
    ];

    private readonly Process outside,
        server;

    private SoakedServer(Process outside, Process server, Uri address) =>
        (this.outside, this.server, Address) = (outside, server, address);

    /// <summary>Where Zendle answers.</summary>
    public Uri Address { get; }

    /// <summary>Where the outside answers.</summary>
    public Uri Outside { get; private init; } = null!;

    /// <summary>Starts both and waits until people can sign in.</summary>
    /// <param name="folder">An empty folder for the data.</param>
    /// <param name="binaries">
    /// The folder of built projects, of this version or of another: <c>artifacts/app</c>, as people run them, or
    /// <c>artifacts/bin</c>.
    /// </param>
    /// <param name="port">Zendle takes this port, the outside the one above.</param>
    /// <param name="world">Settings of the outside; none for the demo's own world.</param>
    public static async Task<SoakedServer> Start(string folder, string binaries, int port, params string[] world)
    {
        var (here, there) = ($"http://127.0.0.1:{port}", $"http://127.0.0.1:{port + 1}");
        var outside = Run(Library(binaries, "Outside"), ["--urls", there, .. world]);
        using var http = new HttpClient();
        await Answers(http, new(new Uri(there), "/health"), outside);
        var root = Path.GetFullPath(Path.Combine(binaries, "../.."));
        var server = Run(
            Library(binaries, "Server"),
            "--contentRoot",
            Path.Combine(root, "src/Zendle.Server"),
            "--urls",
            here,
            $"--Zendle:Data={folder}",
            "--Zendle:Demo=true",
            $"--Zendle:Outside={there}",
            "--Zendle:SignInsPerMinute=1000"
        );
        var soaked = new SoakedServer(outside, server, new(here)) { Outside = new(there) };
        await Answers(http, new(soaked.Address, "/health"), server);
        return soaked;
    }

    /// <summary>Waits until what a first start does behind the sign-in page is done: the demo harvested and begun.</summary>
    public async Task Settled()
    {
        using var http = new HttpClient();
        for (var watch = Stopwatch.StartNew(); watch.Elapsed < TimeSpan.FromMinutes(10); await Task.Delay(250))
            if (JsonNode.Parse(await http.GetStringAsync(new Uri(Address, "/health")))!["doing"] is null)
                return;
        throw new InvalidOperationException("The demo was not ready after ten minutes.");
    }

    private static string Library(string binaries, string project)
    {
        var shipped = Path.Combine(binaries, project, $"Zendle.{project}.dll");
        return File.Exists(shipped)
            ? shipped
            : Path.Combine(binaries, $"Zendle.{project}", "release", $"Zendle.{project}.dll");
    }

    private static async Task Answers(HttpClient http, Uri address, Process process)
    {
        for (var watch = Stopwatch.StartNew(); watch.Elapsed < TimeSpan.FromMinutes(10); await Task.Delay(100))
        {
            if (process.HasExited)
                break;
            try
            {
                using var reply = await http.GetAsync(address);
                if (reply.IsSuccessStatusCode)
                    return;
            }
            catch (HttpRequestException) { } // not listening yet
        }
        throw new InvalidOperationException($"Nothing answers at {address}.");
    }

    /// <summary>
    /// Memory of Zendle in MB: all that is resident, and what of it is its own (neither files nor shared).
    /// </summary>
    public (int Resident, int Own) Memory()
    {
        var lines = File.ReadAllLines($"/proc/{server.Id}/status");
        int Of(string name) =>
            int.Parse(
                lines
                    .First(l => l.StartsWith(name, StringComparison.Ordinal))
                    .Split(default(char[]), 3, StringSplitOptions.RemoveEmptyEntries)[1],
                CultureInfo.InvariantCulture
            ) / 1024;
        return (Of("VmRSS:"), Of("RssAnon:"));
    }

    private static Process Run(string library, params string[] arguments)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true, UseShellExecute = false };
        foreach (var (name, value) in SmallCorpus)
            start.Environment.TryAdd(name, value);
        start.ArgumentList.Add(library);
        foreach (var argument in arguments)
            start.ArgumentList.Add(argument);
        var process = Process.Start(start)!;
        process.OutputDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        return process;
    }

    /// <summary>Ends both.</summary>
    public void Dispose()
    {
        foreach (var process in new[] { server, outside })
        {
            process.Kill();
            process.WaitForExit();
            process.Dispose();
        }
    }
}
