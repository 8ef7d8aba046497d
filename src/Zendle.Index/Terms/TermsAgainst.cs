using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Core.Terms;
using Zendle.Index.Questions;

namespace Zendle.Index.Terms;

/// <summary>A term that is offered for what must not stand.</summary>
/// <param name="Text">The term as most works have it.</param>
/// <param name="Expression">What is added to "without": the term and its variants, joined by OR.</param>
/// <param name="Aside">Works set aside that have it, among those in view.</param>
/// <param name="InView">Works in view that have it.</param>
/// <param name="Removes">Works in view that taking it removes.</param>
/// <param name="KeptHit">Kept works among them.</param>
public sealed record TermAgainst(string Text, string Expression, int Aside, int InView, int Removes, int KeptHit);

/// <summary>
/// Offers terms that mark the works set aside against the other works in view, with what excluding them would cost.
/// </summary>
/// <param name="snapshot">The corpus.</param>
/// <param name="evaluator">Answers what terms find.</param>
/// <param name="ground">The search; its good works are those kept.</param>
/// <param name="matching">Records that the search finds.</param>
/// <param name="aside">Works set aside.</param>
public sealed class TermsAgainst(
    CorpusSnapshot snapshot,
    QuestionEvaluator evaluator,
    OfferGround ground,
    RecordSet matching,
    WorkSet aside
)
{
    private const int Looked = 40;

    /// <summary>The offers: those that hit no kept work first, then what removes most of what was set aside.</summary>
    public IReadOnlyList<TermAgainst> All()
    {
        var marked = aside.Copy();
        marked.IntersectWith(ground.InView);
        if (marked.IsEmpty)
            return [];
        var counted = new TermCandidates(snapshot.Columns.Words, marked).Against(ground.InView, marked, Budget.Current);
        return
        [
            .. MarkingTerms
                .Choose(counted, [.. ground.Board.Cards.SelectMany(c => c.TextTerms)], ground.Refused, Looked)
                .Select(Offer)
                .Where(o => o.Removes > 0)
                .OrderBy(o => o.KeptHit > 0)
                .ThenByDescending(o => (double)o.Aside * o.Aside / o.InView)
                .ThenBy(o => o.Text, StringComparer.Ordinal),
        ];

        TermAgainst Offer(MarkingTerm term)
        {
            var having = evaluator.Works(term.Expression, ground.Databases);
            having.IntersectWith(ground.InView);
            var removed = Removed(term.Expression);
            return new(
                term.Term.Text,
                term.Expression,
                having.CountWith(marked),
                having.Count(),
                removed.Count(),
                removed.CountWith(ground.Good)
            );
        }
    }

    /// <summary>
    /// The works in view that excluding terms removes: those of which no record finds its way any more.
    /// </summary>
    /// <param name="expression">Terms joined by OR.</param>
    public WorkSet Removed(string expression)
    {
        if (QueryReader.Read(expression).Root is not { } root)
            return evaluator.Nothing();
        var left = matching.Copy();
        left.ExceptWith(evaluator.Records(root));
        var removed = ground.InView.Copy();
        removed.ExceptWith(evaluator.Works(left, ground.Databases));
        return removed;
    }
}
