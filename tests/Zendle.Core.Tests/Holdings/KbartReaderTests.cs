using Zendle.Core.Holdings;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Holdings;

public sealed class KbartReaderTests
{
    private const string Head =
        "publication_title\tprint_identifier\tonline_identifier\tdate_first_issue_online\tnum_first_vol_online\t"
        + "num_first_issue_online\tdate_last_issue_online\tnum_last_vol_online\tnum_last_issue_online\ttitle_url\t"
        + "embargo_info\tcoverage_depth\tpublication_type\n";

    private static KbartRow[] Read(string text) => [.. KbartReader.Read(new StringReader(text))];

    [Fact]
    public void A_line_says_what_is_held_from_when_to_when()
    {
        var line = Assert
            .Single(
                Read(
                    Head
                        + "Night and “Hedge”\t9000-1370\t9000-2741\t1998-07\t12\t4\t2010\t40\t2-3\t"
                        + "http://a.example/n\tP1Y\tfulltext\tserial\n"
                )
            )
            .Line!;
        Assert.Equal("Night and “Hedge”", line.Title);
        Assert.Equal([9000137L, 9000274L], line.Keys);
        Assert.Equal(new CoverageEdge(new(1998, 7), 12, 4), line.First);
        Assert.Equal(new CoverageEdge(new(2010), 40, 2), line.Last);
        Assert.Equal(new EmbargoSpan(1, 'Y'), line.Embargo.HeldBack);
        Assert.False(line.IsBook);
        Assert.Equal("http://a.example/n", line.Address);
    }

    [Fact]
    public void Books_are_known_by_their_isbn_in_both_lengths()
    {
        // 0-306-40615-2 is 978-0-306-40615-7 (ISO 2108).
        var rows = Read(Head + "Lamps\t0-306-40615-2\t\t\t\t\t\t\t\t\t\t\tmonograph\nMoths\t\t9780306406157\n");
        Assert.All(rows, r => Assert.Equal([978030640615L], r.Line!.Keys));
        Assert.All(rows, r => Assert.True(r.Line!.IsBook));
    }

    [Theory]
    [InlineData("\uFEFFonline_identifier;publication_title;embargo_info\r\n9000-1370;\"Night; Hedge\";R5Y\r\n")]
    [InlineData("Online_Identifier,Publication_Title,Embargo_Info\n9000-1370,\"Night; Hedge\",R5Y\n")]
    [InlineData("publication_title\tembargo_info\tonline_identifier\n\"Night; Hedge\"\tR5Y\t9000-1370")]
    public void Columns_are_known_by_name_in_any_order_and_dress(string text)
    {
        var line = Assert.Single(Read(text)).Line!;
        Assert.Equal("Night; Hedge", line.Title);
        Assert.Equal(5, line.Embargo.Kept!.Value.Length);
    }

    [Fact]
    public void A_stray_quotation_mark_swallows_no_lines()
    {
        var rows = Read(Head + "\"Night\t9000-1370\n5\" lamps\t9000-2741\n");
        Assert.Equal(["\"Night", "5\" lamps"], rows.Select(r => r.Line!.Title));
    }

    [Fact]
    public void Lines_that_cannot_be_read_are_told_with_their_numbers_and_the_others_stand()
    {
        var rows = Read(
            Head
                + "A\tno number\n"
                + "\n"
                + "B\t9000-1370\t\t31.12.1998\n"
                + "C\t9000-1371\n"
                + "D\t9000-1370\t\t1998\n"
        );
        Assert.Equal(
            [
                (2, "it has no valid ISSN or ISBN"),
                (4, "a date in it is not valid"),
                (5, "it has no valid ISSN or ISBN"), // its check digit is wrong
            ],
            rows.Where(r => r.Fault is not null).Select(r => (r.Number, r.Fault!))
        );
        Assert.Equal("D", Assert.Single(rows, r => r.Line is not null).Line!.Title);
    }

    [Theory]
    [InlineData("", "has no column “publication_title”")]
    [InlineData("<html><body>Please sign in</body></html>", "has no column “publication_title”")]
    [InlineData("title\tissn\nA\t9000-1370\n", "has no column “publication_title”")]
    [InlineData(
        "publication_title\tissn\nA\t9000-1370\n",
        "neither a column “print_identifier” nor “online_identifier”"
    )]
    public void What_is_no_such_table_is_told_so(string text, string why) =>
        Assert.Contains(why, Assert.Throws<FormatException>(() => Read(text)).Message, StringComparison.Ordinal);

    [Fact]
    public void A_first_line_without_end_is_not_taken_into_memory() =>
        Assert.Throws<FormatException>(() => Read(new string('a', 200_000)));

    [Theory]
    [InlineData("2021", 2021, 0, 0)]
    [InlineData("2021-03", 2021, 3, 0)]
    [InlineData("2024-02-29", 2024, 2, 29)]
    [InlineData("2023-02-29", null, 0, 0)]
    [InlineData("2021-13", null, 0, 0)]
    [InlineData("2021-00", null, 0, 0)]
    [InlineData("21", null, 0, 0)]
    [InlineData("0000", null, 0, 0)]
    [InlineData("present", null, 0, 0)]
    public void Dates_are_read_as_far_as_they_are_told(string text, int? year, int month, int day) =>
        Assert.Equal(year is null ? null : new PartialDate(year.Value, month, day), PartialDate.Read(text));
}
