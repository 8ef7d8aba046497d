using Zendle.Connect.Fetch;

namespace Zendle.Server.Tests;

/// <summary>A reply that is longer than it may be.</summary>
public sealed class LimitedStreamTests
{
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
}
