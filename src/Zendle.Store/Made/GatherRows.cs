using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Store.Made;

/// <summary>How the search for a work's text stands.</summary>
public enum SoughtState
{
    /// <summary>Waits to be tried; after a stop or a kill it still does.</summary>
    Waiting,

    /// <summary>A text is in hand.</summary>
    InHand,

    /// <summary>A document came that a person must look at.</summary>
    ToLookAt,

    /// <summary>No route gave a text; a person goes on by hand.</summary>
    NotFound,

    /// <summary>Whoever asked has to sign in to their library; then it goes on.</summary>
    SignIn,
}

/// <summary>A work whose text is sought in a review.</summary>
public sealed class SoughtRow
{
    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>How it stands.</summary>
    public SoughtState State { get; set; }

    /// <summary>Counts the times it was sought; attempts carry the same number.</summary>
    public int Round { get; set; }

    /// <summary>
    /// How often a process has begun to try it in this round without coming to an end: more than once when one ended in
    /// it.
    /// </summary>
    public int Begun { get; set; }

    /// <summary>An address that a person gave for it; null for none.</summary>
    public string? Given { get; set; }

    /// <summary>Who asked last.</summary>
    public required string AccountId { get; set; }

    /// <summary>When that was, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>An attempt of this round.</summary>
    /// <param name="route">The route.</param>
    /// <param name="address">The last address asked; the file's name when a person brought it.</param>
    /// <param name="outcome">How it ended.</param>
    /// <param name="sentence">What happened.</param>
    /// <param name="at">When it ended, UTC.</param>
    public AttemptRow Attempt(
        RouteKind route,
        string address,
        AttemptOutcome outcome,
        string sentence,
        DateTimeOffset at
    ) =>
        new()
        {
            ReviewId = ReviewId,
            WorkId = WorkId,
            Round = Round,
            Route = route,
            Address = address,
            Outcome = outcome,
            Sentence = sentence,
            At = at,
        };
}

/// <summary>One try of one route. Rows are only ever added.</summary>
public sealed class AttemptRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>The round it belongs to.</summary>
    public int Round { get; set; }

    /// <summary>The route.</summary>
    public RouteKind Route { get; set; }

    /// <summary>The last address asked; the file's name when a person brought it.</summary>
    public required string Address { get; set; }

    /// <summary>How it ended.</summary>
    public AttemptOutcome Outcome { get; set; }

    /// <summary>The library it went through; null for none.</summary>
    public int? LibraryId { get; set; }

    /// <summary>What happened, for a person.</summary>
    public required string Sentence { get; set; }

    /// <summary>The price asked; null when none was.</summary>
    public string? Price { get; set; }

    /// <summary>When it ended, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>How long it took, in milliseconds.</summary>
    public int Milliseconds { get; set; }

    /// <summary>How long hosts asked to be left alone on the way, in seconds; 0 when none did.</summary>
    public int AskedToWait { get; set; }
}

/// <summary>Whether a document counts as the work's text.</summary>
public enum TextVerdict
{
    /// <summary>All checks agreed.</summary>
    Verified,

    /// <summary>A person said so.</summary>
    Confirmed,

    /// <summary>A person must look.</summary>
    Doubtful,

    /// <summary>A person said it is not the work.</summary>
    Refused,
}

/// <summary>Questions about documents.</summary>
public static class TextRows
{
    /// <summary>Documents that count as a work's text: all checks agreed, or a person said so.</summary>
    public static IQueryable<TextRow> ThatCount(this IQueryable<TextRow> texts) =>
        texts.Where(t => t.Verdict == TextVerdict.Verified || t.Verdict == TextVerdict.Confirmed);

    /// <summary>Documents that count, with what was read out of them.</summary>
    public static IQueryable<ReadText> ThatWereRead(this ZendleContext made) =>
        made
            .Texts.ThatCount()
            .Join(
                made.TextReadings,
                t => t.Hash,
                r => r.Hash,
                (t, r) =>
                    new ReadText
                    {
                        Id = t.Id,
                        ReviewId = t.ReviewId,
                        WorkId = t.WorkId,
                        Version = t.Version,
                        References = r.References,
                        Citations = r.Citations,
                    }
            );

    /// <summary>
    /// The documents of a work, that one first which is its text: the version of record before another, the newest of those.
    /// </summary>
    public static IOrderedEnumerable<T> BestFirst<T>(this IEnumerable<T> texts)
        where T : IStoredText =>
        texts.OrderByDescending(t => WorkVersions.IsOfRecord(t.Version)).ThenByDescending(t => t.Id);
}

/// <summary>A document that is stored, whatever else is known of it.</summary>
public interface IStoredText
{
    /// <summary>Id; a later one is larger.</summary>
    int Id { get; }

    /// <summary>Its version; null when unknown.</summary>
    WorkVersion? Version { get; }
}

/// <summary>A document that counts, with what was read out of it: see <see cref="TextReadingRow"/>.</summary>
public sealed record ReadText : IStoredText
{
    /// <summary>The document.</summary>
    public required int Id { get; init; }

    /// <summary>The review that has it.</summary>
    public required int ReviewId { get; init; }

    /// <summary>The work it was taken in for.</summary>
    public required int WorkId { get; init; }

    /// <summary>Its version; null when unknown.</summary>
    public required WorkVersion? Version { get; init; }

    /// <summary>Its references; empty for none.</summary>
    public required byte[] References { get; init; }

    /// <summary>The sentences that cite them; empty for none.</summary>
    public required byte[] Citations { get; init; }
}

/// <summary>What was read out of a stored document once, however many reviews have it.</summary>
public sealed class TextReadingRow
{
    /// <summary>Name of the file in the vault.</summary>
    public required string Hash { get; set; }

    /// <summary>By which rules it was read; of older ones it is read again.</summary>
    public int Version { get; set; }

    /// <summary>The entries of its reference lists, as compressed JSON; empty for none.</summary>
    public byte[] References { get; set; } = [];

    /// <summary>The sentences that cite them, as compressed JSON; empty for none.</summary>
    public byte[] Citations { get; set; } = [];

    /// <summary>Its running text, page by page, as compressed JSON; empty for none.</summary>
    public byte[] Pages { get; set; } = [];
}

/// <summary>A document that came for a work of a review.</summary>
public sealed class TextRow : IStoredText
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>The review.</summary>
    public int ReviewId { get; set; }

    /// <summary>The work.</summary>
    public int WorkId { get; set; }

    /// <summary>Name of the file in the vault: SHA-256 of its bytes, in hexadecimal.</summary>
    public required string Hash { get; set; }

    /// <summary>The file it was cut out of, as a chapter of its book; null for a file as it came.</summary>
    public string? PartOf { get; set; }

    /// <summary>Its bytes.</summary>
    public int Bytes { get; set; }

    /// <summary>What kind of file it is.</summary>
    public TextFormat Format { get; set; }

    /// <summary>Its pages; 0 where its format has none.</summary>
    public int Pages { get; set; }

    /// <summary>Its version; null when unknown.</summary>
    public WorkVersion? Version { get; set; }

    /// <summary>Whether it counts.</summary>
    public TextVerdict Verdict { get; set; }

    /// <summary>What the check said, in a sentence.</summary>
    public required string Sentence { get; set; }

    /// <summary>What was compared, as JSON.</summary>
    public required string Checks { get; set; }

    /// <summary>Headings with pages, as JSON.</summary>
    public required string Headings { get; set; }

    /// <summary>How it came.</summary>
    public RouteKind Route { get; set; }

    /// <summary>From where: an address, or the name of the file a person brought.</summary>
    public required string Source { get; set; }

    /// <summary>Who settled or brought it; null for the check.</summary>
    public string? AccountId { get; set; }

    /// <summary>When it came, UTC.</summary>
    public DateTimeOffset At { get; set; }
}

/// <summary>A figure of a text that is no PDF: a file beside it.</summary>
public sealed class TextFigureRow
{
    /// <summary>The text's file: <see cref="TextRow.Hash"/>.</summary>
    public required string TextHash { get; set; }

    /// <summary>Its ordinal among the figures of the text.</summary>
    public int Ordinal { get; set; }

    /// <summary>Name of its own file in the vault.</summary>
    public required string Hash { get; set; }

    /// <summary>Its media type: that of one of the picture formats that are shown.</summary>
    public required string MediaType { get; set; }
}

/// <summary>That a person opened a text, and whether they have read it.</summary>
public sealed class ReadingRow
{
    /// <summary>Who.</summary>
    public required string AccountId { get; set; }

    /// <summary>The text.</summary>
    public int TextId { get; set; }

    /// <summary>When they opened it last, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>Whether they say that they have read it.</summary>
    public bool IsRead { get; set; }
}
