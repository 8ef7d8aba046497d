using System.Globalization;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.World;

/// <summary>
/// Tells the shape of a world beside what bibliometrics reports of real ones, so that a person can judge it: in-degrees
/// are skewed (most works have few citations, a few have hundreds; Price 1976), references are mostly young (median age
/// 5 to 10 years), most people have one work, and hardly a sentence stands in two abstracts.
/// </summary>
public static class WorldShape
{
    /// <summary>The shape in lines.</summary>
    /// <param name="works">The works.</param>
    /// <param name="databases">The databases.</param>
    /// <param name="written">The prose of each work.</param>
    /// <param name="scenario">What it was written from.</param>
    public static IEnumerable<string> Lines(
        IReadOnlyList<Work> works,
        IReadOnlyList<OutsideDatabase> databases,
        IReadOnlyList<Written> written,
        Scenario scenario
    )
    {
        var people = works.SelectMany(w => w.People).Select(p => p.Person.Id).Distinct().Count();
        var venues = works.Select(w => w.Venue).OfType<string>().Distinct().Count();
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"{works.Count:N0} works ({works.Count(w => w.Topic.Core):N0} of the scenario in "
                + $"{works.Where(w => w.Topic.Core).Select(w => w.Topic.Key).Distinct().Count()} subtopics, "
                + $"{works.Count(w => w.Topic.Friend):N0} false friends), {people:N0} people, {venues} venues, "
                + $"{works.Sum(w => w.Cites.Length):N0} references, "
                + $"{works.Select(w => w.Study.Id).Distinct().Count():N0} studies, "
                + $"{works[0].Year}–{works[^1].Year}"
        );
        foreach (var d in databases)
            yield return string.Create(
                CultureInfo.InvariantCulture,
                $"  {d.Name}: {d.At(DatabaseViews.Start).Count(e => !e.Deleted):N0} records"
            );
        yield return "types: "
            + string.Join(
                ", ",
                works
                    .CountBy(w => w.Type)
                    .OrderByDescending(t => t.Value)
                    .Select(t => string.Create(CultureInfo.InvariantCulture, $"{t.Key} {t.Value:N0}"))
            );
        var inDegree = new int[works.Count];
        foreach (var w in works)
        foreach (var c in w.Cites)
            inDegree[c]++;
        Array.Sort(inDegree);
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"citations: none {Share(inDegree.Count(n => n == 0), works.Count)}, median "
                + $"{inDegree[works.Count / 2]}, 90th percentile {inDegree[works.Count * 9 / 10]}, 99th "
                + $"{inDegree[works.Count * 99 / 100]}, most {string.Join(", ", inDegree.TakeLast(5).Reverse())} "
                + $"(real: skewed; the top hundredth holds 10–25 % of citations; here "
                + $"{Share(inDegree.TakeLast(works.Count / 100).Sum(), inDegree.Sum())})"
        );
        var ages = works.SelectMany(w => w.Cites.Select(c => w.Year - works[c].Year)).Order().ToArray();
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"age of references: median {ages[ages.Length / 2]}, quartiles {ages[ages.Length / 4]} and "
                + $"{ages[ages.Length * 3 / 4]} years (real: median 5–10)"
        );
        foreach (var line in OfPeople(works))
            yield return line;
        var tail = inDegree.TakeLast(works.Count / 20).Where(n => n > 0).ToArray();
        var exponent = 1 + tail.Length / tail.Sum(n => Math.Log(n / (tail[0] - 0.5)));
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"tail exponent of citations {exponent:0.00} over the "
                + $"upper twentieth (Hill 1975; real: near 3); {Share(NearBy(works), works.Sum(w => w.Cites.Length))} of "
                + $"references stay within the topic or beside it"
        );
        var lists = works.Where(w => w.Type == "article").Select(w => w.Cites.Length).Order().ToArray();
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"references of an article inside the world: median {lists[lists.Length / 2]}, 90th percentile {lists[lists.Length * 9 / 10]}"
        );
        var faults = WorldLint.Faults(written, scenario).ToArray();
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"abstracts: {written.Count(w => w.Prose.Sentences.Count > 0):N0} of "
                + $"{written.Sum(w => w.Prose.Sentences.Count):N0} sentences, {100 * WorldLint.Repeated(written):0.0} % of "
                + $"which stand in another study's; {faults.Length:N0} faults"
        );
        foreach (var (work, what) in faults.Take(12))
            yield return $"  work {work}: {what}";
        yield return "commonest frames of titles:";
        foreach (var (frame, share) in WorldLint.TitleFrames(written).Take(3))
            yield return string.Create(CultureInfo.InvariantCulture, $"  {100 * share:0.0} %  {frame}");
    }

    /// <summary>References to the topic, to its area, or among the scenario's subtopics.</summary>
    private static int NearBy(IReadOnlyList<Work> works) =>
        works.Sum(w =>
            w.Cites.Count(c =>
                works[c].Topic == w.Topic
                || works[c].Topic.Area == w.Topic.Area
                || (works[c].Topic.Core && w.Topic.Core)
            )
        );

    private static IEnumerable<string> OfPeople(IReadOnlyList<Work> works)
    {
        var signed = works.SelectMany(w => w.People.Select(p => p.Person)).CountBy(p => p).ToDictionary();
        var alike = signed.Keys.CountBy(p => $"{p.Family}, {p.Given[0]}").ToDictionary();
        yield return string.Create(
            CultureInfo.InvariantCulture,
            $"people: {Share(signed.Count(p => p.Value == 1), signed.Count)} have one work, "
                + $"{Share(signed.Count(p => p.Value >= 10), signed.Count)} ten and more, the most "
                + $"{signed.Values.Max()}; {Share(signed.Keys.Count(p => alike[$"{p.Family}, {p.Given[0]}"] > 1), signed.Count)} "
                + $"share surname and first initial; longest career {signed.Keys.Max(p => p.To - p.From)} years"
        );
        yield return "people on a work: "
            + string.Join(
                ", ",
                works
                    .Where(w => w.Type is "article")
                    .GroupBy(w => w.Year / 10 * 10)
                    .OrderBy(g => g.Key)
                    .Select(g =>
                        string.Create(CultureInfo.InvariantCulture, $"{g.Key}s {g.Average(w => w.People.Length):0.0}")
                    )
            );
    }

    private static string Share(long part, long of) =>
        string.Create(CultureInfo.InvariantCulture, $"{100.0 * part / Math.Max(1, of):0.0} %");
}
