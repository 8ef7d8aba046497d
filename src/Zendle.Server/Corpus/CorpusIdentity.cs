using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews.Acts;
using Zendle.Store;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Corpus;

/// <summary>The highest numbers that a corpus has given.</summary>
/// <param name="Records">Highest number of a record.</param>
/// <param name="Works">Highest number of a work.</param>
/// <param name="Sequence">Highest change sequence.</param>
public sealed record CorpusMarks(int Records, int Works, long Sequence)
{
    /// <summary>Nothing was given.</summary>
    public static CorpusMarks None { get; } = new(0, 0, 0);

    /// <summary>The higher of two, number by number.</summary>
    public CorpusMarks Or(CorpusMarks other) =>
        new(Math.Max(Records, other.Records), Math.Max(Works, other.Works), Math.Max(Sequence, other.Sequence));
}

/// <summary>Which corpus the numbers are of, and how high they have come.</summary>
public interface ICorpusMarks
{
    /// <summary>Which corpus it is.</summary>
    string Identity { get; }

    /// <summary>Sees to it that numbers up to these are never given again. Called before anyone can see them.</summary>
    Task Mark(int records, int works, long sequence, CancellationToken cancel);
}

/// <summary>The marks of a corpus that nobody speaks of: where no reviews stand beside it.</summary>
public sealed class NoMarks : ICorpusMarks
{
    /// <inheritdoc/>
    public string Identity => "";

    /// <inheritdoc/>
    public Task Mark(int records, int works, long sequence, CancellationToken cancel) => Task.CompletedTask;
}

/// <summary>
/// Knows which <c>corpus.db</c> the numbers in <c>zendle.db</c> belong to. A corpus that was lost is begun anew behind
/// all numbers that were ever given, one that belongs to another installation is set aside: no number of a work or a
/// record ever comes to mean another. See docs/decisions/0014.
/// </summary>
public sealed class CorpusIdentity(
    IDbContextFactory<ZendleContext> contexts,
    IDbContextFactory<CorpusContext> corpora,
    ZendleOptions options,
    ILogger<CorpusIdentity> log
) : ICorpusMarks
{
    private const string KnownAs = "corpus",
        MarkedAt = "corpus marks",
        LostHow = "corpus lost";

    private CorpusMarks marks = CorpusMarks.None;

    /// <summary>Which corpus it is.</summary>
    public string Identity { get; private set; } = "";

    /// <summary>Recognises the corpus, or begins one; both files have their tables.</summary>
    public async Task Recognise(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var known = await Setting(made, KnownAs, cancel);
        marks = await Setting(made, MarkedAt, cancel) is { } written
            ? JsonSerializer.Deserialize<CorpusMarks>(written)!
            : CorpusMarks.None;
        var (row, holds) = await Look(cancel);
        if (known is not null && holds && row?.Identity != known)
        {
            var aside = await SetAside(cancel);
            await Say(
                made,
                $"The file corpus.db belonged to another installation. It was set aside as {aside}, and a new one has been started.",
                cancel
            );
            (row, holds) = (null, false);
        }
        else if (
            !holds
            && (row is null || row.Identity != known)
            && (known is not null || await made.Decisions.AnyAsync(cancel))
        )
            await Say(
                made,
                "The file corpus.db was missing, and with it everything that had been harvested. A new one has been started.",
                cancel
            );
        var used = !holds && known is null ? await Used(made, cancel) : CorpusMarks.None;
        marks = marks.Or(used);
        await using (var corpus = await corpora.CreateDbContextAsync(cancel))
        {
            if (row is null || (row.Identity != known && !holds))
            {
                await corpus.Corpus.ExecuteDeleteAsync(cancel);
                // What a corpus of an older version holds is what its numbers belong to; a new one begins behind them.
                corpus.Corpus.Add(
                    row = new()
                    {
                        Id = 1,
                        Identity = Guid.NewGuid().ToString("N"),
                        RecordFloor = holds ? 0 : marks.Records,
                        WorkFloor = holds ? 0 : marks.Works,
                        SequenceFloor = holds ? 0 : marks.Sequence,
                    }
                );
                await corpus.SaveChangesAsync(cancel);
            }
            else if (
                row.RecordFloor < marks.Records
                || row.WorkFloor < marks.Works
                || row.SequenceFloor < marks.Sequence
            )
            {
                // Perhaps an older copy was put back: what was given since is not given again.
                await corpus.Corpus.ExecuteUpdateAsync(
                    u =>
                        u.SetProperty(c => c.RecordFloor, c => Math.Max(c.RecordFloor, marks.Records))
                            .SetProperty(c => c.WorkFloor, c => Math.Max(c.WorkFloor, marks.Works))
                            .SetProperty(c => c.SequenceFloor, c => Math.Max(c.SequenceFloor, marks.Sequence)),
                    cancel
                );
            }
            Identity = row.Identity;
            if (known != Identity)
                await Put(made, KnownAs, Identity, cancel);
            await Remember(made, await corpus.Databases.AsNoTracking().ToListAsync(cancel), cancel);
        }
        if (await Lost(cancel) is { } lost)
            log.LogWarning("{Lost}", lost);
    }

    private async Task<(CorpusRow? Row, bool Holds)> Look(CancellationToken cancel)
    {
        await using var corpus = await corpora.CreateDbContextAsync(cancel);
        return (
            await corpus.Corpus.AsNoTracking().SingleOrDefaultAsync(cancel),
            await corpus.Databases.AnyAsync(cancel) || await corpus.Records.AnyAsync(cancel)
        );
    }

    /// <summary>Moves a corpus that is not ours out of the way and makes the tables of a new one.</summary>
    private async Task<string> SetAside(CancellationToken cancel)
    {
        var path = Path.Combine(options.Data, "corpus.db");
        await using (var corpus = await corpora.CreateDbContextAsync(cancel))
            await corpus.Database.ExecuteSqlAsync($"PRAGMA wal_checkpoint(TRUNCATE)", cancel);
        SqliteConnection.ClearAllPools();
        var n = 1;
        while (File.Exists(Path.Combine(options.Data, $"corpus-set-aside-{n}.db")))
            n++;
        var name = $"corpus-set-aside-{n}.db";
        File.Move(path, Path.Combine(options.Data, name));
        foreach (var rest in new[] { "-wal", "-shm" })
            File.Delete(path + rest);
        await using var anew = await corpora.CreateDbContextAsync(cancel);
        await Schema.BringUpToDate(anew, cancel);
        return name;
    }

    /// <summary>The highest numbers that anything in <c>zendle.db</c> speaks of.</summary>
    private static async Task<CorpusMarks> Used(ZendleContext made, CancellationToken cancel)
    {
        var works = await made.Decisions.Select(d => (int?)d.WorkId).MaxAsync(cancel) ?? 0;
        works = Math.Max(works, await made.Sought.Select(d => (int?)d.WorkId).MaxAsync(cancel) ?? 0);
        works = Math.Max(works, await made.Looked.Select(d => (int?)d.WorkId).MaxAsync(cancel) ?? 0);
        works = Math.Max(works, await made.Texts.Select(d => (int?)d.WorkId).MaxAsync(cancel) ?? 0);
        works = Math.Max(works, await made.Resolutions.Select(d => (int?)d.WorkId).MaxAsync(cancel) ?? 0);
        await foreach (
            var act in made.Steps.AsNoTracking().Select(s => s.Act).AsAsyncEnumerable().WithCancellation(cancel)
        )
            works = StoredActs.WorksIn(act).Append(works).Max();
        await foreach (
            var run in made.Runs.AsNoTracking().Select(r => r.Works).AsAsyncEnumerable().WithCancellation(cancel)
        )
            if (WorkIds.Unpack(run) is { Length: > 0 } ids)
                works = Math.Max(works, ids[^1]);
        var records = await made.Decisions.Select(d => (int?)d.RecordId).MaxAsync(cancel) ?? 0;
        var sequence = Math.Max(
            await made.Steps.Select(s => (long?)s.Generation).MaxAsync(cancel) ?? 0,
            await made.Runs.Select(s => (long?)s.Generation).MaxAsync(cancel) ?? 0
        );
        // Records that no decision names have numbers too; there are about as many as works, or more.
        return works == 0 && records == 0
            ? CorpusMarks.None
            : new CorpusMarks(Math.Max(records, 2 * works), works, sequence);
    }

    /// <summary>
    /// Sees to it that <c>zendle.db</c> knows the numbers that can be spoken of from now on. Called before anyone can
    /// see them.
    /// </summary>
    public async Task Mark(int records, int works, long sequence, CancellationToken cancel)
    {
        if (records <= marks.Records && works <= marks.Works && sequence <= marks.Sequence)
            return;
        var next = marks.Or(new(records, works, sequence));
        await using var made = await contexts.CreateDbContextAsync(cancel);
        await Put(made, MarkedAt, JsonSerializer.Serialize(next), cancel);
        marks = next;
    }

    /// <summary>The number a database has, or had: the same whenever it is added again.</summary>
    /// <exception cref="InvalidOperationException">No number is left.</exception>
    public async Task<int> NumberFor(string address, string? set, string name, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        await using var corpus = await corpora.CreateDbContextAsync(cancel);
        var known = await made.KnownDatabases.SingleOrDefaultAsync(
            d => d.Address == address && d.SetName == (set ?? ""),
            cancel
        );
        if (known is not null && !await corpus.Databases.AnyAsync(d => d.Id == known.Id, cancel))
        {
            known.Name = name;
            await made.SaveChangesAsync(cancel);
            return known.Id;
        }
        var next =
            1
            + Math.Max(
                await made.KnownDatabases.Select(d => (int?)d.Id).MaxAsync(cancel) ?? 0,
                await corpus.Databases.Select(d => (int?)d.Id).MaxAsync(cancel) ?? 0
            );
        if (next > byte.MaxValue)
            throw new InvalidOperationException("This installation has had 255 databases, the most it can ever have.");
        made.KnownDatabases.Add(
            new()
            {
                Id = next,
                Address = address,
                SetName = set ?? "",
                Name = name,
            }
        );
        await made.SaveChangesAsync(cancel);
        return next;
    }

    /// <summary>What had a number was taken away on purpose: nobody is asked to bring it back. The number stays its.</summary>
    public async Task Forget(int id, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        if (await made.KnownDatabases.SingleOrDefaultAsync(d => d.Id == id, cancel) is not { } known)
            return;
        known.Name = "";
        await made.SaveChangesAsync(cancel);
    }

    private static async Task Remember(ZendleContext made, List<DatabaseRow> databases, CancellationToken cancel)
    {
        var known = await made.KnownDatabases.Select(d => d.Id).ToListAsync(cancel);
        foreach (var d in databases.Where(d => !known.Contains(d.Id)))
            made.KnownDatabases.Add(
                new()
                {
                    Id = d.Id,
                    Address = d.Address,
                    SetName = d.SetName ?? "",
                    Name = d.Name,
                }
            );
        await made.SaveChangesAsync(cancel);
    }

    /// <summary>
    /// What is to be said of a corpus that was lost, until a curator has seen it: how, and which databases are to be
    /// harvested again. Null for nothing.
    /// </summary>
    public async Task<string?> Lost(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        if (await Setting(made, LostHow, cancel) is not { Length: > 0 } how)
            return null;
        await using var corpus = await corpora.CreateDbContextAsync(cancel);
        var here = await corpus
            .Databases.Select(d => d.Id)
            .Concat(corpus.TieSources.Select(s => s.Id))
            .ToListAsync(cancel);
        var known = (await made.KnownDatabases.AsNoTracking().OrderBy(d => d.Id).ToListAsync(cancel))
            .Where(d => !here.Contains(d.Id) && d.Name.Length > 0)
            .ToArray();
        string[] tables =
        [
            .. known
                .Where(d => d.Address.StartsWith(TieSourceRow.OfTables, StringComparison.Ordinal))
                .Select(d => d.Name),
        ];
        var away = known.Where(d => !d.Address.StartsWith(DatabaseRow.Own, StringComparison.Ordinal)).ToArray();
        var named = away.Select(d => $"{d.Name}, {d.Address}" + (d.SetName.Length > 0 ? $" (set {d.SetName})" : ""));
        return how
            + (away.Length == 0 ? "" : $" Please add these databases again: {string.Join("; ", named)}.")
            + (tables.Length == 0 ? "" : $" Please add these tables of citations again: {string.Join("; ", tables)}.")
            + " Your decisions are safe: each kept work comes back as soon as a database brings its record. Until "
            + "then it is listed as not found.";
    }

    /// <summary>A curator has read what was lost.</summary>
    public async Task Seen(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        await Put(made, LostHow, "", cancel);
    }

    private static Task Say(ZendleContext made, string how, CancellationToken cancel) =>
        Put(made, LostHow, how, cancel);

    private static Task<string?> Setting(ZendleContext made, string name, CancellationToken cancel) =>
        made.Settings.Where(s => s.Name == name).Select(s => (string?)s.Value).SingleOrDefaultAsync(cancel);

    private static async Task Put(ZendleContext made, string name, string value, CancellationToken cancel)
    {
        var row = await made.Settings.SingleOrDefaultAsync(s => s.Name == name, cancel);
        if (row is null)
            made.Settings.Add(new() { Name = name, Value = value });
        else
            row.Value = value;
        await made.SaveChangesAsync(cancel);
    }
}
