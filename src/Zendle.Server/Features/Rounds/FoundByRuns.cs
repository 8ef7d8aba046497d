using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Rounds;

/// <summary>
/// The works that the searches of a review found when they were run. A run never changes, so those of a review are read
/// once, and later ones added; what is remembered is bounded in bytes.
/// </summary>
internal sealed class FoundByRuns
{
    private const long MostRemembered = 4L << 20;
    private readonly BoundedCache<int, Found> known = new(MostRemembered);

    /// <summary>What some runs found.</summary>
    /// <param name="Runs">Their ids, ascending.</param>
    /// <param name="Works">Ids of the works as they were then, each once.</param>
    private sealed record Found(int[] Runs, int[] Works)
    {
        public long Bytes => 4L * (Runs.Length + Works.Length);
    }

    /// <summary>The works found by the runs of record of a review; by all its runs where none is of record.</summary>
    /// <param name="context">The store.</param>
    /// <param name="reviewId">The review.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>Ids as they were when the searches were run; whether only runs of record count.</returns>
    public async Task<(IReadOnlyCollection<int> Works, bool OfRecord)> Of(
        ZendleContext context,
        int reviewId,
        CancellationToken cancel
    )
    {
        var all = context.Runs.AsNoTracking().Where(r => r.ReviewId == reviewId);
        var ofRecord = await all.AnyAsync(r => r.OfRecord, cancel);
        var counting = all.Where(r => r.OfRecord || !ofRecord);
        int[] runs = [.. await counting.OrderBy(r => r.Id).Select(r => r.Id).ToListAsync(cancel)];
        // A run may be called one of record later, or no longer: then all are read anew.
        var before = known.TryGet(reviewId, out var last) && runs.AsSpan().StartsWith(last.Runs) ? last : new([], []);
        if (before.Runs.Length == runs.Length && runs.Length > 0)
            return (before.Works, ofRecord);
        var works = new HashSet<int>(before.Works);
        var newest = before.Runs.Length == 0 ? 0 : before.Runs[^1];
        await foreach (
            var run in counting
                .Where(r => r.Id > newest)
                .Select(r => new { r.State, r.Works })
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
            // What asks for the review's own decisions finds nothing: "stage:kept" is no search.
            if (SearchState.Of(StoredActs.ReadAll(run.State)) is { Expression.Length: > 0, AsksReview: false })
                works.UnionWith(WorkIds.Unpack(run.Works));
        var found = new Found(runs, [.. works]);
        known.Put(reviewId, found, found.Bytes);
        return (found.Works, ofRecord);
    }
}
