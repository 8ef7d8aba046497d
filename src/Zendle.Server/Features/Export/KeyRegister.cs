using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Export;

/// <summary>
/// Knows under which key each review cites each work. A key that was in an export once is never given to another work
/// of the review.
/// </summary>
internal sealed class KeyRegister(IDbContextFactory<ZendleContext> contexts, CorpusReader reader) : IDisposable
{
    private readonly SemaphoreSlim giving = new(1, 1);

    /// <summary>
    /// Citations with their keys; works that have none yet are given one. O(keys of the review + citations).
    /// </summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="citations">What is exported.</param>
    /// <param name="cancel">Stops before anything is written.</param>
    public async Task<List<Citation>> Keyed(int reviewId, IReadOnlyList<Citation> citations, CancellationToken cancel)
    {
        await giving.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            var rows = await context
                .CitationKeys.AsNoTracking()
                .Where(k => k.ReviewId == reviewId)
                .Select(k => new { k.Key, k.WorkId })
                .ToListAsync(cancel);
            var today = await reader.Redirects([.. rows.Select(r => r.WorkId)], cancel);
            // Of a work that others were merged into its own key holds, then the one of the oldest.
            var known = rows.GroupBy(r => today.GetValueOrDefault(r.WorkId, r.WorkId))
                .ToDictionary(
                    g => g.Key,
                    g =>
                        g.OrderBy(r => r.WorkId != g.Key)
                            .ThenBy(r => r.WorkId)
                            .ThenBy(r => r.Key, StringComparer.Ordinal)
                            .First()
                            .Key
                );
            Citation[] fresh = [.. citations.Where(c => !known.ContainsKey(c.WorkId)).DistinctBy(c => c.WorkId)];
            if (fresh.Length > 0)
            {
                foreach (
                    var (citation, key) in fresh.Zip(
                        CitationKeys.For(fresh, rows.Select(r => r.Key).ToHashSet(StringComparer.Ordinal))
                    )
                )
                {
                    known[citation.WorkId] = key;
                    context.CitationKeys.Add(
                        new()
                        {
                            ReviewId = reviewId,
                            Key = key,
                            WorkId = citation.WorkId,
                        }
                    );
                }
                await context.SaveChangesAsync(cancel);
            }
            return [.. citations.Select(c => c with { Key = known[c.WorkId] })];
        }
        finally
        {
            giving.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => giving.Dispose();
}
