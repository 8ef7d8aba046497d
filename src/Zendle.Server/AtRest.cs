using Microsoft.Data.Sqlite;
using Zendle.Documents.Citing;
using Zendle.Server.Corpus;
using Zendle.Server.Jobs;
using Zendle.Store.Corpus;

namespace Zendle.Server;

/// <summary>
/// Gives memory back when nobody asks and no job runs: what only the next change or citation needs is let go, and what
/// was freed goes back to the system. Once after each busy time; a rest costs those who come next nothing but a first
/// reading.
/// </summary>
internal sealed class AtRest(
    Busy busy,
    JobRunner jobs,
    CorpusService corpus,
    CorpusWriter writer,
    ReferenceFormatter formatter
) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(2),
        Quiet = TimeSpan.FromSeconds(6);

    /// <summary>A heap of more bytes is not tidied while everything stands still, for that would take too long.</summary>
    private const long MostTidied = 600L << 20;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(Every);
        var rested = 0L;
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                if (!jobs.IsIdle)
                    busy.Touch();
                var (last, since) = busy.Last;
                if (last == rested || since < Quiet || !corpus.IsReady || corpus.IsBehind)
                    continue;
                rested = last;
                Rest();
            }
        }
        catch (OperationCanceledException) { }
    }

    private void Rest()
    {
        corpus.LetGo();
        writer.LetGo();
        formatter.LetGo();
        SqliteConnection.ClearAllPools(); // with the pages that idle connections hold
        if (GC.GetTotalMemory(false) < MostTidied)
            GC.Collect(2, GCCollectionMode.Aggressive, blocking: true, compacting: true);
        else
            GC.Collect(2, GCCollectionMode.Forced, blocking: false);
        NativeMemory.Trim();
    }
}
