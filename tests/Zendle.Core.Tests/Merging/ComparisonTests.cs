using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Core.Tests.Merging;

/// <summary>How two records compare, level by level, worked out by hand.</summary>
public sealed class ComparisonTests
{
    private static readonly Record Plain = new()
    {
        Identifier = "x",
        Title = "Moths and lamps along a lit verge",
        Year = 2000,
        Type = DocumentType.Article,
        People = [new("Berg", "Mei"), new("Voss", "Anna")],
    };

    private static Comparison Compare(Record a, Record b) =>
        Comparison.Of(MergeFacts.Of(1, 1, a), MergeFacts.Of(2, 2, b));

    private static bool Forbids(Record a, Record b)
    {
        var (x, y) = (MergeFacts.Of(1, 1, a), MergeFacts.Of(2, 2, b));
        return Comparison.Forbids(x, y, Comparison.Of(x, y));
    }

    [Theory]
    [InlineData(null, null, IdentifierLevel.Unknown)]
    [InlineData("10.5555/a", null, IdentifierLevel.Unknown)]
    [InlineData("10.5555/a", "10.5555/a", IdentifierLevel.Same)]
    [InlineData("10.5555/a", "10.5555/b", IdentifierLevel.Different)]
    public void Identifiers_by_doi(string? a, string? b, IdentifierLevel level) =>
        Assert.Equal(level, Compare(Plain with { Doi = a }, Plain with { Doi = b }).Identifier);

    [Fact]
    public void Identifiers_by_version_number_and_isbn()
    {
        Assert.Equal(
            IdentifierLevel.DeclaredVersion,
            Compare(
                Plain with
                {
                    Doi = "10.5555/a",
                },
                Plain with
                {
                    Doi = "10.5555/b",
                    Versions = [new("10.5555/a")],
                }
            ).Identifier
        );
        Assert.Equal(
            IdentifierLevel.DeclaredVersion,
            Compare(Plain with { Doi = "10.5555/a" }, Plain with { Versions = [new("10.5555/a")] }).Identifier
        );
        Assert.Equal(
            IdentifierLevel.DifferentVersions,
            Compare(
                Plain with
                {
                    Doi = "10.5555/a",
                },
                Plain with
                {
                    Doi = "10.5555/b",
                    Type = DocumentType.Preprint,
                }
            ).Identifier
        );
        Assert.Equal(
            IdentifierLevel.Same,
            Compare(
                Plain with
                {
                    OwnNumbers = ["lifeleaf:7", "other:1"],
                },
                Plain with
                {
                    OwnNumbers = ["lifeleaf:7"],
                }
            ).Identifier
        );
        Assert.Equal(
            IdentifierLevel.Different,
            Compare(Plain with { OwnNumbers = ["lifeleaf:7"] }, Plain with { OwnNumbers = ["lifeleaf:8"] }).Identifier
        );
        Assert.Equal(
            IdentifierLevel.Unknown,
            Compare(Plain with { OwnNumbers = ["lifeleaf:7"] }, Plain with { OwnNumbers = ["other:8"] }).Identifier
        );
        Assert.Equal(
            IdentifierLevel.Same,
            Compare(
                Plain with
                {
                    Isbn = "9783161484100",
                    Type = DocumentType.Book,
                },
                Plain with
                {
                    Isbn = "9783161484100",
                    Type = DocumentType.Book,
                }
            ).Identifier
        );
        // The ISBN of a chapter is its book's, so it says nothing of the chapter.
        Assert.Equal(
            IdentifierLevel.Unknown,
            Compare(
                Plain with
                {
                    Isbn = "9783161484100",
                    Type = DocumentType.Chapter,
                },
                Plain with
                {
                    Isbn = "9783161484100",
                    Type = DocumentType.Chapter,
                }
            ).Identifier
        );
    }

    [Theory]
    [InlineData("MOTHS AND LAMPS, ALONG A LIT VERGE.", TitleLevel.Same)]
    [InlineData("Moths and lamps along a lit verge: a field trial", TitleLevel.Beginning)]
    [InlineData("Moths and lamps along a lit verges", TitleLevel.VeryClose)]
    [InlineData("Bats in old barns of the coast", TitleLevel.Different)]
    [InlineData("", TitleLevel.Unknown)]
    public void Titles(string other, TitleLevel level) =>
        Assert.Equal(level, Compare(Plain, Plain with { Title = other }).Title);

    [Fact]
    public void A_translated_title_that_does_not_agree_tells_nothing_and_a_second_title_may_agree()
    {
        var translated = Plain with { Title = "Night butterflies under lanterns", TitleIsTranslated = true };
        Assert.Equal(TitleLevel.Unknown, Compare(Plain, translated).Title);
        Assert.Equal(TitleLevel.Same, Compare(Plain, translated with { OtherTitles = [Plain.Title] }).Title);
    }

    [Theory]
    [InlineData(2000, YearLevel.Same)]
    [InlineData(2001, YearLevel.OneApart)]
    [InlineData(1998, YearLevel.Near)]
    [InlineData(1997, YearLevel.Near)]
    [InlineData(1996, YearLevel.Different)]
    [InlineData(null, YearLevel.Unknown)]
    public void Years(int? other, YearLevel level) =>
        Assert.Equal(level, Compare(Plain, Plain with { Year = other }).Year);

    [Theory]
    [InlineData("Berg, Mei; Voss, Anna", PeopleLevel.Same)]
    [InlineData("Berg, M.; Voss, A.", PeopleLevel.Same)]
    [InlineData("BERG; VOSS", PeopleLevel.Same)]
    [InlineData("Berg, Mei", PeopleLevel.Shortened)]
    [InlineData("Berg, Mei; Voss, Anna; Ilo, T.", PeopleLevel.Shortened)]
    [InlineData("Voss, Anna; Ilo, T.", PeopleLevel.Half)]
    [InlineData("Ilo, T.; Lind, P.", PeopleLevel.None)]
    [InlineData("Berg, Tomas; Voss, Anna", PeopleLevel.None)]
    [InlineData("", PeopleLevel.Unknown)]
    public void People(string others, PeopleLevel level)
    {
        var people = others
            .Split("; ", StringSplitOptions.RemoveEmptyEntries)
            .Select(p => p.Split(", "))
            .Select(p => new PersonName(p[0], p.Length > 1 ? p[1] : ""))
            .ToArray();
        Assert.Equal(level, Compare(Plain, Plain with { People = people }).People);
    }

    [Fact]
    public void One_person_alike_says_no_more_than_two()
    {
        var one = Plain with { People = [new("Berg", "Mei")] };
        Assert.Equal(PeopleLevel.SameOne, Compare(one, one).People);
        Assert.True(MergeWeights.Shipped.People[PeopleLevel.SameOne] <= MergeWeights.Shipped.People[PeopleLevel.Same]);
    }

    [Theory]
    [InlineData("Verge Studies", "4", "7", LocationLevel.Same)]
    [InlineData("Verge Stud.", "4", "7", LocationLevel.Same)]
    [InlineData("Verge Studies", "4", null, LocationLevel.SameVenue)]
    [InlineData("Verge Studies", "4", "8", LocationLevel.OtherPage)]
    [InlineData("Verge Studies", "5", "7", LocationLevel.OtherPage)]
    [InlineData("Small Wings", "4", "7", LocationLevel.OtherVenue)]
    public void Places(string venue, string? volume, string? page, LocationLevel level) =>
        Assert.Equal(
            level,
            Compare(
                Plain with
                {
                    Venue = new("Verge Studies", Volume: "4", FirstPage: "7"),
                },
                Plain with
                {
                    Venue = new(venue, Volume: volume, FirstPage: page),
                }
            ).Location
        );

    [Fact]
    public void An_issn_decides_over_the_spelling_of_a_venue()
    {
        Assert.Equal(
            LocationLevel.SameVenue,
            Compare(
                Plain with
                {
                    Venue = new("Verge Studies", "0378-5955"),
                },
                Plain with
                {
                    Venue = new("Studies of the Verge", "0378-5955"),
                }
            ).Location
        );
        Assert.Equal(
            LocationLevel.OtherVenue,
            Compare(
                Plain with
                {
                    Venue = new("Verge Studies", "0378-5955"),
                },
                Plain with
                {
                    Venue = new("Verge Studies", "9001-0965"),
                }
            ).Location
        );
    }

    [Theory]
    [InlineData(DocumentType.Article, KindLevel.Same)]
    [InlineData(DocumentType.Other, KindLevel.Unknown)]
    [InlineData(DocumentType.Preprint, KindLevel.Akin)]
    [InlineData(DocumentType.ConferencePaper, KindLevel.PaperAndArticle)]
    [InlineData(DocumentType.Thesis, KindLevel.Apart)]
    [InlineData(DocumentType.Correction, KindLevel.Apart)]
    public void Kinds(DocumentType other, KindLevel level) =>
        Assert.Equal(level, Compare(Plain, Plain with { Type = other }).Kind);

    [Fact]
    public void Some_things_no_sum_outvotes()
    {
        Assert.False(Forbids(Plain, Plain));
        Assert.True(Forbids(Plain, Plain with { Title = "Correction to: " + Plain.Title }));
        Assert.True(Forbids(Plain with { Doi = "10.5555/a" }, Plain with { Doi = "10.5555/b" }));
        Assert.True(Forbids(Plain, Plain with { Year = 2004 }));
        Assert.True(
            Forbids(
                Plain with
                {
                    Title = Plain.Title + ". Part 1, Larvae",
                },
                Plain with
                {
                    Title = Plain.Title + ". Part 2, Larvae",
                }
            )
        );
        Assert.True(Forbids(Plain, Plain with { People = [new("Ilo", "T.")] }));
        // The same identifier explains a year far off, and so does a declared version.
        Assert.False(Forbids(Plain with { Doi = "10.5555/a" }, Plain with { Doi = "10.5555/a", Year = 1990 }));
    }

    [Fact]
    public void Comparing_is_symmetric_and_packs_into_one_number()
    {
        var titles = Gen.OneOf(
            Plain.Title,
            Plain.Title + ": a field trial",
            "Moths and lamps",
            "",
            "Bats in old barns"
        );
        var record = Gen.Select(
                titles,
                Gen.Int[1990, 2000],
                Gen.OneOf<string?>(null, "10.5555/a", "10.5555/b"),
                Gen.OneOf("Berg", "Voss", "Ilo").Array[0, 3],
                Gen.OneOf<string?>(null, "7", "9"),
                Gen.OneOf(DocumentType.Article, DocumentType.Preprint, DocumentType.Thesis)
            )
            .Select(
                (title, year, doi, people, page, type) =>
                    new Record
                    {
                        Identifier = "x",
                        Title = title,
                        Year = year % 5 == 0 ? null : year,
                        Doi = doi,
                        Type = type,
                        People = [.. people.Select(p => new PersonName(p, "A."))],
                        Venue = page is null ? null : new("Verge Studies", FirstPage: page),
                    }
            );
        Gen.Select(record, record)
            .Sample(
                (a, b) =>
                {
                    var compared = Compare(a, b);
                    Assert.Equal(compared, Compare(b, a));
                    Assert.Equal(Forbids(a, b), Forbids(b, a));
                    Assert.Equal(compared, Comparison.Unpack(compared.Packed));
                }
            );
    }

    [Fact]
    public void Overlap_is_what_is_common_by_what_there_is()
    {
        Assert.Equal(0.5, Comparison.Overlap([1, 2, 3], [2, 3, 4])); // two of four
        Assert.Equal(1, Comparison.Overlap([5, 9], [5, 9]));
        Assert.Equal(0, Comparison.Overlap([], []));
        Assert.Equal(0, Comparison.Overlap([1], [2]));
    }

    [Fact]
    public void Records_that_agree_in_one_thing_share_a_key_and_those_that_agree_in_nothing_none()
    {
        bool Meet(Record a, Record b) => MergeFacts.Of(1, 1, a).Blocking.Overlaps(MergeFacts.Of(2, 2, b).Blocking);
        var other = new Record
        {
            Identifier = "y",
            Title = "Bats in old barns of the northern coast",
            Year = 1980,
            People = [new("Ilo", "T."), new("Lind", "P.")],
        };
        Assert.False(Meet(Plain, other));
        Assert.True(Meet(Plain with { Doi = "10.5555/a" }, other with { Doi = "10.5555/A".ToLowerInvariant() }));
        Assert.True(Meet(Plain with { Doi = "10.5555/a" }, other with { Versions = [new("10.5555/a")] }));
        Assert.True(Meet(Plain, other with { Title = Plain.Title.ToUpperInvariant(), People = [] }));
        Assert.True(
            Meet(
                Plain with
                {
                    Venue = new("V", Volume: "4", FirstPage: "7"),
                },
                other with
                {
                    People = [new("Berg", "M.")],
                    Venue = new("V", Volume: "4", FirstPage: "7"),
                }
            )
        );
        Assert.True(Meet(Plain, other with { People = Plain.People, Year = 2000 }));
        // A misprint in the title hides no pair: one of the bands still meets.
        Assert.True(
            Meet(
                Plain with
                {
                    Title = "Moths and lamps along a lit verge of the northern coast",
                },
                other with
                {
                    Title = "Moths and lanps along a lit verge of the northern coast",
                    People = [new("Berg", "M.")],
                }
            )
        );
    }
}
