using Zendle.Core.Citing;
using Zendle.Core.Formats;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Citing;

public sealed class CitingTests
{
    private static readonly string[] Shipped = ["en-US", "en-GB", "de-DE", "de-AT", "pt-PT", "pt-BR", "la"];

    [Theory]
    [InlineData("de-AT", null, "de-AT", null)]
    [InlineData("DE-at", null, "de-AT", null)]
    [InlineData("de-CH", null, "de-DE", "There is no locale for de-CH; de-DE is used.")]
    [InlineData("pt", null, "pt-PT", "There is no locale for pt; pt-PT is used.")]
    [InlineData("la-VA", null, "la", "There is no locale for la-VA; la is used.")]
    [InlineData("xx-XX", null, "en-US", "There is no locale for xx-XX; English is used.")]
    [InlineData("", "en-GB", "en-GB", null)] // the style's own language when none is asked for
    [InlineData(null, null, "en-US", null)]
    [InlineData("fr-FR", "en-GB", "en-US", "There is no locale for fr-FR; English is used.")]
    public void A_missing_locale_falls_back_and_says_so(string? asked, string? styles, string used, string? note) =>
        Assert.Equal(new LocaleChoice(used, note), LocaleChoice.Of(asked, styles, Shipped));

    private static Citation Article =>
        new()
        {
            WorkId = 1,
            Title = "A title",
            Authors = [new("Voss", "A.")],
            Year = 2001,
            Type = DocumentType.Article,
            Venue = new("Journal", Volume: "4", FirstPage: "10"),
        };

    [Fact]
    public void What_is_missing_is_named()
    {
        Assert.Empty(CitationGaps.Of(Article));
        Assert.Equal(["people", "year"], CitationGaps.Of(Article with { Authors = [], Year = null }));
        Assert.Equal(["venue"], CitationGaps.Of(Article with { Venue = null }));
        Assert.Equal(["volume", "pages"], CitationGaps.Of(Article with { Venue = new("Journal") }));
        Assert.Equal(["volume"], CitationGaps.Of(Article with { Venue = new("Journal"), Doi = "10.5555/a" })); // a DOI stands for pages
        Assert.Equal(["publisher"], CitationGaps.Of(Article with { Type = DocumentType.Book, Venue = null }));
        Assert.Empty(CitationGaps.Of(Article with { Type = DocumentType.Preprint, Venue = null }));
        Assert.Equal(["title"], CitationGaps.Of(Article with { Title = "" }));
    }
}
