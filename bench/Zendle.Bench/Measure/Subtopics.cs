using System.Globalization;
using Zendle.Core.Sets;
using Zendle.Index.Questions;

namespace Zendle.Bench.Measure;

/// <summary>The works of each subtopic of a world's scenario, as its truth tells them.</summary>
internal static class Subtopics
{
    /// <summary>Name and works of each, by name.</summary>
    public static IReadOnlyList<KeyValuePair<string, WorkSet>> Of(
        CorpusSnapshot snapshot,
        IReadOnlyList<HarvestedEntry> entries,
        WorldFiles world
    )
    {
        var truth = world.Records();
        var topics = world
            .Truth("works.csv")
            .Where(row => bool.Parse(row[5]))
            .ToDictionary(row => int.Parse(row[0], CultureInfo.InvariantCulture), row => row[4]);
        return
        [
            .. entries
                .GroupBy(e => topics.GetValueOrDefault(truth[e.At].Work))
                .Where(g => g.Key is not null)
                .Select(g =>
                    KeyValuePair.Create(g.Key!, WorkSet.Of(snapshot.Columns.WorkSize, g.Select(e => e.WorkId)))
                )
                .OrderBy(t => t.Key, StringComparer.Ordinal),
        ];
    }
}
