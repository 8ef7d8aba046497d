using System.Buffers;
using System.IO.Pipelines;
using Zendle.Connect.Fetch;

namespace Zendle.Connect.Harvest;

/// <summary>
/// A reply as it came, in memory that is used again. It can be read more than once; what reads it waits for nobody.
/// </summary>
public sealed class TakenReply : IDisposable
{
    private const int Segment = 65_536;
    private readonly PipeReader held;

    private TakenReply(PipeReader held, ReadOnlySequence<byte> bytes) => (this.held, Bytes) = (held, bytes);

    /// <summary>What came.</summary>
    public ReadOnlySequence<byte> Bytes { get; }

    /// <summary>Takes a reply in, up to a limit.</summary>
    /// <param name="reply">The reply; it is read to its end and closed.</param>
    /// <param name="limit">Longest length in bytes.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="ReplyTooLongException">It is longer.</exception>
    public static async Task<TakenReply> Of(Stream reply, long limit, CancellationToken cancel)
    {
        var pipe = new Pipe(
            new(
                minimumSegmentSize: Segment,
                pauseWriterThreshold: 0,
                resumeWriterThreshold: 0,
                useSynchronizationContext: false
            )
        );
        try
        {
            await using var limited = new LimitedStream(reply, limit);
            await limited.CopyToAsync(pipe.Writer, cancel);
            await pipe.Writer.CompleteAsync();
            // The writer has completed, so one read gives everything.
            return new(pipe.Reader, (await pipe.Reader.ReadAsync(cancel)).Buffer);
        }
        catch (Exception e)
        {
            await pipe.Writer.CompleteAsync(e);
            await pipe.Reader.CompleteAsync();
            throw;
        }
    }

    /// <summary>
    /// Reads it from its start. What stands before the first sign, a byte order mark aside, is left out: some services
    /// begin with an empty line.
    /// </summary>
    public Stream Open() => new ReplyStream(Bytes);

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => held.Complete();
}
