using Zendle.Connect.Fetch;

namespace Zendle.Server.Tests;

/// <summary>Turns at hosts, and the peace that a host asked for.</summary>
public sealed class HostGateTests
{
    /// <summary>A clock that is moved by hand and wakes whoever waits.</summary>
    private sealed class HandClock : TimeProvider
    {
        private readonly List<(DateTimeOffset At, Action Ring)> timers = [];
        private DateTimeOffset now = DateTimeOffset.UnixEpoch;

        public override DateTimeOffset GetUtcNow() => now;

        public override ITimer CreateTimer(TimerCallback callback, object? state, TimeSpan dueTime, TimeSpan period)
        {
            lock (timers)
                if (dueTime != Timeout.InfiniteTimeSpan)
                    timers.Add((now + dueTime, () => callback(state)));
            return new Bell();
        }

        public void Move(TimeSpan by)
        {
            now += by;
            (DateTimeOffset At, Action Ring)[] due;
            lock (timers)
            {
                due = [.. timers.Where(t => t.At <= now)];
                timers.RemoveAll(t => t.At <= now);
            }
            foreach (var timer in due)
                timer.Ring();
        }

        private sealed class Bell : ITimer
        {
            public bool Change(TimeSpan dueTime, TimeSpan period) => true;

            public void Dispose() { }

            public ValueTask DisposeAsync() => default;
        }
    }

    private static readonly Uri Host = new("http://h.example/a"),
        Other = new("http://other.example/a");

    [Fact]
    public async Task Turns_at_a_host_are_given_back_and_other_hosts_have_their_own()
    {
        var gate = new HostGate(2, new HandClock());
        var (first, second) = (
            await gate.Enter(Host, TimeSpan.Zero, _ => { }, default),
            await gate.Enter(new("http://h.example/b?x=1"), TimeSpan.Zero, _ => { }, default)
        );
        var third = gate.Enter(Host, TimeSpan.Zero, _ => { }, default);
        Assert.False(third.IsCompleted);
        (await gate.Enter(Other, TimeSpan.Zero, _ => { }, default)).Dispose();
        first.Dispose();
        first.Dispose(); // twice is once
        await third.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.False(gate.Enter(Host, TimeSpan.Zero, _ => { }, default).IsCompleted);
        second.Dispose();
    }

    [Fact]
    public async Task A_host_that_asked_for_peace_has_it_until_its_time_is_over()
    {
        var clock = new HandClock();
        var gate = new HostGate(2, clock);
        gate.Hold(Host, TimeSpan.FromSeconds(8));
        gate.Hold(Host, TimeSpan.FromSeconds(3)); // a shorter wish does not shorten the longer one
        var said = new List<double>();
        var entering = gate.Enter(Host, TimeSpan.Zero, left => said.Add(left.TotalSeconds), default);
        clock.Move(TimeSpan.FromSeconds(5));
        await Task.Delay(30);
        Assert.False(entering.IsCompleted);
        clock.Move(TimeSpan.FromSeconds(3));
        await entering.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.Equal(8, said[0]);
        Assert.True(gate.Enter(Other, TimeSpan.Zero, _ => { }, default).IsCompleted);
    }

    [Fact]
    public async Task Requests_begin_as_far_apart_as_the_host_wants()
    {
        var clock = new HandClock();
        var (gate, apart) = (new HostGate(3, clock), TimeSpan.FromSeconds(4));
        (await gate.Enter(Host, apart, _ => { }, default)).Dispose();
        Task<IDisposable>[] waiting =
        [
            gate.Enter(Host, apart, _ => { }, default),
            gate.Enter(Host, apart, _ => { }, default),
        ];
        Assert.DoesNotContain(waiting, w => w.IsCompleted);
        // Of two that wait for the same moment one goes.
        for (var gone = 1; gone <= 2; gone++)
        {
            clock.Move(apart);
            for (var i = 0; i < 200 && waiting.Count(w => w.IsCompleted) < gone; i++)
                await Task.Delay(10);
            await Task.Delay(30);
            Assert.Equal(gone, waiting.Count(w => w.IsCompleted));
        }
    }

    [Fact]
    public async Task Who_gives_up_waiting_takes_no_turn_with_them()
    {
        var gate = new HostGate(1, new HandClock());
        gate.Hold(Host, TimeSpan.FromSeconds(8));
        using var stop = new CancellationTokenSource();
        var entering = gate.Enter(Host, TimeSpan.Zero, _ => { }, stop.Token);
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => entering);
        // Still held, but the turn is free: no deadlock for the next.
        Assert.False(gate.Enter(Host, TimeSpan.Zero, _ => { }, default).IsCompleted);
        var clock = new HandClock();
        var free = new HostGate(1, clock);
        free.Hold(Host, TimeSpan.FromSeconds(1));
        using var again = new CancellationTokenSource();
        var given = free.Enter(Host, TimeSpan.Zero, _ => { }, again.Token);
        await again.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => given);
        clock.Move(TimeSpan.FromSeconds(2));
        (await free.Enter(Host, TimeSpan.Zero, _ => { }, default).WaitAsync(TimeSpan.FromSeconds(60))).Dispose();
    }
}
