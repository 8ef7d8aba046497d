using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>What routes need to know of a work.</summary>
/// <param name="Doi">Its DOI; null when it has none.</param>
/// <param name="Copies">All copies its records name.</param>
/// <param name="Given">An address that a person gave for it; null for none.</param>
public sealed record Sought(string? Doi, IReadOnlyList<Copy> Copies, Uri? Given = null)
{
    /// <summary>The libraries of whoever asks that hold it, or may, in the order they are to be asked.</summary>
    public IReadOnlyList<LibraryWay> Libraries { get; init; } = [];

    /// <summary>The book that it is a chapter of, as that book's own records tell it; null where none is known.</summary>
    public Sought? Book { get; init; }
}

/// <summary>A library that holds a work, or may.</summary>
/// <param name="Id">The library.</param>
/// <param name="Resolver">The address that asks its link resolver for the work; null when it has none.</param>
/// <param name="Through">The address that opens another through its proxy; null when it has none.</param>
public sealed record LibraryWay(int Id, Uri? Resolver, Func<Uri, Uri>? Through);

/// <summary>One address to try.</summary>
/// <param name="Route">The route it belongs to.</param>
/// <param name="Address">The address.</param>
/// <param name="Version">Which version is expected there; null when not said.</param>
/// <param name="LibraryId">The library it goes through; null for none.</param>
public sealed record RouteStop(RouteKind Route, Uri Address, WorkVersion? Version, int? LibraryId = null)
{
    /// <summary>From which day anyone may have it; null when not held back, or no day is told.</summary>
    public DateOnly? OpensOn { get; init; }
}

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
            .ThenBy(c => c.OpensOn ?? DateOnly.MaxValue)
            .ThenBy(c => WorkVersions.Rank(c.Version))
            .Select(c =>
                Uri.TryCreate(c.Address, UriKind.Absolute, out var address)
                    ? new RouteStop(Kind, address, c.Version) { OpensOn = c.OpensOn }
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
        Address(Resolver, work.Doi) is { } address && !work.Copies.Any(c => WorkVersions.IsOfRecord(c.Version))
            ? [new RouteStop(RouteKind.Doi, address, null)]
            : [];

    /// <summary>Where a DOI is resolved; null without one, or without a resolver.</summary>
    internal static Uri? Address(Uri? resolver, string? doi) =>
        resolver is null || doi is null
            ? null
            : new Uri(resolver, string.Join('/', doi.Split('/').Select(Uri.EscapeDataString)));
}

/// <summary>
/// The libraries that hold the work: each by its link resolver, then through its proxy to the publisher's copies, and to
/// where the DOI leads.
/// </summary>
/// <param name="Resolver">Address of the resolver of DOIs, ending in a slash; null for none.</param>
public sealed record ThroughLibraries(Uri? Resolver) : IRoute
{
    /// <inheritdoc/>
    public IEnumerable<RouteStop> Stops(Sought work) => work.Libraries.SelectMany(l => Of(l, work));

    private IEnumerable<RouteStop> Of(LibraryWay library, Sought work)
    {
        if (library.Resolver is { } resolver)
            yield return new(RouteKind.Library, resolver, WorkVersion.VersionOfRecord, library.Id);
        if (library.Through is not { } through)
            yield break;
        foreach (var copy in work.Copies.Where(c => WorkVersions.IsOfRecord(c.Version)))
            if (Uri.TryCreate(copy.Address, UriKind.Absolute, out var address))
                yield return new(RouteKind.Library, through(address), copy.Version, library.Id);
        if (ByDoi.Address(Resolver, work.Doi) is { } doi)
            yield return new(RouteKind.Library, through(doi), WorkVersion.VersionOfRecord, library.Id);
    }
}

/// <summary>
/// The book of a chapter, where its own records name copies or a DOI: a table of contents leads to the chapter, a whole
/// file is cut.
/// </summary>
/// <param name="Resolver">Address of the resolver of DOIs, ending in a slash; null for none.</param>
public sealed record ThroughBook(Uri? Resolver) : IRoute
{
    private readonly IRoute[] ways = [new CopiesOf(RouteKind.Book, _ => true), new ByDoi(Resolver)];

    /// <inheritdoc/>
    public IEnumerable<RouteStop> Stops(Sought work) =>
        work.Book is { } book ? ways.SelectMany(w => w.Stops(book)).Select(s => s with { Route = RouteKind.Book }) : [];
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
    /// preprint, libraries that hold it, copies of no said version, the DOI, the book that a chapter stands in.
    /// </summary>
    public static RouteChain Usual(Uri? doiResolver) =>
        new([
            new AsGiven(),
            new CopiesOf(RouteKind.Publisher, WorkVersions.IsOfRecord),
            new CopiesOf(RouteKind.Manuscript, v => v is WorkVersion.AcceptedManuscript or WorkVersion.Proof),
            new CopiesOf(RouteKind.Preprint, WorkVersions.IsBeforeReview),
            new ThroughLibraries(doiResolver),
            new CopiesOf(RouteKind.OtherCopy, v => v is null),
            new ByDoi(doiResolver),
            new ThroughBook(doiResolver),
        ]);

    /// <summary>Every address to try for a work, in order, each once.</summary>
    public IReadOnlyList<RouteStop> Stops(Sought work) =>
        [.. Routes.SelectMany(r => r.Stops(work)).DistinctBy(s => s.Address.AbsoluteUri)];
}
