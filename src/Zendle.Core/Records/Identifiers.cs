using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>Normal forms and check digits of the identifiers that scholarly records carry.</summary>
public static partial class Identifiers
{
    /// <summary>
    /// Normalises a DOI: from an address, with or without "doi:", any case, with trailing punctuation. DOIs compare case-insensitively
    /// (ISO 26324), so the normal form is lower case.
    /// </summary>
    /// <returns>The normal form, or null when the text holds no DOI.</returns>
    public static string? Doi(string? text)
    {
        if (string.IsNullOrWhiteSpace(text)) return null;
        var match = DoiPattern().Match(Uri.UnescapeDataString(text.Trim()));
        if (!match.Success) return null;
        var doi = match.Value.ToLowerInvariant().TrimEnd('.', ',', ';', ':', '"', '\'', '>', ']', '}');
        // A closing parenthesis belongs to the DOI only when it was opened inside it.
        while (doi.EndsWith(')') && doi.Count(c => c == ')') > doi.Count(c => c == '(')) doi = doi[..^1].TrimEnd('.', ',');
        return doi.Length > 8 ? doi : null;
    }

    /// <summary>Normalises an ISSN to 0000-0000; null when its check digit (modulus 11, ISO 3297) is wrong.</summary>
    public static string? Issn(string? text)
    {
        var digits = Compact(text);
        if (digits.Length != 8) return null;
        var sum = 0;
        for (var i = 0; i < 7; i++)
        {
            if (!char.IsAsciiDigit(digits[i])) return null;
            sum += (digits[i] - '0') * (8 - i);
        }
        var check = (11 - sum % 11) % 11;
        var expected = check == 10 ? 'X' : (char)('0' + check);
        return digits[7] == expected ? $"{digits[..4]}-{digits[4..]}" : null;
    }

    /// <summary>Normalises an ISBN to thirteen digits (ISO 2108), turning ten-digit forms over; null when a check digit is wrong.</summary>
    public static string? Isbn(string? text)
    {
        var digits = Compact(text);
        if (digits.Length == 10)
        {
            var sum = 0;
            for (var i = 0; i < 10; i++)
            {
                var value = digits[i] == 'X' && i == 9 ? 10 : char.IsAsciiDigit(digits[i]) ? digits[i] - '0' : -1;
                if (value < 0) return null;
                sum += value * (10 - i);
            }
            if (sum % 11 != 0) return null;
            var body = "978" + digits[..9];
            return body + IsbnCheck(body);
        }
        if (digits.Length != 13 || !digits.All(char.IsAsciiDigit)) return null;
        return IsbnCheck(digits[..12]) == digits[12] ? digits : null;
    }

    /// <summary>Normalises an ORCID iD to 0000-0000-0000-0000; null when its check digit (ISO 7064 MOD 11-2) is wrong.</summary>
    public static string? Orcid(string? text)
    {
        if (text is null) return null;
        var match = OrcidPattern().Match(text);
        if (!match.Success) return null;
        var digits = Compact(match.Value);
        var total = 0;
        for (var i = 0; i < 15; i++) total = (total + (digits[i] - '0')) * 2;
        var check = (12 - total % 11) % 11;
        var expected = check == 10 ? 'X' : (char)('0' + check);
        return digits[15] == expected ? $"{digits[..4]}-{digits[4..8]}-{digits[8..12]}-{digits[12..]}" : null;
    }

    private static char IsbnCheck(string body)
    {
        var sum = 0;
        for (var i = 0; i < 12; i++) sum += (body[i] - '0') * (i % 2 == 0 ? 1 : 3);
        return (char)('0' + (10 - sum % 10) % 10);
    }

    private static string Compact(string? text) =>
        text is null ? "" : string.Concat(text.Where(c => char.IsAsciiLetterOrDigit(c))).ToUpperInvariant();

    [GeneratedRegex(@"\b10\.\d{4,9}/[^\s""<>]+", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex DoiPattern();

    [GeneratedRegex(@"\d{4}-?\d{4}-?\d{4}-?\d{3}[\dXx]", RegexOptions.CultureInvariant)]
    private static partial Regex OrcidPattern();
}
