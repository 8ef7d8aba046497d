using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

public sealed class CorpusIndexTests
{
    private static Placed Place(
        int id,
        int work,
        string title,
        int database = 1,
        int? year = 2000,
        string text = "",
        string? doi = null,
        string[]? keywords = null,
        params string[] cites
    ) =>
        new(
            id,
            work,
            database,
            new Record
            {
                Identifier = $"x{id}",
                Title = title,
                Abstract = text,
                Year = year,
                Doi = doi,
                Keywords = keywords ?? [],
                People = [new("Berg", "Mei")],
                References = [.. cites.Select(c => new Reference(c, c))],
                Type = DocumentType.Article,
            }
        );

    private static int[] Find(CorpusIndex index, string line)
    {
        using var snapshot = index.Snapshot();
        return new QuestionEvaluator(snapshot, null).Records(QueryReader.Read(line).Root!).ToArray();
    }

    [Theory]
    [InlineData("light-trap", new[] { 1, 2, 3 })]
    [InlineData("\"light trap\"", new[] { 1, 2 })]
    [InlineData("lighttrap", new[] { 1, 3 })]
    [InlineData("\"light-trap catches\"", new[] { 1, 2, 3 })]
    [InlineData("\"of the\"", new[] { 4 })]
    [InlineData("the NEAR/0 the", new[] { 5 })] // never paired with itself
    [InlineData("language:german", new int[0])]
    [InlineData("nothing*", new int[0])]
    public void Spellings_with_and_without_hyphen_meet(string line, int[] records)
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "Light-trap catches"),
            Place(2, 2, "A light trap catches moths"),
            Place(3, 3, "Lighttrap catches"),
            Place(4, 4, "The reach of the lamp"),
            Place(5, 5, "The the lamp"),
        ]);
        Assert.Equal(records, Find(corpus.Index, line));
    }

    [Fact]
    public void Neither_phrase_nor_near_crosses_from_one_keyword_to_the_next()
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "x", keywords: ["street light", "pollution of air"]),
            Place(2, 2, "x", keywords: ["light pollution"]),
        ]);
        Assert.Equal([2], Find(corpus.Index, "\"light pollution\""));
        Assert.Equal([2], Find(corpus.Index, "light NEAR/1000 pollution"));
    }

    [Fact]
    public void A_changed_record_is_found_by_its_new_words_and_a_removed_one_not_at_all()
    {
        using var corpus = new SmallCorpus([Place(1, 1, "Moths"), Place(2, 2, "Bats")]);
        corpus.Index.Put(1, Place(1, 1, "Owls").Record);
        corpus.Index.Put(2, null);
        Assert.Equal([1], Find(corpus.Index, "moths")); // not before the refresh
        corpus.Index.Refresh(SmallCorpus.Columns([Place(1, 1, "Owls")]), SmallCorpus.Names, 2);
        Assert.Empty(Find(corpus.Index, "moths OR bats"));
        Assert.Equal([1], Find(corpus.Index, "owls"));
    }

    [Fact]
    public void An_index_that_was_filled_is_the_one_into_which_records_were_put_and_goes_on_like_it()
    {
        Placed[] records =
        [
            .. Enumerable
                .Range(1, 200)
                .Select(i => Place(i, i, i % 2 == 0 ? "Moths and lamps" : "Light-trap catches of bats")),
        ];
        using var put = new SmallCorpus(records);
        var folder = Directory.CreateTempSubdirectory("zendle-filled-").FullName;
        using (var filled = new CorpusIndex(folder))
        {
            Assert.Equal(0, filled.Sequence);
            Parallel.ForEach(records, r => filled.Fill(r.Id, r.Record));
            filled.Refresh(SmallCorpus.Columns(records), SmallCorpus.Names, 7);
            foreach (var line in new[] { "moths", "lighttrap", "\"light trap\"", "bats NOT moths", "lamp*" })
                Assert.Equal(Find(put.Index, line), Find(filled, line));
            // From now on a record takes the place of what was there under its id.
            filled.Put(2, Place(2, 2, "Owls").Record);
            filled.Refresh(SmallCorpus.Columns(records), SmallCorpus.Names, 8);
            Assert.Equal([2], Find(filled, "owls"));
            Assert.DoesNotContain(2, Find(filled, "moths"));
        }
        using (var again = new CorpusIndex(folder))
            Assert.Equal(8, again.Sequence);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void A_request_keeps_its_snapshot_while_newer_ones_come()
    {
        using var corpus = new SmallCorpus([Place(1, 1, "Moths")]);
        using var old = corpus.Index.Snapshot();
        corpus.Index.Put(2, Place(2, 2, "Moths too").Record);
        corpus.Index.Refresh(
            SmallCorpus.Columns([Place(1, 1, "Moths"), Place(2, 2, "Moths too")]),
            SmallCorpus.Names,
            2
        );
        Assert.Equal([1], new QuestionEvaluator(old, null).Records(QueryReader.Read("moths").Root!).Members());
        Assert.Equal([1, 2], Find(corpus.Index, "moths"));
    }

    [Fact]
    public void What_was_not_committed_is_gone_and_the_sequence_tells_what_to_replay()
    {
        var corpus = new SmallCorpus([Place(1, 1, "Moths")]);
        var folder = corpus.Folder;
        corpus.Index.Put(2, Place(2, 2, "Bats").Record);
        corpus.Index.Dispose();
        using (var again = new CorpusIndex(folder))
            Assert.Equal(1, again.Sequence);
        foreach (var file in Directory.GetFiles(folder, "segments*"))
            File.WriteAllText(file, "not an index");
        using (var damaged = new CorpusIndex(folder))
            Assert.Equal(0, damaged.Sequence); // built anew
        Directory.Delete(folder, true);
    }

    [Fact]
    public void Citations_join_by_doi_or_title_once_and_never_to_the_work_itself()
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "First of all works", doi: "10.5555/a"),
            Place(2, 2, "Second of them", cites: ["10.5555/a", "10.5555/b"]),
            Place(3, 2, "Second of them", database: 2, doi: "10.5555/b", cites: ["10.5555/a"]),
            new(
                4,
                3,
                1,
                new Record
                {
                    Identifier = "x4",
                    Title = "Third work here",
                    References =
                    [
                        new("…", null, "First of all works", "Berg", 2000),
                        new("…", null, "Unknown work of nobody", "Voss"),
                    ],
                }
            ),
        ]);
        using var snapshot = corpus.Index.Snapshot();
        var graph = snapshot.Columns.Graph;
        Assert.Equal([2, 3], graph.CitedBy(1).ToArray());
        Assert.Equal([1], graph.Cites(2).ToArray());
        Assert.Equal(2, graph.Ties);
        Assert.Empty(graph.CitedBy(3).ToArray());
    }

    private static int[] Order(SmallCorpus corpus, SortOrder order, string line = "")
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        var root = QueryReader.Read(line).Root!;
        var records = evaluator.Records(root);
        return WorkOrder.Sort(snapshot, evaluator.Works(records), order, Concepts.Of(root), records, 2026);
    }

    [Fact]
    public void Orders_are_whole_and_ties_go_by_id()
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "Beta", year: 2010, doi: "10.5555/1"),
            Place(2, 2, "alpha", year: 2024, doi: "10.5555/2"),
            Place(3, 3, "Ångström", year: null),
            Place(4, 4, "Gamma", year: 2026, cites: ["10.5555/1", "10.5555/2"]),
            Place(5, 5, "Delta", year: 2026, cites: ["10.5555/1"]),
        ]);
        Assert.Equal([4, 5, 2, 1, 3], Order(corpus, SortOrder.Newest));
        Assert.Equal([1, 2, 4, 5, 3], Order(corpus, SortOrder.Oldest));
        Assert.Equal([1, 2, 3, 4, 5], Order(corpus, SortOrder.Cited)); // 2, 1, 0, 0, 0 citations
        Assert.Equal([2, 1, 3, 4, 5], Order(corpus, SortOrder.CitedPerYear)); // 1/2, 2/16
        Assert.Equal([2, 3, 1, 5, 4], Order(corpus, SortOrder.Title));
        Assert.Equal([4, 5, 2, 1, 3], Order(corpus, SortOrder.Relevance)); // nothing to weigh: newest
    }

    [Theory]
    [InlineData(10, 2016, 1.0)]
    [InlineData(10, 2026, 10.0)] // at least one year
    [InlineData(10, 0, 0.0)]
    public void Citations_per_year(int citations, int year, double perYear) =>
        Assert.Equal(perYear, WorkOrder.PerYear(citations, year, 2026));

    [Fact]
    public void A_word_in_the_title_weighs_more_and_words_that_stand_close_more_still()
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "A plain title here", text: "moths in the field and much later a lamp"),
            Place(2, 2, "Moths in the field", text: "plain words with a lamp in the end"),
            Place(3, 3, "A plain title here", text: "lamp moths in the field and much later a"),
        ]);
        Assert.Equal([2, 3, 1], Order(corpus, SortOrder.Relevance, "moths AND lamp"));
    }

    [Fact]
    public void A_single_term_scores_as_worked_out_by_hand()
    {
        // Two records, one with the word once in a title of one word. N = 2, df = 1: idf = ln(1 + 1.5/1.5) = ln 2.
        // Average title length (2 + 1) / 2... each title here has one word, so the norm is 1: tf' = 3, score = ln 2 · 3
        // / (1.2 + 3).
        using var corpus = new SmallCorpus([Place(1, 1, "moths"), Place(2, 2, "bats")]);
        using var snapshot = corpus.Index.Snapshot();
        var root = QueryReader.Read("moths").Root!;
        var scores = new float[snapshot.Columns.WorkSize];
        Relevance.Score(snapshot, Concepts.Of(root), new QuestionEvaluator(snapshot, null).Records(root), scores);
        Assert.Equal(Math.Log(2) * 3 / 4.2, scores[1], 5);
        Assert.Equal(0, scores[2]);
    }

    /// <summary>Two abstracts of twenty words: in one lamp stands seven times and beside moth once, in the other both
    /// stand together twice. The joint occurrences decide, for NEAR as for a phrase.</summary>
    [Theory]
    [InlineData("lamp NEAR/2 moth")]
    [InlineData("\"lamp moth\"")]
    [InlineData("title:bee OR abstract:(lamp NEAR/2 moth)")]
    public void What_stands_near_is_weighed_by_where_it_stands_together(string line)
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "One", text: "lamp moth a a a a a a lamp a lamp a lamp a lamp a lamp a lamp a"),
            Place(2, 2, "Two", text: "lamp moth a a a a a a a lamp moth a a a a a a a a a"),
        ]);
        Assert.Equal([2, 1], Order(corpus, SortOrder.Relevance, line));
    }

    [Fact]
    public void Near_scores_as_worked_out_by_hand()
    {
        // Two of two records: idf = ln(1 + 0.5 / 2.5) = ln 1.2. All abstracts have four words, so the norm is 1; lamp
        // and moth stand together once in one and twice in the other: ln 1.2 · 1 / 2.2 and ln 1.2 · 2 / 3.2.
        using var corpus = new SmallCorpus([
            Place(1, 1, "One", text: "lamp moth lamp lamp"),
            Place(2, 2, "Two", text: "lamp moth moth lamp"),
        ]);
        using var snapshot = corpus.Index.Snapshot();
        var root = QueryReader.Read("lamp NEAR/0 moth").Root!;
        var scores = new float[snapshot.Columns.WorkSize];
        Relevance.Score(snapshot, Concepts.Of(root), new QuestionEvaluator(snapshot, null).Records(root), scores);
        Assert.Equal(2 * scores[1] * 2.2 / 3.2, scores[2], 5);
    }

    [Fact]
    public void Stage_and_tag_ask_the_review()
    {
        using var corpus = new SmallCorpus([
            Place(1, 1, "a"),
            Place(2, 1, "a", database: 2),
            Place(3, 2, "b"),
            Place(4, 3, "c"),
        ]);
        using var snapshot = corpus.Index.Snapshot();
        DecisionEvent Event(long n, DecisionAct act, int work, string? value = null) =>
            new(n, Guid.NewGuid(), work, work, act, value, "ann", DateTimeOffset.UnixEpoch);
        var fold = new DecisionFold(
            [
                Event(1, DecisionAct.Keep, 1),
                Event(2, DecisionAct.SetAside, 2, "x"),
                Event(3, DecisionAct.Tag, 1, "Field experiment"),
            ],
            e => e.WorkId
        );
        var evaluator = new QuestionEvaluator(snapshot, new ReviewFacts(fold, snapshot.Columns.WorkSize));
        int[] Works(string line) => evaluator.Works(evaluator.Records(QueryReader.Read(line).Root!)).ToArray();
        Assert.Equal([1], Works("stage:kept"));
        Assert.Equal([2], Works("stage:\"set aside\""));
        Assert.Equal([3], Works("stage:found"));
        Assert.Equal([1], Works("tag:field*"));
        Assert.Equal([2, 3], Works("NOT tag:\"field experiment\""));
        Assert.Equal([1], Works("database:meridian"));
    }
}
