using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCollectionOrderer(typeof(Zendle.Tests.Shared.LongestFirst))]

namespace Zendle.Tests.Shared;

/// <summary>
/// Begins with the classes that take long, so that none of them runs alone at the end while the other processor has nothing
/// to do.
/// </summary>
public sealed class LongestFirst : ITestCollectionOrderer
{
    /// <summary>A collection of classes that run one after another and so take longest of all.</summary>
    public const string Chain = "One after another";

    private static readonly string[] Long =
    [
        // Of the server.
        "KillTests",
        "HostileDocumentTests",
        "BadRequestTests",
        "GatherTests",
        "HarvestTests",
        "DataFolderTests",
        "LostCorpusTests",
        "LibraryTests",
        "TextReferenceTests",
        "LoanTests",
        "TrailRecountTests",
        "UpgradeTests",
        "StartTests",
        "OfferTests",
        "DiskFullTests",
        // In the browser.
        Chain,
        "ScreenTests",
        "MapScreenTests",
        "SearchLineTests",
        "TermsScreenTests",
        "PathScreenTests",
        "PlacesTests",
        "BoardScreenTests",
    ];

    /// <inheritdoc/>
    public IReadOnlyCollection<TTestCollection> OrderTestCollections<TTestCollection>(
        IReadOnlyCollection<TTestCollection> testCollections
    )
        where TTestCollection : ITestCollection => [.. testCollections.OrderBy(Rank)];

    private static int Rank<TTestCollection>(TTestCollection collection)
        where TTestCollection : ITestCollection =>
        Array.FindIndex(
            Long,
            name =>
                collection.TestCollectionDisplayName == name
                || collection.TestCollectionDisplayName.Contains($".{name} ", StringComparison.Ordinal)
        )
            is var at
                and >= 0
            ? at
            : Long.Length;
}
