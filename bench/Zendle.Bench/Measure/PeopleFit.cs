using System.Globalization;
using System.Text.Json;
using Zendle.Core.People;

namespace Zendle.Bench.Measure;

/// <summary>
/// Fits the weights by which people are told apart: one after another is moved a step up or down and kept where the
/// labelled worlds come out better, with ever smaller steps (coordinate ascent).
/// </summary>
internal static class PeopleFit
{
    private static readonly JsonSerializerOptions Json = new() { WriteIndented = true };

    private static readonly string[] Moved =
    [
        "start",
        "commonness",
        "topics0",
        "coAuthors0",
        "places0",
        "topics1",
        "topics2",
        "topics3",
        "topics4",
        "coAuthors1",
        "coAuthors2",
        "places1",
        "initial",
        "fullName",
        "middle",
        "middleOnce",
        "middleOnceFull",
        "gap",
        "yearsApart",
        "longestGap",
    ];

    public static void Print(IReadOnlyList<PeopleMeasure.Labelled> worlds, TextWriter says)
    {
        var weights = PersonWeights.Shipped;
        double Worth(PersonWeights w) => worlds.Average(l => PeopleMeasure.Worth(l, w));
        var best = Worth(weights);
        says.WriteLine(string.Create(CultureInfo.InvariantCulture, $"shipped {best:0.00000}"));
        foreach (var step in new[] { 0.8, 0.4, 0.2 })
        foreach (var name in Moved)
        foreach (var way in new[] { step, -step })
            while (true)
            {
                var tried = With(
                    weights,
                    name,
                    name switch
                    {
                        "gap" => way / 10,
                        "yearsApart" => way * 5,
                        _ => way,
                    }
                );
                if (Worth(tried) is var worth && worth <= best + 1e-5)
                    break;
                (weights, best) = (tried, worth);
                says.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{best:0.00000} {name} {way:+0.0;-0.0}"));
            }
        says.WriteLine(JsonSerializer.Serialize(weights, Json));
    }

    private static PersonWeights With(PersonWeights w, string name, double by)
    {
        IReadOnlyList<double> At(IReadOnlyList<double> list) =>
            [.. list.Select((v, i) => i == name[^1] - '0' ? v + by : v)];
        return name.TrimEnd('0', '1', '2', '3', '4') switch
        {
            "start" => w with { Start = w.Start + by },
            "commonness" => w with { Commonness = w.Commonness + by },
            "topics" => w with { Topics = At(w.Topics) },
            "coAuthors" => w with { CoAuthors = At(w.CoAuthors) },
            "institutions" => w with { Institutions = At(w.Institutions) },
            "initial" => w with { Initial = w.Initial + by },
            "fullName" => w with { FullName = w.FullName + by },
            "middle" => w with { Middle = w.Middle + by },
            "middleOnce" => w with { MiddleOnce = w.MiddleOnce + by },
            "middleOnceFull" => w with { MiddleOnceFull = w.MiddleOnceFull + by },
            "gap" => w with { Gap = Math.Min(0, w.Gap + by) },
            "yearsApart" => w with { YearsApart = Math.Max(0, w.YearsApart + by) },
            "longestGap" => w with { LongestGap = w.LongestGap + by },
            _ => throw new ArgumentException(name, nameof(name)),
        };
    }
}
