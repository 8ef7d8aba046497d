using System.Buffers.Binary;
using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The map: looked at, picked from, gone through by keys, read as a table and taken along.</summary>
public sealed class MapScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Picture = "svg[aria-label*=lanes]";
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

    private static void Lanes(Browser b, string field)
    {
        b.Until(
            () =>
            {
                if (b.All("[role=menuitemradio]").Count == 0)
                    b.Find("[aria-label^='Lanes:']").SendKeys(Keys.Enter);
                return b.All("[role=menuitemradio]").Count > 0;
            },
            "the menu of lanes"
        );
        b.Click(field);
        b.Until(() => b.Find("[aria-label^='Lanes:']").Text == field, field);
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
            ).Select(o => ((string)o).Split(' ')).Select(o => (int.Parse(o[0], CultureInfo.InvariantCulture), double.Parse(o[1], CultureInfo.InvariantCulture), double.Parse(o[2], CultureInfo.InvariantCulture)))];

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
        b.Click("Lanes as they were");
        b.Until(() => b.All("table tbody tr input").Count == kept, "all lanes again");
        b.Click("Table");
        b.Until(() => b.All(Picture).Count == 1, "the picture again");
        // Links from lane to lane are all the links.
        b.Click("All links");
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
