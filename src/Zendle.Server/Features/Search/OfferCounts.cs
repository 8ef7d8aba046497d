using System.Collections.Immutable;
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

    /// <summary>The databases that are switched off, by their ids.</summary>
    public IReadOnlyList<(int Id, string Name)> SwitchedOff =>
        Databases.IsEmpty
            ? []
            :
            [
                .. view
                    .Snapshot.DatabaseNames.Where(d => !Databases.Contains(d.Key))
                    .OrderBy(d => d.Key)
                    .Select(d => (d.Key, d.Value)),
            ];

    /// <summary>The works in view if a line were taken; none for a line that cannot be read.</summary>
    public WorkSet Taken(string line)
    {
        if (known.TryGetValue(line, out var before))
            return before;
        return known[line] = Taken(line, Databases);
    }

    /// <summary>The same in other databases; empty for all.</summary>
    public WorkSet Taken(string line, ImmutableArray<int> databases)
    {
        var works = evaluator.Works(line, databases);
        if (limits.Value is { } left)
            works.IntersectWith(left);
        return works;
    }

    /// <summary>How many more works a line brings than the one that stands; negative when it brings fewer.</summary>
    /// <param name="line">The offer.</param>
    /// <param name="current">The line as it stands.</param>
    public int Added(string line, string current) => Taken(line).Count() - Taken(current).Count();
}
