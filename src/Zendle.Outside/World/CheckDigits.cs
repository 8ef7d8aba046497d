using System.Globalization;

namespace Zendle.Outside.World;

/// <summary>Makes identifiers with valid check digits from plain numbers, in ranges that are not given out.</summary>
public static class CheckDigits
{
    /// <summary>ISSN from seven digits (ISO 3297, modulus 11).</summary>
    public static string Issn(int seven)
    {
        var digits = seven.ToString("D7", CultureInfo.InvariantCulture);
        var sum = 0;
        for (var i = 0; i < 7; i++)
            sum += (digits[i] - '0') * (8 - i);
        var check = (11 - sum % 11) % 11;
        return $"{digits[..4]}-{digits[4..]}{(check == 10 ? "X" : check.ToString(CultureInfo.InvariantCulture))}";
    }

    /// <summary>ISBN-13 from twelve digits (ISO 2108).</summary>
    public static string Isbn(long twelve)
    {
        var digits = twelve.ToString("D12", CultureInfo.InvariantCulture);
        var sum = 0;
        for (var i = 0; i < 12; i++)
            sum += (digits[i] - '0') * (i % 2 == 0 ? 1 : 3);
        return digits + ((10 - sum % 10) % 10).ToString(CultureInfo.InvariantCulture);
    }

    /// <summary>ORCID iD from up to fifteen digits (ISO 7064 MOD 11-2).</summary>
    public static string Orcid(long fifteen)
    {
        var digits = fifteen.ToString("D15", CultureInfo.InvariantCulture);
        var total = 0;
        foreach (var c in digits)
            total = (total + (c - '0')) * 2;
        var check = (12 - total % 11) % 11;
        var all = digits + (check == 10 ? "X" : check.ToString(CultureInfo.InvariantCulture));
        return $"{all[..4]}-{all[4..8]}-{all[8..12]}-{all[12..]}";
    }
}
