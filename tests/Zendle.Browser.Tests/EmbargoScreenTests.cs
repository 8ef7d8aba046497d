using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>A manuscript under embargo, from the list to the text.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed partial class EmbargoScreenTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    private static string Article(Browser b) => b.All("article[data-work]") is [var first, ..] ? first.Text : "";

    [Fact]
    public async Task Its_day_is_told_before_it_is_asked_for_and_its_text_comes_by_itself_after_it()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "year:2025..2026");
        b.Press(Keys.Enter);
        b.Click("more");
        b.Until(
            () =>
            {
                b.All("[role=menuitem]").First(m => m.Text == "Full text").Click();
                return true;
            },
            "the field"
        );
        const string Later = "free from a later day";
        b.Until(() => b.All("ul[aria-label='Full text'] li label").Any(l => l.Text.Contains(Later)), "works held back");
        b.All("ul[aria-label='Full text'] li label").First(l => l.Text.Contains(Later)).Click();
        b.Until(
            () =>
            {
                b.All("[role=dialog] button").First(x => x.Text == "Narrow").Click();
                return true;
            },
            "to narrow"
        );
        b.Until(() => Day().IsMatch(Article(b)), "the day on the row");
        Assert.Empty(b.AxeFindings());
        b.NextWork();
        b.Until(
            () => b.Address.Contains("work=", StringComparison.Ordinal) && Day().IsMatch(b.TextOf("aside")),
            "the day beside the copy in the pane"
        );
        var day = DateOnly.Parse(Day().Match(b.TextOf("aside")).Groups[1].Value, CultureInfo.InvariantCulture);
        var work = b.Named("work")!.Value;
        b.On("aside button", _ => b.Click("Gather its text"));
        var said = string.Create(
            CultureInfo.InvariantCulture,
            $"under embargo until {day:d MMM yyyy}; tried again then"
        );
        b.Go($"/r/1/gather?work={work}");
        b.Until(
            () => b.TextOf($"li[data-work='{work}']").Contains(said, StringComparison.Ordinal),
            "why it is not here"
        );
        b.Sees("as its record says");
        Assert.Empty(b.AxeFindings());

        await world.Outside.Move(day.DayNumber - DateOnly.FromDateTime(await Now()).DayNumber + 1);
        b.Until(
            () => Libraries.Rows(b, "InHand").Any(r => r["workId"]!.GetValue<int>() == work),
            "the text, by itself"
        );
        b.Until(
            () => b.TextOf("aside").Contains("accepted manuscript", StringComparison.Ordinal),
            "its version in the pane"
        );
        Assert.Empty(b.Complaints());
    }

    private async Task<DateTime> Now()
    {
        using var http = new HttpClient();
        return DateTimeOffset
            .Parse(await http.GetStringAsync(new Uri(world.Outside.Address, "/clock")), CultureInfo.InvariantCulture)
            .UtcDateTime;
    }

    [GeneratedRegex(@"free from (\d{1,2} \w{3} \d{4})")]
    private static partial Regex Day();
}
