namespace Zendle.Outside.World;

/// <summary>Makes a world of works from a scenario and a seed. The same seed gives the same world.</summary>
public sealed class WorldMaker
{
    private static readonly (string Type, double Share)[] Types =
    [
        ("article", 0.655),
        ("review", 0.06),
        ("systematic review", 0.014),
        ("conference paper", 0.07),
        ("editorial", 0.012),
        ("letter", 0.018),
        ("correction", 0.012),
        ("retraction notice", 0.003),
        ("thesis", 0.05),
        ("report", 0.035),
        ("book", 0.012),
        ("dataset", 0.02),
        ("preprint", 0.03),
    ];
    private const int FirstYear = 1958,
        LastYear = 2026,
        MostCore = 600;

    private readonly Scenario scenario;
    private readonly Dice dice;
    private readonly int size;
    private readonly Journal[] journals;
    private readonly Dictionary<string, Journal[]> journalsOf;
    private readonly HashSet<string> titles = new(StringComparer.OrdinalIgnoreCase);
    private readonly List<Work> works = [];
    private readonly Dictionary<string, List<int>> byTopic;
    private readonly Dictionary<Study, int> followUps = [];
    private People people = null!;
    private int studies;

    private WorldMaker(Scenario scenario, ulong seed, int size)
    {
        (this.scenario, this.size, dice) = (scenario, size, new Dice(seed));
        journals = MakeJournals();
        journalsOf = journals.GroupBy(j => j.Area).ToDictionary(g => g.Key, g => g.ToArray());
        byTopic = scenario.Topics.ToDictionary(t => t.Key, _ => new List<int>());
    }

    /// <summary>Makes the works, ordered by date.</summary>
    public static IReadOnlyList<Work> Make(Scenario scenario, ulong seed, int size) => Make(scenario, seed, size, null);

    /// <summary>Makes the works, ordered by date, and shows the prose of each.</summary>
    public static IReadOnlyList<Work> Make(Scenario scenario, ulong seed, int size, Action<Work, Prose>? written) =>
        new WorldMaker(scenario, seed, size).Works(written);

    private Journal[] MakeJournals()
    {
        var d = dice.For("journals");
        return
        [
            .. scenario.Words.Journals.Select(
                (j, i) =>
                    new Journal(
                        i,
                        j.Key,
                        CheckDigits.Issn(90_00000 + i * 137 % 99999),
                        d.Of(scenario.Words.Publishers),
                        j.Value,
                        d.Chance(0.55),
                        d.Chance(0.4)
                    )
            ),
        ];
    }

    private List<Work> Works(Action<Work, Prose>? written)
    {
        var plan = Plan();
        people = new(
            scenario.Words,
            dice,
            plan.CountBy(p => p.Topic).OrderBy(c => c.Key.Key, StringComparer.Ordinal).ToDictionary(),
            LastYear
        );
        var citing = new Citations(dice, scenario);
        Work? book = null;
        foreach (var (planned, inYear, onDay, chapter) in plan)
        {
            var id = works.Count;
            var d = dice.For("work", id);
            // A chapter belongs to the book that came out last, and with it.
            var inBook = chapter && book is not null && book.Year >= inYear - 1 ? book : null;
            var (topic, year, day) = inBook is null
                ? (planned, inYear, onDay)
                : (inBook.Topic, inBook.Year, inBook.Day);
            var (work, prose) = MakeWork(id, topic, year, day, d, inBook);
            work = work with
            {
                Cites = citing.Of(work, works, byTopic),
                Strays = work.Type is "article" or "review" or "thesis" ? d.Between(0, 2) : 0,
            };
            work = work with { LastPage = work.FirstPage + Pages(d, work) - 1 };
            citing.Count(work);
            byTopic[topic.Key].Add(id);
            works.Add(work);
            if (work.Type == "book")
                book = work;
            written?.Invoke(work, prose);
        }
        return works;
    }

    /// <summary>
    /// Topics and dates, more works in later years, each topic from its own start; near six hundred truly about the
    /// scenario.
    /// </summary>
    private List<(Topic Topic, int Year, int Day, bool Chapter)> Plan()
    {
        var d = dice.For("plan");
        var core = Math.Max(Math.Min(MostCore, size * 2 / 5), size / 20);
        var friends = (size - core) / 8;
        var plan = new List<(Topic Topic, int Year, int Day, bool Chapter)>(size);
        foreach (
            var (group, share) in new[]
            {
                (scenario.Topics.Where(t => t.Core).ToArray(), core),
                (scenario.Topics.Where(t => t.Friend).ToArray(), friends),
                (scenario.Topics.Where(t => !t.Core && !t.Friend).ToArray(), size - core - friends),
            }
        )
        {
            var total = group.Sum(t => t.Weight);
            foreach (var topic in group)
                for (var n = (int)Math.Round(share * topic.Weight / total); n > 0; n--)
                {
                    var year = topic.Start + (int)Math.Round((LastYear - topic.Start) * Math.Pow(d.Unit(), 0.45));
                    plan.Add(
                        (
                            topic,
                            Math.Clamp(year, FirstYear, LastYear),
                            d.Between(1, year == LastYear ? 300 : 360),
                            d.Chance(0.04)
                        )
                    );
                }
        }
        return [.. plan.OrderBy(p => p.Year).ThenBy(p => p.Day).ThenBy(p => p.Topic.Key, StringComparer.Ordinal)];
    }

    private (Work Work, Prose Prose) MakeWork(int id, Topic topic, int year, int day, Dice d, Work? book)
    {
        var type = book is not null ? "chapter" : TypeFor(d, year);
        var about = type is "correction" or "retraction notice" or "letter" ? Spoken(d, topic, year, type) : -1;
        if (about < 0 && type is "correction" or "retraction notice")
            type = "article";
        var first = type == "article" ? FirstReport(d, topic, year) : null;
        var partOne = type == "article" && first is null ? PartOne(d, topic, year) : null;
        // Others may have asked the same question in the same words.
        var same =
            type == "article" && first is null && partOne is null && d.Chance(0.006) ? SameTitle(d, topic) : null;
        var study = first?.Study ?? Again(d, partOne ?? same, year) ?? NewStudy(d, topic, year);
        var prose = new Prose(scenario, topic, study, year, d);
        var language =
            type is not ("correction" or "retraction notice")
            && first is null
            && partOne is null
            && same is null
            && topic is { Core: true, Kind: "field" }
            && d.Chance(0.15)
                ? d.Of([.. scenario.Words.Foreign.Keys])
                : "eng";
        var (title, translated) =
            partOne is not null ? (partOne.Title[..^1] + "2", null)
            : same is not null ? (same.Title, null)
            : TitleOf(d, prose, type, language, about, first, study, topic);
        var signed =
            first is not null && d.Chance(0.8) ? first.People
            : partOne is not null ? partOne.People
            : about >= 0 && type != "letter" ? works[about].People
            : null;
        var team = signed ?? [.. people.Team(d, topic, year, TeamSize(d, type, year)).Select(p => p.SignsIn(year))];
        var journal =
            about >= 0 ? works[about].Journal
            : partOne is not null ? partOne.Journal
            : type is "article" or "review" or "systematic review" or "editorial" or "letter" ? JournalFor(d, topic)
            : null;
        var firstPage = type is "chapter" ? d.Between(1, 300) : d.Between(1, 900);
        var hasDoi =
            year >= 1996
                ? d.Chance(
                    type is "thesis" or "report" ? 0.35
                    : type is "book" or "chapter" ? 0.5
                    : 0.94
                )
                : d.Chance(type is "book" or "chapter" ? 0.1 : 0.3);
        var work = new Work
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
            People = team,
            Study = study,
            Journal = journal,
            Book = book,
            About = about,
            Proceedings =
                type == "conference paper" ? d.Of(scenario.Words.Proceedings)
                : type == "book" && d.Chance(0.4) ? d.Of(scenario.Words.Series)
                : null,
            Publisher = type == "book" ? d.Of(scenario.Words.Publishers) : book?.Publisher,
            Isbn = type == "book" && year >= 1970 ? CheckDigits.Isbn(979_999_000_000 + id) : book?.Isbn,
            Volume = journal is null
                ? (type == "conference paper" ? d.Between(1, 40) : 0)
                : Math.Max(1, year - 1950 + journal.Title.Length % 9),
            Issue = journal is null ? 0 : d.Between(1, 6),
            FirstPage = firstPage,
            LastPage = firstPage,
            Doi = hasDoi ? $"10.5555/{topic.Key.Replace('-', '.')}.{year}.{id:D5}" : null,
            PreprintDoi =
                type == "article" && year >= 2014 && hasDoi && d.Chance(0.22) ? $"10.5555/preprint.{id:D5}" : null,
            HasManuscript = journal is not null && about < 0 && year >= 2004 && d.Chance(0.24),
            Funder = year >= 2000 && d.Chance(0.4) ? d.Of(scenario.Words.Funders) : null,
            Appeal =
                Math.Exp(1.5 * d.Bell())
                * (
                    type is "review" or "systematic review" ? 1.8
                    : type is "editorial" or "letter" or "correction" ? 0.15
                    : 1
                ),
            // Now and then a good work is not noticed for decades.
            FoundIn = type == "article" && year < 1998 && d.Chance(0.004) ? year + d.Between(18, 28) : 0,
        };
        if (first is not null)
            followUps.Remove(first.Study);
        else if (type == "conference paper")
            followUps[study] = id;
        return (work, prose);
    }

    /// <summary>
    /// How many pages a work fills: its text takes two, its references and a long list of people the more; an appendix
    /// fills the rest.
    /// </summary>
    private static int Pages(Dice d, Work work) =>
        work.Type is "correction" or "retraction notice" or "letter" or "editorial"
            ? 1
            : 2 + (work.Cites.Length + work.Strays + 8) / 28 + (work.People.Length > 20 ? 1 : 0) + d.Between(0, 4);

    private Study NewStudy(Dice d, Topic topic, int year)
    {
        var place = d.Of(scenario.Words.Places);
        var response = d.Of(topic.Responses);
        // Each topic leans to one direction, and some studies find the contrary or nothing: findings conflict.
        var leans = dice.For("leaning " + topic.Key + response).Chance(0.7) ? -1 : 1;
        var roll = d.Unit();
        var direction =
            roll < 0.2 ? 0
            : roll < 0.32 ? -leans
            : leans;
        return new(
            studies++,
            topic.Kind,
            place,
            scenario.Words.Countries[place],
            d.Of(topic.Settings),
            d.Of(Measured(topic, response)),
            response,
            d.Of(topic.Factors),
            direction,
            Effect(d, direction),
            StudyFigures.Make(d, year)
        );
    }

    /// <summary>The size of an effect, in per cent; 0 where there is none.</summary>
    private static int Effect(Dice d, int direction) =>
        direction == 0 ? 0 : Math.Clamp((int)(26 * Math.Exp(0.7 * d.Bell())), 3, 95);

    /// <summary>What a response can be measured of: nobody counts the seeds of a moth.</summary>
    private string[] Measured(Topic topic, string response) =>
        topic.Fits?.GetValueOrDefault(response) is { } fitting
            ?
            [
                .. fitting.SelectMany(f =>
                    f switch
                    {
                        "@plants" => scenario.Words.Plants,
                        "@crops" => scenario.Words.Crops,
                        _ => [f],
                    }
                ),
            ]
            : topic.Things;

    private static string TypeFor(Dice d, int year)
    {
        var roll = d.Unit();
        foreach (var (type, share) in Types)
        {
            if ((roll -= share) >= 0)
                continue;
            return
                (type == "preprint" && year < 2013)
                || (type == "dataset" && year < 2008)
                || (type == "systematic review" && year < 2002)
                ? "article"
                : type;
        }
        return "article";
    }

    /// <summary>
    /// Teams have grown: from one or two in the sixties to five and more today (Wuchty, Jones, Uzzi 2007).
    /// </summary>
    private static int TeamSize(Dice d, string type, int year)
    {
        if (type is "thesis" or "editorial")
            return 1;
        if (type == "book")
            return d.Between(1, 3);
        if (year > 1990 && d.Chance(0.006))
            return d.Between(40, 64);
        var mean = 1.4 + 3.9 * Math.Clamp((year - 1962) / 60.0, 0, 1);
        // One and the number of the others, spread about the mean as counts of people are.
        return 1 + (int)((mean - 1) * Math.Exp(0.55 * d.Bell() - 0.15) + d.Unit());
    }

    /// <summary>
    /// The work that a correction, a notice or a comment speaks of: a recent article of the topic; −1 when there is
    /// none.
    /// </summary>
    private int Spoken(Dice d, Topic topic, int year, string type)
    {
        var own = byTopic[topic.Key];
        for (var tries = 0; tries < 12 && own.Count > 0; tries++)
        {
            var other = works[d.Of(own)];
            if (
                other.Type == "article"
                && other.Journal is not null
                && year - other.Year <= (type == "retraction notice" ? 9 : 2)
            )
                return type == "letter" && d.Chance(0.4) ? -1 : other.Id;
        }
        return -1;
    }

    /// <summary>A conference paper of the last years whose study is now reported again, at length.</summary>
    private Work? FirstReport(Dice d, Topic topic, int year)
    {
        if (!d.Chance(0.25))
            return null;
        var own = byTopic[topic.Key];
        for (var i = own.Count - 1; i >= 0 && works[own[i]].Year >= year - 2; i--)
            if (
                works[own[i]] is { Type: "conference paper", Language: "eng" } paper
                && paper.Year < year
                && followUps.ContainsKey(paper.Study)
            )
                return paper;
        return null;
    }

    private (string Title, string? Translated) TitleOf(
        Dice d,
        Prose prose,
        string type,
        string language,
        int about,
        Work? first,
        Study study,
        Topic topic
    )
    {
        if (about >= 0)
        {
            var of = works[about].Title;
            var notice = type switch
            {
                "correction" => $"Correction to: {of}",
                "retraction notice" => $"Retraction: {of}",
                _ => d.Of([$"Comment on “{of}”", $"Reply to: {of}", $"{of}: a comment"]),
            };
            return (Unlike(notice, d), null);
        }
        if (first is not null && d.Chance(0.4))
            return (first.Title, null);
        if (language == "eng")
        {
            var title =
                type == "editorial" && d.Chance(0.25)
                    ? d.Of(["Editorial", "In this issue", "From the editors"])
                    : prose.Title(type);
            if (title is "Editorial" or "In this issue" or "From the editors")
                return (title, null);
            if (type == "book")
                title = d.Of([
                    $"{Cap(study.Things)} and {study.Factor}",
                    $"The natural history of {study.Things}",
                    $"{Cap(study.Response)}: a handbook",
                    $"{Cap(topic.Keywords[0])}: essays for {study.Place}",
                    title,
                ]);
            if (type == "thesis" && d.Chance(0.3))
                title = $"{title} [thesis]"[..^9];
            // The first of a series: the second has the same title, told apart by a number only.
            if (type == "article" && d.Chance(0.012) && !title.Any(char.IsDigit) && titles.Add(title + FirstPart))
                return (title + FirstPart, null);
            title = Unlike(title, d, study);
            return (
                type == "systematic review" && !title.Contains("review", StringComparison.OrdinalIgnoreCase)
                    ? title + ": a systematic review"
                    : title,
                null
            );
        }
        var n = d.Below(scenario.Words.Foreign[language].Length);
        for (var tries = 0; ; tries++, n = (n + 1) % scenario.Words.Foreign[language].Length)
            if (prose.Told(scenario.Words.Foreign[language][n]) is var own && (titles.Add(own) || tries > 8))
                return (own, prose.Told(scenario.Words.Translated[language][n]));
    }

    private const string FirstPart = ". Part 1";

    /// <summary>
    /// An article of the topic whose title others may give to theirs; null when a draw finds none that tells no figures.
    /// </summary>
    private Work? SameTitle(Dice d, Topic topic) =>
        byTopic[topic.Key] is { Count: > 3 } own
        && works[d.Of(own)] is { Type: "article", Language: "eng" } other
        && !other.Title.Any(char.IsDigit)
            ? other
            : null;

    /// <summary>The question of a study asked again, with figures and a finding of its own; null for none.</summary>
    private Study? Again(Dice d, Work? of, int year)
    {
        if (of is null)
            return null;
        var direction = d.Chance(0.7) ? of.Study.Direction : d.Between(-1, 1);
        return of.Study with
        {
            Id = studies++,
            Direction = direction,
            Effect = Effect(d, direction),
            Figures = StudyFigures.Make(d, year),
        };
    }

    /// <summary>A first part of the last years that has no second yet; null when there is none.</summary>
    private Work? PartOne(Dice d, Topic topic, int year)
    {
        if (!d.Chance(0.3))
            return null;
        var own = byTopic[topic.Key];
        for (var i = own.Count - 1; i >= 0 && works[own[i]].Year >= year - 3; i--)
            if (
                works[own[i]] is { Type: "article" } one
                && one.Title.EndsWith(FirstPart, StringComparison.Ordinal)
                && titles.Add(one.Title[..^1] + "2")
            )
                return one;
        return null;
    }

    private static string Cap(string text) => char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>
    /// No two titles alike but on purpose: a repeated one tells where or when the study was, as real ones do.
    /// </summary>
    private string Unlike(string title, Dice d, Study? study = null)
    {
        if (titles.Add(title))
            return title;
        if (study is not null)
        {
            var f = study.Figures;
            var (asks, plain) = (title.EndsWith('?'), !title.Contains(':', StringComparison.Ordinal));
            string With(string rest) =>
                asks ? $"{title} {Cap(rest)}"
                : plain ? $"{title}: {rest}"
                : $"{title}, {rest}";
            string[] ways =
            [
                With($"{f.From}–{f.To}"),
                With(
                    $"{(title.Contains("evidence", StringComparison.Ordinal) ? "data" : "evidence")} from {study.Place}"
                ),
                With($"{f.Sites} sites in {study.Place}"),
                With($"{f.Years} years in {study.Place}"),
                With($"the case of {study.Place}"),
                With($"{f.Samples} samples from {study.Place}"),
            ];
            // A title that tells the place does not tell it again.
            var isPlaced = title.Contains(study.Place, StringComparison.Ordinal);
            foreach (var other in ways.OrderBy(_ => d.Unit()))
                if (!(isPlaced && other.EndsWith(study.Place, StringComparison.Ordinal)) && titles.Add(other))
                    return other;
        }
        for (var n = 2; ; n++)
            if (titles.Add($"{title} ({n})"))
                return $"{title} ({n})";
    }

    private Journal JournalFor(Dice d, Topic topic)
    {
        // Journals of an area differ in size: the first take most.
        var own = journalsOf[topic.Area];
        return d.Chance(0.93) ? own[(int)(own.Length * Math.Pow(d.Unit(), 1.25))] : d.Of(journals);
    }
}
