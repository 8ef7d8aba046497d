extern alias outside;
using outside::Zendle.Outside.World;
using outside::Zendle.Outside.World.Databases;

namespace Zendle.Server.Tests;

/// <summary>The world has the shape that bibliometrics reports of real ones, and tells the truth about it.</summary>
public sealed class WorldShapeTests
{
    private static readonly Scenario Scenario = Scenario.Read(Path.Combine(Root.Folder, "demo"));
    private static readonly List<IReadOnlyList<string>> Skeletons = [];
    private static readonly IReadOnlyList<Work> Works = WorldMaker.Make(
        Scenario,
        3,
        3_000,
        (_, s) => Skeletons.Add([.. s])
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
        Assert.True(inDegree.Take(1_000).Average() > inDegree.TakeLast(300).Average());
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
        var lines = WorldShape.Lines(Works, DatabaseViews.Make(Works, 3), Skeletons).ToArray();
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
        var commonest = lines
            .SkipWhile(l => !l.StartsWith("sentence skeletons", StringComparison.Ordinal))
            .Skip(1)
            .First();
        Assert.True(
            double.Parse(commonest.Trim().Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture) < 2.5,
            commonest
        );
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

    [Fact]
    public void An_interval_holds_the_figure_it_belongs_to()
    {
        var found = 0;
        foreach (var text in Works.Select(w => w.Abstract))
        foreach (
            System.Text.RegularExpressions.Match m in System.Text.RegularExpressions.Regex.Matches(
                text,
                @"(?:(\d+) %[^.()]*)?\((?:95 % )?(?:credible )?interval (−?\d+) to (\d+) %\)"
            )
        )
        {
            found++;
            int Of(int group) =>
                int.Parse(m.Groups[group].Value.Replace('−', '-'), System.Globalization.CultureInfo.InvariantCulture);
            Assert.True(Of(2) < Of(3), m.Value);
            if (m.Groups[1].Success && !m.Value.Contains("of the level", StringComparison.Ordinal))
                Assert.InRange(Of(1), Of(2), Of(3));
        }
        Assert.True(found > 50, "some abstracts tell intervals");
    }
}
