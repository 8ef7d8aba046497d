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
    public void A_copy_under_embargo_is_free_from_its_day_on()
    {
        Copy sold = new("http://p.example/1", CopyAccess.Closed, WorkVersion.VersionOfRecord);
        Copy held = new("http://r.example/1", CopyAccess.Closed, WorkVersion.AcceptedManuscript, new(2027, 5, 1));
        Copy[] copies = [sold, held, held with { Address = "http://r.example/2", OpensOn = new(2028, 1, 1) }];
        Assert.Equal("not open yet", OpenAccess.Of(TextAtHand.Best(copies)));
        Assert.Equal(
            ("free from 1 May 2027", new DateOnly(2027, 5, 1)),
            (TextAtHand.Said(copies), TextAtHand.FreeFrom(copies))
        );
        Assert.False(TextAtHand.IsFree(TextAtHand.Best(copies)));
        Assert.Equal(("not free", null), (TextAtHand.Said([sold]), TextAtHand.FreeFrom([sold])));
        // A free preprint is there today.
        Copy free = new("http://s.example/1", CopyAccess.Free, WorkVersion.SubmittedManuscript);
        Assert.Equal(
            ("free, submitted manuscript", null),
            (TextAtHand.Said([.. copies, free]), TextAtHand.FreeFrom([.. copies, free]))
        );
        var record = new Core.Records.Record { Identifier = "r", Copies = copies };
        Assert.Same(record, record.On(new(2027, 4, 30)));
        var later = record.On(new(2027, 5, 1));
        Assert.Equal([CopyAccess.Closed, CopyAccess.Free, CopyAccess.Closed], later.Copies.Select(c => c.Access));
        Assert.Equal(new DateOnly(2028, 1, 1), later.OpensOn);
        Assert.Equal("free, accepted manuscript", TextAtHand.Said([.. later.Copies]));
    }

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
