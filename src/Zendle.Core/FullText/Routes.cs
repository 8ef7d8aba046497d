using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>What routes need to know of a work.</summary>
/// <param name="Doi">Its DOI; null when it has none.</param>
/// <param name="Copies">All copies its records name.</param>
/// <param name="Given">An address that a person gave for it; null for none.</param>
public sealed record Sought(string? Doi, IReadOnlyList<Copy> Copies, Uri? Given = null);

/// <summary>One address to try.</summary>
/// <param name="Route">The route it belongs to.</param>
/// <param name="Address">The address.</param>
/// <param name="Version">Which version is expected there; null when not said.</param>
public sealed record RouteStop(RouteKind Route, Uri Address, WorkVersion? Version);

/// <summary>One way to texts. The chain asks its routes in order; each names the addresses it would try.</summary>
public interface IRoute
{
    /// <summary>The addresses to try for a work, best first.</summary>
    IEnumerable<RouteStop> Stops(Sought work);
}

/// <summary>
/// Copies of some versions, the free ones first: a copy that is said to be closed may have been opened since, and its
/// price is worth noting.
/// </summary>
/// <param name="Kind">The route.</param>
/// <param name="Fits">Which versions.</param>
public sealed record CopiesOf(RouteKind Kind, Func<WorkVersion?, bool> Fits) : IRoute
{
    /// <inheritdoc/>
    public IEnumerable<RouteStop> Stops(Sought work) =>
        work
            .Copies.Where(c => Fits(c.Version))
            .OrderBy(c => c.Access != CopyAccess.Free)
            .ThenBy(c => WorkVersions.Rank(c.Version))
            .Select(c =>
                Uri.TryCreate(c.Address, UriKind.Absolute, out var address)
                    ? new RouteStop(Kind, address, c.Version)
                    : null
            )
            .OfType<RouteStop>();
}

/// <summary>Where the DOI leads, when no record names the publisher's copy.</summary>
/// <param name="Resolver">Address of the resolver, ending in a slash; null for none.</param>
public sealed record ByDoi(Uri? Resolver) : IRoute
{
    /// <inheritdoc/>
    public IEnumerable<RouteStop> Stops(Sought work) =>
        Resolver is null || work.Doi is null || work.Copies.Any(c => WorkVersions.IsOfRecord(c.Version))
            ? []
            :
            [
                new RouteStop(
                    RouteKind.Doi,
                    new Uri(Resolver, string.Join('/', work.Doi.Split('/').Select(Uri.EscapeDataString))),
                    null
                ),
            ];
}

/// <summary>The address that a person gave.</summary>
public sealed record AsGiven : IRoute
{
    /// <inheritdoc/>
    public IEnumerable<RouteStop> Stops(Sought work) =>
        work.Given is null ? [] : [new RouteStop(RouteKind.Given, work.Given, null)];
}

/// <summary>All routes in order.</summary>
public sealed record RouteChain(IReadOnlyList<IRoute> Routes)
{
    /// <summary>
    /// The usual order: an address that a person gave, version of record, accepted manuscript, submitted manuscript or
    /// preprint, copies of no said version, the DOI.
    /// </summary>
    public static RouteChain Usual(Uri? doiResolver) =>
        new([
            new AsGiven(),
            new CopiesOf(RouteKind.Publisher, WorkVersions.IsOfRecord),
            new CopiesOf(RouteKind.Manuscript, v => v is WorkVersion.AcceptedManuscript or WorkVersion.Proof),
            new CopiesOf(RouteKind.Preprint, WorkVersions.IsBeforeReview),
            new CopiesOf(RouteKind.OtherCopy, v => v is null),
            new ByDoi(doiResolver),
        ]);

    /// <summary>Every address to try for a work, in order, each once.</summary>
    public IReadOnlyList<RouteStop> Stops(Sought work) =>
        [.. Routes.SelectMany(r => r.Stops(work)).DistinctBy(s => s.Address.AbsoluteUri)];
}
