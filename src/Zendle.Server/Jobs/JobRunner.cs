using System.Collections.Concurrent;
using System.Threading.Channels;
using Microsoft.EntityFrameworkCore;
using Zendle.Server.Events;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Server.Jobs;

/// <summary>
/// Runs jobs in the order asked for, those of one kind one after another; a long harvest does not keep texts waiting.
/// Their state is in the store: one that a kill interrupted goes on at the next start where it left off, unless it is
/// the job that ends the process.
/// </summary>
/// <remarks>
/// A lane outlives whatever one of its jobs does. How a job ended is told at once, even while it cannot be written down
/// because the disk is full.
/// </remarks>
internal sealed class JobRunner(
    IDbContextFactory<ZendleContext> contexts,
    IServiceProvider services,
    IEnumerable<JobKind> kinds,
    StartUp start,
    EventHub hub,
    TimeProvider clock,
    ILogger<JobRunner> log
) : BackgroundService
{
    /// <summary>
    /// How often a process may end while a job takes in one and the same thing before a start leaves the job alone.
    /// More than twice: a machine that is switched off again and again at the wrong moment is no fault of what was
    /// being taken in.
    /// </summary>
    private const int MostDeaths = 4;

    private static readonly TimeSpan Between = TimeSpan.FromSeconds(1);
    private readonly Dictionary<string, (JobKind Kind, Channel<int> Waiting)> lanes = kinds.ToDictionary(
        k => k.Name,
        k => (k, Channel.CreateUnbounded<int>())
    );
    private readonly ConcurrentDictionary<int, CancellationTokenSource> running = new();
    private readonly ConcurrentDictionary<int, TaskCompletionSource> ends = new();
    private readonly ConcurrentDictionary<int, JobRow> unwritten = new();
    private readonly ConcurrentDictionary<int, bool> askedAgain = new();
    private readonly SemaphoreSlim asking = new(1, 1);

    /// <summary>
    /// Asks for a job; one of the same kind on the same subject that still waits or runs is taken instead.
    /// </summary>
    /// <param name="kind">Kind of the job.</param>
    /// <param name="subject">What it works on.</param>
    /// <param name="again">Whether a job that runs already is to look once more before it ends: for work that may have
    /// come after it looked last.</param>
    public async Task<JobRow> Ask(JobKind kind, int subject, bool again = false)
    {
        await asking.WaitAsync();
        try
        {
            await using var context = await contexts.CreateDbContextAsync();
            var same = await context
                .Jobs.AsNoTracking()
                .FirstOrDefaultAsync(j =>
                    j.Kind == kind.Name
                    && j.Subject == subject
                    && (j.State == JobState.Waiting || j.State == JobState.Running)
                );
            if (same is not null && !unwritten.ContainsKey(same.Id))
            {
                if (again)
                    askedAgain[same.Id] = true;
                // It may have ended between the look and the wish: then the wish is carried out here.
                if (
                    !again
                    || await context.Jobs.AnyAsync(j => j.Id == same.Id && j.EndedAt == null)
                    || !askedAgain.TryRemove(same.Id, out _)
                )
                    return same;
            }
            var job = new JobRow
            {
                Kind = kind.Name,
                Subject = subject,
                State = JobState.Waiting,
                Message = "Waiting.",
                CreatedAt = clock.GetUtcNow(),
            };
            context.Jobs.Add(job);
            await context.SaveChangesAsync();
            Tell(job);
            lanes[kind.Name].Waiting.Writer.TryWrite(job.Id);
            return job;
        }
        finally
        {
            asking.Release();
        }
    }

    /// <summary>Sets a job that failed or was stopped going again; it goes on where it was.</summary>
    public async Task<bool> Resume(int id)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var job = await context.Jobs.SingleOrDefaultAsync(j =>
            j.Id == id && (j.State == JobState.Failed || j.State == JobState.Stopped)
        );
        if (job is null || !lanes.TryGetValue(job.Kind, out var lane))
            return false;
        (job.State, job.Message, job.EndedAt, job.Begun) = (JobState.Waiting, "Waiting.", null, 0);
        await context.SaveChangesAsync();
        Tell(job);
        lane.Waiting.Writer.TryWrite(id);
        return true;
    }

    /// <summary>Stops a job that waits or runs; what it has done stays.</summary>
    public async Task<bool> Stop(int id)
    {
        if (running.TryGetValue(id, out var source))
        {
            try
            {
                await source.CancelAsync();
            }
            catch (ObjectDisposedException)
            {
                return false;
            } // it has just ended
            return true;
        }
        await using var context = await contexts.CreateDbContextAsync();
        return await context
                .Jobs.Where(j => j.Id == id && j.State == JobState.Waiting)
                .ExecuteUpdateAsync(u =>
                    u.SetProperty(j => j.State, JobState.Stopped)
                        .SetProperty(j => j.Message, "Stopped before it began.")
                        .SetProperty(j => j.EndedAt, clock.GetUtcNow())
                ) > 0;
    }

    /// <summary>Waits until a job has ended, one way or another.</summary>
    public async Task Ended(int id)
    {
        // Listen first, then look: an end between the two is seen either way.
        var end = ends.GetOrAdd(id, _ => new(TaskCreationOptions.RunContinuationsAsynchronously)).Task;
        await using var context = await contexts.CreateDbContextAsync();
        if (!await context.Jobs.AnyAsync(j => j.Id == id && j.EndedAt != null))
            await end;
    }

    /// <summary>A job as it stands: as it was read, or how it ended when that could not be written down yet.</summary>
    public JobRow AsItStands(JobRow read) => unwritten.GetValueOrDefault(read.Id, read);

    /// <summary>Whether a job of a kind waits or runs for a subject.</summary>
    public async Task<bool> IsRunning(JobKind kind, int subject) => (await Running(kind, subject)).Count > 0;

    /// <summary>The jobs of a kind that wait or run for a subject.</summary>
    public async Task<List<int>> Running(JobKind kind, int subject)
    {
        await using var context = await contexts.CreateDbContextAsync();
        return await context
            .Jobs.Where(j =>
                j.Kind == kind.Name
                && j.Subject == subject
                && (j.State == JobState.Waiting || j.State == JobState.Running)
            )
            .Select(j => j.Id)
            .ToListAsync();
    }

    /// <summary>Whether no job runs or waits for its turn.</summary>
    public bool IsIdle => running.IsEmpty && lanes.Values.All(lane => lane.Waiting.Reader.Count == 0);

    /// <summary>Whether other jobs of a kind wait for the one that runs.</summary>
    public bool OthersWait(JobKind kind) => lanes[kind.Name].Waiting.Reader.Count > 0;

    /// <inheritdoc/>
    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await start.StoreReady.WaitAsync(stoppingToken);
        await Survive(
            "looking for jobs to go on with",
            async () =>
            {
                await using var context = await contexts.CreateDbContextAsync(stoppingToken);
                foreach (
                    var job in await context
                        .Jobs.Where(j => j.State == JobState.Running || j.State == JobState.Waiting)
                        .OrderBy(j => j.Id)
                        .ToListAsync(stoppingToken)
                )
                {
                    if (job.Begun < MostDeaths)
                    {
                        if (lanes.TryGetValue(job.Kind, out var lane))
                            lane.Waiting.Writer.TryWrite(job.Id);
                        continue;
                    }
                    (job.State, job.EndedAt) = (JobState.Failed, clock.GetUtcNow());
                    job.Message =
                        "Zendle stopped several times while it worked on the next part, so this job was not "
                        + "started again automatically. What was received is kept; the job can be resumed.";
                    await context.SaveChangesAsync(stoppingToken);
                    Tell(job);
                }
            },
            stoppingToken
        );
        await Task.WhenAll(
            lanes.Values.Select(lane => Task.Run(() => Work(lane.Waiting, stoppingToken), stoppingToken))
        );
    }

    private async Task Work(Channel<int> lane, CancellationToken stopping)
    {
        await foreach (var id in lane.Reader.ReadAllAsync(stopping))
            await Survive($"job {id}", () => Run(id, lane, stopping), stopping);
    }

    /// <summary>Does something whose failure must not end the lane.</summary>
    private async Task Survive(string what, Func<Task> act, CancellationToken stopping)
    {
        try
        {
            await act();
        }
        catch (OperationCanceledException) when (stopping.IsCancellationRequested)
        {
            throw;
        }
#pragma warning disable CA1031 // whatever it was: the lane goes on with the next job
        catch (Exception e)
        {
            log.LogError(e, "Something failed outside a job's own work: {What}.", what);
        }
#pragma warning restore CA1031
    }

    private async Task Run(int id, Channel<int> lane, CancellationToken stopping)
    {
        await using var context = await contexts.CreateDbContextAsync(stopping);
        var job = await context.Jobs.SingleAsync(j => j.Id == id, stopping);
        if (job.State is not (JobState.Waiting or JobState.Running))
            return;
        using var source = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        running[id] = source;
        var (yields, progress) = (false, (job.Done, job.Changed));
        // A job may tell how it stands from several tasks at once; the row is written by one at a time.
        using var saving = new SemaphoreSlim(1, 1);
        async Task Save()
        {
            await saving.WaitAsync(CancellationToken.None);
            try
            {
                // What has come further did not end the process.
                if ((job.Done, job.Changed) != progress && job.State == JobState.Running)
                    (job.Begun, progress) = (0, (job.Done, job.Changed));
                await context.SaveChangesAsync(CancellationToken.None);
            }
            finally
            {
                saving.Release();
            }
            Tell(job);
        }
        try
        {
            (job.State, job.Message) = (JobState.Running, "Starting.");
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
            (job.State, job.Message) = (JobState.Stopped, "Stopped. What was received is kept; it can be resumed.");
        }
        catch (JobYieldException)
        {
            (job.State, job.Message, yields) = (JobState.Waiting, "Waiting; continues after the other jobs.", true);
        }
#pragma warning disable CA1031 // a job may fail in any way; the lane and its person are told
        catch (Exception e)
        {
            if (e is not JobFaultException)
                log.LogError(e, "Job {Id} failed.", id);
            (job.State, job.Message) = (
                JobState.Failed,
                e is JobFaultException ? e.Message
                : DiskFull.Is(e) ? $"{DiskFull.Sentence} What was received is kept; free some space, then resume it."
                : "Something went wrong inside Zendle; the details are in its log. What was received is kept; it can be resumed."
            );
        }
#pragma warning restore CA1031
        finally
        {
            running.TryRemove(id, out _);
        }
        var isAsked = askedAgain.TryRemove(id, out _) && job.State == JobState.Done;
        if (isAsked)
            job.State = JobState.Waiting;
        job.Begun = 0;
        if (!yields && !isAsked)
            job.EndedAt = clock.GetUtcNow();
        await WriteDown(job, Save, stopping);
        // A wish that came while the end was being written down has seen a job that runs; it is carried out here.
        if (job.State == JobState.Done && askedAgain.TryRemove(id, out _))
        {
            (isAsked, job.State, job.EndedAt) = (true, JobState.Waiting, null);
            await WriteDown(job, Save, stopping);
        }
        if (yields || isAsked)
            lane.Writer.TryWrite(id);
        else if (ends.TryRemove(id, out var end))
            end.TrySetResult();
    }

    /// <summary>
    /// Writes down how a job ended; while there is no room for that it is told from memory, and tried again.
    /// </summary>
    private async Task WriteDown(JobRow job, Func<Task> save, CancellationToken stopping)
    {
        for (var isFirst = true; ; isFirst = false)
        {
            try
            {
                await save();
                unwritten.TryRemove(job.Id, out _);
                return;
            }
            catch (Exception e) when (e is DbUpdateException or Microsoft.Data.Sqlite.SqliteException or IOException)
            {
                if (!isFirst)
                {
                    await Task.Delay(Between, clock, stopping);
                    continue;
                }
                log.LogWarning(e, "How job {Id} ended cannot be written down yet.", job.Id);
                unwritten[job.Id] = job;
                Tell(job);
            }
        }
    }

    private void Tell(JobRow job)
    {
        if (lanes.TryGetValue(job.Kind, out var lane))
            hub.Tell(new("job", lane.Kind.ReviewOf(job), JobDto.Of(job)));
    }
}

/// <summary>Long work of one kind.</summary>
internal interface IJob
{
    /// <summary>Does the work from where it stands; writes progress into the row and saves it now and then.</summary>
    /// <exception cref="JobFaultException">It cannot go on; the message is told to the person.</exception>
    /// <exception cref="JobYieldException">It steps back behind the others that wait.</exception>
    Task Run(JobRow job, Func<Task> save, CancellationToken cancel);
}

/// <summary>A fault that is told to the person as it is.</summary>
internal sealed class JobFaultException(string sentence, Exception? inner = null) : Exception(sentence, inner);

/// <summary>
/// A job has had its time while others wait: it goes to the end of its lane, and on from where it is when its turn
/// comes.
/// </summary>
internal sealed class JobYieldException() : Exception("The job goes on later.");
