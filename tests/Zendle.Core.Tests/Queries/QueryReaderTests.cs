using CsCheck;
using Zendle.Core.Queries;

namespace Zendle.Core.Tests.Queries;

public sealed class QueryReaderTests
{
    private static string Shape(string line) => QueryReader.Read(line).Root is { } root ? Shape(root) : "nothing";

    private static string Shape(QueryNode node) =>
        node switch
        {
            AllNode => "all",
            TermNode t => string.Join('+', t.Slots),
            AndNode a => $"and({string.Join(' ', a.Parts.Select(Shape))})",
            OrNode o => $"or({string.Join(' ', o.Parts.Select(Shape))})",
            NotNode n => $"not({Shape(n.Part)})",
            NearNode n => $"near({string.Join(' ', n.Parts.Select(Shape))};{string.Join(',', n.Distances)})",
            FieldNode f => $"{f.Field}({Shape(f.Part)})",
            YearsNode y => $"years({y.From},{y.To})",
            _ => "?",
        };

    [Theory]
    [InlineData("", "all")]
    [InlineData("moth", "moth")]
    [InlineData("light moth", "and(light moth)")]
    [InlineData("light AND moth OR bat", "or(and(light moth) bat)")]
    [InlineData("light AND (moth OR bat)", "and(light or(moth bat))")]
    [InlineData("light NOT moth", "and(light not(moth))")]
    [InlineData("NOT light AND moth", "and(not(light) moth)")]
    [InlineData("a NEAR/3 b NEAR/0 c", "near(a b c;3,0)")]
    [InlineData("lamp NEAR/5 (moth OR \"hawk moth\")", "near(lamp or(moth hawk+moth);5)")]
    [InlineData("light NEAR/2 moth AND bat", "and(near(light moth;2) bat)")]
    [InlineData("\"street lighting\"", "street+lighting")]
    [InlineData("“street lighting”", "street+lighting")] // curly quotation marks
    [InlineData("light-trap*", "light+trap*")]
    [InlineData("colo?r", "colo?r")]
    [InlineData("title:moth", "Title(moth)")]
    [InlineData("title:(moth OR bat)", "Title(or(moth bat))")]
    [InlineData("Author:\"Jonas Virtasalo\"", "Author(jonas+virtasalo)")]
    [InlineData("year:2005-2026", "years(2005,2026)")]
    [InlineData("year:2005-", "years(2005,)")]
    [InlineData("year:-2004", "years(,2004)")]
    [InlineData("year:2015", "years(2015,2015)")]
    [InlineData("year:2026..2005", "years(2005,2026)")]
    [InlineData("year:(1990 OR 2005-2010)", "or(years(1990,1990) years(2005,2010))")]
    [InlineData("light or moth", "or(light moth)")]
    [InlineData("light & moth | bat", "or(and(light moth) bat)")]
    [InlineData("to be or not to be", "or(and(to be) and(not to be))")]
    [InlineData("near the lamp", "and(near the lamp)")]
    public void Reads(string line, string shape) => Assert.Equal(shape, Shape(line));

    [Theory]
    [InlineData("(light AND moth", 0, "opens at 1 and never closes", "(light AND moth)")]
    [InlineData("light AND moth)", 14, "closes nothing", "light AND moth")]
    [InlineData("light AND", 6, "nothing after it", "light")]
    [InlineData("OR moth", 0, "nothing before it", "moth")]
    [InlineData("AND", 0, "nothing before it", "")]
    [InlineData("light \"moth", 6, "never closes", "light \"moth\"")]
    [InlineData("light () moth", 6, "are empty", "light moth")]
    [InlineData("light 🌙", 6, "no letter or digit", "light")]
    [InlineData("light *", 6, "stands alone", "light")]
    [InlineData("titel:moth", 0, "no field “titel”", "title:moth")]
    [InlineData("auhtor:Berg", 0, "no field “auhtor”", "author:Berg")]
    [InlineData("light NEAR moth", 6, "does not say how near", "light NEAR/5 moth")]
    [InlineData("title: AND moth", 0, "Nothing follows", "AND moth")]
    [InlineData("year:soon", 5, "is not a year", null)]
    public void A_fault_has_its_position_and_a_repair(string line, int position, string says, string? repaired)
    {
        var problem = QueryReader.Read(line).Problems[0];
        Assert.Equal(position, problem.Span.Start);
        Assert.Contains(says, problem.Sentence, StringComparison.Ordinal);
        Assert.Equal(repaired, problem.Repair?.Text);
    }

    [Theory]
    [InlineData("(light AND moth", "and(light moth)")]
    [InlineData("light AND", "light")]
    [InlineData("light OR (moth AND \"hawk", "or(light and(moth hawk))")]
    [InlineData(")(", "nothing")]
    [InlineData("AND OR NOT", "nothing")]
    public void What_can_be_read_still_runs(string line, string shape) => Assert.Equal(shape, Shape(line));

    [Fact]
    public void Loose_words_are_offered_as_near_and_as_phrase()
    {
        var notice = Assert.Single(QueryReader.Read("(night moth pollen) AND bat").Notices);
        Assert.Equal(NoticeKind.LooseWords, notice.Kind);
        Assert.Equal(
            [
                "(night moth pollen) AND bat",
                "(night NEAR/5 moth NEAR/5 pollen) AND bat",
                "(\"night moth pollen\") AND bat",
            ],
            notice.Ways.Select(w => w.Text)
        );
    }

    [Fact]
    public void A_lower_case_or_is_the_operator_and_can_be_made_a_word()
    {
        var notice = Assert.Single(QueryReader.Read("light or moth").Notices);
        Assert.Equal((NoticeKind.LowerCaseOperator, 6, 2), (notice.Kind, notice.Span.Start, notice.Span.Length));
        Assert.Equal(["light OR moth", "light \"or\" moth"], notice.Ways.Select(w => w.Text));
    }

    [Fact]
    public void A_lower_case_not_is_a_word_and_said_so()
    {
        var notice = Assert.Single(QueryReader.Read("light AND not").Notices);
        Assert.Equal(NoticeKind.LowerCaseNot, notice.Kind);
        Assert.Equal("light AND NOT", notice.Ways[1].Text);
    }

    [Fact]
    public void Or_beside_and_offers_both_readings()
    {
        var notice = Assert.Single(QueryReader.Read("a AND b OR c AND d").Notices);
        Assert.Equal(NoticeKind.MixedOperators, notice.Kind);
        Assert.Equal(["(a AND b) OR (c AND d)", "a AND (b OR c) AND d"], notice.Ways.Select(w => w.Text));
        Assert.Empty(QueryReader.Read("(a AND b) OR c").Notices.Where(n => n.Kind == NoticeKind.MixedOperators));
    }

    [Fact]
    public void Ten_thousand_letters_in_a_row_are_a_sentence_not_a_wait()
    {
        var reading = QueryReader.Read("light " + new string('x', 10_000));
        Assert.Equal("light", Shape(reading.Root!));
        var problem = Assert.Single(reading.Problems);
        Assert.Equal(6, problem.Span.Start);
        Assert.Contains("10,000 characters", problem.Sentence, StringComparison.Ordinal);
        Assert.Equal("light", problem.Repair!.Text);
    }

    [Fact]
    public void A_line_that_is_too_long_is_read_up_to_its_limit()
    {
        var line = string.Join(' ', Enumerable.Repeat("moth", 5_000)); // 24,999 characters
        var reading = QueryReader.Read(line);
        Assert.Equal(line, reading.Text);
        Assert.Contains("24,999", reading.Problems[0].Sentence, StringComparison.Ordinal);
        Assert.Equal(4_000, ((AndNode)reading.Root!).Parts.Length); // 20,000 characters hold 4,000 times "moth "
    }

    [Fact]
    public void Nested_deeper_than_the_limit_is_left_out_with_a_sentence()
    {
        Assert.True(QueryReader.Read(new string('(', 200) + "moth" + new string(')', 200)).IsSound);
        var reading = QueryReader.Read("bat OR " + new string('(', 5_000) + "moth" + new string(')', 5_000));
        Assert.Contains(reading.Problems, p => p.Sentence.Contains("deep", StringComparison.Ordinal));
        Assert.Equal("bat", Shape(reading.Root!));
    }

    [Fact]
    public void Right_to_left_words_are_words() => Assert.Equal("and(אור עש)", Shape("אור AND עש"));

    private static readonly Gen<string> Piece = Gen.OneOf(
        Gen.OneOf(
            "AND",
            "OR",
            "NOT",
            "or",
            "and",
            "not",
            "(",
            ")",
            "\"",
            "NEAR/3",
            "NEAR",
            "title:",
            "year:",
            "foo:",
            "*",
            "?",
            "moth*",
            "light-trap",
            "夜",
            "🌙",
            "2005-2026",
            "&",
            "-",
            "[",
            "]",
            "[title]",
            " \t "
        ),
        Gen.String[Gen.Char["abc*?\"():-[] é"], 0, 8]
    );

    [Fact]
    public void Any_line_is_read_without_an_exception_and_every_fault_has_a_place_in_it() =>
        Piece
            .Array[0, 30]
            .Select(p => string.Join(' ', p))
            .Sample(
                line =>
                {
                    var reading = QueryReader.Read(line);
                    Assert.All(
                        reading.Problems,
                        p => Assert.True(p.Span.Start >= 0 && p.Span.End <= line.Length && p.Sentence.Length > 10)
                    );
                    Assert.All(reading.Notices, n => Assert.True(n.Span.End <= line.Length && n.Ways.Length > 0));
                },
                iter: 1_500
            );

    [Theory]
    [InlineData("title:(title:bat)", "title:(title:bat)")]
    [InlineData("about:(year:2005)", "about:(year:2005)")]
    public void A_field_inside_a_field_is_printed_so_that_it_reads_back(string line, string printed)
    {
        var root = QueryReader.Read(line).Root!;
        Assert.Equal(printed, QueryText.Print(root));
        Assert.Equal(Shape(root), Shape(QueryReader.Read(printed).Root!));
    }

    [Theory]
    [InlineData("  moth [wings] light", "moth wings light")]
    [InlineData("moth [ wings ] light", "moth wings light")]
    [InlineData("\t[moth", "moth")]
    [InlineData(" moth]", "moth")]
    public void Brackets_are_left_out_and_no_word_with_them(string line, string repaired)
    {
        var problem = Assert.Single(QueryReader.Read(line).Problems);
        Assert.Equal(
            repaired,
            string.Join(' ', problem.Repair!.Text.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        );
        Assert.True(QueryReader.Read(problem.Repair.Text).IsSound);
    }

    [Fact]
    public void A_printed_tree_reads_back_into_the_same_tree() =>
        Piece
            .Array[1, 14]
            .Select(p => string.Join(' ', p))
            .Sample(
                line =>
                {
                    if (QueryReader.Read(line) is not { IsSound: true, Root: { } root })
                        return;
                    var again = QueryReader.Read(QueryText.Print(root));
                    Assert.Empty(again.Problems);
                    Assert.Equal(Shape(root), Shape(again.Root!));
                },
                iter: 3_000
            );

    [Theory]
    [InlineData("moth*", "words beginning with “moth” in title, abstract or keywords")]
    [InlineData("title:moth", "the word in title")]
    [InlineData("\"seed set\"", "exactly these words in a row in title, abstract or keywords")]
    [InlineData("a NEAR/1 b", "with at most 1 word between neighbours, in either order in title, abstract or keywords")]
    [InlineData("year:2005-", "dated 2005 or later in any record")]
    public void Says_what_a_part_means(string line, string meaning) =>
        Assert.Equal(meaning, QueryText.Meaning(QueryReader.Read(line).Root!));

    [Theory]
    [InlineData("-")]
    [InlineData("…")]
    [InlineData(" ' ")]
    public void A_line_without_a_word_says_so(string line)
    {
        var reading = QueryReader.Read(line);
        Assert.Null(reading.Root);
        Assert.Equal((0, line.Length), (reading.Problems[0].Span.Start, reading.Problems[0].Span.End));
    }
}
