using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>People are found by any form of their names, offered as persons, and stay who they are.</summary>
public sealed class PeopleTests : OddHost
{
    private static string Work(int id, string people, string subject = "Moth ecology") =>
        OddService.Dc(
            id,
            $"<dc:title>Moths of place {id} and their lamps</dc:title>"
                + string.Concat(people.Split("; ").Select(p => $"<dc:creator>{p}</dc:creator>"))
                + $"<dc:date>20{id:00}</dc:date><dc:subject>{subject}</dc:subject><dc:source>Night Letters; Vol. {id} "
                + $"(20{id:00}); 4-9</dc:source>"
        );

    private Task Serve(params string[] records)
    {
        odd.Page = _ => OddService.Around(string.Concat(records));
        return ann.Harvest(odd.Address);
    }

    private async Task<JsonNode> Persons(int review, string line)
    {
        var reading = await ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = line, stepId = 0 });
        return reading.List("notices").Single(n => n.Text("kind") == "Persons");
    }

    [Fact]
    public async Task The_persons_behind_a_name_are_offered_and_taking_one_finds_what_was_said()
    {
        await Serve(
            Work(10, "Iwasfield, Kwame; Falk, Ida"),
            Work(11, "Iwasfield, K.; Falk, Ida"),
            Work(12, "Iwasfield, K. B.; Falk, Ida"),
            Work(13, "Iwasfield, Maria; Vik, Ada", "Road safety"),
            Work(14, "Falk, Ida")
        );
        var review = await ann.Review();
        foreach (
            var (line, works) in new[]
            {
                ("author:\"Kwame Iwasfield\"", 3),
                ("author:\"K Iwasfield\"", 3),
                ("author:Iwasfield", 4),
                ("author:\"Iwasfield, M\"", 1),
            }
        )
            Assert.Equal(works, await ann.Count(review, await ann.Search(review, line)));
        var notice = await Persons(review, "author:\"Kwame Iwasfield\" AND moths");
        Assert.NotEmpty(notice.List("ways"));
        foreach (var way in notice.List("ways"))
        {
            Assert.DoesNotContain("Maria", way.Text("label"), StringComparison.Ordinal);
            Assert.StartsWith("person:\"Iwasfield, K", way.Text("text"), StringComparison.Ordinal);
            Assert.EndsWith(" AND moths", way.Text("text"), StringComparison.Ordinal);
            var taken = await ann.Search(review, way.Text("text"));
            Assert.Equal(way.Int("count"), await ann.Count(review, taken));
            Assert.True(way.Int("count") > 0);
        }
        Assert.Equal(2, (await Persons(review, "author:Iwasfield")).List("ways").Count(w => true));
    }

    [Fact]
    public async Task A_line_that_is_a_name_is_searched_as_words_and_offered_as_a_name()
    {
        await Serve(
            Work(10, "Iwasfield, Kwame; Falk, Ida"),
            Work(11, "Iwasfield, K.; Falk, Ida"),
            Work(13, "Iwasfield, Maria; Vik, Ada", "Road safety")
        );
        var review = await ann.Review();
        async Task<JsonNode?> Typed(string line) =>
            (await ann.Ok("POST", $"/api/reviews/{review}/reading", new { text = line, stepId = 0 }))
                .List("notices")
                .SingleOrDefault(n => n.Text("kind") == "TypedName");
        foreach (
            var (line, anyone) in new[]
            {
                ("Kwame Iwasfield", 2),
                ("Iwasfield, Kwame", 2),
                ("Iwasfield K", 2),
                ("Iwasfield", 3),
            }
        )
        {
            var notice = await Typed(line);
            Assert.NotNull(notice);
            var ways = notice.List("ways").ToArray();
            Assert.Equal(("anyone of this name", anyone), (ways[0].Text("label"), ways[0].Int("count")));
            Assert.True(ways.Length > 1);
            foreach (var way in ways)
                Assert.Equal(way.Int("count"), await ann.Count(review, await ann.Search(review, way.Text("text"))));
        }
        // Words, operators and fields are no names, nor is a name of nobody.
        foreach (
            var line in (string[])["iwasfield", "moths lamps", "Iwasfield AND moths", "author:Iwasfield", "Berg Lind"]
        )
            Assert.Null(await Typed(line));
    }

    [Fact]
    public async Task A_narrowing_to_a_person_holds_when_a_harvest_tells_more_of_the_name()
    {
        await Serve(Work(10, "Iwasfield, K.; Falk, Ida"), Work(11, "Iwasfield, K.; Falk, Ida"));
        var review = await ann.Review();
        var all = await ann.Search(review, "moths");
        var narrowed = await ann.Step(
            review,
            all,
            new
            {
                kind = "Narrow",
                facet = "Person",
                values = new[] { "Iwasfield, K." },
            }
        );
        Assert.Equal(2, await ann.Count(review, narrowed));
        odd.Page = _ =>
            OddService.Around(
                string.Concat(
                    Work(10, "Iwasfield, Kwame; Falk, Ida"),
                    Work(11, "Iwasfield, K.; Falk, Ida"),
                    Work(12, "Iwasfield, Kwame; Falk, Ida"),
                    Work(13, "Iwasfield, Maria; Vik, Ada", "Road safety")
                )
            );
        await ann.Ok("POST", "/api/databases/1/harvest", new { });
        await ann.Ended(1);
        var facet = await ann.Get($"/api/reviews/{review}/steps/{all}/facets/Person");
        var today = facet
            .List("shown")
            .Select(v => v.Text("value"))
            .Where(v => v.StartsWith("Iwas", StringComparison.Ordinal));
        Assert.DoesNotContain("Iwasfield, K.", today);
        Assert.Equal(3, await ann.Count(review, narrowed));
        host = host.Restarted();
        ann = await (await host.Served()).SignedIn();
        Assert.Equal(3, await ann.Count(review, narrowed));
    }
}
