using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;
using Zendle.Core.Venues;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Merging;

/// <summary>What is said of records: evidence in words, fields side by side, names that can be one.</summary>
public sealed class SayingTests
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

    private static IReadOnlyList<FieldRow> Rows(params Record[] records)
    {
        SourcedRecord[] sources = [.. records.Select((r, i) => new SourcedRecord(i + 1, i + 1, i, r))];
        return SideBySide.Of(sources, ChosenFields.From(sources));
    }

    [Fact]
    public void Only_fields_that_some_record_has_are_laid_out_and_each_says_where_the_shown_value_comes_from()
    {
        var rows = Rows(
            new()
            {
                Identifier = "a",
                Title = "Moths at lamps",
                Year = 2001,
                People = [new("Berg", "Mei")],
                Abstract = "",
            },
            new()
            {
                Identifier = "b",
                Title = "MOTHS AT LAMPS.",
                Year = 2002,
                People = [new("Berg", "M.")],
                Abstract = "Moths fell.",
                Doi = "10.5555/a",
                Venue = new("Small Wings", null, "4", "2", "7", "9"),
            }
        );
        Assert.Equal(
            ["title", "people", "year", "type", "venue", "volume, issue", "pages", "DOI", "abstract"],
            rows.Select(r => r.Name)
        );
        var by = rows.ToDictionary(r => r.Name);
        Assert.Equal((false, false, true), (by["title"].Differs, by["people"].Differs, by["year"].Differs));
        Assert.Equal([1], by["title"].TakenFrom);
        Assert.Equal([2], by["abstract"].TakenFrom);
        Assert.Equal([null, "4 (2)"], by["volume, issue"].Values);
        Assert.Equal([null, "7–9"], by["pages"].Values);
    }

    [Fact]
    public void What_each_database_has_of_its_own_is_no_contradiction()
    {
        var rows = Rows(
                new()
                {
                    Identifier = "a",
                    Title = "Moths",
                    Keywords = ["lamps"],
                    CitedCount = 3,
                    OwnNumbers = ["x:1"],
                    Publisher = "Ambry House",
                },
                new()
                {
                    Identifier = "b",
                    Title = "Moths",
                    Keywords = ["light"],
                    CitedCount = 9,
                    OwnNumbers = ["y:2"],
                    Publisher = "Northfold",
                }
            )
            .ToDictionary(r => r.Name);
        foreach (var field in new[] { "keywords", "citations", "other numbers", "publisher" })
            Assert.False(rows[field].Differs, field);
        Assert.Equal(["3", "9"], rows["citations"].Values);
    }

    [Fact]
    public void A_translated_title_stands_in_brackets_and_editors_are_named_as_such()
    {
        var rows = Rows(
                new Record
                {
                    Identifier = "a",
                    Title = "Moths at street lamps",
                    TitleIsTranslated = true,
                    OtherTitles = ["Nachtfalter"],
                    People = [new("Berg", "Mei", Role: "editor"), new("Voss", "")],
                }
            )
            .ToDictionary(r => r.Name);
        Assert.Equal("[Moths at street lamps]", rows["title"].Values[0]);
        Assert.Equal("Berg, Mei (editor); Voss", rows["people"].Values[0]);
        Assert.Equal("Nachtfalter", rows["other titles"].Values[0]);
    }

    [Theory]
    [InlineData("Journal of Hedge Ecology", "J. Hedge Ecol.", true)]
    [InlineData("Journal of Hedge Ecology", "Journal Hedge Ecology", true)]
    [InlineData("Journal of Hedge Ecology", "Journal of Hedges", false)]
    [InlineData("Small Wings", "Small Wings and Lamps", false)]
    [InlineData("Annals of the Lamp", "Ann. Lamp", true)]
    [InlineData("Dusk", "Dawn", false)]
    public void Venues_agree_when_each_word_begins_the_other(string a, string b, bool agree)
    {
        Assert.Equal(agree, VenueNames.Agree(VenueNames.WordsOf(a), VenueNames.WordsOf(b)));
        Assert.Equal(agree, VenueNames.Agree(VenueNames.WordsOf(b), VenueNames.WordsOf(a)));
        if (agree)
            Assert.Equal(VenueNames.InitialsOf(a), VenueNames.InitialsOf(b));
    }

    [Theory]
    [InlineData("Marisol K.", "M.", true)]
    [InlineData("Marisol K.", "Marisol", true)]
    [InlineData("Marisol K.", "Marisol B.", false)]
    [InlineData("Marisol", "Miriam", false)]
    [InlineData("Marisol", "T.", false)]
    [InlineData("", "Marisol", true)]
    public void Given_names_can_be_one_unless_a_part_contradicts(string a, string b, bool can)
    {
        var (x, y) = (Mention.GivenParts(a), Mention.GivenParts(b));
        Assert.Equal(can, GivenNames.Compatible(x, y));
        Assert.Equal(can, GivenNames.Compatible(y, x));
        Assert.Equal(GivenNames.Worth(x, y, PersonWeights.Shipped), GivenNames.Worth(y, x, PersonWeights.Shipped));
    }

    [Fact]
    public void A_full_name_in_common_is_worth_more_than_an_initial_and_a_middle_one_adds()
    {
        double Worth(string a, string b) =>
            GivenNames.Worth(Mention.GivenParts(a), Mention.GivenParts(b), PersonWeights.Shipped);
        Assert.True(Worth("Marisol", "Marisol") > Worth("M.", "M."));
        Assert.True(Worth("Marisol K.", "Marisol K.") > Worth("Marisol", "Marisol"));
        Assert.True(Worth("Marisol K.", "Marisol") < Worth("Marisol", "Marisol"));
        Assert.Equal(0, Worth("", "Marisol"));
    }
}
