using System.Diagnostics;
using System.Globalization;

namespace Zendle.Bench;

/// <summary>Medians, percentiles, and times side by side.</summary>
internal static class Measures
{
    public static double Median(IEnumerable<double> values) => Percentile([.. values], 0.5);

    public static double Percentile(List<double> values, double p) =>
        values.Order().ElementAt((int)(p * (values.Count - 1)));

    /// <summary>Geometric mean of b ÷ a.</summary>
    public static double Ratio(IEnumerable<double> a, IEnumerable<double> b) =>
        Math.Exp(a.Zip(b, (x, y) => Math.Log(y / x)).Average());

    /// <summary>How long an act takes, in milliseconds, and what it gives.</summary>
    public static (double Milliseconds, T Value) Time<T>(Func<T> act)
    {
        var started = Stopwatch.GetTimestamp();
        var value = act();
        return (Stopwatch.GetElapsedTime(started).TotalMilliseconds, value);
    }

    /// <summary>The median time of an act, in milliseconds.</summary>
    public static double Took(int times, Action act) => Took(times, _ => act());

    /// <summary>The median time of an act that is told how often it was done before.</summary>
    public static double Took(int times, Action<int> act) =>
        Median(
            Enumerable
                .Range(0, times)
                .Select(n =>
                    Time(() =>
                    {
                        act(n);
                        return 0;
                    }).Milliseconds
                )
        );

    public static double Megabytes(string folder) =>
        Directory.GetFiles(folder, "*", SearchOption.AllDirectories).Sum(f => new FileInfo(f).Length) / 1e6;

    /// <summary>
    /// The working set, what of it is pages of files that can be had again, and what managed objects hold after a
    /// collection.
    /// </summary>
    public static string Memory()
    {
        var (whole, files) = (Status("VmRSS:"), Status("RssFile:"));
        return $"{whole:N0} MB working set, {files:N0} MB of it pages of files, {GC.GetTotalMemory(true) / 1_000_000:N0} MB managed";
    }

    private static double Status(string field) =>
        double.Parse(
            File.ReadLines("/proc/self/status")
                .First(l => l.StartsWith(field, StringComparison.Ordinal))
                .Split([' ', '\t'], StringSplitOptions.RemoveEmptyEntries)[1],
            CultureInfo.InvariantCulture
        )
        * 1.024
        / 1_000;
}
