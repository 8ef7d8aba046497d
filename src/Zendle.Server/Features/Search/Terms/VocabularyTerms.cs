using Zendle.Core.Queries;
using Zendle.Core.Terms;
using Zendle.Core.Text;
using Zendle.Index.Terms;
using Zendle.Server.Features.Databases;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>
/// What the controlled vocabularies of databases know of the board's terms: other names of the same idea, and what is
/// narrower and broader.
/// </summary>
internal sealed class VocabularyTerms(VocabularyService vocabularies)
{
    private const int MostTerms = 24,
        MostOfAKind = 20,
        MostShown = 12;

    /// <summary>What can be offered: other names first, then what is narrower, then what is broader; what brings most
    /// first.</summary>
    /// <param name="offers">Counts what a term brings.</param>
    /// <param name="board">The board.</param>
    /// <param name="names">Names of the databases.</param>
    /// <param name="refused">Terms that the review does not want offered.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<IReadOnlyList<OfferedTermDto>> Of(
        TermOffers offers,
        SearchBoard board,
        IReadOnlyDictionary<int, string> names,
        IReadOnlySet<string> refused,
        CancellationToken cancel
    )
    {
        var all = await vocabularies.All(cancel);
        if (all.Count == 0)
            return [];
        TermNode[] onBoard = [.. board.Cards.SelectMany(c => c.TextTerms)];
        var found = new List<OfferedTermDto>();
        foreach (
            var (card, term) in offers
                .Open.SelectMany(c => board.Cards[c].TextTerms.Select(t => (Card: c, Term: t)))
                .Take(MostTerms)
        )
        foreach (var (database, vocabulary) in all)
        foreach (var concept in vocabulary.Find(term))
        {
            cancel.ThrowIfCancellationRequested();
            foreach (var (label, relation) in Near(vocabulary, concept))
            {
                var words = Words.AsWritten(label).ToArray();
                if (words.Length == 0 || refused.Contains(string.Join(' ', words)) || onBoard.Any(t => t.IsJust(words)))
                    continue;
                var offer = offers.One(label, QueryText.OfWords(words), card);
                // A vocabulary lists much; what would bring nothing here is no help.
                if (offer.Adds > 0)
                    found.Add(
                        OfferedTermDto.Of(
                            offer,
                            tie: new(
                                relation,
                                vocabulary.Concepts[concept].Label,
                                names.GetValueOrDefault(database, "")
                            )
                        )
                    );
            }
        }
        return
        [
            // One word may be near terms of several cards: it goes where most of what it brings looks right.
            .. found
                .OrderBy(f => f.Tie!.Relation)
                .ThenByDescending(f => f.Alike)
                .DistinctBy(f => f.Expression)
                .OrderBy(f => f.Tie!.Relation)
                .ThenByDescending(f => f.Adds)
                .ThenBy(f => f.Text, StringComparer.Ordinal)
                .Take(MostShown),
        ];
    }

    private static IEnumerable<(string Label, TermRelation Relation)> Near(Vocabulary vocabulary, int concept)
    {
        var of = vocabulary.Concepts[concept];
        return of
            .Labels.Select(l => (l, TermRelation.SameIdea))
            .Concat(of.Narrower.Take(MostOfAKind).Select(n => (vocabulary.Concepts[n].Label, TermRelation.Narrower)))
            .Concat(of.Broader.Take(MostOfAKind).Select(n => (vocabulary.Concepts[n].Label, TermRelation.Broader)));
    }
}
