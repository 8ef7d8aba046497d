using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Works that no database has: added by form, from a pasted list, changed and removed.</summary>
public sealed class EntryScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void A_planned_paper_is_added_by_form_found_changed_and_removed()
    {
        using var b = world.SignedIn();
        Searched(b, "zwielichtmotten");
        b.Sees("No work matches all of this.");
        b.Click("Add it as a custom entry");
        b.Sees("A work that no database has");
        Field(b, "Title", "Zwielichtmotten of the harbour lamps");
        Field(b, "Year", "soon");
        b.Look("entry");
        Assert.Empty(b.AxeFindings());
        b.Click("Add this entry");
        // A slip is told at its field, and nothing that was written is lost.
        b.Sees("A year has four digits");
        Field(b, "Year", "2027");
        Field(b, "People, one a line: family name, given names", "Berg, Mei\nLind, Per");
        b.Click("Add this entry");
        b.Sees("Added to the custom entries.");
        Searched(b, "zwielichtmotten AND author:berg AND year:2027");
        b.Until(() => InView(b) == 1, "the entry in the list");
        b.Sees("Custom entries");
        b.Click("Open the entry");
        b.Sees("Added by");
        Field(b, "Title", "Zwielichtfalter of the harbour lamps");
        b.Click("Save");
        b.Sees("Saved.");
        Searched(b, "zwielichtfalter");
        b.Until(() => InView(b) == 1, "the changed entry");
        b.Click("Open the entry");
        b.Click("Remove the entry");
        b.Sees("The entry was removed.");
        b.Click("Undo");
        b.Sees("The entry is back.");
        Searched(b, "zwielichtfalter");
        b.Until(() => InView(b) == 1, "the entry again");
        Assert.DoesNotContain(b.Complaints(), c => !c.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public void References_that_nothing_matches_are_added_in_one_act_and_become_a_set()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Click("Paste a list");
        b.Fill(
            "[aria-label='References']",
            "Nobody, X., & Lind, P. (1971). The migration of brass ornaments in provincial theatres. Curtains, 4, 10–20.\n"
                + "Nobody, X. (1972). Brass ornaments reconsidered by provincial players. Curtains, 5, 1–9."
        );
        b.Click("Find these works");
        b.Click("Add all 2 as entries");
        b.Click("Show these 2 works");
        b.Until(() => Steps(b) is ["2 pasted references"], "the set");
        Assert.Equal(2, InView(b));
        b.Sees("Nobody, Lind · Curtains");
        // From the palette the form fills from a reference.
        b.On("header button[aria-haspopup=dialog]", e => e.Click());
        b.Fill("[aria-label='Go to, or do'][role=combobox]", "custom");
        b.Type(Keys.Enter);
        Field(
            b,
            "Fill the form from a reference (optional)",
            "Lind, P. (2009). Bats over quays [Doctoral thesis, Farnhaven College]."
        );
        b.Click("Fill in");
        b.Until(() => Value(b, "Title") == "Bats over quays", "the filled form");
        Assert.Equal(
            ("2009", "Lind, P."),
            (Value(b, "Year"), Value(b, "People, one a line: family name, given names"))
        );
        Assert.Empty(b.Complaints());
    }

    [Fact]
    public void An_identifier_that_no_work_here_has_is_said_and_can_be_added()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        b.Fill(Line, "https://doi.org/10.5555/nobody.has.this");
        b.Sees("This is a DOI. No work here has it.");
        b.Look("identifier");
        b.Find("#line-reading").FindElement(By.XPath(".//button[.='Add it as a custom entry']")).Click();
        b.Until(() => b.All("[role=dialog] label").Count > 5, "the form");
        Assert.Equal(("", "10.5555/nobody.has.this"), (Value(b, "Title"), Value(b, "DOI")));
        Field(b, "Title", "Zwischenlichter of the quay");
        b.Click("Add this entry");
        b.Sees("Added to the custom entries.");
        b.Sees("One work has this DOI:");
        Assert.Empty(b.Complaints());
    }

    private static IWebElement Labelled(Browser b, string label)
    {
        var id = (string)
            b.Script(
                "return [...document.querySelectorAll('[role=dialog] label')].find(l => l.textContent === arguments[0])?.htmlFor ?? ''",
                label
            )!;
        return b.Find($"[id='{id}']");
    }

    private static void Field(Browser b, string label, string text)
    {
        b.Until(() => b.All("[role=dialog] label").Any(l => l.Text == label), $"the field {label}");
        var id = Labelled(b, label).GetDomAttribute("id");
        b.Fill($"[id='{id}']", text);
    }

    private static string Value(Browser b, string label) => Labelled(b, label).GetDomProperty("value") ?? "";
}
