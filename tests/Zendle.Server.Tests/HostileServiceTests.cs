using System.Diagnostics;
using Zendle.Connect.Fetch;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A service that means harm: whatever it replies costs little, is told in a sentence, and leaves the lane free for
/// others.
/// </summary>
public sealed class HostileServiceTests : IAsyncLifetime
{
    private readonly HostileService service = new();

    private string Base => service.Base;

    public async ValueTask InitializeAsync() => await service.Start();

    public ValueTask DisposeAsync() => service.DisposeAsync();

    [Fact]
    public async Task The_lane_is_free_for_others_after_each_and_all_are_told()
    {
        await using var host = new ZendleHost(Base);
        var ann = await host.Curator();
        foreach (var kind in new[] { "nested", "tokens", "attributes" })
            await ann.Ok("POST", "/api/databases", new { address = $"{Base}/{kind}/oai", trusted = false });
        var honest = await ann.Harvest($"{Base}/honest/oai");
        Assert.Equal(("Done", 1), (honest["job"]!.Text("state"), honest.Int("records")));
        foreach (
            var database in (await ann.Get("/api/databases")).List("databases").Where(d => d.Text("name") != "honest")
        )
            Assert.Equal("Failed", database["job"]!.Text("state"));
        Assert.Contains(
            "one resumption token after another, but no records",
            (await ann.Get("/api/databases")).List("databases").Single(d => d.Text("name") == "tokens")["job"]!.Text(
                "message"
            ),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_field_of_half_a_million_letters_is_cut_and_the_rest_can_be_searched()
    {
        await using var host = new ZendleHost(Base);
        var ann = await host.Curator();
        Assert.Equal(
            ("Done", 1),
            (await ann.Harvest($"{Base}/long/oai")) is { } d ? (d["job"]!.Text("state"), d.Int("records")) : default
        );
        Assert.Equal(1, await ann.Count(await ann.Review(), await ann.Search(1, "moths")));
    }

    [Fact]
    public async Task Someone_who_stops_looking_is_not_looked_for()
    {
        await using var host = new ZendleHost(Base);
        var ann = await host.Curator();
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(2));
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/databases/look")
        {
            Content = System.Net.Http.Json.JsonContent.Create(new { address = $"{Base}/drip/oai" }),
        };
        request.Headers.Add("X-Zendle-Token", (await ann.Get("/api/me")).Text("requestToken"));
        var watch = Stopwatch.StartNew();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => ann.Http.SendAsync(request, patience.Token));
        Assert.True(watch.Elapsed < TimeSpan.FromSeconds(10));
        // A harvest of it can be stopped, and its lane goes on.
        await ann.Ok("POST", "/api/databases", new { address = $"{Base}/drip/oai", trusted = false });
        var job = (await ann.Get("/api/databases")).List("databases").Single()["job"]!.Int("id");
        for (var i = 0; i < 100 && (await ann.Send("POST", $"/api/jobs/{job}/stop")).Status != 204; i++)
            await Task.Delay(50);
        Assert.Equal("Done", (await ann.Harvest($"{Base}/honest/oai"))["job"]!.Text("state"));
    }

    [Theory]
    [InlineData("64:ff9b::7f00:1")] // NAT64 of this machine
    [InlineData("64:ff9b:1::a00:1")]
    [InlineData("2002:7f00:1::")] // 6to4
    [InlineData("2002:c0a8:101::1")]
    [InlineData("::10.0.0.1")] // IPv4-compatible
    [InlineData("::ffff:192.168.1.1")]
    [InlineData("2001:db8::1")] // documentation
    [InlineData("3fff::1")]
    [InlineData("2001:0:4136:e378:8000:63bf:3fff:fdd2")] // Teredo
    [InlineData("2a00:1450:4001::5efe:10.0.0.1")] // ISATAP
    [InlineData("fd00::1")]
    [InlineData("fe80::1")]
    [InlineData("100::1")] // discard
    [InlineData("ff02::1")]
    [InlineData("192.0.2.1")]
    [InlineData("198.51.100.7")]
    [InlineData("203.0.113.7")]
    [InlineData("192.88.99.1")]
    [InlineData("0.1.2.3")]
    [InlineData("255.255.255.255")]
    public void Ranges_that_are_nobodys_or_ones_own_are_not_public(string address) =>
        Assert.False(AddressPolicy.IsPublic(System.Net.IPAddress.Parse(address)));

    [Theory]
    [InlineData("93.184.216.34")]
    [InlineData("2a00:1450:4001:81b::200e")]
    [InlineData("2606:2800:220:1:248:1893:25c8:1946")]
    [InlineData("::ffff:93.184.216.34")]
    public void Machines_that_anyone_can_reach_are_public(string address) =>
        Assert.True(AddressPolicy.IsPublic(System.Net.IPAddress.Parse(address)));

    [Fact]
    public void This_machines_own_addresses_are_not_public() =>
        Assert.All(
            System
                .Net.NetworkInformation.NetworkInterface.GetAllNetworkInterfaces()
                .SelectMany(i => i.GetIPProperties().UnicastAddresses),
            a => Assert.False(AddressPolicy.IsPublic(a.Address))
        );
}
