using System.Diagnostics;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Bench;

/// <summary>
/// What it costs to tell people apart: when one family name stands in a tenth of all mentions, when one author, or one
/// co-author, stands on every work; and to follow changes block by block.
/// </summary>
internal static class PeopleBench
{
    private static readonly string[] Given =
    [
        "Mei",
        "Marta",
        "Anna",
        "Tomas",
        "Ilse",
        "Karim",
        "Noor",
        "Pavel",
        "Rosa",
        "Samir",
        "Tove",
        "Uma",
        "Vera",
        "Wim",
        "Yara",
        "Zeno",
    ];

    /// <summary>Runs it over so many works of three people each.</summary>
    public static void Run(int works, int seed)
    {
        Time(
            "one surname in a tenth of all mentions",
            Mentions(works, seed, (random, place) => random.Next(10) == 0 ? "Kimber" : Name(random))
        );
        Time(
            "one author on every work",
            Mentions(works / 3, seed, (random, place) => place == 0 ? "Kimber" : Name(random), one: true)
        );
        Time(
            "one co-author on every work, one surname for all others",
            Mentions(works / 3, seed, (random, place) => place == 1 ? "Ostwald" : "Kimber", one: false)
        );
    }

    /// <summary>
    /// Tells the people of works apart block by block, writes them down, reads them and follows a thousand works that
    /// changed, as the server does beside its store.
    /// </summary>
    public static void Follow(int works, int seed)
    {
        var random = new Random(seed);
        var (people, watch) = (new PeopleByBlock(), Stopwatch.StartNew());
        for (var id = 1; id <= works; id++)
            people.Put(id, Work(id, random, works));
        Said("works taken", watch);
        var numbering = new PersonNumbering();
        var (count, changed) = Tell(people, numbering);
        Said($"{count:N0} people of {works:N0} works told apart and numbered, {changed:N0} blocks", watch);
        var path = Path.Combine(Path.GetTempPath(), $"zendle-people-{Environment.ProcessId}");
        try
        {
            using (var file = File.Create(path))
                people.Write(file);
            Said($"written down, {new FileInfo(path).Length / 1_000_000:N0} MB", watch);
            using (var file = File.OpenRead(path))
                people = PeopleByBlock.Read(file)!;
            Said("read again", watch);
        }
        finally
        {
            File.Delete(path);
        }
        GC.Collect();
        watch.Restart();
        foreach (var id in Enumerable.Range(0, 1_000).Select(_ => random.Next(1, works)))
            people.Put(id, Work(id, random, works));
        (count, changed) = Tell(people, numbering);
        Said($"1,000 works that changed followed: {count:N0} people of {changed:N0} blocks told apart", watch);
    }

    private static (int People, int Blocks) Tell(PeopleByBlock people, PersonNumbering numbering)
    {
        var change = people.Change();
        var (count, changed) = (0, 0);
        foreach (var block in people.Tell(change, CancellationToken.None).SelectMany(b => b))
        {
            people.Keep(block with { People = numbering.Number(block.People, change.Held).People });
            (count, changed) = (count + block.People.Count, changed + 1);
        }
        people.Finish(change);
        return (count, changed);
    }

    private static void Said(string what, Stopwatch watch)
    {
        using var process = Process.GetCurrentProcess();
        Console.WriteLine(
            $"{what}: {watch.Elapsed.TotalSeconds:N1} s; held {GC.GetTotalMemory(true) / 1_000_000:N0} MB, peak of the "
                + $"process {process.PeakWorkingSet64 / 1_000_000:N0} MB"
        );
        watch.Restart();
    }

    /// <summary>
    /// A work of one to six people out of as many as there are works, who write with those of near numbers, at one
    /// institution, about one subject; each is named some three and a half times, a third of the times by initials.
    /// </summary>
    private static IReadOnlyList<Mention> Work(int id, Random random, int people)
    {
        var first = random.Next(people);
        return Of(
            id,
            1970 + first % 40 + random.Next(15),
            "subject " + first % 600,
            [.. Enumerable.Range(first, random.Next(1, 7)).Select(p => Person(p % people, random))]
        );
    }

    /// <summary>The mentions of a work with one record.</summary>
    private static IReadOnlyList<Mention> Of(int id, int year, string subject, PersonName[] people)
    {
        SourcedRecord[] records =
        [
            new(
                id,
                1,
                0,
                new Record
                {
                    Identifier = "r" + id,
                    Title = "Work " + id,
                    Year = year,
                    People = people,
                    Subjects = [subject],
                }
            ),
        ];
        return Mention.Of(id, records, ChosenFields.From(records));
    }

    private static PersonName Person(int number, Random random)
    {
        var own = new Random(number);
        var (family, given) = (Name(own), Given[own.Next(Given.Length)]);
        return new(
            family,
            random.Next(3) == 0 ? given[..1] + "." : given,
            Affiliation: "Institute " + number / 50 % 2_000
        );
    }

    private static string Name(Random random) =>
        string.Concat(
            "BDFGKLMNPRST"[random.Next(12)],
            "aeiou"[random.Next(5)],
            "lmnrst"[random.Next(6)],
            "aeiou"[random.Next(5)],
            "dkmnst"[random.Next(6)],
            "aeo"[random.Next(3)],
            "nrlk"[random.Next(4)]
        );

    private static Mention[] Mentions(int works, int seed, Func<Random, int, string> family, bool one = false)
    {
        var random = new Random(seed);
        return
        [
            .. Enumerable
                .Range(1, works)
                .SelectMany(id =>
                {
                    PersonName[] people =
                    [
                        .. Enumerable
                            .Range(0, 3)
                            .Select(p => new PersonName(
                                family(random, p),
                                one && p == 0
                                    ? "Mei K."
                                    : Given[random.Next(Given.Length)] + " " + (char)('A' + random.Next(26)) + "."
                            )),
                    ];
                    return Of(id, 1970 + random.Next(55), "subject " + random.Next(60), people);
                }),
        ];
    }

    private static void Time(string what, Mention[] mentions)
    {
        GC.Collect();
        var (before, watch) = (GC.GetTotalMemory(true), Stopwatch.StartNew());
        var people = PeopleResolver.Resolve(mentions);
        var took = watch.Elapsed;
        Console.WriteLine(
            $"{what}: {mentions.Length:N0} mentions, {people.Count:N0} people in {took.TotalSeconds:N1} s; "
                + $"peak of the process {Process.GetCurrentProcess().PeakWorkingSet64 / 1_000_000:N0} MB, held "
                + $"after {(GC.GetTotalMemory(true) - before) / 1_000_000:N0} MB"
        );
    }
}
