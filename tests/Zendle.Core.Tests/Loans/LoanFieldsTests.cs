using Zendle.Core.Loans;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Loans;

/// <summary>Requests are filled from a work's records, and held against what a desk needs.</summary>
public sealed class LoanFieldsTests
{
    private static readonly DateOnly Today = new(2026, 11, 29);

    private static LoanFields Of(Record record) => LoanFields.Of(ChosenFields.From([new(1, 1, 0, record)]));

    private static readonly Record Article = new()
    {
        Identifier = "a",
        Title = "Lamps and moths",
        People = [.. Enumerable.Range(1, 7).Select(i => new PersonName($"Tal{i}", "U."))],
        Year = 2019,
        Type = DocumentType.Article,
        Doi = "10.5555/abc",
        Venue = new("Night and Hedge", "9000-1370", "12", "3", "101", "118"),
    };

    private static string Faults(LoanFields fields) =>
        string.Join(", ", LoanCheck.Of(fields, Today).Select(f => $"{f.Field} {f.Fault}{(f.Stops ? "!" : "")}"));

    [Fact]
    public void An_article_is_asked_for_as_a_copy_out_of_its_journal()
    {
        var fields = Of(Article);
        Assert.Equal(
            ("Article", LoanService.Copy, "Night and Hedge", "12", "3", "101–118", "2019", "9000-1370", "10.5555/abc"),
            (
                fields.Kind,
                fields.Service,
                fields.In,
                fields.Volume,
                fields.Issue,
                fields.Pages,
                fields.Date,
                fields.Issn,
                fields.Doi
            )
        );
        Assert.Equal("Tal1, U.; Tal2, U.; Tal3, U.; Tal4, U.; Tal5, U.; et al.", fields.People);
        Assert.Equal("", Faults(fields));
    }

    [Fact]
    public void A_book_is_asked_for_as_a_loan_and_a_chapter_as_a_copy()
    {
        var book = Of(Article with { Type = DocumentType.Book, Venue = new("A series"), Isbn = "9780306406157" });
        Assert.Equal(("Book", LoanService.Loan, ""), (book.Kind, book.Service, book.In));
        Assert.Equal("", Faults(book));
        var chapter = Of(Article with { Type = DocumentType.Chapter, Venue = new("Night Work", FirstPage: "7") });
        Assert.Equal(
            ("Chapter", LoanService.Copy, "Night Work", "7"),
            (chapter.Kind, chapter.Service, chapter.In, chapter.Pages)
        );
    }

    [Theory]
    [InlineData("title", "", "Title NoTitle!")]
    [InlineData("people", "", "People NoPeople")]
    [InlineData("in", "", "In NoContainer!")]
    [InlineData("pages", "118–101", "Pages BadPages!")]
    [InlineData("pages", "S12-S7", "")]
    [InlineData("pages", "S12-S07", "Pages BadPages!")]
    [InlineData("pages", "319–22", "")]
    [InlineData("pages", "e1045", "")]
    [InlineData("pages", "12–S3", "")]
    [InlineData("date", "", "Date NoDate")]
    [InlineData("date", "spring 2019", "Date BadDate!")]
    [InlineData("date", "2029", "Date BadDate!")]
    [InlineData("date", "2027", "")]
    [InlineData("issn", "9000-1371", "Issn BadNumber!")]
    [InlineData("isbn", "9780306406158", "Isbn BadNumber!")]
    [InlineData("isbn", "0-306-40615-2", "")]
    [InlineData("doi", "doi.example/abc", "Doi BadDoi!")]
    [InlineData("service", "", "Service PartAsLoan!")]
    public void Each_fault_is_told_at_its_field(string field, string value, string expected)
    {
        var fields = Of(Article);
        fields = field switch
        {
            "title" => fields with { Title = value },
            "people" => fields with { People = value },
            "in" => fields with { In = value },
            "pages" => fields with { Pages = value },
            "date" => fields with { Date = value },
            "issn" => fields with { Issn = value },
            "isbn" => fields with { Isbn = value },
            "doi" => fields with { Doi = value },
            _ => fields with { Service = LoanService.Loan },
        };
        Assert.Equal(expected, Faults(fields));
    }

    [Fact]
    public void A_whole_book_is_no_copy_and_a_part_without_any_location_is_hard_to_find()
    {
        Assert.Equal(
            "Service WholeAsCopy!",
            Faults(Of(Article with { Type = DocumentType.Book }) with { Service = LoanService.Copy, Pages = "" })
        );
        Assert.Equal(
            "Pages NoLocation",
            Faults(Of(Article with { Doi = null, Venue = new("Night and Hedge", "9000-1370") }))
        );
        Assert.Equal("Note TooLong!", Faults(Of(Article) with { Note = new('n', 1_001) }));
    }
}
