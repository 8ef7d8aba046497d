using OpenQA.Selenium;

namespace Zendle.Browser.Tests;

/// <summary>Takes the pictures of docs/screenshots again; runs only when told where they go (./zendle shots).</summary>
[Collection(DemoWorldWithItsOutside.InTurn)]
public sealed class Shots(DemoWorldWithItsOutside world) : IClassFixture<DemoWorldWithItsOutside>
{
    [Fact]
    public async Task Take()
    {
        var folder = Environment.GetEnvironmentVariable("ZENDLE_SHOTS") ?? "";
        Assert.SkipWhen(folder.Length == 0, "Pictures are taken by ./zendle shots.");
        Directory.CreateDirectory(folder);
        using var b = new Browser(world.Address);
        void Shot(string name)
        {
            Thread.Sleep(700); // what moves has come to rest
            b.Picture(Path.Combine(folder, name + ".png"));
        }
        b.Go("/");
        b.Sees("Look around");
        Shot("sign-in");
        b.Click("Look around as the demo researcher");
        b.Find("article[data-work]");
        b.Press("j", "j");
        b.Find("aside h2");
        Shot("search-reading");
        b.Press("b");
        b.Find("section[aria-label=Board]");
        Shot("search");
        b.Press("b");
        b.Press("w");
        b.On("ul[aria-label='Promising terms'] button[aria-expanded]", e => e.Click());
        b.Find("ul[aria-label^='Works of'] li");
        Shot("words");
        b.Press("w");
        b.Script("localStorage.setItem('zendle.theme', 'dark')");
        b.Reload();
        b.Find("article[data-work]");
        Shot("search-dark");
        b.Script("localStorage.removeItem('zendle.theme')");
        b.Size(1024, 768);
        b.Reload();
        b.Find("article[data-work]");
        Shot("search-1024");
        b.Size(1280, 800);
        b.Go("/r/2/search");
        b.Fill("[aria-label='Search the databases']", "street lighting or moths (");
        b.Sees("never closes");
        Shot("search-start");
        References(b);
        Shot("references");
        b.Type(Keys.Escape);
        b.Go("/r/1/search?sort=Cited");
        b.Find("article[data-work]");
        b.Press("j", " ", "j", " ", "j", " ");
        b.Sees("3 works picked");
        b.Click("Follow trails");
        b.Until(() => b.All("section[aria-label='What cites them'] article").Count > 0, "what cites them");
        Shot("trails");
        b.Click("neighbours");
        b.Until(() => b.All("section[aria-label='Neighbours'] article").Count > 0, "the neighbours");
        b.Press("j");
        b.On("section[aria-label='In common with the seeds'] h4 button", e => e.Click());
        b.Find("section[aria-label='In common with the seeds'] li");
        Shot("neighbours");
        b.Go("/r/1/trails?step=0");
        b.Click("First round, from");
        b.Click("Begin round 1");
        b.Sees("Candidates of round 1");
        b.Press("j", "j", "j");
        b.Click("Is it enough?");
        b.Sees("There is no estimate while");
        Shot("round");
        b.Type(Keys.Escape);
        b.Go("/r/1/map");
        b.Click("The kept works");
        b.Until(() => b.All("[data-mark]").Count > 50, "the map");
        b.Go(new Uri(b.Address).PathAndQuery + "&lanes=Tag&suggest=12");
        b.Until(() => b.All("[data-suggested]").Count == 12, "what is suggested");
        b.Script("document.querySelector('[role=group][aria-label^=Map]').focus()");
        b.Type(Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight);
        Shot("map");
        // The first in the list of texts in hand: the first that came may be one that a person has to look at.
        b.Go("/r/1/read");
        b.On("main a[href*='/read/']", e => e.Click());
        b.Until(() => b.All(".textLayer span").Count > 10, "the text");
        b.Fill("[aria-label='Find in the text']", "sites");
        b.Find("section[aria-label=Text] [role=status]");
        Shot("read");
        b.Go("/r/1/search");
        b.Find("article[data-work]");
        b.Press("j");
        b.Find("aside h2");
        b.Press("c");
        b.Find("ol[aria-label=References] .csl-entry");
        // The styles of the archive carry names of the world; the picture shows ours.
        b.Fill("#style", "zendle");
        b.Until(() => b.All("ul[aria-label=Styles] li").Count == 1, "our own style");
        Shot("cite");
        b.Go("/r/1/search");
        b.Find("article[data-work]");
        b.Press("j");
        b.Click("Compare them side by side");
        b.Find("[role=dialog] table");
        Shot("records");
        b.Go("/r/1/databases");
        b.Sees("Overlap: share of each row");
        Shot("databases");
        b.Click("Add a database by its address");
        b.Fill("input[placeholder^='https://']", world.Outside.Oai("union"));
        b.Click("Check the address");
        b.Sees("Record 1 of the first 10");
        Shot("databases-add");
        b.Press(Keys.Escape);
        Libraries.Connect(b, "XA-QUI1", "Voorland");
        b.Press(Keys.Escape);
        Libraries.GatherAll(b);
        Libraries.AskOthers(b);
        await world.Outside.Move(1);
        b.Until(() => Libraries.Rows(b, "ByLoan").Any(r => r["loan"]!["expectedOn"] is not null), "answers");
        b.Go($"/r/1/gather?work={Libraries.Rows(b, "ByLoan")[0]["workId"]}");
        b.On("section[aria-label='Interlibrary loan'] summary", e => e.Click());
        b.Script("document.querySelector(\"section[aria-label='By loan']\").scrollIntoView()");
        Shot("gather");
        b.Go("/r/1/report");
        b.Until(() => b.All("[data-loans]").Count == 1, "loans in the report");
        Shot("report");
    }

    /// <summary>Pastes references of the works that are cited most, some of them with slips, and one that is nowhere.</summary>
    private static void References(Browser b)
    {
        b.Go("/r/1/search?sort=Cited");
        b.Find("article[data-work]");
        var titles = b.All("article[data-work] h3").Take(4).Select(h => h.Text).ToArray();
        b.Go("/r/1/search?step=0");
        b.Click("Paste a list");
        b.Fill(
            "[role=dialog] textarea",
            $"[1] {titles[0]}.\n[2] Nobody, X. (2001). {titles[1]}. Journal of Verges, 4, 10–20.\n"
                + $"[3] {titles[2]}. J. Verges 2012; 4: 10–20\n[4] Nobody X, Noone Y. {titles[3]}. Verges 2015.\n"
                + "[5] Nobody, X. (1871). The migration of brass ornaments in provincial theatres. Curtains, 4, 10–20.\n"
        );
        b.Click("Find these works");
        b.Sees("no record resembles them");
    }
}
