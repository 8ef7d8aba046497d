using System.Diagnostics;
using CsCheck;
using Zendle.Core.Queries;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>
/// Lines nobody would write on purpose: each is answered, or refused with a sentence and its place; none hangs or
/// throws.
/// </summary>
public sealed class OddQuestionsTests : IDisposable
{
    private readonly SmallCorpus corpus = new([
        .. Enumerable
            .Range(1, 60)
            .Select(id => new Placed(
                id,
                id,
                id % 3 + 1,
                new Record
                {
                    Identifier = $"x{id}",
                    Title = $"Moths {(id % 2 == 0 ? "and lamps" : "in dark lanes")} number {id}",
                    Abstract = "Light traps were set on the verge; the motor of motion stood still.",
                    Keywords = ["night-flight", "naïve"],
                    Year = 1990 + id % 20,
                    People = [new("Berg", "Mei")],
                }
            )),
    ]);

    public void Dispose() => corpus.Dispose();

    private int Found(QueryReading reading)
    {
        using var snapshot = corpus.Index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        return reading.Root is null ? -1 : evaluator.Works(evaluator.Records(reading.Root)).Count();
    }

    private int Found(string line)
    {
        var reading = QueryReader.Read(line);
        Assert.True(reading.IsSound, line);
        return Found(reading);
    }

    /// <summary>
    /// Pieces of which lines are put together: words, operators, fields, brackets, marks, and letters of any script.
    /// </summary>
    private static readonly Gen<string> Piece = Gen.Frequency(
        (
            6,
            Gen.OneOf(
                "moth",
                "moths",
                "lamp*",
                "light",
                "*",
                "?",
                "m*h",
                "\"dark lanes\"",
                "night-flight",
                "naive",
                "the",
                "0.05",
                "1990"
            )
        ),
        (
            4,
            Gen.OneOf(
                "AND",
                "OR",
                "NOT",
                "and",
                "or",
                "not",
                "NEAR/3",
                "NEAR",
                "NEAR/0",
                "NEAR/1000",
                "NEAR/x",
                "&&",
                "||",
                "|",
                "-",
                "+",
                "ADJ",
                "W/3"
            )
        ),
        (
            3,
            Gen.OneOf(
                "(",
                ")",
                "((",
                "))",
                "\"",
                "“",
                "”",
                "'",
                "[",
                "]",
                "{",
                "}",
                ":",
                "::",
                "/",
                "\\",
                ";",
                ",",
                ".",
                "…"
            )
        ),
        (
            2,
            Gen.OneOf(
                "title:",
                "author:",
                "year:",
                "year:1990-1995",
                "year:x",
                "type:review",
                "nofield:",
                "doi:",
                "stage:kept",
                "tag:",
                "title:(",
                "venue:\""
            )
        ),
        (1, Gen.String[0, 6])
    );

    private static readonly Gen<string> Line = Gen.Select(Piece.Array[0, 14], Gen.Bool)
        .Select((pieces, spaced) => string.Join(spaced ? " " : "", pieces));

    [Fact]
    public void Lines_of_any_kind_are_answered_or_refused_with_a_place_and_none_takes_two_seconds()
    {
        Line.Sample(
            line =>
            {
                Assert.True(EndsSoon(line), line);
                var reading = QueryReader.Read(line);
                Assert.All(
                    reading.Problems,
                    p =>
                    {
                        Assert.InRange(p.Span.Start, 0, line.Length);
                        Assert.InRange(p.Span.End, p.Span.Start, line.Length);
                        Assert.NotEmpty(p.Sentence);
                    }
                );
                Assert.All(reading.Notices, n => Assert.All(n.Ways, w => Assert.NotNull(w.Text)));
                Found(reading);
                var board = SearchBoard.Of(reading.Root);
                if (reading.IsSound && reading.Root is not null)
                    Assert.Equal(Found(reading), Found(QueryReader.Read(board.Expression)));
            },
            iter: 5_000
        );
    }

    /// <summary>Whether a line is read and answered within two seconds, once in three tries: the machine may be busy.</summary>
    private bool EndsSoon(string line)
    {
        for (var tries = 0; tries < 3; tries++)
        {
            var began = Stopwatch.GetTimestamp();
            Found(QueryReader.Read(line));
            if (Stopwatch.GetElapsedTime(began) < TimeSpan.FromSeconds(2))
                return true;
        }
        return false;
    }

    [Fact]
    public void A_repair_that_is_offered_can_be_read()
    {
        Line.Sample(
            line =>
            {
                foreach (var problem in QueryReader.Read(line).Problems.Where(p => p.Repair is not null))
                    Assert.DoesNotContain(QueryReader.Read(problem.Repair!.Text).Problems, p => p == problem);
            },
            iter: 3_000
        );
    }

    [Theory]
    [InlineData("*")]
    [InlineData("?")]
    [InlineData("* AND moths")]
    [InlineData("**")]
    public void A_wildcard_alone_is_refused_with_its_place(string line)
    {
        var problem = QueryReader.Read(line).Problems[0];
        Assert.Equal(0, problem.Span.Start);
        Assert.Contains("stands alone", problem.Sentence, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("*oth*", 60)]
    [InlineData("*ane*", 30)]
    [InlineData("mot*", 60)]
    [InlineData("?oths", 60)]
    public void Wildcards_stand_at_the_end_inside_and_at_the_start(string line, int works) =>
        Assert.Equal(works, Found(line));

    [Fact]
    public void A_thousand_terms_pasted_from_a_document_are_one_list()
    {
        var pasted =
            string.Join("\r\n", Enumerable.Range(0, 1_000).Select(i => i == 500 ? "“dark lanes” OR" : $"word{i} OR"))
            + "\r\nlamps";
        var reading = QueryReader.Read(pasted);
        Assert.True(reading.IsSound);
        Assert.Equal(1_001, Assert.IsType<OrNode>(reading.Root).Parts.Length);
        Assert.Equal(60, Found(reading)); // the lit half by "lamps", the dark half by the phrase
    }

    [Fact]
    public void Nearness_may_be_none_or_a_thousand()
    {
        Assert.Equal(30, Found("dark NEAR/0 lanes"));
        Assert.Equal(0, Found("moths NEAR/0 lanes"));
        Assert.Equal(60, Found("light NEAR/9 verge"));
        var far = QueryReader.Read("moths NEAR/1000 number");
        Assert.True(far.IsSound ? Found(far) == 60 : far.Problems[0].Sentence.Length > 0);
    }

    [Fact]
    public void Two_hundred_parentheses_are_read_through()
    {
        var deep = new string('(', 200) + "lamps" + new string(')', 200);
        Assert.Equal(30, Found(deep));
        Assert.Equal("lamps", SearchBoard.Of(QueryReader.Read(deep).Root).Expression);
    }

    [Fact]
    public void The_board_of_any_line_takes_any_act_without_an_exception()
    {
        var edit = Gen.Select(
                Gen.Int[0, 5],
                Gen.Int[-1, 5],
                Gen.Int[-1, 4],
                Piece,
                Gen.Int[-1, 5],
                Gen.Int[0, 18],
                Gen.Int[-1, 60]
            )
            .Select(
                (kind, card, term, text, to, scope, near) =>
                    new BoardEdit((BoardEditKind)kind, card, term, text, to, (QueryField)scope, near < 0 ? null : near)
            );
        Gen.Select(Line, edit)
            .Sample(
                (line, act) =>
                {
                    var before = SearchBoard.Of(QueryReader.Read(line).Root);
                    var after = before.With(act, out var whyNot);
                    Assert.Equal(after is null, whyNot is not null);
                    if (after is null)
                        return;
                    Assert.True(after.Cards.Count(c => c.Kind == CardKind.Without) <= 1);
                    Assert.All(after.Cards, c => Assert.NotEmpty(c.Terms));
                    if (QueryReader.Read(before.Expression).IsSound)
                        Assert.True(
                            QueryReader.Read(after.Expression).IsSound,
                            $"{before.Expression} → {after.Expression}"
                        );
                },
                iter: 5_000
            );
    }
}
