using Microsoft.Extensions.DependencyInjection;
using Zendle.Server.Jobs;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Databases are harvested by themselves when they are due, by the clock of the outside.</summary>
public sealed class ScheduleTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 200, seed: 5);
        host = new(outside.Address.ToString());
        ann = await host.Curator();
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    private async Task<(string? Every, DateTimeOffset? DueAt, int Job)> Database(int id)
    {
        var row = (await ann.Get("/api/databases")).List("databases").Single(d => d.Int("id") == id);
        return (
            (string?)row["every"],
            row["dueAt"] is { } due ? DateTimeOffset.Parse((string)due!, null) : null,
            row["job"]!.Int("id")
        );
    }

    private Task Tick() => host.Services.GetRequiredService<JobSchedule>().Tick(CancellationToken.None);

    [Fact]
    public async Task A_database_is_harvested_when_its_night_has_come_and_then_the_next()
    {
        var id = (await ann.Harvest(outside.Oai("farnet"))).Int("id");
        var first = await Database(id);
        Assert.Equal((null, null), (first.Every, first.DueAt));
        await ann.Ok("PUT", $"/api/databases/{id}/schedule", new { every = "EveryNight" });
        var set = await Database(id);
        Assert.Equal("EveryNight", set.Every);
        using var http = new HttpClient();
        var now = DateTimeOffset.Parse(await http.GetStringAsync(new Uri(outside.Address, "/clock")), null);
        Assert.InRange(set.DueAt!.Value - now, TimeSpan.Zero, TimeSpan.FromHours(26));
        await Tick();
        Assert.Equal(first.Job, (await Database(id)).Job);
        // Three nights pass at once: what was missed is asked for once.
        await outside.Move(3);
        await Tick();
        await ann.Ended(id);
        var later = await Database(id);
        Assert.NotEqual(first.Job, later.Job);
        Assert.InRange(later.DueAt!.Value - set.DueAt.Value, TimeSpan.FromDays(2.9), TimeSpan.FromDays(4.1));
        await Tick();
        Assert.Equal(later.Job, (await Database(id)).Job);
        // By hand only again: no night asks for anything.
        await ann.Ok("PUT", $"/api/databases/{id}/schedule", new { every = (string?)null });
        await outside.Move(9);
        await Tick();
        Assert.Equal((null, null, later.Job), await Database(id));
    }

    [Fact]
    public async Task A_wish_that_means_nothing_is_refused()
    {
        var id = (await ann.Harvest(outside.Oai("farnet"))).Int("id");
        Assert.Equal(
            404,
            (int)(await ann.Send("PUT", "/api/databases/99/schedule", new { every = "EveryNight" })).Status
        );
        Assert.Equal(
            400,
            (int)(await ann.Send("PUT", $"/api/databases/{id}/schedule", new { every = "Hourly" })).Status
        );
        Assert.Null((await Database(id)).Every);
    }
}
