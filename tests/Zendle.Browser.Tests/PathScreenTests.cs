using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Branches, steps changed, named searches; rows, stretches and fields of a list.</summary>
public sealed class PathScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
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
            () => b.TextOf("section[aria-label='Named searches']").Contains($"{birds:N0}", StringComparison.Ordinal),
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
        b.NextWork();
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
