using Microsoft.Data.Sqlite;
using Zendle.Store.Sqlite;

namespace Zendle.Server;

/// <summary>
/// Empties the write-ahead logs when nobody has written for a while, and at the end, so that the two files hold
/// everything by themselves.
/// </summary>
internal sealed class Checkpoints(ZendleOptions options, StartUp start, ILogger<Checkpoints> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    private static readonly string[] Files = ["zendle.db", "corpus.db"];

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var seen = new Dictionary<string, (long, DateTime)>();
        using var timer = new PeriodicTimer(Every);
        try
        {
            while (await timer.WaitForNextTickAsync(stoppingToken))
            {
                if (!start.IsStoreReady)
                    continue;
                foreach (var file in Files)
                {
                    var wal = new FileInfo(Path.Combine(options.Data, file + "-wal"));
                    if (!wal.Exists || wal.Length == 0)
                        continue;
                    var now = (wal.Length, wal.LastWriteTimeUtc);
                    if (seen.TryGetValue(file, out var before) && before == now)
                        await Task.Run(() => Write(file), stoppingToken);
                    seen[file] = now;
                }
            }
        }
        catch (OperationCanceledException) { }
    }

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        foreach (var file in Files)
            Write(file);
    }

    private void Write(string file)
    {
        try
        {
            Checkpoint.Of(Path.Combine(options.Data, file));
        }
        catch (Exception e) when (e is SqliteException or IOException)
        {
            log.LogWarning(e, "The log of {File} could not be written back yet; nothing is lost.", file);
        }
    }
}
