using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Server.Corpus;
using Zendle.Server.Features.Search;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>
/// The reference lists of gathered texts. A text that counts says what its work cites; the citation graph takes it from
/// <c>corpus.db</c>, as long as no record of the work has references. See docs/decisions/0031.
/// </summary>
internal sealed class TextLists(
    IDbContextFactory<ZendleContext> contexts,
    IDbContextFactory<CorpusContext> corpora,
    CorpusIdentity identities,
    CorpusWriter writer,
    CorpusChange change,
    CitingTexts said,
    JobRunner jobs,
    TimeProvider clock
)
{
    /// <summary>Changes whenever texts are read by other rules; those that were read by older ones are read again.</summary>
    public const int Version = 4;

    /// <summary>What ties are said to come from.</summary>
    public const string Name = "From the text";

    private static readonly SemaphoreSlim OneAtATime = new(1, 1);

    /// <summary>Notes what was read out of a document. Several works may bring one file at the same moment.</summary>
    public static Task Note(ZendleContext context, string hash, DocumentFacts facts, CancellationToken cancel) =>
        Note(
            context,
            hash,
            RecordCodec.References([.. facts.References.Select(PrintedReference.Read)]),
            CitingTexts.Written(facts.Citations),
            GatheredTexts.Written(facts.Text),
            cancel
        );

    /// <summary>Notes that a document has nothing to be read, so that nobody tries again.</summary>
    public static Task NoteNothing(ZendleContext context, string hash, CancellationToken cancel) =>
        Note(context, hash, [], [], [], cancel);

    private static Task<int> Note(
        ZendleContext context,
        string hash,
        byte[] references,
        byte[] citations,
        byte[] pages,
        CancellationToken cancel
    ) =>
        context.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO TextReadings (Hash, Version, "References", Citations, Pages)
            VALUES ({hash}, {Version}, {references}, {citations}, {pages})
            ON CONFLICT (Hash) DO UPDATE SET Version = excluded.Version, "References" = excluded."References",
                Citations = excluded.Citations, Pages = excluded.Pages
            """,
            cancel
        );

    /// <summary>Brings what <c>corpus.db</c> says of some works to what their texts say, and shows it.</summary>
    /// <param name="works">The works, under the numbers their texts were taken in for.</param>
    /// <param name="cancel">Stops before it is written.</param>
    public async Task Show(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        if (works.Count == 0)
            return;
        said.Changed();
        await OneAtATime.WaitAsync(cancel);
        try
        {
            await Write(await Lists(works, cancel), cancel);
        }
        finally
        {
            OneAtATime.Release();
        }
    }

    /// <summary>
    /// At the start: says in <c>corpus.db</c> what the texts say, where it lacks that; texts that were never read for it, or by
    /// older rules, are read behind the start. O(texts).
    /// </summary>
    public async Task BringBack(CancellationToken cancel)
    {
        await using (var made = await contexts.CreateDbContextAsync(cancel))
        {
            HashSet<int> works = [.. await made.Texts.ThatCount().Select(t => t.WorkId).Distinct().ToListAsync(cancel)];
            await using (var corpus = await corpora.CreateDbContextAsync(cancel))
                works.UnionWith(
                    await corpus
                        .AddedLists.Where(l => l.WorkId > 0)
                        .Select(l => l.WorkId)
                        .Distinct()
                        .ToListAsync(cancel)
                );
            await Show(works, cancel);
        }
        if ((await Unread(cancel)).Count > 0)
            await jobs.Ask(ReadTextsJob.Kind, 0, again: true);
    }

    /// <summary>Files of texts that count and were not read by today's rules.</summary>
    public async Task<List<string>> Unread(CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        return await made
            .Texts.ThatCount()
            .Select(t => t.Hash)
            .Distinct()
            .Where(h => !made.TextReadings.Any(r => r.Hash == h && r.Version == Version))
            .ToListAsync(cancel);
    }

    /// <summary>The works that texts of a file were taken in for.</summary>
    public async Task<List<int>> WorksOf(string hash, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        return await made
            .Texts.ThatCount()
            .Where(t => t.Hash == hash)
            .Select(t => t.WorkId)
            .Distinct()
            .ToListAsync(cancel);
    }

    private async Task Write(PreparedList[] lists, CancellationToken cancel)
    {
        int source;
        await using (var corpus = await corpora.CreateDbContextAsync(cancel))
        {
            var there = await corpus.TieSources.SingleOrDefaultAsync(s => s.Address == TieSourceRow.OfTexts, cancel);
            if (there is null)
            {
                if (Array.TrueForAll(lists, l => l.IsEmpty))
                    return;
                corpus.TieSources.Add(
                    there = new()
                    {
                        Id = await identities.NumberFor(TieSourceRow.OfTexts, null, Name, cancel),
                        Address = TieSourceRow.OfTexts,
                        Name = Name,
                        At = clock.GetUtcNow(),
                    }
                );
                await corpus.SaveChangesAsync(cancel);
            }
            source = there.Id;
        }
        await change.MakeIfAny(() => writer.Add(source, lists, cancel), CancellationToken.None);
    }

    /// <summary>What the texts of works say they cite: the version of record rather than another, the newest of those.</summary>
    private async Task<PreparedList[]> Lists(IReadOnlyCollection<int> works, CancellationToken cancel)
    {
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var lists = new List<PreparedList>(works.Count);
        foreach (var chunk in works.Chunk(500))
        {
            var texts = (await made.ThatWereRead().Where(t => chunk.Contains(t.WorkId)).ToListAsync(cancel))
                .Where(t => t.References.Length > 0)
                .ToLookup(t => t.WorkId);
            lists.AddRange(
                chunk.Select(work => new PreparedList(
                    work,
                    0,
                    texts[work].BestFirst().Select(t => t.References).FirstOrDefault([])
                ))
            );
        }
        return [.. lists];
    }
}
