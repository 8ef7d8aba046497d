using System.Globalization;
using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Server.Jobs;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Manuscripts that a repository holds back until a day.</summary>
public sealed class EmbargoTests : IAsyncLifetime
{
    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor ann = null!;
    private readonly HttpClient http = new();

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 1_500, seed: 6);
        host = new(outside.Address.ToString());
        ann = await host.Curator();
        await ann.HarvestTwo(outside);
    }

    public async ValueTask DisposeAsync()
    {
        http.Dispose();
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    private Task Tick() => host.Services.GetRequiredService<JobSchedule>().Tick(CancellationToken.None);

    private async Task<JsonNode> Row(int review, int work) =>
        (await ann.Get($"/api/reviews/{review}/gather")).List("works").Single(w => w.Int("workId") == work);

    private async Task<JsonNode> Until(int review, int work, string state)
    {
        for (var i = 0; i < 1_200; i++)
        {
            if (await Row(review, work) is var row && row.Text("state") == state)
                return row;
            await Task.Delay(50);
        }
        throw new TimeoutException($"{await Row(review, work)}");
    }

    /// <summary>The step of the works that become free on a day to come.</summary>
    private async Task<int> HeldBack(int review)
    {
        var all = await ann.Search(review, "");
        return await ann.Step(
            review,
            all,
            new
            {
                kind = "Narrow",
                facet = "Text",
                values = new[] { "free from a later day" },
            }
        );
    }

    private async Task<int> CountHeldBack(int review) => await ann.Count(review, await HeldBack(review));

    [Fact]
    public async Task A_manuscript_held_back_is_told_with_its_day_and_got_when_that_has_come()
    {
        var review = await ann.Review();
        var held = new List<(int Work, DateOnly Day, string Host)>();
        foreach (var work in await ann.Works(review, await HeldBack(review), "limit=200"))
        {
            var copies = (await ann.Get($"/api/reviews/{review}/works/{work}"))["copies"]!.AsArray();
            // What is sold besides stays so; what is held back names its day.
            Assert.DoesNotContain(copies, c => c!.Text("access") == "free");
            var copy = copies.First(c => c!["opensOn"] is not null)!;
            Assert.Contains("/fallowmere/item/", copy.Text("address"), StringComparison.Ordinal);
            held.Add((work, DateOnly.Parse(copy.Text("opensOn"), CultureInfo.InvariantCulture), copy.Text("address")));
        }
        Assert.NotEmpty(held);
        // Every one that the repository itself shows as held back, and no other.
        foreach (var (_, day, address) in held)
            Assert.Contains(
                string.Create(CultureInfo.InvariantCulture, $"under embargo until {day:d MMMM yyyy}"),
                await http.GetStringAsync(new Uri(address)),
                StringComparison.Ordinal
            );

        var (sought, opens, at) = held.OrderBy(h => h.Day).First();
        foreach (var (work, _, _) in held)
            await ann.Ok("POST", $"/api/reviews/{review}/gather", new { works = new[] { work }, again = false });
        var row = await Until(review, sought, "NotFound");
        var said = string.Create(CultureInfo.InvariantCulture, $"free from {opens:d MMM yyyy}");
        Assert.Equal(said, row.Text("copies"));
        Assert.Equal(
            string.Create(CultureInfo.InvariantCulture, $"under embargo until {opens:d MMM yyyy}; tried again then"),
            row.Text("sentence")
        );
        var attempt = row.List("attempts").Single(a => a.Text("outcome") == "Embargoed");
        Assert.Equal(("under embargo", at), (attempt.Text("brief"), attempt.Text("address")));

        // A night that is too early changes nothing.
        using var clock = new HttpClient();
        var now = DateTimeOffset.Parse(await clock.GetStringAsync(new Uri(outside.Address, "/clock")), null);
        var days = opens.DayNumber - DateOnly.FromDateTime(now.UtcDateTime).DayNumber;
        var before = await CountHeldBack(review);
        if (days > 2)
        {
            await outside.Move(days - 2);
            await Tick();
            await Task.Delay(300);
            Assert.Equal(before, await CountHeldBack(review));
            Assert.Equal("NotFound", (await Row(review, sought)).Text("state"));
        }

        await outside.Move(Math.Max(1, Math.Min(days, 2)) + 1);
        await Tick();
        row = await Until(review, sought, "InHand");
        Assert.Equal("accepted manuscript", row.List("texts").Single().Text("version"));
        Assert.Equal("free, accepted manuscript", row.Text("copies"));
        var due = held.Count(h => h.Day <= opens.AddDays(1));
        Assert.InRange(await CountHeldBack(review), before - due, before - 1);
        // Those that stay closed were not asked for again.
        var latest = held.MaxBy(h => h.Day);
        if (latest.Day > opens.AddDays(30))
            Assert.Equal("NotFound", (await Row(review, latest.Work)).Text("state"));
    }
}
