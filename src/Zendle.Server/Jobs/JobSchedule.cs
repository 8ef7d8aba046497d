using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Core.Schedules;
using Zendle.Store.Made;

namespace Zendle.Server.Jobs;

/// <summary>
/// Asks for jobs when they are due. What was missed while Zendle did not run is asked for once, at the next start; a job
/// that still waits or runs is not asked for twice.
/// </summary>
internal sealed class JobSchedule(
    IDbContextFactory<ZendleContext> contexts,
    JobRunner jobs,
    IEnumerable<JobKind> kinds,
    StartUp start,
    FollowedClock clock,
    ILogger<JobSchedule> log
) : BackgroundService
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(5),
        Seldom = TimeSpan.FromMinutes(1);
    private readonly Dictionary<string, JobKind> kinds = kinds.ToDictionary(k => k.Name);

    /// <summary>Whether what is due is told by the clock of the simulated outside.</summary>
    public bool FollowsOutside => clock.IsMoved;

    /// <summary>What recurs of one kind, by subject.</summary>
    public async Task<Dictionary<int, ScheduleRow>> Of(JobKind kind, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
            .Schedules.AsNoTracking()
            .Where(s => s.Kind == kind.Name)
            .ToDictionaryAsync(s => s.Subject, cancel);
    }

    /// <summary>Sets how often a job is asked for by itself; null for never.</summary>
    public async Task Set(JobKind kind, int subject, Recurrence? every, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var row = await context.Schedules.FindAsync([kind.Name, subject], cancel);
        if (every is not { } often)
        {
            if (row is not null)
                context.Schedules.Remove(row);
        }
        else if (row?.Every != often)
        {
            if (row is null)
                context.Schedules.Add(row = new() { Kind = kind.Name, Subject = subject });
            row.Every = often;
            row.DueAt = Recurrences.Next(often, await clock.Now(cancel), TimeZoneInfo.Local);
        }
        await context.SaveChangesAsync(cancel);
    }

    /// <summary>Sets what recurs without anybody's wish.</summary>
    private async Task SetOwn(CancellationToken cancel)
    {
        foreach (var kind in kinds.Values.Where(k => k.ByItself is not null))
            await Set(kind, 0, kind.ByItself, cancel);
    }

    /// <summary>Asks for what is due.</summary>
    public async Task Tick(CancellationToken cancel)
    {
        var now = await clock.Now(cancel);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        foreach (var row in await context.Schedules.ToListAsync(cancel))
        {
            if (row.DueAt > now)
                continue;
            // First the wish, then the next date: a kill between the two asks again, and that finds the job.
            if (kinds.TryGetValue(row.Kind, out var kind))
                await jobs.Ask(kind, row.Subject);
            row.DueAt = Recurrences.Next(row.Every, now, TimeZoneInfo.Local);
            await context.SaveChangesAsync(cancel);
        }
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await start.StoreReady.WaitAsync(stoppingToken);
        var isSet = false;
        using var timer = new PeriodicTimer(clock.IsMoved ? Often : Seldom);
        do
        {
            try
            {
                if (!isSet)
                    await SetOwn(stoppingToken);
                isSet = true;
                await Tick(stoppingToken);
            }
            catch (OperationCanceledException) when (stoppingToken.IsCancellationRequested)
            {
                return;
            }
#pragma warning disable CA1031 // a full disk, a locked file: the next tick tries again
            catch (Exception e)
            {
                log.LogWarning(e, "The schedule could not be looked at; it is tried again.");
            }
#pragma warning restore CA1031
        } while (await timer.WaitForNextTickAsync(stoppingToken));
    }
}
