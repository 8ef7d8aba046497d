using CsCheck;
using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

public sealed class RouteTests
{
    private static readonly RouteChain Chain = RouteChain.Usual(new("http://resolver.example/doi/"));

    private static Copy At(string place, CopyAccess access, WorkVersion? version) =>
        new($"http://{place}.example/1", access, version);

    [Fact]
    public void Routes_are_tried_in_the_order_of_what_they_are_worth()
    {
        Copy[] copies =
        [
            At("unsaid", CopyAccess.Free, null),
            At("preprint", CopyAccess.Free, WorkVersion.SubmittedManuscript),
            At("sold", CopyAccess.Closed, WorkVersion.VersionOfRecord),
            At("manuscript", CopyAccess.Free, WorkVersion.AcceptedManuscript),
            At("open", CopyAccess.Free, WorkVersion.VersionOfRecord),
        ];
        Assert.Equal(
            ["open", "sold", "manuscript", "preprint", "unsaid"],
            Chain.Stops(new("10.5555/a.1", copies)).Select(s => s.Address.Host.Split('.')[0])
        );
        Assert.Equal(
            [RouteKind.Publisher, RouteKind.Publisher, RouteKind.Manuscript, RouteKind.Preprint, RouteKind.OtherCopy],
            Chain.Stops(new("10.5555/a.1", copies)).Select(s => s.Route)
        );
    }

    [Fact]
    public void A_chapter_is_looked_for_in_its_book_at_last()
    {
        Sought chapter = new("10.5555/b.1.7", [At("chapter", CopyAccess.Closed, WorkVersion.VersionOfRecord)])
        {
            Book = new(
                "10.5555/b.1",
                [
                    At("manuscript", CopyAccess.Free, WorkVersion.AcceptedManuscript),
                    At("chapter", CopyAccess.Free, null),
                ]
            ),
        };
        Assert.Equal(
            [
                (RouteKind.Publisher, "http://chapter.example/1"),
                (RouteKind.Book, "http://manuscript.example/1"),
                (RouteKind.Book, "http://resolver.example/doi/10.5555/b.1"),
            ],
            Chain.Stops(chapter).Select(s => (s.Route, s.Address.AbsoluteUri))
        );
        Assert.Equal("its book", AttemptWords.Of(RouteKind.Book));
    }

    [Fact]
    public void Of_manuscripts_held_back_the_one_that_opens_first_is_tried_first_and_its_day_goes_with_it()
    {
        Copy held = At("later", CopyAccess.Closed, WorkVersion.AcceptedManuscript) with { OpensOn = new(2028, 1, 1) };
        Copy[] copies =
        [
            At("sold", CopyAccess.Closed, WorkVersion.AcceptedManuscript),
            held,
            held with
            {
                Address = "http://sooner.example/1",
                OpensOn = new(2027, 5, 1),
            },
            At("free", CopyAccess.Free, WorkVersion.AcceptedManuscript),
        ];
        Assert.Equal(
            [("free", null), ("sooner", new DateOnly(2027, 5, 1)), ("later", new DateOnly(2028, 1, 1)), ("sold", null)],
            Chain.Stops(new(null, copies)).Select(s => (s.Address.Host.Split('.')[0], s.OpensOn))
        );
        // What goes away by waiting says more than what money would buy.
        Assert.Equal("under embargo", NotGot.Reason([AttemptOutcome.PriceAsked, AttemptOutcome.Embargoed]));
    }

    [Fact]
    public void The_doi_is_followed_only_where_no_record_names_the_publishers_copy()
    {
        Assert.Equal(
            "http://resolver.example/doi/10.5555/a%3C1%3E",
            Assert.Single(Chain.Stops(new("10.5555/a<1>", []))).Address.AbsoluteUri
        );
        Assert.Empty(Chain.Stops(new(null, [])));
        Assert.Empty(RouteChain.Usual(null).Stops(new("10.5555/a.1", [])));
    }

    [Fact]
    public void An_address_is_tried_once_and_a_malformed_one_never() =>
        Assert.Single(
            Chain.Stops(
                new(
                    null,
                    [
                        At("same", CopyAccess.Free, WorkVersion.VersionOfRecord),
                        At("same", CopyAccess.Free, WorkVersion.AcceptedManuscript),
                        new("not an address", CopyAccess.Free),
                    ]
                )
            )
        );

    [Theory]
    [InlineData(
        "Vossmann",
        2021,
        "What moths carry: pollen transport networks in hedgerows",
        WorkVersion.AcceptedManuscript,
        "Vossmann 2021 What moths carry (accepted manuscript).pdf"
    )]
    [InlineData(null, null, "Night/day? \"A\" <test>", null, "Nightday A test.pdf")]
    [InlineData(
        "Ó Briain",
        1998,
        "Nächte",
        WorkVersion.VersionOfRecord,
        "Ó Briain 1998 Nächte (version of record).pdf"
    )]
    [InlineData(null, null, "", null, "text.pdf")]
    [InlineData("..", 2001, "../../etc/passwd", null, "2001 etcpasswd.pdf")]
    public void Files_are_named_by_person_year_title_and_version(
        string? person,
        int? year,
        string title,
        WorkVersion? version,
        string name
    ) => Assert.Equal(name, TextNames.Of(person, year, title, version));

    [Fact]
    public void No_name_is_too_long_or_dangerous() =>
        Gen.Select(Gen.String, Gen.String, Gen.Int[1, 3000])
            .Sample(
                (person, title, year) =>
                {
                    var name = TextNames.Of(person[..Math.Min(40, person.Length)], year, title, null);
                    Assert.True(name.Length < 140 && name.EndsWith(".pdf", StringComparison.Ordinal));
                    Assert.Equal(-1, name.IndexOfAny(['/', '\\', ':', '*', '?', '"', '<', '>', '|', '\n', '\r', '\0']));
                },
                iter: 500
            );

    [Theory]
    [InlineData("a price is asked", AttemptOutcome.DeadLink, AttemptOutcome.PriceAsked, AttemptOutcome.NoTextThere)]
    [InlineData("needs a person’s decision", AttemptOutcome.PriceAsked, AttemptOutcome.Doubtful)]
    [InlineData("a damaged file", AttemptOutcome.Damaged, AttemptOutcome.DeadLink)]
    [InlineData("no copy is known")]
    public void A_work_that_was_not_got_has_one_reason(string reason, params AttemptOutcome[] outcomes) =>
        Assert.Equal(reason, NotGot.Reason(outcomes));

    [Fact]
    public void Every_outcome_has_words_and_every_failure_a_place_among_the_reasons()
    {
        foreach (var outcome in Enum.GetValues<AttemptOutcome>())
        {
            Assert.NotEmpty(AttemptWords.Of(outcome));
            if (outcome != AttemptOutcome.Got)
                Assert.Equal(AttemptWords.Of(outcome), NotGot.Reason([outcome]));
        }
        Assert.Distinct(Enum.GetValues<RouteKind>().Select(AttemptWords.Of));
    }

    private static readonly Gen<SoughtText> AnyWork = Gen.Select(
        Gen.Bool,
        Gen.Bool,
        Gen.Int[0, 3],
        Gen.Enum<AttemptOutcome>().Array[0, 4],
        (waiting, got, version, outcomes) =>
            new SoughtText(
                waiting,
                got ? new(version == 3 ? null : (WorkVersion)version, RouteKind.Publisher) : null,
                [.. outcomes.Where(o => o != AttemptOutcome.Got)]
            )
    );

    [Fact]
    public void The_account_always_sums() =>
        AnyWork
            .Array[0, 40]
            .Sample(
                works =>
                {
                    var a = TextAccount.Of(works);
                    Assert.Equal(works.Length, a.Sought);
                    Assert.Equal(a.Sought, a.Got + a.NotGot + a.Waiting);
                    Assert.Equal(a.Got, a.ByVersion.Sum(t => t.Count));
                    Assert.Equal(a.Got, a.ByRoute.Sum(t => t.Count));
                    Assert.Equal(a.NotGot, a.ByReason.Sum(t => t.Count));
                },
                iter: 300
            );

    [Fact]
    public void The_account_by_hand()
    {
        var a = TextAccount.Of([
            new(false, new(WorkVersion.VersionOfRecord, RouteKind.Publisher), []),
            new(false, new(WorkVersion.VersionOfRecord, RouteKind.Doi), [AttemptOutcome.DeadLink]),
            new(false, new(null, RouteKind.Person), []),
            new(false, null, [AttemptOutcome.PriceAsked]),
            new(false, null, []),
            new(true, null, [AttemptOutcome.PriceAsked]),
        ]);
        Assert.Equal((6, 3, 2, 1), (a.Sought, a.Got, a.NotGot, a.Waiting));
        Assert.Equal([new("version of record", 2), new Tally("version not known", 1)], a.ByVersion);
        Assert.Equal([new("a price is asked", 1), new Tally("no copy is known", 1)], a.ByReason);
    }
}
