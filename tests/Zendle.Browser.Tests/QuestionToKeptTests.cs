using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The way of a researcher from a question to kept works, point by point.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class QuestionToKeptTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    [Fact]
    public async Task A_question_becomes_kept_works()
    {
        using var b = world.SignedIn();

        // 1. The line says how it reads the words; three counts, one click each; each database's share.
        b.Click("new path");
        b.Sees("Does artificial light at night change");
        b.Fill("[aria-label='Search the databases']", "street lighting moths");
        b.Sees("3 words side by side are joined by AND.");
        var ways = b.TextOf("#line-reading");
        Assert.Matches(@"all words [\d,]+\s+near [\d,]+\s+phrase [\d,]+", ways.Replace('\n', ' '));
        var near = Number(Regex.Match(ways.Replace('\n', ' '), @"near ([\d,]+)").Groups[1].Value);
        var board = b.TextOf("section[aria-label=Board]");
        Assert.Matches(@"Farnet\s+[\d,]+\s+[\d,]+", board);
        Assert.Matches(@"Meridian Citations\s+[\d,]+\s+[\d,]+", board);
        Assert.Matches(@"total from [\d,]+ records?", board);
        b.Click("near " + near.ToString("N0", CultureInfo.InvariantCulture));
        b.Until(() => InView(b) == near, "the near form's count");

        // 2. Narrowing: each act is a step; going back, branching, taking a step out of the middle.
        b.Click("new path");
        Search(b, "moth*");
        b.Until(() => Steps(b) is ["moth*"], "the first step");
        var moth = InView(b);
        b.On("[aria-label='First year']", e => e.SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, 12))));
        b.Until(
            () => Steps(b).Length >= 2 && Steps(b)[1].StartsWith("from ", StringComparison.Ordinal),
            "the years as a step"
        );
        var years = InView(b);
        Assert.True(years <= moth);
        Search(b, "moth* AND light");
        b.Until(() => Steps(b)[^1] == "+ light", "the added part");
        b.Click("Type");
        b.Until(
            () =>
            {
                b.On("ul[aria-label=Type] input[type=checkbox]", e => e.Click());
                return true;
            },
            "the first type"
        );
        b.Click("Narrow");
        b.Until(() => Steps(b)[^1] == "article", "the type as a step");
        b.Click("more");
        b.Click("Language");
        b.Click("exclude English");
        b.Click("Narrow");
        b.Until(() => Steps(b)[^1] == "without English", "the excluded language as a step");
        b.Back();
        b.Until(
            () => b.TextOf("[aria-current=step]").StartsWith("article", StringComparison.Ordinal),
            "Back to go back a step"
        );
        b.Click("Words inside");
        b.Fill("#inside", "field*");
        b.Type(Keys.Enter);
        b.Until(() => Steps(b)[^1] == "inside: field*", "words inside as a step");
        var stepsBefore = Steps(b);
        Assert.Equal(["moth*", stepsBefore[1], "+ light", "article", "inside: field*"], stepsBefore);
        b.Press("j", "j", "j");
        b.Until(() => b.All("[aria-current='true']").Count == 1, "a work in view");
        var inView = InView(b);
        b.On($"section[aria-label=Path] li:nth-child(3) > button", e => e.Click());
        b.Until(
            () => b.TextOf("[aria-current=step]").StartsWith("+ light", StringComparison.Ordinal),
            "two steps back"
        );
        Assert.Equal(5, Steps(b).Length); // what lies ahead is still there
        b.On("section[aria-label=Path] li:nth-child(5) > button", e => e.Click());
        b.Until(
            () => InView(b) == inView && b.All("[aria-current='true']").Count == 1,
            "the list as it was, with its work"
        );
        b.Until(
            () =>
            {
                b.On("[aria-label='More about the step + light']", e => e.SendKeys(Keys.Enter));
                return true;
            },
            "the step's menu"
        );
        b.Click("Remove this step");
        b.Until(
            () => Steps(b).SequenceEqual(["moth*", stepsBefore[1], "article", "inside: field*"]),
            "the step to be gone and the others to stay"
        );
        Assert.Equal("moth*", b.Find("[aria-label='Search the databases']").GetDomProperty("value"));

        // 3. Reading: by keyboard, with marks, hit strip, citations; sorting.
        Search(b, "moth* AND (light OR lamp*) AND pollinat*");
        b.Until(() => Steps(b)[^1].StartsWith("+ (light OR lamp*)", StringComparison.Ordinal), "the search");
        b.NextWork();
        b.Until(() => b.All("aside mark").Count > 0, "marks in the pane");
        var first = Current(b);
        b.Press("j");
        b.Until(() => Current(b) != first, "the next work");
        b.Press("k");
        b.Until(() => Current(b) == first, "the one before");
        Assert.Matches(@"cited in (Farnet|Meridian Citations)", b.TextOf("aside"));
        Assert.Contains("per year", b.TextOf("aside"), StringComparison.Ordinal);
        Assert.Matches(@"records? describes? it", b.TextOf("aside"));
        Assert.Contains("Full text", b.TextOf("aside"), StringComparison.Ordinal);
        Assert.NotNull(b.Find("article svg[aria-label^='terms found in']"));
        b.Click("by relevance");
        b.Click("cited");
        b.Until(() => b.Address.Contains("sort=Cited", StringComparison.Ordinal), "the order in the address");
        b.Until(
            () =>
            {
                var c = b.All("article b[title^='cited by']").Take(5).Select(e => Number(e.Text)).ToArray();
                return c.Length == 5 && c.SequenceEqual(c.OrderDescending());
            },
            "the most cited first"
        );

        // 4. Keeping, setting aside, tagging, taking back.
        b.Click("new path");
        Search(b, "lamp* AND (bats OR birds OR songbirds)");
        b.Until(() => Steps(b).Length == 1, "a new path");
        var kept = Kept(b);
        b.Press("j", "p");
        b.Until(() => Kept(b) == kept + 1, "one kept by key");
        b.NextWork();
        b.Click("Keep P");
        b.Until(() => Kept(b) == kept + 2, "one kept by mouse");
        b.Click("Keep the first …");
        b.Fill("#first-n", "5");
        b.Click("Keep 5 works");
        b.Until(() => Kept(b) == kept + 5, "the first five kept");
        b.Press("u");
        b.Until(() => Kept(b) == kept + 2, "one act taken back");
        b.Press("u", "u");
        b.Until(() => Kept(b) == kept, "both taken back");
        b.Click("Keep the first …");
        b.Fill("#first-n", "5");
        b.Click("Keep 5 works");
        b.Until(() => Kept(b) == kept + 5, "five kept");
        foreach (var _ in Enumerable.Range(0, 5))
            b.Press("j");
        b.Press("x");
        b.Sees("Set aside, because …");
        b.Type("2");
        b.Sees("set aside: ");
        b.SeesNot("Set aside, because …");
        b.Press("k", "t");
        b.Fill("[aria-label='New tag']", "hedgerows");
        b.Type(Keys.Enter);
        b.Sees("Tagged 1 work “hedgerows”.");
        b.Type(Keys.Escape);
        b.SeesNot("Tags sort the works of a review");
        b.Press("k", "t");
        b.Until(
            () =>
            {
                b.All("[role=dialog] label")
                    .First(l => l.Text.StartsWith("hedgerows", StringComparison.Ordinal))
                    .Click();
                return true;
            },
            "the tag to tick"
        );
        b.Type(Keys.Escape);
        b.SeesNot("Tags sort the works of a review");
        b.Until(() => b.All("article span").Count(s => s.Text == "hedgerows") == 2, "two works tagged");
        b.Click("judged");
        b.Sees("judged, hidden");
        b.Until(() => b.All("article svg[aria-label=kept]").Count == 0, "the judged ones hidden");

        // The kept ones are a set like any other. 5. They go out in one act.
        b.Press("g", "k");
        b.Until(() => InView(b) == kept + 5, "the kept set");
        foreach (
            var (name, ending) in new[] { ("RIS", "ris"), ("BibTeX", "bib"), ("CSL-JSON", "json"), ("CSV", "csv") }
        )
        {
            b.Click("Export");
            b.Click(name);
            b.Until(
                () =>
                    Directory
                        .GetFiles(
                            b.Downloads,
                            $"street-lighting-and-night-pollination_kept_{kept + 5}-works_*.{ending}"
                        )
                        .Length == 1,
                $"the file in {name}"
            );
        }

        // 6. The log.
        b.Press("g", "r");
        b.Sees("Search log");
        b.Sees("lamp* AND (bats OR birds OR songbirds)");
        b.Click("exploration");
        b.Until(() => b.All("button[aria-pressed=true]").Count == 3, "one more of record");
        b.Until(
            () =>
            {
                b.All("ol > li")
                    .First(l => l.Text.Contains("(bats OR birds", StringComparison.Ordinal))
                    .FindElements(By.TagName("button"))
                    .Last()
                    .Click();
                return true;
            },
            "to run it again"
        );
        b.Until(() => Steps(b) is ["lamp* AND (bats OR birds OR songbirds)"], "the search run again");

        // Reload at any point and the same is on screen.
        b.NextWork();
        var (address, heading) = (b.Address, b.TextOf("aside h2"));
        b.Reload();
        b.Until(() => b.TextOf("aside h2") == heading, "the same work after a reload");
        Assert.Equal(address, b.Address);

        // 7. A database by its address; again and only what changed.
        b.Press("g", "d");
        b.Click("Add a database by its address");
        b.Fill("input[placeholder^='https://']", world.Outside.Oai("union"));
        b.Click("Check the address");
        b.Sees("Union of Shelves");
        b.Sees("Formats, compared on their first");
        Assert.Equal(["mods", "oai_dc"], b.All("input[name=format]").Select(o => o.GetAttribute("value")).Order());
        b.Click("Add and harvest");
        b.Until(
            () =>
                b.All("ul > li")
                    .Any(l =>
                        l.Text.StartsWith("Union of Shelves", StringComparison.Ordinal)
                        && l.Text.Contains("records new or changed", StringComparison.Ordinal)
                        && l.Text.Contains("harvest now", StringComparison.Ordinal)
                    ),
            "the harvest to end"
        );
        await world.Outside.Move(30);
        b.Until(
            () =>
            {
                b.All("ul > li")
                    .First(l => l.Text.StartsWith("Farnet", StringComparison.Ordinal))
                    .FindElements(By.TagName("button"))
                    .First(button => button.Text == "harvest now")
                    .Click();
                return true;
            },
            "to harvest again"
        );
        b.Until(
            () =>
                Regex.Match(
                    b.All("ul > li").First(l => l.Text.StartsWith("Farnet", StringComparison.Ordinal)).Text,
                    @"\n(\d+) records new or changed"
                )
                    is { Success: true } m
                && Number(m.Groups[1].Value) is > 0 and < 200,
            "only what changed"
        );
        // By itself from now on.
        b.Click("Harvest Farnet: by hand only");
        b.Click("every night");
        b.Until(() => b.All("button[aria-label='Harvest Farnet: every night']").Count == 1, "the schedule to be set");
        b.Reload();
        b.Until(() => b.All("button[aria-label='Harvest Farnet: every night']").Count == 1, "the schedule kept");
        b.Press("g", "s");
        b.Find("article[data-work]");
        b.Press("b");
        Assert.Contains("Union of Shelves", b.TextOf("section[aria-label=Board]"), StringComparison.Ordinal);
        Assert.Empty(b.Complaints());
    }
}
