using Zendle.Core.Queries;

namespace Zendle.Core.Tests.Queries;

public sealed class WordGapsTests
{
    private static string? First(string text, params string[] slots) =>
        WordGaps.First(text, [.. slots]) is { } at ? text.Substring(at.Start, at.Length) : null;

    [Theory]
    [InlineData("On flower and fruit visits by moths.", "flower and fruit visits")]
    [InlineData("Moths visit a flower at dusk.", "visit a flower")]
    [InlineData("Flower visits rise.", null)]
    [InlineData("A flower that no moth would ever visit.", null)]
    [InlineData("Visit flower by flower.", "Visit flower")]
    [InlineData("", null)]
    public void Words_apart_or_turned_round_are_found_and_words_in_a_row_are_not(string text, string? expected) =>
        Assert.Equal(expected, First(text, "flower", "visit*"));

    [Fact]
    public void Three_words_each_stand_near_the_next()
    {
        Assert.Equal(
            "light at night in towns",
            First("Effects of light at night in towns.", "light", "night", "towns")
        );
        Assert.Null(First("Light and, long after the first night, towns.", "light", "night", "towns"));
    }

    [Fact]
    public void A_word_is_not_used_twice() => Assert.Null(First("moth and trap", "moth", "moth"));

    [Fact]
    public void The_loose_form_puts_nearness_between_the_words()
    {
        var term = Assert.IsType<TermNode>(QueryReader.Read("\"light at night\"").Root);
        Assert.Equal("light NEAR/2 at NEAR/2 night", WordGaps.Loose(term));
        Assert.IsType<NearNode>(QueryReader.Read(WordGaps.Loose(term)).Root);
    }
}
