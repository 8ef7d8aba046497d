using System.Linq.Expressions;
using System.Runtime.CompilerServices;
using System.Text.Json;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Store.Corpus;

/// <summary>
/// One record with what stands beside it in the store, for building columns; read apart where it is needed, on
/// whichever core.
/// </summary>
/// <param name="Id">Record id.</param>
/// <param name="WorkId">Work id.</param>
/// <param name="DatabaseId">Database id.</param>
/// <param name="IsWithdrawn">Whether it is in no database any more and stays only because people decided on its
/// work.</param>
/// <param name="Sequence">Change sequence of its last change.</param>
/// <param name="TitleKey">Key of title and first person.</param>
/// <param name="Facts">The record without references: see <see cref="Record"/>.</param>
/// <param name="MergeFacts">What merging looks at: see <see cref="Compared"/>.</param>
/// <param name="ReferenceKeys">The keys of each reference.</param>
public sealed record StoredRecord(
    int Id,
    int WorkId,
    int DatabaseId,
    bool IsWithdrawn,
    long Sequence,
    ulong TitleKey,
    byte[] Facts,
    byte[] MergeFacts,
    ReferenceKeys[] ReferenceKeys
)
{
    /// <summary>Reads the record.</summary>
    public Record Record() => RecordCodec.Facts(Facts);

    /// <summary>Reads what merging looks at.</summary>
    public MergeFacts Compared() => MergeFactsCodec.Read(Id, DatabaseId, MergeFacts);
}

/// <summary>What a record is, in numbers and in names that outlive them.</summary>
/// <param name="Id">Record id.</param>
/// <param name="WorkId">Its work.</param>
/// <param name="DatabaseId">Its database.</param>
/// <param name="Identifier">Its identifier there.</param>
/// <param name="TitleKey">Key of title and first person; 0 for none.</param>
public sealed record RecordName(int Id, int WorkId, int DatabaseId, string Identifier, long TitleKey);

/// <summary>Reads the corpus: whole for the index, by work for the pane and the list.</summary>
public sealed class CorpusReader(IDbContextFactory<CorpusContext> contexts)
{
    /// <summary>So many rows take less time than it takes to hand them to other threads.</summary>
    private const int FewRows = 40;

    /// <summary>The store's change sequence; 0 when empty.</summary>
    public async Task<long> Sequence(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return Math.Max(
            await context.Records.Select(r => (long?)r.Sequence).MaxAsync(cancel) ?? 0,
            await context.AddedLists.Select(l => (long?)l.Sequence).MaxAsync(cancel) ?? 0
        );
    }

    /// <summary>Sizes for arrays by record id and by work id: one more than the highest.</summary>
    public async Task<(int Records, int Works)> Sizes(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return (
            Math.Max(
                await context.Records.Select(r => (int?)r.Id).MaxAsync(cancel) ?? 0,
                await context.AddedLists.Select(l => (int?)l.Id).MaxAsync(cancel) ?? 0
            ) + 1,
            (await context.Works.Select(w => (int?)w.Id).MaxAsync(cancel) ?? 0) + 1
        );
    }

    /// <summary>All databases, by id.</summary>
    public async Task<List<DatabaseRow>> Databases(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context.Databases.AsNoTracking().OrderBy(d => d.Id).ToListAsync(cancel);
    }

    /// <summary>Where lists come from that no record has, by id.</summary>
    public async Task<List<TieSourceRow>> TieSources(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context.TieSources.AsNoTracking().OrderBy(s => s.Id).ToListAsync(cancel);
    }

    /// <summary>The lists that no record has and that changed after a sequence, up to another, by number. Streams.</summary>
    public IAsyncEnumerable<AddedList> Lists(long after, long upTo, CancellationToken cancel) =>
        Lists(l => l.Sequence > after && l.Sequence <= upTo, cancel);

    /// <summary>The lists of a source. Streams.</summary>
    public IAsyncEnumerable<AddedList> ListsOf(int source, CancellationToken cancel) =>
        Lists(l => l.SourceId == source, cancel);

    /// <summary>Those of some numbers that are lists no record has. O(numbers).</summary>
    public async Task<List<AddedList>> Lists(IReadOnlyCollection<int> numbers, CancellationToken cancel)
    {
        var found = new List<AddedList>();
        foreach (var chunk in numbers.Chunk(500))
        await foreach (var list in Lists(l => chunk.Contains(l.Id), cancel))
            found.Add(list);
        return found;
    }

    private async IAsyncEnumerable<AddedList> Lists(
        Expression<Func<AddedListRow, bool>> which,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = context
            .AddedLists.AsNoTracking()
            .Where(which)
            .OrderBy(l => l.Id)
            .Select(l => new
            {
                l.Id,
                l.SourceId,
                Work = context.Works.Where(w => w.Id == l.WorkId).Select(w => w.RedirectTo).FirstOrDefault()
                    ?? l.WorkId,
                l.Citing,
                l.ReferenceKeys,
            });
        await foreach (var row in rows.AsAsyncEnumerable().WithCancellation(cancel))
            yield return new(
                row.Id,
                row.SourceId,
                row.Work,
                unchecked((ulong)row.Citing),
                RecordCodec.Keys(row.ReferenceKeys)
            );
    }

    /// <summary>
    /// The lists that no record has and that are told by the number of their work, with that work of today. O(them).
    /// </summary>
    public async Task<List<(int List, int Work)>> HomesOfLists(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return
        [
            .. (
                await context
                    .AddedLists.Where(l => l.WorkId > 0)
                    .Select(l => new
                    {
                        l.Id,
                        Work = context.Works.Where(w => w.Id == l.WorkId).Select(w => w.RedirectTo).FirstOrDefault()
                            ?? l.WorkId,
                    })
                    .ToListAsync(cancel)
            ).Select(l => (l.Id, l.Work)),
        ];
    }

    /// <summary>
    /// All records that are not deleted, up to a sequence, those of one work together. Streams; O(records).
    /// </summary>
    public IAsyncEnumerable<StoredRecord> All(long upTo, CancellationToken cancel) =>
        Stored("WorkId > 0 AND Sequence <= $0", upTo, "", cancel);

    /// <summary>
    /// The records of some works that are not deleted, up to a sequence, those of one work together. Streams.
    /// </summary>
    public IAsyncEnumerable<StoredRecord> Some(IReadOnlyCollection<int> works, long upTo, CancellationToken cancel) =>
        Stored(
            "WorkId > 0 AND WorkId IN (SELECT value FROM json_each($1)) AND Sequence <= $0",
            upTo,
            JsonSerializer.Serialize(works),
            cancel
        );

    /// <summary>
    /// The records that changed after a sequence, up to another, deleted ones too, each with its work (0 for none).
    /// </summary>
    public async Task<List<(int Id, int WorkId)>> Touched(long after, long upTo, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return
        [
            .. (
                await context
                    .Records.AsNoTracking()
                    .Where(r => r.Sequence > after && r.Sequence <= upTo)
                    .Select(r => new { r.Id, r.WorkId })
                    .ToListAsync(cancel)
            ).Select(r => (r.Id, r.WorkId)),
        ];
    }

    private async IAsyncEnumerable<StoredRecord> Stored(
        string which,
        long upTo,
        string works,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await context.Database.OpenConnectionAsync(cancel);
        await using var command = ((SqliteConnection)context.Database.GetDbConnection()).CreateCommand();
#pragma warning disable CA2100 // one of two constants of ours; values travel as parameters
        command.CommandText =
            "SELECT r.Id, r.WorkId, r.DatabaseId, r.Deleted, r.Sequence, r.TitleKey, r.Facts, m.Facts, "
            + $"r.ReferenceKeys FROM Records r CROSS JOIN MergeFacts m ON m.RecordId = r.Id WHERE {which} "
            + "ORDER BY r.WorkId, r.Id";
#pragma warning restore CA2100
        command.Parameters.AddWithValue("$0", upTo);
        command.Parameters.AddWithValue("$1", works);
        await using var reader = await command.ExecuteReaderAsync(cancel);
        while (reader.Read())
            yield return new(
                reader.GetInt32(0),
                reader.GetInt32(1),
                reader.GetInt32(2),
                reader.GetBoolean(3),
                reader.GetInt64(4),
                unchecked((ulong)reader.GetInt64(5)),
                reader.GetFieldValue<byte[]>(6),
                reader.GetFieldValue<byte[]>(7),
                RecordCodec.Keys(reader.GetFieldValue<byte[]>(8))
            );
    }

    /// <summary>The references of some records, and of lists that no record has, by number. O(records).</summary>
    public async Task<List<(int Record, IReadOnlyList<Reference> References)>> ReferencesIn(
        IReadOnlyCollection<int> records,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new List<(int, IReadOnlyList<Reference>)>(records.Count);
        foreach (var chunk in records.Chunk(500))
        {
            var rows = await context
                .Records.AsNoTracking()
                .Where(r => chunk.Contains(r.Id))
                .Select(r => new { r.Id, r.References })
                .ToListAsync(cancel);
            // A list that no record has goes by a number among theirs.
            if (rows.Count < chunk.Length)
                rows.AddRange(
                    await context
                        .AddedLists.AsNoTracking()
                        .Where(l => chunk.Contains(l.Id))
                        .Select(l => new { l.Id, l.References })
                        .ToListAsync(cancel)
                );
            // The few of one work are read here: many requests that wait for other threads would wait for each other.
            found.AddRange(
                rows.Count <= FewRows
                    ? rows.Select(r => (r.Id, RecordCodec.References(r.References)))
                    : rows.AsParallel().AsOrdered().Select(r => (r.Id, RecordCodec.References(r.References)))
            );
        }
        return found;
    }

    /// <summary>
    /// The keys of the references of some records. Those that have none are not told.
    /// </summary>
    public async Task<List<(int Record, ReferenceKeys[] Keys)>> ReferenceKeysIn(
        IReadOnlyCollection<int> records,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new List<(int, ReferenceKeys[])>(records.Count);
        foreach (var chunk in records.Chunk(500))
            found.AddRange(
                (
                    await context
                        .Records.AsNoTracking()
                        .Where(r => chunk.Contains(r.Id) && r.WorkId > 0)
                        .Select(r => new { r.Id, r.ReferenceKeys })
                        .ToListAsync(cancel)
                ).Select(r => (r.Id, RecordCodec.Keys(r.ReferenceKeys)))
            );
        return found;
    }

    /// <summary>
    /// Records changed after a sequence, up to another, as <see cref="RecordCodec.Facts(byte[])"/> reads them; null for
    /// deleted ones.
    /// </summary>
    public async IAsyncEnumerable<(int Id, byte[]? Facts)> Changed(
        long after,
        long upTo,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = context
            .Records.AsNoTracking()
            .Where(r => r.Sequence > after && r.Sequence <= upTo)
            .OrderBy(r => r.Id)
            .Select(r => new
            {
                r.Id,
                r.Deleted,
                r.Facts,
            });
        await foreach (var row in rows.AsAsyncEnumerable().WithCancellation(cancel))
            yield return (row.Id, row.Deleted ? null : row.Facts);
    }

    /// <summary>The names of references that people said mean a work, by the work of today. O(names).</summary>
    public async Task<ILookup<int, ulong>> Resolved(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return (
            await context
                .ResolvedReferences.Select(r => new
                {
                    r.Name,
                    Work = context.Works.Where(w => w.Id == r.WorkId).Select(w => w.RedirectTo).FirstOrDefault()
                        ?? r.WorkId,
                })
                .OrderBy(r => r.Name)
                .ToListAsync(cancel)
        ).ToLookup(r => r.Work, r => unchecked((ulong)r.Name));
    }

    /// <summary>The references of a record, or of a list that no record has; null when it is not there.</summary>
    public async Task<IReadOnlyList<Reference>?> ReferencesOfRecord(int record, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var bytes = await context
            .Records.Where(r => r.Id == record && r.WorkId > 0)
            .Select(r => r.References)
            .SingleOrDefaultAsync(cancel);
        bytes ??= await context
            .AddedLists.Where(l => l.Id == record)
            .Select(l => l.References)
            .SingleOrDefaultAsync(cancel);
        return bytes is null ? null : RecordCodec.References(bytes);
    }

    /// <summary>The records of some works, by work id, without references.</summary>
    public async Task<ILookup<int, SourcedRecord>> OfWorks(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var trust = await context.Databases.ToDictionaryAsync(d => d.Id, d => d.Trust, cancel);
        var found = new List<(int Work, SourcedRecord Record)>();
        foreach (var chunk in works.Chunk(500))
        {
            var rows = await context
                .Records.AsNoTracking()
                .Where(r => chunk.Contains(r.WorkId))
                .Select(r => new
                {
                    r.Id,
                    r.WorkId,
                    r.DatabaseId,
                    r.Deleted,
                    r.Facts,
                })
                .ToListAsync(cancel);
            found.AddRange(
                rows.Select(r =>
                    (
                        r.WorkId,
                        new SourcedRecord(
                            r.Id,
                            r.DatabaseId,
                            trust[r.DatabaseId],
                            RecordCodec.Facts(r.Facts),
                            r.Deleted
                        )
                    )
                )
            );
        }
        return found.OrderBy(f => f.Record.RecordId).ToLookup(f => f.Work, f => f.Record);
    }

    /// <summary>Ids of all records that are not deleted.</summary>
    public async Task<List<int>> LiveRecords(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context.Records.Where(r => !r.Deleted).Select(r => r.Id).ToListAsync(cancel);
    }

    /// <summary>Some records by id, without references.</summary>
    public async Task<Dictionary<int, SourcedRecord>> Records(IReadOnlyCollection<int> ids, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var trust = await context.Databases.ToDictionaryAsync(d => d.Id, d => d.Trust, cancel);
        var rows = await context
            .Records.AsNoTracking()
            .Where(r => ids.Contains(r.Id) && r.WorkId > 0)
            .Select(r => new
            {
                r.Id,
                r.DatabaseId,
                r.Deleted,
                r.Facts,
            })
            .ToListAsync(cancel);
        return rows.ToDictionary(
            r => r.Id,
            r => new SourcedRecord(r.Id, r.DatabaseId, trust[r.DatabaseId], RecordCodec.Facts(r.Facts), r.Deleted)
        );
    }

    /// <summary>
    /// What the records of some works cite, as each database has it, and what lists that no record has say of them; two keys
    /// for each reference, by which it is matched.
    /// </summary>
    /// <param name="works">The works.</param>
    /// <param name="lists">The lists that count for them, each with its work.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<List<ListedReference>> ReferencesOf(
        IReadOnlyCollection<int> works,
        IReadOnlyDictionary<int, int> lists,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new List<ListedReference>();
        foreach (var chunk in works.Chunk(500))
        foreach (
            var row in await context
                .Records.AsNoTracking()
                .Where(r => chunk.Contains(r.WorkId))
                .OrderBy(r => r.Id)
                .Select(r => new
                {
                    r.Id,
                    r.WorkId,
                    r.DatabaseId,
                    r.References,
                    r.ReferenceKeys,
                })
                .ToListAsync(cancel)
        )
            found.AddRange(Listed(row.Id, row.WorkId, row.DatabaseId, row.References, row.ReferenceKeys));
        foreach (var chunk in lists.Keys.Chunk(500))
        foreach (
            var list in await context
                .AddedLists.AsNoTracking()
                .Where(l => chunk.Contains(l.Id))
                .OrderBy(l => l.Id)
                .ToListAsync(cancel)
        )
            found.AddRange(Listed(list.Id, lists[list.Id], list.SourceId, list.References, list.ReferenceKeys));
        return found;

        static IEnumerable<ListedReference> Listed(int list, int work, int database, byte[] references, byte[] packed)
        {
            var keys = RecordCodec.Keys(packed);
            return RecordCodec
                .References(references)
                .Select((r, i) => new ListedReference(list, i, work, database, r, keys[i].Doi, keys[i].Title));
        }
    }

    /// <summary>Why some records are one work: the pairs among them that agree enough, the best first.</summary>
    public async Task<List<MatchRow>> MatchesAmong(IReadOnlyCollection<int> records, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
            .Matches.AsNoTracking()
            .Where(m => records.Contains(m.First) && records.Contains(m.Second))
            .OrderByDescending(m => m.Score)
            .ThenBy(m => m.First)
            .ThenBy(m => m.Second)
            .ToListAsync(cancel);
    }

    /// <summary>
    /// The works that ids stand for today, for those that were merged into another; an id that is not there stands for
    /// itself.
    /// </summary>
    public async Task<IReadOnlyDictionary<int, int>> Redirects(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        var today = new Dictionary<int, int>();
        await using var context = await contexts.CreateDbContextAsync(cancel);
        foreach (var chunk in works.Chunk(500))
        foreach (
            var row in await context
                .Works.Where(w => chunk.Contains(w.Id) && w.RedirectTo != null)
                .Select(w => new { w.Id, w.RedirectTo })
                .ToListAsync(cancel)
        )
            today[row.Id] = row.RedirectTo!.Value;
        return today;
    }

    /// <summary>
    /// Those of some numbers of works that this corpus has never given: no work has it, and none stands for it.
    /// </summary>
    public async Task<HashSet<int>> Unknown(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        var unknown = works.ToHashSet();
        await using var context = await contexts.CreateDbContextAsync(cancel);
        foreach (var chunk in works.Chunk(500))
            unknown.ExceptWith(
                await context.Works.Where(w => chunk.Contains(w.Id)).Select(w => w.Id).ToListAsync(cancel)
            );
        return unknown;
    }

    /// <summary>What records some numbers stand for: database, identifier, work, key of the title.</summary>
    public async Task<List<RecordName>> Named(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new List<RecordName>();
        foreach (var chunk in works.Chunk(500))
            found.AddRange(
                await context
                    .Records.AsNoTracking()
                    .Where(r => chunk.Contains(r.WorkId))
                    .Select(r => new RecordName(r.Id, r.WorkId, r.DatabaseId, r.Identifier, r.TitleKey))
                    .ToListAsync(cancel)
            );
        return found;
    }

    /// <summary>The works of records by their names: database and identifier there.</summary>
    public async Task<Dictionary<(int Database, string Identifier), int>> WorksOf(
        IReadOnlyCollection<(int Database, string Identifier)> names,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new Dictionary<(int, string), int>();
        foreach (var group in names.GroupBy(n => n.Database))
        foreach (var chunk in group.Select(n => n.Identifier).Distinct().Chunk(500))
        foreach (
            var row in await context
                .Records.AsNoTracking()
                .Where(r => r.DatabaseId == group.Key && chunk.Contains(r.Identifier) && r.WorkId > 0)
                .Select(r => new { r.Identifier, r.WorkId })
                .ToListAsync(cancel)
        )
            found[(group.Key, row.Identifier)] = row.WorkId;
        return found;
    }

    /// <summary>
    /// The works that have records with some keys of title and first person, by key. Reads all records; O(records).
    /// </summary>
    public async Task<ILookup<long, int>> WorksWithTitleKeys(IReadOnlyCollection<long> keys, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var found = new List<(long Key, int Work)>();
        foreach (var chunk in keys.Where(k => k != 0).Chunk(5_000))
            found.AddRange(
                (
                    await context
                        .Records.AsNoTracking()
                        .Where(r => r.WorkId > 0 && chunk.Contains(r.TitleKey))
                        .Select(r => new { r.TitleKey, r.WorkId })
                        .Distinct()
                        .ToListAsync(cancel)
                ).Select(r => (r.TitleKey, r.WorkId))
            );
        return found.ToLookup(f => f.Key, f => f.Work);
    }

    /// <summary>The work an id stands for today; itself when it was not merged into another.</summary>
    public async Task<int> Redirect(int work, CancellationToken cancel) =>
        (await Redirects([work], cancel)).GetValueOrDefault(work, work);

    /// <summary>All ids that stand for a work today: its own and those of works that were merged into it.</summary>
    public async Task<IReadOnlyList<int>> IdsOf(int work, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return [work, .. await context.Works.Where(w => w.RedirectTo == work).Select(w => w.Id).ToListAsync(cancel)];
    }

    /// <summary>The numbers and labels of people, all that was ever given. O(names on works).</summary>
    public async Task<GivenNumbers> Numbering(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var people = await context.People.AsNoTracking().ToListAsync(cancel);
        return new(
            [
                .. (await context.PersonMarks.AsNoTracking().ToListAsync(cancel)).Select(m =>
                    (new PersonMark(m.WorkId, m.Name), m.PersonId)
                ),
            ],
            [.. (await context.PersonLabels.AsNoTracking().ToListAsync(cancel)).Select(l => (l.Label, l.PersonId))],
            [.. people.Select(p => (p.Id, p.Label))],
            [.. people.Where(p => p.RedirectTo is not null).Select(p => (p.Id, p.RedirectTo!.Value))]
        );
    }

    /// <summary>Looks numbers and labels of people up one by one; dispose of it when done.</summary>
    public async Task<StoredNumbers> Numbers(CancellationToken cancel) =>
        await StoredNumbers.Open(await contexts.CreateDbContextAsync(cancel), cancel);

    /// <summary>
    /// Labels that stand for a person who is shown under another, with that other. O(labels that were ever given).
    /// </summary>
    public async Task<IReadOnlyDictionary<string, string>> FormerLabels(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var into = await context
            .People.Where(p => p.RedirectTo != null)
            .ToDictionaryAsync(p => p.Id, p => p.RedirectTo!.Value, cancel);
        var former = await context
            .PersonLabels.Join(
                context.People,
                l => l.PersonId,
                p => p.Id,
                (l, p) =>
                    new
                    {
                        l.Label,
                        l.PersonId,
                        Shown = p.Label,
                        p.RedirectTo,
                    }
            )
            .Where(l => l.RedirectTo != null || l.Label != l.Shown)
            .ToListAsync(cancel);
        var standing = former.Select(l => Current(l.PersonId)).Distinct().ToArray();
        var shown = await context
            .People.Where(p => standing.Contains(p.Id))
            .ToDictionaryAsync(p => p.Id, p => p.Label, cancel);
        return former
            .Select(l => (l.Label, Today: shown[Current(l.PersonId)]))
            .Where(l => !string.Equals(l.Label, l.Today, StringComparison.OrdinalIgnoreCase))
            .ToDictionary(l => l.Label, l => l.Today, StringComparer.OrdinalIgnoreCase);

        int Current(int person)
        {
            while (into.TryGetValue(person, out var next))
                person = next;
            return person;
        }
    }
}
