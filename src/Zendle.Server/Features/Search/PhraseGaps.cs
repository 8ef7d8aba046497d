using Zendle.Core.Queries;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Search;

/// <summary>Tells how many works a line misses because other words stand between the words of a phrase in it, with examples.</summary>
internal sealed class PhraseGaps(CorpusReader reader)
{
    private const int MostPhrases = 3;
    private const int MostExamples = 3;
    private const int MostRead = 40;
    private const int Around = 44;

    /// <summary>The phrases of a line that miss works so, the one that misses most first.</summary>
    public async Task<IReadOnlyList<NoticeDto>> In(
        OfferCounts offers,
        QueryNode root,
        string text,
        CancellationToken cancel
    )
    {
        var found = new List<(int Added, NoticeDto Notice)>();
        foreach (
            var (term, _) in Concepts
                .Terms(root, QueryField.About)
                .Where(t =>
                    t.Field is QueryField.About or QueryField.Title or QueryField.Abstract or QueryField.Keywords
                    && t.Term.IsPhrase
                    && t.Term.Quoted
                )
                .Take(MostPhrases)
        )
        {
            cancel.ThrowIfCancellationRequested();
            var line = $"{text[..term.Span.Start]}({WordGaps.Loose(term)}){text[term.Span.End..]}";
            if (!QueryReader.Read(line).IsSound)
                continue; // a phrase inside NEAR stays as it is
            // What comes in: works of the line with the words apart that the line as it stands does not find.
            var missed = offers.Taken(line).Copy();
            missed.ExceptWith(offers.Taken(text));
            var added = offers.Added(line, text);
            if (added <= 0)
                continue;
            found.Add(
                (
                    added,
                    new(
                        "Gap",
                        term.Span.Start,
                        term.Span.Length,
                        $"“{term.Written}” with its words in any order",
                        [WayDto.Written(WordGaps.Loose(term), line, added)],
                        await Examples(missed.Members().Take(MostRead).ToArray(), term, cancel)
                    )
                )
            );
        }
        return [.. found.OrderByDescending(f => f.Added).Select(f => f.Notice)];
    }

    private async Task<IReadOnlyList<MarkedTextDto>> Examples(int[] works, TermNode term, CancellationToken cancel)
    {
        var records = await reader.OfWorks(works, cancel);
        return
        [
            .. works
                .SelectMany(w =>
                    records[w]
                        .SelectMany(r => r.Record.About)
                        .Select(t => Example(t, term))
                        .OfType<MarkedTextDto>()
                        .Take(1)
                )
                .DistinctBy(e => e.Text)
                .Take(MostExamples),
        ];
    }

    /// <summary>The words around the place, the place marked.</summary>
    private static MarkedTextDto? Example(string text, TermNode term)
    {
        if (WordGaps.First(text, term.Slots) is not { } at)
            return null;
        var from = at.Start <= Around ? 0 : text.IndexOf(' ', at.Start - Around) + 1;
        var to = at.End + Around >= text.Length ? text.Length : text.LastIndexOf(' ', at.End + Around);
        if (to < at.End)
            to = at.End;
        var lead = from > 0 ? "… " : "";
        return new(
            lead + text[from..to] + (to < text.Length ? " …" : ""),
            [new(at.Start - from + lead.Length, at.Length, "A")]
        );
    }
}
