using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Core.FullText;
using Zendle.Core.Schedules;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>
/// Frees the copies whose embargo has ended, every night, and seeks the texts again that were held back until then, for
/// whoever asked for them.
/// </summary>
internal sealed class OpeningsJob(
    CorpusWriter writer,
    CorpusReader reader,
    CorpusChange change,
    GatherService gather,
    IDbContextFactory<ZendleContext> contexts,
    FollowedClock clock
) : IJob
{
    /// <summary>There is one for all; the subject is 0.</summary>
    public static readonly JobKind Kind = new("openings", JobOwner.Installation) { ByItself = Recurrence.EveryNight };

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        var today = await clock.Today(cancel);
        var opened = await change.Take(() => writer.OpenCopies(today, cancel), cancel);
        if (opened.Changed.Count > 0)
            await change.Show(isLast: true, cancel);
        var sought = 0;
        foreach (var held in (await HeldBack(cancel)).GroupBy(h => (h.ReviewId, h.AccountId)))
            sought += (
                await gather.Seek(held.Key.ReviewId, held.Key.AccountId, [.. held.Select(h => h.WorkId)], again: true)
            ).Sought;
        job.Message = string.Create(
            CultureInfo.InvariantCulture,
            $"{opened.Changed.Count:N0} records with copies that have become free; {sought:N0} texts sought again."
        );
    }

    /// <summary>
    /// Works in vain that had more copies under embargo when they were tried last than they have now. What was freed before a
    /// kill is seen all the same.
    /// </summary>
    private async Task<List<SoughtRow>> HeldBack(CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var tried = await context
            .Sought.AsNoTracking()
            .Where(s => s.State == SoughtState.NotFound || s.State == SoughtState.SignIn)
            .Select(s => new
            {
                Row = s,
                Held = context.Attempts.Count(a =>
                    a.ReviewId == s.ReviewId
                    && a.WorkId == s.WorkId
                    && a.Round == s.Round
                    && a.Outcome == AttemptOutcome.Embargoed
                ),
            })
            .Where(s => s.Held > 0)
            .ToListAsync(cancel);
        var redirects = await reader.Redirects([.. tried.Select(t => t.Row.WorkId).Distinct()], cancel);
        int Today(int work) => redirects.GetValueOrDefault(work, work);
        var records = await reader.OfWorks([.. tried.Select(t => Today(t.Row.WorkId)).Distinct()], cancel);
        var due = new List<SoughtRow>();
        foreach (var one in tried)
        {
            one.Row.WorkId = Today(one.Row.WorkId);
            var closed = records[one.Row.WorkId]
                .SelectMany(r => r.Record.Copies)
                .Where(c => c.OpensOn is not null)
                .DistinctBy(c => c.Address)
                .Count();
            if (closed < one.Held)
                due.Add(one.Row);
        }
        return due;
    }
}
