using Zendle.Core.Queries;
using Zendle.Core.Reviews;
using Zendle.Core.Sets;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Counts the parts of one line in the chosen databases; whoever asks, each is counted once. Stops between two parts
/// when nobody waits any more.
/// </summary>
internal sealed class PartCounts(
    QuestionEvaluator evaluator,
    SearchState state,
    QueryNode root,
    CancellationToken cancel
)
{
    private readonly Dictionary<QueryNode, int> counts = new(ReferenceEqualityComparer.Instance);
    private readonly Dictionary<QueryNode, WorkSet> without = new(ReferenceEqualityComparer.Instance);
    private WorkSet? whole;

    /// <summary>The line's tree.</summary>
    public QueryNode Root => root;

    /// <summary>Works that the whole line finds.</summary>
    public WorkSet Whole => whole ??= Works(root);

    /// <summary>Works that a tree finds, also one that is no part of the line.</summary>
    public WorkSet Works(QueryNode node, QueryField field = QueryField.About)
    {
        cancel.ThrowIfCancellationRequested();
        return evaluator.Works(evaluator.Records(node, field), state.Databases);
    }

    /// <summary>How many works have a term among their authors' keywords, or among their controlled terms.</summary>
    public int InKeywords(TermNode term, bool isControlled)
    {
        cancel.ThrowIfCancellationRequested();
        return evaluator.Works(evaluator.InKeywords(term, isControlled), state.Databases).Count();
    }

    /// <summary>How many works a part finds by itself.</summary>
    public int Count(QueryNode part, QueryField field) =>
        counts.TryGetValue(part, out var known) ? known : counts[part] = Works(part, field).Count();

    /// <summary>Works that the line finds when a term is taken out of it; none for a line of that term alone.</summary>
    public WorkSet Without(TermNode term)
    {
        if (without.TryGetValue(term, out var known))
            return known;
        cancel.ThrowIfCancellationRequested();
        return without[term] = ReferenceEquals(term, root)
            ? new(Whole.Size)
            : evaluator.Works(evaluator.Records(root, QueryField.About, without: term), state.Databases);
    }

    /// <summary>How many works only a term brings in; of a term under NOT, how many only it takes away.</summary>
    public int OnlyIt(TermNode term) => Math.Abs(Whole.Count() - Without(term).Count());
}
