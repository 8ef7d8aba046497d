using System.Globalization;

namespace Zendle.Outside.World;

/// <summary>Makes a world of works from a scenario and a seed. The same seed gives the same world.</summary>
public sealed class WorldMaker
{
    private static readonly (string Type, double Share)[] Types =
        [("article", 0.66), ("review", 0.07), ("systematic review", 0.015), ("conference paper", 0.07), ("editorial", 0.015), ("letter", 0.02), ("thesis", 0.05), ("report", 0.035), ("book", 0.015), ("dataset", 0.02), ("preprint", 0.03)];
    private const int FirstYear = 1958, LastYear = 2026;

    private readonly Scenario scenario;
    private readonly Dice dice;
    private readonly int size;
    private readonly Person[] people;
    private readonly Journal[] journals;

    private WorldMaker(Scenario scenario, ulong seed, int size)
    {
        (this.scenario, this.size, dice) = (scenario, size, new Dice(seed));
        journals = MakeJournals();
        people = MakePeople();
    }

    /// <summary>Makes the works, ordered by date.</summary>
    public static IReadOnlyList<Work> Make(Scenario scenario, ulong seed, int size) => new WorldMaker(scenario, seed, size).Works();

    private Journal[] MakeJournals()
    {
        var d = dice.For("journals");
        return [.. scenario.Words.Journals.Select((j, i) => new Journal(j.Key, CheckDigits.Issn(90_00000 + i * 137 % 99999), d.Of(scenario.Words.Publishers), j.Value, d.Chance(0.72), d.Chance(0.4)))];
    }

    private Person[] MakePeople()
    {
        var d = dice.For("people");
        var areas = scenario.Topics.Select(t => t.Area).Distinct().ToArray();
        var w = scenario.Words;
        return [.. Enumerable.Range(0, Math.Max(60, size * 2 / 3)).Select(i =>
        {
            // Never the two halves that stand side by side in the list: those are the ones that make names in use.
            var first = d.Below(w.Families1.Length);
            var second = (first + 1 + d.Below(w.Families2.Length - 1)) % w.Families2.Length;
            var family = w.Families1[first] + w.Families2[second];
            if (d.Chance(0.06)) family += "-" + d.Of(w.Families1) + d.Of(["ta", "no", "ri"]);
            var given = d.Of(w.Givens) + (d.Chance(0.5) ? " " + (char)('A' + d.Below(20)) + "." : "");
            return new Person(i, family, given, d.Chance(0.4) ? CheckDigits.Orcid(9_0000_0000_0000 + i) : null, d.Of(w.Institutes), areas[d.Below(areas.Length)]);
        })];
    }

    private List<Work> Works()
    {
        var plan = Plan();
        var works = new List<Work>(plan.Count);
        var inDegree = new int[plan.Count];
        var byTopic = scenario.Topics.ToDictionary(t => t.Key, _ => new List<int>());
        var titles = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        for (var i = 0; i < plan.Count; i++)
        {
            var (topic, year, day) = plan[i];
            var work = MakeWork(i, topic, year, day, titles);
            work = work with { Cites = Cites(work, works, byTopic, inDegree) };
            foreach (var cited in work.Cites) inDegree[cited]++;
            byTopic[topic.Key].Add(i);
            works.Add(work);
        }
        return works;
    }

    /// <summary>Topics and dates, more works in later years, each topic from its own start.</summary>
    private List<(Topic Topic, int Year, int Day)> Plan()
    {
        var d = dice.For("plan");
        var total = scenario.Topics.Sum(t => t.Weight);
        var plan = new List<(Topic, int, int)>(size);
        foreach (var topic in scenario.Topics)
            for (var n = (int)Math.Round(size * topic.Weight / total); n > 0; n--)
            {
                var span = LastYear - topic.Start;
                var year = topic.Start + (int)Math.Round(span * Math.Pow(d.Unit(), 0.42));
                plan.Add((topic, Math.Clamp(year, FirstYear, LastYear), d.Between(1, year == LastYear ? 300 : 360)));
            }
        return [.. plan.OrderBy(p => p.Item2).ThenBy(p => p.Item3).ThenBy(p => p.Item1.Key, StringComparer.Ordinal)];
    }

    private Work MakeWork(int id, Topic topic, int year, int day, HashSet<string> titles)
    {
        var d = dice.For("work", id);
        var type = TypeFor(d, year);
        var language = d.Chance(0.9) || !topic.Core ? "eng" : d.Of([.. scenario.Words.Foreign.Keys]);
        var prose = new Prose(scenario.Words, topic, year, d);
        var title = prose.Title();
        string? translated = null;
        if (language != "eng")
        {
            var n = d.Below(scenario.Words.Foreign[language].Length);
            var place = d.Of(scenario.Words.Places);
            (title, translated) = (scenario.Words.Foreign[language][n].Replace("{place}", place, StringComparison.Ordinal), scenario.Words.Translated[language][n].Replace("{place}", place, StringComparison.Ordinal));
        }
        title = Unlike(title, titles, d, language);
        if (type == "systematic review") title += ": a systematic review";
        var journal = type is "article" or "review" or "systematic review" or "editorial" or "letter" or "conference paper" ? JournalFor(d, topic) : null;
        var first = d.Between(1, 900);
        var hasDoi = year >= 1996 ? d.Chance(type is "thesis" or "report" ? 0.35 : 0.94) : d.Chance(0.3);
        return new()
        {
            Id = id,
            Topic = topic,
            Type = type,
            Year = year,
            Day = day,
            Language = language,
            Title = title,
            Translated = translated,
            Abstract = prose.Abstract(type),
            Keywords = [.. topic.Keywords.OrderBy(_ => d.Unit()).Take(d.Between(2, topic.Keywords.Length))],
            People = PeopleFor(d, topic, type),
            Journal = journal,
            Volume = Math.Max(1, year - 1950 + (journal?.Title.Length ?? 0) % 9),
            Issue = d.Between(1, 6),
            FirstPage = first,
            LastPage = first + d.Between(2, 22),
            Doi = hasDoi ? $"10.5555/{topic.Key.Replace('-', '.')}.{year}.{id:D5}" : null,
            PreprintDoi = type == "article" && year >= 2014 && hasDoi && d.Chance(0.22) ? $"10.5555/preprint.{id:D5}" : null,
            HasManuscript = journal is not null && year >= 2004 && d.Chance(0.3),
            Funder = year >= 2000 && d.Chance(0.4) ? d.Of(scenario.Words.Funders) : null,
        };
    }

    private static string TypeFor(Dice d, int year)
    {
        var roll = d.Unit();
        foreach (var (type, share) in Types)
        {
            if ((roll -= share) >= 0) continue;
            return (type == "preprint" && year < 2013) || (type == "dataset" && year < 2008) || (type == "systematic review" && year < 2002) ? "article" : type;
        }
        return "article";
    }

    /// <summary>No two titles alike: a repeated one gets a part that tells it apart, as real series do.</summary>
    private string Unlike(string title, HashSet<string> titles, Dice d, string language)
    {
        if (titles.Add(title)) return title;
        foreach (var _ in Enumerable.Range(0, 40))
        {
            var place = d.Of(scenario.Words.Places);
            var other = language switch
            {
                "eng" => d.Below(5) switch
                {
                    0 => $"{title}: evidence from {place}",
                    1 => $"{title} in {d.Of(scenario.Words.Habitats)} of {place}",
                    2 => $"{title}. {(char.ToUpperInvariant(place[0]) + place[1..])} revisited after {d.Between(3, 30)} years",
                    3 => $"{title}: {d.Between(2, 9)} seasons of observation in {place}",
                    _ => $"{title}, with notes on {d.Of(scenario.Words.Plants)}",
                },
                "ger" => $"{title} ({place}, Teil {d.Between(1, 9)})",
                _ => $"{title} ({place}, {d.Between(1, 99)})",
            };
            if (titles.Add(other)) return other;
        }
        var numbered = string.Create(CultureInfo.InvariantCulture, $"{title} — {titles.Count}");
        titles.Add(numbered);
        return numbered;
    }

    private Journal JournalFor(Dice d, Topic topic)
    {
        var own = Array.FindAll(journals, j => j.Area == topic.Area);
        return own.Length > 0 && d.Chance(0.93) ? d.Of(own) : d.Of(journals);
    }

    private Person[] PeopleFor(Dice d, Topic topic, string type)
    {
        var own = Array.FindAll(people, p => p.Area == topic.Area);
        var pool = own.Length > 5 ? own : people;
        // A few works of large consortia; most have one to six people.
        var count = type is "thesis" or "book" or "editorial" ? 1 : d.Chance(0.006) ? d.Between(40, 64) : 1 + (int)(5 * Math.Pow(d.Unit(), 1.4));
        var chosen = new List<Person>();
        while (chosen.Count < count)
        {
            // Squaring favours the first of the pool: few people write much, many write once.
            var person = count > pool.Length ? d.Of(people) : pool[(int)(pool.Length * d.Unit() * d.Unit())];
            if (!chosen.Contains(person)) chosen.Add(person);
        }
        return [.. chosen];
    }

    /// <summary>Chooses what a work cites: by topic, by fame already won, by age (a peak a few years back), by its own people.</summary>
    private int[] Cites(Work work, List<Work> earlier, Dictionary<string, List<int>> byTopic, int[] inDegree)
    {
        var d = dice.For("cites", work.Id);
        if (earlier.Count < 5 || work.Type is "editorial" or "dataset") return [];
        var wanted = work.Type switch { "review" or "systematic review" or "thesis" => d.Between(22, 60), "letter" => d.Between(1, 4), "report" => d.Between(2, 12), _ => d.Between(4, 18) };
        if (work.Year < 1990) wanted = wanted * 2 / 3;
        var own = byTopic[work.Topic.Key];
        var chosen = new SortedSet<int>();
        for (var tries = 0; tries < wanted * 6 && chosen.Count < wanted; tries++)
        {
            var candidate = own.Count > 3 && d.Chance(0.72) ? d.Of(own) : d.Below(earlier.Count);
            var other = earlier[candidate];
            if (other.Topic.Friend != work.Topic.Friend && d.Chance(0.97)) continue;
            var age = work.Year - other.Year;
            var young = Math.Exp(-Math.Abs(age - 4) / 11.0);
            var fame = Math.Min(1, 0.18 + inDegree[candidate] / 25.0);
            var self = other.People.Any(p => work.People.Contains(p)) ? 2.5 : 1;
            var kind = other.Type is "review" or "systematic review" ? 1.6 : other.Type is "editorial" or "letter" ? 0.2 : 1;
            if (d.Chance(young * fame * self * kind * 1.6)) chosen.Add(candidate);
        }
        return [.. chosen];
    }
}
