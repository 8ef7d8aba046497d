namespace Zendle.Bench.Measure;

/// <summary>Right, wrong and missed pairs, with the usual ratios.</summary>
internal readonly record struct Pairs(long Right, long Wrong, long Missed)
{
    /// <summary>Share of the found that is right, 0 to 1.</summary>
    public double Precision => Right + Wrong == 0 ? 1 : (double)Right / (Right + Wrong);

    /// <summary>Share of the true that was found, 0 to 1.</summary>
    public double Recall => Right + Missed == 0 ? 1 : (double)Right / (Right + Missed);

    /// <summary>Harmonic mean of both.</summary>
    public double F1 => Precision + Recall == 0 ? 0 : 2 * Precision * Recall / (Precision + Recall);

    public override string ToString() =>
        string.Create(
            System.Globalization.CultureInfo.InvariantCulture,
            $"precision {Precision:0.0000}  recall {Recall:0.0000}  F1 {F1:0.0000}  ({Right:N0} right, "
                + $"{Wrong:N0} wrong, {Missed:N0} missed)"
        );
}
