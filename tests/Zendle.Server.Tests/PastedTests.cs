using System.Globalization;
using System.Text.Json.Nodes;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>References that are pasted into a review lead to the works they mean, and say where that is in doubt.</summary>
public sealed class PastedTests(Harvested world) : IClassFixture<Harvested>
{
    private Visitor Ann => world.Ann;

    private sealed record Known(int Id, string Title, string Family, string Given, int Year, string? Doi);

    /// <summary>Works of the corpus that have title, person and year, and are the only ones with their title.</summary>
    private async Task<(int Review, Known[] Works)> Works()
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR lamp* OR moth*");
        var works = new List<Known>();
        foreach (var id in (await Ann.Works(review, step, "limit=120")))
        {
            var work = await Ann.Get($"/api/reviews/{review}/works/{id}");
            var person = work.List("people").FirstOrDefault();
            if (person is null || work["year"] is null || work.Text("type") is not "article")
                continue;
            var title = work["title"] is JsonObject marked ? marked.Text("text") : work.Text("title");
            works.Add(
                new(id, title, person.Text("family"), person.Text("given"), work.Int("year"), (string?)work["doi"])
            );
        }
        return (review, [.. works.GroupBy(w => w.Title).Where(g => g.Count() == 1).Select(g => g.First())]);
    }

    private async Task<JsonNode[]> Paste(int review, params string[] lines) =>
        [.. (await Ann.Ok("POST", $"/api/reviews/{review}/pasted", new { lines })).List("references")];

    [Fact]
    public async Task References_of_any_style_lead_to_their_works()
    {
        var (review, works) = await Works();
        Assert.True(works.Length > 30, $"{works.Length}");
        string[] styles =
        [
            "{1}, {2} ({3}). {0}. Some Journal, 4, 10-20.",
            "{1} {4}. {0}. Some J. {3};4:10-20.",
            "[7] {1} {4}: {0}. Some Journal 4 ({3}), pp. 10–20.",
            "{1}, {2}. “{0}.” Some Journal 4 ({3}): 10–20.",
        ];
        var lines = works
            .Select(
                (w, i) =>
                    string.Format(
                        CultureInfo.InvariantCulture,
                        styles[i % styles.Length],
                        w.Title,
                        w.Family,
                        w.Given,
                        w.Year,
                        w.Given.Length > 0 ? w.Given[..1] : ""
                    )
            )
            .ToArray();
        var found = (await Task.WhenAll(lines.Select(l => Paste(review, l)))).Select(f => f.Single()).ToArray();
        var sure = works.Zip(found).Where(p => p.Second.Text("verdict") == "Sure").ToArray();
        // Who is called sure is right, and most are sure; of the others the right one stands among those offered.
        Assert.All(sure, p => Assert.Equal(p.First.Id, p.Second.List("candidates").Single().Int("workId")));
        Assert.True(sure.Length >= works.Length * 0.9, $"{sure.Length} of {works.Length}");
        Assert.All(
            works.Zip(found),
            p => Assert.Contains(p.First.Id, p.Second.List("candidates").Select(c => c.Int("workId")))
        );
    }

    [Fact]
    public async Task What_is_in_doubt_says_what_differs_and_what_is_not_here_says_so()
    {
        var (review, works) = await Works();
        var work = works[0];
        foreach (var one in works)
            if (await Ann.Count(review, await Ann.Search(review, $"title:\"{one.Title}\"")) == 1)
            {
                work = one;
                break;
            }
        var found = await Paste(
            review,
            $"Nobody, X. ({work.Year + 5}). {work.Title}. Some Journal, 4, 10-20.",
            "Nobody, X. (1871). The migration of brass ornaments in provincial theatres. Quarterly of Curtains, 4, 10-20.",
            work.Title,
            $"{work.Title}. Q. Curtains 1871; 4: 10–20",
            $"Nobody X, Noone Y. {work.Title}: a reply to nobody. Curtains 1871."
        );
        Assert.Equal("ToConfirm", found[0].Text("verdict"));
        var first = found[0].List("candidates").First();
        Assert.Equal(work.Id, first.Int("workId"));
        Assert.Contains($"its year is {work.Year}", first["why"]!.AsArray().Select(w => (string)w!));
        Assert.Contains(first["why"]!.AsArray(), w => ((string)w!).Contains("first author", StringComparison.Ordinal));
        Assert.Equal("NotHere", found[1].Text("verdict"));
        Assert.Empty(found[1].List("candidates"));
        // A title alone is found too.
        Assert.Equal(["Sure", "ToConfirm", "ToConfirm"], found[2..].Select(f => f.Text("verdict")));
        Assert.All(found[2..], f => Assert.Equal(work.Id, f.List("candidates").First().Int("workId")));
    }

    [Fact]
    public async Task A_doi_in_any_shape_is_sure_and_the_list_becomes_a_set()
    {
        var (review, works) = await Works();
        var known = works.Where(w => w.Doi is not null).Take(4).ToArray();
        var found = await Paste(
            review,
            $"doi:{known[0].Doi}",
            $"https://doi.org/{known[1].Doi}",
            known[2].Doi!.ToUpperInvariant(),
            $"Available at http://dx.doi.org/{known[3].Doi}."
        );
        Assert.Equal(known.Select(k => k.Id), found.Select(f => f.List("candidates").Single().Int("workId")));
        Assert.All(found, f => Assert.Equal("Sure", f.Text("verdict")));
        var step = await Ann.Step(
            review,
            0,
            new
            {
                kind = "Among",
                works = known.Select(k => k.Id),
                said = "4 pasted references",
            }
        );
        Assert.Equal(4, await Ann.Count(review, step));
    }

    [Fact]
    public async Task Titles_a_line_each_are_works_each_though_nothing_stands_between_them()
    {
        var (review, works) = await Works();
        var known = works.Take(12).ToArray();
        // As printed, in capitals, cut short, and with lines that no work here has.
        var found = await Paste(review, [.. known.Select(w => w.Title)]);
        Assert.Equal(known.Select(w => w.Id), found.Select(f => f.List("candidates").First().Int("workId")));
        found = await Paste(review, [.. known.Select(w => w.Title.ToUpperInvariant())]);
        Assert.Equal(known.Select(w => w.Id), found.Select(f => f.List("candidates").First().Int("workId")));
        string[] mixed =
        [
            .. known.Zip(
                Enumerable.Range(0, 12),
                (w, i) => i % 3 == 2 ? $"The migration of brass ornaments in provincial theatres, act {i}" : w.Title
            ),
        ];
        found = await Paste(review, mixed);
        Assert.Equal(mixed, found.Select(f => f.Text("text")));
        Assert.Equal(
            known.Where((_, i) => i % 3 != 2).Select(w => w.Id),
            found.Where((_, i) => i % 3 != 2).Select(f => f.List("candidates").First().Int("workId"))
        );
    }

    [Fact]
    public async Task References_that_are_broken_at_a_margin_stay_whole()
    {
        var (review, works) = await Works();
        var known = works.Where(w => w.Title.Length > 50).Take(8).ToArray();
        var found = await Paste(
            review,
            [
                .. known.SelectMany(w =>
                    (string[])
                        [
                            $"{w.Family}, {w.Given}. ({w.Year}). {w.Title[..w.Title.LastIndexOf(' ')]}",
                            $"{w.Title[(w.Title.LastIndexOf(' ') + 1)..]}. Some Journal, 4, 10-20.",
                        ]
                ),
            ]
        );
        Assert.Equal(known.Select(w => w.Id), found.Select(f => f.List("candidates").First().Int("workId")));
    }

    [Fact]
    public async Task A_table_leads_to_its_works_by_the_names_of_its_columns()
    {
        var (review, works) = await Works();
        var known = works.Take(10).ToArray();
        var found = await Paste(
            review,
            [
                "No\tYear\tAuthors\tTitle",
                .. known.Select((w, i) => $"{i + 1}\t{w.Year}\t{w.Family}, {w.Given}\t{w.Title}"),
            ]
        );
        Assert.Equal(known.Select(w => w.Id), found.Select(f => f.List("candidates").First().Int("workId")));
        Assert.True(found.Count(f => f.Text("verdict") == "Sure") >= 9);
    }

    [Fact]
    public async Task A_name_and_a_year_offer_what_they_may_mean_with_how_many()
    {
        var (review, works) = await Works();
        var work = works.First(w => w.Family.All(char.IsLetter) && char.IsUpper(w.Family[0]));
        var all = await Ann.AllWorks(
            review,
            await Ann.Search(review, $"author:\"{work.Family}\" AND year:{work.Year}")
        );
        foreach (
            var line in (string[])
                [
                    $"{work.Family} {work.Year}",
                    $"{work.Family} et al. ({work.Year})",
                    $"({work.Family} et al., {work.Year}a)",
                ]
        )
        {
            var found = Assert.Single(await Paste(review, line));
            Assert.Equal("ToConfirm", found.Text("verdict"));
            var candidates = found.List("candidates").ToArray();
            Assert.Equal(Math.Min(3, all.Count), candidates.Length);
            Assert.All(candidates, c => Assert.Contains(c.Int("workId"), all));
            Assert.All(candidates, c => Assert.Null(c["likeness"]));
            Assert.Equal(
                all.Count == 1
                    ? $"the only work by {work.Family} in {work.Year} here"
                    : $"one of {all.Count} works by {work.Family} in {work.Year} here",
                (string?)candidates[0]["why"]![0]
            );
        }
        Assert.Equal("NotHere", Assert.Single(await Paste(review, "Nobodyatall 1871")).Text("verdict"));
    }

    [Theory]
    [InlineData("ris")]
    [InlineData("bibtex")]
    [InlineData("csl-json")]
    public async Task A_file_of_references_leads_to_the_works_it_was_made_of(string format)
    {
        var review = await Ann.Review();
        var step = await Ann.Search(review, "light OR lamp* OR moth*");
        var file = await Ann.Http.GetStringAsync($"/api/reviews/{review}/export?format={format}&stepId={step}");
        var works = await Ann.AllWorks(review, step);
        var found = await Paste(review, file.Split('\n'));
        Assert.Equal(works.Count, found.Length);
        var sure = found.Where(f => f.Text("verdict") == "Sure").ToArray();
        // Works that differ in nothing a file can say (two reports of one title, say) are asked for.
        Assert.True(sure.Length >= 0.97 * works.Count, $"{sure.Length} of {works.Count}");
        Assert.Equal(
            sure.Length,
            sure.Select(f => f.List("candidates").Single().Int("workId")).Intersect(works).Count()
        );
    }

    [Fact]
    public async Task What_a_file_says_of_a_work_that_is_not_here_fills_its_entry()
    {
        var review = await Ann.Review();
        string[] lines =
        [
            "@techreport{brass1871,",
            "  author = {N{\\o}body, Xenia and Noone, Yves}, year = 1871,",
            "  title = {The migration of brass ornaments in provincial theatres}, institution = {Bureau of Curtains},",
            "  abstract = {Where ornaments went, and why.}, keywords = {brass, theatres}",
            "}",
        ];
        var found = Assert.Single(await Paste(review, lines));
        Assert.Equal("NotHere", found.Text("verdict"));
        Assert.Equal(
            "Nøbody, Xenia, Noone, Yves (1871). The migration of brass ornaments in provincial theatres. Bureau of Curtains.",
            found.Text("text")
        );
        var fields = found["fields"]!;
        Assert.Equal(
            ("report", "Nøbody, Xenia\nNoone, Yves", "Where ornaments went, and why.", "brass; theatres"),
            (fields.Text("type"), fields.Text("people"), fields.Text("abstract"), fields.Text("keywords"))
        );
        // The form of an entry reads the same file.
        var read = await Ann.Ok("POST", "/api/entries/read", new { texts = new[] { string.Join('\n', lines) } });
        Assert.Equal(fields.ToJsonString(), read[0]!.ToJsonString());
    }

    [Fact]
    public async Task Nothing_and_far_too_much_are_answered()
    {
        var review = await Ann.Review();
        Assert.Empty(await Paste(review));
        Assert.Empty(await Paste(review, "", "  "));
        var many = await Ann.Ok(
            "POST",
            $"/api/reviews/{review}/pasted",
            new
            {
                lines = Enumerable
                    .Range(1, 3_200)
                    .Select(i => $"[{i}] Nobody, X. (1871). Brass {i}. Curtains, 4, {i}."),
            }
        );
        Assert.Equal(3_000, many.List("references").Count());
        Assert.True(many["isCut"]!.GetValue<bool>());
        Assert.Equal(2_800, many.Int("notLookedFor"));
    }
}
