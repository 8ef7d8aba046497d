using Zendle.Core.Queries;
using Zendle.Core.Terms;
using Zendle.Core.Text;
using Zendle.Index.Terms;
using Zendle.Store.Corpus;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>
/// Abbreviations of the board's terms, and what its abbreviations stand for, as the titles and abstracts of works that
/// have the term explain them.
/// </summary>
internal sealed class AbbreviatedTerms(CorpusReader reader)
{
    private const int MostRead = 200,
        MostTerms = 24,
        MostShown = 8,
        LeastWorks = 2;

    /// <summary>What can be offered, what brings most first.</summary>
    public async Task<IReadOnlyList<OfferedTermDto>> Of(
        TermOffers offers,
        SearchBoard board,
        IReadOnlySet<string> refused,
        CancellationToken cancel
    )
    {
        var found = new List<OfferedTermDto>();
        var onBoard = board.Cards.SelectMany(c => c.TextTerms).ToArray();
        foreach (
            var (card, term) in offers
                .Open.SelectMany(c => board.Cards[c].TextTerms.Select(t => (Card: c, Term: t)))
                .Take(MostTerms)
        )
        {
            foreach (var (pair, isShort) in await Explained(offers, term, cancel))
            {
                var text = isShort ? pair.Short : pair.Long;
                var words = Words.AsWritten(text).ToArray();
                if (refused.Contains(string.Join(' ', words)) || onBoard.Any(t => t.IsJust(words)))
                    continue;
                var offer = offers.One(text, QueryText.OfWords(words), card);
                found.Add(
                    isShort
                        ? OfferedTermDto.Of(offer, standsFor: pair.Long)
                        : OfferedTermDto.Of(offer, shortFor: pair.Short)
                );
            }
        }
        return
        [
            .. found
                .DistinctBy(f => (f.Expression, f.Card))
                .OrderByDescending(f => f.Adds)
                .ThenBy(f => f.Text, StringComparer.Ordinal)
                .Take(MostShown),
        ];
    }

    /// <summary>
    /// The abbreviations that works with a term explain for it, each with whether it is the short form that is new. Two
    /// works must agree: one alone may mean something of its own.
    /// </summary>
    private async Task<IReadOnlyList<(Abbreviation Pair, bool IsShort)>> Explained(
        TermOffers offers,
        TermNode term,
        CancellationToken cancel
    )
    {
        var works = offers.Works(QueryText.Print(term)).ToArray();
        // An abbreviation is explained in few of the works that have the term; which may, their words tell.
        int[] read = [.. offers.Bracketed(works, term).Take(MostRead)];
        var records = await reader.OfWorks(read, cancel);
        return
        [
            .. read.SelectMany(w =>
                    records[w]
                        .SelectMany(r => r.Record.About)
                        .SelectMany(Abbreviations.In)
                        .Select(p => (Pair: p, Short: Key(p.Short), Long: Key(p.Long)))
                        .DistinctBy(p => (p.Short, p.Long))
                )
                .GroupBy(p => (p.Short, p.Long))
                .Where(g => g.Count() >= Math.Min(LeastWorks, read.Length))
                .Select(g => g.First().Pair)
                .SelectMany(p =>
                    term.IsJust([.. Words.AsWritten(p.Long)]) ? [(p, true)]
                    : term.IsJust([.. Words.AsWritten(p.Short)]) ? [(p, false)]
                    : Array.Empty<(Abbreviation, bool)>()
                ),
        ];
    }

    private static string Key(string text) => string.Join(' ', Words.AsWritten(text));
}
