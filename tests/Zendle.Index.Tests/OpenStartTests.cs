using CsCheck;
using Zendle.Core.Queries;
using Zendle.Core.Text;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>Words that are open at their start find what a plain look at every word finds, however many end alike.</summary>
public sealed class OpenStartTests : IDisposable
{
    private static readonly string[] Words = Made();
    private readonly SmallCorpus corpus = SmallCorpus.OneEach(
        Words.Length / 4,
        n => new Record
        {
            Identifier = $"w{n}",
            Title = $"{Words[4 * n]} {Words[(4 * n) + 1]}",
            Abstract = $"{Words[(4 * n) + 2]} {Words[(4 * n) + 3]}",
        }
    );

    /// <summary>Eight thousand different words of one to fourteen letters, some of them of two bytes and four.</summary>
    private static string[] Made()
    {
        string[] letters = ["a", "b", "o", "t", "h", "s", "æ", "ø", "𐐨"];
        var random = new Random(11);
        var words = new HashSet<string>(StringComparer.Ordinal);
        while (words.Count < 8_000)
            words.Add(string.Concat(Enumerable.Range(0, random.Next(1, 15)).Select(_ => letters[random.Next(9)])));
        return [.. words.Where(w => Core.Text.Words.Fold(w) == w)];
    }

    private int[] Found(string pattern)
    {
        using var snapshot = corpus.Index.Snapshot();
        return new QuestionEvaluator(snapshot, null).Works(pattern).ToArray();
    }

    private static int[] Scanned(string pattern) =>
        [
            .. Enumerable
                .Range(0, Words.Length / 4)
                .Where(n => Words.AsSpan(4 * n, 4).ToArray().Any(w => Glob.Matches(pattern, w)))
                .Select(n => n + 1),
        ];

    [Theory]
    [InlineData("*s")]
    [InlineData("*oths")]
    [InlineData("*thøs")]
    [InlineData("?oth")]
    [InlineData("*abba*")]
    [InlineData("*𐐨s")]
    [InlineData("?𐐨")]
    [InlineData("*hos?t")]
    [InlineData("*a*b*s")]
    [InlineData("*tobhsata")]
    [InlineData("*tobhsatab")]
    [InlineData("???s")]
    public void An_open_start(string pattern) => Assert.Equal(Scanned(pattern), Found(pattern));

    [Fact]
    public void Any_open_start() =>
        Gen.Select(Gen.Int[0, Words.Length - 1], Gen.Int[0, 6], Gen.Int[0, 3], Gen.Int[0, 1])
            .Sample(
                (word, from, mark, open) =>
                {
                    // The end of a word that stands there, perhaps with one of its letters open, too.
                    var tail = Words[word][Math.Min(from, Words[word].Length - 1)..];
                    if (char.IsLowSurrogate(tail[0]))
                        return;
                    if (mark > 0 && tail.Length > mark && tail.All(c => !char.IsSurrogate(c)))
                        tail = tail[..(mark - 1)] + "?" + tail[mark..];
                    var pattern = (open == 0 ? "*" : "?") + tail;
                    if (pattern.All(c => c is '*' or '?'))
                        return;
                    Assert.Equal(Scanned(pattern), Found(pattern));
                },
                iter: 400
            );

    [Fact]
    public void Words_that_come_later_are_found_too()
    {
        Assert.Empty(Found("*zendø"));
        corpus.Index.Put(9_000, new Record { Identifier = "new", Title = "Lightzendø" });
        corpus.Index.Refresh(
            SmallCorpus.Columns([
                .. corpus.Records,
                new(9_000, 9_000, 1, new Record { Identifier = "new", Title = "Lightzendø" }),
            ]),
            SmallCorpus.Names,
            2
        );
        Assert.Equal([9_000], Found("*zendø"));
    }

    public void Dispose() => corpus.Dispose();
}
