using Zendle.Core.Reviews;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Terms;

namespace Zendle.Index.Trails;

/// <summary>Finds the neighbours of works, kind by kind.</summary>
/// <param name="snapshot">The corpus.</param>
public sealed class NeighbourLists(CorpusSnapshot snapshot)
{
    /// <summary>The neighbours of one kind; the cost of each kind stands where it is worked out.</summary>
    /// <param name="kind">What they have in common with the seeds.</param>
    /// <param name="seeds">The seeds, each once; those that are not there have nothing in common with anything.</param>
    public NeighbourList Of(NeighbourKind kind, IReadOnlyCollection<int> seeds)
    {
        var columns = snapshot.Columns;
        return kind switch
        {
            NeighbourKind.SharedReferences => Neighbours.SharedReferences(columns.Graph, seeds, columns.WorkSize),
            NeighbourKind.CitedTogether => Neighbours.CitedTogether(columns.Graph, seeds, columns.WorkSize),
            NeighbourKind.Tied => Neighbours.Tied(columns.Graph, seeds, columns.WorkSize),
            NeighbourKind.SharedTerms => Telling.Neighbours(seeds),
            NeighbourKind.SharedPeople => Neighbours.SharedPeople(
                w => columns.Of(Facet.Person).Of(w),
                seeds,
                columns.WorkSize
            ),
            _ => throw new ArgumentOutOfRangeException(nameof(kind)),
        };
    }

    /// <summary>The words that are telling for the seeds, and what shares them.</summary>
    public TellingTerms Telling { get; } = new(snapshot, new(snapshot, null));
}
