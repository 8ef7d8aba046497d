using Zendle.Documents.Citing;

namespace Zendle.Server.Tests;

public sealed class ReferenceFormatterTests : IDisposable
{
    private const string Items = """
        [{"id":"a","type":"article-journal","title":"Moths & lamps in <i>Silene</i>",
          "author":[{"family":"Voss","given":"Ada Bea"},{"family":"Kaskba","given":"Li"}],"issued":{"date-parts":[[2021]]},
          "container-title":"Verge","volume":"4","issue":"2","page":"10-20","DOI":"10.5555/x.1"},
         {"id":"b","type":"book","title":"Nobody's night","publisher":"Ambry"},
         {"id":"c","type":"article-journal","title":"Dark <script>alert(1)</script>",
          "author":[{"literal":"Night Group"}],"issued":{"date-parts":[[1999]]},"container-title":"Verge"}]
        """;

    private readonly StyleShelf shelf = StyleShelf.Shipped();
    private readonly ReferenceFormatter formatter;

    public ReferenceFormatterTests() => formatter = new(shelf);

    public void Dispose()
    {
        formatter.Dispose();
        shelf.Dispose();
    }

    private async Task<FormattedBibliography> Own(string locale = "en-US") =>
        await formatter.Format(shelf.Find(StyleShelf.Own)!, locale, Items, CancellationToken.None);

    [Fact]
    public async Task References_are_whole_in_the_order_of_the_style_and_say_what_they_can()
    {
        var made = await Own();
        // By people, then year; a work nobody is named for stands under its title.
        Assert.Equal(["c", "b", "a"], made.References.Select(r => r.Id));
        Assert.Equal(
            "Voss, A. B. and Kaskba, L. (2021). Moths & lamps in Silene. Verge 4(2), 10–20. doi:10.5555/x.1.",
            made.References[2].Text
        );
        Assert.Equal(
            """<div class="csl-entry">Voss, A. B. and Kaskba, L. (2021). Moths &amp; lamps in <i>Silene</i>. """
                + """<i>Verge</i> <b>4</b>(2), 10–20. doi:10.5555/x.1.</div>""",
            made.References[2].Html
        );
        Assert.Equal("Nobody’s night (n.d.). Ambry.", made.References[1].Text);
    }

    [Fact]
    public async Task Words_between_follow_the_language()
    {
        Assert.Contains(
            "Voss, A. B. und Kaskba, L. (2021)",
            (await Own("de-DE")).References[2].Text,
            StringComparison.Ordinal
        );
        Assert.Contains(
            "(o. J.)",
            (await Own("de-DE")).References[1].Text.Replace('\u00a0', ' '),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Nothing_that_acts_comes_through_a_title() =>
        Assert.All(
            (await Own()).References,
            r => Assert.DoesNotMatch("<(?!/?(i|b|div|span|sup|sub|em|strong)[ >])", r.Html)
        );

    [Fact]
    public void The_shelf_is_full_and_found_by_any_words_of_a_title()
    {
        Assert.True(shelf.Count > 10_000);
        Assert.Contains("en-GB", shelf.Locales);
        Assert.Equal(StyleShelf.Own, shelf.Search("year zendle")[0].Key);
        Assert.Empty(shelf.Search("no style is called like that"));
        Assert.All(
            shelf.Search("ecol"),
            s => Assert.Contains("ecol", Zendle.Core.Text.Words.Fold(s.Title), StringComparison.Ordinal)
        ); // accents do not count
        Assert.Null(shelf.Find("no-such-style"));
        Assert.Null(shelf.LocaleXml("xx-XX"));
    }

    [Fact]
    public async Task A_dependent_style_formats_as_the_one_it_follows()
    {
        var dependent = shelf.Search("journal").First(s => s.Parent is not null);
        var (own, parent) = (
            await formatter.Format(dependent, "en-US", Items, CancellationToken.None),
            await formatter.Format(shelf.Find(dependent.Parent!)!, "en-US", Items, CancellationToken.None)
        );
        Assert.Equal(parent.References, own.References);
    }

    [Fact]
    public async Task Many_styles_in_turn_all_name_who_wrote()
    {
        foreach (var style in shelf.Search("of").Take(30))
        {
            var made = await formatter.Format(style, "en-US", Items, CancellationToken.None);
            Assert.True(made.References.Count == 3, style.Key);
            Assert.Contains(made.References, r => r.Text.Contains("Voss", StringComparison.OrdinalIgnoreCase));
        }
    }
}
