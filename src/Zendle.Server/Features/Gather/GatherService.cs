using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Text;
using Zendle.Index.Columns;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Features.Libraries;
using Zendle.Server.Features.Search;
using Zendle.Server.Jobs;
using Zendle.Server.Loans;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Files;
using Zendle.Store.Made;
using Zendle.Store.Sqlite;

namespace Zendle.Server.Features.Gather;

/// <summary>Seeks texts, says how they stand, settles the doubtful and takes in what people bring.</summary>
internal sealed class GatherService(
    IDbContextFactory<ZendleContext> contexts,
    DecisionService decisions,
    SearchService search,
    CorpusReader reader,
    JobRunner jobs,
    TextIntake intake,
    TextFigures figures,
    TextLists lists,
    MadeOn madeOn,
    FileVault vault,
    GatherProgress progress,
    EventHub hub,
    TimeProvider clock
) : IAwaitsSignIn
{
    /// <inheritdoc/>
    public async Task<int> GoOn(string account)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var waiting = await context
            .Sought.Where(s => s.AccountId == account && s.State == SoughtState.SignIn)
            .ToListAsync();
        foreach (var row in waiting)
        {
            (row.State, row.At, row.Begun) = (SoughtState.Waiting, clock.GetUtcNow(), 0);
            row.Round++;
        }
        await context.SaveChangesAsync();
        foreach (var review in waiting.Select(s => s.ReviewId).Distinct())
        {
            await jobs.Ask(GatherJob.Kind, review, again: true);
            hub.Tell(new("gather", review));
        }
        return waiting.Count;
    }

    /// <summary>Asks for texts. Works whose text is in hand or on its way are left as they are.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="account">Who asks.</param>
    /// <param name="works">The works; null for the kept ones.</param>
    /// <param name="again">Of the kept ones: those sought in vain instead of those not sought.</param>
    /// <param name="given">Where the text of the one work may lie; kept for later tries.</param>
    /// <returns>How many are sought now, and the job that does it.</returns>
    public async Task<(int Sought, JobRow? Job)> Seek(
        int reviewId,
        string account,
        IReadOnlyCollection<int>? works,
        bool again,
        Uri? given = null
    )
    {
        var (_, facts) = await decisions.Of(reviewId);
        await using var context = await contexts.CreateDbContextAsync();
        var (there, _) = await Sought(context, reviewId, CancellationToken.None);
        // Named works are tried again whatever came before; else only kept ones that nobody sought, or, when asked,
        // those sought in vain.
        IEnumerable<int> wanted =
            works is not null
                ? works
                    .Distinct()
                    .Where(w =>
                        w > 0
                        && (
                            !there.TryGetValue(w, out var s)
                            || s.State is SoughtState.NotFound or SoughtState.ToLookAt or SoughtState.SignIn
                        )
                    )
            : again ? there.Where(s => s.Value.State is SoughtState.NotFound or SoughtState.SignIn).Select(s => s.Key)
            : facts.Kept.ToArray().Where(w => !there.ContainsKey(w));
        var count = 0;
        int[] seeking = [.. wanted];
        await madeOn.Note(context, seeking, CancellationToken.None);
        foreach (var work in seeking)
        {
            if (!there.TryGetValue(work, out var row))
                context.Sought.Add(
                    row = new()
                    {
                        ReviewId = reviewId,
                        WorkId = work,
                        AccountId = account,
                    }
                );
            (row.State, row.AccountId, row.At) = (SoughtState.Waiting, account, clock.GetUtcNow());
            row.Round++;
            row.Begun = 0;
            row.Given = given?.AbsoluteUri ?? row.Given;
            count++;
        }
        await context.SaveChangesAsync();
        var waiting = count > 0 || there.Values.Any(s => s.State == SoughtState.Waiting);
        var job = waiting ? await jobs.Ask(GatherJob.Kind, reviewId, again: true) : null;
        hub.Tell(new("gather", reviewId));
        return (count, job);
    }

    /// <summary>Stops the gathering of a review; what waits can be gone on with.</summary>
    public async Task<bool> Stop(int reviewId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var job = await context.Jobs.FirstOrDefaultAsync(j =>
            j.Kind == GatherJob.Kind.Name
            && j.Subject == reviewId
            && (j.State == JobState.Waiting || j.State == JobState.Running)
        );
        return job is not null && await jobs.Stop(job.Id);
    }

    /// <summary>All kept or sought works by how their texts stand.</summary>
    public async Task<GatherDto> List(int reviewId, CancellationToken cancel)
    {
        using var view = await search.View(reviewId, Core.Reviews.SearchState.Everything);
        var (facts, columns) = (view.Facts, view.Snapshot.Columns);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await using var moment = await ReadMoment.Of(context, cancel);
        var (sought, today) = await Sought(context, reviewId, cancel);
        var attempts = (
            await context
                .Attempts.AsNoTracking()
                .Where(a => a.ReviewId == reviewId)
                .OrderBy(a => a.Id)
                .ToListAsync(cancel)
        ).ToLookup(a => today(a.WorkId));
        var texts = (
            await context
                .Texts.AsNoTracking()
                .Where(t => t.ReviewId == reviewId && t.Verdict != TextVerdict.Refused)
                .OrderBy(t => t.Id)
                .ToListAsync(cancel)
        ).ToLookup(t => today(t.WorkId));
        var job = await context
            .Jobs.AsNoTracking()
            .Where(j => j.Kind == GatherJob.Kind.Name && j.Subject == reviewId)
            .OrderByDescending(j => j.Id)
            .FirstOrDefaultAsync(cancel);
        var loans = await Loans(context, reviewId, cancel);
        int[] ids = [.. facts.Kept.ToArray().Union(sought.Keys)];
        var records = await reader.OfWorks(ids, cancel);
        var rows = ids.Where(records.Contains)
            .Select(id =>
                Row(
                    reviewId,
                    id,
                    ChosenFields.From([.. records[id]]),
                    columns,
                    records[id].All(r => r.IsWithdrawn),
                    sought.GetValueOrDefault(id),
                    [.. attempts[id]],
                    [.. texts[id]],
                    loans[id].LastOrDefault()
                )
            )
            .OrderBy(r => Array.IndexOf(Order, r.State))
            .ThenByDescending(r => r.Year)
            .ThenBy(r => r.WorkId)
            .ToArray();
        return new(
            rows.Count(r => r.State is GatherState.ToLookAt or GatherState.NotFound or GatherState.SignIn),
            rows.Count(r => r.State == GatherState.Waiting),
            rows.Count(r => r.State == GatherState.ByLoan),
            rows.Count(r => r.State == GatherState.InHand),
            rows.Count(r => r.State == GatherState.NotSought),
            job is null ? null : JobDto.Of(jobs.AsItStands(job)),
            rows
        );
    }

    /// <summary>How many works have a text in hand, and how many need a person for one.</summary>
    public async Task<(int WithText, int NeedYou)> Counts(int reviewId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var (sought, _) = await Sought(context, reviewId, CancellationToken.None);
        var loans = await Loans(context, reviewId, CancellationToken.None);
        return (
            sought.Values.Count(s => s.State == SoughtState.InHand),
            sought.Count(s =>
                s.Value.State == SoughtState.ToLookAt
                || (s.Value.State is SoughtState.NotFound or SoughtState.SignIn && !IsOut(loans[s.Key].LastOrDefault()))
            )
        );
    }

    /// <summary>The requests of a review to other libraries by works, the oldest first.</summary>
    private async Task<ILookup<int, BookedLoan>> Loans(ZendleContext context, int reviewId, CancellationToken cancel) =>
        (await context.LoansOf(reviewId, reader, cancel)).ToLookup(l => l.WorkId);

    private static bool IsOut(BookedLoan? loan) => loan?.IsOut == true;

    /// <summary>What was sought, got, and not got by reason.</summary>
    public async Task<TextAccount> Account(int reviewId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await using var moment = await ReadMoment.Of(context, cancel);
        var (sought, today) = await Sought(context, reviewId, cancel);
        var attempts = (
            await context
                .Attempts.AsNoTracking()
                .Where(a => a.ReviewId == reviewId)
                .OrderBy(a => a.Id)
                .Select(a => new
                {
                    a.WorkId,
                    a.Round,
                    a.Outcome,
                })
                .ToListAsync(cancel)
        ).ToLookup(a => (a.WorkId, a.Round), a => a.Outcome);
        var texts = (
            await context.Texts.AsNoTracking().ThatCount().Where(t => t.ReviewId == reviewId).ToListAsync(cancel)
        ).ToLookup(t => today(t.WorkId));
        var loans = await Loans(context, reviewId, cancel);
        return TextAccount.Of([
            .. sought.Select(s => new SoughtText(
                s.Value.State == SoughtState.Waiting || IsOut(loans[s.Key].LastOrDefault()),
                texts[s.Key].BestFirst().Select(t => new GotText(t.Version, t.Route)).FirstOrDefault()
                    // A book that was lent and has come was read on paper.
                    ?? (
                        loans[s.Key].Any(l => l.State.WasLent)
                            ? new GotText(WorkVersion.VersionOfRecord, RouteKind.Loan)
                            : null
                    ),
                [.. attempts[(s.Value.WorkId, s.Value.Round)]]
            )),
        ]);
    }

    /// <summary>
    /// The works sought, by the ids they have today, and that id for any other. Of works that were merged the one that
    /// came further speaks.
    /// </summary>
    private async Task<(Dictionary<int, SoughtRow> Sought, Func<int, int> Today)> Sought(
        ZendleContext context,
        int reviewId,
        CancellationToken cancel
    )
    {
        var rows = await context.Sought.Where(s => s.ReviewId == reviewId).ToListAsync(cancel);
        var texts = await context
            .Texts.Where(t => t.ReviewId == reviewId)
            .Select(t => t.WorkId)
            .Distinct()
            .ToListAsync(cancel);
        var redirects = await reader.Redirects([.. rows.Select(r => r.WorkId).Union(texts)], cancel);
        int Today(int work) => redirects.GetValueOrDefault(work, work);
        return (
            rows.GroupBy(r => Today(r.WorkId))
                .ToDictionary(g => g.Key, g => g.MinBy(r => Array.IndexOf(Further, r.State))!),
            Today
        );
    }

    private static readonly SoughtState[] Further =
    [
        SoughtState.InHand,
        SoughtState.ToLookAt,
        SoughtState.Waiting,
        SoughtState.SignIn,
        SoughtState.NotFound,
    ];

    private static readonly GatherState[] Order =
    [
        GatherState.ToLookAt,
        GatherState.SignIn,
        GatherState.NotFound,
        GatherState.Waiting,
        GatherState.ByLoan,
        GatherState.InHand,
        GatherState.NotSought,
    ];

    private GatherRowDto Row(
        int reviewId,
        int id,
        ChosenFields chosen,
        CorpusColumns columns,
        bool isWithdrawn,
        SoughtRow? sought,
        AttemptRow[] attempts,
        TextRow[] texts,
        BookedLoan? loan
    )
    {
        var last = attempts
            .Where(a => a.Route == RouteKind.Person || (a.WorkId == sought?.WorkId && a.Round == sought.Round))
            .ToArray();
        var state = sought?.State switch
        {
            null => GatherState.NotSought,
            SoughtState.Waiting => GatherState.Waiting,
            SoughtState.ToLookAt => GatherState.ToLookAt,
            SoughtState.NotFound or SoughtState.SignIn when IsOut(loan) => GatherState.ByLoan,
            SoughtState.NotFound => GatherState.NotFound,
            SoughtState.SignIn => GatherState.SignIn,
            _ => GatherState.InHand,
        };
        var going = sought is { State: SoughtState.Waiting } ? progress.Of(reviewId, sought.WorkId) : null;
        var sentence = state switch
        {
            GatherState.ToLookAt => texts.BestFirst().FirstOrDefault(t => t.Verdict == TextVerdict.Doubtful)?.Sentence
                ?? "",
            GatherState.NotFound => Sentence(NotGot.Reason([.. last.Select(a => a.Outcome)]), last, chosen.Copies),
            GatherState.SignIn => "sign in to your library",
            GatherState.Waiting => "waits its turn",
            _ => "",
        };
        return new(
            id,
            chosen.Title.Value,
            PeopleLine.Of(chosen.People.Value),
            chosen.Year.Value,
            (columns.IsWork(id) ? WorkRows.Venue(columns, id, chosen) : chosen.Venue.Value?.Title)
                ?? chosen.Publisher.Value,
            TextAtHand.Said(chosen.Copies),
            state,
            sentence,
            going?.Sentence,
            going?.Share,
            [
                .. last.Select(a => new AttemptDto(
                    AttemptWords.Of(a.Route),
                    a.Address,
                    a.Outcome,
                    AttemptWords.Brief(a.Outcome, a.Sentence, a.Price, a.AskedToWait),
                    a.Sentence,
                    a.At,
                    a.Milliseconds,
                    a.AskedToWait
                )),
            ],
            [.. texts.BestFirst().Select(Dto)],
            isWithdrawn,
            loan is null
                ? null
                : new(
                    loan.Row.Id,
                    loan.Row.DeskName,
                    loan.State.Status,
                    loan.State.IsOpen,
                    loan.State.IsLent,
                    loan.State.Why,
                    loan.State.ExpectedOn,
                    loan.State.DueOn,
                    loan.Row.Delivery,
                    loan.State.Addresses.Count > 0
                )
        );
    }

    private static string Sentence(string reason, AttemptRow[] attempts, IReadOnlyCollection<Copy> copies) =>
        reason == AttemptWords.Of(AttemptOutcome.Embargoed) && TextAtHand.FreeFrom(copies) is { } day
            ? string.Create(CultureInfo.InvariantCulture, $"under embargo until {day:d MMM yyyy}; tried again then")
        : Array.Find(attempts, a => a.Price is not null)?.Price is { } price
        && reason == AttemptWords.Of(AttemptOutcome.PriceAsked)
            ? $"{price} asked; no free copy found"
        : reason;

    private static TextDto Dto(TextRow t) =>
        new(
            t.Id,
            WorkVersions.Name(t.Version),
            t.Format,
            t.Pages,
            t.Bytes,
            t.Verdict,
            t.Sentence,
            AttemptWords.Of(t.Route),
            t.Source,
            t.At
        );

    /// <summary>A document as it is stored; null when there is none in the review.</summary>
    public async Task<TextRow?> Stored(int reviewId, int textId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
            .Texts.AsNoTracking()
            .SingleOrDefaultAsync(
                t => t.Id == textId && t.ReviewId == reviewId && t.Verdict != TextVerdict.Refused,
                cancel
            );
    }

    /// <summary>One document with its work; null when there is none in the review.</summary>
    public async Task<TextDetailDto?> Text(int reviewId, int textId, CancellationToken cancel)
    {
        if (await Stored(reviewId, textId, cancel) is not { } t)
            return null;
        var work = await reader.Redirect(t.WorkId, cancel);
        var records = (await reader.OfWorks([work], cancel))[work].ToArray();
        var chosen = records.Length == 0 ? null : ChosenFields.From(records);
        var people = chosen?.People.Value ?? [];
        return new(
            t.Id,
            work,
            chosen?.Title.Value ?? "A work that is gone",
            PeopleLine.Of(people),
            chosen?.Year.Value,
            WorkVersions.Name(t.Version),
            t.Format,
            t.Pages,
            t.Bytes,
            t.Verdict,
            t.Sentence,
            t.Source,
            JsonSerializer.Deserialize<CheckLine[]>(t.Checks, StoredJson.Options)!,
            JsonSerializer.Deserialize<DocumentHeading[]>(t.Headings, StoredJson.Options)!,
            TextNames.Of(
                people.Count == 0 ? null : people[0].Family,
                chosen?.Year.Value,
                chosen?.Title.Value ?? "",
                t.Version,
                t.Format
            ),
            t.At
        );
    }

    /// <summary>
    /// Settles a document: it is the work, another version of it, or not. What is not is taken out of the vault.
    /// </summary>
    public async Task<bool> Settle(int reviewId, string account, int textId, SettleAnswer answer)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var text = await context.Texts.SingleOrDefaultAsync(t => t.Id == textId && t.ReviewId == reviewId);
        if (text is null)
            return false;
        (text.Verdict, text.AccountId) = (
            answer == SettleAnswer.Not ? TextVerdict.Refused : TextVerdict.Confirmed,
            account
        );
        text.Sentence = answer switch
        {
            SettleAnswer.This => "Decided by a person: it is the work.",
            SettleAnswer.OtherVersion => "Decided by a person: another version of the work.",
            _ => "Decided by a person: not the work.",
        };
        if (answer == SettleAnswer.OtherVersion && (text.Version is null || WorkVersions.IsOfRecord(text.Version)))
            text.Version = WorkVersion.SubmittedManuscript;
        var sought = await context.Sought.SingleOrDefaultAsync(s => s.ReviewId == reviewId && s.WorkId == text.WorkId);
        var others = await context
            .Texts.Where(t => t.ReviewId == reviewId && t.WorkId == text.WorkId && t.Id != textId)
            .Select(t => t.Verdict)
            .ToListAsync();
        if (sought is not null)
            sought.State =
                answer != SettleAnswer.Not || others.Any(s => s is TextVerdict.Verified or TextVerdict.Confirmed)
                    ? SoughtState.InHand
                : others.Contains(TextVerdict.Doubtful) ? SoughtState.ToLookAt
                : SoughtState.NotFound;
        await context.SaveChangesAsync();
        if (
            answer == SettleAnswer.Not
            && !await context.Texts.AnyAsync(t => t.Hash == text.Hash && t.Verdict != TextVerdict.Refused)
        )
        {
            vault.Remove(text.Hash);
            await figures.Remove(text.Hash);
            if (
                text.PartOf is { } book
                && !await context.Texts.AnyAsync(t =>
                    (t.Hash == book || t.PartOf == book) && t.Verdict != TextVerdict.Refused
                )
            )
                vault.Remove(book);
        }
        await lists.Show([text.WorkId], CancellationToken.None);
        hub.Tell(new("gather", reviewId));
        return true;
    }

    /// <summary>
    /// Takes in a document that a person brought: for the work named, or for the one it is recognised as.
    /// </summary>
    public async Task<BroughtDto> Bring(
        int reviewId,
        string account,
        byte[] bytes,
        string fileName,
        int? workId,
        CancellationToken cancel
    )
    {
        var (facts, _, fault) = await intake.Read(bytes, withScans: true, cancel);
        if (facts is null)
            return new(null, null, null, null, fault);
        var work = workId ?? (facts.IsScan ? null : await Recognise(reviewId, facts, cancel));
        if (work is null)
            return new(
                null,
                null,
                null,
                null,
                facts.IsScan
                    ? "Its pages are images without text, so Zendle cannot tell which work it is. Choose the work."
                    : "No work in the databases matches this document.",
                OwnTitle.Of(facts)
            );
        if (await intake.Expect(work.Value, cancel) is not { } known)
            return new(null, null, null, null, "This work is not in any database any more.");
        var taken = await intake.Take(
            reviewId,
            work.Value,
            known.Expected,
            facts,
            new(bytes, RouteKind.Person, fileName, null, account),
            cancel
        );
        var title = known.Expected.Titles.Count > 0 ? known.Expected.Titles[0] : "";
        if (taken.Text is not { } text)
            return new(work, title, null, null, taken.Sentence);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var sought = await context.Sought.SingleOrDefaultAsync(s => s.ReviewId == reviewId && s.WorkId == work, cancel);
        if (sought is null)
            context.Sought.Add(
                sought = new()
                {
                    ReviewId = reviewId,
                    WorkId = work.Value,
                    AccountId = account,
                    At = clock.GetUtcNow(),
                    State = SoughtState.NotFound,
                }
            );
        if (taken.Outcome == AttemptOutcome.Got)
            sought.State = SoughtState.InHand;
        else if (sought.State != SoughtState.InHand)
            sought.State = SoughtState.ToLookAt;
        await madeOn.Note(context, [work.Value], cancel);
        context.Attempts.Add(
            sought.Attempt(RouteKind.Person, fileName, taken.Outcome, taken.Sentence, clock.GetUtcNow())
        );
        await context.SaveChangesAsync(cancel);
        await lists.Show([work.Value], CancellationToken.None);
        await figures.Bring(text.Hash, bytes, null, CancellationToken.None);
        hub.Tell(new("gather", reviewId));
        return new(work, title, text.Id, text.Verdict, taken.Sentence);
    }

    /// <summary>
    /// The work a document is: by a DOI printed on its first page, else the kept work whose title it holds best, else a
    /// work of the corpus whose title is one to three of its first lines.
    /// </summary>
    private async Task<int?> Recognise(int reviewId, DocumentFacts facts, CancellationToken cancel)
    {
        using var view = await search.View(reviewId, Core.Reviews.SearchState.Everything);
        var columns = view.Snapshot.Columns;
        var first = facts.OwnFirstPage.ToArray();
        foreach (var line in first)
            if (Identifiers.Doi(line) is { } doi && columns.References.WithDoi(MergeKeys.Doi(doi)) is > 0 and var byDoi)
                return byDoi;
        // Of titles that stand there alike the longer one: "Correction to: …" holds the title it corrects.
        var best = (Work: 0, Share: DocumentCheck.Sure, Length: 0);
        foreach (var work in view.Facts.Kept.ToArray())
            if (
                columns.SortTitle[work] is { Length: > 0 } title
                && DocumentCheck.Of(facts, new([title], [], [], null, "")) is { TitleShare: var share }
                && (share > best.Share + 1e-9 || (share > best.Share - 1e-9 && title.Length > best.Length))
            )
                best = (work, share, title.Length);
        if (best.Work != 0)
            return best.Work;
        for (var i = 0; i < Math.Min(12, first.Length); i++)
        for (var n = 3; n >= 1; n--)
        {
            var words = Words.AsWritten(string.Join(' ', first.Skip(i).Take(n))).ToArray();
            if (words.Length is < 3 or > 60)
                continue;
            if (QueryReader.Read($"title:\"{string.Join(' ', words)}\"") is not { IsSound: true, Root: { } root })
                continue;
            var found = view.Evaluator.Works(view.Evaluator.Records(root)).ToArray();
            if (found.Length == 1)
                return found[0];
        }
        cancel.ThrowIfCancellationRequested();
        return null;
    }
}
