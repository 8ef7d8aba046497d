using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.Data.Sqlite;
using Zendle.Core.Text;
using Zendle.Tests.Shared;

namespace Zendle.Server.Tests;

/// <summary>
/// Gathered texts are searched in their review as <c>anywhere:</c> and <c>text:</c>; every count is held against the texts
/// themselves.
/// </summary>
public sealed class TextSearchTests(Gathering world) : IClassFixture<Gathering>
{
    private Visitor Ann => world.Ann;

    /// <summary>A review with gathered texts, and the folded words of each by its work.</summary>
    private async Task<(int Review, Dictionary<int, string[]> Texts)> Gathered(int most = 4)
    {
        var review = await Ann.Review();
        var works = new List<int>();
        for (var i = 0; i < most; i++)
            works.Add((await world.Work(i == 0 ? "page" : "fine", "article")).Work);
        var rows = await world.Gather(review, [.. works]);
        Assert.All(works, w => Assert.Equal("InHand", rows[w].Text("state")));
        var texts = new Dictionary<int, string[]>();
        await using var db = new SqliteConnection($"Data Source={Path.Combine(world.Host.Data, "zendle.db")}");
        await db.OpenAsync();
        foreach (var work in works)
        {
            await using var command = db.CreateCommand();
            command.CommandText =
                "SELECT r.Pages FROM Texts t JOIN TextReadings r ON r.Hash = t.Hash WHERE t.ReviewId = $0 AND t.WorkId = $1";
            command.Parameters.AddWithValue("$0", review);
            command.Parameters.AddWithValue("$1", work);
            var pages = Store.Corpus.RecordCodec.Opened((byte[])(await command.ExecuteScalarAsync())!);
            texts[work] =
            [
                .. JsonSerializer
                    .Deserialize<JsonNode[]>(pages)!
                    .SelectMany(p => Words.AsWritten(p["Text"]!.GetValue<string>())),
            ];
        }
        return (review, texts);
    }

    private async Task<int[]> Found(int review, string expression)
    {
        var step = await Ann.Search(review, expression);
        var found = await Ann.Works(review, step);
        Assert.Equal(found.Length, await Ann.Count(review, step));
        return [.. found.Order()];
    }

    private static int[] Plain(Dictionary<int, string[]> texts, Func<string[], bool> holds) =>
        [.. texts.Where(t => holds(t.Value)).Select(t => t.Key).Order()];

    private static bool InARow(string[] words, params string[] phrase) =>
        Enumerable.Range(0, words.Length).Any(i => words.Skip(i).Take(phrase.Length).SequenceEqual(phrase));

    [Fact]
    public async Task Words_phrases_patterns_and_nearness_are_found_in_the_texts_themselves()
    {
        var (review, texts) = await Gathered();
        foreach (var word in new[] { "counted", "analysis", "the", "nowhereatall", "observer" })
            Assert.Equal(Plain(texts, t => t.Contains(word)), await Found(review, $"text:{word}"));
        Assert.Equal(
            Plain(texts, t => t.Any(w => w.StartsWith("visit", StringComparison.Ordinal))),
            await Found(review, "text:visit*")
        );
        // Phrases that stand in one of the texts, taken from its middle.
        foreach (var text in texts.Values)
        {
            var phrase = text.Skip(text.Length / 2).Take(4).ToArray();
            Assert.Equal(
                Plain(texts, t => InARow(t, phrase)),
                await Found(review, $"text:\"{string.Join(' ', phrase)}\"")
            );
        }
        // Two plain words with at most two between them; short ones may be operators.
        var plain = texts
            .Values.First()
            .Select((w, i) => (Word: w, At: i))
            .Where(w => w.Word.Length > 5 && w.Word.All(char.IsAsciiLetter))
            .ToArray();
        var (a, b) = plain
            .Zip(plain[1..])
            .Where(p => p.Second.At - p.First.At is > 1 and <= 3)
            .Select(p => (p.First.Word, p.Second.Word))
            .First();
        Assert.Contains(texts.Keys.First(), await Found(review, $"text:({a} NEAR/2 {b})"));
        Assert.Empty(await Found(review, $"text:({a} AND nowhereatall)"));
        Assert.Equal(
            (await Ann.Works(review, await Ann.Search(review, "stage:found"))).Length > 0,
            (await Ann.Works(review, await Ann.Search(review, "NOT text:the"))).Length > 0
        );
    }

    [Fact]
    public async Task Anywhere_is_the_record_or_the_text_and_the_ledger_says_what_texts_alone_bring()
    {
        var (review, texts) = await Gathered();
        // A word of a text that is in no record of its work.
        var empty = await Ann.Review();
        foreach (
            var word in texts
                .Values.SelectMany(t => t)
                .Distinct()
                .Where(w => w.Length > 6 && w.All(char.IsAsciiLetter))
                .Take(200)
        )
        {
            var records = await Found(empty, $"anywhere:{word}");
            var inTexts = Plain(texts, t => t.Contains(word));
            if (inTexts.Except(records).Count() is not (> 0 and var alone))
                continue;
            var step = await Ann.Search(review, $"anywhere:{word}");
            Assert.Equal([.. records.Union(inTexts).Order()], (await Ann.Works(review, step)).Order());
            var ledger = (await Ann.Get($"/api/reviews/{review}/steps/{step}"))["ledger"]!;
            Assert.Equal(alone, ledger.Int("byTexts"));
            var row = (await Ann.Get($"/api/reviews/{review}/steps/{step}/works?limit=200"))
                .List("works")
                .First(w => inTexts.Except(records).Contains(w.Int("id")));
            var sentence = row["inText"]!["sentence"]!;
            Assert.Contains(word, Words.AsWritten(sentence.Text("text")));
            Assert.NotEmpty(sentence["marks"]!.AsArray());
            // What the review's own texts bring is another review's business.
            Assert.Null(
                (await Ann.Get($"/api/reviews/{empty}/steps/{await Ann.Search(empty, $"anywhere:{word}")}"))["ledger"]![
                    "byTexts"
                ]
            );
            return;
        }
        Assert.Fail("No word of any text is in that text alone.");
    }

    [Fact]
    public async Task A_text_that_comes_is_found_at_once_and_words_inside_ask_texts_alone()
    {
        var (review, texts) = await Gathered(2);
        var step = await Ann.Search(review, "");
        var word = texts.Values.First().First(w => w.Length > 8 && w.All(char.IsAsciiLetter));
        var inside = await Ann.Step(review, step, new { kind = "Inside", words = new[] { $"text:({word})" } });
        Assert.Equal(Plain(texts, t => t.Contains(word)), (await Ann.Works(review, inside)).Order());
        var (more, _) = await world.Work("fine");
        await world.Gather(review, [more]);
        Assert.Contains(more, await Ann.Works(review, await Ann.Search(review, "text:the")));
    }
}
