using System.Globalization;
using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>A person asks other libraries for what nothing else gave, and sees what becomes of it.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class LoanScreenTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    private const string Part = "section[aria-label='Interlibrary loan']",
        Dialog = "[role=dialog]";

    private static int Id(JsonNode row) => row["workId"]!.GetValue<int>();

    private static void Act(Browser b, string label) =>
        b.Until(
            () =>
            {
                // A click that counted may be told as one on a button that was drawn anew.
                if (b.All(Dialog).Count > 0)
                    return true;
                var button = b.All($"{Part} button").FirstOrDefault(x => x.Text == label);
                button?.Click();
                return button is not null;
            },
            label
        );

    private static string Head(Browser b) => b.TextOf($"{Part} [data-loan]");

    [Fact]
    public async Task Works_in_vain_are_asked_for_come_are_cancelled_and_asked_for_elsewhere()
    {
        using var b = world.SignedIn();
        Libraries.Connect(b, "XA-QUI1", "Voorland");
        b.Press(Keys.Escape);
        Libraries.GatherAll(b);
        var vain = Libraries.Rows(b, "NotFound");
        Assert.True(vain.Length > 2, "works that nothing gave");

        // One work, by the keyboard: a field that is wrong holds the request back, and says why.
        var one = Id(vain[0]);
        b.Go($"/r/1/gather?work={one}");
        b.Until(() => b.All($"{Part} button").Any(x => x.Text == "Ask another library"), "the way to ask");
        b.On($"{Part} button", e => e.SendKeys(Keys.Enter));
        b.Sees("Nothing is sent or charged until you press the button.");
        b.Until(
            () =>
                b.TextOf(Dialog).Contains("EUR · about 3 days · 0 of 20 open requests used", StringComparison.Ordinal),
            "cost and limit"
        );
        Assert.Empty(b.AxeFindings());
        var title = b.All($"{Dialog} input").First(i => i.GetAttribute("value")!.Length > 20);
        var before = title.GetAttribute("value")!;
        title.SendKeys(Keys.Control + "a");
        title.SendKeys(Keys.Delete);
        b.Sees("Say what you need.");
        b.Until(
            () => !b.All($"{Dialog} button").Single(x => x.Text.StartsWith("Send", StringComparison.Ordinal)).Enabled,
            "a request held back"
        );
        title.SendKeys(before);
        b.Until(
            () => b.All($"{Dialog} button").Single(x => x.Text == "Send the request").Enabled,
            "a request that can go"
        );
        b.On($"{Dialog} button.h-9", e => e.SendKeys(Keys.Enter));
        b.Sees("The loan request is on its way.");
        b.Until(() => Head(b).StartsWith("Request received", StringComparison.Ordinal), "the desk's yes");
        Assert.Equal("ByLoan", Libraries.Rows(b, "ByLoan").Single()["state"]!.GetValue<string>());

        // Taken back, then asked for again at the same window.
        Act(b, "Cancel the request");
        b.Until(() => Head(b).StartsWith("Cancelled", StringComparison.Ordinal), "the request taken back");
        Assert.Empty(b.AxeFindings());

        // All that is left in vain, in one act.
        b.Until(
            () =>
                b.All("header button").Any(x => x.Text.StartsWith("Ask other libraries for", StringComparison.Ordinal)),
            "the way to ask for all"
        );
        b.All("header button")
            .First(x => x.Text.StartsWith("Ask other libraries for", StringComparison.Ordinal))
            .Click();
        b.Until(() => b.All($"{Dialog} li").Count == vain.Length, "all works in vain");
        Assert.Empty(b.AxeFindings());
        b.All($"{Dialog} li button").First(x => x.Text == "leave out").Click();
        b.Until(() => b.All($"{Dialog} li button").Any(x => x.Text == "add"), "one left out");
        var sent = int.Parse(b.TextOf($"{Dialog} button.h-9").Split(' ')[1], CultureInfo.InvariantCulture);
        Assert.InRange(sent, 2, Math.Min(20, vain.Length - 1));
        b.On($"{Dialog} button.h-9", e => e.Click());
        b.Until(() => b.All(Dialog).Count == 0, "the sheet closed");
        b.Until(() => Libraries.Rows(b, "ByLoan").Length == sent, "works by loan");

        await world.Outside.Move(1);
        b.Until(
            () => b.TextOf("section[aria-label='By loan']").Contains("expected", StringComparison.Ordinal),
            "the day they are expected"
        );
        await world.Outside.Move(3);
        b.Until(
            () => Libraries.Rows(b, "ByLoan").All(r => r["loan"]!["status"]!.GetValue<string>() == "Loaned"),
            "everything answered"
        );
        var got = b.Api("/api/reviews/1/loans")["loans"]!
            .AsArray()
            .First(l => l!["delivery"]!.GetValue<string>() == "Got")!;
        b.Go($"/r/1/gather?work={got["workId"]!.GetValue<int>()}");
        b.Until(() => Head(b).StartsWith("Copy received", StringComparison.Ordinal), "a copy received");
        b.Sees("4.50 EUR");

        // What the one desk does not hold is asked for at the other.
        var unfilled = b.Api("/api/reviews/1/loans")["loans"]!
            .AsArray()
            .FirstOrDefault(l => l!["state"]!["status"]!.GetValue<string>() == "Unfilled");
        Assert.NotNull(unfilled);
        b.Go($"/r/1/gather?work={unfilled["workId"]!.GetValue<int>()}");
        b.Until(() => Head(b).StartsWith("Not supplied: not held there", StringComparison.Ordinal), "why not");
        Act(b, "Ask elsewhere");
        b.Until(
            () => b.TextOf(Dialog).Contains("asked before, not supplied", StringComparison.Ordinal),
            "where it was asked"
        );
        Assert.True(b.All($"{Dialog} input[type=radio]")[1].Selected, "the other desk is offered");
        b.On($"{Dialog} button.h-9", e => e.SendKeys(Keys.Enter));
        b.Sees("The loan request is on its way.");

        // Counted in the report.
        b.Go("/r/1/report");
        b.Until(() => b.All("[data-loans]").Count == 1, "loans in the report");
        Assert.Contains("not held there", b.TextOf("[data-loans]"), StringComparison.Ordinal);
        b.Size(1024, 800);
        b.Dark(true);
        b.Go($"/r/1/gather?work={unfilled["workId"]!.GetValue<int>()}");
        b.Until(() => b.All($"{Part} [data-loan]").Count == 2, "both requests");
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_curator_adds_a_loan_desk_and_reads_where_it_is_to_write_to()
    {
        using var b = world.SignedIn();
        Libraries.Connect(b, "XD-QUF7", "Dravinia");
        b.Until(() => b.All($"{Dialog} button").Any(x => x.Text == "Loan desks"), "desks for curators");
        b.All($"{Dialog} button").Last(x => x.Text == "Loan desks").Click();
        b.Until(() => b.All("[data-desk]").Count == 2, "the desks of the directory");
        b.Click("Add a loan desk");
        Assert.Empty(b.AxeFindings());
        var fields = b.All("form[aria-label='Add a loan desk'] input");
        fields[0].SendKeys("Osterby reading room");
        fields[1].SendKeys("XO-OST");
        fields[3].SendKeys("http://10.9.8.7/desk");
        b.Click("Add the desk");
        // The settings allow the outside's address alone.
        b.Sees("The settings do not allow http://10.9.8.7");
        fields[3].SendKeys(Keys.Control + "a");
        fields[3].SendKeys(new Uri(world.Outside.Address, "/loan-desk/harrow/messages").ToString());
        b.Click("Add the desk");
        b.Until(() => b.All("[data-desk='XO-OST']").Count == 1, "the desk added");
        b.On("[data-desk='XO-OST'] button", e => e.SendKeys(Keys.Enter));
        b.Until(
            () => b.TextOf("[data-desk='XO-OST']").Contains("/loan-messages/", StringComparison.Ordinal),
            "where it writes to"
        );
        Assert.Empty(b.Complaints());
    }
}
