using Zendle.Core.Records;

namespace Zendle.Core.Tests.Records;

/// <summary>How many pages a record tells of.</summary>
public sealed class PageCountTests
{
    [Theory]
    [InlineData("118", "131", 14)]
    [InlineData("7", "7", 1)]
    [InlineData("S12", "S19", 8)]
    [InlineData("e1001", null, null)]
    [InlineData(null, null, null)]
    [InlineData("131", "118", null)]
    [InlineData("S12", "19", null)]
    [InlineData("xii", "xx", null)]
    [InlineData("1", "99999999999", null)]
    public void Pages_are_counted_from_the_first_to_the_last(string? first, string? last, int? pages) =>
        Assert.Equal(pages, new VenuePart("Verge", FirstPage: first, LastPage: last).PageCount);
}
