using System.Collections.Frozen;
using F23.StringSimilarity;

namespace Zendle.Core.Queries;

/// <summary>The fields a question can name before a colon.</summary>
public enum QueryField
{
    /// <summary>Title.</summary>
    Title,

    /// <summary>Abstract.</summary>
    Abstract,

    /// <summary>Keywords and controlled terms.</summary>
    Keywords,

    /// <summary>Title, abstract and keywords: the scope when nothing is said.</summary>
    About,

    /// <summary>About, people, venue, subjects, affiliation, funder and the texts gathered.</summary>
    Anywhere,

    /// <summary>Names of authors and editors.</summary>
    Author,

    /// <summary>Title of the journal, book or proceedings.</summary>
    Venue,

    /// <summary>Year of publication, or a range of years.</summary>
    Year,

    /// <summary>Kind of document.</summary>
    Type,

    /// <summary>Language, by name or code.</summary>
    Language,

    /// <summary>DOI.</summary>
    Doi,

    /// <summary>ISSN.</summary>
    Issn,

    /// <summary>ISBN.</summary>
    Isbn,

    /// <summary>Database, by name.</summary>
    Database,

    /// <summary>Subject category.</summary>
    Subject,

    /// <summary>Where the people worked.</summary>
    Affiliation,

    /// <summary>Who paid.</summary>
    Funder,

    /// <summary>Tag in the review at hand.</summary>
    Tag,

    /// <summary>Stage in the review at hand: found, kept, "set aside".</summary>
    Stage,
}

/// <summary>Names of fields as they are written before a colon.</summary>
public static class QueryFields
{
    private static readonly FrozenDictionary<string, QueryField> ByName = Enum.GetValues<QueryField>()
        .ToFrozenDictionary(f => f.ToString().ToLowerInvariant());

    /// <summary>All names, in the order of the enumeration.</summary>
    public static IReadOnlyList<string> Names { get; } = [.. Enum.GetValues<QueryField>().Select(Name)];

    /// <summary>The written name of a field.</summary>
    public static string Name(QueryField field) => field.ToString().ToLowerInvariant();

    /// <summary>Reads a name in any case.</summary>
    public static bool TryRead(string name, out QueryField field) =>
        ByName.TryGetValue(name.ToLowerInvariant(), out field);

    /// <summary>
    /// The known names nearest to <paramref name="name"/> by edit distance (Levenshtein 1966), best first, at most
    /// three.
    /// </summary>
    public static IReadOnlyList<string> Nearest(string name)
    {
        var distance = new Levenshtein();
        var folded = name.ToLowerInvariant();
        return
        [
            .. Names
                .OrderBy(n =>
                    n.StartsWith(folded, StringComparison.Ordinal) || folded.StartsWith(n, StringComparison.Ordinal)
                        ? -1
                        : distance.Distance(n, folded)
                )
                .Take(3),
        ];
    }
}
