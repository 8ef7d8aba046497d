using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Terms;

namespace Zendle.Index.Columns;

/// <summary>What the columns take from one record of the store.</summary>
/// <param name="RecordId">Id of the record.</param>
/// <param name="WorkId">Id of its work.</param>
/// <param name="DatabaseId">Its database; <see cref="CorpusColumns.NoDatabase"/> when it is in none any more.</param>
/// <param name="Year">Year, or null.</param>
/// <param name="Type">Kind of document.</param>
/// <param name="People">Names for the facet, in their short form.</param>
/// <param name="Subjects">Subject categories.</param>
/// <param name="TextRank">Rank of the best copy.</param>
/// <param name="CitedCount">The database's own citation count, or null.</param>
/// <param name="Doi">Key of the DOI; 0 for none.</param>
/// <param name="TitleKey">Key of title and first person; 0 for none.</param>
/// <param name="References">What each reference is matched by.</param>
/// <param name="IsOnlyCited">Whether the record is known from reference lists only.</param>
/// <param name="Around">Who stands behind the work, where it was done and what it is said to be about; null for nothing
/// said.</param>
/// <param name="HasAbstract">Whether it has an abstract.</param>
public sealed record ColumnRow(
    int RecordId,
    int WorkId,
    int DatabaseId,
    int? Year,
    DocumentType Type,
    IReadOnlyList<string> People,
    IReadOnlyList<string> Subjects,
    int TextRank,
    int? CitedCount,
    ulong Doi,
    ulong TitleKey,
    IReadOnlyList<ReferenceKeys> References,
    bool IsOnlyCited = false,
    WorkAround? Around = null,
    bool HasAbstract = false
);

/// <summary>
/// The single values of a work: chosen once from its records (<see cref="ChosenFields"/>), and then the
/// same wherever the work is shown, sorted, drawn, counted, narrowed and written out.
/// </summary>
/// <param name="Year">Year; null for none.</param>
/// <param name="Type">Kind of document.</param>
/// <param name="Language">Language code; null for none.</param>
/// <param name="Title">Title.</param>
/// <param name="FirstPerson">First family name; null for none.</param>
/// <param name="Venue">Title of the venue; null for none. Stands for the venue where venues are not told apart.</param>
public sealed record WorkValues(
    int? Year,
    DocumentType Type,
    string? Language,
    string Title,
    string? FirstPerson,
    string? Venue
)
{
    /// <summary>The words of what it is about, in the order they stand; see <see cref="RunningWords"/>.</summary>
    public IReadOnlyList<string> Words { get; init; } = [];

    /// <summary>The values that were chosen.</summary>
    public static WorkValues Of(ChosenFields chosen) =>
        new(
            chosen.Year.Value,
            chosen.Type.Value,
            chosen.Language.Value,
            chosen.Title.Value,
            chosen.People.Value is [var first, ..] ? first.Family : null,
            chosen.Venue.Value?.Title
        )
        {
            Words = RunningWords.Of(chosen),
        };
}

/// <summary>
/// Who stands behind a work, where it was done and what it is said to be about, as one record says it.
/// </summary>
/// <param name="Affiliations">Where its people worked, each once.</param>
/// <param name="Countries">Countries it is about.</param>
/// <param name="Funders">Who paid for it.</param>
/// <param name="Keywords">Keywords of its authors, and controlled terms of the database.</param>
public sealed record WorkAround(
    IReadOnlyList<string> Affiliations,
    IReadOnlyList<string> Countries,
    IReadOnlyList<string> Funders,
    IReadOnlyList<string> Keywords
);
