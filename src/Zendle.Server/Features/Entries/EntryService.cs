using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Entries;
using Zendle.Server.Corpus;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Entries;

/// <summary>
/// Custom entries: works that no database has, as people typed them. They are kept in <c>zendle.db</c>, and are records of
/// a database of their own in <c>corpus.db</c>: searched, counted, merged and followed like all others. See
/// docs/decisions/0028.
/// </summary>
internal sealed class EntryService(
    IDbContextFactory<ZendleContext> contexts,
    IDbContextFactory<CorpusContext> corpora,
    CorpusIdentity identities,
    CorpusReader reader,
    CorpusWriter writer,
    CorpusChange change,
    MadeOn madeOn,
    TimeProvider clock
)
{
    /// <summary>Most entries that are added in one act.</summary>
    public const int MostAtOnce = 3_000;

    /// <summary>Most entries of an installation.</summary>
    public const int Most = 100_000;

    /// <summary>So many entries are listed.</summary>
    public const int MostListed = 50;

    private const string Name = "Custom entries";

    /// <summary>Behind all databases: what one of them says is rather believed.</summary>
    private const int LeastTrusted = 100;

    private const int PageSize = 500;
    private static readonly SemaphoreSlim OneAtATime = new(1, 1);

    /// <summary>Adds entries; null when the installation can hold no more. Their fields can be read.</summary>
    public async Task<EntryWorksDto?> Add(string account, IReadOnlyList<EntryFields> fields, CancellationToken cancel)
    {
        await OneAtATime.WaitAsync(cancel);
        try
        {
            await using var made = await contexts.CreateDbContextAsync(cancel);
            if (await made.Entries.CountAsync(cancel) + fields.Count > Most)
                return null;
            var now = clock.GetUtcNow();
            EntryRow[] rows =
            [
                .. fields.Select(f => new EntryRow
                {
                    Fields = Written(f),
                    AccountId = account,
                    At = now,
                    ChangedAt = now,
                }),
            ];
            made.Entries.AddRange(rows);
            await made.SaveChangesAsync(cancel);
            // What is noted stays: whoever leaves now finds it all the same.
            return await Show(rows, CancellationToken.None);
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>Puts other fields into an entry, or removes it, or brings it back.</summary>
    /// <param name="id">The entry.</param>
    /// <param name="put">Changes the row.</param>
    /// <param name="cancel">Stops before it is changed.</param>
    /// <returns>Null when there is no such entry.</returns>
    public async Task<EntryWorksDto?> Change(int id, Action<EntryRow> put, CancellationToken cancel)
    {
        await OneAtATime.WaitAsync(cancel);
        try
        {
            await using var made = await contexts.CreateDbContextAsync(cancel);
            if (await made.Entries.SingleOrDefaultAsync(e => e.Id == id, cancel) is not { } row)
                return null;
            put(row);
            row.ChangedAt = clock.GetUtcNow();
            await made.SaveChangesAsync(cancel);
            return await Show([row], CancellationToken.None);
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>
    /// At the start: makes the records of entries that <c>corpus.db</c> lacks, because it was made anew or the last process
    /// was interrupted.
    /// </summary>
    public async Task BringBack(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        if (await made.Entries.MaxAsync(e => (DateTimeOffset?)e.ChangedAt, cancel) is not { } last)
            return;
        await using (var corpus = await corpora.CreateDbContextAsync(cancel))
            if (
                await corpus
                    .Databases.Where(d => d.Address == DatabaseRow.OfEntries)
                    .Select(d => d.HarvestedAt)
                    .SingleOrDefaultAsync(cancel)
                    is { } written
                // Moments are written down to the millisecond.
                && written.AddMilliseconds(1) >= last
            )
                return;
        await Show(await made.Entries.AsNoTracking().OrderBy(e => e.Id).ToListAsync(cancel), cancel);
    }

    /// <summary>An entry; null when there is none of this number.</summary>
    public async Task<EntryRow?> Find(int id, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        return await made.Entries.AsNoTracking().SingleOrDefaultAsync(e => e.Id == id, cancel);
    }

    /// <summary>The newest entries that were not removed, at most <see cref="MostListed"/>, the newest first.</summary>
    public async Task<IReadOnlyList<EntryNameDto>> Newest(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var rows = await made
            .Entries.AsNoTracking()
            .Where(e => !e.IsRemoved)
            .OrderByDescending(e => e.Id)
            .Take(MostListed)
            .ToListAsync(cancel);
        if (rows.Count == 0)
            return [];
        var database = await Database(cancel);
        var works = await reader.WorksOf([.. rows.Select(r => (database, CustomEntry.IdentifierOf(r.Id)))], cancel);
        return
        [
            .. rows.Select(r => (Row: r, Fields: Fields(r)))
                .Select(r => new EntryNameDto(
                    r.Row.Id,
                    works.GetValueOrDefault((database, CustomEntry.IdentifierOf(r.Row.Id))),
                    r.Fields.Title,
                    r.Fields.Type
                ))
                .Where(e => e.WorkId > 0),
        ];
    }

    /// <summary>How an entry's fields are written down.</summary>
    public static string Written(EntryFields fields) => JsonSerializer.Serialize(fields, StoredJson.Options);

    /// <summary>An entry's fields as they were written down.</summary>
    public static EntryFields Fields(EntryRow row) =>
        JsonSerializer.Deserialize<EntryFields>(row.Fields, StoredJson.Options)!;

    private async Task<EntryWorksDto> Show(IReadOnlyCollection<EntryRow> rows, CancellationToken cancel)
    {
        var database = await Database(cancel);
        var names = rows.Select(r => (database, CustomEntry.IdentifierOf(r.Id))).ToArray();
        // One that is removed keeps the number of its work, so that bringing it back brings back that work.
        var spokenOf = rows.Any(r => r.IsRemoved)
            ? (await madeOn.SpokenOf(cancel)).Union((await reader.WorksOf(names, cancel)).Values).ToHashSet()
            : null;
        foreach (var page in rows.Chunk(PageSize))
        {
            PreparedRecord[] records = [.. page.AsParallel().AsOrdered().Select(r => Prepared(database, r))];
            var now = clock.GetUtcNow();
            await change.Take(() => writer.Write(database, records, new(null, now), now, cancel, spokenOf), cancel);
        }
        await change.Show(isLast: true, cancel);
        var works = await reader.WorksOf(names, cancel);
        var joined = 0;
        foreach (var chunk in works.Values.Distinct().Chunk(PageSize))
            joined += (await reader.OfWorks(chunk, cancel)).Count(w => w.Any(r => r.DatabaseId != database));
        return new([.. names.Select(n => works.GetValueOrDefault(n))], joined);
    }

    private static PreparedRecord Prepared(int database, EntryRow row) =>
        PreparedRecord.Of(
            database,
            new(
                CustomEntry.IdentifierOf(row.Id),
                row.ChangedAt,
                row.IsRemoved ? null : CustomEntry.Read(row.Id, Fields(row), row.ChangedAt),
                RecordCodec.Source(row.Fields)
            )
        );

    /// <summary>The number of the database of entries, which the first of them makes.</summary>
    private async Task<int> Database(CancellationToken cancel)
    {
        await using var corpus = await corpora.CreateDbContextAsync(cancel);
        if (await corpus.Databases.SingleOrDefaultAsync(d => d.Address == DatabaseRow.OfEntries, cancel) is { } there)
            return there.Id;
        var row = new DatabaseRow
        {
            Id = await identities.NumberFor(DatabaseRow.OfEntries, null, Name, cancel),
            Name = Name,
            Description = "Works that no database has, added by the people of this Zendle.",
            Address = DatabaseRow.OfEntries,
            Format = "",
            Granularity = "",
            DeletedRecord = "persistent",
            Trust = LeastTrusted,
        };
        corpus.Databases.Add(row);
        await corpus.SaveChangesAsync(cancel);
        return row.Id;
    }
}
