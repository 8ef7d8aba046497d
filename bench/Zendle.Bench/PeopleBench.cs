using System.Diagnostics;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Bench;

/// <summary>
/// What it costs to tell people apart when one family name stands in a tenth of all mentions, and when one author, or
/// one co-author, stands on every work.
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
                                Year = 1970 + random.Next(55),
                                People = people,
                                Subjects = ["subject " + random.Next(60)],
                            }
                        ),
                    ];
                    return Mention.Of(id, records, ChosenFields.From(records));
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
