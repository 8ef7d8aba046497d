using Zendle.Core.Sets;
using Zendle.Index;
using Zendle.Index.Senses;

namespace Zendle.Server.Features.Search.Senses;

/// <summary>Parts the set in view into groups, for senses and for the lanes of maps; the last partings are remembered.</summary>
internal sealed class Partings
{
    private const long MostRemembered = 4 << 20;
    private readonly BoundedCache<(string Answer, Fineness Fineness), Parting> known = new(MostRemembered);

    /// <summary>The groups of a set of <see cref="SenseGroups.MostWorks"/> at most.</summary>
    public Parting Of(SearchView view, Fineness fineness) =>
        known.Get(
            (view.Answer.Key, fineness),
            () => new SenseGroups(view.Snapshot).Part(view.Answer.InView, Budget.Current, fineness),
            Bytes
        );

    /// <summary>The groups of a set as they were found among the works it had, and as they are with those of today.</summary>
    /// <param name="view">The set.</param>
    /// <param name="then">The works it had, all in this corpus.</param>
    /// <param name="key">Tells these works apart from all others.</param>
    /// <param name="fineness">How finely they were parted.</param>
    public (Parting Found, Parting Grown) Grown(SearchView view, WorkSet then, string key, Fineness fineness)
    {
        var groups = new SenseGroups(view.Snapshot);
        var found = known.Get(
            ($"{view.Snapshot.Generation} {key}", fineness),
            () => groups.Part(then, Budget.Current, fineness),
            Bytes
        );
        var grown = known.Get(
            ($"{view.Answer.Key} since {key}", fineness),
            () => groups.Grown(found, then, view.Answer.InView, Budget.Current),
            Bytes
        );
        return (found, grown);
    }

    private static long Bytes(Parting parting) => 400 + parting.Groups.Sum(g => 600L + (4 * g.Works.Count));
}
