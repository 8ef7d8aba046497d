using Zendle.Core.FullText;
using Zendle.Core.Records;

namespace Zendle.Core.Tests.FullText;

public sealed class LibraryRouteTests
{
    private static readonly Uri Resolver = new("https://r.example/find?x=1");

    private static Uri Through(Uri to) => new("https://p.example/go?url=" + Uri.EscapeDataString(to.AbsoluteUri));

    [Fact]
    public void Libraries_are_asked_after_what_is_free_in_their_order_each_by_resolver_then_proxy()
    {
        var work = new Sought(
            "10.5555/a",
            [
                new("https://pub.example/a", CopyAccess.Closed, WorkVersion.VersionOfRecord),
                new("https://repo.example/a", CopyAccess.Free, WorkVersion.AcceptedManuscript),
                new("https://other.example/a", CopyAccess.Free, null),
            ]
        )
        {
            Libraries = [new(4, Resolver, Through), new(2, null, null), new(7, null, Through)],
        };
        Assert.Equal(
            [
                (RouteKind.Publisher, "https://pub.example/a", null),
                (RouteKind.Manuscript, "https://repo.example/a", null),
                (RouteKind.Library, "https://r.example/find?x=1", 4),
                (RouteKind.Library, "https://p.example/go?url=https%3A%2F%2Fpub.example%2Fa", 4),
                (RouteKind.Library, "https://p.example/go?url=https%3A%2F%2Fdoi.example%2F10.5555%2Fa", 4),
                (RouteKind.OtherCopy, "https://other.example/a", (int?)null),
            ],
            RouteChain
                .Usual(new("https://doi.example/"))
                .Stops(work)
                .Select(s => (s.Route, s.Address.AbsoluteUri, s.LibraryId))
        );
    }

    [Fact]
    public void Without_a_library_that_holds_it_nothing_goes_through_one() =>
        Assert.DoesNotContain(RouteChain.Usual(null).Stops(new("10.5555/a", [])), s => s.Route == RouteKind.Library);
}
