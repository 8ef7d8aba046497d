using System.Buffers;

namespace Zendle.Connect.Harvest;

/// <summary>
/// Reads what was taken in. A tag of unheard-of length ends it: an XML reader looks again and again at all that it has
/// of a tag until the tag is whole, so a tag of megabytes costs far more than its length.
/// </summary>
internal sealed class ReplyStream : Stream
{
    /// <summary>
    /// Longest tag in bytes; the longest in real records are namespace declarations of one or two thousand.
    /// </summary>
    public const int LongestTag = 100_000;

    private ReadOnlySequence<byte> left;
    private long openSince = -1,
        read;

    public ReplyStream(ReadOnlySequence<byte> bytes) => left = WithoutSpace(bytes);

    public override bool CanRead => true;
    public override bool CanSeek => false;
    public override bool CanWrite => false;
    public override long Length => throw new NotSupportedException();
    public override long Position
    {
        get => read;
        set => throw new NotSupportedException();
    }

    private static ReadOnlySequence<byte> WithoutSpace(ReadOnlySequence<byte> bytes)
    {
        var reader = new SequenceReader<byte>(bytes);
        var hadMark = reader.IsNext([0xEF, 0xBB, 0xBF], advancePast: true);
        var skipped = reader.AdvancePastAny((byte)' ', (byte)'\t', (byte)'\r', (byte)'\n');
        return skipped > 0 || !hadMark ? reader.UnreadSequence : bytes;
    }

    public override int Read(Span<byte> buffer)
    {
        var n = (int)Math.Min(buffer.Length, left.Length);
        if (n == 0)
            return 0;
        left.Slice(0, n).CopyTo(buffer);
        left = left.Slice(n);
        Watch(buffer[..n]);
        read += n;
        return n;
    }

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    private void Watch(ReadOnlySpan<byte> bytes)
    {
        var (opens, closes) = (bytes.LastIndexOf((byte)'<'), bytes.LastIndexOf((byte)'>'));
        // "<!" begins a remark or CDATA, which may be long.
        if (opens > closes)
            openSince = opens + 1 < bytes.Length && bytes[opens + 1] == (byte)'!' ? -1 : read + opens;
        else if (closes >= 0)
            openSince = -1;
        if (openSince >= 0 && read + bytes.Length - openSince > LongestTag)
            throw new OverlongTagException();
    }

    public override void Flush() { }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}

/// <summary>A tag is longer than any description of a work needs.</summary>
internal sealed class OverlongTagException()
    : IOException(
        $"It sends a tag of more than {ReplyStream.LongestTag:N0} characters, which no description of a work has."
    );
