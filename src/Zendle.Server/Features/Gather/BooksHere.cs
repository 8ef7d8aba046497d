using Microsoft.EntityFrameworkCore;
using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;
using Zendle.Store.Files;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Gather;

/// <summary>A book's file that a review has, for one of its chapters.</summary>
/// <param name="Bytes">The file.</param>
/// <param name="Route">How it came.</param>
/// <param name="Source">From where.</param>
internal sealed record BookHere(byte[] Bytes, RouteKind Route, string Source);

/// <summary>Files of whole books that chapters were cut out of: their other chapters need not be asked for again.</summary>
internal sealed class BooksHere(IDbContextFactory<ZendleContext> contexts, CorpusReader reader, FileVault vault)
{
    /// <summary>The file of the book that a chapter stands in; null when the review has none.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="chapter">The chapter.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<BookHere?> Of(int reviewId, int chapter, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var cut = await context
            .Texts.AsNoTracking()
            .ThatCount()
            .Where(t => t.ReviewId == reviewId && t.PartOf != null && t.WorkId != chapter)
            .ToListAsync(cancel);
        if (cut.Count == 0)
            return null;
        var books = await BookOf([chapter, .. cut.Select(t => t.WorkId)], cancel);
        if (books.GetValueOrDefault(chapter) is not { } own)
            return null;
        return
            cut.Find(t => books.GetValueOrDefault(t.WorkId) is { } other && IsSame(own, other)) is { } sister
            && vault.Has(sister.PartOf!)
            ? new(await File.ReadAllBytesAsync(vault.PathOf(sister.PartOf!), cancel), sister.Route, sister.Source)
            : null;
    }

    private static bool IsSame((string? Isbn, string Title) a, (string? Isbn, string Title) b) =>
        a.Isbn is not null && b.Isbn is not null ? a.Isbn == b.Isbn : a.Title.Length > 0 && a.Title == b.Title;

    /// <summary>What the books of chapters are known by: an ISBN, and the words of their title.</summary>
    private async Task<Dictionary<int, (string? Isbn, string Title)?>> BookOf(int[] works, CancellationToken cancel)
    {
        var redirects = await reader.Redirects(works, cancel);
        var records = await reader.OfWorks(
            [.. works.Select(w => redirects.GetValueOrDefault(w, w)).Distinct()],
            cancel
        );
        return works
            .Distinct()
            .ToDictionary(
                w => w,
                w =>
                    records[redirects.GetValueOrDefault(w, w)].ToArray() is { Length: > 0 } of
                    && ChosenFields.From(of) is var chosen
                        ? (chosen.Isbn.Value, BookQuestion.Key(chosen.Venue.Value?.Title ?? ""))
                        : ((string?, string)?)null
            );
    }
}
