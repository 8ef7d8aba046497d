using Zendle.Core.FullText;
using Zendle.Core.Records;
using Zendle.Core.Venues;

namespace Zendle.Core.Tests.FullText;

public sealed class OpenAccessTests
{
    [Theory]
    [InlineData(CopyAccess.Free, WorkVersion.VersionOfRecord, "open as published")]
    [InlineData(CopyAccess.Free, WorkVersion.AcceptedManuscript, "open in another version")]
    [InlineData(CopyAccess.Free, null, "open in another version")]
    [InlineData(CopyAccess.Closed, WorkVersion.VersionOfRecord, "not open")]
    [InlineData(CopyAccess.Unknown, null, "not said")]
    public void One_copy_says_what_it_is(CopyAccess access, WorkVersion? version, string word) =>
        Assert.Equal(word, OpenAccess.Of(TextAtHand.Best([new("http://a.example/1", access, version)])));

    [Fact]
    public void Without_copies_nothing_is_said() => Assert.Equal("not said", OpenAccess.Of(TextAtHand.Best([])));

    [Fact]
    public void A_journal_goes_by_its_best_quartile()
    {
        static Standing In(int quartile) =>
            new("Ecology", 2025, 10, 20, 1, 9, quartile, quartile == 0 ? "not enough items" : null);
        Assert.Equal("second quartile", Standing.Words[Standing.Best([In(4), In(2), In(0)])]);
        Assert.Equal("not ranked", Standing.Words[Standing.Best([In(0)])]);
        Assert.Equal("not ranked", Standing.Words[Standing.Best([])]);
        Assert.Equal("first quartile", Standing.Words[Standing.Best([In(1)])]);
    }
}
