namespace Zendle.Server;

/// <summary>When somebody last asked for something that was worked on.</summary>
internal sealed class Busy(TimeProvider clock)
{
    private long last = clock.GetTimestamp();

    /// <summary>Something is being worked on now.</summary>
    public void Touch() => Volatile.Write(ref last, clock.GetTimestamp());

    /// <summary>The last moment, and how long it is over.</summary>
    public (long Moment, TimeSpan Since) Last =>
        (Volatile.Read(ref last), clock.GetElapsedTime(Volatile.Read(ref last)));
}
