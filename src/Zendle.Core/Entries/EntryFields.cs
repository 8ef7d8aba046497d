namespace Zendle.Core.Entries;

/// <summary>
/// A custom entry as a person types it: a work that no database has. Every field is the text of its line; empty where
/// nothing is said.
/// </summary>
/// <param name="Title">Title with its subtitle.</param>
/// <param name="Type">Kind of document, by its name ("report").</param>
/// <param name="People">Authors, or editors of a book: one in each line, "Family, Given", or a list as printed.</param>
/// <param name="Year">Year of publication.</param>
/// <param name="Venue">Journal, proceedings, or the book that a chapter is in.</param>
/// <param name="Volume">Volume.</param>
/// <param name="Issue">Issue.</param>
/// <param name="Pages">First page, or first and last: "12–19".</param>
/// <param name="Publisher">Publisher or institution.</param>
/// <param name="Doi">DOI in any shape.</param>
/// <param name="Isbn">ISBN, of ten digits or thirteen.</param>
/// <param name="Address">Where it can be read.</param>
/// <param name="Language">Language, by name or code.</param>
/// <param name="Keywords">Keywords, between semicolons, commas or line ends.</param>
/// <param name="Abstract">Abstract, or what it is to be about.</param>
/// <param name="References">What it cites: a list as it stands, split as pasted references are.</param>
public sealed record EntryFields(
    string Title,
    string Type,
    string People,
    string Year,
    string Venue,
    string Volume,
    string Issue,
    string Pages,
    string Publisher,
    string Doi,
    string Isbn,
    string Address,
    string Language,
    string Keywords,
    string Abstract,
    string References
)
{
    /// <summary>Nothing typed yet.</summary>
    public static EntryFields Empty { get; } = new("", "", "", "", "", "", "", "", "", "", "", "", "", "", "", "");
}
