using CsCheck;
using Zendle.Core.Merging;
using Zendle.Core.People;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.People;

public sealed class PeopleResolverTests
{
    private const string Orcid = "0000-0002-1825-0097";

    private static IReadOnlyList<Mention> Work(int id, int year, string subject, params PersonName[] people) =>
        NamedWork.Mentions(id, year, subject, people);

    private static string Groups(params IReadOnlyList<Mention>[] works) => Of(works.SelectMany(w => w));

    /// <summary>Persons as the works they are on, one letter of the family name before.</summary>
    private static string Of(IEnumerable<Mention> mentions) =>
        string.Join(
            " | ",
            PeopleResolver
                .Resolve(mentions)
                .Select(p => $"{p.Name.Family[0]}:{string.Join(',', p.Mentions.Select(m => m.WorkId))}")
                .Order(StringComparer.Ordinal)
        );

    [Fact]
    public void Initials_and_full_names_are_one_person_where_co_authors_and_subject_agree() =>
        Assert.Equal(
            "B:1,2 | V:1,2",
            Groups(
                Work(1, 2001, "moths", new PersonName("Berg", "Mei K."), new("Voss", "Anna")),
                Work(2, 2003, "moths", new PersonName("Berg", "M. K."), new("Voss", "A."))
            )
        );

    [Fact]
    public void Namesakes_in_other_fields_with_other_names_in_full_are_two() =>
        Assert.Equal(
            "B:1 | B:2",
            Groups(
                Work(1, 2001, "moths", new PersonName("Berg", "Mei")),
                Work(2, 2003, "bridges", new PersonName("Berg", "Marta"))
            )
        );

    [Fact]
    public void The_same_initial_in_another_field_decades_later_is_not_enough() =>
        Assert.Equal(
            "B:1 | B:2 | I:2 | V:1",
            Groups(
                Work(1, 1962, "moths", new PersonName("Berg", "M."), new("Voss", "A.")),
                Work(2, 2003, "bridges", new PersonName("Berg", "M."), new("Ilo", "T."))
            )
        );

    [Fact]
    public void An_orcid_id_bridges_a_change_of_name() =>
        Assert.Equal(
            "B:1,2",
            Groups(
                Work(1, 2014, "moths", new PersonName("Berg", "Mei", Orcid)),
                Work(2, 2021, "bridges", new PersonName("Berg-Tanaka", "Mei", Orcid))
            )
        );

    [Fact]
    public void Two_orcid_ids_are_two_people_however_alike_the_rest_is() =>
        Assert.Equal(
            "B:1 | B:2",
            Groups(
                Work(1, 2014, "moths", new PersonName("Berg", "Mei", Orcid)),
                Work(2, 2015, "moths", new PersonName("Berg", "Mei", "0000-0001-5109-3700"))
            )
        );

    [Fact]
    public void An_orcid_id_on_a_name_that_cannot_be_the_persons_is_not_believed() =>
        Assert.Equal(
            "B:1 | V:2",
            Groups(
                Work(1, 2014, "moths", new PersonName("Berg", "Mei", Orcid)),
                Work(2, 2015, "bridges", new PersonName("Voss", "Tomas", Orcid))
            )
        );

    [Fact]
    public void Two_of_one_name_on_one_work_are_two_people() =>
        Assert.Equal("B:1 | B:1", Groups(Work(1, 2014, "moths", new PersonName("Berg", "M."), new("Berg", "M."))));

    [Fact]
    public void Diacritics_and_hyphens_do_not_part_a_person() =>
        Assert.Equal(
            "O:1,2",
            Groups(
                Work(1, 2001, "moths", new PersonName("Ostström-Lin", "Zoë A.")),
                Work(2, 2002, "moths", new PersonName("Oststrom-Lin", "Z. A."))
            )
        );

    [Theory]
    [InlineData("Mei K.", "M.", true)]
    [InlineData("Mei K.", "M. K.", true)]
    [InlineData("Mei K.", "MK", true)]
    [InlineData("Mei K.", "MB", false)]
    [InlineData("Mei K.", "Mei B.", false)]
    [InlineData("Mei", "Marta", false)]
    [InlineData("", "Marta", true)]
    [InlineData("Jean-Luc", "J.-L.", true)]
    public void Given_names_can_be_one_unless_a_part_contradicts(string a, string b, bool canBe) =>
        Assert.Equal(canBe, GivenNames.Compatible(Mention.GivenParts(a), Mention.GivenParts(b)));

    [Fact]
    public void Persons_of_one_name_are_told_apart_by_place_then_by_years()
    {
        var people = PeopleResolver.Resolve([
            .. Work(1, 1970, "moths", new PersonName("Berg", "Mei", null, "Karsholt College")),
            .. Work(2, 2020, "bridges", new PersonName("Berg", "Mei", null, "University of Isk")),
            .. Work(3, 1975, "law", new PersonName("Voss", "Ann")),
            .. Work(4, 2024, "stars", new PersonName("Voss", "Ann")),
        ]);
        Assert.Equal(
            ["Berg, Mei (Karsholt College)", "Berg, Mei (University of Isk)", "Voss, Ann (1975)", "Voss, Ann (2024)"],
            people.Select(p => p.Label).Order(StringComparer.Ordinal)
        );
    }

    [Fact]
    public void What_lies_just_below_the_threshold_is_kept_as_doubt()
    {
        // One initial, one subject in common, no co-authors, two places: neither enough to join nor nothing.
        var people = PeopleResolver.Resolve([
            .. Work(1, 2001, "moths", new PersonName("Berg", "M.", null, "Karsholt College")),
            .. Work(2, 2003, "moths", new PersonName("Berg", "M.", null, "University of Isk")),
            .. Work(3, 2003, "moths", new PersonName("Berg", "Karl", null, "University of Isk")),
            .. Work(4, 2003, "stars", new PersonName("Berg", "Otto")),
        ]);
        var doubtful = people.Where(p => p.Doubtful.Count > 0).ToArray();
        Assert.All(doubtful, p => Assert.All(p.Doubtful, d => Assert.Contains(p.Number, people[d].Doubtful)));
        Assert.Equal(4, people.Sum(p => p.Mentions.Count));
    }

    [Fact]
    public void The_order_of_mentions_does_not_matter_and_everybody_is_somebody() =>
        Gen.Select(
                Gen.Select(
                    Gen.OneOf("Berg", "Voss", "Berg-Lin"),
                    Gen.OneOf("M.", "Mei", "Mei K.", "A."),
                    Gen.Int[1990, 2020],
                    Gen.OneOf("moths", "bridges"),
                    Gen.Bool
                ).Array[1, 12],
                Gen.Int
            )
            .Sample(
                (parts, seed) =>
                {
                    var mentions = parts
                        .SelectMany(
                            (p, i) =>
                                Work(
                                    i + 1,
                                    p.Item3,
                                    p.Item4,
                                    new PersonName(p.Item1, p.Item2, p.Item5 && p.Item2 == "Mei" ? Orcid : null),
                                    new("Ilo", "T.")
                                )
                        )
                        .ToArray();
                    var shuffled = mentions.ToArray();
                    new Random(seed).Shuffle(shuffled);
                    Assert.Equal(Of(mentions), Of(shuffled));
                    Assert.Equal(mentions.Length, PeopleResolver.Resolve(mentions).Sum(p => p.Mentions.Count));
                    Assert.Equal(
                        PeopleResolver.Resolve(mentions).Count,
                        PeopleResolver
                            .Resolve(mentions)
                            .Select(p => p.Label)
                            .Distinct(StringComparer.OrdinalIgnoreCase)
                            .Count()
                    );
                },
                iter: 300
            );
}
