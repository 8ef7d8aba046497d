using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Core.Holdings;

/// <summary>
/// What a title's newest or oldest parts are held back by, counted from today (KBART, NISO RP-9-2014, 6.6.13): "P1Y" leaves
/// out the calendar year that runs, "R10Y" keeps the ten last ones, the one that runs among them; with M the same by
/// calendar months, with D by days. Both may stand together: "R10Y;P30D".
/// </summary>
/// <param name="Kept">How far back it reaches; null for to the beginning.</param>
/// <param name="HeldBack">How much of the newest is left out; null for nothing.</param>
/// <param name="IsRead">Whether the code was understood.</param>
public sealed partial record Embargo(EmbargoSpan? Kept, EmbargoSpan? HeldBack, bool IsRead = true)
{
    /// <summary>Nothing is held back.</summary>
    public static Embargo None { get; } = new(null, null);

    /// <summary>Reads a code; one that is none is told by <see cref="IsRead"/>.</summary>
    public static Embargo Read(string? code)
    {
        if (string.IsNullOrWhiteSpace(code))
            return None;
        var (kept, back) = ((EmbargoSpan?)null, (EmbargoSpan?)null);
        foreach (var part in code.Split([';', ',', ' '], StringSplitOptions.RemoveEmptyEntries))
        {
            if (
                Code().Match(part) is not { Success: true } match
                || !int.TryParse(match.Groups[2].ValueSpan, CultureInfo.InvariantCulture, out var length)
                || length > 3_660
            )
                return new(null, null, IsRead: false);
            var span = new EmbargoSpan(length, char.ToUpperInvariant(match.Groups[3].ValueSpan[0]));
            if (match.Groups[1].ValueSpan is "R" or "r")
                kept = span;
            else
                back = span;
        }
        return new(kept, back);
    }

    [GeneratedRegex("^([RP])([0-9]{1,4})([DMY])$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Code();

    /// <summary>The first day that is kept, as of a day; null for all.</summary>
    public DateOnly? From(DateOnly today) =>
        Kept is not { } span
            ? null
            : span.Unit switch
            {
                'D' => today.AddDays(-span.Length),
                'M' => new DateOnly(today.Year, today.Month, 1).AddMonths(1 - span.Length),
                _ => new DateOnly(today.Year, 1, 1).AddYears(1 - span.Length),
            };

    /// <summary>The last day that is not held back, as of a day; null for all.</summary>
    public DateOnly? Until(DateOnly today) =>
        HeldBack is not { } span
            ? null
            : span.Unit switch
            {
                'D' => today.AddDays(-span.Length),
                'M' => new DateOnly(today.Year, today.Month, 1).AddMonths(1 - span.Length).AddDays(-1),
                _ => new DateOnly(today.Year, 1, 1).AddYears(1 - span.Length).AddDays(-1),
            };

    /// <summary>The first day on which what appeared by a day is not held back any more; null when nothing is.</summary>
    public DateOnly? OpensOn(DateOnly appeared) =>
        HeldBack is not { } span
            ? null
            : span.Unit switch
            {
                'D' => appeared.AddDays(span.Length),
                'M' => new DateOnly(appeared.Year, appeared.Month, 1).AddMonths(span.Length),
                _ => new DateOnly(appeared.Year, 1, 1).AddYears(span.Length),
            };
}

/// <summary>A length of time in an embargo.</summary>
/// <param name="Length">How many, 0–3660.</param>
/// <param name="Unit">D for days, M for calendar months, Y for calendar years.</param>
public readonly record struct EmbargoSpan(int Length, char Unit);
