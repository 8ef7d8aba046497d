using System.Text;
using Zendle.Server.Corpus;

namespace Zendle.Server.Tests;

/// <summary>Bytes pass as they are, and their checksum is that of XXH3 with 64 bits.</summary>
public sealed class ChecksumStreamTests
{
    [Theory]
    [InlineData("", 0x2D06800538D394C2UL)] // the value that the reference implementation gives for nothing
    public void The_checksum_is_the_published_one(string text, ulong expected)
    {
        using var to = new MemoryStream();
        var summed = new ChecksumStream(to);
        summed.Write(Encoding.UTF8.GetBytes(text));
        Assert.Equal(expected, summed.Sum);
    }

    [Fact]
    public void What_is_written_in_pieces_and_read_in_others_has_one_checksum()
    {
        var bytes = new byte[10_000];
        new Random(3).NextBytes(bytes);
        using var memory = new MemoryStream();
        var writing = new ChecksumStream(memory);
        for (var at = 0; at < bytes.Length; at += 137)
            writing.Write(bytes.AsSpan(at, Math.Min(137, bytes.Length - at)));
        Assert.Equal(bytes, memory.ToArray());
        memory.Position = 0;
        var reading = new ChecksumStream(memory);
        using var from = new BinaryReader(reading);
        Assert.Equal(bytes[..4_321], from.ReadBytes(4_321));
        Assert.NotEqual(writing.Sum, reading.Sum);
        Assert.Equal((4_321, 10_000), (reading.Position, reading.Length));
        Assert.Equal(bytes[4_321..], from.ReadBytes(9_999));
        Assert.Equal(writing.Sum, reading.Sum);
    }

    [Fact]
    public void It_goes_in_one_direction_only()
    {
        var summed = new ChecksumStream(new MemoryStream());
        Assert.False(summed.CanSeek);
        Assert.Throws<NotSupportedException>(() => summed.Seek(0, SeekOrigin.Begin));
        Assert.Throws<NotSupportedException>(() => summed.Position = 1);
        Assert.Throws<NotSupportedException>(() => summed.SetLength(1));
    }
}
