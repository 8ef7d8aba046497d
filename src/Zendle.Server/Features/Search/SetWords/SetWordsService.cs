using System.Text;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index;
using Zendle.Index.Terms;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search.SetWords;

/// <summary>Counts the words of the set in view of a step; what it counted for an answer is remembered.</summary>
internal sealed class SetWordsService(
    SearchService search,
    IDbContextFactory<ZendleContext> contexts,
    TimeProvider clock
)
{
    private const long MostRemembered = 2 << 20;
    private readonly BoundedCache<string, WordsOfSet> known = new(MostRemembered);

    /// <summary>The words of a step's set; null when the review has no such step.</summary>
    public async Task<WordsOfSet?> Of(int reviewId, int stepId)
    {
        using var view = await search.View(reviewId, stepId);
        return view is null
            ? null
            : known.Get(
                view.Answer.Key,
                () =>
                    new Index.Terms.SetWords(view.Snapshot, view.Evaluator).Of(
                        view.Answer.InView,
                        // A trail is followed in all databases; so are words inside it.
                        view.State.Trail
                            is null
                            ? view.State.Databases
                            : [],
                        [.. SearchBoard.Of(view.Answer.Reading.Root).Cards.SelectMany(c => c.TextTerms)],
                        Budget.Current
                    ),
                SizeOf
            );
    }

    /// <summary>About the bytes that the words of a set take: a row has a text, an expression and its decades.</summary>
    private static long SizeOf(WordsOfSet words) =>
        400
        + (300L * (words.Terms.Count + words.Methods.Count))
        + (100L * (words.Pairs.Count + words.Keywords.Count + words.Countries.Count));

    /// <summary>The same as a table, with its file's name; null when the review has no such step.</summary>
    public async Task<(byte[] File, string? Name)> Table(int reviewId, int stepId, CancellationToken cancel)
    {
        if (await Of(reviewId, stepId) is not { } words)
            return ([], null);
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var title = await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);
        using var to = new MemoryStream();
        // Spreadsheets know UTF-8 by its mark.
        await using (var text = new StreamWriter(to, new UTF8Encoding(true), leaveOpen: true))
            Write(text, words);
        return (
            to.ToArray(),
            FileNames.Export(title, "words", words.Total, DateOnly.FromDateTime(clock.GetLocalNow().Date), "csv")
        );
    }

    /// <summary>One row for each term, pair, keyword and country; terms with a column for each decade.</summary>
    private static void Write(TextWriter to, WordsOfSet words)
    {
        using var csv = SafeCsv.To(to);
        Row(["kind", "term", "with", "works", "trend", .. words.Decades.Select(d => $"{d.From}s")]);
        Row(["all works", "", "", words.Total, "", .. words.Decades.Select(d => (object)d.Works)]);
        foreach (var t in words.Terms)
            Term("term", t);
        foreach (var p in words.Pairs)
            Row(["pair", p.First.Text, p.Second.Text, p.Works, ""]);
        foreach (var t in words.Methods)
            Term("method", t);
        foreach (var (name, works) in words.Keywords)
            Row(["keyword", name, "", works, ""]);
        foreach (var (name, works) in words.Countries)
            Row(["country", name, "", works, ""]);

        void Term(string kind, SetTerm t) =>
            Row([
                kind,
                t.Text,
                "",
                t.Works,
                SetTermDto.TrendOf(t) switch
                {
                    TermTrend.Rising => "rising",
                    TermTrend.Falling => "falling",
                    _ => "",
                },
                .. t.Decades.Select(n => (object)n),
            ]);

        // Every row has as many cells as the head.
        void Row(IReadOnlyList<object> cells)
        {
            foreach (var cell in cells)
                csv.WriteField(cell);
            for (var i = cells.Count; i < 5 + words.Decades.Count; i++)
                csv.WriteField("");
            csv.NextRecord();
        }
    }
}
