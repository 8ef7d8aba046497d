using Zendle.Core.FullText;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Text;
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
        if (
            await Chosen(chapter, cancel) is not { } chosen
            || chosen.Type.Value != DocumentType.Chapter
            || BookQuestion.OfChapter(chosen) is not { } expression
        )
            return null;
        int[] found;
        using (
            var view = await search.View(
                reviewId,
                SearchState.Everything with
                {
                    Question = new WordsQuestion(expression),
                }
            )
        )
            found = [.. view.Answer.Before.Members()];
        foreach (var id in found)
            if (await Chosen(id, cancel) is { } book && IsBookOf(book, chosen))
                return new(book.Doi.Value, book.Copies);
        return null;
    }

    /// <summary>A title inside a longer one finds other books, too.</summary>
    private static bool IsBookOf(ChosenFields book, ChosenFields chapter) =>
        book.Type.Value == DocumentType.Book
        && (
            (book.Isbn.Value is { } isbn && isbn == chapter.Isbn.Value)
            || Key(book.Title.Value) == Key(chapter.Venue.Value?.Title ?? "")
        );

    private static string Key(string title) => string.Join(' ', Words.AsWritten(title));

    private async Task<ChosenFields?> Chosen(int work, CancellationToken cancel)
    {
        work = await reader.Redirect(work, cancel);
        var records = (await reader.OfWorks([work], cancel))[work].ToArray();
        return records.Length == 0 ? null : ChosenFields.From(records);
    }
}
