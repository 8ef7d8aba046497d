using System.Net;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>Normal forms and check digits of the identifiers that scholarly records carry.</summary>
public static partial class Identifiers
{
    /// <summary>
    /// Normalises a DOI of any legal shape (ISO 26324: what follows the first slash is free): from an address or an
    /// <c>info:</c> URI, percent-encoded, with or without "doi:", in prose with what closes the sentence behind it,
    /// with the angle brackets and semicolons of a SICI (ANSI/NISO Z39.56). DOIs compare case-insensitively, so the
    /// normal form is lower case.
    /// </summary>
    /// <returns>The normal form of the first DOI, or null when the text holds none.</returns>
    public static string? Doi(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
            return null;
        var written = text.Trim();
        if (written.Contains('&', StringComparison.Ordinal))
            written = WebUtility.HtmlDecode(written);
        var isAddress =
            written.StartsWith("http://", StringComparison.OrdinalIgnoreCase)
            || written.StartsWith("https://", StringComparison.OrdinalIgnoreCase);
        // In an address a question mark and a number sign that belong to the DOI are encoded; bare ones begin what the
        // resolver is told.
        if (
            isAddress
            && written.IndexOfAny(['?', '#']) is > 0 and var query
            && DoiPattern().IsMatch(Uri.UnescapeDataString(written[..query]))
        )
            written = written[..query];
        if (written.Contains('%', StringComparison.Ordinal))
            written = Uri.UnescapeDataString(written);
        var match = DoiPattern().Match(written);
        if (!match.Success)
            return null;
        var doi = match.Value.ToLowerInvariant();
        // Another one may follow without a space.
        if (NextDoi().Match(doi, 8) is { Success: true } next)
            doi = doi[..next.Index];
        if (isAddress)
            doi = Page().Replace(doi, "");
        return WithoutEnd(doi) is { Length: > 8 } whole ? whole : null;
    }

    /// <summary>Without what closes a sentence or a bracket that was opened before the DOI.</summary>
    private static string WithoutEnd(string doi)
    {
        while (doi.Length > 8)
        {
            var last = doi[^1];
            var isEnd =
                last is '.' or ',' or ';' or ':' or '"' or '\'' or '“' or '”' or '’' or '»' or '…' or '*' or '`'
                || (last is ')' && doi.Count(c => c == ')') > doi.Count(c => c == '('))
                || (last is ']' && doi.Count(c => c == ']') > doi.Count(c => c == '['))
                || (last is '}' && doi.Count(c => c == '}') > doi.Count(c => c == '{'))
                || (last is '>' && doi.Count(c => c == '>') > doi.Count(c => c == '<'));
            if (!isEnd)
                break;
            doi = doi[..^1];
        }
        return doi;
    }

    /// <summary>
    /// A handle (RFC 3650) in the form "12345/678", from an address of its resolver, "hdl:" or an <c>info:</c> URI;
    /// null when the text is none.
    /// </summary>
    public static string? Handle(string? text) =>
        text is not null && HandlePattern().Match(text.Trim()) is { Success: true } match
            ? Uri.UnescapeDataString(match.Groups[1].Value).TrimEnd('.', ',', ';', '/')
            : null;

    /// <summary>
    /// An Archival Resource Key in the form "ark:12345/x678", whatever address stands before it; null when the text
    /// holds none.
    /// </summary>
    public static string? Ark(string? text) =>
        text is not null && ArkPattern().Match(text) is { Success: true } match ? $"ark:{match.Groups[1].Value}" : null;

    /// <summary>
    /// A national bibliography number as URN (RFC 8458), in lower case; null when the text holds none.
    /// </summary>
    public static string? Urn(string? text) =>
        text is not null && UrnPattern().Match(text) is { Success: true } match ? match.Value.ToLowerInvariant() : null;

    /// <summary>
    /// The number that a preprint server gives, behind the server's name and without the number of the version, which
    /// all versions have in common: "shelf:2101.01234" from "Shelf:2101.01234v2", "shelf:hep-th/9901001", or from an
    /// address ("https://shelf.example/abs/2101.01234v3"). Null when the text is none.
    /// </summary>
    public static string? Preprint(string? text) =>
        text is not null && text.Length < 200 && PreprintPattern().Match(text.Trim()) is { Success: true } match
            ? $"{match.Groups["server"].Value}:{match.Groups["number"].Value}".ToLowerInvariant()
            : null;

    /// <summary>
    /// The DOI that the versions of a preprint have in common, where a DOI ends in the number of a version
    /// ("10.5555/abc.v2", "10.5555/abc_v1"); null where it does not.
    /// </summary>
    public static string? OfAllVersions(string? doi) =>
        doi is not null && VersionEnd().Match(doi) is { Success: true, Index: > 8 } match ? doi[..match.Index] : null;

    /// <summary>
    /// Normalises an ISSN to 0000-0000, with or without label ("ISSN 2434-561X", "urn:issn:…", "2434-561X (online)");
    /// null when its check digit (modulus 11, ISO 3297) is wrong.
    /// </summary>
    public static string? Issn(string? text)
    {
        if (text is null)
            return null;
        foreach (Match match in IssnPattern().Matches(text))
            if (PlainIssn(match.Value) is { } issn)
                return issn;
        return PlainIssn(text);
    }

    private static string? PlainIssn(string text)
    {
        var digits = Compact(text);
        if (digits.Length != 8)
            return null;
        var sum = 0;
        for (var i = 0; i < 7; i++)
        {
            if (!char.IsAsciiDigit(digits[i]))
                return null;
            sum += (digits[i] - '0') * (8 - i);
        }
        var check = (11 - sum % 11) % 11;
        var expected = check == 10 ? 'X' : (char)('0' + check);
        return digits[7] == expected ? $"{digits[..4]}-{digits[4..]}" : null;
    }

    /// <summary>
    /// Normalises an ISBN to thirteen digits (ISO 2108), turning ten-digit forms over, with or without words around it
    /// ("ISBN 978-… (print)", "urn:isbn:…"); null when a check digit is wrong.
    /// </summary>
    public static string? Isbn(string? text)
    {
        if (text is null)
            return null;
        // A bare number among other words may be anything; one that is called an ISBN, or that stands alone, is one.
        if (text.Contains("isbn", StringComparison.OrdinalIgnoreCase))
            foreach (
                Match match in IsbnPattern()
                    .Matches(
                        text.Replace("ISBN-13", "ISBN", StringComparison.OrdinalIgnoreCase)
                            .Replace("ISBN-10", "ISBN", StringComparison.OrdinalIgnoreCase)
                    )
            )
                if (PlainIsbn(match.Value) is { } isbn)
                    return isbn;
        return PlainIsbn(Qualifier().Replace(text, ""));
    }

    [GeneratedRegex(@"\s*\([^()]{0,40}\)\s*$", RegexOptions.CultureInvariant)]
    private static partial Regex Qualifier();

    private static string? PlainIsbn(string text)
    {
        var digits = Compact(text);
        if (digits.Length == 10)
        {
            var sum = 0;
            for (var i = 0; i < 10; i++)
            {
                var value =
                    digits[i] == 'X' && i == 9 ? 10
                    : char.IsAsciiDigit(digits[i]) ? digits[i] - '0'
                    : -1;
                if (value < 0)
                    return null;
                sum += value * (10 - i);
            }
            if (sum % 11 != 0)
                return null;
            var body = "978" + digits[..9];
            return body + IsbnCheck(body);
        }
        if (digits.Length != 13 || !digits.All(char.IsAsciiDigit))
            return null;
        return IsbnCheck(digits[..12]) == digits[12] ? digits : null;
    }

    /// <summary>
    /// Normalises an ORCID iD to 0000-0000-0000-0000; null when its check digit (ISO 7064 MOD 11-2) is wrong.
    /// </summary>
    public static string? Orcid(string? text)
    {
        if (text is null)
            return null;
        var match = OrcidPattern().Match(text);
        if (!match.Success)
            return null;
        var digits = Compact(match.Value);
        var total = 0;
        for (var i = 0; i < 15; i++)
            total = (total + (digits[i] - '0')) * 2;
        var check = (12 - total % 11) % 11;
        var expected = check == 10 ? 'X' : (char)('0' + check);
        return digits[15] == expected ? $"{digits[..4]}-{digits[4..8]}-{digits[8..12]}-{digits[12..]}" : null;
    }

    private static char IsbnCheck(string body)
    {
        var sum = 0;
        for (var i = 0; i < 12; i++)
            sum += (body[i] - '0') * (i % 2 == 0 ? 1 : 3);
        return (char)('0' + (10 - sum % 10) % 10);
    }

    private static string Compact(string? text) =>
        text is null ? "" : string.Concat(text.Where(c => char.IsAsciiLetterOrDigit(c))).ToUpperInvariant();

    // An angle bracket belongs to a DOI only as the contribution of a SICI: "<693::AID-ASI4>3.0.CO;2-O". Any other
    // begins markup.
    [GeneratedRegex(
        @"(?<![\d.])10\.\d{4,9}(?:\.\d+)*/(?:[^\s""<>]|<(?:\d[^\s""<>]{0,80}|[^\s""<>/!]{0,20}:[^\s""<>]{0,60})>(?=\d))+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex DoiPattern();

    [GeneratedRegex(@"[;,|]\s*(?:https?://|doi:|10\.\d{4,9}/)", RegexOptions.CultureInvariant)]
    private static partial Regex NextDoi();

    [GeneratedRegex(
        @"^(?:https?://hdl\.handle\.net/|hdl:\s*|info:hdl/|handle:\s*)(\d[\w.]*/[^\s""<>]+)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex HandlePattern();

    [GeneratedRegex(@"(?<![\w.])ark:/?(\d{5,9}/[^\s""<>?#]+)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex ArkPattern();

    [GeneratedRegex(@"(?<!\w)urn:nbn:[a-z]{2}[:\w.\-/]+[\w]", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex UrnPattern();

    // Year and month, a point, a running number; or a subject, a slash, seven digits.
    [GeneratedRegex(
        @"^(?:info:(?<server>[a-z]{3,20})/|(?<server>[a-z]{3,20})\s*(?:id)?\s*[:/]\s*|https?://(?:www\."
            + @"|export\.)?(?<server>[a-z]{3,20})\.[a-z.]{2,30}/(?:abs|pdf|html"
            + @"|preprints?)/)(?<number>\d{2}(?:0[1-9]|1[0-2])\.\d{4,5}"
            + @"|[a-z-]{2,12}(?:\.[a-z]{2})?/\d{7})(?:v\d{1,2})?(?:\.pdf)?(?:\s*\[[\w.-]{2,12}\])?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex PreprintPattern();

    [GeneratedRegex(@"[./_-]?(?<=[./_-]|\d)v\d{1,2}$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex VersionEnd();

    // What publishers put behind a DOI in the address of one of its pages.
    [GeneratedRegex(
        @"/(?:full|fulltext|pdf|epdf|abstract|abs|html|meta|summary)/?$|(?<=\d)\.pdf$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Page();

    [GeneratedRegex(
        @"(?<![\d-])\d{4}[-\u2010-\u2013]\d{3}[\dXx](?![\d-])|(?<=issn\D{0,12})\d{7}[\dXx](?!\d)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex IssnPattern();

    [GeneratedRegex(
        @"(?<![\d-])(?:97[89][-\u2010-\u2013 ]?(?:\d[-\u2010-\u2013 ]?){9}\d|(?:\d[-\u2010-\u2013 ]?){9}[\dXx])(?!\d)",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex IsbnPattern();

    [GeneratedRegex(@"\d{4}-?\d{4}-?\d{4}-?\d{3}[\dXx]", RegexOptions.CultureInvariant)]
    private static partial Regex OrcidPattern();
}
