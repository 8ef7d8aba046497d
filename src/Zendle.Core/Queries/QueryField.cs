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

    /// <summary>About, people, venue, subjects, affiliation and funder: all of a record that is running text; and the full
    /// texts that the review has gathered.</summary>
    Anywhere,

    /// <summary>Names of authors and editors.</summary>
    Author,

    /// <summary>A person told apart from namesakes, by the label shown: all their works, under every name.</summary>
    Person,

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

    /// <summary>Web address where the work, or its text, can be had.</summary>
    Url,

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

    /// <summary>The full texts that the review has gathered, but for their reference lists.</summary>
    Text,
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
    /// What people call a field, or shorten it to, beside its name. A name is what the trade says; two letters stand for
    /// the word they begin or are taken from.
    /// </summary>
    private static readonly FrozenDictionary<string, QueryField> Others = new Dictionary<string, QueryField>
    {
        ["ti"] = QueryField.Title,
        ["titles"] = QueryField.Title,
        ["ab"] = QueryField.Abstract,
        ["abs"] = QueryField.Abstract,
        ["abst"] = QueryField.Abstract,
        ["summary"] = QueryField.Abstract,
        ["kw"] = QueryField.Keywords,
        ["key"] = QueryField.Keywords,
        ["keyword"] = QueryField.Keywords,
        ["kwd"] = QueryField.Keywords,
        ["descriptor"] = QueryField.Keywords,
        ["descriptors"] = QueryField.Keywords,
        ["topic"] = QueryField.About,
        ["all"] = QueryField.Anywhere,
        ["any"] = QueryField.Anywhere,
        ["au"] = QueryField.Author,
        ["auth"] = QueryField.Author,
        ["authors"] = QueryField.Author,
        ["creator"] = QueryField.Author,
        ["journal"] = QueryField.Venue,
        ["jo"] = QueryField.Venue,
        ["so"] = QueryField.Venue,
        ["source"] = QueryField.Venue,
        ["publication"] = QueryField.Venue,
        ["date"] = QueryField.Year,
        ["yr"] = QueryField.Year,
        ["py"] = QueryField.Year,
        ["years"] = QueryField.Year,
        ["dt"] = QueryField.Type,
        ["kind"] = QueryField.Type,
        ["la"] = QueryField.Language,
        ["lang"] = QueryField.Language,
        ["db"] = QueryField.Database,
        ["su"] = QueryField.Subject,
        ["subjects"] = QueryField.Subject,
        ["category"] = QueryField.Subject,
        ["af"] = QueryField.Affiliation,
        ["ad"] = QueryField.Affiliation,
        ["address"] = QueryField.Affiliation,
        ["org"] = QueryField.Affiliation,
        ["institution"] = QueryField.Affiliation,
        ["fulltext"] = QueryField.Text,
        ["ft"] = QueryField.Text,
        ["body"] = QueryField.Text,
        ["link"] = QueryField.Url,
        ["fu"] = QueryField.Funder,
        ["funding"] = QueryField.Funder,
        ["grant"] = QueryField.Funder,
    }.ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>
    /// The fields that somebody may mean who writes <paramref name="name"/>, best first, at most three: by what people
    /// call them, by their beginning, or a slip away (Damerau 1964: at most one letter in three, two turned round as
    /// one). A far-off field is
    /// never among them, so there may be none.
    /// </summary>
    public static IReadOnlyList<string> Nearest(string name)
    {
        var folded = name.ToLowerInvariant();
        if (Others.TryGetValue(folded, out var meant))
            return [Name(meant)];
        var distance = new Damerau();
        return
        [
            .. Names
                .Select(n =>
                    (
                        Name: n,
                        Distance: folded.Length > 1
                        && (
                            n.StartsWith(folded, StringComparison.Ordinal)
                            || (n.Length > 3 && folded.StartsWith(n, StringComparison.Ordinal))
                        )
                            ? 0
                            : distance.Distance(n, folded)
                    )
                )
                .Where(n => n.Distance <= Math.Max(folded.Length, n.Name.Length) / 3)
                .OrderBy(n => n.Distance)
                .Select(n => n.Name)
                .Take(3),
        ];
    }

    /// <summary>The one field that a name or a common shortening of it means beyond doubt; null for none.</summary>
    public static QueryField? Meant(string name) =>
        TryRead(name, out var field) ? field
        : Others.TryGetValue(name.ToLowerInvariant(), out var other) ? other
        : null;
}
