using System.IO.Hashing;

namespace Zendle.Server.Corpus;

/// <summary>
/// Passes bytes on, read or written, and takes their checksum (XxHash3, 64 bits): tells damage, not malice.
/// </summary>
/// <param name="inner">Where the bytes come from or go to; not closed with this stream.</param>
internal sealed class ChecksumStream(Stream inner) : Stream
{
    private readonly XxHash3 hash = new();

    /// <summary>The checksum of all bytes so far.</summary>
    public ulong Sum => hash.GetCurrentHashAsUInt64();

    public override bool CanRead => inner.CanRead;

    public override bool CanSeek => false;

    public override bool CanWrite => inner.CanWrite;

    public override long Length => inner.Length;

    public override long Position
    {
        get => inner.Position;
        set => throw new NotSupportedException();
    }

    public override int Read(Span<byte> buffer)
    {
        var read = inner.Read(buffer);
        hash.Append(buffer[..read]);
        return read;
    }

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override void Write(ReadOnlySpan<byte> buffer)
    {
        inner.Write(buffer);
        hash.Append(buffer);
    }

    public override void Write(byte[] buffer, int offset, int count) => Write(buffer.AsSpan(offset, count));

    public override void Flush() => inner.Flush();

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();
}
