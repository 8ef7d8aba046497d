namespace Zendle.Core.Terms;

/// <summary>
/// How surely a term stands more often in some works than in others: the log-likelihood ratio of two binomials
/// (Dunning 1993, "Accurate methods for the statistics of surprise and coincidence").
/// </summary>
public static class LikelihoodRatio
{
    /// <summary>
    /// −2 ln λ; 0 where the term is as frequent in both, above 10.8 where chance would bring it once in a thousand times.
    /// Negative where the term is rarer in the first works than in the others.
    /// </summary>
    /// <param name="with">Works of the first kind that have the term.</param>
    /// <param name="of">Works of the first kind.</param>
    /// <param name="otherWith">Other works that have it.</param>
    /// <param name="others">Other works.</param>
    /// <exception cref="ArgumentOutOfRangeException">More works have the term than there are.</exception>
    public static double Of(int with, int of, int otherWith, int others)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(with, of);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(otherWith, others);
        ArgumentOutOfRangeException.ThrowIfNegative(with);
        ArgumentOutOfRangeException.ThrowIfNegative(otherWith);
        if (of == 0 || others == 0)
            return 0;
        var (p1, p2) = ((double)with / of, (double)otherWith / others);
        var p = (double)(with + otherWith) / (of + others);
        var ratio =
            2
            * (
                Likelihood(p1, with, of)
                + Likelihood(p2, otherWith, others)
                - Likelihood(p, with, of)
                - Likelihood(p, otherWith, others)
            );
        return p1 >= p2 ? ratio : -ratio;
    }

    private static double Likelihood(double p, int with, int of) => Times(with, p) + Times(of - with, 1 - p);

    private static double Times(int count, double p) => count == 0 ? 0 : count * Math.Log(p);
}
