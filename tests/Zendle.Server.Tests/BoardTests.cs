using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>The board over HTTP: its counts are what searches find, its acts give the line they say.</summary>
public sealed class BoardTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private async Task<JsonNode[]> Board(int review, string text) =>
        [.. (await Ann.Ok("POST", $"/api/reviews/{review}/reading", new { text, stepId = 0 })).List("board")];

    private async Task<int> Found(int review, string expression) =>
        await Ann.Count(review, await Ann.Search(review, expression));

    private async Task<HashSet<int>> Works(int review, string expression)
    {
        var (step, works) = (await Ann.Search(review, expression), new HashSet<int>());
        for (var offset = 0; offset < await Ann.Count(review, step); offset += 200)
            works.UnionWith(await Ann.Works(review, step, $"offset={offset}&limit=200"));
        return works;
    }

    private static object Edit(
        string kind,
        int card,
        int term = -1,
        string text = "",
        int to = 0,
        string scope = "About",
        int? near = null
    ) =>
        new
        {
            kind,
            card,
            term,
            text,
            to,
            scope,
            near,
        };

    [Fact]
    public async Task Every_number_on_the_board_is_what_a_search_finds()
    {
        var review = await Ann.Review();
        var cards = await Board(review, "(moth* OR bat*) AND title:(light* OR lamp*) AND year:1990-2020");
        Assert.Equal(
            [("Concept", "A", "about"), ("Concept", "B", "title"), ("Limit", null, "about")],
            cards.Select(c => (c.Text("kind"), c["letter"]?.GetValue<string>(), c.Text("scope")))
        );
        Assert.Equal(await Found(review, "moth* OR bat*"), cards[0].Int("count"));
        Assert.Equal(await Found(review, "title:(light* OR lamp*)"), cards[1].Int("count"));
        Assert.Equal(await Found(review, "year:1990-2020"), cards[2].Int("count"));
        var rows = cards[0].List("rows").ToArray();
        Assert.Equal(["moth*", "bat*"], rows.Select(r => r.Text("text")));
        Assert.Equal([await Found(review, "moth*"), await Found(review, "bat*")], rows.Select(r => r.Int("count")));
        Assert.Equal(await Found(review, "title:lamp*"), cards[1].List("rows").Last().Int("count"));
        var whole = await Works(review, "(moth* OR bat*) AND title:(light* OR lamp*) AND year:1990-2020");
        Assert.Equal(
            whole.Except(await Works(review, "bat* AND title:(light* OR lamp*) AND year:1990-2020")).Count(),
            rows[0].Int("onlyIt")
        );
        Assert.Equal(
            whole.Except(await Works(review, "(moth* OR bat*) AND title:light* AND year:1990-2020")).Count(),
            cards[1].List("rows").Last().Int("onlyIt")
        );
    }

    [Fact]
    public async Task Without_says_what_it_takes_away_what_of_it_is_kept_and_what_stays_through_another_record()
    {
        var review = await Ann.Review();
        var (all, left) = (await Works(review, "moth*"), await Works(review, "moth* AND NOT (street* OR bird*)"));
        var gone = all.Except(left).ToArray();
        Assert.True(gone.Length > 3, "the world has moths in streets");
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = gone[..2] });
        var card = (await Board(review, "moth* AND NOT (street* OR bird*)"))[^1];
        Assert.Equal(("Without", gone.Length), (card.Text("kind"), card.Int("count")));
        var rows = card.List("rows").ToDictionary(r => r.Text("text"));
        var byStreet = (await Works(review, "moth* AND NOT bird*")).Except(left).ToArray();
        Assert.Equal(byStreet.Length, rows["street*"].Int("onlyIt"));
        Assert.Equal(gone[..2].Intersect(byStreet).Count(), rows["street*"].Int("keptHit"));
        Assert.Equal((await Works(review, "street*")).Intersect(left).Count(), rows["street*"].Int("stays"));
    }

    [Fact]
    public async Task What_is_no_list_of_terms_stands_as_one_block_with_its_count()
    {
        var review = await Ann.Review();
        var card = (await Board(review, "(moth* AND lamp*) OR bat*")).Single();
        Assert.Equal(
            ("Block", await Found(review, "(moth* AND lamp*) OR bat*")),
            (card.Text("kind"), card.Int("count"))
        );
        Assert.Equal("((moth* AND lamp*) OR bat*)", card.List("rows").Single().Text("text"));
        Assert.Empty(await Board(review, ""));
    }

    [Fact]
    public async Task An_act_gives_the_new_line_and_searches_nothing()
    {
        var review = await Ann.Review();
        async Task<string> After(string text, object edit) =>
            (await Ann.Ok("POST", $"/api/reviews/{review}/reading/board", new { text, edit })).Text("text");
        Assert.Equal("(moth* OR bat*) AND lamp*", await After("moth* AND lamp*", Edit("Add", 0, text: "bat*")));
        Assert.Equal("moth* AND lamp* AND NOT bird*", await After("moth* AND lamp*", Edit("Add", -1, text: "bird*")));
        Assert.Equal("moth* AND (lamp* OR bat*)", await After("(moth* OR bat*) AND lamp*", Edit("Move", 0, 1, to: 1)));
        Assert.Equal("title:moth*", await After("moth*", Edit("Scope", 0, scope: "Title")));
        Assert.Equal("(moth* NEAR/3 lamp*)", await After("moth* OR lamp*", Edit("Near", 0, near: 3)));
        Assert.Empty((await Ann.Get($"/api/reviews/{review}/log"))["runs"]!.AsArray());
    }

    [Fact]
    public async Task An_act_that_cannot_be_done_is_refused_with_a_sentence()
    {
        var review = await Ann.Review();
        foreach (
            var (edit, says) in new[]
            {
                (Edit("Add", 0, text: "a AND b"), "A row holds one term"),
                (Edit("Remove", 9, 3), "The board has changed"),
                (Edit("Near", 0, near: 99), "is 0 to 50"),
            }
        )
        {
            var (status, body) = await Ann.Send(
                "POST",
                $"/api/reviews/{review}/reading/board",
                new { text = "moth*", edit }
            );
            Assert.Equal(400, status);
            Assert.Contains(says, body!.Text("title"), StringComparison.Ordinal);
        }
        Assert.Equal(
            400,
            (
                await Ann.Send(
                    "POST",
                    $"/api/reviews/{review}/reading/board",
                    new { text = "moth*", edit = new { kind = "Nothing" } }
                )
            ).Status
        );
    }

    [Fact]
    public async Task The_without_card_counts_a_work_once_however_many_of_its_terms_take_it()
    {
        var review = await Ann.Review();
        // Both terms stand in every work about street lights, so neither takes a work away alone and the card takes
        // them all.
        const string line = "moth* AND NOT (street* OR \"street light*\" OR lamp*)";
        var (all, left) = (await Works(review, "moth*"), await Works(review, line));
        var gone = all.Except(left).ToArray();
        var kept = gone.Take(5).ToArray();
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", works = kept });
        var card = (await Board(review, line))[^1];
        Assert.Equal((gone.Length, kept.Length), (card.Int("count"), card.Int("keptHit")));
        var rows = card.List("rows").ToArray();
        Assert.Equal(0, rows.Single(r => r.Text("text") == "\"street light*\"").Int("onlyIt"));
        Assert.True(rows.Sum(r => r.Int("keptHit")) <= card.Int("keptHit"));
        Assert.Equal(
            (await Works(review, "street* OR \"street light*\" OR lamp*")).Intersect(left).Count(),
            card.Int("stays")
        );
        // They can be dropped too: a step that leaves out what any record of has one of the terms.
        var step = await Ann.Search(review, line);
        var dropped = await Ann.Step(
            review,
            step,
            new
            {
                kind = "Compare",
                apart = true,
                said = "no record with them",
                other = new object[] { new { kind = "Search", expression = "street* OR \"street light*\" OR lamp*" } },
            }
        );
        Assert.Equal(left.Count - card.Int("stays"), await Ann.Count(review, dropped));
    }

    [Fact]
    public async Task A_board_of_nothing_but_without_counts_from_everything()
    {
        var review = await Ann.Review();
        var card = (await Board(review, "NOT moth*")).Single();
        // Of the works with such a record those stay that another record describes without the word.
        Assert.Equal(
            ("Without", await Found(review, "moth*") - card.Int("stays")),
            (card.Text("kind"), card.Int("count"))
        );
        Assert.Equal(await Found(review, "") - card.Int("count"), await Found(review, "NOT moth*"));
    }

    [Fact]
    public async Task Ninety_terms_are_laid_out_and_the_first_eighty_are_counted()
    {
        var review = await Ann.Review();
        var line = string.Join(" OR ", Enumerable.Range(0, 90).Select(i => $"word{i}").Prepend("moth*"));
        var card = (await Board(review, line)).Single();
        Assert.Equal((await Found(review, "moth*"), 80), (card.Int("count"), card.List("rows").Count()));
        Assert.Equal(card.Int("count"), card.List("rows").First().Int("onlyIt"));
    }
}
