using System.Globalization;
using System.Text.RegularExpressions;
using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>The board by mouse and by key, on real counts; every number of it opens its set.</summary>
public sealed class BoardScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    /// <summary>The terms of a card with their own counts.</summary>
    private static (string Term, int Count)[] Rows(Browser b, string list) =>
        [
            .. b.All($"ul[aria-label='{list}'] li")
                .Where(l => l.FindElements(By.CssSelector("button[title]")).Count > 0)
                .Select(l =>
                    (
                        l.FindElement(By.CssSelector("button[title]")).Text,
                        Number(
                            l.FindElement(By.CssSelector("button[aria-label^='Open the'][aria-label$='finds']")).Text
                        )
                    )
                ),
        ];

    /// <summary>Presses keys on a term of the board; again when the board was drawn anew under it.</summary>
    private static void OnTerm(Browser b, string term, string keys) =>
        b.Until(
            () =>
            {
                b.All("section[aria-label=Board] li button[title]").First(e => e.Text == term).SendKeys(keys);
                return true;
            },
            $"the term {term}"
        );

    [Fact]
    public void A_search_is_laid_out_changed_and_searched_on_the_board()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "moth* AND light*");
        b.Until(
            () => Rows(b, "Terms of A") is [("moth*", > 0)] && Rows(b, "Terms of B") is [("light*", > 0)],
            "two concepts"
        );
        var before = ToCome(b);

        // Terms are added where they belong; the line follows, counts stand before anything is searched.
        b.Fill("[aria-label='Add a term to A']", "bat* OR bats");
        b.Type(Keys.Enter);
        b.Until(() => LineOf(b) == "(moth* OR bat* OR bats) AND light*", "the line to follow");
        b.Until(() => Rows(b, "Terms of A").Length == 3, "three rows");
        Assert.True(ToCome(b) >= before);
        b.Fill("[aria-label='Add a concept']", "street light");
        b.Type(Keys.Enter);
        b.Until(
            () => LineOf(b).EndsWith("AND \"street light\"", StringComparison.Ordinal),
            "a concept of its own, its words in a row"
        );
        b.Fill("[aria-label='Add a term to exclude']", "bird*");
        b.Type(Keys.Enter);
        b.Until(() => LineOf(b).EndsWith("AND NOT bird*", StringComparison.Ordinal), "what must not stand");
        b.Until(() => Rows(b, "Excluded terms") is [("bird*", > 0)], "its count");

        // What is no row is refused with a sentence, and nothing is lost.
        b.Fill("[aria-label='Add a term to B']", "lamp AND pole");
        b.Type(Keys.Enter);
        b.Sees("A row holds one term");

        // By key on a term: Delete takes out, Alt with an arrow moves, Space switches off for a look, Enter writes
        // anew.
        OnTerm(b, "bats", Keys.Delete);
        b.Until(() => LineOf(b).StartsWith("(moth* OR bat*) AND light*", StringComparison.Ordinal), "the term to go");
        OnTerm(b, "bat*", Keys.Alt + Keys.ArrowRight);
        b.Until(
            () => LineOf(b).StartsWith("moth* AND (light* OR bat*)", StringComparison.Ordinal),
            "the term on the next card"
        );
        OnTerm(b, "bat*", " ");
        b.Until(() => LineOf(b).StartsWith("moth* AND light* AND", StringComparison.Ordinal), "the line without it");
        b.Sees("bat*, switched off");
        b.Until(
            () =>
            {
                b.On("[aria-label^='bat* is off']", e => e.Click());
                return true;
            },
            "to switch it on"
        );
        b.Until(
            () => LineOf(b).StartsWith("moth* AND (light* OR bat*)", StringComparison.Ordinal),
            "the term back on its card"
        );
        OnTerm(b, "bat*", Keys.Enter);
        b.Fill("[aria-label='Write bat* anew']", "lamp*");
        b.Type(Keys.Enter);
        b.Until(
            () => LineOf(b).StartsWith("moth* AND (light* OR lamp*)", StringComparison.Ordinal),
            "the row written anew"
        );

        // Scope at the card.
        b.Click("any of 2, title, abstract, keywords");
        // The words of the button that opens it have "title" among them, too.
        b.Until(
            () =>
            {
                var choice = b.All("fieldset label").FirstOrDefault(l => l.Text == "title");
                choice?.Click();
                return choice is not null;
            },
            "to choose where"
        );
        b.Until(
            () => LineOf(b).StartsWith("moth* AND title:(light* OR lamp*)", StringComparison.Ordinal),
            "the scope in the line"
        );
        b.Type(Keys.Escape);
        OnTerm(b, "\"street light\"", Keys.Delete);
        b.Until(
            () => LineOf(b) == "moth* AND title:(light* OR lamp*) AND NOT bird*",
            "the concept to go with its only term"
        );

        // Searched, the count is the one that was to come.
        b.Until(() => b.All("ul[aria-label='Terms of C']").Count == 0, "the board of the line as it stands");
        var come = ToCome(b);
        b.On("section[aria-label='Search line'] button[type=submit]", e => e.Click());
        b.Until(
            () =>
                b.All("section[aria-label=Path] [aria-current=step]").Count == 1
                && b.Find("section[aria-label=Path] [aria-current=step]")
                    .Text.Contains(come.ToString("N0", CultureInfo.InvariantCulture), StringComparison.Ordinal),
            "the step with that count"
        );
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void Rows_are_moved_by_the_mouse_and_by_their_menu()
    {
        using var b = world.SignedIn();
        b.Click("new path");
        b.Fill(Line, "(moth* OR bat*) AND light*");
        b.Until(() => Rows(b, "Terms of A").Length == 2 && Rows(b, "Terms of B").Length == 1, "the board");

        // The menu shows itself where the mouse is; here it is opened by key.
        b.Until(
            () =>
            {
                b.Script("document.querySelector(\"[aria-label='What to do with bat*']\").focus()");
                return true;
            },
            "the menu's button"
        );
        b.Type(Keys.Enter);
        b.Click("Move to B");
        b.Until(() => LineOf(b) == "moth* AND (light* OR bat*)", "the row on the other card");
        b.Until(() => Rows(b, "Terms of B").Length == 2, "the board to follow");

        // Dragged: the browser carries the row, the card it falls on takes it.
        b.Until(
            () =>
            {
                b.Script(
                    """
                    const row = [...document.querySelectorAll("ul[aria-label='Terms of B'] li")]
                        .find(l => l.textContent.startsWith("bat*"));
                    const to = document.querySelector("ul[aria-label='Excluded terms']").parentElement;
                    const data = new DataTransfer();
                    row.dispatchEvent(new DragEvent("dragstart", { bubbles: true, dataTransfer: data }));
                    to.dispatchEvent(new DragEvent("dragover", { bubbles: true, cancelable: true, dataTransfer: data }));
                    to.dispatchEvent(new DragEvent("drop", { bubbles: true, cancelable: true, dataTransfer: data }));
                    """
                );
                return true;
            },
            "to drag"
        );
        b.Until(() => LineOf(b) == "moth* AND light* AND NOT bat*", "the row under without");
        b.Until(() => Rows(b, "Excluded terms") is [("bat*", > 0)], "its count there");
        Assert.Empty(b.Complaints());
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
        Assert.Matches(@"^[AB]\s*\S.* \d+ \d+", b.TextOf("[role=dialog] table tbody"));
        var missed = Number(Regex.Match(b.TextOf("[role=dialog] h2"), @"\d+").Value);
        b.Click("Show them as a list");
        b.Until(() => Path(b) is [("kept, but not found", var n)] && n == missed, "those works");
        Assert.Empty(b.AxeFindings());
        Assert.Empty(b.Complaints());
    }
}
