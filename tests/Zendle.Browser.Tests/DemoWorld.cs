using System.Net;
using System.Net.NetworkInformation;
using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>
/// The demo, started for real on a port of its own over a copy of a folder that was harvested once a run. One for each
/// class of tests; the outside behind it is the one of other classes, too, and stays as it is.
/// </summary>
public sealed class DemoWorld : IAsyncLifetime
{
    private static readonly Lazy<Task<(OutsideHost Outside, string Folder)>> Once = new(Make);

    public ZendleHost Host { get; private set; } = null!;

    public Uri Address { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        var (outside, folder) = await Once.Value;
        Host = ZendleHost.OverACopy(folder, outside.Address.ToString(), demo: true);
        Address = await Demo.Served(Host);
    }

    /// <summary>A fresh browser, signed in as the demo researcher.</summary>
    /// <param name="path">Where it is; where signing in leads to if nothing is said.</param>
    public Browser SignedIn(string path = "/") => Demo.SignedIn(Address, path);

    public ValueTask DisposeAsync() => Host.DisposeAsync();

    private static async Task<(OutsideHost, string)> Make()
    {
        var outside = await OutsideHost.Start(Demo.Works, Demo.Seed);
        return (outside, await Demo.Harvested(outside));
    }
}

/// <summary>
/// The demo with an outside of its own: for tests that move its clock or change what lies behind its texts, and for
/// pictures, whose world is the demo's own.
/// </summary>
/// <remarks>
/// Addresses of the outside stand in every record, so a harvested folder belongs to one address. Classes of
/// <see cref="InTurn"/> run one after another, each with a new outside at that address and a copy of the folder.
/// </remarks>
public sealed class DemoWorldWithItsOutside : IAsyncLifetime
{
    /// <summary>The collection of all classes that have this world.</summary>
    public const string InTurn = LongestFirst.Chain;

    private static readonly Lazy<Task<(string Folder, int Port)>> Once = new(Make);

    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Uri Address { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        if (Environment.GetEnvironmentVariable("ZENDLE_SHOTS") is not null)
        {
            Outside = await OutsideHost.Start(works: 12_000, Demo.Seed);
            Host = new(Outside.Address.ToString(), demo: true);
        }
        else
        {
            var (folder, port) = await Once.Value;
            Outside = await OutsideHost.Start(Demo.Works, Demo.Seed, port);
            Host = ZendleHost.OverACopy(folder, Outside.Address.ToString(), demo: true);
        }
        Address = await Demo.Served(Host);
    }

    private static async Task<(string, int)> Make()
    {
        var port = FreeForLong();
        await using var outside = await OutsideHost.Start(Demo.Works, Demo.Seed, port);
        return (await Demo.Harvested(outside), port);
    }

    /// <summary>A port that no connection is given by itself: those are above 32,767.</summary>
    private static int FreeForLong()
    {
        var taken = IPGlobalProperties.GetIPGlobalProperties().GetActiveTcpListeners().Select(l => l.Port).ToHashSet();
        int port;
        do port = Random.Shared.Next(20_000, 32_000);
        while (taken.Contains(port));
        return port;
    }

    /// <summary>A fresh browser, signed in as the demo researcher.</summary>
    /// <param name="path">Where it is; where signing in leads to if nothing is said.</param>
    public Browser SignedIn(string path = "/") => Demo.SignedIn(Address, path);

    /// <summary>Sets what lies behind a copy.</summary>
    public async Task Behind(string path, string kind)
    {
        using var http = new HttpClient();
        (
            await http.PostAsync(new Uri(Outside.Address, $"/copies?path={path}&kind={kind}"), null)
        ).EnsureSuccessStatusCode();
    }

    public async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}

/// <summary>What the two have in common.</summary>
internal static class Demo
{
    /// <summary>The small world that tests walk in.</summary>
    public const int Works = 1_200,
        Seed = 1;

    /// <summary>The folder of a demo that was made from an outside; removed when the run ends.</summary>
    public static async Task<string> Harvested(OutsideHost outside)
    {
        var host = new ZendleHost(outside.Address.ToString(), demo: true);
        await Served(host);
        var folder = await host.Left();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => ZendleHost.Remove(folder);
        return folder;
    }

    /// <summary>Serves the demo and waits until its review is there.</summary>
    public static async Task<Uri> Served(ZendleHost host)
    {
        await host.Served();
        return host.ClientOptions.BaseAddress;
    }

    /// <summary>
    /// A fresh browser, signed in as the demo researcher. The sign-in is asked for without the page, which tests of its
    /// own press: two pages less for each test.
    /// </summary>
    public static Browser SignedIn(Uri address, string path)
    {
        var browser = new Browser(address);
        foreach (var cookie in Session(address).GetAwaiter().GetResult())
            browser.Carry(cookie);
        browser.Go(path);
        if (path == "/")
        {
            browser.Sees("Street lighting and night pollination");
            browser.Find("article[data-work]");
        }
        return browser;
    }

    private static async Task<IEnumerable<Cookie>> Session(Uri address)
    {
        var cookies = new CookieContainer();
        using var handler = new HttpClientHandler { CookieContainer = cookies };
        using var http = new HttpClient(handler) { BaseAddress = address };
        var visitor = new Visitor(http);
        await visitor.Ok("POST", "/api/sign-in", (await visitor.Get("/api/me"))["demo"]);
        return cookies.GetAllCookies();
    }
}
