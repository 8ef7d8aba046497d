using System.Diagnostics;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Server.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>Fetches a copy that another library has made for a work, and takes it in like any other document.</summary>
internal sealed class TextDelivery(
    IDbContextFactory<ZendleContext> contexts,
    DocumentFetcher fetcher,
    TextIntake intake,
    TextFigures figures,
    TextLists lists,
    EventHub hub,
    TimeProvider clock
)
{
    /// <summary>Fetches and takes in; the attempt stands with the others of the work.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="workId">The work.</param>
    /// <param name="address">Where the copy lies.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>How it ended, in a sentence too.</returns>
    public async Task<(AttemptOutcome Outcome, string Sentence)> Take(
        int reviewId,
        int workId,
        Uri address,
        CancellationToken cancel
    )
    {
        if (await intake.Expect(workId, cancel) is not { } known)
            return (AttemptOutcome.NotADocument, "The work is in no database any more.");
        var watch = Stopwatch.StartNew();
        var fetched = await fetcher.Fetch(
            address,
            _ => { },
            cancel,
            null,
            new(known.Expected.Titles, known.Expected.Type == DocumentType.Chapter)
        );
        var (outcome, sentence, text) = (
            fetched.Outcome ?? AttemptOutcome.NotADocument,
            fetched.Sentence,
            (TextRow?)null
        );
        // Copies are often scanned from paper: such a one is decided by eye.
        if (fetched.Bytes is { } bytes)
            (outcome, sentence, text) = await intake.Take(
                reviewId,
                workId,
                known.Expected,
                new(bytes, RouteKind.Loan, fetched.Address.AbsoluteUri, null, null, WithScans: true),
                cancel
            );
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var sought = await context.Sought.SingleAsync(s => s.ReviewId == reviewId && s.WorkId == workId, cancel);
        if (outcome == AttemptOutcome.Got)
            sought.State = SoughtState.InHand;
        else if (outcome == AttemptOutcome.Doubtful && sought.State != SoughtState.InHand)
            sought.State = SoughtState.ToLookAt;
        var attempt = sought.Attempt(RouteKind.Loan, fetched.Address.AbsoluteUri, outcome, sentence, clock.GetUtcNow());
        attempt.Milliseconds = (int)watch.ElapsedMilliseconds;
        attempt.AskedToWait = (int)Math.Ceiling(fetched.AskedToWait.TotalSeconds);
        context.Attempts.Add(attempt);
        await context.SaveChangesAsync(cancel);
        if (text is not null)
        {
            await lists.Show([workId], CancellationToken.None);
            await figures.Bring(text.Hash, fetched.Bytes!, fetched.Address, CancellationToken.None);
        }
        hub.Tell(new("gather", reviewId));
        return (outcome, sentence);
    }
}
