using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>Words are found in gathered texts: on the line, on the row with page and sentence, and inside a set.</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class TextSearchScreenTests(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    [Fact]
    public void A_word_of_a_text_finds_its_work_shows_its_sentence_and_opens_its_page()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "text:(observers OR visits)");
        b.Press(Keys.Enter);
        b.Until(() => b.All("article").Any(r => r.Text.Contains("in its text, p.", StringComparison.Ordinal)), "a row");
        b.Sees("by gathered texts alone");
        Assert.Empty(b.AxeFindings());
        var page = b.TextOf("article a").Split("p. ")[1];
        b.On("article a", e => e.Click());
        b.Until(
            () =>
                b.Address.Contains("/read/", StringComparison.Ordinal)
                && b.Address.EndsWith($"page={page}", StringComparison.Ordinal),
            "the page"
        );

        // Inside a set, the texts alone.
        b.Go("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "stage:kept");
        b.Press(Keys.Enter);
        b.Sees("62");
        b.Click("Words inside");
        b.Fill("#inside", "observers");
        b.Click("in the gathered full texts only");
        b.On("#inside", e => e.SendKeys(Keys.Enter));
        b.Until(() => b.Text.Contains("text:(observers)", StringComparison.Ordinal), "the step");
        b.Until(() => b.All("article").Count is > 0 and < 16, "works whose text has it");
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void A_chapter_leads_to_its_book_and_its_sisters_and_makes_them_the_list()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill("[aria-label='Search the databases']", "type:chapter");
        b.Press(Keys.Enter);
        b.Until(() => b.All("article").Count > 2, "chapters");
        // One whose book has others here.
        for (var i = 0; i < 12 && !b.Text.Contains("In the same book", StringComparison.Ordinal); i++)
            b.NextWork();
        b.Sees("In the same book");
        Assert.Empty(b.AxeFindings());
        var title = b.TextOf("aside h2");
        b.Click("chapters the list");
        b.Until(
            () =>
                b.Address.Contains("step=", StringComparison.Ordinal)
                && b.All("article").Any(a => a.Text.Contains(title, StringComparison.OrdinalIgnoreCase)),
            "the book's works"
        );
        Assert.Empty(b.Complaints());
    }
}
