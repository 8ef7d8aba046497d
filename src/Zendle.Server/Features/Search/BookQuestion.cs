using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Server.Features.Search;

/// <summary>The search for a book with its chapters, and for the book alone; and what a book is known by.</summary>
internal static class BookQuestion
{
    /// <summary>
    /// A book and its chapters: by ISBN, and by the book's title, for many records of chapters have no number. Null for a work
    /// that is neither, or that tells nothing of its book.
    /// </summary>
    /// <param name="chosen">What is chosen for the book, or for one of its chapters.</param>
    public static string? WithChapters(ChosenFields chosen) =>
        Joined(chosen, t => [$"(type:chapter AND venue:\"{t}\")", $"(type:book AND title:\"{t}\")"]);

    /// <summary>The book of a chapter alone; null as above.</summary>
    /// <param name="chosen">What is chosen for the chapter.</param>
    public static string? OfChapter(ChosenFields chosen) =>
        Joined(chosen, t => [$"title:\"{t}\""]) is { } either ? $"type:book AND ({either})" : null;

    /// <summary>The words by which a title of a book or a chapter is known, however it is printed.</summary>
    public static string Key(string title) => string.Join(' ', Words.AsWritten(title));

    private static string? Joined(ChosenFields chosen, Func<string, string[]> byTitle)
    {
        var isBook = chosen.Type.Value == DocumentType.Book;
        if (!isBook && chosen.Type.Value != DocumentType.Chapter)
            return null;
        var title = (isBook ? chosen.Title.Value : chosen.Venue.Value?.Title ?? "").Replace('"', ' ').Trim();
        string[] ways =
        [
            .. chosen.Isbn.Value is { } isbn ? [$"isbn:{isbn}"] : Array.Empty<string>(),
            .. title.Length > 0 ? byTitle(title) : [],
        ];
        return ways.Length == 0 ? null : string.Join(" OR ", ways);
    }
}
