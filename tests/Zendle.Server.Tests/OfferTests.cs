using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// What an offer says it brings is what it brings: over hundreds of generated lines, with limits and without, every
/// offered line is taken and counted.
/// </summary>
public sealed class OfferTests(Harvested harvested) : IClassFixture<Harvested>
{
    private const int Lines = 260;
    private Visitor Ann => harvested.Ann;

    private static readonly string[] Words =
    [
        "light",
        "moth",
        "moths",
        "pollination",
        "artificial",
        "night",
        "behaviour",
        "soil",
        "species",
        "flower",
        "larva",
        "urban",
        "colour",
        "plant",
        "plants",
        "effect",
        "effects",
        "insect",
        "street",
        "abundance",
        "modelling",
        "visits",
    ];

    /// <summary>A line as people type them: words, phrases, alternatives, exclusions, fields; never twice the same way.</summary>
    private static string Line(Random random)
    {
        string Word() => Words[random.Next(Words.Length)];
        string Term() =>
            random.Next(6) switch
            {
                0 => $"\"{Word()} {Word()}\"",
                1 => $"title:\"{Word()} {Word()}\"",
                2 => $"{Word()[..4]}*",
                3 => $"({Word()} OR {Word()})",
                _ => Word(),
            };
        return random.Next(8) switch
        {
            0 => $"{Term()} {Term()}",
            1 => $"{Term()} AND {Term()}",
            2 => $"{Term()} OR {Term()} AND {Term()}",
            3 => $"{Term()} NOT {Term()}",
            4 => $"{Word()} {Word()} {Word()}",
            5 => $"{Term()} or {Term()}",
            6 => $"\"{Word()} {Word()}\" NOT \"{Word()} {Word()}\"",
            _ => $"{Term()} AND ({Term()} OR {Term()}) AND \"{Word()} {Word()} {Word()}\"",
        };
    }

    [Fact]
    public async Task Every_offered_count_is_what_taking_the_offer_brings()
    {
        var (random, review, offers, wrong) = (new Random(12), await Ann.Review(), 0, new List<string>());
        var everything = await Ann.Search(review, "");
        int[] under =
        [
            everything,
            await Ann.Step(
                review,
                everything,
                new
                {
                    kind = "Years",
                    from = 1995,
                    to = 2015,
                }
            ),
            await Ann.Step(
                review,
                everything,
                new
                {
                    kind = "Narrow",
                    facet = "Type",
                    values = new[] { "article" },
                }
            ),
        ];
        for (var i = 0; i < Lines; i++)
        {
            var (line, parent) = (Line(random), under[i % under.Length]);
            var reading = await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = line, stepId = parent });
            if (!reading["isSound"]!.GetValue<bool>())
                continue;
            foreach (var notice in reading.List("notices").Where(n => n.List("ways").Any()))
            foreach (var way in notice.List("ways"))
            {
                offers++;
                var brings = await Taken(review, parent, way.Text("text"));
                if (notice.Text("kind") is "Variants" or "Gap")
                    brings -= await Taken(review, parent, line);
                if (brings != way.Int("count"))
                    wrong.Add(
                        $"{line} [{notice.Text("kind")}]: {way.Text("text")} said {way.Int("count")}, brings {brings}"
                    );
            }
        }
        Assert.True(wrong.Count == 0, string.Join('\n', wrong.Take(20)));
        Assert.True(offers > 150, $"{offers} offers");
    }

    [Theory]
    [InlineData("light AND xylomorphic", "“xylomorphic” is in no title, abstract or keyword.", "light")]
    [InlineData("author:Xylomorph AND light", "“Xylomorph” is in no name.", "light")]
    [InlineData("light AND \"light moth abundance light\"", "“light moth abundance light” is in no title", "light")]
    public async Task A_line_that_finds_nothing_says_which_part_and_what_it_finds_without(
        string line,
        string says,
        string without
    )
    {
        var review = await Ann.Review();
        var reading = await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = line, stepId = 0 });
        var notice = Assert.Single(reading.List("notices"), n => n.Text("kind") == "Nothing");
        Assert.StartsWith(says, notice.Text("sentence"), StringComparison.Ordinal);
        var way = Assert.Single(notice.List("ways"), w => w.Text("text") == without);
        Assert.Equal(await Ann.Count(review, await Ann.Search(review, without)), way.Int("count"));
        Assert.True(way.Int("count") > 0);
    }

    [Fact]
    public async Task When_limits_leave_nothing_that_is_said()
    {
        var review = await Ann.Review();
        var early = await Ann.Step(
            review,
            await Ann.Search(review, ""),
            new
            {
                kind = "Years",
                from = 1200,
                to = 1300,
            }
        );
        var reading = await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = "light", stepId = early });
        Assert.Matches(
            "^The line finds [0-9,]+ works, but the limits in force leave none[.]$",
            Assert.Single(reading.List("notices"), n => n.Text("kind") == "Nothing").Text("sentence")
        );
    }

    [Fact]
    public async Task A_line_that_only_a_database_that_is_off_finds_says_which_and_how_much()
    {
        var review = await Ann.Review();
        var databases = (await Ann.Get("/api/databases")).List("databases").Select(d => d.Int("id")).ToArray();
        var (on, off) = (databases[0], databases[1]);
        // A line that one database alone has: the title of a work that is in it only.
        var there = await Ann.Step(
            review,
            await Ann.Search(review, "light"),
            new { kind = "Databases", databases = new[] { off } }
        );
        var line = "";
        foreach (var row in (await Ann.Get($"/api/reviews/{review}/steps/{there}/works?limit=100")).List("works"))
        {
            var title =
                $"title:\"{string.Concat(row["title"]!.Text("text").Where(c => char.IsLetterOrDigit(c) || c == ' '))}\"";
            var both = await Ann.Search(review, title);
            if (
                await Ann.Count(
                    review,
                    await Ann.Step(review, both, new { kind = "Databases", databases = new[] { on } })
                ) == 0
                && await Ann.Count(review, both) > 0
            )
            {
                line = title;
                break;
            }
        }
        Assert.NotEqual("", line);
        var step = await Ann.Step(
            review,
            await Ann.Search(review, "light"),
            new { kind = "Databases", databases = new[] { on } }
        );
        var reading = await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = line, stepId = step });
        var notice = Assert.Single(reading.List("notices"), n => n.Text("kind") == "Nothing");
        Assert.Contains("in the databases that are searched", notice.Text("sentence"), StringComparison.Ordinal);
        var way = notice.List("ways").First();
        Assert.Equal(line, way.Text("text"));
        // Taken as it is told: the databases, then the line.
        var taken = await Ann.Step(
            review,
            await Ann.Step(
                review,
                step,
                new { kind = "Databases", databases = way.List("databases").Select(d => d.GetValue<int>()).ToArray() }
            ),
            new { kind = "Search", expression = line }
        );
        Assert.Equal(await Ann.Count(review, taken), way.Int("count"));
        // With all databases on there is no such way.
        var all = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/reading",
            new { text = "light AND xylomorphic", stepId = 0 }
        );
        Assert.All(all.List("notices").SelectMany(n => n.List("ways")), w => Assert.Null(w["databases"]));
    }

    private readonly Dictionary<(int, string), int> taken = [];

    private async Task<int> Taken(int review, int parent, string line) =>
        taken.TryGetValue((parent, line), out var known)
            ? known
            : taken[(parent, line)] = await Ann.Count(
                review,
                await Ann.Step(review, parent, new { kind = "Search", expression = line })
            );
}
