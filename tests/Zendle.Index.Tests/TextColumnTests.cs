using System.Text;
using CsCheck;
using Zendle.Core.Text;
using Zendle.Index.Columns;

namespace Zendle.Index.Tests;

/// <summary>Texts by id come back as they were set, and their order is that of their folded words.</summary>
public sealed class TextColumnTests
{
    private static readonly Gen<string> Piece = Gen.OneOf(
        "Moths",
        "moths",
        "and",
        "Lamps",
        "Étude",
        "夜蛾",
        "light-trap",
        "—",
        "«",
        "42",
        "a",
        "of the northern coast of Ostmark",
        " ",
        "🌙"
    );
    private static readonly Gen<string> Text = Piece.Array[0, 8].Select(p => string.Join(' ', p));

    [Fact]
    public void Columns_that_follow_each_other_hold_what_was_set_last() =>
        Gen.Select(Gen.Int[0, 7], Text)
            .Array[0, 12]
            .Array[1, 5]
            .Sample(rounds =>
            {
                var (column, expected, older) = (TextColumn.Empty, new string?[8], new List<(TextColumn, string?[])>());
                foreach (var round in rounds)
                {
                    var editor = new TextColumn.Editor(column, 8);
                    foreach (var (id, text) in round)
                    {
                        editor.Set(id, text);
                        expected[id] = text.Length == 0 ? null : text;
                    }
                    column = editor.Finish();
                    older.Add((column, [.. expected]));
                }
                // What came later has not touched what was handed out before.
                foreach (var (then, said) in older)
                    Assert.Equal(said, Enumerable.Range(0, 8).Select(id => then[id]));
                Assert.Null(column[99]);
                var (at, data) = column.Texts.Arrays();
                var again = TextColumn.From(Core.Sets.IdLists.From(at, data));
                Assert.Equal(expected, Enumerable.Range(0, 8).Select(id => again[id]));
            });

    [Fact]
    public void Places_follow_the_folded_words_whatever_the_length() =>
        Text.Array[0, 60]
            .Sample(
                texts =>
                {
                    var ranks = TextRanks.Of(i => i % 7 == 6 ? null : texts[i], texts.Length);
                    byte[] Key(int i) =>
                        Encoding.UTF8.GetBytes(
                            string.Join(' ', Words.Of(texts[i]).Where(w => !w.IsClosedForm).Select(w => w.Text))
                        );
                    var named = Enumerable.Range(0, texts.Length).Where(i => i % 7 != 6).ToArray();
                    foreach (var a in named)
                    foreach (var b in named)
                        Assert.Equal(
                            Math.Sign(Key(a).AsSpan().SequenceCompareTo(Key(b))),
                            Math.Sign(ranks[a].CompareTo(ranks[b]))
                        );
                    Assert.All(
                        Enumerable.Range(0, texts.Length).Except(named),
                        i => Assert.Equal(int.MaxValue, ranks[i])
                    );
                    // Places are counted without a gap.
                    Assert.Equal(
                        Enumerable.Range(0, named.Select(i => ranks[i]).Distinct().Count()),
                        named.Select(i => ranks[i]).Distinct().Order()
                    );
                },
                iter: 300
            );

    [Fact]
    public void Places_after_some_texts_changed_are_those_of_a_count_from_nothing() =>
        Gen.Select(Text.Array[64, 90], Gen.Int[0, 1_000_000], Gen.Int[0, 5])
            .Sample(
                (texts, seed, many) =>
                {
                    // Few texts, so that works share places with those that come, go and stay.
                    var random = new Random(seed);
                    string?[] now =
                    [
                        .. Enumerable
                            .Range(0, texts.Length)
                            .Select(_ => random.Next(9) == 0 ? null : texts[random.Next(12)]),
                    ];
                    var ranks = TextRanks.Of(i => now[i], now.Length);
                    for (var round = 0; round < 3; round++)
                    {
                        Array.Resize(ref now, now.Length + 1);
                        int[] changed =
                        [
                            now.Length - 1,
                            .. Enumerable.Range(0, many).Select(_ => random.Next(now.Length)),
                        ];
                        foreach (var i in changed)
                            now[i] = random.Next(4) == 0 ? null : texts[random.Next(texts.Length)];
                        ranks = TextRanks.After(ranks, changed, i => now[i], now.Length);
                        Assert.Equal(TextRanks.Of(i => now[i], now.Length), ranks);
                    }
                },
                iter: 300
            );

    [Theory]
    [InlineData(
        "The effect of lamps on moths, in which a long title goes on, A",
        "The effect of lamps on moths, in which a long title goes on, B",
        -1
    )]
    [InlineData("“Light-trap” catches", "Light trap catches", 0)] // the parts of a hyphenated word, and no punctuation
    [InlineData("Ångström", "angstrom", 0)]
    [InlineData("Moths", "Moths of a coast", -1)]
    // Nothing to go by at its beginning.
    [InlineData("———————————————————————————————————————————————————— Bats", "Ants", 1)]
    public void Order_by_hand(string a, string b, int sign)
    {
        var ranks = TextRanks.Of(i => i == 0 ? a : b, 2);
        Assert.Equal(sign, Math.Sign(ranks[0].CompareTo(ranks[1])));
    }
}
