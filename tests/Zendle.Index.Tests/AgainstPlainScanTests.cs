using CsCheck;
using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Text;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>Whatever the index says is what a plain reading of all records says.</summary>
public sealed class AgainstPlainScanTests : IDisposable
{
    private static readonly string[] Vocabulary =
    [
        "moth",
        "moths",
        "light",
        "lamp",
        "lamps",
        "light-trap",
        "lighttrap",
        "trap",
        "pollen",
        "pollination",
        "night",
        "the",
        "of",
        "in",
        "colour",
        "color",
        "naïve",
        "0.05",
        "hawk-moth",
    ];

    private static readonly string[] Families = ["Okwemsalo", "Tchabury", "van der Tchabury", "Ilse"],
        Givens = ["Ilse", "Ilse K.", "I.", "Marisol", "I. K.", "Ivo", ""];

    private static Placed[] Corpus()
    {
        var random = new Random(7);
        string Text(int most) =>
            string.Join(
                ' ',
                Enumerable.Range(0, random.Next(most)).Select(_ => Vocabulary[random.Next(Vocabulary.Length)])
            );
        return
        [
            .. Enumerable
                .Range(1, 90)
                .Select(id => new Placed(
                    id,
                    random.Next(1, 50),
                    random.Next(1, 4),
                    new Record
                    {
                        Identifier = $"x{id}",
                        Title = Text(9),
                        OtherTitles = [.. Enumerable.Range(0, random.Next(2)).Select(_ => Text(5))],
                        Abstract = Text(14),
                        OtherAbstracts =
                        [
                            .. Enumerable.Range(0, random.Next(3)).Select(_ => new OtherAbstract(Text(8), null)),
                        ],
                        Keywords =
                        [
                            .. Enumerable.Range(0, random.Next(4)).Select(_ => Text(4)).Where(k => k.Length > 0),
                        ],
                        ControlledTerms =
                        [
                            .. Enumerable.Range(0, random.Next(3)).Select(_ => Text(3)).Where(k => k.Length > 0),
                        ],
                        Year = random.Next(1990, 2000),
                        Type = random.Next(2) == 0 ? DocumentType.Article : DocumentType.Review,
                        People =
                        [
                            .. Enumerable
                                .Range(0, random.Next(1, 3))
                                .Select(_ => new PersonName(
                                    Families[random.Next(Families.Length)],
                                    Givens[random.Next(Givens.Length)]
                                )),
                        ],
                        Venue = new(random.Next(3) == 0 ? "Small Wings" : "Night Landscapes"),
                        Places = [.. new[] { "Kellow", "Orlund" }.Where(_ => random.Next(3) == 0)],
                        Funders =
                        [
                            .. new[] { "Night Sky Endowment", "Fund for Dark Places" }.Where(_ => random.Next(4) == 0),
                        ],
                        Copies =
                        [
                            .. new Copy[]
                            {
                                new("http://a.example/1", CopyAccess.Free, WorkVersion.VersionOfRecord),
                                new("http://a.example/2", CopyAccess.Free, WorkVersion.AcceptedManuscript),
                                new("http://a.example/3", CopyAccess.Closed),
                            }.Where(_ => random.Next(3) == 0),
                        ],
                    }
                )),
        ];
    }

    private static readonly Gen<string> Leaf = Gen.OneOf(
        "moth*",
        "light",
        "lamp",
        "\"light trap\"",
        "light-trap",
        "lighttrap",
        "pollen",
        "\"the light of\"",
        "colo*r",
        "?amp",
        "*ap",
        "naive",
        "0.05",
        "hawkmoth",
        "\"night moth*\"",
        "title:light",
        "keywords:pollen",
        "author:okwem*",
        "author:\"Tchabury, I\"",
        "author:\"Ilse Okwemsalo\"",
        "author:\"Okwemsalo Ilse K\"",
        "author:\"ivo van der tchabury\"",
        "venue:\"small wings\"",
        "year:1992-1994",
        "type:review",
        "unheard"
    );

    private static readonly Gen<string> Near = Gen.Select(
            Gen.OneOf("light", "moth*", "(lamp OR trap)", "\"light trap\"", "the"),
            Gen.Int[0, 4],
            Gen.OneOf("moth", "the", "pollen", "light", "(night OR of)")
        )
        .Select((a, n, b) => $"{a} NEAR/{n} {b}");

    private static readonly Gen<string> Question = Gen.Recursive<string>(
        (depth, inner) =>
            depth > 2
                ? Leaf
                : Gen.OneOf(
                    Leaf,
                    Near.Select(n => $"({n})"),
                    Gen.Select(inner, inner).Select((a, b) => $"({a} AND {b})"),
                    Gen.Select(inner, inner).Select((a, b) => $"({a} OR {b})"),
                    Gen.Select(inner, inner).Select((a, b) => $"({a} AND NOT {b})")
                )
    );

    private readonly SmallCorpus corpus = new(Corpus());

    [Fact]
    public void Records_works_ledger_and_only_it_agree_on_random_questions()
    {
        using var snapshot = corpus.Index.Snapshot();
        Question.Sample(
            line =>
            {
                var reading = QueryReader.Read(line);
                Assert.True(reading.IsSound, line);
                var evaluator = new QuestionEvaluator(snapshot, null);
                var records = evaluator.Records(reading.Root!);
                var expected = PlainScan.Records(corpus.Records, reading.Root!);
                Assert.Equal(expected.Order(), records.Members());
                var works = corpus
                    .Records.Where(r => expected.Contains(r.Id))
                    .GroupBy(r => r.Work)
                    .ToDictionary(g => g.Key, g => g.Select(r => r.Database).ToHashSet());
                Assert.Equal(works.Keys.Order(), evaluator.Works(records).Members());
                var ledger = Ledger.Of(snapshot, records, []);
                Assert.Equal(
                    (expected.Count, works.Count, expected.Count - works.Count),
                    (ledger.Records, ledger.Works, ledger.Duplicates)
                );
                foreach (var l in ledger.Databases)
                    Assert.Equal(
                        (
                            works.Values.Count(d => d.Contains(l.DatabaseId)),
                            works.Values.Count(d => d.SetEquals([l.DatabaseId]))
                        ),
                        (l.Works, l.OnlyHere)
                    );
                foreach (var (term, _) in Concepts.Terms(reading.Root!, QueryField.About))
                {
                    var without = PlainScan.Records(corpus.Records, reading.Root!, term);
                    Assert.Equal(without.Order(), evaluator.Records(reading.Root!, QueryField.About, term).Members());
                }
                var found = evaluator.Works(records);
                foreach (var (facet, values) in Values)
                {
                    var counted = corpus
                        .Records.Where(r => works.ContainsKey(r.Work))
                        .SelectMany(r =>
                            (Single(facet, r.Work) is { } one ? [one] : values(r)).Select(v =>
                                (Value: v.ToUpperInvariant(), r.Work)
                            )
                        )
                        .Distinct()
                        .CountBy(v => v.Value);
                    var column = snapshot.Columns.Of(facet);
                    Assert.Equal(
                        counted.OrderBy(c => c.Key, StringComparer.Ordinal),
                        column
                            .Count(found)
                            .Select(c => KeyValuePair.Create(column.Names[c.Value].ToUpperInvariant(), c.Count))
                            .OrderBy(c => c.Key, StringComparer.Ordinal)
                    );
                }
            },
            iter: 400
        );
    }

    /// <summary>
    /// What a work shows in a field of one value, by the rule in plain words: records go by trust (Meridian before the
    /// others), then by age; the year is the one that most have, of several the first that stands; kind and venue are
    /// the first's. Null for a field of several values.
    /// </summary>
    private string? Single(Facet facet, int work)
    {
        var order = corpus.Records.Where(r => r.Work == work).OrderBy(r => r.Database != 2).ThenBy(r => r.Id).ToArray();
        var years = order.Select(r => r.Record.Year!.Value).ToArray();
        return facet switch
        {
            Facet.Year => $"{years.MaxBy(y => years.Count(z => z == y) * 100 - Array.IndexOf(years, y))}",
            Facet.Type => DocumentTypes.Name(order[0].Record.Type),
            Facet.Venue => order[0].Record.Venue!.Title,
            _ => null,
        };
    }

    /// <summary>What a record says of each field, read off it without the columns.</summary>
    private static readonly (Facet Facet, Func<Placed, IEnumerable<string>> Of)[] Values =
    [
        (Facet.Year, r => [$"{r.Record.Year}"]),
        (Facet.Type, r => [DocumentTypes.Name(r.Record.Type)]),
        (Facet.Venue, r => [r.Record.Venue!.Title]),
        (Facet.Database, r => [SmallCorpus.Names[r.Database]]),
        (Facet.Person, r => r.Record.People.Select(p => p.Short)),
        (Facet.Keyword, r => r.Record.Keywords.Concat(r.Record.ControlledTerms)),
        (Facet.Country, r => r.Record.Places),
        (Facet.Funder, r => r.Record.Funders),
    ];

    [Fact]
    public void The_words_of_a_pattern_are_those_that_stand_in_the_records()
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        foreach (
            var (pattern, field, texts) in new (string, QueryField, Func<Record, IEnumerable<string>>)[]
            {
                (
                    "mo*",
                    QueryField.About,
                    r =>
                        [
                            r.Title,
                            .. r.OtherTitles,
                            r.Abstract,
                            .. r.OtherAbstracts.Select(a => a.Text),
                            .. r.Keywords,
                            .. r.ControlledTerms,
                        ]
                ),
                ("*ight*", QueryField.Title, r => [r.Title, .. r.OtherTitles]),
                ("l?mp*", QueryField.Keywords, r => [.. r.Keywords, .. r.ControlledTerms]),
                ("zz*", QueryField.About, _ => []),
            }
        )
        {
            var expected = corpus
                .Records.SelectMany(r => texts(r.Record))
                .SelectMany(Words.Of)
                .Select(w => w.Text)
                .Where(w => Glob.Matches(pattern, w))
                .Distinct()
                .Order(StringComparer.Ordinal);
            Assert.Equal(expected, evaluator.WordsOf(pattern, field).Select(w => w.Word).Order(StringComparer.Ordinal));
        }
    }

    [Fact]
    public void A_word_that_stands_for_hyphenated_ones_only_is_shown_as_they_are_written()
    {
        var hyphenated = new Record
        {
            Identifier = "h",
            Title = "A light-trap for hawk-moths, and a fly-trap",
            Abstract = "The flytrap was empty.",
        };
        using var small = new SmallCorpus([
            new(1, 1, 1, hyphenated with { Venue = new("X"), Year = 2000 }),
            new(
                2,
                2,
                1,
                new Record
                {
                    Identifier = "y",
                    Title = "Every flytrap",
                    Venue = new("X"),
                    Year = 2000,
                }
            ),
        ]);
        using var snapshot = small.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        Assert.Equal("light-trap", evaluator.OnlyHyphenated("lighttrap", QueryField.About));
        Assert.Equal("hawk-moths", evaluator.OnlyHyphenated("hawkmoths", QueryField.Title));
        Assert.Null(evaluator.OnlyHyphenated("flytrap", QueryField.About)); // a record has it as one word
        Assert.Null(evaluator.OnlyHyphenated("light", QueryField.About));
        Assert.Null(evaluator.OnlyHyphenated("unheard", QueryField.About));
    }

    [Fact]
    public void What_only_a_database_has_is_counted_with_its_extracts()
    {
        // Harbour is an extract of Farnet: without Farnet both are lost; without Harbour alone nothing that Farnet
        // holds.
        using var nested = new SmallCorpus(corpus.Records, new Dictionary<int, int> { [3] = 1 });
        using var snapshot = nested.Index.Snapshot();
        Question.Sample(
            line =>
            {
                var root = QueryReader.Read(line).Root!;
                var works = corpus
                    .Records.Where(r => PlainScan.Records([r], root).Count > 0)
                    .GroupBy(r => r.Work)
                    .Select(g => g.Select(r => r.Database).ToHashSet())
                    .ToArray();
                var ledger = Ledger.Of(snapshot, new QuestionEvaluator(snapshot, null).Records(root), []);
                int Lost(params int[] gone) => works.Count(d => d.IsSubsetOf(gone));
                Assert.Equal(
                    [(1, Lost(1, 3), null), (2, Lost(2), null), (3, Lost(3), (int?)1)],
                    ledger.Databases.Select(d => (d.DatabaseId, d.OnlyHere, d.PartOf))
                );
            },
            iter: 150
        );
    }

    [Fact]
    public void A_score_taken_apart_is_the_score_and_each_part_can_be_reckoned_again()
    {
        using var snapshot = corpus.Index.Snapshot();
        var all = corpus.Records.Count;
        Question.Sample(
            line =>
            {
                var root = QueryReader.Read(line).Root!;
                var concepts = Concepts.Of(root);
                var records = new QuestionEvaluator(snapshot, null).Records(root);
                var scores = new float[snapshot.Columns.WorkSize];
                Relevance.Score(snapshot, concepts, records, scores);
                for (var work = 1; work < scores.Length; work++)
                {
                    var parts = Relevance.Explain(snapshot, concepts, records, work);
                    Assert.Equal(scores[work], parts?.Total ?? 0, 3e-4f);
                    if (parts is null)
                        continue;
                    Assert.InRange(parts.Nearness, 1, 1.2501f);
                    Assert.Equal(parts.Total, parts.Parts.Sum(p => p.Worth) * parts.Nearness, 2e-3f);
                    foreach (var part in parts.Parts)
                    {
                        var found = PlainScan.Records(corpus.Records, QueryReader.Read(part.Unit).Root!).Count;
                        if (
                            part.Unit.Contains(':', StringComparison.Ordinal)
                            || line.Contains(':', StringComparison.Ordinal)
                        )
                            found = part.Found; // the field stands around the term and is not part of it
                        Assert.Equal(found, part.Found);
                        Assert.Equal(Math.Log(1 + (all - found + 0.5) / (found + 0.5)), part.Rarity, 1e-4);
                        Assert.Equal(part.Rarity * part.Weight / (1.2 + part.Weight), part.Worth, 1e-4);
                    }
                }
            },
            iter: 150
        );
    }

    [Fact]
    public void Board_and_expression_are_two_views_of_one_search()
    {
        Question.Sample(
            line =>
            {
                var root = QueryReader.Read(line).Root!;
                var board = SearchBoard.Of(root);
                var again = QueryReader.Read(board.Expression);
                Assert.True(again.IsSound, board.Expression);
                Assert.Equal(
                    PlainScan.Records(corpus.Records, root).Order(),
                    PlainScan.Records(corpus.Records, again.Root!).Order()
                );
                Assert.Equal(board.Expression, SearchBoard.Of(again.Root).Expression);
                // Concepts have their letters in the order of the cards.
                Assert.Equal(
                    Concepts.Of(again.Root).Length,
                    board.Cards.Count(c => c.Kind is CardKind.Concept or CardKind.Block)
                );
            },
            iter: 400
        );
    }

    [Fact]
    public void A_term_that_moves_there_and_back_changes_nothing()
    {
        Gen.Select(Leaf, Leaf, Leaf)
            .Sample(
                (a, b, c) =>
                {
                    if (
                        new[] { a, b, c }.Any(t =>
                            t.StartsWith("year", StringComparison.Ordinal)
                            || t.StartsWith("type", StringComparison.Ordinal)
                        )
                        || a == b
                        || b == c
                        || a == c
                    )
                        return;
                    var before = SearchBoard.Of(QueryReader.Read($"({a} OR {b}) AND ({c} OR unheard)").Root);
                    var there = before.With(new(BoardEditKind.Move, 0, 1, To: 1), out _)!;
                    var back = there.With(new(BoardEditKind.Move, 1, there.Cards[1].Terms.Length - 1, To: 0), out _)!;
                    IEnumerable<int> Found(SearchBoard board) =>
                        PlainScan.Records(corpus.Records, QueryReader.Read(board.Expression).Root!).Order();
                    Assert.Equal(Found(before), Found(back));
                },
                iter: 400
            );
    }

    [Fact]
    public void A_database_switched_off_leaves_the_union_but_keeps_its_line()
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        var records = evaluator.Records(QueryReader.Read("light").Root!);
        var expected = corpus
            .Records.Where(r => PlainScan.Records([r], QueryReader.Read("light").Root!).Count > 0)
            .ToArray();
        var ledger = Ledger.Of(snapshot, records, [1, 3]);
        Assert.Equal(expected.Where(r => r.Database != 2).Select(r => r.Work).Distinct().Count(), ledger.Works);
        Assert.Equal(expected.Count(r => r.Database != 2), ledger.Records);
        Assert.Equal(
            (false, expected.Where(r => r.Database == 2).Select(r => r.Work).Distinct().Count(), 0),
            (ledger.Databases[1].Chosen, ledger.Databases[1].Works, ledger.Databases[1].OnlyHere)
        );
        Assert.Equal(ledger.Works, evaluator.Works(records, [1, 3]).Count());
    }

    [Fact]
    public void Narrowing_asks_what_a_work_shows_and_words_inside_ask_its_records()
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        var state = SearchState.Of([
            new SearchAct(""),
            new NarrowAct(Facet.Type, ["review"]),
            new NarrowAct(Facet.Venue, Excluded: ["Small Wings"]),
            new YearsAct(1991, 1996),
            new InsideAct(["light"]),
        ]);
        var byWork = corpus.Records.GroupBy(r => r.Work);
        var light = QueryReader.Read("light").Root!;
        var expected = byWork
            .Where(w =>
                Single(Facet.Type, w.Key) == "review"
                && Single(Facet.Venue, w.Key) != "Small Wings"
                && int.Parse(Single(Facet.Year, w.Key)!, System.Globalization.CultureInfo.InvariantCulture)
                    is >= 1991
                        and <= 1996
                && PlainScan.Records(w, light).Count > 0
            )
            .Select(w => w.Key);
        Assert.Equal(expected.Order(), evaluator.Narrowed(state, null, t => QueryReader.Read(t).Root)!.Members());
        var lifted = evaluator.Narrowed(state, Facet.Type, t => QueryReader.Read(t).Root)!;
        var types = snapshot.Columns.Of(Facet.Type);
        var counted = types.Count(lifted).ToDictionary(c => types.Names[c.Value], c => c.Count);
        foreach (var name in types.Names)
            Assert.Equal(
                byWork.Count(w => lifted.Contains(w.Key) && Single(Facet.Type, w.Key) == name),
                counted.GetValueOrDefault(name)
            );
    }

    public void Dispose() => corpus.Dispose();
}
