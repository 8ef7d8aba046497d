using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Oai;

/// <summary>The world's own time: starts at one moment, runs with real time, can be moved on.</summary>
public sealed class OutsideClock(TimeProvider real)
{
    private readonly DateTimeOffset began = real.GetUtcNow();
    private TimeSpan moved;

    /// <summary>Now, in the world, to the second.</summary>
    public DateTimeOffset Now
    {
        get
        {
            var now = DatabaseViews.Start + (real.GetUtcNow() - began) + moved;
            return new(now.Ticks - now.Ticks % TimeSpan.TicksPerSecond, TimeSpan.Zero);
        }
    }

    /// <summary>Moves time on.</summary>
    public void Move(TimeSpan by) => moved += by;
}
