using System.Globalization;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Questions;
using Zendle.Index.Spelling;
using Zendle.Index.Terms;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>Offered terms and mended lines over a small corpus, each number held against asking.</summary>
public sealed class TermOfferTests : IDisposable
{
    private static readonly string[] Animals = ["moths", "hawkmoths", "beetles", "noctuids"];
    private static readonly string[] Lamps = ["street lamps", "skyglow"];
    private static readonly string[] Titles =
    [
        "{1} near {0}",
        "Do {0} change how {1} fly?",
        "{0}: fewer {1}",
        "The flight of {1} when {0} dim",
        "Counting {1} where {0} fade",
    ];
    private static readonly string[] Abstracts =
    [
        "We counted {1} on campions. With {0} nearby, pollen loads fell.",
        "Nights with {0} had fewer visits by {1}; seeds were lighter.",
        "Dusk brings {1} to hedges, and {0} kept them away.",
    ];
    private readonly SmallCorpus corpus = new([.. Records()]);
    private readonly CorpusSnapshot snapshot;
    private readonly QuestionEvaluator evaluator;

    public TermOfferTests()
    {
        snapshot = corpus.Index.Snapshot();
        evaluator = new(snapshot, null);
    }

    /// <summary>Forty works on lamps and animals, of which some say "skyglow"; and two hundred on lamps and streets.</summary>
    private static IEnumerable<Placed> Records()
    {
        for (var n = 0; n < 240; n++)
        {
            var isNight = n < 40;
            yield return new(
                n + 1,
                n + 1,
                1 + (n % 2),
                new Record
                {
                    Identifier = $"oai:a:{n}",
                    Title = isNight
                        ? string.Format(CultureInfo.InvariantCulture, Titles[n / 4 % 5], Lamps[n % 2], Animals[n % 4])
                        : $"Street lamps and {(n % 2 == 0 ? "traffic" : "parking")} in winter",
                    Abstract = isNight
                        ? string.Format(
                            CultureInfo.InvariantCulture,
                            Abstracts[n / 4 % 3],
                            Lamps[n % 2],
                            Animals[n % 4]
                        )
                        : "Drivers slowed down where lamps were bright; the cost of power fell.",
                    Year = 2000 + (n % 20),
                    Type = DocumentType.Article,
                    People = [new("Ouver", "A.")],
                }
            );
        }
    }

    private OfferGround Ground(string line, WorkSet good, params string[] refused)
    {
        var root = QueryReader.Read(line).Root!;
        return new(
            SearchBoard.Of(root),
            [],
            null,
            evaluator.Works(evaluator.Records(root)),
            good,
            refused.ToHashSet(StringComparer.Ordinal)
        );
    }

    private WorkSet Found(string line) => evaluator.Works(evaluator.Records(QueryReader.Read(line).Root!));

    private static WorkSet Of(int size, IEnumerable<int> works) => WorkSet.Of(size, works);

    [Fact]
    public void What_an_offer_adds_is_what_taking_it_adds()
    {
        const string Line = "\"street lamps\" AND moths";
        var good = Of(snapshot.Columns.WorkSize, Enumerable.Range(1, 12));
        var ground = Ground(Line, good);
        var offers = new TermOffers(snapshot, evaluator, ground).All();
        Assert.NotEmpty(offers);
        foreach (var offer in offers)
        {
            var taken = ground.Board.With(new(BoardEditKind.Add, offer.Card, Text: offer.Expression), out _)!;
            Assert.Equal(Found(taken.Expression).Count() - ground.InView.Count(), offer.Adds);
            Assert.Equal(Found(offer.Expression).Count(), offer.All);
            Assert.Equal(Found(offer.Expression).CountWith(good), offer.Good);
            Assert.InRange(offer.Alike, 0, offer.Adds);
        }
    }

    [Fact]
    public void The_other_word_for_a_concept_goes_to_it()
    {
        var good = Of(snapshot.Columns.WorkSize, Enumerable.Range(1, 40));
        var offers = new TermOffers(
            snapshot,
            evaluator,
            Ground("\"street lamps\" AND (moths OR hawkmoths)", good)
        ).All();
        Assert.Equal(0, offers.Single(o => o.Text == "skyglow").Card);
        Assert.Equal(1, offers.Single(o => o.Text == "beetles").Card);
        Assert.True(offers.Single(o => o.Text == "skyglow").IsPromising);
    }

    [Fact]
    public void Refused_terms_are_not_offered_and_no_good_work_offers_nothing()
    {
        var good = Of(snapshot.Columns.WorkSize, Enumerable.Range(1, 40));
        Assert.DoesNotContain(
            new TermOffers(snapshot, evaluator, Ground("\"street lamps\"", good, "skyglow")).All(),
            o => o.Text == "skyglow"
        );
        Assert.Empty(
            new TermOffers(snapshot, evaluator, Ground("\"street lamps\"", new(snapshot.Columns.WorkSize))).All()
        );
    }

    [Fact]
    public void All_works_kept_one_work_kept_and_an_empty_board_are_no_faults()
    {
        var all = evaluator.Everything();
        Assert.All(new TermOffers(snapshot, evaluator, Ground("lamps", all)).All(), o => Assert.Equal(o.All, o.Good));
        var one = Of(snapshot.Columns.WorkSize, [2]);
        Assert.Contains(new TermOffers(snapshot, evaluator, Ground("lamps", one)).All(), o => o.Text == "skyglow");
        var ground = new OfferGround(new([]), [], null, new(all.Size), one, new HashSet<string>());
        Assert.All(
            new TermOffers(snapshot, evaluator, ground).All(),
            o => Assert.Equal(Found(o.Expression).Count(), o.Adds)
        );
    }

    [Fact]
    public void What_excluding_a_term_removes_is_what_it_removes()
    {
        var aside = Of(snapshot.Columns.WorkSize, Enumerable.Range(41, 30));
        var good = Of(snapshot.Columns.WorkSize, Enumerable.Range(1, 20));
        var ground = Ground("lamps OR skyglow", good);
        var against = new TermsAgainst(
            snapshot,
            evaluator,
            ground,
            evaluator.Records(QueryReader.Read("lamps OR skyglow").Root!),
            aside
        );
        var offers = against.All();
        Assert.NotEmpty(offers);
        foreach (var offer in offers)
        {
            var left = Found($"(lamps OR skyglow) AND NOT ({offer.Expression})");
            Assert.Equal(ground.InView.Count() - left.Count(), offer.Removes);
            Assert.Equal(good.Members().Count(w => ground.InView.Contains(w) && !left.Contains(w)), offer.KeptHit);
        }
        Assert.Equal(0, offers[0].KeptHit);
    }

    [Fact]
    public void Several_misspelt_words_are_mended_together()
    {
        var (doubted, ways) = Mend("stret lmaps and hawkmohts".Replace(" and ", " ", StringComparison.Ordinal));
        Assert.Equal(["stret", "lmaps", "hawkmohts"], doubted.Select(d => d.Typed));
        Assert.Equal("street lamps hawkmoths", ways[0].Line);
        Assert.Equal(Found("street lamps hawkmoths").Count(), ways[0].Works);
    }

    [Theory]
    [InlineData("skyglow moths")]
    [InlineData("ouver")]
    [InlineData("mot* AND street")]
    [InlineData("2015 10.5")]
    public void A_line_whose_words_are_known_is_left_alone(string line) => Assert.Empty(Mend(line).Ways);

    [Fact]
    public void Words_run_together_or_apart_and_names_are_mended()
    {
        Assert.Equal("\"street lamps\"", Mend("streetlamps").Ways[0].Line);
        Assert.Equal("skyglow", Mend("sky glow").Ways[0].Line);
        Assert.Equal("author:ouver", Mend("author:ouverr").Ways[0].Line);
        Assert.Equal("\"street lamps\" AND moths", Mend("\"stret lamps\" AND moths").Ways[0].Line);
    }

    private (IReadOnlyList<DoubtedWord> Doubted, IReadOnlyList<MendedLine> Ways) Mend(string line) =>
        new LineMender(snapshot.Columns, evaluator, l => Found(l).Count()).Mend(QueryReader.Read(line).Root!, line);

    public void Dispose()
    {
        snapshot.Dispose();
        corpus.Dispose();
    }

    [Fact]
    public void Works_that_may_explain_a_term_in_brackets_are_told_by_their_words()
    {
        string[] titles =
        [
            "What artificial light at night (ALAN) does",
            "What artificial light at night does to moths",
            "ALAN (artificial light at night) and moths",
            "Artificial light at night: effects on moths",
            "Moths and their light at night (MLN)",
        ];
        using var corpus = SmallCorpus.OneEach(
            titles.Length,
            n => new Record { Identifier = $"oai:a:{n}", Title = titles[n] }
        );
        using var snapshot = corpus.Index.Snapshot();
        var column = new BracketedTerms(snapshot.Columns.Words);
        int[] all = [1, 2, 3, 4, 5];
        Assert.Equal([1, 3], column.Among(all, ["artificial", "light", "at", "night"]));
        Assert.Equal([1, 3], column.Among(all, ["alan"]));
        Assert.Empty(column.Among(all, ["no", "such", "words"]));
        Assert.Empty(column.Among(all, []));
    }

    [Fact]
    public void An_older_word_for_what_the_board_has_is_called_one()
    {
        using var corpus = SmallCorpus.OneEach(
            80,
            n => new Record
            {
                Identifier = $"oai:a:{n}",
                Title =
                    n >= 20 ? $"Weld seams of bridges, sample {n}"
                    : n < 6 ? $"Sky brightness over towns, part {n}"
                    : $"Skyglow over towns, part {n}",
                Year =
                    n >= 20 ? 2000
                    : n < 6 ? 1960 + n
                    : 2000 + n,
            }
        );
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        TermOffers For(string line) =>
            new(
                snapshot,
                evaluator,
                new OfferGround(
                    SearchBoard.Of(QueryReader.Read(line).Root),
                    [],
                    null,
                    evaluator.Works(line),
                    WorkSet.Of(snapshot.Columns.WorkSize, Enumerable.Range(1, 20)),
                    new HashSet<string>()
                )
            );
        var offers = For("skyglow").All();
        var older = Assert.Single(offers, o => o.Text == "sky brightness");
        Assert.Equal((WordAge.Older, 1960, 1965, 6), (older.Age, older.From, older.To, older.Adds));
        // "Towns" has been used all along.
        Assert.Equal(WordAge.Same, Assert.Single(offers, o => o.Text == "towns").Age);
        // What the search has already stands beside them with its years, the word used first foremost: 14 works of 2006 to
        // 2019 say skyglow. What no work has has no years.
        Assert.Equal(
            [
                new("\"sky brightness\"", 6, 1960, 1965),
                new("skyglow", 14, 2006, 2019),
                new WordInUse("zodiacal", 0, 0, 0),
            ],
            For("skyglow OR \"sky brightness\" OR zodiacal").InUse(0)
        );
    }
}
