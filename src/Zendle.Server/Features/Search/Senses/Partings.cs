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
            found => 400 + found.Groups.Sum(g => 600L + (4 * g.Works.Count))
        );
}
