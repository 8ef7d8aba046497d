using System.Collections.Concurrent;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Zendle.Server.Features.Databases;
using Zendle.Server.Features.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Jobs;

/// <summary>
/// Runs jobs in the order asked for, those of one kind one after another; a long harvest does not keep texts waiting. Their state is in
/// the store: one that a kill interrupted goes on at the next start where it left off.
/// </summary>
internal sealed class JobRunner(IDbContextFactory<ZendleContext> contexts, IServiceProvider services, StartUp start, EventHub hub, TimeProvider clock, ILogger<JobRunner> log) : BackgroundService
{
    private static readonly string[] Kinds = ["harvest", "gather"];
    private readonly Dictionary<string, Channel<int>> waiting = Kinds.ToDictionary(k => k, _ => Channel.CreateUnbounded<int>());
    private readonly ConcurrentDictionary<int, CancellationTokenSource> running = new();
    private readonly ConcurrentDictionary<int, TaskCompletionSource> ends = new();

    /// <summary>Asks for a job; one of the same kind on the same subject that still waits or runs is taken instead.</summary>
    public async Task<JobRow> Ask(string kind, int subject)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var same = await context.Jobs.FirstOrDefaultAsync(j => j.Kind == kind && j.Subject == subject && (j.State == JobState.Waiting || j.State == JobState.Running));
        if (same is not null) return same;
        var job = new JobRow { Kind = kind, Subject = subject, State = JobState.Waiting, Message = "Waits its turn.", CreatedAt = clock.GetUtcNow() };
        context.Jobs.Add(job);
        await context.SaveChangesAsync();
        Tell(job);
        waiting[kind].Writer.TryWrite(job.Id);
        return job;
    }

    /// <summary>Sets a job that failed or was stopped going again; it goes on where it was.</summary>
    public async Task<bool> Resume(int id)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var job = await context.Jobs.SingleOrDefaultAsync(j => j.Id == id && (j.State == JobState.Failed || j.State == JobState.Stopped));
        if (job is null) return false;
        (job.State, job.Message, job.EndedAt) = (JobState.Waiting, "Waits its turn.", null);
        await context.SaveChangesAsync();
        Tell(job);
        waiting[job.Kind].Writer.TryWrite(id);
        return true;
    }

    /// <summary>Stops a job that waits or runs; what it has done stays.</summary>
    public async Task<bool> Stop(int id)
    {
        if (running.TryGetValue(id, out var source))
        {
            await source.CancelAsync();
            return true;
        }
        await using var context = await contexts.CreateDbContextAsync();
        return await context.Jobs.Where(j => j.Id == id && j.State == JobState.Waiting).ExecuteUpdateAsync(u => u.SetProperty(j => j.State, JobState.Stopped).SetProperty(j => j.Message, "Stopped before it began.").SetProperty(j => j.EndedAt, clock.GetUtcNow())) > 0;
    }

    /// <summary>Waits until a job has ended, one way or another.</summary>
    public async Task Ended(int id)
    {
        // Listen first, then look: an end between the two is seen either way.
        var end = ends.GetOrAdd(id, _ => new(TaskCreationOptions.RunContinuationsAsynchronously)).Task;
        await using var context = await contexts.CreateDbContextAsync();
        if (!await context.Jobs.AnyAsync(j => j.Id == id && j.EndedAt != null)) await end;
    }

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (!start.IsStoreReady) await Task.Delay(20, stoppingToken);
        await using (var context = await contexts.CreateDbContextAsync(stoppingToken))
            foreach (var job in await context.Jobs.Where(j => j.State == JobState.Running || j.State == JobState.Waiting).OrderBy(j => j.Id).Select(j => new { j.Id, j.Kind }).ToListAsync(stoppingToken))
                waiting[job.Kind].Writer.TryWrite(job.Id);
        await Task.WhenAll(waiting.Values.Select(lane => Task.Run(() => Work(lane, stoppingToken), stoppingToken)));
    }

    private async Task Work(Channel<int> lane, CancellationToken stopping)
    {
        await foreach (var id in lane.Reader.ReadAllAsync(stopping)) await Run(id, stopping);
    }

    private async Task Run(int id, CancellationToken stopping)
    {
        await using var context = await contexts.CreateDbContextAsync(stopping);
        var job = await context.Jobs.SingleAsync(j => j.Id == id, stopping);
        if (job.State is not (JobState.Waiting or JobState.Running)) return;
        using var source = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        running[id] = source;
        // A job may tell how it stands from several tasks at once; the row is written by one at a time.
        using var saving = new SemaphoreSlim(1, 1);
        async Task Save()
        {
            await saving.WaitAsync(CancellationToken.None);
            try { await context.SaveChangesAsync(CancellationToken.None); }
            finally { saving.Release(); }
            Tell(job);
        }
        try
        {
            (job.State, job.Message) = (JobState.Running, "Begins.");
            await Save();
            await services.GetRequiredKeyedService<IJob>(job.Kind).Run(job, Save, source.Token);
            job.State = JobState.Done;
        }
        catch (OperationCanceledException) when (stopping.IsCancellationRequested)
        {
            return; // the process ends; the row still says Running, so the next start goes on with it
        }
        catch (OperationCanceledException)
        {
            (job.State, job.Message) = (JobState.Stopped, "Stopped. What came is kept; it can go on from here.");
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            if (e is not JobFaultException) log.LogError(e, "Job {Id} failed.", id);
            (job.State, job.Message) = (JobState.Failed, e is JobFaultException ? e.Message : "Something went wrong inside Zendle; the details are in its log. What came is kept; it can go on from here.");
        }
        finally { running.TryRemove(id, out _); }
        job.EndedAt = clock.GetUtcNow();
        await Save();
        if (ends.TryRemove(id, out var end)) end.TrySetResult();
    }

    private void Tell(JobRow job) => hub.Tell(new("job", null, JobDto.Of(job)));
}

/// <summary>Long work of one kind.</summary>
internal interface IJob
{
    /// <summary>Does the work from where it stands; writes progress into the row and saves it now and then.</summary>
    Task Run(JobRow job, Func<Task> save, CancellationToken cancel);
}

/// <summary>A fault that is told to the person as it is.</summary>
internal sealed class JobFaultException(string sentence, Exception? inner = null) : Exception(sentence, inner);
