extern alias outside;
using outside::Zendle.Outside.World;
using outside::Zendle.Outside.World.Databases;

namespace Zendle.Server.Tests;

/// <summary>The world has the shape that bibliometrics reports of real ones, and tells the truth about it.</summary>
public sealed class WorldShapeTests
{
    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly List<Written> Written = [];
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(
        Scenario,
        3,
        12_000,
        (work, prose) => Written.Add(new(work, prose))
    );

    [Fact]
    public void Citations_are_skewed_and_the_old_are_cited_more_than_the_new()
    {
        var inDegree = new int[Works.Count];
        foreach (var w in Works)
        foreach (var c in w.Cites)
            inDegree[c]++;
        var sorted = inDegree.Order().ToArray();
        Assert.True(
            sorted[^1] > 10 * Math.Max(1, sorted[sorted.Length / 2]),
            "the most cited stand far above the middle"
        );
        Assert.InRange(sorted.TakeLast(sorted.Length / 100).Sum() / (double)sorted.Sum(), 0.05, 0.25);
        Assert.True(inDegree.Take(4_000).Average() > inDegree.TakeLast(1_200).Average());
    }

    /// <summary>
    /// Real networks of citations have tails whose density falls with an exponent near 3 (Redner 1998); estimated as
    /// Clauset, Shalizi and Newman (2009, equation 3.7) do for whole numbers, over the upper twentieth.
    /// </summary>
    [Fact]
    public void The_tail_of_citations_falls_with_an_exponent_near_three()
    {
        var tail = Works
            .SelectMany(w => w.Cites)
            .CountBy(c => c)
            .Select(c => (double)c.Value)
            .OrderDescending()
            .Take(Works.Count / 20)
            .ToArray();
        var exponent = 1 + tail.Length / tail.Sum(n => Math.Log(n / (tail[^1] - 0.5)));
        Assert.InRange(exponent, 2.7, 3.4);
    }

    [Fact]
    public void References_are_mostly_young_and_stay_with_their_topic()
    {
        var ages = Works.SelectMany(w => w.Cites.Select(c => w.Year - Works[c].Year)).Order().ToArray();
        Assert.InRange(ages[ages.Length / 2], 5, 11);
        // A paper in press may be cited in the year before it is dated; no more than that.
        Assert.True(ages[0] >= -1 && ages.Count(a => a < 0) < ages.Length / 1_000);
        var own =
            Works.Sum(w => w.Cites.Count(c => Works[c].Topic == w.Topic)) / (double)Works.Sum(w => w.Cites.Length);
        Assert.InRange(own, 0.25, 0.95);
    }

    [Fact]
    public void Reviews_cite_more_than_letters_and_editorials_hardly_at_all()
    {
        double Mean(string type) =>
            Works
                .Where(w => w.Type == type && w.Year > 1990)
                .Select(w => (double)w.Cites.Length)
                .DefaultIfEmpty(0)
                .Average();
        Assert.True(Mean("review") > 1.5 * Mean("article"));
        Assert.True(Mean("article") > 1.5 * Mean("letter"));
    }

    [Fact]
    public void Words_drift_with_the_decades()
    {
        bool Says(Work w, string word) =>
            (w.Title + " " + w.Abstract).Contains(word, StringComparison.OrdinalIgnoreCase);
        var core = Works.Where(w => w.Topic.Core).ToArray();
        var (early, late) = (core.Where(w => w.Year < 1995).ToArray(), core.Where(w => w.Year > 2012).ToArray());
        Assert.DoesNotContain(early, w => Says(w, "skyglow") || Says(w, " LED "));
        Assert.Contains(late, w => Says(w, "skyglow") || Says(w, "LED") || Says(w, "artificial light at night"));
    }

    [Fact]
    public void People_change_names_and_places_and_namesakes_are_others()
    {
        var people = Works.SelectMany(w => w.People.Select(p => (Signed: p, w.Year))).ToArray();
        Assert.Contains(
            people.GroupBy(p => p.Signed.Person.Id),
            g => g.Select(p => p.Signed.Family).Distinct().Count() > 1
        );
        Assert.Contains(
            people.GroupBy(p => p.Signed.Person.Id),
            g => g.Select(p => p.Signed.Institute).Distinct().Count() > 1
        );
        Assert.Contains(
            people.GroupBy(p => p.Signed.Family + p.Signed.Given[0]),
            g => g.Select(p => p.Signed.Person.Id).Distinct().Count() > 1
        );
        Assert.All(people.Where(p => p.Signed.Orcid is not null), p => Assert.True(p.Year >= 2012));
        Assert.All(Works, w => Assert.Equal(w.People.Length, w.People.Select(p => p.Person.Id).Distinct().Count()));
    }

    [Fact]
    public void The_shape_that_is_printed_is_the_worlds()
    {
        var lines = WorldShape.Lines(Works, DatabaseViews.Make(Works, 3), Written, Scenario).ToArray();
        Assert.StartsWith(
            $"{Works.Count:N0} works",
            lines[0].Replace(".", ",", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        Assert.Contains(
            $"{Works.Sum(w => w.Cites.Length).ToString("N0", System.Globalization.CultureInfo.InvariantCulture)} references",
            lines[0],
            StringComparison.Ordinal
        );
        Assert.Equal(6, lines.Count(l => l.EndsWith(" records", StringComparison.Ordinal)));
    }

    [Fact]
    public void No_abstract_says_what_no_real_one_would()
    {
        Assert.Empty(WorldLint.Faults(Written, Scenario));
        // Real abstracts share a sentence with another now and then, and no mould of a title is common.
        Assert.InRange(WorldLint.Repeated(Written), 0, 0.05);
        Assert.InRange(WorldLint.TitleFrames(Written).First().Share, 0.002, 0.01);
        Assert.InRange(Written.Average(w => w.Prose.Sentences.Count), 4, 8);
    }

    [Theory]
    [InlineData("Moths fell by 30 % (interval 20 to 40 %) at 12 sites.", null)]
    [InlineData("Moths fell by 31 % at 12 sites.", "31")]
    [InlineData("Moths fell to 70 % at 13 sites.", "13")]
    [InlineData("Of 60 samples, 95 % interval aside, 5 were of each site.", null)]
    public void A_figure_that_is_not_the_studys_is_found(string text, string? strange)
    {
        var study = Written[0].Work.Study with
        {
            Direction = -1,
            Effect = 30,
            Figures = new(12, 5, 6, 2001, 3, 40, 8, 50, 20, 4, 10, 10),
        };
        Assert.Equal(strange, WorldLint.Strange(study, text));
    }

    [Fact]
    public void Names_teams_and_lists_grow_as_they_did()
    {
        var signed = Works.SelectMany(w => w.People.Select(p => p.Person)).CountBy(p => p).ToDictionary();
        // Lotka: most people have one work; nobody works fifty years.
        Assert.InRange(signed.Count(p => p.Value == 1) / (double)signed.Count, 0.5, 0.7);
        Assert.All(signed.Keys, p => Assert.InRange(p.To - p.From, 0, 49));
        var alike = signed.Keys.CountBy(p => $"{p.Family}, {p.Given[0]}").ToDictionary();
        Assert.InRange(
            signed.Keys.Count(p => alike[$"{p.Family}, {p.Given[0]}"] > 1) / (double)signed.Count,
            0.08,
            0.14
        );
        double Team(int from) =>
            Works.Where(w => w.Type == "article" && w.Year / 10 * 10 == from).Average(w => w.People.Length);
        Assert.InRange(Team(1960), 1.2, 2.2);
        Assert.InRange(Team(2020), 5, 6);
        double List(int from, int to) =>
            Works
                .Where(w => w.Type == "article" && w.Year >= from && w.Year <= to)
                .Average(w => (double)w.Cites.Length + w.Strays);
        Assert.InRange(List(1976, 1984), 12, 21);
        Assert.InRange(List(2024, 2026), 34, 44);
        Assert.InRange(Works.Sum(w => w.Cites.Length), 170_000, 350_000);
    }

    [Fact]
    public void Look_alikes_stand_in_every_world()
    {
        Assert.Contains(Works, w => w.Title.EndsWith(". Part 2", StringComparison.Ordinal));
        Assert.Contains(Works, w => w.Title.StartsWith("Reply to: ", StringComparison.Ordinal));
        Assert.Contains(Works, w => w.Title.StartsWith("Comment on “", StringComparison.Ordinal));
        Assert.Contains(Works, w => w.Title.StartsWith("Correction to: ", StringComparison.Ordinal));
        // The same title by others, and a conference paper with the article that followed it.
        var alike = Works
            .Where(w => w.Type is "article" or "conference paper")
            .GroupBy(w => w.Title)
            .Where(g => g.Count() > 1)
            .ToArray();
        Assert.Contains(alike, g => g.Select(w => w.Study.Id).Distinct().Count() > 1);
        Assert.Contains(
            alike,
            g => g.Select(w => w.Type).Distinct().Count() > 1 && g.Select(w => w.Study.Id).Distinct().Count() == 1
        );
        foreach (var noise in new[] { 0.0, 1, 3 })
            Assert.Contains(Companions.With(Works, 3, noise), w => w.CompanionOf >= 0);
    }

    [Theory]
    [InlineData("skyglow", "Clouds amplify", "cloud cover")]
    [InlineData("led-spectra", "Ultraviolet, blue", "ultraviolet content")]
    [InlineData("part-night", "Part-night lighting", "part-night switching")]
    [InlineData("flight-to-light", "a lamp and the moon", "moonlight")]
    public void A_title_promises_the_factor_that_was_studied(string topic, string says, string factor)
    {
        var titled = Works
            .Where(w => w.Topic.Key == topic && w.Title.Contains(says, StringComparison.Ordinal))
            .ToArray();
        Assert.All(titled, w => Assert.Equal(factor, w.Study.Factor));
    }
}
