using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Works;

/// <summary>A chapter of a book that is a work here.</summary>
/// <param name="Pages">Its pages in the book; null when not told.</param>
/// <param name="Cited">How many works here cite it.</param>
/// <param name="Begins">The beginning of its abstract; empty for none.</param>
internal sealed record ChapterDto(
    int WorkId,
    string Title,
    string People,
    string? Pages,
    int Cited,
    string Begins,
    Stage Stage
);

/// <summary>A book with its chapters, as far as they are works here.</summary>
/// <param name="WorkId">The book itself; null when it is no work here.</param>
/// <param name="Title">Its title.</param>
/// <param name="People">Its editors or authors; empty when it is no work here.</param>
/// <param name="Chapters">Its chapters by page, at most two hundred.</param>
/// <param name="Total">How many chapters there are.</param>
/// <param name="Others">Chapters that its table of contents names and no work here is.</param>
/// <param name="Expression">The search that finds the book and its chapters.</param>
internal sealed record BookDto(
    int? WorkId,
    string Title,
    string People,
    IReadOnlyList<ChapterDto> Chapters,
    int Total,
    IReadOnlyList<string> Others,
    string Expression
);

/// <summary>The book that a work is, or is a chapter of.</summary>
internal static class BookEndpoints
{
    private const int Most = 200,
        LongestBeginning = 240;

    public static void MapBooks(this RouteGroupBuilder review) =>
        review.MapGet("/works/{workId:int}/book", Of).Produces<BookDto>();

    private static async Task<IResult> Of(
        int reviewId,
        int workId,
        SearchService search,
        CorpusReader reader,
        CancellationToken cancel
    )
    {
        workId = await reader.Redirect(workId, cancel);
        var records = (await reader.OfWorks([workId], cancel))[workId].ToArray();
        var chosen = records.Length == 0 ? null : ChosenFields.From(records);
        if (chosen is null || BookQuestion.WithChapters(chosen) is not { } expression)
            return Problems.Of(404, "No record of this work names a book.");
        var state = SearchState.Everything with { Question = new WordsQuestion(expression) };
        using var view = await search.View(reviewId, state);
        int[] ids = [.. view.Answer.Before.Members()];
        var all = await reader.OfWorks(ids, cancel);
        var parts = ids.Where(all.Contains)
            .Select(id => (Id: id, Records: all[id].ToArray()))
            .Select(p => (p.Id, p.Records, Chosen: ChosenFields.From(p.Records)))
            .ToArray();
        var book = parts.FirstOrDefault(p => p.Chosen.Type.Value == DocumentType.Book);
        var chapters = parts
            .Where(p => p.Chosen.Type.Value != DocumentType.Book)
            .OrderBy(p => PageOf(p.Chosen))
            .ThenBy(p => p.Chosen.Title.Value, StringComparer.OrdinalIgnoreCase)
            .ToArray();
        var here = parts
            .SelectMany(p => p.Records)
            .SelectMany(r => r.Record.Titles)
            .Select(BookQuestion.Key)
            .ToHashSet();
        return TypedResults.Ok(
            new BookDto(
                book.Chosen is null ? null : book.Id,
                book.Chosen?.Title.Value ?? chosen.Venue.Value?.Title ?? "",
                book.Chosen is null ? "" : PeopleLine.Of(book.Chosen.People.Value),
                [
                    .. chapters
                        .Take(Most)
                        .Select(c => new ChapterDto(
                            c.Id,
                            c.Chosen.Title.Value,
                            PeopleLine.Of(c.Chosen.People.Value),
                            Pages(c.Chosen.Venue.Value),
                            view.Snapshot.Columns.Graph.CitedByCount(c.Id),
                            Beginning(c.Chosen.Abstract.Value),
                            view.Fold.Of(c.Id).Stage
                        )),
                ],
                chapters.Length,
                [
                    .. parts
                        .SelectMany(p => p.Records)
                        .SelectMany(r => r.Record.Contents)
                        .DistinctBy(BookQuestion.Key)
                        .Where(t => !here.Contains(BookQuestion.Key(t)))
                        .Take(Most),
                ],
                expression
            )
        );
    }

    private static int PageOf(ChosenFields chosen) =>
        int.TryParse(chosen.Venue.Value?.FirstPage, out var page) ? page : int.MaxValue;

    private static string? Pages(VenuePart? venue) =>
        venue?.FirstPage is not { } first ? null
        : venue.EndPage is { } last ? $"{first}–{last}"
        : first;

    private static string Beginning(string text)
    {
        if (text.Length <= LongestBeginning)
            return text;
        var cut = text.LastIndexOf(' ', LongestBeginning);
        return string.Concat(text.AsSpan(0, cut > 0 ? cut : LongestBeginning), " …");
    }
}
