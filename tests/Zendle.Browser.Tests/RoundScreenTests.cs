using System.Text.RegularExpressions;
using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>A round begun from the kept works, triaged by keyboard, and what it says of what is missing.</summary>
public sealed class RoundScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    private const string Strip = "section[aria-label=Rounds]";

    private static int Told(Browser b, string what)
    {
        var n = -1;
        b.Until(
            () =>
                Regex.Match(b.TextOf(Strip), @"([\d,]+) " + what) is { Success: true } m
                && (n = Number(m.Groups[1].Value)) >= 0,
            what
        );
        return n;
    }

    [Fact]
    public void A_round_is_begun_triaged_by_keyboard_and_counted()
    {
        using var b = world.SignedIn("/r/1/trails?step=0");
        b.Click("First round, from");
        b.Sees("Candidates are what 62 works cite");
        b.Click("Begin round 1");
        b.Sees("Candidates of round 1");
        var candidates = InView(b);
        Assert.Equal((candidates, candidates), (Told(b, "new"), Told(b, "left")));
        b.Until(() => b.All("article[data-work]").Count > 3, "the candidates");
        Assert.Matches(@"cite[sd] .*seed", b.TextOf("article[data-work]"));

        // Keep one, set one aside, pass one over: each says so, and none is left to be looked at.
        b.NextWork();
        b.Press("p");
        b.Sees("Kept 1 work.");
        var kept = Current(b);
        // In one breath: what was gone to is meant, even before the page shows it.
        b.Press("j");
        b.Press("x");
        b.Sees("Set aside, because …");
        b.Type("2");
        b.SeesNot("Set aside, because …");
        b.Until(() => Current(b) is var now && now != kept && b.TextOf("aside h2") == now, "the next candidate");
        b.Until(
            () => b.TextOf("aside[aria-label=Work]").Contains("not a study of its own", StringComparison.Ordinal),
            "the one set aside"
        );
        foreach (var _ in Enumerable.Range(0, 2))
        {
            var before = Current(b);
            b.Press("j");
            b.Until(() => Current(b) is var now && now != before && b.TextOf("aside h2") == now, "the next work read");
        }
        b.Until(
            () => b.All("article[data-work]").Any(r => r.Text.Contains("seen", StringComparison.Ordinal)),
            "one seen"
        );
        b.Until(() => Told(b, "left") == candidates - 3, "three less");
        b.Until(() => Told(b, "kept") == 1, "one kept");
        b.Look("round");
        Assert.Empty(b.AxeFindings());

        b.Click("Is it enough?");
        b.Sees($"There is no estimate while {candidates - 3:N0} candidates are not looked at.");
        b.Sees("What still arrived: the last round brought 1 work worth keeping");
        Assert.Empty(b.AxeFindings());
        b.Type(Keys.Escape);

        // The work that was kept starts the next round; it is remembered after a reload, and the log has both.
        b.Reload();
        b.Until(() => Told(b, "left") == candidates - 3, "still three less");
        b.Click("Round 2: 1 kept since");
        b.Click("Begin round 2");
        b.Sees("Candidates of round 2");
        b.Until(
            () => Path(b) is [{ Label: var l }] && l.StartsWith("round 2 from ", StringComparison.Ordinal),
            "its step"
        );
        b.Go("/r/1/report");
        b.Sees("round 2: trails of 1 work");
        b.Sees("round 1: trails of 62 works");
        Assert.Empty(b.Complaints());
    }
}
