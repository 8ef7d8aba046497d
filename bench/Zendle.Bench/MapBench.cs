using System.Diagnostics;
using Zendle.Core.Maps;

namespace Zendle.Bench;

/// <summary>What laying a map out costs, for sets as they come: most works young, a few much cited, a dozen lanes.</summary>
internal static class MapBench
{
    private const int Lanes = 12,
        Runs = 21;

    /// <summary>Lays out 500 to 5,000 works.</summary>
    public static void Run(int seed)
    {
        foreach (var count in new[] { 500, 2_000, 5_000 })
        {
            var random = new Random(seed);
            MapWork[] works =
            [
                .. Enumerable
                    .Range(1, count)
                    .Select(i => new MapWork(
                        i,
                        (int)(Lanes * Math.Pow(random.NextDouble(), 1.6)),
                        2026 - (int)(60 * Math.Pow(random.NextDouble(), 2.2)),
                        Math.Floor(Math.Pow(random.NextDouble(), 6) * 900)
                    )),
            ];
            var took = new List<double>();
            var picture = MapLayout.Of(works, Lanes, new(760, 560));
            for (var i = 0; i < Runs; i++)
            {
                var watch = Stopwatch.StartNew();
                picture = MapLayout.Of(works, Lanes, new(760, 560));
                took.Add(watch.Elapsed.TotalMilliseconds);
            }
            took.Sort();
            Console.WriteLine(
                $"{count:N0} works in {Lanes} lanes: {took[Runs / 2]:0.0} ms, longest {took[^1]:0.0} ms; "
                    + $"{picture.Marks.Length:N0} marks, {picture.Bins.Length:N0} bins, largest mark {picture.Scale.Mark:0} px"
            );
        }
    }
}
