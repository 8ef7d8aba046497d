using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>Who cites a name, recounted from trails of the person's works and from reference lists.</summary>
public sealed class CitersTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private Task<JsonNode> Names(int review, string name) =>
        Ann.Get($"/api/reviews/{review}/cited-names?name={Uri.EscapeDataString(name)}");

    private static string[] Labels(JsonNode names) => [.. names.List("persons").Select(p => p.Text("label"))];

    private static string[] Prints(JsonNode names) => [.. names.List("printed").Select(p => p.Text("name"))];

    /// <summary>A family name by which people are known here and references that match nothing are printed.</summary>
    private async Task<(int Review, string Family, JsonNode Names)> Known()
    {
        var review = await Ann.Review();
        var step = await Ann.Follow(
            review,
            "Backward",
            await Ann.Works(review, await Ann.Search(review, "light OR moth*"), "sort=Cited&limit=200")
        );
        foreach (
            var text in (await Ann.Get($"/api/reviews/{review}/steps/{step}/unmatched"))
                .List("references")
                .Select(r => r["reference"]!.Text("text"))
        )
            if (
                text.Split(',', ' ')[0] is { Length: > 3 } family
                && family.All(char.IsLetter)
                && await Names(review, family) is var names
                && names.Int("personCount") > 1
                && names.Int("printedCount") > 0
            )
                return (review, family, names);
        throw new InvalidOperationException("Nobody is both known here and printed.");
    }

    [Fact]
    public async Task What_cites_a_name_is_what_cites_each_persons_works_and_prints_the_name()
    {
        var (review, family, names) = await Known();
        var (persons, printed) = (Labels(names), Prints(names));
        // By hand: the works of each person, and what cites them.
        var (by, citing) = (new HashSet<int>(), new HashSet<int>());
        foreach (var person in names.List("persons"))
        {
            var works = await Ann.AllWorks(review, await Ann.Search(review, $"person:\"{person.Text("label")}\""));
            Assert.Equal(works.Count, person.Int("works"));
            var cited = await Ann.AllWorks(review, await Ann.Follow(review, "Forward", [.. works]));
            Assert.Equal(cited.Count, person.Int("citedBy"));
            by.UnionWith(works);
            citing.UnionWith(cited);
        }
        // And the works whose lists print the name in a reference that means no work.
        var lists = await Task.WhenAll(
            (await Ann.AllWorks(review, await Ann.Search(review, ""))).Select(async work =>
                (work, (await Ann.Get($"/api/reviews/{review}/works/{work}/references")).List("references").ToArray())
            )
        );
        var printing = lists
            .Where(l =>
                l.Item2.Any(r =>
                    r["workId"] is null && r.Text("text").Contains(family, StringComparison.OrdinalIgnoreCase)
                )
            )
            .Select(l => l.work)
            .ToHashSet();

        async Task<HashSet<int>> Citing(string[] people, string[] prints) =>
            await Ann.AllWorks(
                review,
                await Ann.Step(
                    review,
                    0,
                    new
                    {
                        kind = "Citers",
                        name = family,
                        persons = people,
                        printed = prints,
                    }
                )
            );
        Assert.Equal(citing.Order(), (await Citing(persons, [])).Order());
        Assert.Equal(printing.Order(), (await Citing([], printed)).Order());
        var both = await Citing(persons, printed);
        Assert.Equal(citing.Union(printing).Order(), both.Order());

        var counted = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/cited-names/count",
            new
            {
                name = family,
                persons,
                printed,
            }
        );
        Assert.Equal((both.Count, both.Count(by.Contains)), (counted.Int("with"), counted.Int("only")));
    }

    [Fact]
    public async Task Self_citations_stand_apart_and_the_step_is_one_like_any_other()
    {
        var (review, family, names) = await Known();
        var step = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Citers",
                name = family,
                persons = Labels(names),
                printed = Prints(names),
            }
        );
        var all = await Ann.AllWorks(review, step);
        var (without, only) = (
            await Ann.Step(review, step, new { kind = "Self", self = "Without" }),
            await Ann.Step(review, step, new { kind = "Self", self = "Only" })
        );
        var (others, own) = (await Ann.AllWorks(review, without), await Ann.AllWorks(review, only));
        Assert.Empty(others.Intersect(own));
        Assert.Equal(all.Order(), others.Union(own).Order());
        var told = await Ann.Get($"/api/reviews/{review}/steps/{without}/citers");
        Assert.Equal((all.Count, others.Count, own.Count), (told.Int("with"), told.Int("without"), told.Int("only")));
        // Narrowed, on the path, kept, logged and read again.
        var inside = await Ann.Step(
            review,
            without,
            new { kind = "Inside", words = new[] { "light OR lamp* OR moth*" } }
        );
        var narrowed = await Ann.AllWorks(review, inside);
        Assert.True(narrowed.IsSubsetOf(others));
        Assert.Equal(narrowed.Count, (await Ann.Get($"/api/reviews/{review}/steps/{inside}/citers")).Int("without"));
        Assert.Equal(
            [$"what cites {family}", "without self-citations", "inside: light OR lamp* OR moth*"],
            (await Ann.Get($"/api/reviews/{review}/steps/{inside}/path")).List("steps").Select(s => s.Text("label"))
        );
        await Ann.Ok("POST", $"/api/reviews/{review}/decisions", new { act = "Keep", stepId = inside });
        var run = (await Ann.Get($"/api/reviews/{review}/log")).List("runs").First();
        Assert.Equal(
            (family, "Without"),
            (run["state"]!["citers"]!.Text("name"), run["state"]!["citers"]!.Text("self"))
        );
        var again = await Ann.Ok("POST", $"/api/reviews/{review}/log/{run.Int("id")}/again");
        Assert.Equal(narrowed, await Ann.AllWorks(review, again.Int("stepId")));
    }

    [Theory]
    [InlineData("", 400)]
    [InlineData("12 ***", 400)]
    [InlineData("*", 400)]
    [InlineData("Zzyzx, Q", 200)]
    [InlineData("\"((", 400)]
    public async Task A_name_that_nobody_has_or_that_is_none_is_said(string name, int status)
    {
        var review = await Ann.Review();
        var (got, body) = await Ann.Send("GET", $"/api/reviews/{review}/cited-names?name={Uri.EscapeDataString(name)}");
        Assert.Equal(status, got);
        if (status == 200)
            Assert.Equal((0, 0), (body!.Int("personCount"), body!.Int("printedCount")));
    }

    [Fact]
    public async Task A_name_without_variants_makes_no_step()
    {
        var review = await Ann.Review();
        var (status, body) = await Ann.Send(
            "POST",
            $"/api/reviews/{review}/steps",
            new
            {
                parentId = 0,
                act = new
                {
                    kind = "Citers",
                    name = "Berg",
                    persons = Array.Empty<string>(),
                    printed = Array.Empty<string>(),
                },
            }
        );
        Assert.Equal((400, "No variant of the name is ticked."), (status, body!.Text("title")));
    }
}
