using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Index.Terms;

namespace Zendle.Server.Features.Search.Terms;

/// <summary>
/// Offers a search the words of its good works, and for what must not stand those of the works set aside; and shows what
/// a term would bring before it is taken.
/// </summary>
internal sealed class OfferedTerms(
    SearchService search,
    WorkRows rows,
    RefusedTerms refusals,
    AbbreviatedTerms abbreviated,
    VocabularyTerms vocabularies
)
{
    private const int MostShown = 40,
        MostForConcept = 12,
        MostTried = 25;

    /// <summary>Terms that mark the works a request names.</summary>
    public async Task<OfferedTermsDto> For(
        int reviewId,
        TermsRequest request,
        SearchState state,
        CancellationToken cancel
    )
    {
        var refused = await refusals.Of(reviewId, cancel);
        using var view = await search.View(reviewId, state.After(new SearchAct(request.Text)));
        var unwanted = refused.Select(r => r.Text).ToHashSet(StringComparer.Ordinal);
        // What looks like the kept works is worked out once, for all that is offered.
        var kept = Offers(view, view.Facts.Kept, refused);
        var (good, offers) = request.Source switch
        {
            TermSource.Missed => Missed(view, refused),
            TermSource.Listed when Listed(view, request.Works) is var listed => (
                listed.Count(),
                Offers(view, listed, refused).All()
            ),
            _ => (view.Facts.Kept.Count(), kept.All()),
        };
        return new(
            good,
            [
                .. offers
                    .Take(request.Source == TermSource.Missed ? int.MaxValue : MostShown)
                    .Select(o => OfferedTermDto.Of(o)),
            ],
            await abbreviated.Of(kept, Board(view), unwanted, cancel),
            await vocabularies.Of(kept, Board(view), view.Snapshot.DatabaseNames, unwanted, cancel),
            [
                .. kept.Open.Select(card => new ConceptWordsDto(
                    card,
                    [.. kept.InUse(card).Select(w => new WordInUseDto(w.Text, w.Works, w.From, w.To))]
                )),
            ],
            refused
        );
    }

    /// <summary>Terms that mark what was set aside among the works in view.</summary>
    public async Task<TermsAgainstDto> Against(
        int reviewId,
        ReadingRequest request,
        SearchState state,
        CancellationToken cancel
    )
    {
        var refused = await refusals.Of(reviewId, cancel);
        using var view = await search.View(reviewId, state.After(new SearchAct(request.Text)));
        var terms = AgainstIn(view, refused).All();
        return new(
            view.Facts.SetAside.CountWith(view.Answer.InView),
            [
                .. terms
                    .Take(MostShown)
                    .Select(t => new TermAgainstDto(t.Text, t.Expression, t.Aside, t.InView, t.Removes, t.KeptHit)),
            ],
            refused
        );
    }

    /// <summary>What a term would bring or remove; null with a sentence when the board cannot take it.</summary>
    public async Task<(TrialDto? Trial, string? WhyNot)> Try(
        int reviewId,
        TrialRequest request,
        SearchState state,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, state.After(new SearchAct(request.Text)));
        var board = Board(view).With(new(BoardEditKind.Add, request.Card, Text: request.Expression), out var whyNot);
        if (board is null)
            return (null, whyNot);
        using var then = await search.View(reviewId, state.After(new SearchAct(board.Expression)), view.Snapshot);
        var (come, go) = (then.Answer.InView.Copy(), view.Answer.InView.Copy());
        come.ExceptWith(view.Answer.InView);
        go.ExceptWith(then.Answer.InView);
        var graph = view.Snapshot.Columns.Graph;
        int[] shown =
        [
            .. (come.IsEmpty ? go : come)
                .Members()
                .OrderByDescending(w => graph.CitedByCount(w))
                .ThenBy(w => w)
                .Take(MostTried),
        ];
        return (
            new(board.Expression, come.Count(), go.Count(), await rows.For(come.IsEmpty ? view : then, shown, cancel)),
            null
        );
    }

    /// <summary>The works that are named and are there.</summary>
    private static WorkSet Listed(SearchView view, IReadOnlyList<int> works) =>
        WorkSet.Of(
            view.Snapshot.Columns.WorkSize,
            works.Where(w =>
                (uint)w < (uint)view.Snapshot.Columns.WorkSize && view.Snapshot.Columns.WorkFirstRecord[w] > 0
            )
        );

    private static TermOffers Offers(SearchView view, WorkSet good, IReadOnlyList<RefusedTermDto> refused) =>
        new(view.Snapshot, view.Evaluator, Ground(view, good, refused));

    /// <summary>
    /// For each concept the words of the kept works that the search loses through it; first those that bring most of the works
    /// that pass everything else.
    /// </summary>
    private static (int, IReadOnlyList<TermOffer>) Missed(SearchView view, IReadOnlyList<RefusedTermDto> refused)
    {
        var board = Board(view);
        var missed = new MissedParts(view, board.Cards);
        var offers =
            from card in Enumerable.Range(0, board.Cards.Length)
            where board.Cards[card] is { Kind: CardKind.Concept, Near: null }
            let onlyHere = missed.OnlyBy(card)
            from offer in Offers(view, missed.By(card), refused)
                .All(card)
                .Select(o => (Term: o, Works: view.Evaluator.Works(o.Expression, view.State.Databases)))
                .OrderByDescending(o => o.Works.CountWith(onlyHere))
                .Take(MostForConcept)
            // Told of all that are missed, as their number is.
            select (
                Brings: offer.Works.CountWith(onlyHere),
                Term: offer.Term with
                {
                    Good = offer.Works.CountWith(missed.All),
                }
            );
        return (missed.All.Count(), [.. offers.OrderByDescending(o => o.Brings).Select(o => o.Term)]);
    }

    private static TermsAgainst AgainstIn(SearchView view, IReadOnlyList<RefusedTermDto> refused) =>
        new(
            view.Snapshot,
            view.Evaluator,
            Ground(view, view.Facts.Kept, refused),
            view.Answer.Matching,
            view.Facts.SetAside
        );

    private static OfferGround Ground(SearchView view, WorkSet good, IReadOnlyList<RefusedTermDto> refused) =>
        new(
            Board(view),
            view.State.Databases,
            view.Limits(),
            view.Answer.InView,
            good,
            refused.Select(r => r.Text).ToHashSet(StringComparer.Ordinal)
        );

    private static SearchBoard Board(SearchView view) => SearchBoard.Of(view.Answer.Reading.Root);
}
