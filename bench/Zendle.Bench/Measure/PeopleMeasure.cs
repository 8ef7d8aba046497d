using System.Globalization;
using Zendle.Core.Merging;
using Zendle.Core.People;

namespace Zendle.Bench.Measure;

/// <summary>
/// Compares the persons that came out with the true ones by B³ (Bagga, Baldwin 1998): for each name on a work the share
/// of its group that is right, and the share of the truth that is in its group. A name counts once for a work, however
/// many records repeat it. Beside it stands the plain rule: same surname and first initial, one person.
/// </summary>
internal static class PeopleMeasure
{
    /// <summary>A name on a work: where it stands, who it is, and who the plain rule takes it for.</summary>
    /// <param name="Work">The work it was joined to.</param>
    /// <param name="Position">Its place in the work's list; a number below 0, its own, when it is not in it.</param>
    /// <param name="True">Who it is.</param>
    /// <param name="Plain">Surname and first initial.</param>
    internal readonly record struct Named(int Work, int Position, int True, string Plain);

    /// <summary>The mentions of a harvested world, and the truth of each name.</summary>
    internal sealed record Labelled(IReadOnlyList<Mention> Mentions, IReadOnlyList<Named> Names);

    /// <summary>A name with the number of the person it was taken for.</summary>
    private readonly record struct Item(int Found, int True, string Plain);

    public static Labelled Label(IReadOnlyList<HarvestedEntry> entries, WorldFiles world)
    {
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
        var truth = world
            .Truth("people.csv")
            .ToDictionary(
                r => (new RecordAt(r[0], r[1]), int.Parse(r[2], CultureInfo.InvariantCulture)),
                r => int.Parse(r[3], CultureInfo.InvariantCulture)
            );
        return new(
            [.. works.Values.SelectMany(w => Mention.Of(w.Work, w.Records, w.Chosen))],
            Names(entries, works.ToDictionary(w => w.Key, w => w.Value.Chosen), truth)
        );
    }

    public static void Print(Labelled labelled, TextWriter says, bool examples = false)
    {
        var began = TimeProvider.System.GetTimestamp();
        var people = PeopleResolver.Resolve(labelled.Mentions);
        var seconds = TimeProvider.System.GetElapsedTime(began).TotalSeconds;
        var items = Items(labelled, people);
        var slice = Namesakes(items);
        says.WriteLine($"people, each name once a work {BCubed(items, items, i => i.Found)}");
        says.WriteLine($"people, namesakes alone       {BCubed(items, slice, i => i.Found)}");
        says.WriteLine($"people, plain rule            {BCubed(items, items, i => i.Plain)}");
        says.WriteLine($"people, plain rule, namesakes {BCubed(items, slice, i => i.Plain)}");
        var split = items
            .GroupBy(i => i.True)
            .ToDictionary(g => g.Key, g => g.Select(i => i.Found).Distinct().ToArray());
        var several = items.GroupBy(i => i.True).Count(g => g.Count() > 1);
        var mixed = items.GroupBy(i => i.Found).Count(g => g.Select(i => i.True).Distinct().Count() > 1);
        var pairs = people.SelectMany(p => p.Doubtful.Where(d => d > p.Number).Select(d => (p.Number, d))).ToArray();
        var trueOf = items
            .GroupBy(i => i.Found)
            .ToDictionary(g => g.Key, g => g.CountBy(i => i.True).MaxBy(c => c.Value).Key);
        var one = pairs.Count(p =>
            trueOf.TryGetValue(p.Number, out var a) && trueOf.TryGetValue(p.d, out var b) && a == b
        );
        var splits = split.Values.Where(s => s.Length > 1).ToArray();
        says.WriteLine(
            string.Create(
                CultureInfo.InvariantCulture,
                $"people                        {people.Count:N0} persons, truly {split.Count:N0} ({several:N0} with "
                    + $"several works); split {splits.Length:N0} ({100.0 * splits.Length / split.Count:0.00} % of all, "
                    + $"{100.0 * splits.Length / several:0.0} % of those), {splits.Count(s => Doubted(people, s)):N0} of "
                    + $"them with doubt; mixed {mixed:N0} ({100.0 * mixed / people.Count:0.00} %); {pairs.Length:N0} "
                    + $"doubtful pairs, {100.0 * one / Math.Max(1, pairs.Length):0} % one person; {seconds:0.0} s"
            )
        );
        if (examples)
            Examples(labelled.Mentions, people, items, says);
    }

    /// <summary>
    /// How good some weights are, for fitting: both F1, less what is split beyond 3 and mixed beyond .2 in a hundred.
    /// </summary>
    public static double Worth(Labelled labelled, PersonWeights weights)
    {
        var items = Items(labelled, new PeopleResolver(weights).All(labelled.Mentions));
        var slice = Namesakes(items);
        var split =
            items.GroupBy(i => i.True).Count(g => g.Select(i => i.Found).Distinct().Count() > 1)
            / (double)items.DistinctBy(i => i.True).Count();
        var mixed =
            items.GroupBy(i => i.Found).Count(g => g.Select(i => i.True).Distinct().Count() > 1)
            / (double)items.DistinctBy(i => i.Found).Count();
        return F1(BCubedOf(items, items, i => i.Found))
            + F1(BCubedOf(items, slice, i => i.Found))
            - Math.Max(0, split - 0.03)
            - 4 * Math.Max(0, mixed - 0.002);
    }

    private static Item[] Namesakes(IReadOnlyList<Item> items) =>
        [.. items.GroupBy(i => i.Plain).Where(g => g.Select(i => i.True).Distinct().Count() > 1).SelectMany(g => g)];

    private static bool Doubted(IReadOnlyList<Person> people, int[] found) =>
        found.Where(f => f >= 0).Any(f => people[f].Doubtful.Any(found.Contains));

    private static List<Item> Items(Labelled labelled, IReadOnlyList<Person> people)
    {
        var of = people
            .SelectMany(p => p.Mentions.Select(m => (m.WorkId, m.Position, p.Number)))
            .ToDictionary(m => (m.WorkId, m.Position), m => m.Number);
        return
        [
            .. labelled.Names.Select(n => new Item(
                n.Position < 0 ? n.Position : of[(n.Work, n.Position)],
                n.True,
                n.Plain
            )),
        ];
    }

    private static List<Named> Names(
        IReadOnlyList<HarvestedEntry> entries,
        Dictionary<int, ChosenFields> works,
        Dictionary<(RecordAt, int), int> truth
    )
    {
        var seen = new HashSet<(int Work, int True, int Position)>();
        var names = new List<Named>();
        foreach (var e in entries)
        {
            var chosen = works[e.WorkId].People.Value;
            var folded = chosen
                .Select(p => (Family: MergeKeys.PersonKey(p.Family), Given: Mention.GivenParts(p.Given)))
                .ToArray();
            for (var i = 0; i < e.Record.People.Count; i++)
            {
                if (!truth.TryGetValue((e.At, i), out var person))
                    continue;
                var (family, given) = (
                    MergeKeys.PersonKey(e.Record.People[i].Family),
                    Mention.GivenParts(e.Record.People[i].Given)
                );
                // A record's person is the one of the work's list who has that name; one who is not in the list stands
                // alone.
                var position = Enumerable
                    .Range(0, chosen.Count)
                    .Where(c => folded[c].Family == family && GivenNames.Compatible(folded[c].Given, given))
                    .OrderBy(c => Math.Abs(c - i))
                    .Select(c => (int?)c)
                    .FirstOrDefault();
                if (seen.Add((e.WorkId, person, position ?? -1)))
                    names.Add(
                        new(
                            e.WorkId,
                            position ?? -e.Id * 1000 - i,
                            person,
                            $"{family} {(given.Count > 0 ? given[0][..1] : "")}"
                        )
                    );
            }
        }
        return names;
    }

    private static double F1((double Precision, double Recall) b) =>
        2 * b.Precision * b.Recall / (b.Precision + b.Recall);

    private static (double Precision, double Recall) BCubedOf<T>(
        List<Item> all,
        IReadOnlyCollection<Item> over,
        Func<Item, T> group
    )
        where T : notnull
    {
        var (found, real, both) = (
            all.CountBy(group).ToDictionary(),
            all.CountBy(p => p.True).ToDictionary(),
            all.CountBy(p => (group(p), p.True)).ToDictionary()
        );
        return (
            over.Average(p => (double)both[(group(p), p.True)] / found[group(p)]),
            over.Average(p => (double)both[(group(p), p.True)] / real[p.True])
        );
    }

    private static string BCubed<T>(List<Item> all, IReadOnlyCollection<Item> over, Func<Item, T> group)
        where T : notnull
    {
        var (precision, recall) = BCubedOf(all, over, group);
        return string.Create(
            CultureInfo.InvariantCulture,
            $"precision {precision:0.0000}  recall {recall:0.0000}  B³ F1 "
                + $"{F1((precision, recall)):0.0000}  ({over.Count:N0} names)"
        );
    }

    private static void Examples(
        IReadOnlyList<Mention> mentions,
        IReadOnlyList<Person> people,
        List<Item> items,
        TextWriter says
    )
    {
        var by = mentions.ToDictionary(m => (m.WorkId, m.Position));
        string Told(int number) =>
            number < 0
                ? "(not in the list)"
                : string.Join(
                    " | ",
                    people[number]
                        .Mentions.Take(4)
                        .Select(at => by[(at.WorkId, at.Position)])
                        .Select(m => $"{m.WorkId} {m.Name.Family}, {m.Name.Given} {m.Orcid} {m.Year} {m.Affiliation}")
                ) + (people[number].Doubtful.Count > 0 ? " doubt" : "");
        foreach (var g in items.GroupBy(i => i.True).Where(g => g.Select(i => i.Found).Distinct().Count() > 1).Take(60))
        {
            says.WriteLine($"SPLIT {g.Key}");
            foreach (var found in g.Select(i => i.Found).Distinct())
                says.WriteLine($"    {Told(found)}");
        }
        foreach (var g in items.GroupBy(i => i.Found).Where(g => g.Select(i => i.True).Distinct().Count() > 1).Take(40))
            says.WriteLine($"MIXED {string.Join(' ', g.Select(i => i.True).Distinct())}: {Told(g.Key)}");
    }
}
