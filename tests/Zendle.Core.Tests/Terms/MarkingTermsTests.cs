using Zendle.Core.Queries;
using Zendle.Core.Terms;

namespace Zendle.Core.Tests.Terms;

/// <summary>Which terms mark some works, and which of them are worth offering.</summary>
public sealed class MarkingTermsTests
{
    private static CountedTerm Term(string text, int good, int others, double strength) =>
        new(text.Split(' '), good, others, strength);

    private static string[] Chosen(IEnumerable<CountedTerm> terms, string board = "", params string[] refused) =>
        [
            .. MarkingTerms
                .Choose(
                    terms,
                    QueryReader.Read(board).Root is { } root
                        ? [.. Concepts.Terms(root, QueryField.About).Select(t => t.Term)]
                        : [],
                    refused.ToHashSet(StringComparer.Ordinal),
                    20
                )
                .Select(t => t.Expression),
        ];

    /// <summary>
    /// Worked by hand for 8 of 10 against 10 of 90: 2(8 ln .8 + 2 ln .2 + 10 ln(1/9) + 80 ln(8/9) − 18 ln .18 − 82 ln .82)
    /// = 2(−1.7851 − 3.2189 − 21.9722 − 9.4226 + 30.8664 + 16.2730) = 21.4812.
    /// </summary>
    [Fact]
    public void Strength_is_the_log_likelihood_ratio() => Assert.Equal(21.48, LikelihoodRatio.Of(8, 10, 10, 90), 2);

    [Fact]
    public void A_term_as_frequent_in_both_marks_neither_and_a_rarer_one_is_negative()
    {
        Assert.Equal(0, LikelihoodRatio.Of(2, 10, 20, 100), 9);
        Assert.True(LikelihoodRatio.Of(1, 10, 80, 100) < 0);
        Assert.Equal(0, LikelihoodRatio.Of(0, 0, 5, 100));
        Assert.Throws<ArgumentOutOfRangeException>(() => LikelihoodRatio.Of(11, 10, 0, 90));
    }

    [Fact]
    public void What_the_board_has_holds_or_is_part_of_is_left_out() =>
        Assert.Equal(
            ["nectar"],
            Chosen(
                [
                    Term("moths", 9, 10, 50),
                    Term("hawkmoth", 8, 4, 45),
                    Term("night flying moths", 7, 3, 40),
                    Term("light", 9, 90, 30),
                    Term("nectar", 6, 20, 20),
                ],
                "*moth* AND \"light pollution\""
            )
        );

    [Fact]
    public void Number_and_spelling_of_one_term_are_taken_together() =>
        Assert.Equal(
            ["\"flower colour\" OR \"flower color\" OR \"flower colours\"", "bat OR bats"],
            Chosen([
                Term("flower colour", 9, 10, 50),
                Term("bat", 8, 10, 45),
                Term("flower color", 4, 10, 30),
                Term("bats", 4, 12, 25),
                Term("flower colours", 3, 3, 20),
            ])
        );

    [Fact]
    public void A_term_that_stands_mostly_within_a_longer_one_gives_way_to_it() =>
        Assert.Equal(
            ["\"seed set\""],
            Chosen([Term("seed", 10, 8, 50), Term("seed set", 9, 5, 48), Term("set", 9, 12, 10)])
        );

    [Fact]
    public void A_longer_term_stands_beside_a_shorter_one_only_where_it_tells_more() =>
        Assert.Equal(
            ["pollen", "\"pollen load\""],
            Chosen([Term("pollen", 20, 40, 60), Term("pollen load", 6, 1, 20), Term("pollen grains", 5, 10, 12)])
        );

    [Fact]
    public void Refused_terms_stay_away() =>
        Assert.Equal(["nectar"], Chosen([Term("site", 9, 10, 50), Term("nectar", 8, 9, 40)], "", "site"));

    [Fact]
    public void Running_words_are_cut_at_punctuation_and_keep_their_order() =>
        Assert.Equal(
            ["light", "traps", "and", "moths", "", "a", "review", "", "night", "flying", "insects", ""],
            RunningWords.Of(["Light-traps and moths: a review", "", "Night-flying insects"])
        );

    [Theory]
    [InlineData("light", true)]
    [InlineData("of", false)]
    [InlineData("und", false)]
    [InlineData("2019", false)]
    [InlineData("x", false)]
    [InlineData("街", true)]
    public void Terms_begin_and_end_with_words_that_carry_meaning(string word, bool can) =>
        Assert.Equal(can, FunctionWords.CanBound(word));
}
