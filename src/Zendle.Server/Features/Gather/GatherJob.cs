using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Runtime.CompilerServices;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Server.Jobs;
using Zendle.Server.Libraries;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>
/// Gets the texts of a review's waiting works: for each work its routes in order until one gives the text. Several
/// works at once, each host gently. A work is written down when it is done with, so a stop or a kill loses at most what
/// was on its way.
/// </summary>
internal sealed class GatherJob(
    IDbContextFactory<ZendleContext> contexts,
    RouteChain chain,
    DocumentFetcher fetcher,
    TextIntake intake,
    TextFigures figures,
    TextLists lists,
    BooksHere books,
    BookRecords bookRecords,
    LibraryWays ways,
    LibrarySessions sessions,
    GatherProgress progress,
    TimeProvider clock
) : IJob
{
    /// <summary>Searches for texts of a review; those of several reviews one after another.</summary>
    public static readonly JobKind Kind = new("gather", JobOwner.Review);

    private const int AtOnce = 10;

    /// <summary>
    /// When a process has ended twice while a document of a work was taken in, the work is tried once more, alone and
    /// after all others, for one of those beside it may have been to blame. If that ends the process too, the work is
    /// left to a person.
    /// </summary>
    private const int Suspect = 2,
        MostDeaths = 3;

    public async Task Run(JobRow job, Func<Task> save, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var got = new ConcurrentBag<int>();
        using var saving = new SemaphoreSlim(1, 1);
        (job.Done, job.Total) = (0, 0);
        // Works asked for while the job runs are taken along.
        for (var tried = new HashSet<int>(); ; )
        {
            var waiting = (
                await context
                    .Sought.AsNoTracking()
                    .Where(s => s.ReviewId == job.Subject && s.State == SoughtState.Waiting)
                    .ToListAsync(cancel)
            )
                .Where(s => tried.Add(s.WorkId))
                .ToArray();
            if (waiting.Length == 0)
                break;
            job.Total += waiting.Length;
            await save();
            try
            {
                await Parallel.ForEachAsync(
                    waiting.Where(s => s.Begun < Suspect),
                    new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = cancel },
                    One
                );
                foreach (var suspect in waiting.Where(s => s.Begun >= Suspect))
                    await One(suspect, cancel);
            }
            finally
            {
                // What came before somebody stopped it is in hand all the same.
                await lists.Show([.. got], CancellationToken.None);
            }

            async ValueTask One(SoughtRow sought, CancellationToken stop)
            {
                var state = await Gather(sought, stop);
                if (state == SoughtState.InHand)
                    got.Add(sought.WorkId);
                await saving.WaitAsync(stop);
                try
                {
                    job.Done++;
                    job.Changed = got.Count;
                    job.Message = string.Create(
                        CultureInfo.InvariantCulture,
                        $"{job.Done} of {job.Total} tried, {got.Count} in hand."
                    );
                    await save();
                }
                finally
                {
                    saving.Release();
                }
            }
        }
        job.Message = string.Create(CultureInfo.InvariantCulture, $"{job.Done} tried, {got.Count} in hand.");
        progress.Tell(job.Subject, always: true);
    }

    private async Task<SoughtState> Gather(SoughtRow sought, CancellationToken cancel)
    {
        var (review, work) = (sought.ReviewId, sought.WorkId);
        try
        {
            progress.Say(review, work, new("begins"));
            if (sought.Begun >= MostDeaths)
                return await End(sought, [GivenUp(sought)], SoughtState.NotFound, cancel);
            var libraries = await ways.Of(sought.AccountId, cancel);
            if (await intake.Expect(work, cancel, libraries) is not { } known)
                return await End(sought, [], SoughtState.NotFound, cancel);
            var (attempts, doubtful) = (new List<AttemptRow>(), false);
            if (
                known.Expected.Type == DocumentType.Chapter
                && await OutOfBook(sought, known.Expected, cancel) is { } cut
            )
                return await End(sought, [cut], SoughtState.InHand, cancel);
            var wanted = known.Sought with { Given = sought.Given is { } given ? new(given) : null };
            // Libraries that ask for a sign-in, or have led to the publisher's page, are asked no more for this work.
            var (closed, done) = (new HashSet<int>(), new HashSet<int>());
            await foreach (var stop in Stops(sought, wanted, known.Expected, cancel))
            {
                if (stop.LibraryId is { } asked && done.Contains(asked))
                    continue;
                var attempt = await Try(sought, stop, known.Expected, known.Sought, cancel);
                attempts.Add(attempt);
                if (stop.LibraryId is { } library)
                {
                    if (new Uri(attempt.Address).AbsolutePath != stop.Address.AbsolutePath)
                        done.Add(library);
                    if (attempt.Outcome == AttemptOutcome.SignInAsked)
                    {
                        done.Add(library);
                        if (await IsStranger(sought, stop, library, known.Sought, attempt, cancel))
                        {
                            closed.Add(library);
                            await sessions.End(sought.AccountId, library, cancel);
                        }
                    }
                }
                if (attempt.Outcome == AttemptOutcome.Got)
                    return await End(sought, attempts, SoughtState.InHand, cancel);
                doubtful |= attempt.Outcome == AttemptOutcome.Doubtful;
            }
            var waits = libraries.Any(l => closed.Contains(l.Id) && l.SignIn != LibrarySignIn.None);
            return await End(
                sought,
                attempts,
                doubtful ? SoughtState.ToLookAt
                    : waits ? SoughtState.SignIn
                    : SoughtState.NotFound,
                cancel
            );
        }
        finally
        {
            progress.End(review, work);
        }
    }

    /// <summary>The addresses to try. The book of a chapter is looked for only where nothing else gave the text.</summary>
    private async IAsyncEnumerable<RouteStop> Stops(
        SoughtRow sought,
        Sought wanted,
        ExpectedWork expected,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var own = chain.Stops(wanted);
        foreach (var stop in own)
            yield return stop;
        if (
            expected.Type != DocumentType.Chapter
            || await bookRecords.Of(sought.ReviewId, sought.WorkId, cancel) is not { } book
        )
            yield break;
        var withBook = chain.Stops(wanted with { Book = book });
        foreach (var stop in withBook.ExceptBy(own.Select(s => s.Address), s => s.Address))
            yield return stop;
    }

    /// <summary>
    /// Notes that a document of a work is being taken in, or no longer is: should the process end in it, the next one
    /// knows.
    /// </summary>
    private async Task Note(SoughtRow sought, int begun)
    {
        await using var context = await contexts.CreateDbContextAsync(CancellationToken.None);
        await context
            .Sought.Where(s => s.ReviewId == sought.ReviewId && s.WorkId == sought.WorkId)
            .ExecuteUpdateAsync(u => u.SetProperty(s => s.Begun, begun));
    }

    /// <summary>A chapter out of the file of its book that the review has for another one; null when that does not give it.</summary>
    private async Task<AttemptRow?> OutOfBook(SoughtRow sought, ExpectedWork expected, CancellationToken cancel)
    {
        if (await books.Of(sought.ReviewId, sought.WorkId, cancel) is not { } book)
            return null;
        var watch = Stopwatch.StartNew();
        await Note(sought, sought.Begun + 1);
        try
        {
            var taken = await intake.Take(
                sought.ReviewId,
                sought.WorkId,
                expected,
                new(book.Bytes, book.Route, book.Source, null, null, MustAgree: true),
                cancel
            );
            if (taken.Outcome != AttemptOutcome.Got)
                return null;
            var sentence = $"{taken.Sentence.TrimEnd('.')}; cut from the book’s file, which was here already.";
            var attempt = sought.Attempt(book.Route, book.Source, taken.Outcome, sentence, clock.GetUtcNow());
            attempt.Milliseconds = (int)watch.ElapsedMilliseconds;
            return attempt;
        }
        finally
        {
            await Note(sought, sought.Begun);
        }
    }

    private AttemptRow GivenUp(SoughtRow sought) =>
        sought.Attempt(
            RouteKind.OtherCopy,
            "",
            AttemptOutcome.Unreadable,
            "Zendle stopped each time while it read a document of this work, so it is not tried again "
                + "automatically. You can add the file, or try again yourself.",
            clock.GetUtcNow()
        );

    private async Task<AttemptRow> Try(
        SoughtRow sought,
        RouteStop stop,
        ExpectedWork expected,
        Sought known,
        CancellationToken cancel
    )
    {
        var watch = Stopwatch.StartNew();
        var name = AttemptWords.Of(stop.Route);
        var fetched = await fetcher.Fetch(
            stop.Address,
            p => progress.Say(sought.ReviewId, sought.WorkId, p with { Sentence = $"{name}: {p.Sentence}" }),
            cancel,
            stop.LibraryId is { } library ? await ways.Pass(sought.AccountId, library, known, cancel) : null,
            new(expected.Titles, expected.Type == DocumentType.Chapter)
        );
        var (outcome, sentence, price, at) = (
            fetched.Outcome ?? AttemptOutcome.Got,
            fetched.Sentence,
            fetched.Price,
            fetched.Address
        );
        if (fetched.Bytes is { } bytes)
        {
            // A book that does not show its chapter is not the chapter.
            var taken = await Take(bytes, fetched.Address, mustAgree: stop.Route == RouteKind.Book);
            (outcome, sentence) = (taken.Outcome, taken.Sentence);
        }
        // A page without a link to the text may hold it itself. Where it does not, that there was no link says more.
        else if (
            fetched.Page is { } page
            && await Take(page.Bytes, page.Address, mustAgree: true) is { Text: not null } whole
        )
            (outcome, sentence, price, at) = (whole.Outcome, whole.Sentence, null, page.Address);
        // A copy whose day has come is free from the next night on, and is then tried again.
        if (stop.OpensOn is { } opens && outcome is not (AttemptOutcome.Got or AttemptOutcome.Doubtful))
            (outcome, sentence) = (
                AttemptOutcome.Embargoed,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Under embargo until {opens:d MMM yyyy}, as its record says; it is tried again then."
                )
            );
        var attempt = sought.Attempt(stop.Route, at.AbsoluteUri, outcome, sentence, clock.GetUtcNow());
        (attempt.LibraryId, attempt.Price) = (stop.LibraryId, price);
        attempt.Milliseconds = (int)watch.ElapsedMilliseconds;
        attempt.AskedToWait = (int)Math.Ceiling(fetched.AskedToWait.TotalSeconds);
        return attempt;

        async Task<Taken> Take(byte[] document, Uri from, bool mustAgree)
        {
            progress.Say(sought.ReviewId, sought.WorkId, new($"{name}: checking the document"));
            await Note(sought, sought.Begun + 1);
            try
            {
                var taken = await Task.Run(
                    () =>
                        intake.Take(
                            sought.ReviewId,
                            sought.WorkId,
                            expected,
                            new(document, stop.Route, from.AbsoluteUri, stop.Version, null, mustAgree),
                            cancel
                        ),
                    cancel
                );
                if (taken.Text is { } text)
                    await figures.Bring(text.Hash, document, from, cancel);
                return taken;
            }
            finally
            {
                await Note(sought, sought.Begun);
            }
        }
    }

    /// <summary>
    /// Whether a library takes a person with their session for a stranger: without it the same address leads to the same place. A
    /// publisher behind the proxy may have a wall of its own, and says nothing of the session.
    /// </summary>
    private async Task<bool> IsStranger(
        SoughtRow sought,
        RouteStop stop,
        int library,
        Sought known,
        AttemptRow attempt,
        CancellationToken cancel
    )
    {
        var pass = await ways.Pass(sought.AccountId, library, known, cancel);
        if (pass.Secret is null)
            return true;
        var without = await fetcher.Fetch(stop.Address, _ => { }, cancel, pass with { Secret = null });
        var (there, here) = (without.Address, new Uri(attempt.Address));
        return without.Outcome == AttemptOutcome.SignInAsked
            && there.Authority == here.Authority
            && there.AbsolutePath == here.AbsolutePath;
    }

    private async Task<SoughtState> End(
        SoughtRow sought,
        List<AttemptRow> attempts,
        SoughtState state,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        context.Attempts.AddRange(attempts);
        var row = await context.Sought.SingleAsync(
            s => s.ReviewId == sought.ReviewId && s.WorkId == sought.WorkId,
            cancel
        );
        // A person may have brought the text meanwhile.
        if (row.State == SoughtState.Waiting)
            row.State = state;
        await context.SaveChangesAsync(cancel);
        return row.State;
    }
}
