namespace Zendle.Core.Terms;

/// <summary>
/// Whether a share rises or falls over groups in their order: the test for a linear trend in proportions (Cochran 1954;
/// Armitage 1955, "Tests for linear trends in proportions and frequencies").
/// </summary>
public static class Trend
{
    /// <summary>Beyond this, chance would bring it once in a hundred times (two-sided).</summary>
    public const double Sure = 2.576;

    /// <summary>
    /// The standard normal deviate of the trend: positive where the share rises, negative where it falls, 0 where nothing
    /// can be told (fewer than two groups that have members; none or all of them have it).
    /// </summary>
    /// <param name="groups">For each group, in order and at equal distances, how many members have it, and how many members it has.</param>
    /// <exception cref="ArgumentOutOfRangeException">More have it than there are.</exception>
    public static double Of(IReadOnlyList<(int With, int Of)> groups)
    {
        double with = 0,
            of = 0,
            scored = 0,
            members = 0,
            squares = 0;
        for (var i = 0; i < groups.Count; i++)
        {
            ArgumentOutOfRangeException.ThrowIfGreaterThan(groups[i].With, groups[i].Of);
            with += groups[i].With;
            of += groups[i].Of;
            scored += (double)i * groups[i].With;
            members += (double)i * groups[i].Of;
            squares += (double)i * i * groups[i].Of;
        }
        if (of == 0)
            return 0;
        var share = with / of;
        var variance = share * (1 - share) * (squares - (members * members / of));
        return variance <= 0 ? 0 : (scored - (share * members)) / Math.Sqrt(variance);
    }
}
