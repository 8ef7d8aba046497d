namespace Zendle.Connect.Fetch;

/// <summary>Thrown when a reply is longer than allowed, after decompression.</summary>
public sealed class ReplyTooLongException(long limit)
    : IOException(
        $"The reply is longer than {(limit < 1_000_000 ? $"{limit / 1_000} kB" : $"{limit / 1_000_000} MB")}."
    );

/// <summary>Reads through to another stream and stops with <see cref="ReplyTooLongException"/> past a limit.</summary>
internal sealed class LimitedStream(Stream inner, long limit) : Stream
{
    private long read;

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => throw new NotSupportedException();
    public override long Position
    {
        get => read;
        set => throw new NotSupportedException();
    }

    public override int Read(byte[] buffer, int offset, int count) => Count(inner.Read(buffer, offset, count));

    public override async ValueTask<int> ReadAsync(
        Memory<byte> buffer,
        CancellationToken cancellationToken = default
    ) => Count(await inner.ReadAsync(buffer, cancellationToken));

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        ReadAsync(buffer.AsMemory(offset, count), cancellationToken).AsTask();

    private int Count(int n) => (read += n) > limit ? throw new ReplyTooLongException(limit) : n;

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

    protected override void Dispose(bool disposing)
    {
        if (disposing)
            inner.Dispose();
        base.Dispose(disposing);
    }
}
