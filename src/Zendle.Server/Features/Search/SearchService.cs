using System.Collections.Immutable;
using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Trails;
using Zendle.Server.Corpus;
using Zendle.Server.Libraries;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>Answers states of searching. One pipeline for lists, counts, breakdowns, keeping and exports.</summary>
internal sealed class SearchService(
    CorpusService corpus,
    CorpusReader reader,
    DecisionService decisions,
    NeighbourFinder neighbours,
    CitingTexts texts,
    LibraryShelf libraries,
    GatheredTexts gathered,
    IDbContextFactory<ZendleContext> contexts,
    TimeProvider clock
)
{
    // Answers and orders of the demo's size, and as much more as the corpus is larger.
    private const long LeastRemembered = 2L << 20,
        RememberedPerWork = 80;
    private readonly BoundedCache<string, Answer> answers = new(LeastRemembered, StringComparer.Ordinal);
    private readonly BoundedCache<(string Answer, SortOrder Order, TrailWay Side), int[]> orders = new(LeastRemembered);
    private long generation = -1;

    /// <summary>Bytes of the answers, orders and neighbours that are remembered, and how many there may be.</summary>
    public (long Bytes, long Most) Remembered =>
        (
            answers.Bytes + orders.Bytes + neighbours.Remembered.Bytes,
            answers.MostBytes + orders.MostBytes + neighbours.Remembered.Most
        );

    /// <summary>
    /// The view of a step; of everything when <paramref name="stepId"/> is 0; null when there is no such step in the
    /// review.
    /// </summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="stepId">The step.</param>
    /// <param name="on">The snapshot of a view it is held against; null for that of today.</param>
    public async Task<SearchView?> View(int reviewId, int stepId, CorpusSnapshot? on = null)
    {
        if (stepId == 0)
            return await View(reviewId, SearchState.Everything, on);
        return await StateOf(reviewId, stepId) is { } state ? await View(reviewId, state, on) : null;
    }

    /// <summary>The view of a state.</summary>
    /// <param name="reviewId">The review.</param>
    /// <param name="state">The state.</param>
    /// <param name="on">The snapshot of a view it is held against; null for that of today.</param>
    public async Task<SearchView> View(int reviewId, SearchState state, CorpusSnapshot? on = null)
    {
        var snapshot = on?.Share() ?? corpus.Snapshot();
        try
        {
            var (fold, facts) = await decisions.Of(reviewId, snapshot);
            state = await WithWorksOfToday(snapshot, state);
            facts = facts.WithTexts(await gathered.Of(reviewId, snapshot));
            var said = state.AsksTexts ? await texts.Of(reviewId, snapshot) : [];
            var answer = Answer(reviewId, snapshot, facts, state, said);
            return new(snapshot, fold, facts, state, answer)
            {
                Weights = answer.Neighbours is null ? NeighbourWeights.Usual : await WeightsOf(reviewId),
            };
        }
        catch
        {
            snapshot.Dispose();
            throw;
        }
    }

    private async Task<NeighbourWeights> WeightsOf(int reviewId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        return NeighbourWeights.Read(
            await context.Reviews.Where(r => r.Id == reviewId).Select(r => r.NeighbourWeights).SingleAsync()
        );
    }

    /// <summary>
    /// A step keeps the works it names as they were; those that were merged into other works since stand for these.
    /// </summary>
    private async Task<SearchState> WithWorksOfToday(CorpusSnapshot snapshot, SearchState state)
    {
        var columns = snapshot.Columns;
        var gone = state
            .Works()
            .Where(w => (uint)w >= (uint)columns.WorkSize || columns.WorkFirstRecord[w] == 0)
            .Distinct()
            .ToArray();
        if (gone.Length == 0)
            return state;
        var today = await reader.Redirects(gone, CancellationToken.None);
        return state.Today(w => today.GetValueOrDefault(w, w));
    }

    /// <summary>The state a step leads to; null when there is none.</summary>
    public async Task<SearchState?> StateOf(int reviewId, int stepId) =>
        await ActsOf(reviewId, stepId) is { } acts ? SearchState.Of(acts) : null;

    /// <summary>The acts that lead to a step, the first one first; null when there is no such step.</summary>
    public async Task<List<StepAct>?> ActsOf(int reviewId, int stepId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        // The whole path in one question, however long it is; a step that is gone breaks it off.
        var path = await context
            .Steps.FromSql(
                $"""
                WITH RECURSIVE path AS (
                  SELECT * FROM Steps WHERE Id = {stepId} AND ReviewId = {reviewId} AND NOT Removed
                  UNION ALL
                  SELECT s.* FROM Steps s JOIN path ON s.Id = path.ParentId
                  WHERE s.ReviewId = {reviewId} AND NOT s.Removed
                )
                SELECT * FROM path
                """
            )
            .AsNoTracking()
            .Select(s => new
            {
                s.Id,
                s.ParentId,
                s.Act,
            })
            .ToDictionaryAsync(s => s.Id);
        var acts = new List<StepAct>();
        for (int? id = stepId; id is not null; id = path[id.Value].ParentId)
        {
            if (!path.TryGetValue(id.Value, out var step))
                return null;
            acts.Add(StoredActs.Read(step.Act));
        }
        acts.Reverse();
        return acts;
    }

    /// <summary>The works in view in order, those judged left out if asked.</summary>
    public int[] Order(SearchView view, SortOrder order, bool hideJudged, TrailWay side = TrailWay.Both)
    {
        var answer = view.Answer;
        Func<int, int>? ties = answer.Trail is not { } trail
            ? null
            : side switch
            {
                TrailWay.Backward => trail.Past.Ties,
                TrailWay.Forward => trail.Future.Ties,
                _ => w => trail.Past.Ties(w) + trail.Future.Ties(w),
            };
        var sorted = orders.Get(
            ($"{view.Weights}|{answer.Key}", order, side),
            () =>
                WorkOrder.Sort(
                    view.Snapshot,
                    view.InView(side),
                    order,
                    answer.Concepts,
                    InChosen(view),
                    clock.GetUtcNow().Year,
                    ties,
                    answer.Neighbours?.Order(k => view.Weights.Of(k))
                ),
            o => 200 + (4L * o.Length)
        );
        return hideJudged
            ? Array.FindAll(sorted, w => !view.Facts.Kept.Contains(w) && !view.Facts.SetAside.Contains(w))
            : sorted;
    }

    /// <summary>Reads an expression for the index; null when nothing can be searched.</summary>
    public static QueryNode? Read(string expression) => QueryReader.Read(expression).Root;

    /// <summary>The matching records of the databases that are on.</summary>
    public static RecordSet InChosen(SearchView view)
    {
        if (view.State.Databases.IsEmpty)
            return view.Answer.Matching;
        var chosen = view.State.Databases.ToHashSet();
        return RecordSet.Of(
            view.Answer.Matching.Size,
            view.Answer.Matching.Members().Where(r => chosen.Contains(view.Snapshot.Columns.RecordDatabase[r]))
        );
    }

    private Answer Answer(
        int reviewId,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        IReadOnlyList<SaidText> said
    )
    {
        // Only questions about the review itself depend on its decisions.
        var followsReview = state.AsksReview || !snapshot.Columns.Withdrawn.IsEmpty;
        var review = followsReview ? $"{reviewId}.{facts.Version}" : "";
        var asked = state.AsksTexts ? $"{reviewId}.{texts.Version}" : "";
        var held = state.AsksLibraries ? libraries.Version.ToString(CultureInfo.InvariantCulture) : "";
        var key = $"{snapshot.Generation}|{review}|{asked}|{held}|{StoredActs.WriteAll(state.Acts())}";
        FollowCorpus(snapshot);
        if (answers.TryGet(key, out var known))
            return known;
        var beside = Beside(reviewId, snapshot, facts, state, said);
        var answer = state.Question switch
        {
            TrailQuestion trail => Followed(key, snapshot, facts, state, trail, beside),
            NeighbourQuestion near => Near(key, snapshot, facts, state, near, beside),
            CitersQuestion citers => Citing(key, snapshot, facts, state, citers, beside),
            RoundQuestion round => Round(key, snapshot, facts, state, round, beside),
            WordsQuestion => Searched(key, snapshot, facts, state, beside),
            _ => throw new System.Diagnostics.UnreachableException("A kind of question has no answer."),
        };
        answers.Put(key, answer, answer.Bytes);
        return answer;
    }

    /// <summary>
    /// Answers of another generation are asked for no more; what is remembered of this one may grow with the corpus.
    /// </summary>
    private void FollowCorpus(CorpusSnapshot snapshot)
    {
        var known = Volatile.Read(ref generation);
        // Whoever still asks of an older one changes nothing.
        if (
            snapshot.Generation <= known
            || Interlocked.CompareExchange(ref generation, snapshot.Generation, known) != known
        )
            return;
        answers.Clear();
        orders.Clear();
        answers.MostBytes = orders.MostBytes = LeastRemembered + RememberedPerWork * snapshot.Columns.WorkSize;
    }

    /// <summary>
    /// The works that other searches, a written list and words in texts leave; null when there are none to be held against.
    /// </summary>
    private WorkSet? Beside(
        int reviewId,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        IReadOnlyList<SaidText> said
    )
    {
        var words = state.Trail is null ? "" : state.WhereItCites;
        if (state.Others is null && state.Among is null && words.Length == 0)
            return null;
        var left = state.Among is { } among
            ? WorkSet.Of(
                snapshot.Columns.WorkSize,
                among.Where(w => (uint)w < (uint)snapshot.Columns.WorkSize && snapshot.Columns.WorkFirstRecord[w] > 0)
            )
            : new QuestionEvaluator(snapshot, facts).Everything();
        if (words.Length > 0)
            left.IntersectWith(CitingTexts.WhereItCites(said, left.Size, state.Trail!.Seeds, words));
        foreach (var other in state.Others ?? [])
        {
            var found = Answer(reviewId, snapshot, facts, other.State(), said).InView;
            if (other.Apart)
                left.ExceptWith(found);
            else
                left.IntersectWith(found);
        }
        return left;
    }

    private static Answer Searched(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        WorkSet? beside
    )
    {
        var evaluator = new QuestionEvaluator(snapshot, facts);
        var reading = QueryReader.Read(state.Expression);
        var matching = reading.Root is null
            ? new RecordSet(snapshot.Columns.RecordSize)
            : evaluator.Records(reading.Root);
        var before = evaluator.Works(matching, state.Databases);
        var inView = Narrowed(evaluator, state, before, null, beside);
        return new(key, reading, Concepts.Of(reading.Root), matching, before, inView, inView.Count(), null, beside);
    }

    private static Answer Followed(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        TrailQuestion question,
        WorkSet? beside
    )
    {
        var evaluator = new QuestionEvaluator(snapshot, facts);
        var trail = Trail.Follow(snapshot.Columns.Graph, question, state.Databases, snapshot.Columns.WorkSize);
        var (before, tied) = (trail.Works(1), trail.Works(question.AtLeast));
        evaluator.LeaveOutWithdrawn(before);
        evaluator.LeaveOutWithdrawn(tied);
        var inView = Narrowed(evaluator, state, tied, null, beside);
        return new(
            key,
            QueryReader.Read(""),
            Inside(state),
            new RecordSet(snapshot.Columns.RecordSize),
            before,
            inView,
            inView.Count(),
            trail,
            beside
        );
    }

    private Answer Near(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        NeighbourQuestion question,
        WorkSet? beside
    )
    {
        var size = snapshot.Columns.WorkSize;
        var found = neighbours.Of(snapshot, question.Kinds, question.Seeds);
        var shared = found.Works(question.AtLeast, size);
        return Found(key, snapshot, facts, state, found.Works(1, size), shared, beside) with { Neighbours = found };
    }

    private Answer Round(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        RoundQuestion question,
        WorkSet? beside
    )
    {
        var (columns, both) = (snapshot.Columns, new TrailQuestion(question.Seeds, TrailWay.Both));
        // Every reason counts for the order, whichever makes candidates.
        var found = neighbours.Of(snapshot, [NeighbourKind.Tied, .. NeighbourQuestion.AllKinds], question.Seeds);
        var trail = Trail.Follow(columns.Graph, both, [], columns.WorkSize);
        var candidates = trail.Works(1);
        foreach (var list in found.Lists.Where(l => question.Kinds.Contains(l.Kind)))
            list.AddTo(candidates, question.AtLeast);
        foreach (var work in question.Seeds.Concat(question.Known))
            if ((uint)work < (uint)columns.WorkSize)
                candidates.Remove(work);
        return Found(key, snapshot, facts, state, candidates, null, beside) with { Trail = trail, Neighbours = found };
    }

    private static Answer Citing(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        CitersQuestion question,
        WorkSet? beside
    )
    {
        var citing = NameCiters.Of(snapshot.Columns, question);
        var left = NameCiters.Left(snapshot.Columns, question, citing);
        return Found(key, snapshot, facts, state, citing, left, beside);
    }

    /// <summary>What was found without words, as far as the chosen databases have it.</summary>
    private static Answer Found(
        string key,
        CorpusSnapshot snapshot,
        ReviewFacts facts,
        SearchState state,
        WorkSet all,
        WorkSet? asked,
        WorkSet? beside
    )
    {
        var evaluator = new QuestionEvaluator(snapshot, facts);
        evaluator.LeaveOutWithdrawn(all);
        var matching = evaluator.RecordsOf(all);
        var before = evaluator.Works(matching, state.Databases);
        var left = before;
        if (asked is not null)
        {
            left = before.Copy();
            left.IntersectWith(asked);
        }
        var inView = Narrowed(evaluator, state, left, null, beside);
        return new(key, QueryReader.Read(""), Inside(state), matching, before, inView, inView.Count(), Beside: beside);
    }

    /// <summary>Words inside, where they are the only words there are to mark.</summary>
    private static ImmutableArray<Concept> Inside(SearchState state) =>
        state.Inside.IsEmpty
            ? []
            : Concepts.Of(QueryReader.Read(string.Join(" AND ", state.Inside.Select(i => $"({i})"))).Root);

    /// <summary>
    /// The works of <paramref name="works"/> that the narrowings of a state leave, one field's own narrowing lifted if
    /// asked.
    /// </summary>
    public static WorkSet Narrowed(
        QuestionEvaluator evaluator,
        SearchState state,
        WorkSet works,
        Facet? lifted,
        WorkSet? beside
    )
    {
        var narrowed = evaluator.Narrowed(state, lifted, Read);
        if (narrowed is null && beside is null)
            return works;
        var left = works.Copy();
        if (narrowed is not null)
            left.IntersectWith(narrowed);
        if (beside is not null)
            left.IntersectWith(beside);
        return left;
    }
}
