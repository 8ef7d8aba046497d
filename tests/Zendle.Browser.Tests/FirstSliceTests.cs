using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>The way of a researcher from a question to kept works, point by point.</summary>
public sealed partial class FirstSliceTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private static int InView(Browser b)
    {
        var n = 0;
        b.Until(
            () =>
            {
                var m = WorksCount().Match(b.Find("section[aria-label=Narrow]").Text);
                n = m.Success ? Number(m.Groups[1].Value) : -1;
                return m.Success;
            },
            "the count"
        );
        return n;
    }

    private static int Number(string text) =>
        int.Parse(text.Replace(",", "", StringComparison.Ordinal), CultureInfo.InvariantCulture);

    private static int Kept(Browser b) => Number(Regex.Match(b.Find("header").Text, @"([\d,]+) kept").Groups[1].Value);

    private static string[] Steps(Browser b) =>
        [
            .. b.All("section[aria-label=Path] li")
                .Where(l => l.Text.Contains('\n'))
                .Select(l => l.Text.Split('\n')[0].Trim()),
        ];

    private static void Search(Browser b, string line)
    {
        b.Fill("[aria-label='Search the databases']", line);
        b.Type(Keys.Enter);
        b.Until(
            () =>
                b.Find("[aria-label='Search the databases']").GetDomProperty("value") is { Length: > 0 }
                && b.All("section[aria-label=Path] [aria-current=step]").Count == 1,
            "the step"
        );
    }

    private static string Current(Browser b) => b.Find("[aria-current='true']").FindElement(By.TagName("h3")).Text;

    [Fact]
    public async Task The_whole_first_slice()
    {
        using var b = world.SignedIn();

        // 1. The line says how it reads the words; three counts, one click each; each database's share.
        b.Click("new path");
        b.Sees("Does artificial light at night change");
        b.Fill("[aria-label='Search the databases']", "street lighting moths");
        b.Sees("3 words side by side are joined by AND.");
        var ways = b.Find("#line-reading").Text;
        Assert.Matches(@"all words [\d,]+\s+near [\d,]+\s+phrase [\d,]+", ways.Replace('\n', ' '));
        var near = Number(Regex.Match(ways.Replace('\n', ' '), @"near ([\d,]+)").Groups[1].Value);
        var board = b.Find("section[aria-label=Board]").Text;
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
        b.Find("[aria-label='First year']").SendKeys(string.Concat(Enumerable.Repeat(Keys.ArrowRight, 12)));
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
                b.Find("ul[aria-label=Type] input[type=checkbox]").Click();
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
            () => b.Find("[aria-current=step]").Text.StartsWith("article", StringComparison.Ordinal),
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
        b.Find($"section[aria-label=Path] li:nth-child(3) > button").Click();
        b.Until(
            () => b.Find("[aria-current=step]").Text.StartsWith("+ light", StringComparison.Ordinal),
            "two steps back"
        );
        Assert.Equal(5, Steps(b).Length); // what lies ahead is still there
        b.Find("section[aria-label=Path] li:nth-child(5) > button").Click();
        b.Until(
            () => InView(b) == inView && b.All("[aria-current='true']").Count == 1,
            "the list as it was, with its work"
        );
        b.Until(
            () =>
            {
                b.Find("[aria-label='More about the step + light']").SendKeys(Keys.Enter);
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
        b.Press("j");
        b.Until(() => b.All("aside mark").Count > 0, "marks in the pane");
        var first = Current(b);
        b.Press("j");
        b.Until(() => Current(b) != first, "the next work");
        b.Press("k");
        b.Until(() => Current(b) == first, "the one before");
        Assert.Matches(@"cited in (Farnet|Meridian Citations)", b.Find("aside").Text);
        Assert.Contains("per year", b.Find("aside").Text, StringComparison.Ordinal);
        Assert.Matches(@"records? describes? it", b.Find("aside").Text);
        Assert.Contains("Full text", b.Find("aside").Text, StringComparison.Ordinal);
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
        b.Press("j");
        b.Until(() => b.Find("aside").Text.Contains("Keep", StringComparison.Ordinal), "the next in the pane");
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
        b.SeesNot("A tag sorts the review");
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
        b.SeesNot("A tag sorts the review");
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
        b.Press("j");
        b.Until(() => b.Address.Contains("work=", StringComparison.Ordinal), "the work in the address");
        var (address, heading) = (b.Address, b.Find("aside h2").Text);
        b.Reload();
        b.Until(() => b.Find("aside h2").Text == heading, "the same work after a reload");
        Assert.Equal(address, b.Address);

        // 7. A database by its address; again and only what changed.
        b.Press("g", "d");
        b.Click("Add a database by its address");
        b.Fill("input[placeholder^='https://']", world.Outside.Oai("union"));
        b.Click("Check the address");
        b.Sees("Union of Shelves");
        b.Sees("records of each tell");
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
                    .Last()
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
        b.Press("g", "s");
        b.Find("article[data-work]");
        b.Press("b");
        Assert.Contains("Union of Shelves", b.Find("section[aria-label=Board]").Text, StringComparison.Ordinal);
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_new_review_from_nothing_the_password_and_the_way_out()
    {
        using var b = world.SignedIn();
        b.Go("/reviews");
        b.Fill("form input[maxlength='200']", "Hedges and hawkmoths");
        b.Click("Begin");
        b.Sees("Type a few words");
        b.Fill("input[maxlength='2000']", "Do hedges lead hawkmoths to flowers?");
        b.Click("Write it down");
        b.Until(
            () => b.All("p").Any(p => p.Text == "Do hedges lead hawkmoths to flowers?"),
            "the question written down"
        );
        Search(b, "hawkmoth*");
        Assert.Equal(["hawkmoth*"], Steps(b));

        b.Click("Account");
        b.Fill("input[autocomplete='current-password']", "night garden 26");
        b.Fill("form:has([autocomplete='current-password']) input[autocomplete='new-password']", "another garden 27");
        b.Click("Change the password");
        b.Sees("The password is changed.");
        b.Click("Sign out");
        b.Sees("Sign in");
        b.Go("/r/1/search");
        b.Sees("Look around as the demo researcher");
        b.Fill("[autocomplete=username]", "demo");
        b.Fill("[autocomplete='current-password']", "another garden 27");
        b.Click("Sign in");
        b.Find("article[data-work]");
        b.Go("/account");
        b.Fill("input[autocomplete='current-password']", "another garden 27");
        b.Fill("form:has([autocomplete='current-password']) input[autocomplete='new-password']", "night garden 26");
        b.Click("Change the password");
        b.Sees("The password is changed.");
    }

    [Fact]
    public void Two_tabs_on_one_work_both_see_it()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        Search(b, "skyglow AND cloud*");
        b.Press("j");
        b.Until(() => b.Address.Contains("work=", StringComparison.Ordinal), "a work");
        var path = new Uri(b.Address).PathAndQuery;
        var first = b.NewTab(path);
        var second = b.Tab;
        b.Find("aside h2");
        b.Press("p");
        b.Until(() => b.All("article[aria-current=true] svg[aria-label=kept]").Count == 1, "kept in the second tab");
        b.SwitchTo(first);
        b.Until(() => b.All("article[aria-current=true] svg[aria-label=kept]").Count == 1, "kept in the first tab too");
        b.Press("u");
        b.Until(() => b.All("article[aria-current=true] svg[aria-label=found]").Count == 1, "taken back");
        b.SwitchTo(second);
        b.Until(
            () => b.All("article[aria-current=true] svg[aria-label=found]").Count == 1,
            "taken back in the second tab too"
        );
    }

    [Fact]
    public void A_slip_in_the_line_is_told_and_mended_and_the_last_good_list_stays()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        Search(b, "moth*");
        var before = InView(b);
        b.Fill("[aria-label='Search the databases']", "moth* AND (light");
        b.Sees("A parenthesis opens at 11 and never closes.");
        b.Type(Keys.Enter);
        b.Until(() => b.Find("[role=status]").Text.Contains("never closes", StringComparison.Ordinal), "the refusal");
        Assert.Equal(before, InView(b));
        b.Click("close it at the end");
        b.Until(
            () => b.Find("[aria-label='Search the databases']").GetDomProperty("value") == "moth* AND (light)",
            "the repair"
        );
        b.Fill("[aria-label='Search the databases']", "titel:moth");
        b.Sees("The nearest is title");
        Search(b, "nosuchword*");
        b.Sees("No work matches all of this.");
        b.Click("Back to the previous step");
        b.Until(() => InView(b) == before, "the list as it was");
    }

    [Fact]
    public void A_line_that_finds_nothing_says_why_and_leads_on()
    {
        const string Line = "[aria-label='Search the databases']";
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "light AND xylomorphic AND moth*");
        b.Sees("“xylomorphic” is in no title, abstract or keyword.");
        b.Look("nothing");
        Assert.Empty(b.AxeFindings());
        var way = b.Control("without xylomorphic");
        var brings = Number(Regex.Match(way.Text, @"[\d,]+$").Value);
        Assert.True(brings > 0);
        way.Click();
        b.Until(() => InView(b) == brings, "as many works as the offer said");
        // Ways of writing from elsewhere are taken, and said.
        b.Fill(Line, "light -bird lamp(s) type:reviews");
        b.Sees("The minus at 7 is read as NOT.");
        b.Sees("“lamp(s)” at 13 is read as lamp or lamps.");
        b.Look("dialect");
        b.Fill(Line, "kw:moth");
        b.Sees("The nearest is keywords.");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_pasted_title_offers_its_work()
    {
        using var b = world.SignedIn();
        b.Press("j");
        var title = b.Find("aside h2").Text;
        b.Click("new path");
        b.Fill("[aria-label='Search the databases']", title);
        b.Sees("One work has this title:");
    }

    [Fact]
    public void A_long_line_written_fast_keeps_every_letter()
    {
        using var b = world.SignedIn();
        b.Go("/r/1/search?step=0");
        var line = string.Join(' ', Enumerable.Repeat("moths and the light of verges", 8));
        var field = b.Find("[aria-label='Search the databases']");
        field.SendKeys(line);
        Assert.Equal(line, field.GetDomProperty("value"));
        Assert.Empty(b.Complaints());
    }

    [GeneratedRegex(@"([\d,]+)\s+works?\b")]
    private static partial Regex WorksCount();

    [Fact]
    public void Records_are_compared_split_off_with_a_preview_and_put_together_again()
    {
        using var b = world.SignedIn();
        b.Go("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "database:meridian AND moth*");
        b.Type(Keys.Enter);
        b.Until(() => b.All("article[data-work]").Count > 3, "works");
        // The first work that several records describe.
        for (var i = 0; i < 8; i++)
        {
            b.Press("j");
            b.Until(() => b.All("aside h2").Count == 1, "the pane");
            if (b.Find("aside").Text.Contains("records describe it", StringComparison.Ordinal))
                break;
        }
        b.Click("Compare them side by side");
        b.Until(() => b.All("[role=dialog] table tbody tr").Count > 6, "the fields");
        var columns = b.All("[role=dialog] thead th").Count;
        Assert.True(columns > 1);
        var dialog = b.Find("[role=dialog]").Text;
        Assert.Contains("Why they are one work", dialog, StringComparison.Ordinal);
        Assert.Matches("same (title|identifier)", dialog);

        b.All("[role=dialog] thead input[type=checkbox]")[columns - 1].Click();
        b.Click("Split off the ticked records");
        b.Until(
            () =>
                b.Find("section[aria-label='Preview']")
                    .Text.Contains("The result would be 2 works", StringComparison.Ordinal),
            "the preview"
        );
        Assert.Contains("a work of its own", b.Find("section[aria-label='Preview']").Text, StringComparison.Ordinal);
        b.Click("Split them off");
        b.Sees("Split. Later harvests keep it so.");
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet gone");
        b.Until(
            () => !b.Find("aside").Text.Contains($"{columns} records describe it", StringComparison.Ordinal),
            "one record fewer"
        );
        b.Click("Undo");
        b.Sees("The records are unchanged.");
        b.Until(
            () => b.Find("aside").Text.Contains($"{columns} records describe it", StringComparison.Ordinal),
            "as before"
        );
    }
}
