using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Signing in, a password, a new review, two tabs of one person.</summary>
public sealed class AccountScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void A_new_review_from_nothing_the_password_and_the_way_out()
    {
        using var b = world.SignedIn("/reviews");
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
}
