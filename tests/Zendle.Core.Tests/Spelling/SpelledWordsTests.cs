using CsCheck;
using F23.StringSimilarity;
using Zendle.Core.Spelling;

namespace Zendle.Core.Tests.Spelling;

/// <summary>Words within two slips are all found, by an order that is walked and never by comparing with each.</summary>
public sealed class SpelledWordsTests
{
    private static readonly OptimalStringAlignment Slips = new();

    [Fact]
    public void Near_words_are_those_that_comparing_with_each_finds()
    {
        var word = Gen.Char["abc"].Array[1, 9].Select(letters => new string(letters));
        Gen.Select(word.Array[0, 40], word, Gen.Int[1, 2])
            .Sample(
                (words, typed, slips) =>
                    new SpelledWords(words.Distinct().Select(w => (w, 1)))
                        .Near(typed, slips)
                        .Select(n => n.Word)
                        .SequenceEqual(
                            words
                                .Distinct()
                                .Where(w => w.Length > 1 && w != typed && Slips.Distance(typed, w) <= slips)
                                .Order(StringComparer.Ordinal)
                        ),
                iter: 6_000
            );
    }

    [Fact]
    public void Slips_are_letters_too_many_missing_other_and_swapped()
    {
        var words = new SpelledWords([("moth", 5), ("month", 2), ("mouth", 3), ("mothlike", 1), ("thom", 1)]);
        Assert.Equal(["month", "mouth"], words.Near("moth", 1).Select(n => n.Word));
        Assert.Equal(["month", "moth", "mouth"], words.Near("moht").Select(n => n.Word));
        Assert.Equal(5, words.Works("moth"));
        Assert.Equal(0, words.Works("moths"));
    }

    [Fact]
    public void A_word_that_is_very_long_or_empty_has_none()
    {
        var words = new SpelledWords([("light", 5), (new string('a', 41), 2)]);
        Assert.Equal(1, words.Count);
        Assert.Empty(words.Near(""));
        Assert.Empty(words.Near(new string('a', 41)));
    }
}
