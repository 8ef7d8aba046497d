using System.Collections.Concurrent;
using Zendle.Connect.Fetch;
using Zendle.Server.Events;

namespace Zendle.Server.Features.Gather;

/// <summary>What is going on right now, by review and work. Lost with the process, as what it speaks of is.</summary>
internal sealed class GatherProgress(EventHub hub, TimeProvider clock)
{
    private static readonly TimeSpan Often = TimeSpan.FromMilliseconds(400);
    private readonly ConcurrentDictionary<(int Review, int Work), FetchProgress> now = new();
    private readonly ConcurrentDictionary<int, long> told = new();

    /// <summary>What goes on at a work; null when nothing does.</summary>
    public FetchProgress? Of(int review, int work) => now.TryGetValue((review, work), out var p) ? p : null;

    /// <summary>Says what goes on; open pages hear of it now and then.</summary>
    public void Say(int review, int work, FetchProgress progress)
    {
        now[(review, work)] = progress;
        Tell(review, always: false);
    }

    /// <summary>A work is done with.</summary>
    public void End(int review, int work)
    {
        now.TryRemove((review, work), out _);
        Tell(review, always: false);
    }

    /// <summary>
    /// Tells open pages that something changed; not more often than they can follow, but for the last word.
    /// </summary>
    public void Tell(int review, bool always)
    {
        var last = told.GetOrAdd(review, 0);
        if (!always && clock.GetElapsedTime(last) < Often)
            return;
        told[review] = clock.GetTimestamp();
        hub.Tell(new("gather", review));
    }
}
