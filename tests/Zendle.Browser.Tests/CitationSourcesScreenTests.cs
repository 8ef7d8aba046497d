using OpenQA.Selenium;
using static Zendle.Browser.Tests.SearchScreen;

namespace Zendle.Browser.Tests;

/// <summary>Citations that no database reports: from gathered texts, with what these say, and from a curator's table.</summary>
public sealed class CitationSourcesScreenTests(DemoWorld world) : IClassFixture<DemoWorld>
{
    [Fact]
    public void Sentences_that_cite_stand_on_rows_and_in_the_pane_and_words_near_them_narrow()
    {
        using var b = world.SignedIn("/r/1/trails?step=0");
        b.Click("Follow the 62 works kept");
        b.Until(() => b.All("section[aria-label='What cites them'] article").Count > 0, "what cites them");
        var step = b.Api("/api/reviews/1")["trailStepId"]!.GetValue<int>();
        var said = b.Api($"/api/reviews/1/steps/{step}/said");
        var texts = said["texts"]!.AsArray();
        Assert.True(texts.Count > 3);

        b.Click("Where it cites");
        b.Sees("have one that was read");
        Assert.Empty(b.AxeFindings());
        // What is typed is looked for in the sentence that cites and in those beside it.
        var family = texts[0]!["sentences"]![0]!["text"]!["text"]!.GetValue<string>().Split('(')[^1].Split(' ')[0];
        b.Fill("#where-it-cites", family);
        b.Type(Keys.Enter);
        b.Until(() => Steps(b)[^1] == $"where it cites: {family}", "the step");
        b.Until(() => b.All("section[aria-label='What cites them'] article").Count > 0, "the works");
        var shown = b.All("section[aria-label='What cites them'] article");
        b.Until(
            () =>
                b.All("section[aria-label='What cites them'] article")
                    .Any(a => a.Text.Contains(family, StringComparison.Ordinal)),
            "the sentence"
        );
        Assert.InRange(shown.Count, 1, texts.Count);
        b.Until(
            () =>
            {
                b.On("section[aria-label='What cites them'] article h3 button", e => e.SendKeys(Keys.Enter));
                return b.Text.Contains("What it says of the seeds", StringComparison.Ordinal);
            },
            "the pane"
        );
        // Its page of the text is one click away.
        b.Until(
            () =>
            {
                b.All("aside a").First(a => a.Text.StartsWith("p. ", StringComparison.Ordinal)).Click();
                return true;
            },
            "the page"
        );
        b.Until(() => b.Address.Contains("/read/", StringComparison.Ordinal), "the text");
        Assert.Contains("page=", b.Address, StringComparison.Ordinal);
    }

    [Fact]
    public void A_curator_adds_citations_from_a_table_and_removes_them()
    {
        using var b = world.SignedIn("/r/1/search?step=0");
        Search(b, "moth*");
        b.Until(() => b.All("article[data-work]").Count > 1, "works");
        var works = b.All("article[data-work]").Take(6).Select(a => Number(a.GetDomAttribute("data-work")!));
        var dois = works
            .Select(w => b.Api($"/api/reviews/1/works/{w}")["doi"]?.GetValue<string>())
            .OfType<string>()
            .Distinct()
            .Take(2)
            .ToArray();
        Assert.Equal(2, dois.Length);
        var file = System.IO.Path.Combine(System.IO.Path.GetTempPath(), $"ties-{Guid.NewGuid():N}.csv");
        File.WriteAllText(
            file,
            $"citing,cited\n{dois[0]},{dois[1]}\n{dois[1]},{dois[0]}\n{dois[0]},10.5555/nobody.at.all\nno,row\n"
        );
        try
        {
            b.Go("/databases");
            b.Sees("Citations from elsewhere");
            b.Sees("texts give the references that records lack");
            b.Click("Add citations from a table");
            b.On("[aria-label='Table of citations']", e => e.SendKeys(file));
            b.Fill("[role=dialog] input:not([type=file])", "Two by two");
            Assert.Empty(b.AxeFindings());
            b.Click("Add its citations");
            b.Sees("table of 4 rows, 1 without two DOIs");
            b.Until(
                () =>
                    b.Text.Contains("added", StringComparison.Ordinal)
                    && Row(b).Contains("2\ncitations", StringComparison.Ordinal),
                "its citations"
            );
            Assert.Contains("1\nunknown DOIs", Row(b), StringComparison.Ordinal);
            b.Click("remove");
            b.Click("remove its 2 citations");
            b.SeesNot("Two by two");
            // What is no table is refused, and said.
            File.WriteAllText(file, "title,year\nMoths,2001\n");
            b.Click("Add citations from a table");
            b.On("[aria-label='Table of citations']", e => e.SendKeys(file));
            b.Click("Add its citations");
            b.Sees("The table needs a column whose name has “citing” in it");
        }
        finally
        {
            File.Delete(file);
        }
    }

    private static string Row(Browser b) =>
        b.All("section li")
            .Select(l => l.Text)
            .FirstOrDefault(t => t.StartsWith("Two by two", StringComparison.Ordinal))
        ?? "";
}
