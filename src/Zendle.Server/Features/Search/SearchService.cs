using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Questions;
using Zendle.Server.Corpus;
using Zendle.Server.Features.Decisions;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Search;

/// <summary>An answered question: sets that belong to one snapshot. Not to be changed.</summary>
/// <param name="Reading">How the expression was read.</param>
/// <param name="Concepts">Its concepts.</param>
/// <param name="Matching">Matching records of all databases.</param>
/// <param name="Before">Works of the chosen databases, before narrowing.</param>
/// <param name="InView">Works after narrowing.</param>
/// <param name="Orders">Orders worked out so far.</param>
internal sealed record Answer(QueryReading Reading, ImmutableArray<Concept> Concepts, BitSet Matching, BitSet Before, BitSet InView, int Count, ConcurrentDictionary<SortOrder, int[]> Orders);

/// <summary>A question in view together with everything a request needs to speak about it. Holds a snapshot: dispose of it.</summary>
internal sealed record SearchView(CorpusSnapshot Snapshot, DecisionFold Fold, ReviewFacts Facts, SearchState State, Answer Answer) : IDisposable
{
    public QuestionEvaluator Evaluator => new(Snapshot, Facts);

    public void Dispose() => Snapshot.Dispose();
}

/// <summary>Answers states of searching. One pipeline for lists, counts, breakdowns, keeping and exports.</summary>
internal sealed class SearchService(CorpusService corpus, DecisionService decisions, IDbContextFactory<ZendleContext> contexts, TimeProvider clock)
{
    private const int MostRemembered = 300;
    private readonly ConcurrentDictionary<string, Answer> remembered = new(StringComparer.Ordinal);

    /// <summary>How acts and states are written down.</summary>
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web) { Converters = { new System.Text.Json.Serialization.JsonStringEnumConverter() } };

    /// <summary>The view of a step; of everything when <paramref name="stepId"/> is 0; null when there is no such step in the review.</summary>
    public async Task<SearchView?> View(int reviewId, int stepId)
    {
        if (stepId == 0) return await View(reviewId, SearchState.Everything);
        return await StateOf(reviewId, stepId) is { } state ? await View(reviewId, state) : null;
    }

    /// <summary>The view of a state.</summary>
    public async Task<SearchView> View(int reviewId, SearchState state)
    {
        var (fold, facts) = await decisions.Of(reviewId);
        var snapshot = corpus.Snapshot();
        try { return new(snapshot, fold, facts, state, Answer(reviewId, snapshot, facts, state)); }
        catch
        {
            snapshot.Dispose();
            throw;
        }
    }

    /// <summary>The state a step leads to; null when there is none.</summary>
    public async Task<SearchState?> StateOf(int reviewId, int stepId)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var acts = new List<StepAct>();
        for (int? id = stepId; id is not null;)
        {
            var step = await context.Steps.AsNoTracking().Where(s => s.Id == id && s.ReviewId == reviewId && !s.Removed).Select(s => new { s.ParentId, s.Act }).SingleOrDefaultAsync();
            if (step is null) return null;
            acts.Add(JsonSerializer.Deserialize<StepAct>(step.Act, Json)!);
            id = step.ParentId;
        }
        acts.Reverse();
        return SearchState.Of(acts);
    }

    /// <summary>The works in view in order, those judged left out if asked.</summary>
    public int[] Order(SearchView view, SortOrder order, bool hideJudged)
    {
        var answer = view.Answer;
        var sorted = answer.Orders.GetOrAdd(order, _ => WorkOrder.Sort(view.Snapshot, answer.InView, order, answer.Concepts, InChosen(view), clock.GetUtcNow().Year));
        return hideJudged ? Array.FindAll(sorted, w => !view.Facts.Kept.Contains(w) && !view.Facts.SetAside.Contains(w)) : sorted;
    }

    /// <summary>Reads an expression for the index; null when nothing can be searched.</summary>
    public static QueryNode? Read(string expression) => QueryReader.Read(expression).Root;

    private static BitSet InChosen(SearchView view)
    {
        if (view.State.Databases.IsEmpty) return view.Answer.Matching;
        var chosen = view.State.Databases.ToHashSet();
        return BitSet.Of(view.Answer.Matching.Size, view.Answer.Matching.Members().Where(r => chosen.Contains(view.Snapshot.Columns.RecordDatabase[r])));
    }

    private Answer Answer(int reviewId, CorpusSnapshot snapshot, ReviewFacts facts, SearchState state)
    {
        // Only questions about the review itself depend on its decisions.
        var key = $"{snapshot.Generation}|{(state.AsksReview ? $"{reviewId}.{facts.Version}" : "")}|{JsonSerializer.Serialize(state, Json)}";
        if (remembered.TryGetValue(key, out var known)) return known;
        var evaluator = new QuestionEvaluator(snapshot, facts);
        var reading = QueryReader.Read(state.Expression);
        var matching = reading.Root is null ? new BitSet(snapshot.Columns.RecordSize) : evaluator.Records(reading.Root);
        var before = evaluator.Works(matching, state.Databases);
        var inView = before;
        if (evaluator.Narrowed(state, null, Read) is { } narrowed)
        {
            narrowed.IntersectWith(before);
            inView = narrowed;
        }
        var answer = new Answer(reading, Concepts.Of(reading.Root), matching, before, inView, inView.Count(), new());
        if (remembered.Count >= MostRemembered) remembered.Clear();
        return remembered[key] = answer;
    }
}
