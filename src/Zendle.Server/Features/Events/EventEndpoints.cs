using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using System.Security.Claims;
using Zendle.Server.Events;
using Zendle.Server.Identity;

namespace Zendle.Server.Features.Events;

internal static class EventEndpoints
{
    public static void MapEvents(this RouteGroupBuilder api) =>
        api.MapGet(
                "/events",
                (
                    int? review,
                    EventHub hub,
                    Access access,
                    Sessions sessions,
                    HttpContext http,
                    IHostApplicationLifetime lifetime
                ) =>
                {
                    var until = CancellationTokenSource.CreateLinkedTokenSource(
                        http.RequestAborted,
                        lifetime.ApplicationStopping
                    );
                    http.Response.RegisterForDispose(until);
                    return TypedResults.ServerSentEvents(Items(hub, access, sessions, http.User, review, until.Token));
                }
            )
            .ExcludeFromDescription();

    /// <summary>
    /// What a person may know, as it happens: of the review they look at, or of all of theirs when they look at none. Ends
    /// when their session does; who is a member of what is asked again whenever that may have changed.
    /// </summary>
    private static async IAsyncEnumerable<SseItem<ZendleEvent>> Items(
        EventHub hub,
        Access access,
        Sessions sessions,
        ClaimsPrincipal user,
        int? review,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        // Listening begins before the look, so that no change falls between the two.
        await using var events = hub.Listen(cancel).GetAsyncEnumerator(cancel);
        var next = events.MoveNextAsync();
        var mine = await access.ReviewIds(user);
        yield return new(new("hello"));
        while (await next)
        {
            var e = events.Current;
            if (e.Kind == "members")
            {
                if (!await sessions.IsLive(user))
                    yield break;
                mine = await access.ReviewIds(user);
            }
            if (e.ReviewId is not { } of || (mine.Contains(of) && (review is null || review == of)))
                yield return new(e);
            next = events.MoveNextAsync();
        }
    }
}
