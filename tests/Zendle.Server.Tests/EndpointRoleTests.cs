using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Every endpoint of the API's description, asked by everyone there is and with ids of what is not theirs. An endpoint
/// that says nothing of whom it lets through fails here.
/// </summary>
public sealed class EndpointRoleTests : IAsyncLifetime
{
    private static readonly string[] Ranks = ["reader", "screener", "owner"];

    /// <summary>These change who is asking, or ask the outside in earnest.</summary>
    private static readonly string[] Apart =
    [
        "/api/sign-out",
        "/api/password",
        "/api/sign-in",
        "/api/first-account",
        "/api/databases/{id}/harvest",
        "/api/databases",
    ];

    private OutsideHost outside = null!;
    private ZendleHost host = null!;
    private Visitor curator = null!;
    private readonly Dictionary<string, Visitor> members = [];
    private Visitor outsider = null!;

    public async ValueTask InitializeAsync()
    {
        outside = await OutsideHost.Start(works: 120, seed: 5);
        host = new(outside.Address.ToString());
        curator = await host.Curator();
        await curator.Harvest(outside.Oai("farnet"));
        foreach (var rank in Ranks)
            members[rank] = await host.Another(curator, rank);
        outsider = await host.Another(curator, "outsider");
    }

    public async ValueTask DisposeAsync()
    {
        await host.DisposeAsync();
        await outside.DisposeAsync();
    }

    /// <summary>A review with one member of each rank, made by its owner, and something of each kind in it.</summary>
    private static async Task<(string Place, object Value)[]> Review(Visitor owner, bool hasMembers)
    {
        var review = await owner.Review();
        if (hasMembers)
            foreach (var rank in Ranks[..2])
                await owner.Ok("PUT", $"/api/reviews/{review}/members", new { name = rank, role = rank });
        var step = await owner.Search(review, "moth* OR light");
        var works = await owner.Works(review, step);
        await owner.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = works[..3] });
        var run = (await owner.Get($"/api/reviews/{review}/log"))["runs"]![0]!.Int("id");
        return [("reviewId", review), ("stepId", step), ("otherId", step), ("runId", run), ("workId", works[0])];
    }

    private static async Task<(int Status, string Title)> Ask(
        Visitor who,
        ApiOperation operation,
        params (string, object)[] ids
    )
    {
        var step = (int)ids.FirstOrDefault(i => i.Item1 == "stepId", ("", 1)).Item2;
        var body = operation.Body is { } schema ? ApiDescription.Fit(schema, "", step) : null;
        var (status, problem) = await who.Send(operation.Method, operation.At(ids), body);
        return (status, (problem as JsonObject)?["title"]?.ToString() ?? "");
    }

    [Fact]
    public async Task Every_endpoint_lets_through_whom_it_says_and_nobody_else()
    {
        var stranger = await host.Visit();
        var faults = new List<string>();
        var asked = 0;
        foreach (var operation in ApiDescription.Operations.Where(o => !Apart.Contains(o.Path)))
        {
            void Expect(string who, (int Status, string Title) got, bool isRight)
            {
                asked++;
                if (!isRight)
                    faults.Add($"{operation.Method} {operation.Path} ({operation.Allows}) gave {who} {got}");
            }
            if (operation.Allows == "anyone")
                continue;
            var got = await Ask(stranger, operation);
            Expect("a stranger", got, got.Status == 401);
            if (!operation.Path.StartsWith("/api/reviews/{reviewId}", StringComparison.Ordinal))
            {
                Expect("the description", (0, ""), operation.Allows is "signed in" or "curator");
                if (operation.Allows == "curator")
                {
                    got = await Ask(outsider, operation);
                    Expect("one who is no curator", got, got.Status == 403);
                }
                continue;
            }
            Expect("the description", (0, ""), Ranks.Contains(operation.Allows));
            // A review of its own for each endpoint: what one of them does is nothing to the next.
            var ids = await Review(members["owner"], hasMembers: true);
            got = await Ask(outsider, operation, ids);
            Expect(
                "one who is no member",
                got,
                got.Status == 404 && got.Title.Contains("not a member", StringComparison.Ordinal)
            );
            got = await Ask(curator, operation, ids);
            Expect("a curator who is no member", got, got.Status == 404);
            foreach (var rank in Ranks)
            {
                got = await Ask(members[rank], operation, ids);
                var isAllowed = Array.IndexOf(Ranks, rank) >= Array.IndexOf(Ranks, operation.Allows);
                Expect(rank, got, isAllowed ? got.Status is not (401 or 403) && got.Status < 500 : got.Status == 403);
            }
        }
        Assert.True(faults.Count == 0, $"{faults.Count} of {asked}:\n{string.Join('\n', faults)}");
        Assert.True(asked > 200, $"{asked}");
    }

    [Fact]
    public async Task What_belongs_to_another_review_is_not_there_in_ones_own()
    {
        var theirs = await Review(curator, hasMembers: false);
        var faults = new List<string>();
        var asked = 0;
        foreach (
            var operation in ApiDescription.Operations.Where(o =>
                o.Path.StartsWith("/api/reviews/{reviewId}", StringComparison.Ordinal)
            )
        )
        foreach (
            var place in new[] { "stepId", "otherId", "runId" }.Where(p =>
                operation.Path.Contains($"{{{p}}}", StringComparison.Ordinal)
            )
        )
        {
            var ours = await Review(members["owner"], hasMembers: false);
            (string, object)[] ids = [.. ours.Where(i => i.Place != place), theirs.Single(i => i.Place == place)];
            var got = await Ask(members["owner"], operation, ids);
            asked++;
            if (got.Status != 404)
                faults.Add($"{operation.Method} {operation.Path} with another's {place} gave {got}");
        }
        Assert.True(faults.Count == 0, $"{faults.Count} of {asked}:\n{string.Join('\n', faults)}");
        Assert.True(asked > 10, $"{asked}");
    }
}
