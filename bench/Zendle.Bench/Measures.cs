using System.Diagnostics;

namespace Zendle.Bench;

/// <summary>Medians, percentiles, and times side by side.</summary>
internal static class Measures
{
    public static double Median(IEnumerable<double> values) => Percentile([.. values], 0.5);

    public static double Percentile(List<double> values, double p) => values.Order().ElementAt((int)(p * (values.Count - 1)));

    /// <summary>Geometric mean of b ÷ a.</summary>
    public static double Ratio(IEnumerable<double> a, IEnumerable<double> b) => Math.Exp(a.Zip(b, (x, y) => Math.Log(y / x)).Average());

    /// <summary>How long an act takes, in milliseconds, and what it gives.</summary>
    public static (double Milliseconds, T Value) Time<T>(Func<T> act)
    {
        var started = Stopwatch.GetTimestamp();
        var value = act();
        return (Stopwatch.GetElapsedTime(started).TotalMilliseconds, value);
    }

    public static double Megabytes(string folder) => Directory.GetFiles(folder, "*", SearchOption.AllDirectories).Sum(f => new FileInfo(f).Length) / 1e6;

    public static string Memory() => $"{Process.GetCurrentProcess().WorkingSet64 / 1_000_000:N0} MB working set, {GC.GetTotalMemory(true) / 1_000_000:N0} MB managed";
}
