using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>
/// What a search lets one see through, by mouse and by key: ways on, words behind a truncation, sets behind numbers,
/// branches, steps changed, named searches.
/// </summary>
public sealed partial class FirstSliceTests
{
    private static (string Label, int Count)[] Path(Browser b) =>
        [
            .. b.All("section[aria-label=Path] li")
                .Where(l => l.Text.Contains('\n'))
                .Select(l => l.Text.Split('\n'))
                .Select(l => (l[0].Trim(), Number(l[1].Trim()))),
        ];

    private static void Searched(Browser b, string line)
    {
        b.Click("new path");
        b.Fill(Line, line);
        b.Type(Keys.Enter);
        b.Until(() => Path(b) is [var one] && one.Label == line, "the step");
    }

    private static void OnStep(Browser b, string label, string act)
    {
        b.Until(
            () =>
            {
                b.Control($"More about the step {label}").Click();
                return b.All("[role=menu]").Count > 0;
            },
            "the step's menu"
        );
        b.Click(act);
    }

    [Fact]
    public void A_line_goes_on_by_key_and_a_wide_truncation_shows_its_words()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "light AND mot");
        b.Until(
            () => b.All("#line-goes-on [role=option]").Any(o => o.Text.StartsWith("moths", StringComparison.Ordinal)),
            "ways on"
        );
        b.Type(Keys.ArrowDown);
        b.Until(() => b.All("#line-goes-on [aria-selected=true]").Count == 1, "the first way");
        var first = b.Find("#line-goes-on [aria-selected=true]").Text.Split(' ', '\n')[0];
        b.Type(Keys.Enter);
        b.Until(() => LineOf(b) == $"light AND {first}", "the word in the line");
        Assert.Empty(Path(b)); // nothing was searched

        b.Fill(Line, "mot* AND light");
        b.Sees("mot* stands for");
        b.Click("see them all");
        b.Until(() => b.All("ul[aria-label=Words] label").Count >= 3, "the words");
        var out_ = b.All("ul[aria-label=Words] label").First(l => !l.Text.StartsWith("moth", StringComparison.Ordinal));
        out_.Click();
        b.Until(
            () => b.Find("[role=dialog] [role=status]").Text.Contains("in place of", StringComparison.Ordinal),
            "the term written anew"
        );
        var without = b.Find("[role=dialog] [role=status] span").Text;
        b.Click("Apply");
        b.Until(
            () => Path(b) is [var one] && one.Label.Contains(without, StringComparison.Ordinal),
            "the step with the term written anew"
        );
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Typing_never_waits_and_newer_words_give_up_what_older_ones_asked()
    {
        using var b = world.SignedIn();
        b.Before(
            """
            window.asked = [];
            const real = window.fetch;
            window.fetch = (request, more) => {
              if (request.url?.includes("/reading")) {
                const one = { givenUp: false };
                window.asked.push(one);
                request.signal?.addEventListener("abort", () => (one.givenUp = true));
              }
              return real(request, more);
            };
            """
        );
        b.Go("/r/1/search?step=0");
        b.Find(Line).Click();
        b.Slow(TimeSpan.FromSeconds(1));
        const string Words = "moth* AND lamp*";
        b.TypeSlowly(Words, TimeSpan.FromMilliseconds(200));
        Assert.Equal(Words, LineOf(b)); // all letters stand there though no answer to the last ones can have come
        b.Until(
            () => b.Find("section[aria-label='Search line']").Text.Contains(" work", StringComparison.Ordinal),
            "what the line would find"
        );
        Assert.True(
            (long)b.Script("return window.asked.filter(a => a.givenUp).length")! > 3,
            "older questions are given up"
        );
        var found = (string)
            b.Script(
                "return fetch('/api/me').then(r => r.json()).then(me => fetch('/api/reviews/1/reading', { "
                    + "method: 'POST', headers: { 'Content-Type': 'application/json', 'X-Zendle-Token': "
                    + "me.requestToken }, body: JSON.stringify({ text: arguments[0], stepId: 0 }) })).then(r => "
                    + "r.json()).then(r => String(r.inView))",
                Words
            )!;
        b.Until(
            () =>
                b.Find("section[aria-label='Search line']")
                    .Text.Replace(",", "", StringComparison.Ordinal)
                    .Contains($"{found} work", StringComparison.Ordinal),
            $"{found} to come"
        );
    }

    [Fact]
    public void Every_number_of_the_ledger_and_the_board_opens_its_set()
    {
        using var b = world.SignedIn();
        Searched(b, "moth* AND (light OR lamp*)");
        if (b.All("section[aria-label=Board]").Count == 0)
            b.Press("b");
        b.Until(() => b.All("section[aria-label=Board] table tbody tr").Count >= 6, "the ledger");
        // The extract stands inside what contains it.
        var names = b.All("section[aria-label=Board] table label").Select(l => l.Text.Trim()).ToArray();
        Assert.Equal(Array.IndexOf(names, "Lifeleaf Index") + 1, Array.IndexOf(names, "Lifeleaf Select"));
        foreach (
            var which in new[]
            {
                "works that only ",
                "works that Meridian Citations finds",
                "works that only lamp* brings in",
                "works that lamp* finds",
            }
        )
        {
            b.Until(() => b.All($"section[aria-label=Board] button[aria-label*='{which}']").Count > 0, which);
            var number = b.All($"section[aria-label=Board] button[aria-label*='{which}']")[0];
            var said = Number(number.Text.TrimStart('−'));
            number.Click();
            b.Until(() => Path(b) is [.., var last] && last.Count == said, $"{said} works behind “{which}”");
            b.Until(() => InView(b) == said, "as many in the list");
            b.Back();
            b.Until(() => Path(b) is [var one] && one.Label == "moth* AND (light OR lamp*)", "back");
        }
        b.Click("kept work");
        b.Sees("Kept, but not found");
        Assert.Matches(@"^[AB]\s*\S.* \d+ \d+", b.Find("[role=dialog] table tbody").Text);
        var missed = Number(Regex.Match(b.Find("[role=dialog] h2").Text, @"\d+").Value);
        b.Click("Show them as a list");
        b.Until(() => Path(b) is [("kept, but not found", var n)] && n == missed, "those works");
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_path_branches_is_compared_changed_and_saved_under_a_name()
    {
        using var b = world.SignedIn();
        Searched(b, "light");
        var light = Path(b)[0].Count;
        b.Fill(Line, "light AND moth*");
        b.Type(Keys.Enter);
        b.Until(() => Path(b) is [_, ("+ moth*", > 0)], "a part added");
        var moths = Path(b)[1].Count;
        b.Until(
            () =>
            {
                b.All("section[aria-label=Path] li button")[0].Click();
                return InView(b) == light;
            },
            "the first step again"
        );
        b.Fill(Line, "light AND bat*");
        b.Type(Keys.Enter);
        b.Until(() => Path(b) is [_, ("+ bat*", > 0)], "a branch");
        var bats = Path(b)[1].Count;

        OnStep(b, "+ bat*", "+ moth* …");
        b.Sees("Compare two steps");
        b.Until(() => b.All("[role=dialog] li b").Count == 3, "three parts");
        var parts = b.All("[role=dialog] li b").Select(e => Number(e.Text)).ToArray();
        Assert.Equal((bats, moths), (parts[0] + parts[1], parts[1] + parts[2]));
        b.Click("only in “+ bat*”");
        b.Until(() => Path(b) is [_, _, ("not in “+ moth*”", var n)] && n == parts[0], "only what is here");

        // The step in the middle is changed where it stands; what follows is counted again.
        OnStep(b, "+ bat*", "Change this step …");
        b.Fill("[role=dialog] input", "bird*");
        b.Click("Change it");
        b.Until(() => Path(b) is [_, ("+ bird*", var n), ("not in “+ moth*”", _)] && n != bats, "the step changed");
        var birds = Path(b)[1].Count;

        OnStep(b, "+ bird*", "Save under a name …");
        b.Fill("[role=dialog] input", "Birds under lamps");
        b.Click("Name it");
        b.Until(() => Path(b)[1].Label == "Birds under lamps", "its name");
        b.Click("new path");
        b.Until(
            () => b.Find("section[aria-label='Named searches']").Text.Contains($"{birds:N0}", StringComparison.Ordinal),
            "the named search with its count"
        );
        b.Click("Run again");
        b.Sees("nothing new");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Rows_are_dense_or_roomy_a_stretch_is_picked_and_a_hit_is_gone_to()
    {
        using var b = world.SignedIn();
        Searched(b, "moth* AND light");
        b.Until(() => b.All("article[data-work]").Count > 3, "the list");
        var roomy = b.Find("article[data-work]").Size.Height;
        b.Press("d");
        b.Until(() => b.Find("article[data-work]").Size.Height < roomy * 0.8, "dense rows");
        b.Press("j");
        b.Until(() => b.All("aside h2").Count == 1, "the first work");
        b.Press("J", "J");
        b.Sees("3 works picked");
        b.Until(() => b.All("article[data-work] input:checked").Count == 3, "three ticks");
        b.Click("Tag …");
        b.Fill("[role=dialog] input", "a stretch");
        b.Click("Tag them");
        b.Sees("Tagged 3 works “a stretch”.");
        b.Press("d");
        b.Until(() => b.Find("article[data-work]").Size.Height >= roomy * 0.8, "roomy rows");
        // A cell of the hit strip leads to its field in the pane.
        b.Until(
            () =>
            {
                b.All("article[data-work] svg[role=img] g")[2].Click();
                return true;
            },
            "the abstract's cell"
        );
        b.Until(
            () =>
                (bool)
                    b.Script(
                        "const f = document.querySelector('aside [data-field=abstract]'); if (!f) return false; "
                            + "const r = f.getBoundingClientRect(); return r.top < innerHeight && r.bottom > 0;"
                    )!,
            "the abstract in sight"
        );
        b.Press("u");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Fields_behind_one_more_narrow_like_the_others()
    {
        using var b = world.SignedIn();
        Searched(b, "moth*");
        foreach (var field in new[] { "Open access", "Funder" })
        {
            b.Click("more");
            b.Until(
                () =>
                {
                    b.All("[role=menuitem]").First(m => m.Text == field).Click();
                    return true;
                },
                field
            );
            b.Until(() => b.All($"ul[aria-label='{field}'] li label").Count > 0, "its values");
            var value = b.All($"ul[aria-label='{field}'] li label")[0];
            var count = Number(value.FindElements(By.TagName("span"))[^1].Text);
            var before = Path(b).Length;
            value.Click();
            b.Until(
                () =>
                {
                    b.All("[role=dialog] button").First(x => x.Text == "Narrow").Click();
                    return true;
                },
                "to narrow"
            );
            b.Until(
                () => Path(b).Length == before + 1 && Path(b)[^1].Count == count,
                "a step with the count that stood before the click"
            );
        }
        Assert.Empty(b.AxeFindings());
    }
}
