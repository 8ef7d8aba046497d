using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

/// <summary>A chapter's pages are found in the file of its book.</summary>
public sealed class ChapterPagesTests
{
    private const string Body =
        " words of the body that go on and on about hedges, lamps and what flies between them at night";

    private static ExpectedWork Chapter(string title, string family, int? pages = null) =>
        new([title], [new(family, "A.")], [], 2019, "", DocumentType.Chapter) { PageCount = pages };

    /// <summary>Title page, contents, then two chapters of three and two pages, printed as pages 1 and 4.</summary>
    private static TextPage[] Book(string head = "") =>
        [
            new(1, "Nights A handbook edited by Ylva Orm"),
            new(2, "Contents Lamps in lanes and fields Berg 1 Moths that cross the road Lind 4 Index 6"),
            new(3, "Lamps in lanes and fields Mei Berg" + Body),
            new(4, head + Body),
            new(5, head + Body),
            new(6, "Moths that cross the road Bo Lind" + Body),
            new(7, Body),
        ];

    /// <summary>The same as a document, as far as it is read for finding a chapter in it.</summary>
    private static DocumentFacts Whole(int pages = 7) =>
        new()
        {
            Pages = pages,
            WordCount = 2_400,
            Lines = [.. Book().Take(3).Select(p => new DocumentLine(p.Text, p.Page, 10, false))],
            Text = Book(),
            BodySize = 10,
        };

    [Theory]
    [InlineData(DocumentType.Chapter, 3, true)]
    [InlineData(DocumentType.Chapter, null, true)]
    // Some databases call what stands in a book an article, and articles come in the file of their issue.
    [InlineData(DocumentType.Article, 3, true)]
    // A file that is hardly longer is the article's own, whatever else is wrong with it.
    [InlineData(DocumentType.Article, 5, false)]
    public void A_work_is_cut_out_of_a_file_that_holds_more(DocumentType type, int? pages, bool isCut) =>
        Assert.Equal(
            isCut ? new PageRange(3, 5) : null,
            ChapterPages.OutOf(Whole(), Chapter("Lamps in lanes and fields", "Berg", pages) with { Type = type })
        );

    [Fact]
    public void A_file_that_passes_for_an_article_stays_whole_and_no_page_format_is_cut()
    {
        var own = Whole() with
        {
            Lines = [new("Lamps in lanes and fields", 1, 16, true), new("Mei Berg", 1, 11, false)],
        };
        var article = Chapter("Lamps in lanes and fields", "Berg", 3) with { Type = DocumentType.Article };
        Assert.Null(ChapterPages.OutOf(own, article));
        Assert.Null(ChapterPages.OutOf(Whole() with { Format = TextFormat.Html }, article));
    }

    [Fact]
    public void What_one_record_calls_a_chapter_is_looked_for_in_its_book()
    {
        Assert.Equal(
            DocumentType.Chapter,
            ExpectedWork.TypeOf(DocumentType.Article, [DocumentType.Article, DocumentType.Chapter])
        );
        Assert.Equal(DocumentType.Article, ExpectedWork.TypeOf(DocumentType.Article, [DocumentType.Article]));
    }

    [Fact]
    public void As_many_as_its_record_says() =>
        Assert.Equal(new(3, 5), ChapterPages.Find(Book(), 7, Chapter("Lamps in lanes and fields", "Berg", 3)));

    [Fact]
    public void Or_up_to_the_next_by_the_table_of_contents()
    {
        Assert.Equal(new(3, 5), ChapterPages.Find(Book(), 7, Chapter("Lamps in Lanes and Fields", "Berg")));
        Assert.Equal(new(6, 7), ChapterPages.Find(Book(), 7, Chapter("Moths that cross the road", "Lind")));
    }

    [Theory]
    // Its numbers count otherwise than the pages do; stand before the titles; and are of a chapter that comes sooner.
    [InlineData("Contents Lamps in lanes and fields Berg 101 Moths that cross the road Lind 117 Index 130")]
    [InlineData("Contents 1 Lamps in lanes and fields Berg 4 Moths that cross the road Lind 6 Index")]
    [InlineData("Contents Lamps in lanes and fields Berg 101 Moths that cross the road Lind 102")]
    public void Where_the_next_begins_says_more_than_the_numbers_of_the_table(string contents)
    {
        var pages = Book().Select(p => p.Page == 2 ? p with { Text = contents } : p).ToArray();
        Assert.Equal(new(3, 5), ChapterPages.Find(pages, 7, Chapter("Lamps in lanes and fields", "Berg")));
    }

    [Fact]
    public void A_title_that_the_record_has_with_a_slip_is_found_where_its_people_stand_too()
    {
        var pages = Book();
        Assert.Equal(new(3, 5), ChapterPages.Find(pages, 7, Chapter("Lamps in lines and fields", "Berg", 3)));
        // Without anyone near, or with more than a slip, it is another chapter's.
        Assert.Null(ChapterPages.Find(pages, 7, Chapter("Lamps in lines and fields", "Quist", 3)));
        Assert.Null(ChapterPages.Find(pages, 7, Chapter("Lamps in lines and gardens", "Berg", 3)));
        // The one that is it word for word comes before one that is nearly it.
        TextPage[] two = [.. pages, new(8, "Lamps in lines and fields Mei Berg" + Body), new(9, Body)];
        Assert.Equal(new(8, 9), ChapterPages.Find(two, 9, Chapter("Lamps in lines and fields", "Berg", 2)));
    }

    [Theory]
    [InlineData("3 Lamps in lines and fields, Mei Berg, pp. 3–5", "Lamps in lanes and fields", true)]
    [InlineData("Lamps in lines and gardens", "Lamps in lanes and fields", false)]
    [InlineData(
        "Regional variation in richness of meadow plants",
        "Regonal variaton in richnes of meadow plants",
        true
    )]
    [InlineData(
        "Regional variation in richness of meadow plants",
        "Seasonal changes in rarity of meadow plants",
        false
    )]
    [InlineData("Lamps in lines", "Lamps in lanes", false)]
    [InlineData("fields and lanes in lamps", "Lamps in lanes and fields", false)]
    public void A_row_nearly_names_a_title_when_four_fifths_of_its_words_stand_in_order(
        string row,
        string title,
        bool names
    ) => Assert.Equal(names, ListedTitle.NearlyNames(row, title));

    [Fact]
    public void The_last_of_the_table_goes_on_to_the_back_matter_or_the_end()
    {
        var pages = Book()
            .Select(p =>
                p.Page == 2
                    ? p with
                    {
                        Text = "Contents Lamps in lanes and fields Berg 1 Moths that cross the road Lind 4",
                    }
                    : p
            )
            .ToArray();
        var last = Chapter("Moths that cross the road", "Lind");
        Assert.Equal(new(6, 7), ChapterPages.Find(pages, 7, last));
        Assert.Equal(new(6, 7), ChapterPages.Find([.. pages, new(8, "Index hedges 3 lamps 4")], 8, last));
        // Numbers of the text that follows are none of the table's.
        pages[2] = pages[2] with
        {
            Text = pages[2].Text + " 5 lamps in 12 lanes",
        };
        Assert.Equal(new(6, 7), ChapterPages.Find(pages, 7, last));
    }

    [Fact]
    public void A_file_whose_contents_list_the_chapter_is_a_books()
    {
        var chapter = Chapter("Lamps in lanes and fields", "Berg");
        Assert.True(ChapterPages.HasContents(Book(), chapter));
        Assert.False(ChapterPages.HasContents(Book()[2..5], chapter));
        // Contents of the chapter itself list its sections.
        TextPage[] own = [new(1, "Contents 1 Introduction 1 2 Methods 3"), .. Book()[2..5]];
        Assert.False(ChapterPages.HasContents(own, chapter));
    }

    [Fact]
    public void Or_as_long_as_running_heads_name_it()
    {
        var pages = Book("Lamps in lanes and fields 17").Where(p => p.Page != 2).ToArray();
        Assert.Equal(new(3, 5), ChapterPages.Find(pages, 7, Chapter("Lamps in lanes and fields", "Berg")));
    }

    [Theory]
    [InlineData(null)]
    [InlineData(2)]
    public void A_page_that_has_its_head_belongs_to_it_whatever_contents_or_record_say(int? said)
    {
        var pages = Book("Lamps in lanes and fields 17")
            .Select(p =>
                p.Page == 2 ? p with { Text = p.Text.Replace("Lind 4", "Lind 2", StringComparison.Ordinal) } : p
            )
            .ToArray();
        Assert.Equal(new(3, 5), ChapterPages.Find(pages, 7, Chapter("Lamps in lanes and fields", "Berg", said)));
    }

    [Fact]
    public void What_does_not_stand_as_a_title_with_its_people_is_not_found()
    {
        Assert.Null(ChapterPages.Find(Book(), 7, Chapter("Lamps in lanes and fields", "Quist", 3)));
        Assert.Null(ChapterPages.Find(Book(), 7, Chapter("Lamps in streets", "Berg", 3)));
        // A contents page alone is no chapter, nor is a mention far down a page.
        Assert.Null(ChapterPages.Find(Book()[..2], 2, Chapter("Lamps in lanes and fields", "Berg", 3)));
        Assert.Null(
            ChapterPages.Find(
                [new(1, string.Concat(Enumerable.Repeat("word ", 80)) + "Lamps in lanes and fields Mei Berg" + Body)],
                1,
                Chapter("Lamps in lanes and fields", "Berg", 3)
            )
        );
        // Where nothing tells its length none is guessed.
        Assert.Null(
            ChapterPages.Find(
                [new(9, "Lamps in lanes and fields Mei Berg" + Body)],
                40,
                Chapter("Lamps in lanes and fields", "Berg")
            )
        );
    }

    [Fact]
    public void It_never_goes_beyond_the_file() =>
        Assert.Equal(new(6, 7), ChapterPages.Find(Book(), 7, Chapter("Moths that cross the road", "Lind", 30)));

    [Theory]
    [InlineData("3. Moths that cross the road, Lind, pp. 4–6 PDF", "Moths that cross the road", true)]
    [InlineData("MOTHS THAT CROSS THE ROAD", "Moths that cross the road", true)]
    [InlineData("Moths that cross a road", "Moths that cross the road", false)]
    [InlineData("Introduction", "Introduction", true)]
    [InlineData("Introduction to the moths of roads", "Introduction", false)]
    [InlineData("", "Introduction", false)]
    public void A_row_of_a_table_of_contents_names_a_title(string row, string title, bool names) =>
        Assert.Equal(names, ListedTitle.Names(row, title));
}
