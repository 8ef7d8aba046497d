using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>A person connects their library, sees what it holds, signs in, and gets texts through it.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class LibraryScreenTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    private const string Foot = Libraries.Foot;

    /// <summary>A kept work without a text that is sold at its publisher and held by the library.</summary>
    private async Task<int> Held(Browser b)
    {
        foreach (
            var row in b.Api("/api/reviews/1/gather")["works"]!
                .AsArray()
                .Where(w => w!["state"]!.GetValue<string>() is "NotSought" or "NotFound" or "SignIn")
        )
        {
            var work = row!["workId"]!.GetValue<int>();
            var held = b.Api($"/api/held?works={work}").AsArray().Single()!;
            if (held["isFree"]!.GetValue<bool>() || held["coverage"]!.GetValue<string>() != "Held")
                continue;
            var copies = b.Api($"/api/reviews/1/works/{work}?stepId=0")["copies"]!.AsArray();
            if (copies.Count != 1)
                continue;
            await world.Behind(new Uri(copies[0]!["address"]!.GetValue<string>()).AbsolutePath, "fine");
            return work;
        }
        throw new InvalidOperationException("No kept work is held by this library.");
    }

    private static void Gather(Browser b, int work)
    {
        b.Go($"/r/1/gather?work={work}");
        b.On(
            "aside[aria-label=Text]",
            e => e.FindElements(By.TagName("button")).First(x => x.Text is "Gather this one" or "Try again").Click()
        );
        b.Until(
            () => b.TextOf($"li[data-work='{work}']").Contains("sign in to your library", StringComparison.Ordinal),
            "the wish to sign in"
        );
    }

    [Fact]
    public async Task A_library_is_connected_in_three_acts_and_asked_for_what_is_sold()
    {
        using var b = world.SignedIn();
        Libraries.Connect(b, "XA-QUI1", "Voorland");
        Assert.Empty(b.AxeFindings());
        b.Press(Keys.Escape);
        b.Until(
            () =>
                b.All("li[data-work]")
                    .Any(r =>
                        r.Text.Contains("not sought yet", StringComparison.Ordinal)
                        && r.Text.Contains("through your library", StringComparison.Ordinal)
                    ),
            "how a text can be had, before it is sought"
        );
        var work = await Held(b);

        // Said before anything is asked: on the row of a list, in the pane, and as a field to narrow by.
        b.Go("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "stage:kept");
        b.Press(Keys.Enter);
        b.Sees("through your library");
        b.Go($"{new Uri(b.Address).PathAndQuery}&work={work}");
        b.Until(
            () =>
                b.TextOf("[data-held=Held]")
                    .StartsWith("Library of the University of Quillmere holds it (", StringComparison.Ordinal),
            "what the library holds"
        );

        Gather(b, work);
        b.Until(() => b.TextOf(Foot).Contains("Sign in", StringComparison.Ordinal), "the way in");
        b.On($"{Foot} p button", e => e.SendKeys(Keys.Enter));
        b.Fill("[role=dialog] input:not([type=password])", "reader");
        b.Fill("[role=dialog] input[type=password]", "wrong");
        b.Press(Keys.Enter);
        b.Sees("The library did not take this name and password.");
        Assert.Empty(b.AxeFindings());
        b.Fill("[role=dialog] input[type=password]", "reading lamp 7");
        b.Press(Keys.Enter);
        b.Until(
            () =>
                b.TextOf($"li[data-work='{work}']") is var row
                && row.Contains("version of record", StringComparison.Ordinal)
                && row.Contains("library:", StringComparison.Ordinal),
            "the text through the library"
        );
        b.Until(() => b.TextOf(Foot).Contains("signed in until", StringComparison.Ordinal), "the session");
        b.On($"{Foot} p button", e => e.SendKeys(Keys.Enter));
        b.Until(() => b.TextOf(Foot).Contains("Sign in", StringComparison.Ordinal), "the session ended");
        b.Size(1024, 800);
        b.Dark(true);
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public async Task A_library_that_signs_in_in_a_window_of_its_own_is_gone_on_with_after()
    {
        using var b = world.SignedIn();
        Libraries.Connect(b, "XD-QUF7", "Dravinia");
        b.Press(Keys.Escape);
        var work = await Held(b);
        Gather(b, work);
        var here = b.Tab;
        b.On($"{Foot} p button", e => e.SendKeys(Keys.Enter));
        b.Click("Open the library’s sign-in page");
        b.Until(() => b.Tabs.Count == 2, "the window");
        b.SwitchTo(b.Tabs.Single(t => t != here));
        b.Fill("input[name=card]", "visitor");
        b.Fill("input[name=secret]", "green shade 12");
        b.Press(Keys.Enter);
        b.Sees("You are signed in.");
        Assert.DoesNotContain("code=", b.Address, StringComparison.Ordinal);
        Assert.Empty(b.AxeFindings());
        b.SwitchTo(here);
        b.Until(
            () => b.TextOf($"li[data-work='{work}']").Contains("version of record", StringComparison.Ordinal),
            "the text through the library"
        );
        Assert.Empty(b.Complaints());
    }
}
