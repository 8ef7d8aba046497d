using System.Collections.Immutable;
using Zendle.Core.Sets;
using Zendle.Core.Trails;
using Zendle.Index.Questions;
using Zendle.Index.Trails;

namespace Zendle.Server.Features.Search;

/// <summary>
/// Finds neighbours and remembers the last ones, bounded in bytes: what a list shows, its counts by kind and the kinds
/// chosen next all ask for the same.
/// </summary>
internal sealed class NeighbourFinder
{
    private const long LeastRemembered = 2L << 20,
        RememberedPerWork = 32;
    private readonly BoundedCache<(long Generation, NeighbourKind Kind, string Seeds), NeighbourList> lists = new(
        LeastRemembered
    );

    /// <summary>Bytes that are remembered, and how many there may be.</summary>
    public (long Bytes, long Most) Remembered => (lists.Bytes, lists.MostBytes);

    /// <summary>The neighbours by some reasons.</summary>
    public Neighbours Of(CorpusSnapshot snapshot, ImmutableArray<NeighbourKind> kinds, ImmutableArray<int> seeds) =>
        new([.. kinds.Select(kind => Of(snapshot, kind, seeds))]);

    /// <summary>The neighbours of one kind.</summary>
    public NeighbourList Of(CorpusSnapshot snapshot, NeighbourKind kind, ImmutableArray<int> seeds)
    {
        lists.MostBytes = LeastRemembered + (RememberedPerWork * snapshot.Columns.WorkSize);
        return lists.Get(
            (snapshot.Generation, kind, string.Join(' ', seeds)),
            () => new NeighbourLists(snapshot).Of(kind, seeds),
            l => l.Bytes + (12L * seeds.Length)
        );
    }
}
