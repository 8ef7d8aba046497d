using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Zendle.Store.Made;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Gathering does not go round in circles when processes end in it.</summary>
public sealed class GatherGuardTests(Gathering world) : IClassFixture<Gathering>
{
    private Visitor Ann => world.Ann;

    [Fact]
    public async Task A_work_in_which_processes_ended_again_and_again_is_tried_no_more_until_somebody_asks()
    {
        var review = await Ann.Review();
        var (suspect, blamed) = ((await world.Work("fine")).Work, (await world.Work("fine")).Work);
        await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/decisions",
            new { act = "Keep", works = new[] { suspect, blamed } }
        );
        await using (
            var context = await world
                .Host.Services.GetRequiredService<IDbContextFactory<ZendleContext>>()
                .CreateDbContextAsync()
        )
        {
            // As killed processes left them: one had its document in hand twice, among others; one a third time, alone.
            var account = await context.Users.Select(u => u.Id).FirstAsync();
            foreach (var (work, begun) in new[] { (suspect, 2), (blamed, 3) })
                context.Sought.Add(
                    new()
                    {
                        ReviewId = review,
                        WorkId = work,
                        State = SoughtState.Waiting,
                        Round = 1,
                        Begun = begun,
                        AccountId = account,
                    }
                );
            await context.SaveChangesAsync();
        }
        var rows = await world.Gather(review, null);
        Assert.Equal(("InHand", "NotFound"), (rows[suspect].Text("state"), rows[blamed].Text("state")));
        Assert.Equal("Unreadable", rows[blamed]["attempts"]!.AsArray()[^1]!.Text("outcome"));
        Assert.Equal("InHand", (await world.Gather(review, [blamed]))[blamed].Text("state"));
    }
}
