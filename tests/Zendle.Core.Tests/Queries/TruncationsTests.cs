using CsCheck;
using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Core.Tests.Queries;

public sealed class TruncationsTests
{
    private static readonly string[] Words =
    [
        "mot",
        "moth",
        "mothlike",
        "moths",
        "motion",
        "motionless",
        "motor",
        "motorway",
    ];

    private static string Without(string pattern, params string[] notMeant) =>
        string.Join(" OR ", Truncations.Without(pattern, Words, notMeant.ToHashSet()));

    [Theory]
    [InlineData("mot*", "mot*")]
    [InlineData("moth* OR mot", "mot*", "motion", "motionless", "motor", "motorway")]
    [InlineData("mot OR moth* OR motor*", "mot*", "motion", "motionless")]
    [InlineData("mot OR mothlike OR moths OR moti* OR motor*", "mot*", "moth")]
    [InlineData("motorway", "mot*", "mot", "moth", "mothlike", "moths", "motion", "motionless", "motor")]
    public void The_shortest_truncations_bring_what_is_meant_and_nothing_else(
        string expected,
        string pattern,
        params string[] notMeant
    )
    {
        static string Sorted(string terms) => string.Join(" OR ", terms.Split(" OR ").Order(StringComparer.Ordinal));
        // "moti*" and "motion*" bring the same here; the longer one says more plainly what is meant.
        Assert.Equal(
            Sorted(expected.Replace("moti*", "motion*", StringComparison.Ordinal)),
            Sorted(Without(pattern, notMeant))
        );
    }

    [Fact]
    public void When_no_word_is_meant_nothing_is_left() =>
        Assert.Empty(Truncations.Without("mot*", Words, Words.ToHashSet()));

    [Theory]
    [InlineData("*light")]
    [InlineData("l?ght")]
    [InlineData("li*t")]
    public void A_pattern_that_is_open_elsewhere_is_written_as_its_words(string pattern) =>
        Assert.Equal(
            ["light", "lit"],
            Truncations.Without(pattern, ["light", "lit", "limit"], new HashSet<string> { "limit" })
        );

    [Theory]
    [InlineData("mo*", 9, true)]
    [InlineData("mot*", 4, true)]
    [InlineData("moth*", 4, false)]
    [InlineData("pollinat*", 15, true)]
    [InlineData("mot*", 1, false)]
    [InlineData("*light", 2, true)]
    [InlineData("moth", 99, false)]
    public void Few_letters_or_many_words_deserve_a_look(string pattern, int words, bool wide) =>
        Assert.Equal(wide, Truncations.IsWide(pattern, words));

    [Fact]
    public void Every_word_that_is_meant_is_brought_and_none_that_is_not()
    {
        var word = Gen.String[Gen.Char["abc"], 0, 5].Select(end => "x" + end);
        Gen.Select(word.Array[1, 30], Gen.Bool.Array[30])
            .Sample(
                (words, out_) =>
                {
                    var notMeant = words.Where((_, i) => out_[i]).ToHashSet();
                    var terms = Truncations.Without("x*", words, notMeant);
                    foreach (var w in words)
                        Assert.Equal(!notMeant.Contains(w), terms.Any(t => Glob.Matches(t, w)));
                }
            );
    }
}
