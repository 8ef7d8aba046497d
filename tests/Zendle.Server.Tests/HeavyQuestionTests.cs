using Zendle.Server.Features.Search;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// A question that costs too much is given up with a sentence, and one person's heavy questions wait for each other.
/// </summary>
public sealed class HeavyQuestionTests
{
    [Fact]
    public async Task A_question_whose_time_is_spent_says_so_and_what_to_do()
    {
        await using var outside = await OutsideHost.Start(works: 300, seed: 8);
        var host = new ZendleHost(outside.Address.ToString());
        var ann = await host.Curator();
        await ann.Harvest(outside.Oai("farnet"));
        var review = await ann.Review();
        const string Line = "(*a* OR *b* OR *c*) NEAR/9 (*e* OR *i*)";
        var count = await ann.Count(review, await ann.Search(review, Line));
        Assert.True(count > 100);
        await host.DisposeAsync();
        await using var hasty = new ZendleHost(outside.Address.ToString(), false, ("Zendle:QuestionSeconds", "0.0001"));
        var ben = await hasty.Curator();
        await ben.Harvest(outside.Oai("farnet"));
        var other = await ben.Review();
        var (status, problem) = await ben.Send(
            "POST",
            $"/api/reviews/{other}/steps",
            new { parentId = 0, act = new { kind = "Search", expression = Line } }
        );
        Assert.Equal((422, "This search takes longer than one search may."), (status, problem!.Text("title")));
        Assert.Contains("more letters", problem!.Text("detail"), StringComparison.Ordinal);
        Assert.Empty((await ben.Get($"/api/reviews/{other}/paths")).AsArray());
    }

    [Fact]
    public async Task Two_heavy_requests_of_a_person_run_at_once_more_wait_and_too_many_are_refused()
    {
        var turns = new HeavyTurns();
        var (first, second) = (turns.Take("ann", CancellationToken.None), turns.Take("ann", CancellationToken.None));
        var third = Task.Run(() => turns.Take("ann", CancellationToken.None));
        await Task.Delay(100);
        Assert.False(third.IsCompleted);
        // Another person does not wait for this one.
        turns.Take("ben", CancellationToken.None).Dispose();
        first.Dispose();
        first.Dispose(); // a turn ends once
        var taken = await third.WaitAsync(TimeSpan.FromSeconds(30));
        var waiting = Enumerable
            .Range(0, 8)
            .Select(_ =>
                Task.Factory.StartNew(
                    () => turns.Take("ann", CancellationToken.None).Dispose(),
                    CancellationToken.None,
                    TaskCreationOptions.LongRunning,
                    TaskScheduler.Default
                )
            )
            .ToArray();
        for (var i = 0; i < 100; i++)
        {
            await Task.Delay(20);
            if (Refused())
                break;
            Assert.True(i < 99, "a ninth was let in");
        }
        bool Refused()
        {
            using var soon = new CancellationTokenSource(20);
            try
            {
                turns.Take("ann", soon.Token);
            }
            catch (TooManyHeavyException)
            {
                return true;
            }
            catch (OperationCanceledException) { }
            return false;
        }
        // Who has gone waits no longer.
        using var gone = new CancellationTokenSource();
        second.Dispose();
        taken.Dispose();
        await Task.WhenAll(waiting).WaitAsync(TimeSpan.FromSeconds(30));
        gone.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() => turns.Take("ann", gone.Token));
    }
}
