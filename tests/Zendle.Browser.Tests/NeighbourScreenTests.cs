using System.Text.RegularExpressions;
using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Neighbours of works: found by key, narrowed by reason and amount, each told with its evidence.</summary>
public sealed class NeighbourScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Kinds = "[aria-label='What they have in common']";

    /// <summary>The number on a control that begins with some words.</summary>
    private static int On(Browser b, string group, string words)
    {
        var n = -1;
        b.Until(
            () =>
                Regex.Match(b.TextOf(group), words + @"\s+([\d,]+)") is { Success: true } m
                && (n = Number(m.Groups[1].Value)) >= 0,
            words
        );
        return n;
    }

    private static void Toggle(Browser b, string words) =>
        b.Until(
            () =>
            {
                b.All($"{Kinds} button").Single(k => k.Text.StartsWith(words, StringComparison.Ordinal)).Click();
                return true;
            },
            words
        );

    [Fact]
    public void Neighbours_of_a_work_are_found_by_key_and_told_in_numbers()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        Search(b, "light AND moth*");
        b.Press("j", "=");
        b.Until(
            () =>
                b.Address.Contains("/trails?step=", StringComparison.Ordinal)
                && Path(b) is [{ Label: var l, Count: > 0 }]
                && l.StartsWith("neighbours of ", StringComparison.Ordinal),
            "the neighbours"
        );
        var all = InView(b);
        var references = On(b, Kinds, "shared references");
        b.Until(() => b.All("article[data-work]").Count > 2, "the list");
        Assert.Matches(
            @"\d+ shared references?|cited together|\d+ shared (terms|people)|shared person",
            b.TextOf("article[data-work]")
        );

        // The numbers of the row are those of the evidence, which opens.
        b.Press("j", Keys.Enter);
        var said = Regex.Match(b.TextOf("article[aria-current=true]"), @"([\d,]+) shared references?");
        b.Sees("In common with the seed");
        if (said.Success)
        {
            b.Click(said.Value);
            b.Until(
                () => b.All("[aria-label='In common with the seeds'] li").Count == Number(said.Groups[1].Value),
                "the references"
            );
        }
        b.Look("neighbours");
        Assert.Empty(b.AxeFindings());

        // A reason alone brings what it said it would; so does a level.
        b.Press(Keys.Escape);
        foreach (var other in new[] { "cited together", "shared terms", "shared people" })
            if (
                b.All($"{Kinds} button[aria-pressed=true]").Any(k => k.Text.StartsWith(other, StringComparison.Ordinal))
            )
            {
                Toggle(b, other);
                b.Until(
                    () =>
                        b.All($"{Kinds} button[aria-pressed=false]")
                            .Any(k => k.Text.StartsWith(other, StringComparison.Ordinal)),
                    "one reason less"
                );
            }
        b.Until(() => InView(b) == references, "as many as shared references bring");
        Assert.True(references <= all);
        var two = Number(
            b.All("[aria-label='In common at least'] button")
                .First(l => l.Text.Contains("2+", StringComparison.Ordinal))
                .Text.Split(' ')[0]
        );
        b.All("[aria-label='In common at least'] button")
            .First(l => l.Text.Contains("2+", StringComparison.Ordinal))
            .Click();
        b.Until(() => InView(b) == two, "two or more in common");
        b.Until(() => Path(b)[^1].Label == "2 or more in common", "the step");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Seeds_tell_their_neighbours_beside_their_trails_and_weights_change_the_order()
    {
        using var b = world.SignedIn("/r/1/trails?step=0");
        b.Until(() => b.Text.Contains("Trails start from works", StringComparison.Ordinal), "the start");
        b.All("button").First(k => k.Text.StartsWith("Follow the ", StringComparison.Ordinal)).Click();
        b.Until(() => b.All("[aria-label=Neighbours] li").Count == 4, "neighbours beside the trails");
        var people = On(b, "[aria-label=Neighbours]", "shared people");
        b.Click("shared people");
        b.Until(() => InView(b) == people, "as many as were promised");
        b.Click("neighbours"); // what is shown already stays
        Toggle(b, "shared terms");
        b.Until(() => InView(b) > people, "terms as well");
        string First() => b.Find("article[data-work] h3").Text;
        var first = First();
        b.Click("weights");
        b.Until(() => b.All("[aria-labelledby=weight-SharedPeople]").Count == 1, "the weights");
        Assert.Empty(b.AxeFindings());
        b.On("[aria-labelledby=weight-SharedTerms]", e => e.SendKeys(Keys.Home));
        b.Until(() => First() != first, "another order");
        b.On("[aria-labelledby=weight-SharedTerms]", e => e.SendKeys(Keys.Escape));
        b.Reload();
        b.Click("weights");
        b.Until(
            () => b.Find("[aria-labelledby=weight-SharedTerms]").GetDomAttribute("aria-valuenow") == "0",
            "the review keeps the weights"
        );
        b.Click("reset the weights");
        b.Until(
            () => b.Find("[aria-labelledby=weight-SharedTerms]").GetDomAttribute("aria-valuenow") == "10",
            "reset the weights"
        );
        b.On("[aria-labelledby=weight-SharedTerms]", e => e.SendKeys(Keys.Escape));
        // A list as seeds: as many as it has.
        b.Click("Follow");
        b.Click("What cites them");
        b.Until(
            () => Path(b) is [{ Label: var l }] && l.StartsWith("what cites ", StringComparison.Ordinal),
            "what cites the neighbours"
        );
        b.Back();
        b.Until(() => b.All(Kinds).Count == 1, "the neighbours again");
        // Back to the trails of the same seeds.
        b.Click("both ways");
        b.Until(
            () => Path(b) is [{ Label: var l }] && l.StartsWith("both ways from ", StringComparison.Ordinal),
            "the trails"
        );
        Assert.Empty(b.Complaints());
    }
}
