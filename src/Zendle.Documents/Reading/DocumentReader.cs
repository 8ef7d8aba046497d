using System.Buffers.Binary;
using System.Collections.Concurrent;
using Zendle.Core.FullText;
using Zendle.Documents.Marked;

namespace Zendle.Documents.Reading;

/// <summary>
/// Reads documents from outside in processes of their own, so that none can end Zendle or take its memory (see
/// <see cref="ReaderProcess"/>). A process reads one document after another; one that misbehaved is ended and another
/// begun.
/// </summary>
/// <param name="program">Path of the reader's assembly.</param>
/// <param name="limits">What a document may cost.</param>
/// <param name="atOnce">How many documents are read at once; null for as many as there are cores, four at most.</param>
public sealed class DocumentReader(string program, DocumentLimits limits, int? atOnce = null) : IDisposable
{
    /// <summary>A process is begun anew after so many documents, so that none grows with use.</summary>
    private const int MostAnswered = 200;

    private static readonly TimeSpan Idle = TimeSpan.FromMinutes(1);
    private readonly SemaphoreSlim turns = new(atOnce ?? Math.Clamp(Environment.ProcessorCount, 1, 4));
    private readonly ConcurrentStack<ReaderProcess> resting = new();
    private Timer? sweeper;
    private long usedAt;
    private bool isDisposed;

    /// <summary>The reader beside the program that runs.</summary>
    public static DocumentReader Usual() =>
        new(Path.Combine(AppContext.BaseDirectory, "Zendle.Reader.dll"), DocumentLimits.Usual);

    /// <summary>Reads the facts of a document.</summary>
    /// <param name="bytes">The whole file.</param>
    /// <param name="cancel">Stops; what reads is ended.</param>
    /// <exception cref="DocumentFaultException">The file is no readable PDF, or takes too long, too much memory, or ends
    /// whoever reads it.</exception>
    public Task<DocumentFacts> Read(byte[] bytes, CancellationToken cancel) =>
        Read<DocumentFacts>(ReaderProtocol.Asked.Facts, bytes, cancel);

    /// <summary>How a document that is no PDF is shown. As <see cref="Read"/>.</summary>
    public Task<ReadableText> Readable(byte[] bytes, CancellationToken cancel) =>
        Read<ReadableText>(ReaderProtocol.Asked.Readable, bytes, cancel);

    /// <summary>Pages of a PDF as a file of their own. As <see cref="Read"/>.</summary>
    public Task<byte[]> Cut(byte[] bytes, PageRange range, CancellationToken cancel)
    {
        var asked = new byte[bytes.Length + 8];
        BinaryPrimitives.WriteInt32LittleEndian(asked, range.From);
        BinaryPrimitives.WriteInt32LittleEndian(asked.AsSpan(4), range.To);
        bytes.CopyTo(asked, 8);
        return Read<byte[]>(ReaderProtocol.Asked.Cut, asked, cancel);
    }

    private async Task<T> Read<T>(ReaderProtocol.Asked what, byte[] bytes, CancellationToken cancel)
    {
        if (bytes.Length > ReaderProtocol.MostBytes)
            throw new DocumentFaultException(
                DocumentFault.TooHeavy,
                $"The file is larger than {ReaderProtocol.MostBytes / 1_000_000} MB."
            );
        await turns.WaitAsync(cancel);
        try
        {
            ObjectDisposedException.ThrowIf(isDisposed, this);
            sweeper ??= new(_ => Sweep(), null, Idle, Idle);
            // What a process still holds of others' documents is not held against this one: it is given a fresh one
            // once.
            for (var isFirst = true; ; isFirst = false)
            {
                var reader = isFirst && resting.TryPop(out var rested) ? rested : ReaderProcess.Start(program, limits);
                var (isFresh, isSound) = (reader.Answered == 0, false);
                try
                {
                    var answer = await reader.Read<T>(what, bytes, limits, cancel);
                    isSound = true;
                    return answer;
                }
                catch (DocumentFaultException e) when (e.Fault is not (DocumentFault.TooHeavy or DocumentFault.TooSlow))
                {
                    isSound = true;
                    throw;
                }
                catch (DocumentFaultException e) when (e.Fault == DocumentFault.TooHeavy && !isFresh) { }
                catch (ReaderEndedException) when (!isFresh) { }
                catch (ReaderEndedException e)
                {
                    throw new DocumentFaultException(
                        DocumentFault.Unreadable,
                        "The file is built so that every program that reads it crashes. It was refused.",
                        e
                    );
                }
                finally
                {
                    Interlocked.Exchange(ref usedAt, Environment.TickCount64);
                    if (isSound && reader.Answered < MostAnswered && !isDisposed)
                        resting.Push(reader);
                    else
                        reader.Dispose();
                }
            }
        }
        finally
        {
            turns.Release();
        }
    }

    private void Sweep()
    {
        if (Environment.TickCount64 - Interlocked.Read(ref usedAt) < Idle.TotalMilliseconds)
            return;
        while (resting.TryPop(out var reader))
            reader.Dispose();
    }

    /// <summary>Ends the processes that rest.</summary>
    public void Dispose()
    {
        isDisposed = true;
        sweeper?.Dispose();
        while (resting.TryPop(out var reader))
            reader.Dispose();
    }
}
