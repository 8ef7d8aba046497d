using System.Text.RegularExpressions;
using CsCheck;
using Zendle.Core.Queries;
using Zendle.Core.Text;

namespace Zendle.Core.Tests.Queries;

/// <summary>What questions mean, held against a plain reader of words that shares nothing with the index.</summary>
public sealed class MeaningTests
{
    private static readonly string[] Alphabet = ["lamp", "moth", "bat", "night", "the"];

    /// <summary>An expression with what it means, made together, so that neither is read off the other.</summary>
    private sealed record Asked(string Text, Func<string[], bool> Holds);

    private static readonly Gen<Asked> Word = Gen.Int[0, 4]
        .Select(i => new Asked(Alphabet[i], text => text.Contains(Alphabet[i])));

    private static readonly Gen<Asked> Phrase = Gen.Select(
        Gen.Int[0, 4],
        Gen.Int[0, 4],
        (a, b) =>
            new Asked(
                $"\"{Alphabet[a]} {Alphabet[b]}\"",
                text => text.Zip(text.Skip(1)).Any(p => p.First == Alphabet[a] && p.Second == Alphabet[b])
            )
    );

    private static readonly Gen<Asked> Near = Gen.Select(
        Gen.Int[0, 4],
        Gen.Int[0, 4],
        Gen.Int[0, 3],
        (a, b, n) =>
            new Asked(
                $"{Alphabet[a]} NEAR/{n} {Alphabet[b]}",
                text =>
                    Enumerable
                        .Range(0, text.Length)
                        .Any(i =>
                            Enumerable
                                .Range(0, text.Length)
                                .Any(j =>
                                    i != j
                                    && text[i] == Alphabet[a]
                                    && text[j] == Alphabet[b]
                                    && Math.Abs(i - j) - 1 <= n
                                )
                        )
            )
    );

    private static readonly Gen<Asked> Truncated = Gen.Int[0, 4]
        .Select(i => new Asked(
            Alphabet[i][..2] + "*",
            text => text.Any(w => w.StartsWith(Alphabet[i][..2], StringComparison.Ordinal))
        ));

    private static Gen<Asked> Tree(int depth) =>
        depth == 0
            ? Gen.OneOf(Word, Phrase, Truncated)
            : Gen.Select(
                Gen.Int[0, 5],
                Tree(depth - 1),
                Tree(depth - 1),
                Near,
                (kind, a, b, near) =>
                    kind switch
                    {
                        0 => new Asked($"({a.Text}) AND ({b.Text})", t => a.Holds(t) && b.Holds(t)),
                        1 => new Asked($"({a.Text}) OR ({b.Text})", t => a.Holds(t) || b.Holds(t)),
                        2 => new Asked($"({a.Text}) AND NOT ({b.Text})", t => a.Holds(t) && !b.Holds(t)),
                        3 => near,
                        4 => new Asked($"NOT ({a.Text})", t => !a.Holds(t)),
                        _ => a,
                    }
            );

    private static bool Holds(QueryNode node, string[] text) =>
        node switch
        {
            TermNode t => Enumerable.Range(0, text.Length).Any(i => StandsAt(t, text, i)),
            AndNode a => a.Parts.All(p => Holds(p, text)),
            OrNode o => o.Parts.Any(p => Holds(p, text)),
            NotNode n => !Holds(n.Part, text),
            NearNode n => Enumerable
                .Range(0, text.Length)
                .Any(i =>
                    Enumerable
                        .Range(0, text.Length)
                        .Any(j =>
                            i != j
                            && StandsAt((TermNode)n.Parts[0], text, i)
                            && StandsAt((TermNode)n.Parts[1], text, j)
                            && Math.Abs(i - j) - 1 <= n.Distances[0]
                        )
                ),
            _ => throw new NotSupportedException(node.GetType().Name),
        };

    private static bool StandsAt(TermNode term, string[] text, int at) =>
        at + term.Slots.Length <= text.Length
        && term.Slots.Select(
                (s, i) =>
                    Regex.IsMatch(
                        text[at + i],
                        "^" + Regex.Escape(s).Replace("\\*", ".*", StringComparison.Ordinal) + "$"
                    )
            )
            .All(m => m);

    private static readonly Gen<string[]> Texts = Gen.Int[0, 4].Select(i => Alphabet[i]).Array[0, 8];

    [Fact]
    public void A_question_is_read_as_it_was_meant() =>
        Gen.Select(Tree(3), Texts)
            .Sample(
                (asked, text) =>
                {
                    var reading = QueryReader.Read(asked.Text);
                    Assert.True(reading.IsSound, asked.Text);
                    Assert.Equal(asked.Holds(text), Holds(reading.Root!, text));
                },
                iter: 3_000
            );

    [Fact]
    public void Printing_it_keeps_its_meaning() =>
        Gen.Select(Tree(3), Texts)
            .Sample(
                (asked, text) =>
                {
                    var printed = QueryText.Print(QueryReader.Read(asked.Text).Root!);
                    var again = QueryReader.Read(printed);
                    Assert.True(again.IsSound, printed);
                    Assert.Equal(asked.Holds(text), Holds(again.Root!, text));
                },
                iter: 3_000
            );

    [Theory]
    [InlineData("moth", "the word in title, abstract or keywords")]
    [InlineData("moth*", "words beginning with “moth” in title, abstract or keywords")]
    [InlineData("*moth", "words of this pattern in title, abstract or keywords")]
    [InlineData("\"street lighting\"", "exactly these words in a row in title, abstract or keywords")]
    [InlineData("\"street light*\"", "words in a row, with endings open in title, abstract or keywords")]
    [InlineData("light-trap", "these words in a row, open, closed or hyphenated in title, abstract or keywords")]
    [InlineData(
        "lamp NEAR/1 moth",
        "with at most 1 word between neighbours, in either order in title, abstract or keywords"
    )]
    [InlineData(
        "lamp NEAR/5 moth",
        "with at most 5 words between neighbours, in either order in title, abstract or keywords"
    )]
    [InlineData("a NEAR/1 b NEAR/2 c", "near each other, in either order in title, abstract or keywords")]
    [InlineData("title:moth", "the word in title")]
    [InlineData("anywhere:moth", "the word anywhere in the record or in its gathered text")]
    [InlineData("text:moth", "the word in gathered full texts")]
    [InlineData("a AND b AND c", "all 3 parts in one record")]
    [InlineData("a OR b", "any of 2")]
    [InlineData("year:2001", "dated 2001 in any record")]
    [InlineData("year:-2001", "dated 2001 or earlier in any record")]
    [InlineData("year:2001-", "dated 2001 or later in any record")]
    [InlineData("year:2001-2003", "dated 2001 to 2003 in any record")]
    public void A_part_is_said_in_words(string line, string meaning) =>
        Assert.Equal(meaning, QueryText.Meaning(QueryReader.Read(line).Root!));

    [Theory]
    [InlineData("light AND moth*", "A:light B:moth*")]
    [InlineData("(light OR lamp*) AND moth* NOT bat", "A:light,lamp* B:moth*")]
    [InlineData("light moth", "A:light B:moth")]
    [InlineData("title:(light AND moth)", "A:light B:moth")]
    [InlineData("lamp NEAR/3 moth", "A:lamp,moth")]
    [InlineData("NOT moth", "")]
    [InlineData("year:2001 AND type:review AND moth", "A:moth")] // only running words are told apart
    [InlineData("", "")]
    public void Concepts_are_what_and_joins(string line, string concepts) =>
        Assert.Equal(
            concepts,
            string.Join(
                ' ',
                Concepts
                    .Of(QueryReader.Read(line).Root)
                    .Select(c => $"{c.Letter}:{string.Join(',', c.Terms.Select(t => t.Term.Written))}")
            )
        );

    [Fact]
    public void More_concepts_than_letters_share_the_last_one() =>
        Assert.Equal(
            'Z',
            Concepts
                .Of(QueryReader.Read(string.Join(" AND ", Enumerable.Range(0, 30).Select(i => $"w{i}"))).Root)[^1]
                .Letter
        );

    private static readonly Gen<string> Letters = Gen.Char["abc"].Array[0, 7].Select(c => new string(c));

    private static readonly Gen<string> Patterns = Gen.Char["ab*?"].Array[0, 7].Select(c => new string(c));

    [Fact]
    public void Patterns_fit_what_the_same_regular_expression_fits() =>
        Gen.Select(Patterns, Letters)
            .Sample(
                (pattern, word) =>
                    Assert.Equal(
                        Regex.IsMatch(
                            word,
                            "^" + pattern.Replace("*", ".*", StringComparison.Ordinal).Replace('?', '.') + "$"
                        ),
                        Glob.Matches(pattern, word)
                    ),
                iter: 5_000
            );

    [Theory]
    [InlineData("colour", "color")]
    [InlineData("behaviour", "behavior")]
    [InlineData("moth", "moths")]
    [InlineData("larvae", "larva")]
    [InlineData("study", "studies")]
    [InlineData("grey", "gray")]
    [InlineData("analyses", "analysis")]
    [InlineData("bush", "bushes")]
    [InlineData("metre", "meter")]
    public void Another_spelling_is_offered_and_offers_the_first_one(string one, string other)
    {
        Assert.Contains(other, SpellingVariants.Of(one));
        Assert.Contains(one, SpellingVariants.Of(other));
    }

    [Theory]
    [InlineData("uv")]
    [InlineData("mo*")]
    [InlineData("co2")]
    [InlineData("")]
    public void Short_words_patterns_and_numbers_have_no_other_spelling(string word) =>
        Assert.Empty(SpellingVariants.Of(word));

    [Fact]
    public void A_word_is_never_its_own_variant_and_none_stands_twice() =>
        Gen.Char["abcdeiourstyxzlm"]
            .Array[0, 12]
            .Select(c => new string(c))
            .Sample(
                word =>
                {
                    var variants = SpellingVariants.Of(word);
                    Assert.DoesNotContain(word, variants);
                    Assert.Equal(variants.Count, variants.Distinct().Count());
                },
                iter: 3_000
            );
}
