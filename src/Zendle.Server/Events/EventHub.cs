using System.Collections.Concurrent;
using System.Threading.Channels;

namespace Zendle.Server.Events;

/// <summary>What open pages are told as it happens.</summary>
/// <param name="Kind">"job", "corpus", "review", "databases", "libraries", "gather", "members" (who belongs to what, or is signed
/// in, may have changed).</param>
/// <param name="ReviewId">The review it is about; null for the installation.</param>
/// <param name="Job">The job, when it is about one.</param>
internal sealed record ZendleEvent(string Kind, int? ReviewId = null, JobDto? Job = null);

/// <summary>
/// Passes events on to every open page. A page that does not keep up loses the oldest; it asks anew anyway.
/// </summary>
internal sealed class EventHub
{
    private readonly ConcurrentDictionary<Guid, Channel<ZendleEvent>> listeners = new();

    /// <summary>Tells everyone.</summary>
    public void Tell(ZendleEvent e)
    {
        foreach (var listener in listeners.Values)
            listener.Writer.TryWrite(e);
    }

    /// <summary>Listens until cancelled.</summary>
    public async IAsyncEnumerable<ZendleEvent> Listen(
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        var id = Guid.NewGuid();
        var channel = Channel.CreateBounded<ZendleEvent>(
            new BoundedChannelOptions(256) { FullMode = BoundedChannelFullMode.DropOldest }
        );
        listeners[id] = channel;
        try
        {
            await foreach (var e in channel.Reader.ReadAllAsync(cancel))
                yield return e;
        }
        finally
        {
            listeners.TryRemove(id, out _);
        }
    }
}
