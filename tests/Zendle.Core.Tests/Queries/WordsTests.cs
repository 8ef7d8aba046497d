using Zendle.Core.Text;

namespace Zendle.Core.Tests.Queries;

public sealed class WordsTests
{
    private static string[] Texts(string text) =>
        [.. Words.Of(text).Select(w => w.IsClosedForm ? $"={w.Text}" : w.Text)];

    [Theory]
    [InlineData("Moths and Lamps", new[] { "moths", "and", "lamps" })]
    [InlineData("Étienne's naïve Übermut", new[] { "etienne", "naive", "ubermut" })]
    [InlineData("cafe\u0301", new[] { "cafe" })] // decomposed accent
    [InlineData("CO₂ at 0.05 lux, 1,204 moths", new[] { "co2", "at", "0.05", "lux", "1,204", "moths" })]
    [InlineData("ΟΔΟΣ", new[] { "οδοσ" })] // final sigma folds to the plain one
    [InlineData("photo\u00ADtaxis", new[] { "phototaxis" })] // soft hyphen
    [InlineData("Łódź straße", new[] { "lodz", "strasse" })]
    [InlineData("夜蛾", new[] { "夜", "蛾" })]
    [InlineData("🌙 — …", new string[0])]
    public void Folds_and_cuts(string text, string[] expected) => Assert.Equal(expected, Texts(text));

    [Theory]
    [InlineData("light-trap catch", new[] { "light", "=lighttrap", "trap", "catch" })]
    [InlineData("before-after-control", new[] { "before", "=beforeaftercontrol", "after", "control" })]
    [InlineData("light - trap", new[] { "light", "trap" })]
    public void A_hyphenated_word_also_gives_its_closed_form(string text, string[] expected) =>
        Assert.Equal(expected, Texts(text));

    [Fact]
    public void Closed_form_stands_at_the_position_of_the_first_part_and_spans_the_whole()
    {
        var words = Words.Of("a light-trap here");
        Assert.Equal(
            [(1, 2, 7), (1, 2, 12), (2, 8, 12), (3, 13, 17)],
            words.Skip(1).Select(w => (w.Position, w.Start, w.End))
        );
    }

    [Fact]
    public void Half_a_surrogate_pair_is_no_text_and_no_fault()
    {
        Assert.Equal("", Words.Fold("\uD83E"));
        Assert.Equal("ab", Words.Fold("A\uD83Eb"));
        Assert.Equal("a🦋b", Words.Fold("A🦋B"));
        Assert.Equal(["moths"], Texts("\uDD8B moths \uD83E"));
        CsCheck.Check.Sample(
            CsCheck.Gen.String[CsCheck.Gen.Char["aÉ\uD83E\uDD8B夜-"], 0, 12],
            text =>
                Assert.DoesNotContain(Words.Fold(text).EnumerateRunes(), r => r == System.Text.Rune.ReplacementChar),
            iter: 2_000
        );
    }

    [Fact]
    public void Offsets_point_into_the_original_text() =>
        CsCheck.Check.Sample(
            CsCheck.Gen.String[CsCheck.Gen.Char["abÉ -'.,’ß😀夜1"], 0, 40],
            text =>
                Assert.All(Words.Of(text), w => Assert.True(0 <= w.Start && w.Start < w.End && w.End <= text.Length)),
            iter: 2_000
        );
}
