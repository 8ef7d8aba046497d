using System.Buffers.Binary;
using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Identity;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.References;

/// <summary>
/// What people said references mean. It is kept in <c>zendle.db</c> and holds for every work that prints the reference; the
/// citation graph takes it from <c>corpus.db</c>, into which it is written again whenever that file lacks it. See
/// docs/decisions/0030.
/// </summary>
internal sealed class ResolutionService(
    IDbContextFactory<ZendleContext> contexts,
    CorpusReader reader,
    CorpusWriter writer,
    CorpusChange change,
    MadeOn madeOn,
    TimeProvider clock
)
{
    /// <summary>Most of an installation.</summary>
    public const int Most = 100_000;

    private static readonly SemaphoreSlim OneAtATime = new(1, 1);

    /// <summary>Says that a reference means a work; null when the installation can hold no more.</summary>
    /// <param name="account">Who says so.</param>
    /// <param name="text">The reference as printed.</param>
    /// <param name="names">Its names, at least one.</param>
    /// <param name="work">The work.</param>
    /// <param name="cancel">Stops before it is noted.</param>
    public async Task<ResolutionRow?> Add(
        string account,
        string text,
        IReadOnlyCollection<ulong> names,
        int work,
        CancellationToken cancel
    )
    {
        await OneAtATime.WaitAsync(cancel);
        try
        {
            await using var made = await contexts.CreateDbContextAsync(cancel);
            if (await made.Resolutions.CountAsync(cancel) >= Most)
                return null;
            var row = new ResolutionRow
            {
                Names = Packed(names),
                Text = text,
                WorkId = work,
                AccountId = account,
                At = clock.GetUtcNow(),
            };
            made.Resolutions.Add(row);
            await madeOn.Note(made, [work], cancel);
            await made.SaveChangesAsync(cancel);
            // What is noted stays: whoever leaves now finds it all the same.
            await Show(names.ToDictionary(n => n, _ => (int?)work), CancellationToken.None);
            return row;
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>Takes back what somebody said; what was said of the same reference before holds again.</summary>
    public async Task Undo(int id, CancellationToken cancel)
    {
        await OneAtATime.WaitAsync(cancel);
        try
        {
            await using var made = await contexts.CreateDbContextAsync(cancel);
            var row = await made.Resolutions.SingleAsync(r => r.Id == id, cancel);
            row.IsUndone = true;
            await made.SaveChangesAsync(cancel);
            var holding = await InForce(CancellationToken.None);
            await Show(
                Unpacked(row.Names).ToDictionary(n => n, n => holding.GetValueOrDefault(n)?.WorkId),
                CancellationToken.None
            );
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>What was said under a number; null when nothing was, or when it was taken back.</summary>
    public async Task<ResolutionRow?> Find(int id, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        return await made.Resolutions.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id && !r.IsUndone, cancel);
    }

    /// <summary>By name of a reference what holds of it. O(all that was said).</summary>
    public async Task<IReadOnlyDictionary<ulong, ResolutionRow>> InForce(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var holding = new Dictionary<ulong, ResolutionRow>();
        await foreach (
            var row in made
                .Resolutions.AsNoTracking()
                .Where(r => !r.IsUndone)
                .OrderBy(r => r.Id)
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
        foreach (var name in Unpacked(row.Names))
            holding[name] = row;
        return holding;
    }

    /// <summary>The names of display of some accounts.</summary>
    public async Task<Dictionary<string, string>> People(IEnumerable<string> accounts, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        return await made.DisplayNamesOf(accounts, cancel);
    }

    /// <summary>
    /// At the start: says in <c>corpus.db</c> what <c>zendle.db</c> knows, where it says otherwise: one of them was made anew
    /// or put back, or the last process was interrupted between the two. O(all that was said).
    /// </summary>
    public async Task BringBack(CancellationToken cancel)
    {
        var holding = await InForce(cancel);
        var written = (await reader.Resolved(cancel)).SelectMany(w => w).ToArray();
        if (written.Length + holding.Count > 0)
            await Show(
                written.Union(holding.Keys).ToDictionary(n => n, n => holding.GetValueOrDefault(n)?.WorkId),
                cancel
            );
    }

    private Task Show(Dictionary<ulong, int?> works, CancellationToken cancel) =>
        change.Make(() => writer.Resolve(works, cancel), cancel);

    private static byte[] Packed(IReadOnlyCollection<ulong> names)
    {
        var (bytes, at) = (new byte[8 * names.Count], 0);
        foreach (var name in names)
            BinaryPrimitives.WriteUInt64LittleEndian(bytes.AsSpan(8 * at++), name);
        return bytes;
    }

    private static IEnumerable<ulong> Unpacked(byte[] names)
    {
        for (var at = 0; at + 8 <= names.Length; at += 8)
            yield return BinaryPrimitives.ReadUInt64LittleEndian(names.AsSpan(at));
    }
}
