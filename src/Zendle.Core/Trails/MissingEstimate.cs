namespace Zendle.Core.Trails;

/// <summary>
/// How many works there are in all, judged from two ways of finding them, and how sure that is: Chapman's estimator
/// (1951) for capture and recapture, with the interval that takes what is still missing as log-normal (Chao 1987), so
/// that it never ends below what is known already.
/// </summary>
/// <remarks>
/// It rests on two ways that find independently of each other and find every work alike. Trails start from what searches
/// found, and a work that is easy to find one way often is the other: then the estimate is too low. It is a lower bound.
/// </remarks>
/// <param name="Known">Works that at least one way found.</param>
/// <param name="All">The estimate of all, <see cref="Known"/> or more.</param>
/// <param name="Low">Lower end of the 95 % interval, <see cref="Known"/> or more.</param>
/// <param name="High">Upper end of it.</param>
public sealed record MissingEstimate(int Known, double All, double Low, double High)
{
    /// <summary>Fewer works found both ways tell too little.</summary>
    public const int LeastBoth = 7;

    /// <summary>Standard errors on either side that hold 95 %.</summary>
    private const double Sides = 1.959964;

    /// <summary>The estimate; null when too few works were found both ways.</summary>
    /// <param name="first">Works that one way found.</param>
    /// <param name="second">Works that the other found.</param>
    /// <param name="both">Works that both found.</param>
    /// <exception cref="ArgumentOutOfRangeException">More were found both ways than one way.</exception>
    public static MissingEstimate? Of(int first, int second, int both)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(both, Math.Min(first, second));
        ArgumentOutOfRangeException.ThrowIfNegative(both);
        if (both < LeastBoth)
            return null;
        var known = first + second - both;
        var all = ((first + 1.0) * (second + 1) / (both + 1)) - 1;
        var variance =
            (first + 1.0) * (second + 1) * (first - both) * (second - both) / ((both + 1.0) * (both + 1) * (both + 2));
        var missing = all - known;
        if (missing <= 0)
            return new(known, known, known, known);
        var spread = Math.Exp(Sides * Math.Sqrt(Math.Log(1 + (variance / (missing * missing)))));
        return new(known, all, known + (missing / spread), known + (missing * spread));
    }
}
