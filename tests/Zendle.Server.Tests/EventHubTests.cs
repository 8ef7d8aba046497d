using Zendle.Server.Events;
using Zendle.Server.Features.Gather;

namespace Zendle.Server.Tests;

/// <summary>Who hears what happens, and how often.</summary>
public sealed class EventHubTests
{
    [Fact]
    public async Task Open_pages_hear_every_event_and_a_page_that_left_hears_none()
    {
        var hub = new EventHub();
        using var stop = new CancellationTokenSource();
        var heard = new List<string>();
        var listening = Task.Run(async () =>
        {
            try
            {
                await foreach (var e in hub.Listen(stop.Token))
                    heard.Add(e.Kind);
            }
            catch (OperationCanceledException) { }
        });
        for (var i = 0; i < 200 && heard.Count == 0; i++)
        {
            hub.Tell(new("first"));
            await Task.Delay(5);
        }
        hub.Tell(new("gather", 3));
        for (var i = 0; i < 200 && !heard.Contains("gather"); i++)
            await Task.Delay(5);
        Assert.Equal("gather", heard[^1]);
        await stop.CancelAsync();
        await listening;
        var before = heard.Count;
        hub.Tell(new("late"));
        Assert.Equal(before, heard.Count);
    }

    [Fact]
    public async Task Progress_is_told_now_and_then_and_the_last_word_always()
    {
        var hub = new EventHub();
        using var stop = new CancellationTokenSource();
        var heard = 0;
        var ready = new TaskCompletionSource();
        var listening = Task.Run(async () =>
        {
            try
            {
                await foreach (var e in hub.Listen(stop.Token))
                {
                    if (e.Kind == "gather")
                        Interlocked.Increment(ref heard);
                    ready.TrySetResult();
                }
            }
            catch (OperationCanceledException) { }
        });
        while (!ready.Task.IsCompleted)
        {
            hub.Tell(new("hello"));
            await Task.Delay(5);
        }
        var progress = new GatherProgress(hub, TimeProvider.System);
        for (var i = 0; i < 500; i++)
            progress.Say(1, 7, new($"step {i}", i / 500.0));
        Assert.Equal(("step 499", 499 / 500.0), (progress.Of(1, 7)!.Value.Sentence, progress.Of(1, 7)!.Value.Share));
        await Task.Delay(50);
        Assert.InRange(heard, 0, 5); // five hundred steps within a moment are not five hundred messages
        var before = heard;
        progress.Tell(1, always: true);
        for (var i = 0; i < 200 && heard == before; i++)
            await Task.Delay(5);
        Assert.Equal(before + 1, heard);
        progress.End(1, 7);
        Assert.Null(progress.Of(1, 7));
        Assert.Null(progress.Of(2, 7));
        await stop.CancelAsync();
        await listening;
    }
}
