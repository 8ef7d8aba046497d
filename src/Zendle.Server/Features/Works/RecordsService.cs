using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Works;

/// <summary>What a split or a join did, or would do.</summary>
/// <param name="Works">The works that come out, each by the ids of its records.</param>
/// <param name="Act">The act, for undoing it; null for a preview.</param>
internal sealed record RulingResult(IReadOnlyList<MergedWork> Works, Guid? Act);

/// <summary>
/// Lets a curator say that records are one work, or are not. Acts are written down as rulings between records, so that
/// every later harvest respects them.
/// </summary>
internal sealed class RecordsService(
    IDbContextFactory<CorpusContext> contexts,
    CorpusReader reader,
    CorpusWriter writer,
    CorpusChange change,
    TimeProvider clock
)
{
    /// <summary>
    /// Parts some records of a work from the others; null when they are not some, but not all, of its records.
    /// </summary>
    public async Task<RulingResult?> Split(
        int work,
        IReadOnlyCollection<int> records,
        string by,
        bool preview,
        CancellationToken cancel
    )
    {
        var all = (await reader.OfWorks([work], cancel))[work].Select(r => r.RecordId).ToArray();
        var parted = all.Where(records.Contains).ToArray();
        if (parted.Length == 0 || parted.Length == all.Length || parted.Length != records.Distinct().Count())
            return null;
        return await Rule(
            [.. parted.SelectMany(p => all.Except(parted).Select(o => (p, o, (bool?)false)))],
            by,
            preview,
            cancel
        );
    }

    /// <summary>Makes one work of several; null when one of them is not there.</summary>
    public async Task<RulingResult?> Join(
        IReadOnlyCollection<int> works,
        string by,
        bool preview,
        CancellationToken cancel
    )
    {
        var ids = works.Distinct().ToArray();
        var found = await reader.OfWorks(ids, cancel);
        if (ids.Length < 2 || ids.Any(w => !found[w].Any()))
            return null;
        var sets = ids.Select(w => found[w].Select(r => r.RecordId).Order().ToArray()).OrderBy(s => s[0]).ToArray();
        var pairs = sets.Skip(1).Select(s => (sets[0][0], s[0], (bool?)true)).ToList();
        // What was parted before is no longer parted.
        var inForce = await RulingsInForce(sets.SelectMany(s => s).ToArray(), cancel);
        pairs.AddRange(
            inForce
                .Where(r =>
                    r.Same == false
                    && !pairs.Exists(p => Ordered(p.Item1, p.Item2) == (r.First, r.Second))
                    && sets.First(s => s.Contains(r.First)) != sets.FirstOrDefault(s => s.Contains(r.Second))
                    && sets.Any(s => s.Contains(r.Second))
                )
                .Select(r => (r.First, r.Second, (bool?)null))
        );
        return await Rule(pairs, by, preview, cancel);
    }

    /// <summary>
    /// Takes an act back: each pair is again as it was before it. False when the act is not known or a later one speaks
    /// of the same records.
    /// </summary>
    public async Task<bool> Undo(Guid act, string by, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = await context.Rulings.AsNoTracking().Where(r => r.Act == act).ToListAsync(cancel);
        if (rows.Count == 0)
            return false;
        var back = new List<(int, int, bool?)>();
        foreach (var row in rows)
        {
            if (
                await context.Rulings.AnyAsync(
                    r => r.First == row.First && r.Second == row.Second && r.Id > row.Id,
                    cancel
                )
            )
                return false;
            back.Add(
                (
                    row.First,
                    row.Second,
                    await context
                        .Rulings.Where(r => r.First == row.First && r.Second == row.Second && r.Id < row.Id)
                        .OrderByDescending(r => r.Id)
                        .Select(r => r.Same)
                        .FirstOrDefaultAsync(cancel)
                )
            );
        }
        await change.Make(() => writer.Rule(back, Guid.NewGuid(), by, clock.GetUtcNow(), cancel), cancel);
        return true;
    }

    /// <summary>The rulings that hold about some records, the newest of each pair.</summary>
    public async Task<List<RulingRow>> RulingsInForce(IReadOnlyCollection<int> records, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = await context
            .Rulings.AsNoTracking()
            .Where(r => records.Contains(r.First) || records.Contains(r.Second))
            .ToListAsync(cancel);
        return
        [
            .. rows.GroupBy(r => (r.First, r.Second)).Select(g => g.MaxBy(r => r.Id)!).Where(r => r.Same is not null),
        ];
    }

    private async Task<RulingResult> Rule(
        IReadOnlyCollection<(int A, int B, bool? Same)> pairs,
        string by,
        bool preview,
        CancellationToken cancel
    )
    {
        var ordered = pairs
            .Select(p => (Pair: Ordered(p.A, p.B), p.Same))
            .Select(p => (p.Pair.First, p.Pair.Second, p.Same))
            .ToArray();
        var works = await writer.Preview(
            [.. ordered.Where(p => p.Same is not null).Select(p => new Ruling(p.First, p.Second, p.Same!.Value))],
            [.. ordered.Where(p => p.Same is null).Select(p => (p.First, p.Second))],
            cancel
        );
        if (preview)
            return new(works, null);
        var act = Guid.NewGuid();
        await change.Make(() => writer.Rule(ordered, act, by, clock.GetUtcNow(), cancel), cancel);
        // A work that is new has its number now.
        await using var context = await contexts.CreateDbContextAsync(cancel);
        int[] oldest = [.. works.Select(w => w.Records[0])];
        var today = await context
            .Records.Where(r => oldest.Contains(r.Id))
            .ToDictionaryAsync(r => r.Id, r => r.WorkId, cancel);
        return new([.. works.Select(w => w with { WorkId = today[w.Records[0]] })], act);
    }

    private static (int First, int Second) Ordered(int a, int b) => a < b ? (a, b) : (b, a);
}
