using System.Web;
using Zendle.Core.Holdings;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Holdings;

/// <summary>OpenURL 1.0, ANSI/NISO Z39.88-2004.</summary>
public sealed class OpenUrlTests
{
    private static System.Collections.Specialized.NameValueCollection Asked(
        Record record,
        string resolver = "https://r.example/find"
    )
    {
        var chosen = ChosenFields.From([new(1, 1, 0, record)]);
        var address = OpenUrl.For(new(resolver), chosen, record.Venue?.Issn is { } issn ? [issn] : []);
        return HttpUtility.ParseQueryString(address.Query);
    }

    [Fact]
    public void An_article_is_asked_for_by_all_that_is_known_of_it()
    {
        var asked = Asked(
            new()
            {
                Identifier = "a",
                Title = "Lamps & moths: 50 % more?",
                People = [new("Børg", "Mei K.")],
                Year = 2019,
                Type = DocumentType.Article,
                Doi = "10.5555/a(b)c",
                Venue = new("Night and Hedge", "9000-1370", "12", "3", "101", "118"),
            }
        );
        Assert.Equal("Z39.88-2004", asked["url_ver"]);
        Assert.Equal("info:ofi/fmt:kev:mtx:journal", asked["rft_val_fmt"]);
        Assert.Equal("info:doi/10.5555/a(b)c", asked["rft_id"]);
        Assert.Equal(
            ("article", "Lamps & moths: 50 % more?", "Night and Hedge", "9000-1370"),
            (asked["rft.genre"], asked["rft.atitle"], asked["rft.jtitle"], asked["rft.issn"])
        );
        Assert.Equal(
            ("2019", "12", "3", "101", "118", "Børg", "Mei K."),
            (
                asked["rft.date"],
                asked["rft.volume"],
                asked["rft.issue"],
                asked["rft.spage"],
                asked["rft.epage"],
                asked["rft.aulast"],
                asked["rft.aufirst"]
            )
        );
    }

    [Fact]
    public void A_chapter_names_its_book_and_a_book_itself()
    {
        var chapter = Asked(
            new()
            {
                Identifier = "a",
                Title = "Of lamps",
                Type = DocumentType.Chapter,
                Isbn = "9780306406157",
                Venue = new("Night, a handbook"),
            }
        );
        Assert.Equal(
            ("bookitem", "Of lamps", "Night, a handbook", "9780306406157"),
            (chapter["rft.genre"], chapter["rft.atitle"], chapter["rft.btitle"], chapter["rft.isbn"])
        );
        var book = Asked(
            new()
            {
                Identifier = "b",
                Title = "Night, a handbook",
                Type = DocumentType.Book,
                Isbn = "9780306406157",
            }
        );
        Assert.Equal(("book", "Night, a handbook"), (book["rft.genre"], book["rft.btitle"]));
        Assert.Null(book["rft.atitle"]);
    }

    [Fact]
    public void What_the_resolver_has_in_its_address_stays() =>
        Assert.Equal(
            "7",
            Asked(new() { Identifier = "a", Title = "A" }, "https://r.example/find?customer=7")["customer"]
        );
}
