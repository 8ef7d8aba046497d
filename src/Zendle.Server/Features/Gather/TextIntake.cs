using System.Globalization;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Text;
using Zendle.Documents;
using Zendle.Documents.Reading;
using Zendle.Server.Libraries;
using Zendle.Store.Corpus;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>What came of taking a document in.</summary>
/// <param name="Outcome">How it ends the attempt.</param>
/// <param name="Sentence">Why.</param>
/// <param name="Text">The stored document; null when it was not taken.</param>
internal sealed record Taken(AttemptOutcome Outcome, string Sentence, TextRow? Text);

/// <summary>A document that came for a work, and how.</summary>
/// <param name="Bytes">The document.</param>
/// <param name="Route">By which route.</param>
/// <param name="Source">From where: an address, or the name of the file a person brought.</param>
/// <param name="Said">Which version was expected there; null when that was not said.</param>
/// <param name="Account">Who brought it; null when it was fetched.</param>
/// <param name="PartOf">Of a chapter that was cut out of its book: what of it; null for a file as it came.</param>
/// <param name="MustAgree">Whether it is no text unless every check agrees: a page that nobody calls the text.</param>
/// <param name="WithScans">Whether pages without letters are taken, for a person to look at.</param>
internal sealed record IncomingText(
    byte[] Bytes,
    RouteKind Route,
    string Source,
    WorkVersion? Said,
    string? Account,
    bool MustAgree = false,
    CutOut? PartOf = null,
    bool WithScans = false
);

/// <summary>Where a document was cut out.</summary>
/// <param name="Bytes">The whole file.</param>
/// <param name="Pages">Which of its pages.</param>
/// <param name="Of">How many it has.</param>
internal sealed record CutOut(byte[] Bytes, PageRange Pages, int Of);

/// <summary>
/// Checks documents against works and stores those that pass or may pass. What is refused is not stored.
/// </summary>
internal sealed class TextIntake(
    IDbContextFactory<ZendleContext> contexts,
    CorpusReader reader,
    DocumentReader documents,
    LibraryWays ways,
    FileVault vault,
    TimeProvider clock
)
{
    private const int FewestWordsOfOther = 4;

    /// <summary>What the records of a work expect of its text; null when the work is gone.</summary>
    /// <param name="workId">The work.</param>
    /// <param name="cancel">Stops.</param>
    /// <param name="libraries">The libraries of whoever asks, in order; null for none.</param>
    public async Task<(ExpectedWork Expected, Sought Sought)?> Expect(
        int workId,
        CancellationToken cancel,
        IReadOnlyList<LibraryRow>? libraries = null
    )
    {
        workId = await reader.Redirect(workId, cancel);
        var records = (await reader.OfWorks([workId], cancel))[workId].ToArray();
        if (records.Length == 0)
            return null;
        var chosen = ChosenFields.From(records);
        // The original title may stand beside a translated one; what is as short as an abbreviation stands in many texts.
        string[] titles =
        [
            chosen.Title.Value,
            .. records.Select(r => r.Record.Title),
            .. records.SelectMany(r => r.Record.OtherTitles).Where(t => Words.Of(t).Count >= FewestWordsOfOther),
        ];
        string[] dois =
        [
            .. records.Select(r => r.Record.Doi).OfType<string>(),
            .. records.SelectMany(r => r.Record.Versions.Select(v => v.Doi)),
        ];
        return (
            new(
                [.. titles.Where(t => t.Length > 0).Distinct(StringComparer.OrdinalIgnoreCase)],
                chosen.People.Value,
                [.. dois.Distinct(StringComparer.OrdinalIgnoreCase)],
                chosen.Year.Value,
                chosen.Abstract.Value,
                ExpectedWork.TypeOf(chosen.Type.Value, records.Select(r => r.Record.Type))
            )
            {
                PageCount = chosen.Venue.Value?.PageCount,
            },
            new(chosen.Doi.Value, chosen.Copies) { Libraries = ways.To(libraries ?? [], records, chosen) }
        );
    }

    /// <summary>Reads a document. The outcome is null when it can be read.</summary>
    /// <param name="bytes">The document.</param>
    /// <param name="withScans">Whether pages without letters are taken, for a person to look at.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<(DocumentFacts? Facts, AttemptOutcome? Outcome, string Sentence)> Read(
        byte[] bytes,
        bool withScans,
        CancellationToken cancel
    )
    {
        try
        {
            return (await documents.Read(bytes, cancel), null, "");
        }
        catch (DocumentFaultException e) when (withScans && e is { Fault: DocumentFault.NoLetters, Pages: > 0 })
        {
            var scan = new DocumentFacts
            {
                Pages = e.Pages,
                Lines = [],
                WordCount = 0,
                IsScan = true,
            };
            return (scan, null, "");
        }
        catch (DocumentFaultException e)
        {
            return (null, Outcome(e.Fault), e.Message);
        }
    }

    /// <summary>
    /// Takes a document in for a work: reads it, holds it against the work, stores it unless it is refused.
    /// </summary>
    public async Task<Taken> Take(
        int reviewId,
        int workId,
        ExpectedWork expected,
        IncomingText incoming,
        CancellationToken cancel
    )
    {
        var (facts, outcome, sentence) = await Read(incoming.Bytes, incoming.WithScans, cancel);
        if (facts is null)
            return new(outcome!.Value, sentence, null);
        if (await OutOfWhole(incoming, facts, expected, cancel) is var (cut, of))
            return await Take(reviewId, workId, expected, of, cut, cancel);
        return await Take(reviewId, workId, expected, facts, incoming, cancel);
    }

    /// <summary>
    /// A chapter out of the file of its whole book, or an article out of its issue's or proceedings', where that is what came and
    /// the pages cut out pass for it; null for anything else.
    /// </summary>
    private async Task<(IncomingText Cut, DocumentFacts Facts)?> OutOfWhole(
        IncomingText whole,
        DocumentFacts facts,
        ExpectedWork expected,
        CancellationToken cancel
    )
    {
        if (ChapterPages.OutOf(facts, expected) is not { } pages)
            return null;
        try
        {
            var bytes = await documents.Cut(whole.Bytes, pages, cancel);
            var cut = await documents.Read(bytes, cancel);
            // What a person has to look at is better the chapter's pages than the whole book.
            return DocumentCheck.Of(cut, expected).Verdict != DocumentVerdict.Refused
                ? (whole with { Bytes = bytes, PartOf = new(whole.Bytes, pages, facts.Pages) }, cut)
                : null;
        }
        catch (DocumentFaultException)
        {
            return null;
        }
    }

    /// <summary>Takes in a document that was read already.</summary>
    public async Task<Taken> Take(
        int reviewId,
        int workId,
        ExpectedWork expected,
        DocumentFacts facts,
        IncomingText incoming,
        CancellationToken cancel
    )
    {
        var (bytes, account) = (incoming.Bytes, incoming.Account);
        // Hosts send plain text when they have something to say, not when they have a text.
        if (facts.Format == TextFormat.Plain && account is null)
            return new(AttemptOutcome.NotADocument, "The link opens a plain message instead of the document.", null);
        var check = DocumentCheck.Of(facts, expected);
        // What a person brings is looked at by a person before it is refused.
        if (check.Verdict == DocumentVerdict.Refused && account is null)
            return new(AttemptOutcome.AnotherWork, check.Sentence, null);
        // Pages are said to hold the text that show its beginning to whoever has not paid.
        if (facts.Format == TextFormat.Html && account is null && check.IsShort)
            return new(AttemptOutcome.NoTextThere, "The page shows no more of the text than an abstract.", null);
        if (incoming.MustAgree && check.Verdict != DocumentVerdict.Agrees)
            return new(AttemptOutcome.NoTextThere, check.Sentence, null);
        string hash;
        string? source;
        try
        {
            hash = vault.Put(bytes);
            // Of all chapters of a book it is kept once.
            source = incoming.PartOf is { } book ? vault.Put(book.Bytes) : null;
        }
        catch (NoRoomException e)
        {
            return new(AttemptOutcome.NoRoom, e.Message, null);
        }
        var agrees = check.Verdict == DocumentVerdict.Agrees;
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var text = await context.Texts.SingleOrDefaultAsync(
            t => t.ReviewId == reviewId && t.WorkId == workId && t.Hash == hash,
            cancel
        );
        if (text is null)
            context.Texts.Add(
                text = new()
                {
                    ReviewId = reviewId,
                    WorkId = workId,
                    Hash = hash,
                    Bytes = bytes.Length,
                    Format = facts.Format,
                    Pages = facts.Format == TextFormat.Pdf ? facts.Pages : 0,
                    Sentence = "",
                    Source = incoming.Source,
                    Route = incoming.Route,
                    PartOf = source,
                    Checks = JsonSerializer.Serialize(check.Lines, StoredJson.Options),
                    Headings = JsonSerializer.Serialize(facts.Headings, StoredJson.Options),
                    At = clock.GetUtcNow(),
                }
            );
        // What a person has settled stays settled when the same file comes again.
        if (text.Verdict is not (TextVerdict.Confirmed or TextVerdict.Refused) || text.Id == 0)
            (text.Verdict, text.Sentence, text.Version, text.AccountId) = (
                agrees ? TextVerdict.Verified : TextVerdict.Doubtful,
                check.Sentence,
                check.Version ?? incoming.Said,
                account
            );
        if (incoming.PartOf is { } part && agrees && text.Verdict == TextVerdict.Verified)
            text.Sentence = string.Create(
                CultureInfo.InvariantCulture,
                $"All checks agree: pages {part.Pages.From} to {part.Pages.To} of the book's {part.Of}."
            );
        await TextLists.Note(context, hash, facts, cancel);
        await context.SaveChangesAsync(cancel);
        return text.Verdict switch
        {
            TextVerdict.Doubtful => new(AttemptOutcome.Doubtful, check.Sentence, text),
            TextVerdict.Refused => new(
                AttemptOutcome.AnotherWork,
                "A person has said that this file is another work.",
                null
            ),
            _ => new(
                AttemptOutcome.Got,
                $"{Extent(facts)}; "
                    + $"{(text.Verdict == TextVerdict.Confirmed ? "settled by a person" : "all checks agree")}.",
                text
            ),
        };
    }

    private static string Extent(DocumentFacts facts) =>
        facts.Format == TextFormat.Pdf
            ? $"{facts.Pages} {(facts.Pages == 1 ? "page" : "pages")}"
            : TextFormats.Name(facts.Format);

    private static AttemptOutcome Outcome(DocumentFault fault) =>
        fault switch
        {
            DocumentFault.Empty => AttemptOutcome.Empty,
            DocumentFault.NotADocument => AttemptOutcome.NotADocument,
            DocumentFault.Encrypted => AttemptOutcome.Encrypted,
            DocumentFault.NoLetters => AttemptOutcome.NoLetters,
            DocumentFault.Scripted => AttemptOutcome.Scripted,
            DocumentFault.TooManyPages => AttemptOutcome.TooManyPages,
            DocumentFault.TooSlow => AttemptOutcome.TooSlow,
            DocumentFault.TooHeavy => AttemptOutcome.TooHeavy,
            DocumentFault.Unreadable => AttemptOutcome.Unreadable,
            _ => AttemptOutcome.Damaged,
        };
}
