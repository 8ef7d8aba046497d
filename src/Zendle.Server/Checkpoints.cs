using Microsoft.Data.Sqlite;
using Zendle.Store.Sqlite;

namespace Zendle.Server;

/// <summary>
/// Holds the two files open, and empties their write-ahead logs when nobody has written for a while, and at the end, so
/// that the files hold everything by themselves.
/// </summary>
internal sealed class Checkpoints(ZendleOptions options, StartUp start, ILogger<Checkpoints> log) : BackgroundService
{
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(5);

    private static readonly string[] Files = ["zendle.db", "corpus.db"];

    /// <summary>The files that are open; a lock of itself, since a host may be stopped twice at once.</summary>
    private readonly Dictionary<string, HeldFile> held = [];

    private bool isClosed;

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        var seen = new Dictionary<string, (long, DateTime)>();
        using var timer = new PeriodicTimer(Every);
        try
        {
            await start.StoreReady.WaitAsync(stoppingToken);
            foreach (var file in Files)
                With(file, _ => { });
            while (await timer.WaitForNextTickAsync(stoppingToken))
                foreach (var file in Files)
                {
                    var wal = new FileInfo(Path.Combine(options.Data, file + "-wal"));
                    if (!wal.Exists || wal.Length == 0)
                        continue;
                    var now = (wal.Length, wal.LastWriteTimeUtc);
                    if (seen.TryGetValue(file, out var before) && before == now)
                        await Task.Run(() => With(file, WriteBack), stoppingToken);
                    seen[file] = now;
                }
        }
        catch (OperationCanceledException) { }
    }

    /// <inheritdoc/>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        await base.StopAsync(cancellationToken);
        foreach (var file in Files)
            With(file, WriteBack);
        lock (held)
        {
            foreach (var file in held.Values)
                file.Dispose();
            held.Clear();
            isClosed = true;
        }
    }

    private static void WriteBack(HeldFile file) => file.WriteBack();

    private void With(string file, Action<HeldFile> act)
    {
        try
        {
            lock (held)
            {
                if (
                    !isClosed
                    && !held.ContainsKey(file)
                    && Path.Combine(options.Data, file) is var path
                    && File.Exists(path)
                )
                    held[file] = new(path);
                if (held.TryGetValue(file, out var open))
                    act(open);
            }
        }
        catch (Exception e) when (e is SqliteException or IOException)
        {
            log.LogWarning(e, "The log of {File} could not be written back yet; nothing is lost.", file);
        }
    }
}
