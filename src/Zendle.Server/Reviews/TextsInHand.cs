using Microsoft.EntityFrameworkCore;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Reviews;

/// <summary>The documents of a review that count as texts.</summary>
internal sealed class TextsInHand(IDbContextFactory<ZendleContext> contexts, CorpusReader reader)
{
    /// <summary>
    /// By work: its documents, that one first which is its text. A document stays with the number its work had; that may
    /// stand for another work by now. O(documents of the review).
    /// </summary>
    public async Task<ILookup<int, TextRow>> Of(int reviewId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var texts = await context
            .Texts.AsNoTracking()
            .ThatCount()
            .Where(t => t.ReviewId == reviewId)
            .ToListAsync(cancel);
        var today = await reader.Redirects([.. texts.Select(t => t.WorkId).Distinct()], cancel);
        return texts.BestFirst().ToLookup(t => today.GetValueOrDefault(t.WorkId, t.WorkId));
    }
}
