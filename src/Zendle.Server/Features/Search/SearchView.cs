using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Trails;
using Zendle.Server.Reviews;

namespace Zendle.Server.Features.Search;

/// <summary>An answered question: sets that belong to one snapshot. Not to be changed.</summary>
/// <param name="Key">Tells it apart from every other answer.</param>
/// <param name="Reading">How the expression was read.</param>
/// <param name="Concepts">Its concepts.</param>
/// <param name="Matching">Matching records of all databases.</param>
/// <param name="Before">Works of the chosen databases, before narrowing.</param>
/// <param name="InView">Works after narrowing.</param>
/// <param name="Trail">The trail that was followed; null for a search.</param>
/// <param name="Neighbours">The neighbours that were found; null for anything else.</param>
/// <param name="Beside">Works that other searches and a written list leave; null for all.</param>
internal sealed record Answer(
    string Key,
    QueryReading Reading,
    ImmutableArray<Concept> Concepts,
    RecordSet Matching,
    WorkSet Before,
    WorkSet InView,
    int Count,
    Trail? Trail = null,
    WorkSet? Beside = null,
    Neighbours? Neighbours = null
)
{
    /// <summary>About how many bytes it takes.</summary>
    public long Bytes =>
        2_000
        + (2 * Key.Length)
        + (Matching.Size + Before.Size + InView.Size + (Beside?.Size ?? 0)) / 8
        + (Trail?.Bytes ?? 0)
        + (Neighbours?.Bytes ?? 0);
}

/// <summary>
/// A question in view together with everything a request needs to speak about it. Holds a snapshot: dispose of it.
/// </summary>
internal sealed record SearchView(
    CorpusSnapshot Snapshot,
    DecisionFold Fold,
    ReviewFacts Facts,
    SearchState State,
    Answer Answer
) : IDisposable
{
    /// <summary>What the reasons of neighbours weigh in this review.</summary>
    public NeighbourWeights Weights { get; init; } = NeighbourWeights.Usual;

    public QuestionEvaluator Evaluator => new(Snapshot, Facts);

    /// <summary>
    /// What each database has of the answer before narrowing: matching records for a search, reported ties for a trail.
    /// </summary>
    public LedgerDto Ledger()
    {
        if (State.Trail is null || Answer.Trail is null)
            return LedgerDto.From(Index.Questions.Ledger.Of(Snapshot, Answer.Matching, State.Databases)) with
            {
                ByTexts = ByTexts(),
            };
        var shares = Answer.Trail.Shares(Snapshot.Containers).ToDictionary(s => s.DatabaseId);
        LedgerLineDto[] lines =
        [
            .. Snapshot
                .ReporterNames.OrderBy(d => d.Key)
                .Select(d =>
                {
                    var share = shares.GetValueOrDefault(d.Key);
                    return new LedgerLineDto(
                        d.Key,
                        d.Value,
                        State.Databases.IsEmpty || State.Databases.Contains(d.Key),
                        share.Ties,
                        share.Works,
                        share.OnlyHere,
                        Snapshot.Containers.TryGetValue(d.Key, out var container) ? container : null
                    );
                }),
        ];
        var (ties, works) = (lines.Where(l => l.Chosen).Sum(l => l.Records), Answer.Before.Count());
        return new(lines, ties, works, ties - works, null);
    }

    /// <summary>Works that the words of gathered texts alone bring; null where no texts are asked.</summary>
    private int? ByTexts()
    {
        if (!State.AsksTexts || Facts.Texts is null || Answer.Reading.Root is not { } root)
            return null;
        var evaluator = new QuestionEvaluator(Snapshot, Facts.WithTexts(null));
        return Answer.Before.Count() - evaluator.Works(evaluator.Records(root), State.Databases).Count();
    }

    /// <summary>The works that the question finds, as many as it asks for, before anything narrows them.</summary>
    public WorkSet Asked() =>
        State.Question switch
        {
            TrailQuestion { AtLeast: > 1 } t => Answer.Trail!.Works(t.AtLeast),
            NeighbourQuestion { AtLeast: > 1 } n => InCommon(n.AtLeast),
            CitersQuestion { Self: not SelfCitations.With } c => Citing(c.Self),
            _ => Answer.Before,
        };

    /// <summary>The works that cite the name asked for, before anything narrows them.</summary>
    /// <param name="self">Whether works by the same person count.</param>
    public WorkSet Citing(SelfCitations self) =>
        NameCiters.Left(Snapshot.Columns, State.Citers! with { Self = self }, Answer.Before);

    /// <summary>The neighbours that have so much in common with the seeds, before anything narrows them.</summary>
    public WorkSet InCommon(int atLeast)
    {
        var found = Answer.Neighbours!.Works(atLeast, Answer.Before.Size);
        found.IntersectWith(Answer.Before);
        return found;
    }

    /// <summary>What the narrowings of the state leave of some works, one field's own narrowing lifted if asked.</summary>
    public WorkSet Narrowed(WorkSet works, Facet? lifted = null) =>
        SearchService.Narrowed(Evaluator, State, works, lifted, Answer.Beside);

    /// <summary>Works in view on one side of a trail; all in view for both sides, and for a search.</summary>
    public WorkSet InView(TrailWay side)
    {
        if (Answer.Trail is not { } trail || State.Trail is not { } question || side == TrailWay.Both)
            return Answer.InView;
        var works = (side == TrailWay.Backward ? trail.Past : trail.Future).Works(question.AtLeast);
        works.IntersectWith(Answer.InView);
        return works;
    }

    /// <summary>The works that narrowings leave, and those the answer is held against; null when there are none.</summary>
    public WorkSet? Limits()
    {
        var left = Evaluator.Narrowed(State, null, SearchService.Read);
        if (left is null || Answer.Beside is not { } beside)
            return left ?? Answer.Beside?.Copy();
        left.IntersectWith(beside);
        return left;
    }

    public void Dispose() => Snapshot.Dispose();
}
