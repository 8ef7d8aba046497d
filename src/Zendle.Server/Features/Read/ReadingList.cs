using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Server.Features.Search;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Read;

/// <summary>How far a person is with the text of a work.</summary>
internal enum ReadingState
{
    /// <summary>They opened it.</summary>
    Begun,

    /// <summary>They have not opened it.</summary>
    Unread,

    /// <summary>They say that they have read it.</summary>
    Read,
}

/// <summary>Another document of a work.</summary>
/// <param name="Pages">0 where its format has none.</param>
internal sealed record OtherDocumentDto(int TextId, string? Version, TextFormat Format, int Pages);

/// <summary>A work whose text is in hand, for the person who asks.</summary>
/// <param name="TextId">The document that is opened: the version of record before another, the newest of those.</param>
/// <param name="At">When they opened it last; null when never.</param>
/// <param name="CitedByKept">How many kept works cite it.</param>
/// <param name="Others">Its other documents.</param>
internal sealed record TextToReadDto(
    int TextId,
    int WorkId,
    string Title,
    string People,
    int? Year,
    string? Venue,
    string? Version,
    TextFormat Format,
    int Pages,
    ReadingState State,
    DateTimeOffset? At,
    int CitedByKept,
    IReadOnlyList<OtherDocumentDto> Others
);

/// <summary>
/// The texts in hand in the order in which a person reads on: what they have begun, the last first; then what they have not
/// opened, that cited by most kept works first; then what they have read.
/// </summary>
internal sealed class ReadingList(
    IDbContextFactory<ZendleContext> contexts,
    TextsInHand inHand,
    SearchService search,
    CorpusReader reader,
    TimeProvider clock
)
{
    /// <summary>The texts in hand. O(texts).</summary>
    public async Task<IReadOnlyList<TextToReadDto>> Of(int reviewId, string account, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var read = await context
            .Readings.AsNoTracking()
            .Where(r => r.AccountId == account && context.Texts.Any(t => t.Id == r.TextId && t.ReviewId == reviewId))
            .ToDictionaryAsync(r => r.TextId, cancel);
        var byWork = await inHand.Of(reviewId, cancel);
        var records = await reader.OfWorks([.. byWork.Select(w => w.Key)], cancel);
        using var view = await search.View(reviewId, SearchState.Everything);
        var (graph, kept) = (view.Snapshot.Columns.Graph, view.Facts.Kept);
        return
        [
            .. byWork
                .Where(w => records.Contains(w.Key))
                .Select(w => Row(w.Key, [.. w]))
                .OrderBy(r => r.State)
                .ThenByDescending(r => r.State == ReadingState.Unread ? null : r.At)
                .ThenByDescending(r => r.CitedByKept)
                .ThenByDescending(r => r.Year)
                .ThenBy(r => r.WorkId),
        ];

        TextToReadDto Row(int work, TextRow[] ordered)
        {
            var chosen = ChosenFields.From([.. records[work]]);
            var opened = ordered.Select(t => read.GetValueOrDefault(t.Id)).OfType<ReadingRow>().ToArray();
            var citedBy = 0;
            foreach (var citing in graph.CitedBy(work))
                citedBy += kept.Contains(citing) ? 1 : 0;
            return new(
                ordered[0].Id,
                work,
                chosen.Title.Value,
                PeopleLine.Of(chosen.People.Value),
                chosen.Year.Value,
                chosen.Venue.Value?.Title ?? chosen.Publisher.Value,
                WorkVersions.Name(ordered[0].Version),
                ordered[0].Format,
                ordered[0].Pages,
                opened.Any(r => r.IsRead) ? ReadingState.Read
                    : opened.Length > 0 ? ReadingState.Begun
                    : ReadingState.Unread,
                opened.Length == 0 ? null : opened.Max(r => r.At),
                citedBy,
                [
                    .. ordered
                        .Skip(1)
                        .Select(t => new OtherDocumentDto(t.Id, WorkVersions.Name(t.Version), t.Format, t.Pages)),
                ]
            );
        }
    }

    /// <summary>Notes that a person has a text open, and, where they say so, whether they have read it.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="account">Who.</param>
    /// <param name="textId">The text.</param>
    /// <param name="isRead">Null to leave what they said.</param>
    /// <returns>Whether there is such a text.</returns>
    public async Task<bool> Note(int reviewId, string account, int textId, bool? isRead)
    {
        await using var context = await contexts.CreateDbContextAsync();
        if (!await context.Texts.AnyAsync(t => t.Id == textId && t.ReviewId == reviewId))
            return false;
        var row = await context.Readings.SingleOrDefaultAsync(r => r.AccountId == account && r.TextId == textId);
        if (row is null)
            context.Readings.Add(row = new() { AccountId = account, TextId = textId });
        (row.At, row.IsRead) = (clock.GetUtcNow(), isRead ?? row.IsRead);
        try
        {
            await context.SaveChangesAsync();
        }
        catch (DbUpdateException)
        {
            // Opened in two windows at one moment: the other has noted it.
        }
        return true;
    }
}
