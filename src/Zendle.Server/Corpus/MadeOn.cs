using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Core.Reviews.Acts;
using Zendle.Index.Questions;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Corpus;

/// <summary>A work that was kept or set aside and is in no database now.</summary>
/// <param name="WorkId">The number it had.</param>
/// <param name="Title">Its title then.</param>
/// <param name="People">Its first people then.</param>
/// <param name="Year">Its year then; null when unknown.</param>
/// <param name="Doi">Its DOI; null for none.</param>
public sealed record NotFoundWork(int WorkId, string Title, string People, int? Year, string? Doi);

/// <summary>
/// Notes what decisions, searches for texts, resolved references and steps speak of, in names that outlive the numbers of
/// a corpus: database and identifier, DOI, title with first person. When a corpus was made anew the works are found again
/// by them, as their records come.
/// </summary>
public sealed class MadeOn(IDbContextFactory<ZendleContext> contexts, CorpusReader reader, CorpusWriter writer)
{
    private const int AtOnce = 500;
    private HashSet<int>? lost;
    private int found;

    /// <summary>
    /// How often lost works were found again: with each time numbers that stood for nothing stand for a work.
    /// </summary>
    public int TimesFound => Volatile.Read(ref found);

    /// <summary>Works that were decided on, are not in the corpus, and were not found again yet.</summary>
    public int LostCount => lost?.Count ?? 0;

    /// <summary>
    /// Notes what some works are. Rows are added to a context that its caller saves, so that they are written with what
    /// was decided, or not at all.
    /// </summary>
    public async Task Note(ZendleContext made, IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        foreach (var chunk in works.Distinct().Chunk(AtOnce))
        {
            var names = await reader.Named(chunk, cancel);
            int[] ids = [.. names.Select(n => n.Id)];
            var noted = (
                await made
                    .MadeOn.Where(m => ids.Contains(m.RecordId))
                    .Select(m => new { m.RecordId, m.WorkId })
                    .ToListAsync(cancel)
            ).ToDictionary(m => m.RecordId, m => m.WorkId);
            var missing = names.Where(n => !noted.ContainsKey(n.Id)).ToArray();
            if (missing.Length == 0)
                continue;
            var databases = (await reader.Databases(cancel)).ToDictionary(d => d.Id);
            var records = await reader.OfWorks([.. missing.Select(m => m.WorkId).Distinct()], cancel);
            var local = made.MadeOn.Local.Select(m => m.RecordId).ToHashSet();
            foreach (var name in missing.Where(n => !local.Contains(n.Id)))
            {
                var ofWork = records[name.WorkId].ToArray();
                if (Array.Find(ofWork, r => r.RecordId == name.Id)?.Record is not { } record)
                    continue;
                // What the work shows is what it is known by afterwards.
                var chosen = ChosenFields.From(ofWork);
                made.MadeOn.Add(
                    new()
                    {
                        RecordId = name.Id,
                        WorkId = name.WorkId,
                        Address = databases[name.DatabaseId].Address,
                        SetName = databases[name.DatabaseId].SetName ?? "",
                        Identifier = name.Identifier,
                        Doi = record.Doi ?? ofWork.Select(r => r.Record.Doi).FirstOrDefault(d => d is not null),
                        TitleKey = name.TitleKey,
                        Title = chosen.Title.Value,
                        People =
                            string.Join(", ", chosen.People.Value.Take(3).Select(p => p.Family))
                            + (chosen.People.Value.Count > 3 ? " …" : ""),
                        Year = chosen.Year.Value,
                    }
                );
            }
        }
    }

    /// <summary>
    /// At the start: notes what an older version did not, and learns which works are not in the corpus.
    /// </summary>
    public async Task Begin(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var spoken = (await made.Decisions.Select(d => d.WorkId).Distinct().ToListAsync(cancel))
            .Union(await made.Sought.Select(d => d.WorkId).Distinct().ToListAsync(cancel))
            .Union(await made.Texts.Select(d => d.WorkId).Distinct().ToListAsync(cancel))
            .Union(await made.Resolutions.Select(d => d.WorkId).Distinct().ToListAsync(cancel))
            .ToHashSet();
        await foreach (
            var act in made
                .Steps.AsNoTracking()
                .Select(s => s.Act)
                .Where(a => a.Contains("\"seeds\":[") || a.Contains("\"works\":["))
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
            spoken.UnionWith(StoredActs.WorksIn(act));
        var noted = await made.MadeOn.Select(m => m.WorkId).Distinct().ToListAsync(cancel);
        foreach (var chunk in spoken.Except(noted).Chunk(AtOnce))
        {
            await Note(made, chunk, cancel);
            await made.SaveChangesAsync(cancel);
            made.ChangeTracker.Clear();
        }
        lost = await reader.Unknown([.. spoken.Where(w => w > 0)], cancel);
    }

    /// <summary>The works of today that decisions, searches for texts and steps speak of. O(them).</summary>
    public async Task<HashSet<int>> SpokenOf(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var works = await made.MadeOn.Select(m => m.WorkId).Distinct().ToListAsync(cancel);
        var today = await reader.Redirects(works, cancel);
        return [.. works.Select(w => today.GetValueOrDefault(w, w))];
    }

    /// <summary>
    /// Looks for works that were lost: by database and identifier, by DOI, and, when asked, by title and first person.
    /// </summary>
    /// <param name="snapshot">The corpus as it is.</param>
    /// <param name="byTitle">Whether to go by titles too, which reads all records; when a harvest has ended.</param>
    /// <param name="cancel">Stops; what was found so far stays.</param>
    /// <returns>How many were found.</returns>
    public async Task<int> FindAgain(CorpusSnapshot snapshot, bool byTitle, CancellationToken cancel)
    {
        if (lost is not { Count: > 0 } wanted)
            return 0;
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var rows = new List<MadeOnRow>();
        foreach (var chunk in wanted.Chunk(AtOnce))
            rows.AddRange(await made.MadeOn.AsNoTracking().Where(m => chunk.Contains(m.WorkId)).ToListAsync(cancel));
        var again = new Dictionary<int, int>();
        var databases = (await reader.Databases(cancel)).ToDictionary(d => (d.Address, d.SetName ?? ""), d => d.Id);
        var named = rows.Where(r => databases.ContainsKey((r.Address, r.SetName)))
            .Select(r => (r.WorkId, Name: (databases[(r.Address, r.SetName)], r.Identifier)))
            .ToArray();
        var byName = await reader.WorksOf([.. named.Select(n => n.Name)], cancel);
        foreach (var (work, name) in named)
            if (byName.TryGetValue(name, out var today))
                again.TryAdd(work, today);
        foreach (var row in rows.Where(r => r.Doi is not null && !again.ContainsKey(r.WorkId)))
            if (snapshot.Columns.References.WithDoi(MergeKeys.Doi(row.Doi)) is > 0 and var today)
                again[row.WorkId] = today;
        if (byTitle)
        {
            var open = rows.Where(r => r.TitleKey != 0 && !again.ContainsKey(r.WorkId)).ToArray();
            var titled =
                open.Length == 0
                    ? null
                    : await reader.WorksWithTitleKeys([.. open.Select(r => r.TitleKey).Distinct()], cancel);
            foreach (var row in open)
            {
                // One title may be two works'; then nobody can tell which of them was meant.
                int[] alike =
                [
                    .. titled!
                        [row.TitleKey]
                        .Distinct()
                        .Where(w =>
                            w < snapshot.Columns.WorkSize
                            && (
                                row.Year is null
                                || snapshot.Columns.Year[w] == 0
                                || Math.Abs(snapshot.Columns.Year[w] - row.Year.Value) <= 1
                            )
                        ),
                ];
                if (alike.Length == 1)
                    again.TryAdd(row.WorkId, alike[0]);
            }
        }
        if (again.Count == 0)
            return 0;
        await writer.Redirect(again, cancel);
        wanted.ExceptWith(again.Keys);
        Interlocked.Increment(ref found);
        return again.Count;
    }

    /// <summary>What some lost works were, the youngest first.</summary>
    public async Task<List<NotFoundWork>> Describe(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var rows = new List<MadeOnRow>();
        foreach (var chunk in works.Chunk(AtOnce))
            rows.AddRange(await made.MadeOn.AsNoTracking().Where(m => chunk.Contains(m.WorkId)).ToListAsync(cancel));
        var known = rows.GroupBy(r => r.WorkId).ToDictionary(g => g.Key, g => g.MinBy(r => r.RecordId)!);
        return
        [
            .. works
                .Select(w =>
                    known.TryGetValue(w, out var row)
                        ? new NotFoundWork(w, row.Title, row.People, row.Year, row.Doi)
                        : new NotFoundWork(w, $"Work {w}, of which only the number is known", "", null, null)
                )
                .OrderByDescending(w => w.Year)
                .ThenBy(w => w.WorkId),
        ];
    }
}
