using Xunit;
using Zendle.Core.Trails;

namespace Zendle.Core.Tests.Trails;

public sealed class TieTableTests
{
    private static TieRow[] Read(string table) => [.. TieTable.Read(new StringReader(table))];

    [Theory]
    [InlineData("citing,cited\n10.5555/A,10.5555/b\n")]
    [InlineData("oci,citing,cited,creation,timespan\n01-02,doi:10.5555/a,\"https://doi.org/10.5555/B\",2019,P1Y\n")]
    [InlineData("cited;citing\n10.5555/b;10.5555/a")]
    [InlineData("Citing DOI\tCited DOI\r\n10.5555/a\t10.5555/b\r\n")]
    [InlineData("10.5555/a,10.5555/b")]
    [InlineData("12,10.5555/a,x,10.5555/b\n")]
    [InlineData("﻿citing,cited\ndoi:10.5555/a meta:br/0601 pmid:12,meta:br/0602 doi:10.5555/b")]
    [InlineData("citing_doi|cited_doi\n10.5555/a|10.5555/b\n")]
    [InlineData("sep=;\nciting;cited\n10.5555/a;10.5555/b\n")]
    [InlineData("# made on Monday, by hand\nciting,cited\n10.5555/a,10.5555/b\n")]
    [InlineData("citing cited\n10.5555/a 10.5555/b\n")]
    [InlineData("\"10.5555/a\" \"10.5555/b\"\n")]
    [InlineData("cited_by_count,cited_doi,citing_title,citing_doi\n4,10.5555/b,Moths,10.5555/a\n")]
    public void Columns_are_known_by_their_names_or_by_their_DOIs(string table) =>
        Assert.Equal([new("10.5555/a", "10.5555/b")], Read(table));

    [Fact]
    public void A_row_without_two_DOIs_is_told_and_ends_nothing() =>
        Assert.Equal(
            [new("10.5555/a", null), new(null, "10.5555/b"), new(null, null), new("10.5555/c", "10.5555/d")],
            Read("citing,cited\n10.5555/a,\nx,10.5555/b\nonly one cell\n10.5555/c,10.5555/d\n")
        );

    [Theory]
    [InlineData("", "empty")]
    [InlineData("title,year\nMoths,2004\n", "title, year")]
    [InlineData("10.5555/a,Moths\n", "two")]
    [InlineData("citing and cited,year\n10.5555/a,2004\n", "citing and cited, year")]
    public void What_is_no_such_table_is_said_in_a_sentence(string table, string says) =>
        Assert.Contains(says, Assert.Throws<FormatException>(() => Read(table)).Message, StringComparison.Ordinal);

    [Fact]
    public void A_quotation_mark_that_is_never_closed_does_not_swallow_the_rest()
    {
        var table =
            "citing,cited\n\"10.5555/a,10.5555/b\n" + string.Concat(Enumerable.Repeat("10.5555/c,10.5555/d\n", 5_000));
        Assert.Contains(
            "quotation mark",
            Assert.Throws<FormatException>(() => Read(table)).Message,
            StringComparison.Ordinal
        );
    }
}
