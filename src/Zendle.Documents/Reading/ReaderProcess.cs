using System.Diagnostics;
using System.Globalization;

namespace Zendle.Documents.Reading;

/// <summary>One process that reads documents, with limits on its memory, its time and what it may answer.</summary>
/// <remarks>
/// A document from outside may be made to overflow the stack or to eat all memory of whoever reads it; neither can be
/// caught inside a process. So it is read in one of its own. Managed memory is bounded by the runtime (a hard limit of
/// the heap); the whole of it is looked at from here.
/// </remarks>
internal sealed class ReaderProcess : IDisposable
{
    private static readonly TimeSpan LookEvery = TimeSpan.FromMilliseconds(100);

    private readonly Process process;

    private ReaderProcess(Process process) => this.process = process;

    /// <summary>How many documents it has answered.</summary>
    public int Answered { get; private set; }

    /// <summary>Starts one.</summary>
    /// <param name="program">Path of the reader's assembly.</param>
    /// <param name="limits">What a document may cost.</param>
    public static ReaderProcess Start(string program, DocumentLimits limits)
    {
        string Number(double n) => n.ToString("0", CultureInfo.InvariantCulture);
        var start = new ProcessStartInfo(
            Path.GetFileName(Environment.ProcessPath) == "dotnet" ? Environment.ProcessPath! : "dotnet",
            [program, Number(limits.Pages), Number(limits.Time.TotalMilliseconds)]
        )
        {
            RedirectStandardInput = true,
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            WorkingDirectory = Path.GetTempPath(),
        };
        // Nothing of what Zendle knows is handed on.
        foreach (
            var name in start
                .Environment.Keys.Where(k => k is not ("PATH" or "HOME" or "DOTNET_ROOT" or "TMPDIR" or "LANG"))
                .ToArray()
        )
            start.Environment.Remove(name);
        start.Environment["DOTNET_GCHeapHardLimit"] = limits.Heap.ToString("X", CultureInfo.InvariantCulture);
        start.Environment["DOTNET_EnableDiagnostics"] = "0"; // no dump, no debugger, no socket
        start.Environment["DOTNET_TieredPGO"] = "0";
        var process = Process.Start(start)!;
        // What it says when it dies (a stack of thousands of lines) is let go unread, or it would wait for a reader.
        process.ErrorDataReceived += (_, _) => { };
        process.BeginErrorReadLine();
        // If the machine runs short of memory, this one goes first.
        try
        {
            File.WriteAllText($"/proc/{process.Id}/oom_score_adj", "1000");
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException) { }
        return new(process);
    }

    /// <summary>
    /// Reads a document. Whatever is thrown but a <see cref="DocumentFaultException"/> that the reader itself said: the
    /// process is of no use any more.
    /// </summary>
    /// <typeparam name="T">What is asked for.</typeparam>
    /// <param name="what">The same, for the process.</param>
    /// <param name="bytes">The document.</param>
    /// <param name="limits">What it may cost.</param>
    /// <param name="cancel">Stops; the process is ended.</param>
    /// <exception cref="DocumentFaultException">The file is no readable document, or reading it took too long or too
    /// much.</exception>
    /// <exception cref="ReaderEndedException">The process ended while it read.</exception>
    public async Task<T> Read<T>(
        ReaderProtocol.Asked what,
        byte[] bytes,
        DocumentLimits limits,
        CancellationToken cancel
    )
    {
        using var over = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        // A little longer than the reader allows itself, which looks at the clock between pages only.
        over.CancelAfter(limits.Time + limits.Grace);
        var isHeavy = false;
        var watching = Watch();
        try
        {
            await ReaderProtocol.Ask(process.StandardInput.BaseStream, what, bytes, over.Token);
            var answer = await ReaderProtocol.Answered<T>(process.StandardOutput.BaseStream, over.Token);
            Answered++;
            return answer;
        }
        catch (DocumentFaultException)
        {
            Answered++;
            throw;
        }
        catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
        {
            if (isHeavy)
                throw new DocumentFaultException(DocumentFault.TooHeavy, ReaderProtocol.TooHeavy);
            throw new DocumentFaultException(
                DocumentFault.TooSlow,
                $"Reading the file took longer than {limits.Time.TotalSeconds:0} seconds."
            );
        }
        catch (Exception e) when (e is IOException)
        {
            throw new ReaderEndedException(e);
        }
        finally
        {
            await over.CancelAsync();
            await watching;
        }

        async Task Watch()
        {
            try
            {
                for (; ; await Task.Delay(LookEvery, over.Token))
                {
                    process.Refresh();
                    if (process.HasExited || process.WorkingSet64 <= limits.Memory)
                        continue;
                    isHeavy = true;
                    await over.CancelAsync();
                }
            }
            catch (Exception e) when (e is OperationCanceledException or InvalidOperationException) { }
        }
    }

    /// <summary>Ends the process.</summary>
    public void Dispose()
    {
        try
        {
            process.Kill(entireProcessTree: true);
        }
        catch (InvalidOperationException) { } // it has ended already
        process.Dispose();
    }
}

/// <summary>
/// The process that read a document ended before it had answered: the document is built so that it cannot be read.
/// </summary>
internal sealed class ReaderEndedException(Exception inner) : Exception("The reader ended.", inner);
