namespace Zendle.Core.Trails;

/// <summary>
/// A work that was cited little for long and much later: the beauty coefficient and the year of awakening (Ke, Ferrara,
/// Radicchi, Flammini 2015).
/// </summary>
/// <param name="Beauty">How far citations stayed under the straight line from the first year to the year of the most, each
/// year's distance divided by its citations, or by one; 0 or less where they did not.</param>
/// <param name="Awakened">The year that lies farthest under the line.</param>
/// <param name="Peak">The first year of the most citations.</param>
/// <param name="AtPeak">Citations in that year.</param>
public sealed record SleepingPaper(double Beauty, int Awakened, int Peak, int AtPeak)
{
    /// <summary>Works it out; null for a work that is not cited after its first year. O(years + citations).</summary>
    /// <param name="published">The year of the work.</param>
    /// <param name="citing">The years of the works that cite it; those before the work's own count in its first.</param>
    public static SleepingPaper? Of(int published, IEnumerable<int> citing)
    {
        var by = citing.GroupBy(y => Math.Max(0, y - published)).ToDictionary(g => g.Key, g => g.Count());
        if (by.Count == 0)
            return null;
        var most = by.Values.Max();
        var peak = by.Where(c => c.Value == most).Min(c => c.Key);
        if (peak == 0)
            return null;
        var first = by.GetValueOrDefault(0);
        var (beauty, farthest, awakened) = (0.0, double.MinValue, 0);
        for (var t = 0; t <= peak; t++)
        {
            var cited = by.GetValueOrDefault(t);
            beauty += (first + (double)(most - first) / peak * t - cited) / Math.Max(1, cited);
            var under =
                Math.Abs((most - first) * t - peak * cited + peak * first)
                / Math.Sqrt(Math.Pow(most - first, 2) + Math.Pow(peak, 2));
            if (under > farthest)
                (farthest, awakened) = (under, t);
        }
        return new(beauty, published + awakened, published + peak, most);
    }
}
