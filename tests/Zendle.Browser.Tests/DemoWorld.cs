using Zendle.Tests.Shared;

namespace Zendle.Browser.Tests;

/// <summary>
/// The demo, started for real on ports of its own, with a browser before it. One for each class of tests.
/// </summary>
public sealed class DemoWorld : IAsyncLifetime
{
    public OutsideHost Outside { get; private set; } = null!;

    public ZendleHost Host { get; private set; } = null!;

    public Uri Address { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Outside = await OutsideHost.Start(
            works: Environment.GetEnvironmentVariable("ZENDLE_SHOTS") is null ? 1_200 : 12_000,
            seed: 1
        );
        Host = new(Outside.Address.ToString(), demo: true);
        Host.UseKestrel(0);
        Host.StartServer();
        Address = Host.ClientOptions.BaseAddress;
        using var http = new HttpClient();
        for (var i = 0; i < 1_800; i++)
        {
            if ((await http.GetAsync(new Uri(Address, "/health"))).IsSuccessStatusCode)
                return;
            await Task.Delay(100);
        }
        throw new TimeoutException("The demo was not ready in three minutes.");
    }

    /// <summary>A fresh browser, signed in as the demo researcher.</summary>
    public Browser SignedIn()
    {
        var browser = new Browser(Address);
        browser.Go("/");
        browser.Click("Look around as the demo researcher");
        browser.Sees("Street lighting and night pollination");
        browser.Find("article[data-work]");
        return browser;
    }

    public async ValueTask DisposeAsync()
    {
        await Host.DisposeAsync();
        await Outside.DisposeAsync();
    }
}
