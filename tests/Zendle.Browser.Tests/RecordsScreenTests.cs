using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The records behind a work: side by side, split off, put together; its references as printed.</summary>
public sealed class RecordsScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void Records_are_compared_split_off_with_a_preview_and_put_together_again()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "database:meridian AND moth*");
        b.Type(Keys.Enter);
        b.Until(() => b.All("article[data-work]").Count > 3, "works");
        // The first work that several records describe.
        for (var i = 0; i < 8; i++)
        {
            b.NextWork();
            if (b.TextOf("aside").Contains("records describe it", StringComparison.Ordinal))
                break;
        }
        b.Click("Compare them side by side");
        b.Until(() => b.All("[role=dialog] table tbody tr").Count > 6, "the fields");
        var columns = b.All("[role=dialog] thead th").Count;
        Assert.True(columns > 1);
        var dialog = b.TextOf("[role=dialog]");
        Assert.Contains("Why they are one work", dialog, StringComparison.Ordinal);
        Assert.Matches("same (title|identifier)", dialog);

        b.All("[role=dialog] thead input[type=checkbox]")[columns - 1].Click();
        b.Click("Split off the ticked records");
        b.Until(
            () =>
                b.Find("section[aria-label='Preview']")
                    .Text.Contains("The result would be 2 works", StringComparison.Ordinal),
            "the preview"
        );
        Assert.Contains("a work of its own", b.TextOf("section[aria-label='Preview']"), StringComparison.Ordinal);
        b.Click("Split them off");
        b.Sees("Split. Later harvests keep it so.");
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet gone");
        b.Until(
            () => !b.TextOf("aside").Contains($"{columns} records describe it", StringComparison.Ordinal),
            "one record fewer"
        );
        b.Click("Undo");
        b.Sees("The records are unchanged.");
        b.Until(
            () => b.TextOf("aside").Contains($"{columns} records describe it", StringComparison.Ordinal),
            "as before"
        );
    }

    [Fact]
    public void What_stays_through_another_record_is_dropped_too()
    {
        using var b = world.SignedIn();
        Searched(b, "moth* AND NOT light*");
        if (b.All("section[aria-label=Board]").Count == 0)
            b.Press("b");
        b.Until(
            () =>
                b.Find("section[aria-label=Board]")
                    .Text.Contains("stay through another record", StringComparison.Ordinal),
            "how many stay"
        );
        var stay = Number(
            System
                .Text.RegularExpressions.Regex.Match(b.TextOf("section[aria-label=Board]"), @"([\d,]+) stay through")
                .Groups[1]
                .Value
        );
        var before = Path(b)[^1].Count;
        b.Click("drop them too");
        b.Until(
            () => Path(b) is [_, var last] && last.Label == "no record with light*" && last.Count == before - stay,
            $"{before} less {stay}"
        );
        Assert.True(stay > 0);
    }

    [Fact]
    public void The_references_of_a_work_stand_as_printed_with_what_each_means()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        Search(b, "moth* AND review");
        b.NextWork();
        b.Click("References");
        b.Until(
            () =>
                System.Text.RegularExpressions.Regex.IsMatch(
                    b.TextOf("[role=dialog]"),
                    @"\d+ references?, \d+ matched to works here|^References"
                ),
            "the list"
        );
        var sheet = b.TextOf("[role=dialog]");
        if (!sheet.StartsWith("References", StringComparison.Ordinal))
            Assert.Matches(
                @"by (the same DOI|the same title and first person|the words of its title|no title printed)|no record fits",
                sheet
            );
        Assert.Empty(b.AxeFindings());
        b.Type(Keys.Escape);
        b.Until(() => b.All("[role=dialog]").Count == 0, "the sheet to close");
    }
}
