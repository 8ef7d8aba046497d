using System.Text.RegularExpressions;
using Zendle.Core.Queries;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>
/// Short questions that ask for everything end, exactly or with a sentence; and nobody works for one who has gone.
/// </summary>
public sealed class BudgetTests : IDisposable
{
    private const int Size = 1_500,
        WordsEach = 60;

    private static readonly string[] Titles = Made();

    private readonly SmallCorpus corpus = SmallCorpus.OneEach(
        Titles.Length,
        i => new Record { Identifier = $"x{i}", Title = Titles[i] }
    );

    public void Dispose() => corpus.Dispose();

    /// <summary>Titles of made-up words, most of them rare, of three to sixteen letters.</summary>
    private static string[] Made()
    {
        var random = new Random(5);
        string Word() =>
            string.Concat(Enumerable.Range(0, random.Next(3, 17)).Select(_ => "abcdelmnorst"[random.Next(12)]));
        var vocabulary = Enumerable.Range(0, 20_000).Select(_ => Word()).ToArray();
        return
        [
            .. Enumerable
                .Range(0, Size)
                .Select(_ =>
                    string.Join(
                        ' ',
                        Enumerable
                            .Range(0, WordsEach)
                            .Select(_ => vocabulary[(int)(vocabulary.Length * Math.Pow(random.NextDouble(), 2))])
                    )
                ),
        ];
    }

    private int[] Found(string line)
    {
        using var snapshot = corpus.Index.Snapshot();
        return new QuestionEvaluator(snapshot, null).Records(QueryReader.Read("title:(" + line + ")").Root!).ToArray();
    }

    private static int[] Scanned(Func<string[], bool> fits) =>
        [.. Titles.Select((t, i) => (Words: t.Split(' '), Id: i + 1)).Where(t => fits(t.Words)).Select(t => t.Id)];

    private static void Within(TimeSpan time, Action act, CancellationToken cancel = default)
    {
        using var budget = new Budget(time, cancel);
        // What an act leaves behind in the flow of the test ends with its thread.
        Exception? thrown = null;
        var thread = new Thread(() =>
        {
            budget.Begin();
            try
            {
                act();
            }
            catch (Exception e)
            {
                thrown = e;
            }
        });
        thread.Start();
        thread.Join();
        if (thrown is not null)
            System.Runtime.ExceptionServices.ExceptionDispatchInfo.Throw(thrown);
    }

    [Theory]
    [InlineData("*a??????????")]
    [InlineData("*a??????????????")]
    [InlineData("?*a*e*?")]
    [InlineData("*a*b*c*d*e*")]
    [InlineData("a*e")]
    [InlineData("a?????")]
    [InlineData("?????e")]
    public void Patterns_of_any_shape_find_what_a_plain_reading_finds_in_time_linear_in_the_pattern(string pattern)
    {
        var regex = new Regex(
            "^"
                + Regex
                    .Escape(pattern)
                    .Replace(@"\*", ".*", StringComparison.Ordinal)
                    .Replace(@"\?", ".", StringComparison.Ordinal)
                + "$",
            RegexOptions.NonBacktracking
        );
        Within(
            TimeSpan.FromSeconds(20),
            () => Assert.Equal(Scanned(words => words.Any(w => regex.IsMatch(w))), Found(pattern))
        );
    }

    [Fact]
    public void Near_over_groups_of_wide_truncations_takes_time_near_its_inputs_and_agrees_with_a_plain_reading()
    {
        bool Begins(string word, string letters) => letters.Contains(word[0], StringComparison.Ordinal);
        bool Near(string[] words) =>
            words
                .Select((w, i) => (w, i))
                .Any(a =>
                    Begins(a.w, "abc")
                    && words
                        .Select((w, i) => (w, i))
                        .Any(b => Begins(b.w, "de") && b.i != a.i && Math.Abs(a.i - b.i) - 1 <= 3)
                );
        const string Line = "(a* OR b* OR c*) NEAR/3 (d* OR e*)";
        Within(
            TimeSpan.FromSeconds(20),
            () =>
            {
                Assert.Equal(Scanned(Near), Found(Line));
                // What only one of the terms brings in, for each, without reading the others again.
                using var snapshot = corpus.Index.Snapshot();
                var root = (FieldNode)QueryReader.Read("title:(" + Line + ")").Root!;
                var evaluator = new QuestionEvaluator(snapshot, null);
                foreach (var (term, field) in Concepts.Terms(root, QueryField.About))
                    Assert.True(
                        evaluator.Records(root, QueryField.About, term).Count() <= Scanned(Near).Length,
                        $"{term.Written} {field}"
                    );
            }
        );
    }

    [Fact]
    public void What_is_spent_is_said_and_nothing_half_worked_out_is_remembered()
    {
        var e = Assert.Throws<BudgetSpentException>(() => Within(TimeSpan.FromTicks(1), () => Found("*a* NEAR/9 *e*")));
        Assert.EndsWith(".", e.Message, StringComparison.Ordinal);
        Assert.Equal(Scanned(words => words.Any(w => w.Contains('a', StringComparison.Ordinal))), Found("*a*"));
        Assert.Equal(
            Scanned(words =>
                words
                    .Select((w, i) => (w, i))
                    .Any(a =>
                        a.w.Contains('a', StringComparison.Ordinal)
                        && words
                            .Select((w, i) => (w, i))
                            .Any(b =>
                                b.i != a.i
                                && b.w.Contains('e', StringComparison.Ordinal)
                                && Math.Abs(a.i - b.i) - 1 <= 9
                            )
                    )
            ),
            Found("*a* NEAR/9 *e*")
        );
    }

    [Fact]
    public void Nobody_works_for_one_who_has_gone()
    {
        using var gone = new CancellationTokenSource();
        gone.Cancel();
        Assert.ThrowsAny<OperationCanceledException>(() =>
            Within(TimeSpan.FromSeconds(20), () => Found("*a*"), gone.Token)
        );
        using var going = new CancellationTokenSource(30);
        var watch = System.Diagnostics.Stopwatch.StartNew();
        try
        {
            Within(
                TimeSpan.FromMinutes(5),
                () =>
                {
                    for (var i = 0; i < 10_000; i++)
                        Found($"(*a* OR *b{i}*) NEAR/{i % 50} (*e* OR *d{i}*)");
                },
                going.Token
            );
        }
        catch (OperationCanceledException) { }
        Assert.True(watch.Elapsed < TimeSpan.FromSeconds(10), $"{watch.Elapsed}");
    }

    [Fact]
    public void A_request_that_is_heavy_takes_a_turn_once_and_gives_it_back()
    {
        var (taken, ended) = (0, 0);
        using (
            var budget = new Budget(
                TimeSpan.FromMinutes(1),
                CancellationToken.None,
                TimeSpan.Zero,
                _ =>
                {
                    taken++;
                    return new Ends(() => ended++);
                }
            )
        )
        {
            Thread.Sleep(2);
            for (var i = 0; i < 5; i++)
                budget.Check();
            Assert.Equal((1, 0), (taken, ended));
        }
        Assert.Equal((1, 1), (taken, ended));
    }

    [Fact]
    public void Places_that_would_not_fit_are_refused()
    {
        using var budget = new Budget(TimeSpan.FromMinutes(1), CancellationToken.None);
        budget.Hold(20_000_000);
        Assert.Throws<BudgetSpentException>(() => budget.Hold(20_000_000));
    }

    private sealed class Ends(Action act) : IDisposable
    {
        public void Dispose() => act();
    }
}
