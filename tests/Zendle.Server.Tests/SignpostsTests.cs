using CsCheck;
using Zendle.Connect.Fetch;

namespace Zendle.Server.Tests;

public sealed class SignpostsTests
{
    private static readonly Uri Page = new("https://host.example/works/7");

    [Fact]
    public void Typed_links_are_read_from_the_header()
    {
        var signs = Signposts.Read(
            Page,
            [
                "<https://doi.example/10.5555/a>; rel=\"cite-as\", </works/7/text.html>; rel=item; "
                    + "type=\"text/html\", <text.pdf>;rel=\"item\" ;type=\"application/pdf; v=1\";title=\"a, b; c\"",
                "<https://x.example/by>; rel=\"license describedby\"",
            ],
            ""
        );
        Assert.Equal(["cite-as", "item", "item", "license", "describedby"], signs.Links.Select(l => l.Rel));
        Assert.Equal(new Uri("https://host.example/works/text.pdf"), signs.Texts[0].Address);
        Assert.Null(signs.Price);
        Assert.Null(signs.IsFree);
    }

    [Fact]
    public void Typed_links_are_read_from_the_head_and_nothing_from_the_body()
    {
        var signs = Signposts.Read(
            Page,
            [],
            "<html><head><link rel='ITEM' type='application/pdf' href='/a.pdf'><link rel=stylesheet "
                + "href=x.css></head><body><link rel=item href=/b.pdf></body></html>"
        );
        Assert.Equal(new Uri("https://host.example/a.pdf"), Assert.Single(signs.Texts).Address);
    }

    [Fact]
    public void A_page_without_a_text_has_none_and_a_text_of_unsaid_type_will_do()
    {
        Assert.Empty(Signposts.Read(Page, ["</a.png>; rel=item; type=image/png"], "").Texts);
        Assert.Equal(
            new Uri("https://host.example/a"),
            Assert.Single(Signposts.Read(Page, ["</a>; rel=item"], "").Texts).Address
        );
    }

    [Fact]
    public void Texts_come_as_pdf_then_xml_then_page_from_links_and_from_what_the_page_says()
    {
        var signs = Signposts.Read(
            Page,
            ["</a.html>; rel=item; type=text/html, </a>; rel=item, </a.xml>; rel=item; type=application/xml"],
            """
            <head><meta name="citation_pdf_url" content="/m.pdf"><META NAME="Citation_Full_Html_Url" content="full">
            <meta name="citation_title" content="/no.pdf"><link rel="alternate" type="application/pdf" href="/l.pdf">
            <link rel="alternate" type="application/rss+xml" href="/feed"></head>
            """
        );
        Assert.Equal(
            ["/l.pdf", "/m.pdf", "/a.xml", "/a.html", "/works/full", "/a"],
            signs.Texts.Select(t => t.Address.AbsolutePath)
        );
    }

    [Theory]
    [InlineData("""{"isAccessibleForFree":false,"offers":{"price":"29.00","priceCurrency":"eur"}}""", "29 EUR", false)]
    [InlineData("""{"offers":[{"price":34.5,"priceCurrency":"USD"}]}""", "34.5 USD", null)]
    [InlineData("""{"isAccessibleForFree":true}""", null, true)]
    [InlineData("""{"offers":{"price":"free"}}""", null, null)]
    [InlineData("""{"offers":{"price":0}}""", null, null)]
    [InlineData("""{"offers":""", null, null)]
    [InlineData("""[1,2]""", null, null)]
    [InlineData("""{"offers":{"price":{"x":1}},"isAccessibleForFree":"yes"}""", null, null)]
    public void A_price_is_read_from_the_description_of_the_page(string json, string? price, bool? free)
    {
        var signs = Signposts.Read(Page, [], $"<head><script type=\"application/ld+json\">{json}</script></head>");
        Assert.Equal((price, free), (signs.Price, signs.IsFree));
    }

    [Theory]
    [InlineData("<", 0)]
    [InlineData("<a>", 0)]
    [InlineData("<a>; rel", 0)]
    [InlineData("<a>; rel=\"item", 1)]
    [InlineData("<a>;;; rel=item ,,, <b>; rel=item", 2)]
    [InlineData("a; rel=item", 0)]
    public void Malformed_headers_give_what_they_can(string header, int links) =>
        Assert.Equal(links, Signposts.Read(Page, [header], "").Links.Count);

    [Fact]
    public void No_header_breaks_the_reader() =>
        Gen.OneOf("<", ">", ";", ",", "\"", "=", "rel", "item", "a", " ", "\\", "%")
            .Array[0, 40]
            .Sample(
                parts => Assert.True(Signposts.Read(Page, [string.Concat(parts)], "").Links.Count >= 0),
                iter: 2_000
            );
}
