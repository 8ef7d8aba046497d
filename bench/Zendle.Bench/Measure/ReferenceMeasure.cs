using System.Globalization;
using Zendle.Core.Merging;

namespace Zendle.Bench.Measure;

/// <summary>Compares what references were matched to with what they truly mean.</summary>
internal static class ReferenceMeasure
{
    /// <summary>Finds the works of some records.</summary>
    public static ReferenceMatcher MatcherOf(IReadOnlyList<HarvestedEntry> entries)
    {
        var filling = ReferenceMatcher.Empty.Edit(entries.Max(e => e.Id) + 1);
        foreach (var e in entries)
            filling.Put(
                e.Id,
                Findable.Of(
                    e.WorkId,
                    MergeKeys.Doi(e.Record.Doi),
                    MergeKeys.TitleAndPerson(
                        e.Record.Title,
                        e.Record.People.Count > 0 ? e.Record.People[0].Family : null
                    ),
                    e.Record.Year ?? 0,
                    MergeFacts.Of(e.Id, e.DatabaseId, e.Record)
                )
            );
        return filling.Finish();
    }

    /// <summary>The work that a merged one truly is: that of most of its records.</summary>
    public static Dictionary<int, int> TrueWorks(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth
    ) =>
        entries
            .GroupBy(e => e.WorkId)
            .ToDictionary(g => g.Key, g => g.CountBy(e => truth[e.At].Work).MaxBy(c => c.Value).Key);

    /// <summary>
    /// Prints precision and recall: of the references matched, how many to a record of the true work; of those whose
    /// work is described by some record, how many matched.
    /// </summary>
    public static void Print(
        IReadOnlyList<HarvestedEntry> entries,
        IReadOnlyDictionary<RecordAt, (int Work, string Version)> truth,
        WorldFiles world,
        TextWriter says,
        int examples
    )
    {
        var matcher = MatcherOf(entries);
        var trueWork = TrueWorks(entries, truth);
        var known = entries.Select(e => truth[e.At].Work).ToHashSet();
        var meant = world
            .Truth("references.csv")
            .GroupBy(r => new RecordAt(r[0], r[1]))
            .ToDictionary(
                g => g.Key,
                g => g.Select(r => r[3].Length == 0 ? -1 : int.Parse(r[3], CultureInfo.InvariantCulture)).ToArray()
            );
        long right = 0,
            wrong = 0,
            missed = 0,
            failed = 0;
        var began = TimeProvider.System.GetTimestamp();
        var counts = new Dictionary<ReferenceEvidence, (int Right, int Wrong)>();
        foreach (var e in entries)
        {
            if (!meant.TryGetValue(e.At, out var works))
                continue;
            if (works.Length != e.References.Count)
                throw new InvalidDataException(
                    $"{e.At} has {e.References.Count} references, the truth {works.Length}."
                );
            for (var i = 0; i < works.Length; i++)
            {
                var match = matcher.Match(e.References[i]);
                var isRight = match.Work != 0 && trueWork[match.Work] == works[i];
                if (
                    examples > 0
                    && (match.Work == 0 ? known.Contains(works[i]) : !isRight)
                    && failed++ % 97 == 0
                    && examples-- > 0
                )
                {
                    says.WriteLine(
                        string.Create(
                            CultureInfo.InvariantCulture,
                            $"{(match.Work == 0 ? "MISSED" : "WRONG ")} {match.Evidence} "
                                + $"{match.Confidence:0.00} {e.References[i].Text} | "
                                + $"{e.References[i].FirstPerson} | {e.References[i].Year} | "
                                + $"{e.References[i].Title}"
                        )
                    );
                    foreach (var r in entries.Where(r => truth[r.At].Work == works[i]))
                        says.WriteLine(
                            $"    {r.WorkId} {r.At.Database} {r.Record.Year} "
                                + $"{string.Join("; ", r.Record.People.Take(2).Select(p => p.Short))} | {r.Record.Title} | "
                                + $"{r.Record.Venue?.Title} {r.Record.Venue?.Volume} {r.Record.Venue?.FirstPage}"
                        );
                }
                if (match.Work == 0)
                {
                    if (known.Contains(works[i]))
                        missed++;
                    continue;
                }
                var c = counts.GetValueOrDefault(match.Evidence);
                counts[match.Evidence] = isRight ? (c.Right + 1, c.Wrong) : (c.Right, c.Wrong + 1);
                if (isRight)
                    right++;
                else
                {
                    wrong++;
                    if (known.Contains(works[i]))
                        missed++;
                }
            }
        }
        says.WriteLine($"references                    {new Pairs(right, wrong, missed)}");
        says.WriteLine(
            "  by evidence                 "
                + string.Join(
                    ", ",
                    counts
                        .OrderBy(c => c.Key)
                        .Select(c =>
                            string.Create(
                                CultureInfo.InvariantCulture,
                                $"{c.Key} {c.Value.Right:N0} right {c.Value.Wrong:N0} wrong"
                            )
                        )
                )
        );
        says.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"  {(right + wrong + missed) / TimeProvider.System.GetElapsedTime(began).TotalSeconds:N0} references a second"
            )
        );
    }
}
