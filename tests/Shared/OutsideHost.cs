extern alias outside;
using Microsoft.AspNetCore.Builder;
using outside::Zendle.Outside;

namespace Zendle.Tests.Shared;

/// <summary>The simulated outside on a port of its own, over a small world.</summary>
public sealed class OutsideHost : IAsyncDisposable
{
    private readonly WebApplication app;
    private readonly HttpClient http = new();

    private OutsideHost(WebApplication app) => this.app = app;

    public Uri Address => new(app.Urls.First());

    public string Oai(string database) => new Uri(Address, $"/{database}/oai").ToString();

    /// <summary>Starts one.</summary>
    /// <param name="works">How many works its world has.</param>
    /// <param name="seed">What the world is made from.</param>
    /// <param name="port">Where it listens; 0 for any free port.</param>
    public static async Task<OutsideHost> Start(int works = 500, int seed = 3, int port = 0)
    {
        var app = OutsideApplication.Build([
            "--urls",
            $"http://127.0.0.1:{port}",
            "--works",
            $"{works}",
            "--seed",
            $"{seed}",
        ]);
        await app.StartAsync();
        return new(app);
    }

    /// <summary>Switches a fault on for the next requests for records.</summary>
    public async Task Fault(string database, string kind, int times = 1) =>
        (
            await http.PostAsync(new Uri(Address, $"/faults?database={database}&kind={kind}&times={times}"), null)
        ).EnsureSuccessStatusCode();

    /// <summary>Moves the outside's time on.</summary>
    public async Task Move(int days) =>
        (await http.PostAsync(new Uri(Address, $"/clock?days={days}"), null)).EnsureSuccessStatusCode();

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await app.DisposeAsync();
    }
}
