using System.Globalization;

namespace Zendle.Core.Records;

/// <summary>A date told as far as a year, a month or a day (W3CDTF; KBART, NISO RP-9-2014, 6.6.4).</summary>
/// <param name="Year">Year, 1–9999.</param>
/// <param name="Month">Month, 1–12; 0 when only the year is told.</param>
/// <param name="Day">Day, 1–31; 0 when no day is told.</param>
public readonly record struct PartialDate(int Year, int Month = 0, int Day = 0)
{
    /// <summary>The first day it can mean.</summary>
    public DateOnly First => new(Year, Math.Max(1, Month), Math.Max(1, Day));

    /// <summary>The last day it can mean.</summary>
    public DateOnly Last =>
        Month == 0 ? new(Year, 12, 31)
        : Day == 0 ? new(Year, Month, DateTime.DaysInMonth(Year, Month))
        : new(Year, Month, Day);

    /// <summary>Reads "2021", "2021-03" or "2021-03-18"; null for anything else.</summary>
    public static PartialDate? Read(string? text)
    {
        var parts = (text ?? "").Trim().Split('-');
        if (
            parts
            is not [{ Length: 4 }]
                and not [{ Length: 4 }, { Length: 2 }]
                and not [{ Length: 4 }, { Length: 2 }, { Length: 2 }]
        )
            return null;
        Span<int> numbers = [0, 0, 0];
        for (var i = 0; i < parts.Length; i++)
            if (
                !int.TryParse(parts[i], NumberStyles.None, CultureInfo.InvariantCulture, out numbers[i])
                || numbers[i] == 0
            )
                return null;
        return numbers[1] > 12 || (numbers[2] > 0 && numbers[2] > DateTime.DaysInMonth(numbers[0], numbers[1]))
            ? null
            : new(numbers[0], numbers[1], numbers[2]);
    }
}
