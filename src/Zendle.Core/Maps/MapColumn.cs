namespace Zendle.Core.Maps;

/// <summary>What stands in a column of a map.</summary>
public enum ColumnKind
{
    /// <summary>Works whose value is not known.</summary>
    Unknown,

    /// <summary>The few works that lie before all others, in one column of their own.</summary>
    Earlier,

    /// <summary>Works of one value, or of a few that follow each other.</summary>
    Values,
}

/// <summary>A column of a map: a stretch of years, or of whatever runs along.</summary>
/// <param name="Kind">What stands in it.</param>
/// <param name="From">First value; 0 for <see cref="ColumnKind.Unknown"/>.</param>
/// <param name="To">Last value.</param>
/// <param name="X">Left edge, in pixels.</param>
/// <param name="Width">In pixels.</param>
public sealed record MapColumn(ColumnKind Kind, int From, int To, double X, double Width)
{
    /// <summary>Whether a value stands here.</summary>
    public bool Holds(int? value) =>
        value is { } v ? Kind != ColumnKind.Unknown && v >= From && v <= To : Kind == ColumnKind.Unknown;
}
