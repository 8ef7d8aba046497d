using Microsoft.EntityFrameworkCore;
using Zendle.Index.Columns;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Maps;

/// <summary>On which day works were first found in a review: the day of the first logged run that has them.</summary>
internal sealed class FoundDays(IDbContextFactory<ZendleContext> contexts, CorpusReader reader, TimeProvider clock)
{
    /// <summary>
    /// By work: the number of the day it was found (<see cref="DateOnly.DayNumber"/>); none for a work that no run had.
    /// Reads runs from the first one on until all works are found.
    /// </summary>
    public async Task<IReadOnlyDictionary<int, int>> Of(
        int reviewId,
        int[] works,
        CorpusColumns columns,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var (days, zone) = (new Dictionary<int, int>(works.Length), clock.LocalTimeZone);
        var wanted = works.ToHashSet();
        await foreach (
            var run in context
                .Runs.AsNoTracking()
                .Where(r => r.ReviewId == reviewId)
                .OrderBy(r => r.Id)
                .Select(r => new { r.At, r.Works })
                .AsAsyncEnumerable()
                .WithCancellation(cancel)
        )
        {
            var had = WorkIds.Unpack(run.Works);
            // Most are works still; only what was merged since is looked up.
            var today = await reader.Redirects([.. had.Where(w => !columns.IsWork(w))], cancel);
            var day = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(run.At, zone).Date).DayNumber;
            foreach (var work in had.Select(w => today.GetValueOrDefault(w, w)))
                if (wanted.Remove(work))
                    days[work] = day;
            if (wanted.Count == 0)
                break;
        }
        return days;
    }
}
