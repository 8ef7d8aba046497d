using System.Buffers.Binary;
using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using OpenQA.Selenium;
using Zendle.Documents;
using Zendle.Documents.Pdf;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The map: looked at, picked from, gone through by keys, read as a table and taken along.</summary>
public sealed class MapScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Picture = "[role=img][aria-label*=lanes]";
    private const string Group = "[role=group][aria-label^='Map of']";

    /// <summary>Opens the map of the kept works.</summary>
    private static int Kept(Browser b)
    {
        b.Go("/r/1/map");
        b.Click("The kept works");
        var n = 0;
        b.Until(() => (n = b.All($"{Picture} [data-mark]").Count) > 0, "marks");
        Assert.Equal(SearchScreen.Kept(b), n);
        return n;
    }

    private static void Lanes(Browser b, string field) => Radio(b, "Lanes", field);

    /// <summary>Chooses one of what a part of the map's bar offers.</summary>
    private static void Radio(Browser b, string what, string chosen)
    {
        b.Until(
            () =>
            {
                if (b.All("[role=menuitemradio]").Count == 0)
                    b.On($"[aria-label^='{what}:']", e => e.SendKeys(Keys.Enter));
                return b.All("[role=menuitemradio]").Count > 0;
            },
            $"the menu {what}"
        );
        b.Click(chosen);
        b.Until(() => b.Find($"[aria-label^='{what}:']").Text == chosen, chosen);
    }

    /// <summary>Where marks stand in the window.</summary>
    private static (int Id, double X, double Y)[] Marks(Browser b) => [.. (
                (IEnumerable<object>)
                    b.Script(
                        $$"""
                        return [...document.querySelectorAll("{{Picture}} [data-mark]")].map(m => {
                          const r = m.getBoundingClientRect();
                          return m.dataset.mark + " " + (r.x + r.width / 2) + " " + (r.y + r.height / 2);
                        });
                        """
                    )!
            ).Select(o => ((string)o).Split(' ')).Select(o => (int.Parse(o[0], CultureInfo.InvariantCulture), Pixels(o[1]), Pixels(o[2])))];

    private static double Pixels(string text) => double.Parse(text, CultureInfo.InvariantCulture);

    [Fact]
    public void Works_are_picked_by_dragging_narrowed_to_and_counted_in_lanes()
    {
        using var b = world.SignedIn();
        var kept = Kept(b);
        Lanes(b, "tags");
        b.Until(() => b.All("[data-lane]").Count > 3, "lanes");
        Assert.Equal(
            kept,
            b.All("[data-lane]").Sum(l => Number(Regex.Match(l.Text, @"([\d,]+)( works?)?\s*$").Groups[1].Value))
        );
        Assert.Empty(b.AxeFindings());

        // Every mark inside the box is picked, and no other.
        var marks = Marks(b);
        var frame = b.Find(Picture).Location;
        var (left, top) = (frame.X + 250, frame.Y + 4);
        var (right, bottom) = (left + 350, top + 150);
        b.Drag((left, top), (right, bottom));
        var inside = marks
            .Where(m => m.X >= left && m.X <= right && m.Y >= top && m.Y <= bottom)
            .Select(m => m.Id)
            .Order()
            .ToArray();
        Assert.True(inside.Length > 1);
        b.Until(() => b.All($"{Picture} [data-picked]").Count == inside.Length, $"{inside.Length} picked");
        Assert.Equal(
            inside,
            b.All($"{Picture} [data-picked]").Select(p => Number(p.GetDomAttribute("data-picked")!)).Order()
        );
        b.Sees($"{inside.Length} works picked");
        b.Click("Only these");
        b.Until(() => Path(b) is [.., { Count: var n }] && n == inside.Length, "a step with these");
        b.Until(() => b.All($"{Picture} [data-mark]").Count == inside.Length, "only these on the map");
        // The list is the same set.
        b.Click("List");
        b.Until(() => InView(b) == inside.Length, "the same in the list");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Keys_go_from_work_to_work_and_along_links_and_act_on_what_they_are_at()
    {
        using var b = world.SignedIn();
        Kept(b);
        b.Script($"document.querySelector(\"{Group}\").focus()");
        b.Type(Keys.ArrowRight);
        b.Until(() => Said(b).Contains("Cites", StringComparison.Ordinal), "where the keys are");
        // Somewhere along the lane is a work with links.
        for (var i = 0; i < 12 && !Regex.IsMatch(Said(b), @"[1-9]\d* here"); i++)
        {
            var before = Said(b);
            b.Type(Keys.ArrowRight);
            b.Until(() => Said(b) != before, "the next work");
        }
        var links = Regex.Matches(Said(b), @"(\d+) here").Sum(m => Number(m.Groups[1].Value));
        Assert.Equal(links, b.All($"{Picture} [data-arc]").Count);
        var at = Said(b).Split('.')[0];
        b.Type(Keys.Tab);
        b.Until(() => Regex.IsMatch(Said(b), "^(cites|cited by) "), "the first link");
        b.Type(Keys.Enter);
        b.Until(
            () =>
                Said(b).Contains("Cites", StringComparison.Ordinal)
                && !Said(b).StartsWith(at, StringComparison.Ordinal),
            "its other end"
        );
        b.Type(" ");
        b.Until(() => b.All($"{Picture} [data-picked]").Count == 1, "one picked");
        b.Type(Keys.Enter);
        b.Until(() => b.All("aside h2").Count == 1, "the work in the pane");
        Assert.Contains(b.TextOf("aside h2"), Said(b), StringComparison.Ordinal);
        b.Type("x");
        b.Sees("Set aside, because …");
        b.Type("1");
        b.Until(() => b.All($"{Picture} [data-stage=SetAside]").Count == 1 || SearchScreen.Kept(b) == 61, "set aside");
        b.Type("u");
        b.Until(() => SearchScreen.Kept(b) == 62, "taken back");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void It_is_read_as_a_table_and_taken_along_as_picture_and_graph()
    {
        using var b = world.SignedIn();
        var kept = Kept(b);
        b.Click("Table");
        b.Until(() => b.All("table tbody tr input").Count == kept, "a row for each work");
        Assert.Empty(b.AxeFindings());
        // What is left out of the picture is left out of what is said of it.
        var first = Number(Regex.Match(b.TextOf("table:has(input) caption"), @"\d+$").Value);
        b.Click("Table");
        b.Until(() => b.All(Picture).Count == 1, "the picture again");
        Choose(b, () => b.Find("[data-lane] button"), "Leave out of the picture");
        b.Until(() => b.All($"{Picture} [data-mark]").Count == kept - first, "one lane less");
        b.Click("Table");
        b.Sees($"{kept - first} works in");
        var said = Number(Regex.Match(b.Text, @"([\d,]+) citations among them").Groups[1].Value);
        var between = b.All("[aria-label='Citations from lane to lane'] td").Sum(c => Number(c.Text));
        Assert.Equal(between, said);
        b.Click("Reset the lanes");
        b.Until(() => b.All("table tbody tr input").Count == kept, "all lanes again");
        b.Click("Table");
        b.Until(() => b.All(Picture).Count == 1, "the picture again");
        // Links from lane to lane are all the links.
        Drawn(b, "All links");
        b.Until(() => b.All($"{Picture} [data-flow]").Count > 0, "links from lane to lane");
        b.Sees(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{b.All($"{Picture} [data-flow]").Sum(f => Number(f.GetDomAttribute("data-flow")!)):N0} citations inside"
            )
        );
        Choose(b, () => b.Control("Export map"), "SVG");
        var svg = XDocument.Load(Downloaded(b, "map.svg"));
        XNamespace ns = "http://www.w3.org/2000/svg";
        Assert.Equal(kept, svg.Descendants(ns + "path").Count());
        Assert.Contains("62 works", svg.Root!.Value, StringComparison.Ordinal);
        var width = int.Parse(svg.Root.Attribute("width")!.Value.Split('.')[0], CultureInfo.InvariantCulture);
        Choose(b, () => b.Control("Export map"), "PNG");
        var png = File.ReadAllBytes(Downloaded(b, "map.png"));
        Assert.InRange(BinaryPrimitives.ReadInt32BigEndian(png.AsSpan(16)), (2 * width) - 2, (2 * width) + 2);
        Choose(b, () => b.Control("Export map"), "GraphML");
        var graph = XDocument.Load(Downloaded(b, "*.graphml"));
        Assert.Equal(kept, graph.Descendants().Count(e => e.Name.LocalName == "node"));
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_map_is_saved_with_its_folds_and_cards_and_opened_again()
    {
        using var b = world.SignedIn();
        Kept(b);
        Lanes(b, "tags");
        Choose(b, () => b.Find("[data-lane] button"), "Fold");
        b.Until(() => b.All($"{Picture} [data-mark]").Count < SearchScreen.Kept(b), "one lane folded");
        var (marks, first) = (b.All($"{Picture} [data-mark]").Count, b.TextOf("[data-lane]"));
        foreach (var box in b.All("article[data-work] input").Take(2).ToArray())
            box.Click();
        b.Click("Side by side");
        b.Until(() => b.All("[data-pin]").Count == 2, "two cards");
        string[] cards = [.. b.All("[data-pin]").Select(c => c.GetDomAttribute("data-pin")!)];
        Assert.Empty(b.AxeFindings());
        b.Click("Save map");
        b.Fill("[role=dialog] input", "Tags, without the first");
        b.Type(Keys.Enter);
        b.Sees("Tags, without the first, saved by");
        b.Sees("the set is the same today");

        b.Go("/r/1/map");
        b.Click("Tags, without the first");
        b.Until(() => b.All($"{Picture} [data-mark]").Count == marks, "the same works on the picture");
        Assert.Equal(first, b.TextOf("[data-lane]"));
        b.Until(
            () => b.All("[data-pin]").Select(c => c.GetDomAttribute("data-pin")).SequenceEqual(cards),
            "the same cards"
        );
        // What is set aside since is told where maps are listed.
        b.Press("j", "x");
        b.Sees("Set aside, because …");
        b.Type("1");
        b.Until(() => SearchScreen.Kept(b) == 61, "one less");
        b.Go("/r/1/map");
        b.Sees("since then 1 has gone");
        b.Click("Tags, without the first");
        b.Sees("Since then 1 has gone.");
        b.Press("u");
        b.Until(() => SearchScreen.Kept(b) == 62, "taken back");
        b.Go("/r/1/map");
        b.Sees("Maps of this review");
        b.Click("Remove Tags, without the first");
        b.Until(() => b.All("section[aria-label='Named maps']").Count == 0, "no map");
        b.Click("Undo");
        b.Until(() => b.All("section[aria-label='Named maps'] li").Count == 1, "the map again");
        b.Click("Remove Tags, without the first");
        b.Until(() => b.All("section[aria-label='Named maps']").Count == 0, "no map");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_paper_is_planned_on_the_map_and_cites_more_with_a_press()
    {
        using var b = world.SignedIn();
        var kept = Kept(b);
        foreach (var box in b.All("article[data-work] input").Take(3).ToArray())
            box.Click();
        b.Sees("3 works picked");
        Choose(b, () => b.Find("[aria-label^='Against:']"), "Plan a paper that cites these works");
        b.Fill("[role=dialog] input", "What lamps cost a meadow at night");
        b.Click("Add this entry");
        b.Until(() => b.All("[data-plan]").Count == 1, "the paper on the map");
        const string strip = "section[aria-label='Compared with the set']";
        b.Until(() => b.TextOf(strip).Contains($"cites 3 of {kept} works", StringComparison.Ordinal), "what it cites");
        Assert.Contains("Leaves out much-cited works", b.TextOf(strip), StringComparison.Ordinal);
        b.Click("pick them");
        b.Until(() => Regex.IsMatch(b.TextOf(strip), @"cite the \d+ picked works"), "what can be added");
        var more = Number(Regex.Match(b.TextOf(strip), @"cite the (\d+) picked works").Groups[1].Value);
        b.Click("let it cite the");
        b.Until(
            () => b.TextOf(strip).Contains($"cites {3 + more} of {kept} works", StringComparison.Ordinal),
            "that it cites more"
        );
        Assert.Empty(b.AxeFindings());
        b.Click("take it off the map");
        b.Until(() => b.All("[data-plan]").Count == 0, "no paper");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Colours_of_tags_bear_numbers_and_a_picture_is_made_to_measure_or_printed()
    {
        using var b = world.SignedIn();
        b.Before("window.print = () => { window.printed = (window.printed ?? 0) + 1; };");
        var kept = Kept(b);
        Drawn(b, "Strongest links");
        b.Until(() => b.All($"{Picture} [data-strongest]").Count > 10, "a link of each work that cites");
        Assert.True(b.All($"{Picture} [data-strongest]").Count < kept);
        Radio(b, "Colour", "tag");
        b.Until(() => b.All($"{Picture} [data-tag]").Count > 5, "numbers at marks");
        var tags = Regex.Matches(b.TextOf("[data-tags]"), @"(\d+) [^(]+\((\d+)\)");
        Assert.True(tags.Count > 1);
        // A mark bears the first of its tags: no tag stands at more marks than have it.
        foreach (Match tag in tags)
            Assert.InRange(
                b.All($"{Picture} [data-tag]").Count(t => t.GetDomAttribute("data-tag") == tag.Groups[1].Value),
                0,
                Number(tag.Groups[2].Value)
            );
        b.All("article[data-work] input")[0].Click();
        b.Sees("1 work picked");
        var name = (string)
            b.Script($"return document.querySelector(\"article[data-work] p\").textContent.split(/[,·]/)[0].trim()")!;
        Choose(b, () => b.Control("Export map"), "A picture of another size");
        b.Fill("[role=dialog] input[inputmode=numeric]", "1700");
        b.Click("SVG");
        var svg = XDocument.Load(Downloaded(b, "map.svg"));
        Assert.InRange(double.Parse(svg.Root!.Attribute("width")!.Value, CultureInfo.InvariantCulture), 1699, 1701);
        XNamespace ns = "http://www.w3.org/2000/svg";
        Assert.Contains(svg.Descendants(ns + "text"), t => t.Value.StartsWith(name, StringComparison.Ordinal));
        Assert.Contains("Colour and number: 1 ", svg.Root.Value, StringComparison.Ordinal);

        Choose(b, () => b.Control("Export map"), "PDF");
        b.Until(() => b.Script("return window.printed") is 1L, "the print dialog");
        var pdf = PdfText.Read(b.Printed(), DocumentLimits.Usual);
        Assert.Equal(1, pdf.Pages);
        Assert.Contains(
            "citations among them",
            string.Join(' ', pdf.FirstLines).Replace("  ", " ", StringComparison.Ordinal),
            StringComparison.Ordinal
        );
        b.Script("window.dispatchEvent(new Event('afterprint'))");
        Assert.Empty(b.All(".print-sheet"));
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_suggestion_that_is_taken_stays_in_its_lane_until_topics_are_found_anew()
    {
        using var b = world.SignedIn();
        var kept = Kept(b);
        b.Click("Suggest");
        b.Until(() => b.All("[data-suggested]").Count > 0, "suggestions");
        var (names, lanes) = (LaneNames(b), LanesOf(b, "mark"));
        var (taken, lane) = LanesOf(b, "suggested").First();
        // The same in the table, where each has a row of its own.
        var suggested = b.All("[data-suggested]").Count;
        b.Click("Table");
        b.Until(() => b.All("[data-suggested-row]").Count == suggested, "the suggestions as rows");
        Assert.Empty(b.AxeFindings());
        b.Click("Table");
        b.Until(() => b.All("[data-suggested]").Count == suggested, "the map again");
        b.On($"[data-suggested='{taken}']", e => e.Click());
        b.Until(() => b.All("aside h2").Count == 1, "the work in the pane");
        b.Type("p");
        b.Until(() => b.All($"{Picture} [data-mark='{taken}']").Count == 1, "the work on the map");
        b.Until(() => LanesOf(b, "mark") is { } now && now.Count == kept + 1 && now[taken] == lane, "it in its lane");
        Assert.Equal(names, LaneNames(b));
        var after = LanesOf(b, "mark");
        Assert.All(lanes, w => Assert.Equal(w.Value, after[w.Key]));
        b.Sees("1 work added since");
        b.Click("find them again");
        b.Until(() => b.All("[data-among]").Count == 0, "topics of today");
        Assert.Equal(kept + 1, b.All($"{Picture} [data-mark]").Count);
        b.Type("u");
        b.Until(() => b.All($"{Picture} [data-mark]").Count == kept, "it taken back");
        Assert.Empty(b.Complaints());
    }

    private static string[] LaneNames(Browser b) =>
        [.. b.All("[data-lane]").Select(l => l.GetDomAttribute("data-lane")!)];

    /// <summary>By id of a work: the name of the lane that its mark stands in.</summary>
    private static Dictionary<int, string> LanesOf(Browser b, string kind) => (
            (IEnumerable<object>)
                b.Script(
                    $$"""
                    const lanes = [...document.querySelectorAll("[data-lane]")].map(l => [l.dataset.lane, l.getBoundingClientRect()]);
                    return [...document.querySelectorAll("[data-{{kind}}]")].map(m => {
                      const r = m.getBoundingClientRect(), y = r.y + r.height / 2;
                      return m.dataset.{{kind}} + " " + lanes.find(([, l]) => y >= l.top && y <= l.bottom)?.[0];
                    });
                    """
                )!
        ).Select(o => ((string)o).Split(' ', 2)).ToDictionary(o => Number(o[0]), o => o[1]);

    [Fact]
    public void The_years_slider_leaves_nothing_out_where_it_is_not_shown()
    {
        using var b = world.SignedIn();
        var kept = Kept(b);
        b.On("[aria-label='Works up to the year']", e => e.SendKeys(Keys.Home));
        b.Until(() => b.All($"{Picture} [data-mark]").Count < kept, "the oldest works only");
        Radio(b, "Along", "rank by links");
        b.Until(() => b.All($"{Picture} [data-mark]").Count == kept, "all works");
        Assert.Empty(b.All("[aria-label='Works up to the year']"));
        Radio(b, "Along", "year");
        b.Until(() => b.All($"{Picture} [data-mark]").Count < kept, "the oldest works again");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_finger_draws_a_box_where_it_is_asked_to()
    {
        using var b = world.SignedIn();
        b.HasTouch();
        Kept(b);
        b.Click("Draw a box");
        var frame = b.Find(Picture).Location;
        // Away from the buttons over the columns: a finger is taken to mean what is near it.
        b.Touch((frame.X + 250, frame.Y + 60), (frame.X + 640, frame.Y + 260));
        b.Until(() => b.All($"{Picture} [data-picked]").Count > 1, "works picked by touch");
        Assert.Empty(b.Complaints());
    }

    /// <summary>Has some links drawn, or not any more.</summary>
    private static void Drawn(Browser b, string which)
    {
        b.Until(
            () =>
            {
                if (b.All("[role=menuitemcheckbox]").Count == 0)
                    b.Control("Links").SendKeys(Keys.Enter);
                return b.All("[role=menuitemcheckbox]").Count > 0;
            },
            "the menu of links"
        );
        b.Until(
            () =>
            {
                b.All("[role=menuitemcheckbox]").First(i => i.Text.StartsWith(which, StringComparison.Ordinal)).Click();
                return true;
            },
            which
        );
        b.Until(() => b.All("[role=menuitemcheckbox]").Count == 0, "the menu to close");
    }

    private static string Said(Browser b) => b.Find($"{Group} [aria-live]").GetDomProperty("textContent") ?? "";

    private static string Downloaded(Browser b, string name)
    {
        var file = "";
        b.Until(
            () =>
                Directory.GetFiles(b.Downloads, name) is [var one]
                && (file = one).Length > 0
                && new FileInfo(one).Length > 0,
            name
        );
        return file;
    }
}
