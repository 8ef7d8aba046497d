using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Server.Features.Search;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Gather;

/// <summary>The books of chapters, as records of the books themselves tell them.</summary>
internal sealed class BookRecords(SearchService search, CorpusReader reader)
{
    /// <summary>What routes need to know of the book that a chapter stands in; null where no record here is of that book.</summary>
    /// <param name="reviewId">The review; what it brought in itself counts, too.</param>
    /// <param name="chapter">The chapter.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<Sought?> Of(int reviewId, int chapter, CancellationToken cancel)
    {
        chapter = await reader.Redirect(chapter, cancel);
        if (
            (await Chosen([chapter], cancel)).FirstOrDefault() is not { } chosen
            || chosen.Type.Value != DocumentType.Chapter
            || BookQuestion.OfChapter(chosen) is not { } expression
        )
            return null;
        var state = SearchState.Everything with { Question = new WordsQuestion(expression) };
        int[] found;
        using (var view = await search.View(reviewId, state))
            found = [.. view.Answer.Before.Members()];
        return (await Chosen(found, cancel)).FirstOrDefault(b => IsBookOf(b, chosen)) is { } book
            ? new(book.Doi.Value, book.Copies)
            : null;
    }

    /// <summary>A title inside a longer one finds other books, too.</summary>
    private static bool IsBookOf(ChosenFields book, ChosenFields chapter) =>
        book.Type.Value == DocumentType.Book
        && (
            (book.Isbn.Value is { } isbn && isbn == chapter.Isbn.Value)
            || BookQuestion.Key(book.Title.Value) == BookQuestion.Key(chapter.Venue.Value?.Title ?? "")
        );

    private async Task<IEnumerable<ChosenFields>> Chosen(int[] works, CancellationToken cancel)
    {
        var records = await reader.OfWorks(works, cancel);
        return works.Where(records.Contains).Select(w => ChosenFields.From([.. records[w]]));
    }
}
