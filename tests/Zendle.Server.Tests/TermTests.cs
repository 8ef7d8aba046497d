using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Offered terms over HTTP: what an offer says it brings is what taking it brings, and a review's refusals hold.
/// </summary>
public sealed class TermTests(Harvested harvested) : IClassFixture<Harvested>
{
    private const string Line = "light AND moth*";
    private Visitor Ann => harvested.Ann;

    /// <summary>A review that keeps the first works of a search, and a step that asks a line.</summary>
    private async Task<(int Review, int Step)> Kept(string line = Line, int kept = 25)
    {
        var review = await Ann.Review();
        var good = await Ann.Search(review, "pollinat* AND night");
        await Ann.Decide(review, "Keep", await Ann.Works(review, good, $"limit={kept}"));
        return (review, await Ann.Search(review, line));
    }

    private Task<System.Text.Json.Nodes.JsonNode> Offers(
        int review,
        int step,
        string text = Line,
        string source = "Kept",
        params int[] works
    ) =>
        Ann.Ok(
            "POST",
            $"/api/reviews/{review}/terms",
            new
            {
                text,
                stepId = step,
                source,
                works,
            }
        );

    private async Task<int> Taken(int review, int step, string text, int card, string expression)
    {
        var edited = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/reading/board",
            new
            {
                text,
                edit = new
                {
                    kind = "Add",
                    card,
                    term = -1,
                    text = expression,
                    to = 0,
                    scope = "About",
                    near = (int?)null,
                },
            }
        );
        var taken = await Ann.Step(review, step, new { kind = "Search", expression = edited.Text("text") });
        return await Ann.Count(review, taken);
    }

    [Fact]
    public async Task Each_offer_and_its_trial_bring_what_taking_it_brings_under_every_limit()
    {
        var (review, search) = await Kept();
        var limited = await Ann.Step(
            review,
            search,
            new
            {
                kind = "Years",
                from = 1995,
                to = 2020,
            }
        );
        foreach (var step in new[] { search, limited })
        {
            var before = await Ann.Count(review, step);
            var offered = await Offers(review, step);
            Assert.Equal(25, offered.Int("good"));
            var terms = offered.List("terms").Take(8).ToArray();
            Assert.NotEmpty(terms);
            foreach (var term in terms)
            {
                var after = await Taken(review, step, Line, term.Int("card"), term.Text("expression"));
                Assert.Equal(after - before, term.Int("adds"));
                var trial = await Ann.Ok(
                    "POST",
                    $"/api/reviews/{review}/terms/trial",
                    new
                    {
                        text = Line,
                        stepId = step,
                        expression = term.Text("expression"),
                        card = term.Int("card"),
                    }
                );
                Assert.Equal(term.Int("adds"), trial.Int("adds"));
                Assert.Equal(Math.Min(25, term.Int("adds")), trial.List("works").Count());
                Assert.Equal(
                    term.Int("all"),
                    await Ann.Count(review, await Ann.Search(review, term.Text("expression")))
                );
            }
        }
    }

    [Fact]
    public async Task What_the_search_misses_is_offered_for_the_concept_that_misses_it()
    {
        var (review, step) = await Kept("light AND \"flower visits\"");
        var offered = await Offers(review, step, "light AND \"flower visits\"", "Missed");
        Assert.True(offered.Int("good") > 0);
        Assert.NotEmpty(offered.List("terms"));
        Assert.All(offered.List("terms"), t => Assert.InRange(t.Int("card"), 0, 1));
        // Recounted from the lists themselves.
        async Task<HashSet<int>> Works(string line) => [.. await Ann.AllWorks(review, await Ann.Search(review, line))];
        var missed = await Works("stage:kept");
        missed.ExceptWith(await Works("light AND \"flower visits\""));
        Assert.Equal(missed.Count, offered.Int("good"));
        foreach (var term in offered.List("terms").Take(6))
            Assert.Equal((await Works(term.Text("expression"))).Count(missed.Contains), term.Int("good"));
    }

    [Fact]
    public async Task Terms_of_named_works_are_offered_and_numbers_that_name_none_are_passed_over()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light");
        var works = await Ann.Works(review, await Ann.Search(review, "pollinat* AND night"), "limit=5");
        var offered = await Offers(review, step, "light", "Listed", [.. works, 0, -4, int.MaxValue]);
        Assert.Equal(5, offered.Int("good"));
        Assert.NotEmpty(offered.List("terms"));
        Assert.Empty((await Offers(review, step, "light", "Listed")).List("terms"));
    }

    [Fact]
    public async Task A_refused_term_stays_refused_until_it_is_offered_again()
    {
        var (review, step) = await Kept();
        var term = (await Offers(review, step)).List("terms").First().Text("text");
        await Ann.Ok(
            "PUT",
            $"/api/reviews/{review}/terms/refused",
            new { text = term.ToUpperInvariant(), isRefused = true }
        );
        var after = await Offers(review, step);
        Assert.DoesNotContain(after.List("terms"), t => t.Text("text") == term);
        Assert.Equal(term, Assert.Single(after.List("refused")).Text("text"));
        Assert.Empty((await Offers((await Kept()).Review, 0)).List("refused"));
        await Ann.Ok("PUT", $"/api/reviews/{review}/terms/refused", new { text = term, isRefused = false });
        Assert.Contains((await Offers(review, step)).List("terms"), t => t.Text("text") == term);
        var (status, _) = await Ann.Send(
            "PUT",
            $"/api/reviews/{review}/terms/refused",
            new { text = " ", isRefused = true }
        );
        Assert.Equal(400, status);
    }

    [Fact]
    public async Task Excluding_an_offered_term_removes_what_it_says_and_names_the_kept_works_it_hits()
    {
        var (review, step) = await Kept("light");
        var works = await Ann.Works(review, await Ann.Search(review, "light AND soil"), "limit=15");
        await Ann.Decide(review, "SetAside", works, "the words mean something else");
        var before = await Ann.Works(review, step);
        var count = await Ann.Count(review, step);
        var offered = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/terms/against",
            new
            {
                text = "light",
                stepId = step,
                source = "Kept",
                works = Array.Empty<int>(),
            }
        );
        Assert.Equal(works.Length, offered.Int("aside"));
        Assert.NotEmpty(offered.List("terms"));
        foreach (var term in offered.List("terms").Take(6))
            Assert.Equal(count - term.Int("removes"), await Taken(review, step, "light", -1, term.Text("expression")));
        Assert.NotEmpty(before);
    }

    [Fact]
    public async Task Senses_part_the_set_in_view_and_taking_one_leaves_its_works()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light");
        var senses = await Ann.Get($"/api/reviews/{review}/steps/{step}/senses");
        Assert.Equal(await Ann.Count(review, step), senses.Int("total"));
        var groups = senses.List("groups").ToArray();
        Assert.True(groups.Length > 1);
        int[] Of(System.Text.Json.Nodes.JsonNode node, string name) =>
            [.. node[name]!.AsArray().Select(w => w!.GetValue<int>())];
        var all = groups.SelectMany(g => Of(g, "works")).Concat(Of(senses, "rest")).ToArray();
        Assert.Equal(senses.Int("total"), all.Distinct().Count());
        Assert.Equal(all.Length, all.Distinct().Count());
        var only = await Ann.Step(
            review,
            step,
            new
            {
                kind = "Among",
                works = Of(groups[1], "works"),
                said = "only the second",
            }
        );
        Assert.Equal(Of(groups[1], "works").Length, await Ann.Count(review, only));
        var (status, _) = await Ann.Send("GET", $"/api/reviews/{review}/steps/999999/senses");
        Assert.Equal(404, status);
    }

    [Theory]
    [InlineData("artifical light pollnation", "artificial light pollination")]
    [InlineData("\"ligth polution\"", "\"light pollution\"")]
    public async Task A_misspelt_line_is_offered_mended_with_the_count_of_the_whole_line(string typed, string meant)
    {
        var review = await Ann.Review();
        var reading = await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = typed, stepId = 0 });
        var notice = reading.List("notices").First();
        Assert.Equal("NearWords", notice.Text("kind"));
        var way = notice.List("ways").First();
        Assert.Equal(meant, way.Text("text"));
        Assert.Equal(await Ann.Count(review, await Ann.Search(review, meant)), way.Int("count"));
    }

    [Theory]
    [InlineData("", "light", -3)]
    [InlineData("light", "(((", 0)]
    [InlineData("light", "", 0)]
    [InlineData("light", "moth", 400)]
    public async Task A_trial_that_the_board_cannot_take_says_why(string text, string expression, int card)
    {
        var review = await Ann.Review();
        var (status, body) = await Ann.Send(
            "POST",
            $"/api/reviews/{review}/terms/trial",
            new
            {
                text,
                stepId = 0,
                expression,
                card,
            }
        );
        Assert.Equal(400, status);
        Assert.False(string.IsNullOrWhiteSpace(body!.Text("title")));
    }

    [Fact]
    public async Task Each_row_of_the_words_of_a_set_narrows_to_its_count()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "moth* OR bat*");
        var words = await Ann.Get($"/api/reviews/{review}/steps/{step}/words");
        Assert.Equal(await Ann.Count(review, step), words.Int("total"));
        Assert.Equal(words.Int("total") - words.Int("undated"), words.List("decades").Sum(d => d.Int("works")));
        Assert.True(words.List("terms").Count() >= 12);
        Assert.NotEmpty(words.List("methods"));
        async Task<int> Narrowed(object act) => await Ann.Count(review, await Ann.Step(review, step, act));
        foreach (var term in words.List("terms").Take(6).Concat(words.List("methods").Take(3)))
            Assert.Equal(
                (term.Text("text"), await Narrowed(new { kind = "Inside", words = new[] { term.Text("expression") } })),
                (term.Text("text"), term.Int("works"))
            );
        foreach (var pair in words.List("pairs").Take(3))
            Assert.Equal(
                await Narrowed(
                    new
                    {
                        kind = "Inside",
                        words = pair.List("expressions").Select(e => e.GetValue<string>()).ToArray(),
                    }
                ),
                pair.Int("works")
            );
        foreach (var (field, facet) in new[] { ("keywords", "Keyword"), ("countries", "Country") })
        foreach (var name in words.List(field).Take(3))
            Assert.Equal(
                await Narrowed(
                    new
                    {
                        kind = "Narrow",
                        facet,
                        values = new[] { name.Text("name") },
                        excluded = Array.Empty<string>(),
                    }
                ),
                name.Int("works")
            );

        // The table holds the same, and every row has as many cells as its head.
        var table = await Ann.Http.GetStringAsync(
            new Uri($"/api/reviews/{review}/steps/{step}/words.csv", UriKind.Relative)
        );
        var rows = table.TrimStart('\uFEFF').Split("\r\n", StringSplitOptions.RemoveEmptyEntries);
        Assert.StartsWith("kind,term,with,works,trend,", rows[0], StringComparison.Ordinal);
        Assert.All(rows, r => Assert.Equal(rows[0].Count(c => c == ','), r.Count(c => c == ',')));
        var first = words.List("terms").First();
        Assert.Contains(
            rows,
            r => r.StartsWith($"term,{first.Text("text")},,{first.Int("works")},", StringComparison.Ordinal)
        );
        Assert.Equal(404, (await Ann.Send("GET", $"/api/reviews/{review}/steps/999999/words")).Status);
    }
}
