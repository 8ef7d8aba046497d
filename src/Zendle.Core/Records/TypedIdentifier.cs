using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>Kinds of identifiers that a line may consist of.</summary>
public enum IdentifierKind
{
    /// <summary>DOI (ISO 26324).</summary>
    Doi,

    /// <summary>ISBN (ISO 2108).</summary>
    Isbn,

    /// <summary>ISSN (ISO 3297).</summary>
    Issn,

    /// <summary>Address on the web.</summary>
    Url,

    /// <summary>ORCID iD (ISO 27729), which names a person, not a work.</summary>
    Orcid,
}

/// <summary>A line that is one identifier and little else.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Value">Its normal form.</param>
public sealed partial record TypedIdentifier(IdentifierKind Kind, string Value)
{
    /// <summary>Most characters beside a DOI: "DOI: ", "https://doi.org/".</summary>
    private const int LongestLabel = 24;

    /// <summary>Words that say what a number is or which edition it belongs to, and the last digit X.</summary>
    private static readonly HashSet<string> Labels = new(StringComparer.OrdinalIgnoreCase)
    {
        "isbn",
        "issn",
        "eisbn",
        "eissn",
        "pissn",
        "e",
        "p",
        "l",
        "x",
        "print",
        "printed",
        "online",
        "electronic",
        "linking",
        "hardback",
        "hardcover",
        "paperback",
        "hbk",
        "pbk",
        "ebook",
        "pdf",
        "epub",
    };

    /// <summary>What asks for the works that have it; a person's iD is asked for as it is printed.</summary>
    public string Expression =>
        Kind == IdentifierKind.Orcid ? $"\"{Value}\"" : $"{Kind.ToString().ToLowerInvariant()}:\"{Value}\"";

    /// <summary>The identifier that a line is; null for a line of words, or of several.</summary>
    public static TypedIdentifier? Of(string line)
    {
        var text = line.Trim();
        if (Identifiers.Doi(text) is { } doi)
            return text.Length <= doi.Length + LongestLabel ? new(IdentifierKind.Doi, doi) : null;
        if (Identifiers.Orcid(text) is { } orcid && AroundOrcid().IsMatch(text))
            return new(IdentifierKind.Orcid, orcid);
        if (WebAddress.Of(text) is { } address)
            return new(IdentifierKind.Url, address.AbsoluteUri);
        // Words beside a number are a search: "light year:1990-2026" holds what would be an ISSN.
        if (Letters().Matches(text).Any(word => !Labels.Contains(word.Value)))
            return null;
        if (Identifiers.Isbn(text) is { } isbn)
            return new(IdentifierKind.Isbn, isbn);
        return Identifiers.Issn(text) is { } issn && !AreYears(text) ? new(IdentifierKind.Issn, issn) : null;
    }

    /// <summary>"1990-2005" is a span of years, whatever its last digit checks.</summary>
    private static bool AreYears(string text) =>
        text.Split('-', '–') is [var from, var to]
        && int.TryParse(from, out var first)
        && int.TryParse(to, out var last)
        && first is >= 1000 and < 2100
        && last is >= 1000 and < 2100
        && first <= last;

    [GeneratedRegex(
        @"^(?:(?:https?://)?(?:www\.)?orcid\.org/|orcid(?: id)?[:\s]*)?[\d-]+X?/?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex AroundOrcid();

    [GeneratedRegex(@"\p{L}+")]
    private static partial Regex Letters();
}
