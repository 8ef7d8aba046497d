using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Core.Holdings;

/// <summary>How much of what it names a line of holdings gives (KBART, NISO RP-9-2014, 6.6.14).</summary>
public enum HoldingDepth
{
    /// <summary>The full texts.</summary>
    FullText,

    /// <summary>The full texts of some articles.</summary>
    SomeArticles,

    /// <summary>Abstracts alone.</summary>
    Abstracts,
}

/// <summary>Where a title's coverage begins or ends.</summary>
/// <param name="Date">Date of the first or last issue; null for none.</param>
/// <param name="Volume">Its volume; null when not told, or no number.</param>
/// <param name="Issue">Its issue; null when not told, or no number.</param>
public readonly record struct CoverageEdge(PartialDate? Date, int? Volume, int? Issue)
{
    /// <summary>Whether nothing is told.</summary>
    public bool IsOpen => Date is null && Volume is null;

    /// <summary>The number that a volume or issue begins with; null when it begins with none.</summary>
    public static int? Number(string? printed)
    {
        var text = (printed ?? "").AsSpan().Trim();
        var digits = 0;
        while (digits < text.Length && char.IsAsciiDigit(text[digits]))
            digits++;
        return int.TryParse(text[..digits], NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? number
            : null;
    }
}

/// <summary>One line of a library's holdings (KBART phase II, NISO RP-9-2014): a title with what of it can be read.</summary>
public sealed record HoldingLine
{
    /// <summary>Title of the journal or book.</summary>
    public required string Title { get; init; }

    /// <summary>What it is found by; see <see cref="HoldingKey"/>. At least one.</summary>
    public required IReadOnlyList<long> Keys { get; init; }

    /// <summary>Whether it is a book; then dates of coverage mean nothing.</summary>
    public bool IsBook { get; init; }

    /// <summary>Where its coverage begins.</summary>
    public CoverageEdge First { get; init; }

    /// <summary>Where its coverage ends; open when it goes on.</summary>
    public CoverageEdge Last { get; init; }

    /// <summary>What is held back.</summary>
    public Embargo Embargo { get; init; } = Embargo.None;

    /// <summary>The code of <see cref="Embargo"/> as it stands in the file; empty for none.</summary>
    public string EmbargoCode { get; init; } = "";

    /// <summary>How much of it can be read.</summary>
    public HoldingDepth Depth { get; init; }

    /// <summary>Address of the title's page; null when none is given.</summary>
    public string? Address { get; init; }
}

/// <summary>The identifiers by which works are held against lines, as numbers.</summary>
public static class HoldingKey
{
    /// <summary>An ISSN (0000-0000) without its check digit: below 10⁷.</summary>
    public static long OfIssn(string issn) =>
        long.Parse(
            string.Concat(issn.AsSpan(0, 4), issn.AsSpan(5, 3)),
            NumberStyles.None,
            CultureInfo.InvariantCulture
        );

    /// <summary>An ISBN of thirteen digits without its check digit: from 978 · 10⁹.</summary>
    public static long OfIsbn(string isbn) =>
        long.Parse(isbn.AsSpan(0, 12), NumberStyles.None, CultureInfo.InvariantCulture);
}
