using Zendle.Core.Merging;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.Merging;

public sealed class WeighingTests
{
    private static readonly Comparison Alike = new(
        IdentifierLevel.Unknown,
        TitleLevel.Same,
        YearLevel.Same,
        PeopleLevel.Same,
        LocationLevel.Unknown,
        KindLevel.Same
    );
    private static readonly Comparison Apart = Alike with { Title = TitleLevel.Different, Year = YearLevel.Near };

    [Fact]
    public void A_weight_is_the_log_of_how_often_a_level_occurs_among_the_same_and_among_others()
    {
        // Of 4 same pairs 3 have the same title and 1 a close one; of 8 others 1 has the same and 7 different ones.
        // Seven levels, half a count each.
        var pairs = Enumerable
            .Repeat((Alike, true), 3)
            .Append((Alike with { Title = TitleLevel.Close }, true))
            .Append((Alike, false))
            .Concat(Enumerable.Repeat((Apart, false), 7))
            .ToArray();
        var weights = WeightFit.Of(pairs);
        Assert.Equal(Math.Round(Math.Log2((3.5 / 7.5) / (1.5 / 11.5)), 3), weights.Title[TitleLevel.Same]);
        Assert.Equal(Math.Round(Math.Log2((0.5 / 7.5) / (7.5 / 11.5)), 3), weights.Title[TitleLevel.Different]);
        // The best cut lets all four true pairs in and the one false pair that looks like them.
        Assert.True(
            weights.Score(Alike) > weights.Threshold
                && weights.Score(Alike with { Title = TitleLevel.Close }) > weights.Threshold
                && weights.Score(Apart) < weights.Threshold
        );
    }

    [Fact]
    public void One_person_alike_is_weighed_together_with_two_where_chance_would_have_it_say_more()
    {
        // Same: 2 among the same, 1 among others; one alone: 2 among the same, none among others. Together 4 against 1.
        // Seven levels, half a count each.
        var one = Alike with
        {
            People = PeopleLevel.SameOne,
        };
        var weights = WeightFit.Of([
            (Alike, true),
            (Alike, true),
            (one, true),
            (one, true),
            (Alike, false),
            .. Enumerable.Repeat((Apart with { People = PeopleLevel.None }, false), 5),
        ]);
        var together = Math.Round(Math.Log2((4.5 / 7.5) / (1.5 / 9.5)), 3);
        Assert.Equal((together, together), (weights.People[PeopleLevel.Same], weights.People[PeopleLevel.SameOne]));
        Assert.Equal(Math.Round(Math.Log2((0.5 / 7.5) / (5.5 / 9.5)), 3), weights.People[PeopleLevel.None]);
    }

    [Fact]
    public void Levels_come_back_from_one_number() => Assert.Equal(Apart, Comparison.Unpack(Apart.Packed));

    [Fact]
    public void Shipped_weights_grow_with_agreement()
    {
        var w = MergeWeights.Shipped;
        Assert.True(
            w.Identifier[IdentifierLevel.Same] > w.Identifier[IdentifierLevel.DeclaredVersion]
                && w.Identifier[IdentifierLevel.DeclaredVersion] > 0
                && w.Identifier[IdentifierLevel.Different] < -5
        );
        Assert.True(
            w.Title[TitleLevel.Same] > w.Title[TitleLevel.VeryClose]
                && w.Title[TitleLevel.VeryClose] > w.Title[TitleLevel.Close]
        );
        Assert.True(
            w.Year[YearLevel.Same] > w.Year[YearLevel.OneApart] && w.Year[YearLevel.OneApart] > w.Year[YearLevel.Near]
        );
        Assert.True(w.Kind[KindLevel.PaperAndArticle] < 0);
    }

    [Fact]
    public void Evidence_is_said_in_words()
    {
        Assert.Equal(["same title", "same people", "same year"], EvidenceWords.For(Alike));
        Assert.Empty(EvidenceWords.Against(Alike));
        Assert.Equal(["titles differ", "years two or three apart"], EvidenceWords.Against(Apart));
    }

    [Theory]
    [InlineData(null)]
    [InlineData("10.5555/ONE")]
    public void Records_without_a_title_never_join_by_accident(string? doi)
    {
        Core.Records.Record Bare(string id) =>
            new()
            {
                Identifier = id,
                Year = 2001,
                Doi = Identifiers.Doi(doi),
                People = [new("Berg", "M."), new("Voss", "A.")],
                Venue = new("Verge"),
            };
        var (a, b) = (MergeFacts.Of(1, 1, Bare("a")), MergeFacts.Of(2, 2, Bare("b")));
        Assert.Equal(doi is not null, RecordMerger.Match(a, b, MergeWeights.Shipped) is not null);
    }

    [Fact]
    public void Side_by_side_shows_each_value_where_it_comes_from_and_where_records_disagree()
    {
        SourcedRecord[] records =
        [
            new(
                1,
                1,
                1,
                new()
                {
                    Identifier = "a",
                    Title = "MOTHS AT LAMPS",
                    Year = 1999,
                    Type = DocumentType.Article,
                    People = [new("Berg", "M.")],
                    CitedCount = 4,
                }
            ),
            new(
                2,
                2,
                0,
                new()
                {
                    Identifier = "b",
                    Title = "Moths at lamps",
                    Year = 2000,
                    Type = DocumentType.Article,
                    People = [new("Berg", "Mei")],
                    Doi = "10.5555/m",
                    Venue = new("Verge", null, "3", "1", "7", "9"),
                }
            ),
        ];
        var rows = SideBySide.Of(records, ChosenFields.From(records)).ToDictionary(r => r.Name);
        Assert.Equal((false, 2), (rows["title"].Differs, rows["title"].TakenFrom.Single())); // capitals are no contradiction
        Assert.Equal(["1999", "2000"], rows["year"].Values);
        Assert.True(rows["year"].Differs);
        Assert.False(rows["people"].Differs); // an initial is no contradiction
        Assert.Equal((null, "7–9"), (rows["pages"].Values[0], rows["pages"].Values[1]));
        Assert.Equal("3 (1)", rows["volume, issue"].Values[1]);
        Assert.False(rows.ContainsKey("ISBN")); // nobody has one
    }
}
