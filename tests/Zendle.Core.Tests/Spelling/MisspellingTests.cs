using Zendle.Core.Spelling;

namespace Zendle.Core.Tests.Spelling;

/// <summary>Which words of the corpus a word may have been meant to be.</summary>
public sealed class MisspellingTests
{
    private static readonly SpelledWords Words = new([
        ("artificial", 520),
        ("artifical", 2),
        ("light", 3_000),
        ("lights", 400),
        ("pollination", 700),
        ("pollinations", 1),
        ("pollution", 900),
        ("lighting", 1_700),
        ("lightning", 40),
        ("moth", 600),
        ("month", 200),
        ("hawkmoth", 60),
        ("glow", 90),
        ("sky", 300),
    ]);

    [Theory]
    [InlineData("pollnation", "pollination")]
    [InlineData("polination", "pollination")]
    [InlineData("pollinatoin", "pollination")]
    [InlineData("ligth", "light")]
    [InlineData("motth", "moth")]
    [InlineData("hakwmoth", "hawkmoth")]
    [InlineData("skyglow", "sky glow")]
    public void The_likeliest_word_stands_first(string typed, string meant) =>
        Assert.Equal(meant, Misspelling.Of(typed, 0, Words, 5)[0].Text);

    [Theory]
    [InlineData("lightning", 40)]
    [InlineData("hawkmoth", 60)]
    public void A_word_that_the_corpus_knows_is_left_alone(string typed, int works) =>
        Assert.Empty(Misspelling.Of(typed, works, Words, 5));

    [Fact]
    public void A_rare_word_is_doubted_when_a_near_one_is_far_commoner() =>
        Assert.Equal("artificial", Misspelling.Of("artifical", 2, Words, 5)[0].Text);

    [Fact]
    public void The_plural_of_a_common_word_is_no_slip() => Assert.Empty(Misspelling.Of("pollinations", 1, Words, 5));

    [Theory]
    [InlineData("li*")]
    [InlineData("10.5")]
    [InlineData("mo")]
    [InlineData("街")]
    [InlineData("xqzwvk")]
    [InlineData("")]
    public void Patterns_numbers_and_what_is_near_nothing_have_none(string typed) =>
        Assert.Empty(Misspelling.Of(typed, 0, Words, 5));

    /// <summary>Worked by hand: a swap .65, a doubled letter .6, a missing letter .85, a letter too many 1.</summary>
    [Theory]
    [InlineData("ligth", "light", .65)]
    [InlineData("lightt", "light", .6)]
    [InlineData("lght", "light", .85)]
    [InlineData("lighbt", "light", 1)]
    [InlineData("lihht", "light", .75)]
    [InlineData("light", "light", 0)]
    public void What_fingers_do_most_costs_least(string typed, string meant, double cost) =>
        Assert.Equal(cost, SlipCost.Of(typed, meant), 6);
}
