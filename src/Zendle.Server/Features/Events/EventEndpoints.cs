using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Zendle.Server.Identity;

namespace Zendle.Server.Features.Events;

internal static class EventEndpoints
{
    public static void MapEvents(this RouteGroupBuilder api) =>
        api.MapGet("/events", async (EventHub hub, Access access, HttpContext http, IHostApplicationLifetime lifetime) =>
        {
            var mine = await access.ReviewIds(http.User);
            var until = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, lifetime.ApplicationStopping);
            http.Response.RegisterForDispose(until);
            return TypedResults.ServerSentEvents(Items(hub, mine, until.Token));
        }).ExcludeFromDescription();

    private static async IAsyncEnumerable<SseItem<ZendleEvent>> Items(EventHub hub, HashSet<int> mine, [EnumeratorCancellation] CancellationToken cancel)
    {
        yield return new(new("hello"));
        await foreach (var e in hub.Listen(cancel))
            if (e.ReviewId is null || mine.Contains(e.ReviewId.Value)) yield return new(e);
    }
}
