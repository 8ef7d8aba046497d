using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Connect.Harvest;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Databases;

/// <summary>
/// Copies what is new in a database. Each page is one transaction with the token that leads on, so a stop or a kill
/// loses nothing. Of a service that does not keep word of deletions everything is asked for anew now and then, to see
/// what has vanished. Lists are not ordered by datestamp: a token that has expired restarts the run with the same
/// "from"; records already taken cost a look each.
/// </summary>
internal sealed class HarvestJob(
    OaiClient oai,
    IDbContextFactory<CorpusContext> contexts,
    CorpusWriter writer,
    CorpusChange change,
    MadeOn madeOn,
    JobRunner jobs,
    FollowedClock followed,
    TimeProvider clock
) : IJob
{
    /// <summary>Harvests of databases, one after another.</summary>
    public static readonly JobKind Kind = new("harvest", JobOwner.Installation);

    private const int MostRestarts = 3,
        MostEmptyPages = 20;

    /// <summary>
    /// How long a harvest goes on while others wait; then they have their turn, and it goes on after them.
    /// </summary>
    private static readonly TimeSpan Turn = TimeSpan.FromMinutes(2);

    /// <summary>How long what changed is enough where a service does not keep word of what it deletes.</summary>
    internal static readonly TimeSpan WholeEvery = TimeSpan.FromDays(30);
    private static readonly TimeSpan ShowEvery = TimeSpan.FromSeconds(3);

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var database =
            await context.Databases.AsNoTracking().SingleOrDefaultAsync(d => d.Id == job.Subject, cancel)
            ?? throw new JobFaultException("The database no longer exists.");
        var tells = database.DeletedRecord.Length > 0 ? database.DeletedRecord : await Tells(context, database, cancel);
        // The first run brings everything; there is nothing yet that could have vanished.
        var isWhole = database.RunStarted is not null
            ? database.RunIsWhole
            : database.HarvestedUntil is not null
                && (
                    database.WholeAsked
                    || (
                        tells is "no" or "transient"
                        && clock.GetUtcNow() - (database.WholeAt ?? database.HarvestedAt ?? default) > WholeEvery
                    )
                );
        var from = database.HarvestedUntil is { } until && !isWhole ? Moment(until, database.Granularity) : null;
        var report = database.RunStarted is null ? HarvestReport.Empty : HarvestReport.Of(job.Report);
        job.Report = report.Written();
        var (token, started) = (database.Token, database.RunStarted);
        (job.Done, job.Changed) = (database.RunDone, database.RunChanged);
        var (restarts, emptyPages, shown, pause, seen) = (0, 0, clock.GetTimestamp(), ShowEvery, new HashSet<string>());
        var begun = clock.GetTimestamp();
        var today = await followed.Today(cancel);
        // Before the first record is looked at it is noted that this is begun: should the process end in it, again and
        // again, a start leaves it alone.
        var noted = 0;
        void Begin()
        {
            if (Interlocked.Exchange(ref noted, 1) == 1)
                return;
            job.Begun++;
            save().GetAwaiter().GetResult();
        }
        // While one page is written the next is on its way, read into records; a stop leaves it behind.
        using var ahead = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        Task<OaiPage<PreparedRecord>>? coming = null;
        Task<OaiPage<PreparedRecord>> Fetch(string? at) =>
            oai.Records(
                new(database.Address),
                database.Format,
                database.SetName,
                from,
                at,
                record =>
                {
                    Begin();
                    return HarvestedRecords.Of(database.Id, record, today);
                },
                wait =>
                {
                    job.Message = wait;
                    _ = save();
                },
                ahead.Token
            );
        try
        {
            do
            {
                cancel.ThrowIfCancellationRequested();
                if (token is not null && !seen.Add(token))
                    throw new JobFaultException(
                        $"{database.Name} gives the same resumption token again and again. What was received is kept; try again later."
                    );
                OaiPage<PreparedRecord> page;
                try
                {
                    page = await (coming ?? Fetch(token));
                }
                catch (HarvestFaultException e)
                    when (e.Code == "badResumptionToken" && token is not null && restarts++ < MostRestarts)
                {
                    (token, started, coming) = (null, null, null);
                    seen.Clear();
                    job.Message =
                        $"{database.Name} no longer accepts its resumption token; this list is harvested from its start again.";
                    continue;
                }
                started ??= page.ResponseDate;
                emptyPages = page.Records.Count == 0 ? emptyPages + 1 : 0;
                if (emptyPages > MostEmptyPages)
                    throw new JobFaultException(
                        $"{database.Name} gives one resumption token after another, but no records. What "
                            + "was received is kept; try again later."
                    );
                coming =
                    page.Token is { } following && !seen.Contains(following)
                        ? Task.Run(() => Fetch(following), cancel)
                        : null;
                var mark = new HarvestMark(
                    page.Token,
                    started.Value,
                    isWhole,
                    [.. page.Skipped.Select(s => s.Identifier)]
                );
                var mayDelete = (isWhole && page.Token is null) || page.Records.Any(r => r.IsDeletion);
                var spokenOf = mayDelete ? await madeOn.SpokenOf(cancel) : null;
                var result = await change.Take(
                    () => writer.Write(database.Id, page.Records, mark, clock.GetUtcNow(), cancel, spokenOf),
                    cancel
                );
                report = report.With(page.Skipped, page.Mended, result.Vanished, result.Doubted);
                job.Report = report.Written();
                job.Done += page.Records.Count;
                job.Changed += result.Changed.Count;
                job.Total = Total(page.Total ?? job.Total, job.Done, page.Token is null);
                job.Message = string.Create(
                        CultureInfo.InvariantCulture,
                        $"{job.Done:N0} records checked, {job.Changed:N0} new or changed. {report.Sentence()}"
                    )
                    .TrimEnd();
                token = page.Token;
                await save();
                if (token is not null && jobs.OthersWait(Kind) && clock.GetElapsedTime(begun) > Turn)
                    throw new JobYieldException();
                // What came is shown while the harvest goes on, but never takes more than a fifth of its time.
                if (token is not null && job.Changed > 0 && clock.GetElapsedTime(shown) > pause)
                {
                    var began = clock.GetTimestamp();
                    await change.Show(isLast: false, cancel);
                    shown = clock.GetTimestamp();
                    pause = TimeSpan.FromTicks(Math.Max(ShowEvery.Ticks, clock.GetElapsedTime(began).Ticks * 4));
                }
            } while (token is not null || started is null);
        }
        catch (HarvestFaultException e)
        {
            throw new JobFaultException($"{e.Message} What was received is kept; the harvest can be resumed.", e);
        }
        finally
        {
            await ahead.CancelAsync();
            if (coming is not null)
                await coming.ContinueWith(
                    _ => { },
                    CancellationToken.None,
                    TaskContinuationOptions.None,
                    TaskScheduler.Default
                );
            await change.Show(isLast: true, CancellationToken.None);
        }
        var changed =
            job.Changed == 0
                ? "Nothing has changed since the last harvest."
                : string.Create(
                    CultureInfo.InvariantCulture,
                    $"{job.Changed:N0} {(job.Changed == 1 ? "record" : "records")} new or changed."
                );
        job.Message = $"{changed} {report.Sentence()}".TrimEnd();
    }

    /// <summary>How many records there will be: what the service says, as long as that can be.</summary>
    private static int? Total(int? said, int done, bool isLast) =>
        isLast ? done
        : said > done ? said
        : null;

    /// <summary>How a service that was added before this was asked tells of deletions.</summary>
    private async Task<string> Tells(CorpusContext context, DatabaseRow database, CancellationToken cancel)
    {
        try
        {
            var tells = (await oai.Identify(new(database.Address), cancel)).DeletedRecord;
            await context
                .Databases.Where(d => d.Id == database.Id)
                .ExecuteUpdateAsync(u => u.SetProperty(d => d.DeletedRecord, tells), cancel);
            return tells;
        }
        catch (HarvestFaultException)
        {
            return "";
        } // it will be asked again; the harvest says what is wrong
    }

    private static string Moment(DateTimeOffset t, string granularity) =>
        t.UtcDateTime.ToString(
            granularity.Length > 10 ? "yyyy-MM-ddTHH:mm:ssZ" : "yyyy-MM-dd",
            CultureInfo.InvariantCulture
        );
}
