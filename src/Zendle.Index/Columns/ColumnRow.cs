using Zendle.Core.Records;

namespace Zendle.Index.Columns;

/// <summary>What the columns take from one record of the store.</summary>
/// <param name="RecordId">Id of the record.</param>
/// <param name="WorkId">Id of its work.</param>
/// <param name="DatabaseId">Its database; <see cref="CorpusColumns.NoDatabase"/> when it is in none any more.</param>
/// <param name="Trust">Rank of the database, 0 the most trusted.</param>
/// <param name="Year">Year, or null.</param>
/// <param name="Type">Kind of document.</param>
/// <param name="Language">Language code, or null.</param>
/// <param name="Title">Title; for sorting.</param>
/// <param name="FirstPerson">First family name, or null; for sorting.</param>
/// <param name="People">Names for the facet, in their short form.</param>
/// <param name="Venue">Title of the venue, or null.</param>
/// <param name="Subjects">Subject categories.</param>
/// <param name="TextRank">Rank of the best copy.</param>
/// <param name="CitedCount">The database's own citation count, or null.</param>
/// <param name="Doi">Key of the DOI; 0 for none.</param>
/// <param name="TitleKey">Key of title and first person; 0 for none.</param>
/// <param name="References">Two keys (DOI, title and person) for each reference.</param>
/// <param name="IsOnlyCited">Whether the record is known from reference lists only.</param>
/// <param name="Around">Who stands behind the work, where it was done and what it is said to be about; null for nothing
/// said.</param>
/// <param name="HasAbstract">Whether it has an abstract.</param>
public sealed record ColumnRow(
    int RecordId,
    int WorkId,
    int DatabaseId,
    int Trust,
    int? Year,
    DocumentType Type,
    string? Language,
    string Title,
    string? FirstPerson,
    IReadOnlyList<string> People,
    string? Venue,
    IReadOnlyList<string> Subjects,
    int TextRank,
    int? CitedCount,
    ulong Doi,
    ulong TitleKey,
    IReadOnlyList<ulong> References,
    bool IsOnlyCited = false,
    WorkAround? Around = null,
    bool HasAbstract = false
);

/// <summary>
/// Who stands behind a work, where it was done and what it is said to be about, as one record says it.
/// </summary>
/// <param name="Affiliations">Where its people worked, each once.</param>
/// <param name="Countries">Countries it is about.</param>
/// <param name="Funders">Who paid for it.</param>
/// <param name="Keywords">Keywords of its authors or the database.</param>
public sealed record WorkAround(
    IReadOnlyList<string> Affiliations,
    IReadOnlyList<string> Countries,
    IReadOnlyList<string> Funders,
    IReadOnlyList<string> Keywords
);
