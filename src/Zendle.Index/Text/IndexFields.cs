using Zendle.Core.Queries;

namespace Zendle.Index.Text;

/// <summary>Names of the fields in the text index, and which of them a question's field covers.</summary>
internal static class IndexFields
{
    /// <summary>
    /// Longest word or value that is told apart, in characters: what the text index takes is at most 32,766 bytes, and
    /// nobody's word is as long as this.
    /// </summary>
    private const int LongestWord = 1_000;

    /// <summary>A word as it is indexed and looked for.</summary>
    public static string Cut(string word) => word.Length > LongestWord ? word[..LongestWord] : word;

    public const string Title = "t",
        Abstract = "a",
        Keywords = "k",
        Controlled = "c",
        Author = "p",
        Venue = "v",
        Subject = "s",
        Affiliation = "f",
        Funder = "u";

    /// <summary>Forms of each person's name, whole; see <c>NameForms</c>.</summary>
    public const string Name = "n";

    /// <summary>Closed forms, each with how it is written: "lighttrap|light-trap".</summary>
    public const string Hyphenated = "x";

    public const string Doi = "doi",
        Issn = "issn",
        Isbn = "isbn",
        Url = "url",
        Type = "type",
        Language = "lang";
    public const string Id = "id",
        Record = "rid",
        Lengths = "len";

    private static readonly string[] About = [Title, Abstract, Keywords, Controlled];
    private static readonly string[] Anywhere =
    [
        Title,
        Abstract,
        Keywords,
        Controlled,
        Author,
        Venue,
        Subject,
        Affiliation,
        Funder,
    ];

    /// <summary>
    /// The running-text fields a question's field is looked for in; empty for fields that hold one value.
    /// </summary>
    public static string[] Text(QueryField field) =>
        field switch
        {
            QueryField.Title => [Title],
            QueryField.Abstract => [Abstract],
            QueryField.Keywords => [Keywords, Controlled],
            QueryField.About => About,
            QueryField.Anywhere => Anywhere,
            QueryField.Author => [Author],
            QueryField.Venue => [Venue],
            QueryField.Subject => [Subject],
            QueryField.Affiliation => [Affiliation],
            QueryField.Funder => [Funder],
            _ => [],
        };

    /// <summary>The one-value field, or null.</summary>
    public static string? Value(QueryField field) =>
        field switch
        {
            QueryField.Doi => Doi,
            QueryField.Issn => Issn,
            QueryField.Isbn => Isbn,
            QueryField.Url => Url,
            QueryField.Type => Type,
            QueryField.Language => Language,
            _ => null,
        };
}
