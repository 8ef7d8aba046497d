using System.Collections.Immutable;
using Zendle.Core.Queries;
using Zendle.Core.Sets;
using Zendle.Index.Questions;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Counts what taking an offer would bring: the works in view if a line stood in the place of the one that stands, with
/// its databases and every limit in force. An offer's "+n" is the difference of two such counts, never the count of its
/// own few words.
/// </summary>
/// <param name="view">The view of the line as it stands.</param>
internal sealed class OfferCounts(SearchView view)
{
    private readonly Dictionary<string, WorkSet> known = new(StringComparer.Ordinal);
    private readonly QuestionEvaluator evaluator = view.Evaluator;
    private readonly Lazy<WorkSet?> limits = new(view.Limits);

    /// <summary>The databases that are searched; empty for all.</summary>
    public ImmutableArray<int> Databases => view.State.Databases;

    /// <summary>
    /// The databases that are switched off, each with what is searched when it is switched on, and what a line then brings;
    /// and all of them, where there are several. Those that bring nothing are left out.
    /// </summary>
    public IEnumerable<(string Label, ImmutableArray<int> Databases, int Count)> Elsewhere(string line)
    {
        if (Databases.IsEmpty)
            return [];
        var off = view.Snapshot.DatabaseNames.Where(d => !Databases.Contains(d.Key)).OrderBy(d => d.Key).ToArray();
        return off.Select(d => ($"with {d.Value}", off.Length == 1 ? [] : Databases.Add(d.Key)))
            .Concat(off.Length > 1 ? [("in all databases", ImmutableArray<int>.Empty)] : [])
            .Select(d => (d.Item1, d.Item2, In(line, d.Item2).Count()))
            .Where(d => d.Item3 > 0);
    }

    /// <summary>The works in view if a line were taken; none for a line that cannot be read.</summary>
    public WorkSet Taken(string line)
    {
        if (known.TryGetValue(line, out var before))
            return before;
        return known[line] = In(line, Databases);
    }

    private WorkSet In(string line, ImmutableArray<int> databases)
    {
        if (QueryReader.Read(line).Root is not { } root)
            return evaluator.Nothing();
        var works = evaluator.Works(evaluator.Records(root), databases);
        if (limits.Value is { } left)
            works.IntersectWith(left);
        return works;
    }

    /// <summary>How many more works a line brings than the one that stands; negative when it brings fewer.</summary>
    /// <param name="line">The offer.</param>
    /// <param name="current">The line as it stands.</param>
    public int Added(string line, string current) => Taken(line).Count() - Taken(current).Count();
}
