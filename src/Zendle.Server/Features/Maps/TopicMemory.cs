using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Sets;
using Zendle.Server.Features.Search;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Maps;

/// <summary>The works among which the topics of a set were found.</summary>
/// <param name="Key">Tells them apart from all others in one corpus.</param>
/// <param name="Works">Those of them that are works today.</param>
/// <param name="Count">How many.</param>
/// <param name="At">When they were found, UTC.</param>
/// <param name="Came">How many works of the set today are not among them.</param>
/// <param name="Gone">How many of them are not in the set today.</param>
internal sealed record FoundAmong(string Key, WorkSet Works, int Count, DateTimeOffset At, int Came, int Gone)
{
    /// <summary>Whether the set is the same today.</summary>
    public bool IsToday => Came + Gone == 0;
}

/// <summary>
/// Remembers among which works the topics of a step were found, so that topics stay while a set changes a little: what comes
/// is put into them. They are those of the step's last run, and those of today when more than half as many have changed
/// since, or when a person asks.
/// </summary>
internal sealed class TopicMemory(IDbContextFactory<ZendleContext> contexts, SinceThen since, TimeProvider clock)
{
    /// <summary>The works to find the topics of a step among.</summary>
    public async Task<FoundAmong> For(SearchView view, int stepId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var last =
            await context
                .Topics.AsNoTracking()
                .Where(t => t.StepId == stepId)
                .Select(t => new { t.Works, t.At })
                .SingleOrDefaultAsync(cancel)
            ?? await context
                .Runs.AsNoTracking()
                .Where(r => r.StepId == stepId)
                .OrderByDescending(r => r.Id)
                .Select(r => new { r.Works, r.At })
                .FirstOrDefaultAsync(cancel);
        if (last is not null)
        {
            var among = await Among(view, stepId, WorkIds.Unpack(last.Works), last.At);
            if (2 * (among.Came + among.Gone) <= among.Count)
                return among;
        }
        return await Anew(view, stepId, cancel);
    }

    /// <summary>From now on topics are found among the works that the set has today.</summary>
    public async Task<FoundAmong> Anew(SearchView view, int stepId, CancellationToken cancel)
    {
        int[] works = [.. view.Answer.InView.Members()];
        var (packed, now) = (WorkIds.Pack(works), clock.GetUtcNow());
        await using var context = await contexts.CreateDbContextAsync(cancel);
        try
        {
            var known = await context
                .Topics.Where(t => t.StepId == stepId)
                .ExecuteUpdateAsync(t => t.SetProperty(x => x.Works, packed).SetProperty(x => x.At, now), cancel);
            if (known == 0)
            {
                context.Topics.Add(
                    new()
                    {
                        StepId = stepId,
                        Works = packed,
                        At = now,
                    }
                );
                await context.SaveChangesAsync(cancel);
            }
        }
        catch (Exception e) when (e is DbUpdateException or DbException)
        {
            // Somebody else looked at the same moment, or the disk is full: the map is drawn all the same, and the next
            // look remembers.
        }
        return await Among(view, stepId, works, now);
    }

    private async Task<FoundAmong> Among(SearchView view, int stepId, int[] then, DateTimeOffset at)
    {
        var columns = view.Snapshot.Columns;
        var (today, came, gone) = await since.Of(view.Answer.InView, then);
        var works = WorkSet.Of(columns.WorkSize, today.Where(columns.IsWork));
        return new($"{stepId} {at.UtcTicks}", works, works.Count(), at, came.Length, gone);
    }
}
