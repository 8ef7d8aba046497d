using Zendle.Core.Trails;

namespace Zendle.Core.Reviews;

/// <summary>Names steps the way a person would: by what the act changed.</summary>
public static class StepLabels
{
    /// <summary>The label of <paramref name="act"/>.</summary>
    /// <param name="act">The act.</param>
    /// <param name="databaseName">Names databases by id.</param>
    /// <param name="workName">Names works by id, in two words: first person and year.</param>
    public static string For(StepAct act, Func<int, string> databaseName, Func<int, string>? workName = null) =>
        act.Kind switch
        {
            StepKind.Search => (act.Expression ?? "").Trim() is { Length: > 0 } expression ? expression : "everything",
            StepKind.Add => act.Expression!.StartsWith("NOT ", StringComparison.Ordinal)
                ? "without " + act.Expression[4..]
                : "+ " + act.Expression,
            StepKind.Databases => act.Databases is { Count: > 0 } ids
                ? "in " + string.Join(", ", ids.Select(databaseName))
                : "all databases",
            StepKind.Years => Years(act.From, act.To),
            StepKind.Inside => act.Values is { Count: > 0 } words
                ? "inside: " + string.Join(", ", words)
                : "no words inside",
            StepKind.Narrow => Narrow(act),
            StepKind.Trail => Trail(act.Way ?? TrailWay.Both, act.Seeds ?? [], workName ?? (_ => "one work")),
            StepKind.Way => act.Way switch
            {
                TrailWay.Backward => "only what they cite",
                TrailWay.Forward => "only what cites them",
                _ => "both ways",
            },
            StepKind.Ties => act.AtLeast > 1 ? $"tied to {act.AtLeast} or more" : "tied to any",
            StepKind.Compare => act.Said is { Length: > 0 } said ? said
            : act.Apart == true ? "not in another search"
            : "in another search too",
            StepKind.Among => act.Said is { Length: > 0 } said ? said : $"{act.Seeds?.Count ?? 0:N0} works",
            _ => throw new ArgumentOutOfRangeException(nameof(act)),
        };

    private static string Trail(TrailWay way, IReadOnlyList<int> seeds, Func<int, string> workName)
    {
        var (from, many) = seeds.Count == 1 ? (workName(seeds[0]), false) : ($"{seeds.Count:N0} works", true);
        return way switch
        {
            TrailWay.Backward => many ? $"what {from} cite" : $"what {from} cites",
            TrailWay.Forward => $"what cites {from}",
            _ => $"both ways from {from}",
        };
    }

    private static string Years(int? from, int? to) =>
        (from, to) switch
        {
            (null, null) => "any year",
            (null, _) => $"until {to}",
            (_, null) => $"from {from}",
            _ => from == to ? $"{from}" : $"{from}–{to}",
        };

    private static string Narrow(StepAct act)
    {
        var parts = new List<string>();
        if (act.Values is { Count: > 0 } values)
            parts.Add(string.Join(", ", values));
        if (act.Excluded is { Count: > 0 } excluded)
            parts.Add("without " + string.Join(", ", excluded));
        return parts.Count == 0 ? $"any {Facets.Name(act.Facet!.Value)}" : string.Join("; ", parts);
    }
}
