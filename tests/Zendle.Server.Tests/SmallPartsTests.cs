using CsCheck;
using Zendle.Connect.Fetch;
using Zendle.Core.Records;
using Zendle.Server.Events;
using Zendle.Server.Features.Gather;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;
using Zendle.Store.Made;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>Parts of the server that can be tried without it.</summary>
public sealed class SmallPartsTests
{
    [Fact]
    public void Ids_of_a_run_are_packed_and_unpacked() =>
        Gen.Int[1, 5_000_000]
            .Array[0, 300]
            .Select(ids => ids.Distinct().Order().ToArray())
            .Sample(
                ids =>
                {
                    var packed = WorkIds.Pack(ids);
                    Assert.Equal(ids, WorkIds.Unpack(packed));
                    Assert.True(packed.Length <= ids.Length * 4 + 8);
                },
                iter: 500
            );

    [Fact]
    public void Neighbouring_ids_take_a_byte_each() =>
        Assert.Equal(10_000 + 2, WorkIds.Pack([.. Enumerable.Range(1, 10_000)]).Length);

    private static readonly Gen<Reference> References = Gen.Select(
        Gen.String,
        Gen.Bool,
        Gen.Int[1500, 2030],
        (text, has, year) =>
            new Reference(text.Replace('\uD800', ' '), has ? "10.5555/x" : null, has ? text : null, null, year)
    );

    [Fact]
    public void A_record_comes_out_of_the_store_as_it_went_in() =>
        Gen.Select(Gen.String[0, 40], Gen.String[0, 200], Gen.Int[0, 14], Gen.Int[0, 7], References.Array[0, 6])
            .Sample(
                (title, text, type, version, references) =>
                {
                    var record = new Record
                    {
                        Identifier = "oai:x:1",
                        Title = Sound(title),
                        Abstract = Sound(text),
                        Type = (DocumentType)type,
                        Version = version == 7 ? null : (WorkVersion)version,
                        Year = 1999,
                        Language = "eng",
                        People = [new("Berg", "Mei", "0000-0002-1825-0097", "Institute")],
                        Venue = new("Verge", "0317-8471", "4", "2", "10", "20"),
                        Copies = [new("http://h.example/1", CopyAccess.Free, WorkVersion.Proof)],
                        Keywords = ["a", "b"],
                        Versions = [new("10.5555/y")],
                        References = references,
                        Notes = ["a note"],
                        CitedCount = 3,
                    };
                    var back = RecordCodec.Facts(RecordCodec.Facts(record));
                    Assert.Equal(
                        (
                            record.Title,
                            record.Abstract,
                            record.Type,
                            record.Version,
                            record.Year,
                            record.CitedCount,
                            record.Venue
                        ),
                        (back.Title, back.Abstract, back.Type, back.Version, back.Year, back.CitedCount, back.Venue)
                    );
                    Assert.Equal(record.People, back.People);
                    Assert.Equal(record.Copies, back.Copies);
                    Assert.Empty(back.References); // kept apart
                    Assert.Equal(references.Length, RecordCodec.References(RecordCodec.References(references)).Count);
                    Assert.Equal(references.Length, RecordCodec.Keys(RecordCodec.Keys(references)).Length);
                    Assert.Equal(record.Title, RecordCodec.Source(RecordCodec.Source(record.Title)));

                    // Half a surrogate pair is no text and cannot be stored as UTF-8.
                    static string Sound(string s) =>
                        System.Text.Encoding.UTF8.GetString(System.Text.Encoding.UTF8.GetBytes(s));
                },
                iter: 300
            );

    [Fact]
    public async Task A_stream_stops_at_its_limit_and_not_a_byte_before()
    {
        using var exact = new LimitedStream(new MemoryStream(new byte[1_000]), 1_000);
        using var to = new MemoryStream();
        await exact.CopyToAsync(to);
        Assert.Equal(1_000, to.Length);
        using var over = new LimitedStream(new MemoryStream(new byte[1_001]), 1_000);
        await Assert.ThrowsAsync<ReplyTooLongException>(() => over.CopyToAsync(Stream.Null));
        using var slow = new LimitedStream(new MemoryStream(new byte[1_001]), 1_000);
        Assert.Throws<ReplyTooLongException>(() =>
        {
            var buffer = new byte[10];
            while (slow.Read(buffer, 0, 10) > 0) { }
        });
    }

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
            await gate.Enter(Host, _ => { }, default),
            await gate.Enter(new("http://h.example/b?x=1"), _ => { }, default)
        );
        var third = gate.Enter(Host, _ => { }, default);
        Assert.False(third.IsCompleted);
        (await gate.Enter(Other, _ => { }, default)).Dispose();
        first.Dispose();
        first.Dispose(); // twice is once
        await third.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.False(gate.Enter(Host, _ => { }, default).IsCompleted);
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
        var entering = gate.Enter(Host, left => said.Add(left.TotalSeconds), default);
        clock.Move(TimeSpan.FromSeconds(5));
        await Task.Delay(30);
        Assert.False(entering.IsCompleted);
        clock.Move(TimeSpan.FromSeconds(3));
        await entering.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.Equal(8, said[0]);
        Assert.True(gate.Enter(Other, _ => { }, default).IsCompleted);
    }

    [Fact]
    public async Task Who_gives_up_waiting_takes_no_turn_with_them()
    {
        var gate = new HostGate(1, new HandClock());
        gate.Hold(Host, TimeSpan.FromSeconds(8));
        using var stop = new CancellationTokenSource();
        var entering = gate.Enter(Host, _ => { }, stop.Token);
        await stop.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => entering);
        Assert.False(gate.Enter(Host, _ => { }, default).IsCompleted); // still held, but the turn is free: no deadlock for the next
        var clock = new HandClock();
        var free = new HostGate(1, clock);
        free.Hold(Host, TimeSpan.FromSeconds(1));
        using var again = new CancellationTokenSource();
        var given = free.Enter(Host, _ => { }, again.Token);
        await again.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => given);
        clock.Move(TimeSpan.FromSeconds(2));
        (await free.Enter(Host, _ => { }, default).WaitAsync(TimeSpan.FromSeconds(60))).Dispose();
    }

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
