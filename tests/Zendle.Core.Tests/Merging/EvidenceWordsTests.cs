using Zendle.Core.Merging;

namespace Zendle.Core.Tests.Merging;

/// <summary>What speaks for and against two records being one work, in words.</summary>
public sealed class EvidenceWordsTests
{
    private static readonly Comparison Same = new(
        IdentifierLevel.Same,
        TitleLevel.Same,
        YearLevel.Same,
        PeopleLevel.Same,
        LocationLevel.Same,
        KindLevel.Same
    );
    private static readonly Comparison Other = new(
        IdentifierLevel.Different,
        TitleLevel.Different,
        YearLevel.Different,
        PeopleLevel.None,
        LocationLevel.OtherVenue,
        KindLevel.Apart
    );

    [Fact]
    public void What_speaks_for_and_against_is_said_the_strongest_first()
    {
        Assert.Equal(
            ["same identifier", "same title", "same people", "same venue and page", "same year"],
            EvidenceWords.For(Same)
        );
        Assert.Empty(EvidenceWords.Against(Same));
        Assert.Equal(
            [
                "identifiers differ",
                "titles differ",
                "people differ",
                "other venue",
                "years far apart",
                "kinds that rarely are one work",
            ],
            EvidenceWords.Against(Other)
        );
        Assert.Empty(EvidenceWords.For(Other));
        Assert.Equal(
            [
                "one declares the other a version",
                "one title begins the other",
                "one list of people is shorter",
                "same venue",
            ],
            EvidenceWords.For(
                new(
                    IdentifierLevel.DeclaredVersion,
                    TitleLevel.Beginning,
                    YearLevel.OneApart,
                    PeopleLevel.Shortened,
                    LocationLevel.SameVenue,
                    KindLevel.PaperAndArticle
                )
            )
        );
        Assert.Equal(
            ["years one apart", "conference paper and article"],
            EvidenceWords.Against(
                new(
                    IdentifierLevel.Unknown,
                    TitleLevel.Same,
                    YearLevel.OneApart,
                    PeopleLevel.Same,
                    LocationLevel.Unknown,
                    KindLevel.PaperAndArticle
                )
            )
        );
    }

    [Fact]
    public void No_level_is_said_to_speak_both_for_and_against()
    {
        foreach (var title in Enum.GetValues<TitleLevel>())
        foreach (var people in Enum.GetValues<PeopleLevel>())
        foreach (var place in Enum.GetValues<LocationLevel>())
        {
            var c = new Comparison(IdentifierLevel.Unknown, title, YearLevel.Unknown, people, place, KindLevel.Unknown);
            var known = new object[] { title, people, place }.Count(l => l.ToString() != "Unknown");
            Assert.Equal(known, EvidenceWords.For(c).Count + EvidenceWords.Against(c).Count);
        }
    }
}
