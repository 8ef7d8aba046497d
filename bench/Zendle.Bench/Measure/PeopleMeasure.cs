using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Core.People;

namespace Zendle.Bench.Measure;

/// <summary>
/// Compares the persons that came out with the true ones by B³ (Bagga, Baldwin 1998): for each mention the share of its
/// group that is right, and the share of the truth that is in its group.
/// </summary>
internal static class PeopleMeasure
{
    public static void Print(IReadOnlyList<HarvestedEntry> entries, WorldFiles world, TextWriter says)
    {
        var began = TimeProvider.System.GetTimestamp();
        var trust = entries
            .Select(e => e.DatabaseId)
            .Distinct()
            .Order()
            .Select((d, i) => (d, i))
            .ToDictionary(d => d.d, d => d.i);
        var works = entries
            .GroupBy(e => e.WorkId)
            .Select(g =>
                (
                    Work: g.Key,
                    Records: g.Select(e => new SourcedRecord(e.Id, e.DatabaseId, trust[e.DatabaseId], e.Record))
                        .ToArray()
                )
            )
            .Select(w => (w.Work, w.Records, Chosen: ChosenFields.From(w.Records)))
            .ToDictionary(w => w.Work);
        var people = PeopleResolver.Resolve(works.Values.SelectMany(w => Mention.Of(w.Work, w.Records, w.Chosen)));
        var seconds = TimeProvider.System.GetElapsedTime(began).TotalSeconds;
        var of = people
            .SelectMany(p => p.Mentions.Select(m => (m.WorkId, m.Position, p.Number)))
            .ToDictionary(m => (m.WorkId, m.Position), m => m.Number);
        var truth = world
            .Truth("people.csv")
            .ToDictionary(
                r => (new RecordAt(r[0], r[1]), int.Parse(r[2], CultureInfo.InvariantCulture)),
                r => int.Parse(r[3], CultureInfo.InvariantCulture)
            );
        var pairs = new List<(int Found, int True)>();
        foreach (var e in entries)
        {
            var chosen = works[e.WorkId].Chosen.People.Value;
            var folded = chosen
                .Select(p => (Family: MergeKeys.PersonKey(p.Family), Given: Mention.GivenParts(p.Given)))
                .ToArray();
            for (var i = 0; i < e.Record.People.Count; i++)
            {
                // A record's person is the one of the work's list who has that name; one who is not in the list stands
                // alone.
                var position = Enumerable
                    .Range(0, chosen.Count)
                    .Where(c =>
                        folded[c].Family == MergeKeys.PersonKey(e.Record.People[i].Family)
                        && GivenNames.Compatible(folded[c].Given, Mention.GivenParts(e.Record.People[i].Given))
                    )
                    .OrderBy(c => Math.Abs(c - i))
                    .Select(c => (int?)c)
                    .FirstOrDefault();
                if (truth.TryGetValue((e.At, i), out var person))
                    pairs.Add((position is { } p ? of[(e.WorkId, p)] : -e.Id * 1000 - i, person));
            }
        }
        var (found, real, both) = (
            pairs.CountBy(p => p.Found).ToDictionary(),
            pairs.CountBy(p => p.True).ToDictionary(),
            pairs.CountBy(p => p).ToDictionary()
        );
        var (precision, recall) = (
            pairs.Average(p => (double)both[p] / found[p.Found]),
            pairs.Average(p => (double)both[p] / real[p.True])
        );
        says.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"people, B³                    precision {precision:0.0000}  recall {recall:0.0000}  F1 "
                    + $"{2 * precision * recall / (precision + recall):0.0000}  ({pairs.Count:N0} mentions, "
                    + $"{people.Count:N0} persons, truly {real.Count:N0}; "
                    + $"{people.Count(p => p.Doubtful.Count > 0):N0} with doubt; {seconds:0.0} s)"
            )
        );
    }
}
