using System.Collections.Concurrent;

namespace Zendle.Connect.Fetch;

/// <summary>
/// Keeps requests gentle: at most a few at one host at a time, and none while the host has asked to be left alone. A
/// host is told by scheme, name and port.
/// </summary>
/// <param name="atOnce">Requests at one host at a time.</param>
/// <param name="clock">For waiting.</param>
internal sealed class HostGate(int atOnce, TimeProvider clock)
{
    private readonly ConcurrentDictionary<string, Host> hosts = new(StringComparer.OrdinalIgnoreCase);

    private sealed class Host(int atOnce)
    {
        public SemaphoreSlim Turns { get; } = new(atOnce, atOnce);
        public long NotBefore;
        public int FailedInARow;
        public long RestsUntil;
    }

    /// <summary>A host that failed so often in a row is left alone for a while.</summary>
    public const int MostFailures = 5;

    private static readonly TimeSpan Rest = TimeSpan.FromMinutes(5);

    /// <summary>Until when a host is left alone because it failed again and again; null when it is not.</summary>
    public DateTimeOffset? RestsUntil(Uri address) =>
        hosts.TryGetValue(address.GetLeftPart(UriPartial.Authority), out var host)
        && Interlocked.Read(ref host.RestsUntil) is var until
        && until > clock.GetUtcNow().UtcTicks
            ? new DateTimeOffset(until, TimeSpan.Zero)
            : null;

    /// <summary>Notes how a request at a host went.</summary>
    public void Went(Uri address, bool isWell)
    {
        var host = hosts.GetOrAdd(address.GetLeftPart(UriPartial.Authority), _ => new(atOnce));
        if (isWell)
            Interlocked.Exchange(ref host.FailedInARow, 0);
        else if (Interlocked.Increment(ref host.FailedInARow) >= MostFailures)
        {
            Interlocked.Exchange(ref host.FailedInARow, 0);
            Interlocked.Exchange(ref host.RestsUntil, (clock.GetUtcNow() + Rest).UtcTicks);
        }
    }

    /// <summary>Waits for a turn at a host; dispose of it to give it back.</summary>
    /// <param name="address">An address of the host.</param>
    /// <param name="apart">How far apart requests at the host begin.</param>
    /// <param name="waiting">Told how long the host has asked to be left alone, when it has.</param>
    /// <param name="cancel">Ends the wait.</param>
    public async Task<IDisposable> Enter(
        Uri address,
        TimeSpan apart,
        Action<TimeSpan> waiting,
        CancellationToken cancel
    )
    {
        var host = hosts.GetOrAdd(address.GetLeftPart(UriPartial.Authority), _ => new(atOnce));
        await host.Turns.WaitAsync(cancel);
        try
        {
            while (true)
            {
                var (until, now) = (Interlocked.Read(ref host.NotBefore), clock.GetUtcNow().UtcTicks);
                if (until > now)
                {
                    waiting(TimeSpan.FromTicks(until - now));
                    await Task.Delay(TimeSpan.FromTicks(until - now), clock, cancel);
                }
                // Of several that wait for the same moment one goes; the others wait for the next.
                else if (
                    apart <= TimeSpan.Zero
                    || Interlocked.CompareExchange(ref host.NotBefore, now + apart.Ticks, until) == until
                )
                    return new Turn(host.Turns);
            }
        }
        catch
        {
            host.Turns.Release();
            throw;
        }
    }

    /// <summary>The host asked to be left alone so long.</summary>
    public void Hold(Uri address, TimeSpan wait)
    {
        var host = hosts.GetOrAdd(address.GetLeftPart(UriPartial.Authority), _ => new(atOnce));
        Interlocked.Exchange(
            ref host.NotBefore,
            Math.Max(Interlocked.Read(ref host.NotBefore), clock.GetUtcNow().UtcTicks + wait.Ticks)
        );
    }

    private sealed class Turn(SemaphoreSlim turns) : IDisposable
    {
        private SemaphoreSlim? held = turns;

        public void Dispose() => Interlocked.Exchange(ref held, null)?.Release();
    }
}
