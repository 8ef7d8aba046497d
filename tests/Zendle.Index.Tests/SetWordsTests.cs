using Zendle.Core.Queries;
using Zendle.Core.Records;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Index.Terms;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>The words of a set are counted as one counts them by hand.</summary>
public sealed class SetWordsTests
{
    /// <summary>
    /// 60 works on moths, from 1950 on one each year: "skyglow" in the title of every second from 1980 on, "sky
    /// brightness" in every second before; a field experiment in every third. And 40 works on weld seams without a year.
    /// </summary>
    private static SmallCorpus Corpus() =>
        SmallCorpus.OneEach(
            100,
            n => new Record
            {
                Identifier = $"oai:a:{n}",
                Title =
                    n >= 60 ? $"Weld seams, sample {n}"
                    : n % 2 == 1 ? $"Moths, part {n}"
                    : n < 30 ? $"Moths under sky brightness, part {n}"
                    : $"Moths under skyglow, part {n}",
                Abstract =
                    n < 60 && n % 3 == 0 ? "The results of a field experiment show much." : "The results show much.",
                Keywords =
                    n >= 60 ? ["weld seams"]
                    : n % 2 == 0 ? ["Moths", "Night"]
                    : ["Moths"],
                Places = n < 6 ? ["Vessmark"] : [],
                Year = n < 60 ? 1950 + n : null,
                Type = DocumentType.Article,
                People = [new($"Person{n}", "A.")],
            }
        );

    private static WordsOfSet Words(SmallCorpus corpus, IEnumerable<int> works, string board = "")
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        return new SetWords(snapshot, evaluator).Of(
            WorkSet.Of(snapshot.Columns.WorkSize, works),
            [],
            [.. SearchBoard.Of(QueryReader.Read(board).Root).Cards.SelectMany(c => c.TextTerms)],
            Budget.Current
        );
    }

    [Fact]
    public void Works_name_their_methods_in_one_form_or_another()
    {
        string[] titles =
        [
            .. Enumerable.Repeat("A field experiment with moths", 4),
            .. Enumerable.Repeat("Moths in field experiments", 2),
            .. Enumerable.Repeat("A cohort study, and a field experiment", 3),
            "A greenhouse trial of one",
            "Moths",
        ];
        using var corpus = SmallCorpus.OneEach(
            titles.Length,
            n => new Record
            {
                Identifier = $"oai:a:{n}",
                Title = titles[n],
                Type = DocumentType.Article,
            }
        );
        using var snapshot = corpus.Index.Snapshot();
        var set = WorkSet.Of(snapshot.Columns.WorkSize, Enumerable.Range(1, titles.Length));
        var named = new MethodsNamed(snapshot.Columns.Words, set);
        // What a single work names is no lane of its own; singular and plural are one.
        Assert.Equal(["field experiment", "cohort study"], named.Names);
        Assert.Equal(
            ["0", "0", "0", "0", "0", "0", "0 1", "0 1", "0 1", "", ""],
            set.ToArray().Select(w => string.Join(' ', named.Of(w)))
        );
        Assert.Empty(named.Of(9_999));
    }

    [Fact]
    public void Terms_are_counted_by_decade_and_rise_and_fall()
    {
        using var corpus = Corpus();
        var words = Words(corpus, Enumerable.Range(1, 60));
        Assert.Equal((60, 0), (words.Total, words.Undated));
        Assert.Equal(
            [(1950, 10), (1960, 10), (1970, 10), (1980, 10), (1990, 10), (2000, 10)],
            words.Decades.Select(d => (d.From, d.Works))
        );
        Assert.Equal(("moths", 60), (words.Terms[0].Text, words.Terms[0].Works));
        var glow = Assert.Single(words.Terms, t => t.Text == "skyglow");
        Assert.Equal((15, 0), (glow.Works, glow.Decades[..3].Sum()));
        Assert.Equal([5, 5, 5], glow.Decades[3..]);
        Assert.True(glow.Trend > Core.Terms.Trend.Sure);
        var bright = Assert.Single(words.Terms, t => t.Text == "sky brightness");
        Assert.Equal(15, bright.Works);
        Assert.True(bright.Trend < -Core.Terms.Trend.Sure);
        // What is common anywhere is no word of this set; a method stands under methods.
        Assert.DoesNotContain(words.Terms, t => t.Text.Contains("results", StringComparison.Ordinal));
        var method = Assert.Single(words.Methods);
        Assert.Equal(("field experiment", 20), (method.Text, method.Works));
        Assert.Equal([("Moths", 60), ("Night", 30)], words.Keywords);
        Assert.Equal([("Vessmark", 6)], words.Countries);
    }

    [Fact]
    public void Every_count_is_what_the_expression_finds_in_the_set()
    {
        using var corpus = Corpus();
        int[] set = [.. Enumerable.Range(20, 60)];
        var words = Words(corpus, set);
        Assert.Equal(19, words.Undated);
        Assert.NotEmpty(words.Pairs);
        foreach (var term in words.Terms.Concat(words.Methods))
            Assert.Equal(Found(term.Expression), term.Works);
        foreach (var (first, second, both) in words.Pairs.Select(p => (p.First, p.Second, p.Works)))
            Assert.Equal(Found($"({first.Expression}) AND ({second.Expression})"), both);

        // A work has one record here, of the same number.
        int Found(string expression) =>
            PlainScan.Records(corpus.Records, QueryReader.Read(expression).Root!).Intersect(set).Count();
    }

    [Fact]
    public void Terms_of_the_search_are_left_out_and_the_odd_sets_have_words_or_none()
    {
        using var corpus = Corpus();
        Assert.DoesNotContain(Words(corpus, Enumerable.Range(1, 60), "moth*").Terms, t => t.Text == "moths");
        var none = Words(corpus, []);
        Assert.Equal((0, 0, 0), (none.Total, none.Terms.Count, none.Decades.Count));
        Assert.Equal("weld seams", Words(corpus, [61]).Terms[0].Text);
        // All works: nothing to hold them against, but their keywords.
        var all = Words(corpus, Enumerable.Range(1, 100));
        Assert.Equal(["moths", "weld seams"], all.Terms.Take(2).Select(t => t.Text));
        Assert.Equal(40, all.Undated);
    }
}
