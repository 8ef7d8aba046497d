using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Clocks;
using Zendle.Core.Loans;
using Zendle.Core.Merging;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Server.Libraries;
using Zendle.Server.Loans;
using Zendle.Store.Corpus;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Server.Features.Loans;

/// <summary>Makes requests for loans, says how they stand, and what people do with them.</summary>
internal sealed class LoanService(
    IDbContextFactory<ZendleContext> contexts,
    CorpusReader reader,
    LibraryWays ways,
    LoanPost post,
    MadeOn madeOn,
    FollowedClock followed,
    EventHub hub,
    TimeProvider clock
) : IDisposable
{
    /// <summary>Most works that are asked for at once.</summary>
    public const int MostAtOnce = 100;

    private readonly SemaphoreSlim asking = new(1, 1);

    /// <summary>The requests of a review.</summary>
    public async Task<LoansDto> List(int reviewId, string account, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await using var moment = await ReadMoment.Of(context, cancel);
        var loans = await context.LoansOf(reviewId, reader, cancel);
        var names = await context.DisplayNamesOf(loans.Select(l => l.Row.AccountId), cancel);
        return new(
            (await Desks(context, account, cancel)).Count > 0,
            Count(loans),
            [.. loans.Reverse().Select(l => Dto(l, names, account))]
        );
    }

    /// <summary>Requests counted, for the report.</summary>
    public async Task<LoanAccount> Account(int reviewId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return Count(await context.LoansOf(reviewId, reader, cancel));
    }

    private static LoanAccount Count(IReadOnlyList<BookedLoan> loans) =>
        LoanAccount.Of([.. loans.Select(l => (l.WorkId, l.State))]);

    private static LoanDto Dto(BookedLoan loan, IReadOnlyDictionary<string, string> names, string account)
    {
        var l = loan.Row;
        return new(
            l.Id,
            loan.WorkId,
            l.Number,
            names.GetValueOrDefault(l.AccountId, "a former member"),
            l.AccountId == account,
            l.DeskId,
            l.DeskName,
            l.LibraryName,
            Fields(l),
            l.MostCost,
            l.Currency,
            loan.State,
            loan.Events.FirstOrDefault(e => e.IsWaiting && e.Trouble is not null)?.Trouble,
            l.Delivery,
            l.DeliverySentence,
            l.At,
            [
                .. loan.Events.Select(e => new LoanEventDto(
                    e.Kind,
                    e.At,
                    LoanBooks.Told(e) is { } m ? new(m.Reason, m.Status, m.Why, m.Note, m.Answer) : null,
                    e.IsWaiting,
                    e.Trouble
                )),
            ]
        );
    }

    private static LoanFields Fields(LoanRow loan) =>
        JsonSerializer.Deserialize<LoanFields>(loan.Fields, StoredJson.Options)!;

    /// <summary>The desks of a person's libraries, in order, with the library each belongs to.</summary>
    private async Task<IReadOnlyList<(LoanDeskRow Desk, LibraryRow Library)>> Desks(
        ZendleContext context,
        string account,
        CancellationToken cancel
    )
    {
        var libraries = await ways.Of(account, cancel);
        int[] ids = [.. libraries.Select(l => l.Id)];
        var desks = (
            await context.LoanDesks.AsNoTracking().Where(d => ids.Contains(d.LibraryId)).ToListAsync(cancel)
        ).ToLookup(d => d.LibraryId);
        return [.. libraries.SelectMany(l => desks[l.Id].OrderBy(d => d.Rank).Select(d => (d, l)))];
    }

    /// <summary>How many open requests a person has at desks.</summary>
    private static async Task<Dictionary<int, int>> Open(
        ZendleContext context,
        string account,
        CancellationToken cancel
    ) =>
        (
            await context
                .Loans.Where(l => l.AccountId == account)
                .Select(l => new { l.DeskId, l.Status })
                .ToListAsync(cancel)
        )
            .Where(l => l.Status.IsUnfinished())
            .CountBy(l => l.DeskId)
            .ToDictionary();

    /// <summary>Requests for some works as they would be sent.</summary>
    public async Task<LoanDraftsDto> Drafts(
        int reviewId,
        string account,
        IReadOnlyCollection<int> works,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var (desks, open) = (await Desks(context, account, cancel), await Open(context, account, cancel));
        var today = await followed.Today(cancel);
        int[] ids = [.. works.Distinct()];
        var redirects = await reader.Redirects(ids, cancel);
        int[] now = [.. ids.Select(i => redirects.GetValueOrDefault(i, i)).Distinct()];
        var records = await reader.OfWorks(now, cancel);
        var byWork = (await context.LoansOf(reviewId, reader, cancel)).ToLookup(l => l.WorkId);
        var inHand = await context
            .Sought.Where(s => s.ReviewId == reviewId && s.State == SoughtState.InHand)
            .Select(s => s.WorkId)
            .ToHashSetAsync(cancel);
        return new(
            [
                .. desks.Select(d => new AskableDeskDto(
                    d.Desk.Id,
                    d.Desk.Name,
                    LibraryShelf.Label(d.Library),
                    d.Desk.CopyCost,
                    d.Desk.LendCost,
                    d.Desk.Currency,
                    d.Desk.MostOpen,
                    open.GetValueOrDefault(d.Desk.Id),
                    d.Desk.Days
                )),
            ],
            [
                .. now.Where(records.Contains)
                    .Select(w =>
                    {
                        var chosen = ChosenFields.From([.. records[w]]);
                        var fields = LoanFields.Of(chosen);
                        return new LoanDraftDto(
                            w,
                            chosen.Title.Value,
                            fields,
                            LoanCheck.Of(fields, today),
                            [.. byWork[w].Where(l => IsInVain(l.State.Status)).Select(l => l.Row.DeskId).Distinct()],
                            byWork[w].Any(l => l.State.Status.IsUnfinished()),
                            inHand.Contains(w)
                        );
                    }),
            ]
        );
    }

    /// <summary>Whether a desk that was asked need not be asked again: what was taken back it has not answered.</summary>
    private static bool IsInVain(LoanStatus status) => status.IsVain() && status != LoanStatus.Cancelled;

    /// <summary>What is wrong with a request as somebody has changed it.</summary>
    public async Task<IReadOnlyList<LoanFieldFault>> Check(LoanFields fields, CancellationToken cancel) =>
        LoanCheck.Of(fields, await followed.Today(cancel));

    /// <summary>Makes requests; those that cannot be made are told with the reason.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="account">Who asks.</param>
    /// <param name="wanted">The requests.</param>
    /// <param name="back">Where this installation is reached.</param>
    /// <param name="cancel">Stops before anything is stored.</param>
    public async Task<LoansAskedDto> Ask(
        int reviewId,
        string account,
        IReadOnlyList<NewLoanDto> wanted,
        Uri back,
        CancellationToken cancel
    )
    {
        // One at a time: what a desk allows is counted.
        await asking.WaitAsync(cancel);
        try
        {
            await using var context = await contexts.CreateDbContextAsync(cancel);
            var (desks, open) = (await Desks(context, account, cancel), await Open(context, account, cancel));
            var now = await followed.Now(cancel);
            var today = DateOnly.FromDateTime(now.UtcDateTime);
            var records = await reader.OfWorks([.. wanted.Select(w => w.WorkId).Distinct()], cancel);
            var busy = (await context.LoansOf(reviewId, reader, cancel))
                .Where(l => l.State.Status.IsUnfinished())
                .Select(l => l.WorkId)
                .ToHashSet();
            var (count, refused) = (0, new List<NotAskedDto>());
            foreach (var w in wanted)
            {
                var (desk, library) = desks.FirstOrDefault(d => d.Desk.Id == w.DeskId);
                var previous = w.Previous is { } p
                    ? await context.Loans.SingleOrDefaultAsync(
                        l => l.Id == p && l.ReviewId == reviewId && l.DeskId == w.DeskId && l.WorkId == w.WorkId,
                        cancel
                    )
                    : null;
                var sentence =
                    desk is null ? "The desk no longer belongs to any of your libraries."
                    : !records.Contains(w.WorkId) ? "The work is in no database any more."
                    : busy.Contains(w.WorkId) ? "It has already been requested, and that request is still open."
                    : open.GetValueOrDefault(desk.Id) >= (desk.MostOpen ?? int.MaxValue)
                        ? $"{desk.Name} takes at most {desk.MostOpen} open requests per reader."
                    : LoanCheck.Of(w.Fields, today).Any(f => f.Stops) ? "Something in the request is wrong."
                    : w.MostCost is < 0 or > 100_000 ? "The highest cost is not a valid sum."
                    : w.Email is { } e && !IsEmail(e) ? "The e-mail address is not valid."
                    : w.NeededBy < today ? "The day by which it is needed has passed."
                    : null;
                if (sentence is not null)
                {
                    refused.Add(new(w.WorkId, sentence));
                    continue;
                }
                var loan = new LoanRow
                {
                    ReviewId = reviewId,
                    WorkId = w.WorkId,
                    AccountId = account,
                    DeskId = desk!.Id,
                    DeskName = desk.Name,
                    LibraryName = LibraryShelf.Label(library),
                    Number = "Z" + RandomNumberGenerator.GetHexString(16),
                    PreviousId = previous?.Id,
                    Fields = JsonSerializer.Serialize(w.Fields, StoredJson.Options),
                    MostCost = w.MostCost,
                    Currency = desk.Currency,
                    NeededBy = w.NeededBy,
                    Email = string.IsNullOrWhiteSpace(w.Email) ? null : w.Email.Trim(),
                    Back = back.AbsoluteUri,
                    Status = LoanStatus.Unsent,
                    At = now,
                };
                context.Loans.Add(loan);
                await Seek(context, reviewId, w.WorkId, account, cancel);
                await context.SaveChangesAsync(cancel);
                context.Happened(loan, LoanEventKind.Asked, now, tells: true);
                await context.SaveChangesAsync(cancel);
                busy.Add(w.WorkId);
                open[desk.Id] = open.GetValueOrDefault(desk.Id) + 1;
                count++;
            }
            hub.Tell(new("gather", reviewId));
            post.Wake();
            return new(count, refused);
        }
        finally
        {
            asking.Release();
        }
    }

    private static bool IsEmail(string text) =>
        text.Trim() is { Length: > 2 and <= 200 } mail
        && mail.IndexOf('@', StringComparison.Ordinal) is > 0 and var at
        && at == mail.LastIndexOf('@')
        && at < mail.Length - 1
        && mail.All(c => c is > ' ' and < '\u007F');

    /// <summary>A work that is asked for is one whose text is sought.</summary>
    private async Task Seek(ZendleContext context, int reviewId, int work, string account, CancellationToken cancel)
    {
        await madeOn.Note(context, [work], cancel);
        if (!await context.Sought.AnyAsync(s => s.ReviewId == reviewId && s.WorkId == work, cancel))
            context.Sought.Add(
                new()
                {
                    ReviewId = reviewId,
                    WorkId = work,
                    AccountId = account,
                    At = clock.GetUtcNow(),
                    State = SoughtState.NotFound,
                }
            );
    }

    /// <summary>Does something with a request.</summary>
    /// <returns>Null when it was done; else why not, with the status of the answer.</returns>
    public async Task<(int Status, string Sentence)?> Act(
        int reviewId,
        string account,
        int id,
        LoanAct act,
        CancellationToken cancel
    )
    {
        using var hold = post.Hold(id);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var loan = await context.Loans.SingleOrDefaultAsync(l => l.Id == id && l.ReviewId == reviewId, cancel);
        if (loan is null)
            return (404, "There is no such request in this review.");
        if (loan.AccountId != account)
            return (
                403,
                "Only the person who requested it can do this, because the request is in the name of their library."
            );
        var events = await context.LoanEvents.Where(e => e.LoanId == id).OrderBy(e => e.Id).ToListAsync(cancel);
        var state = LoanBooks.StateOf(events);
        var unsent = events.Find(e => e.Kind == LoanEventKind.Asked && e.IsWaiting);
        var now = await followed.Now(cancel);
        (LoanEventKind Kind, bool Tells)? does = act switch
        {
            // What is just being handed over is taken back at the desk.
            LoanAct.Cancel when unsent is not null && hold is not null => (LoanEventKind.Withdrawn, false),
            LoanAct.Cancel when state.Status.IsOpen() && !state.IsCancelAsked => (LoanEventKind.CancelAsked, true),
            LoanAct.AskStatus when state.Status.IsOpen() && unsent is null && !events.Exists(e => e.IsWaiting) => (
                LoanEventKind.StatusAsked,
                true
            ),
            LoanAct.Received when state.Status.IsSupplied() && !state.IsReceived => (LoanEventKind.Received, true),
            LoanAct.Returned when state.Status.IsLent() && !state.IsReturned => (LoanEventKind.Returned, true),
            _ => null,
        };
        if (act == LoanAct.Fetch && loan.Delivery == LoanDelivery.Failed)
            (loan.Delivery, loan.Tries, loan.NextAt) = (LoanDelivery.Waiting, 0, clock.GetUtcNow());
        else if (does is { } done)
        {
            if (done.Kind == LoanEventKind.Withdrawn)
                unsent!.IsWaiting = false;
            if (done.Kind == LoanEventKind.CancelAsked && unsent is not null)
                unsent.NextAt = clock.GetUtcNow();
            context.Happened(loan, done.Kind, now, done.Tells);
            // A try whose answer was lost may have come to the desk: it is told, and may know nothing of it.
            if (done.Kind == LoanEventKind.Withdrawn && unsent!.Tries > 0)
                context.Happened(loan, LoanEventKind.CancelAsked, now, tells: true);
        }
        else
            return (409, "The request has changed in the meantime.");
        await context.Settle(loan, cancel);
        await context.SaveChangesAsync(cancel);
        hub.Tell(new("gather", reviewId));
        post.Wake();
        return null;
    }

    /// <inheritdoc/>
    public void Dispose() => asking.Dispose();
}
