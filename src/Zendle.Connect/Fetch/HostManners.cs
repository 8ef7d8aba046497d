using System.Collections.Concurrent;
using System.Text;

namespace Zendle.Connect.Fetch;

/// <summary>What the rules of a host come to.</summary>
public enum HostSays
{
    /// <summary>It has none.</summary>
    Nothing,

    /// <summary>It has some, of which none is for programs like this.</summary>
    Free,

    /// <summary>It has rules, and its front page is allowed.</summary>
    Rules,

    /// <summary>It allows programs only where its rules say so.</summary>
    Away,

    /// <summary>They cannot be read.</summary>
    Unread,
}

/// <summary>What is known of a host's rules.</summary>
/// <param name="Rules">Its rules.</param>
/// <param name="Says">What they come to.</param>
/// <param name="ReadAt">When they were read, UTC.</param>
/// <param name="Until">Until when they hold; then they are read again.</param>
/// <param name="Fault">Why they cannot be read; null when they can.</param>
public sealed record HostRules(
    RobotsRules Rules,
    HostSays Says,
    DateTimeOffset ReadAt,
    DateTimeOffset Until,
    Exception? Fault = null
);

/// <summary>
/// Remembers the rules of hosts for a day. A host that has none allows everything; one whose rules cannot be read allows
/// nothing until they can (RFC 9309, 2.3.1).
/// </summary>
internal sealed class HostManners(HttpClient http, AddressPolicy policy, FetchLimits limits, TimeProvider clock)
{
    /// <summary>The name under which hosts may have rules for Zendle.</summary>
    public const string Program = "zendle";

    private const int MostHosts = 2_000;
    private static readonly TimeSpan Day = TimeSpan.FromDays(1),
        Soon = TimeSpan.FromMinutes(1);

    private readonly ConcurrentDictionary<string, Task<HostRules>> known = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The rules of a host, read once for all who ask at the same time.</summary>
    /// <param name="address">An address of the host.</param>
    /// <param name="cancel">Stops.</param>
    public async Task<HostRules> Of(Uri address, CancellationToken cancel)
    {
        var host = address.GetLeftPart(UriPartial.Authority);
        if (
            known.TryGetValue(host, out var task)
            && task.IsCompletedSuccessfully
            && task.Result.Until <= clock.GetUtcNow()
        )
            known.TryRemove(new(host, task));
        if (known.Count >= MostHosts)
            known.Clear();
        var own = known.GetOrAdd(host, _ => Read(new(address, "/robots.txt"), cancel));
        try
        {
            return await own;
        }
        catch (OperationCanceledException)
        {
            // Whoever asked first gave up; whoever waited asks anew, and ends by their own word alone.
            known.TryRemove(new(host, own));
            return await Read(new(address, "/robots.txt"), cancel);
        }
    }

    /// <summary>What is known of a host; null when its rules were not read yet.</summary>
    public HostRules? Known(string host) =>
        known.TryGetValue(host, out var task) && task.IsCompletedSuccessfully ? task.Result : null;

    private async Task<HostRules> Read(Uri at, CancellationToken cancel)
    {
        try
        {
            var text = await Text(at, cancel);
            var (rules, now) = (RobotsRules.Read(text, Program), clock.GetUtcNow());
            return new(
                rules,
                text.Length == 0 ? HostSays.Nothing
                    : rules.Rules.Count == 0 ? HostSays.Free
                    : rules.Allows(new(at, "/")) ? HostSays.Rules
                    : HostSays.Away,
                now,
                now + Day
            );
        }
        catch (Exception e)
            when (e is HttpRequestException or IOException or InvalidDataException or ReplyTooLongException)
        {
            var now = clock.GetUtcNow();
            return new(RobotsRules.None, HostSays.Unread, now, now + Soon, e);
        }
    }

    /// <summary>Its robots.txt: "" where there is none.</summary>
    private async Task<string> Text(Uri robots, CancellationToken cancel)
    {
        for (var (redirects, at) = (0, robots); redirects <= limits.Redirects; redirects++)
        {
            if (policy.WhyNot(at) is not null)
                return "";
            using var whole = CancellationTokenSource.CreateLinkedTokenSource(cancel);
            using var timer = clock.CreateTimer(_ => whole.Cancel(), null, limits.Begin, Timeout.InfiniteTimeSpan);
            try
            {
                using var request = new HttpRequestMessage(HttpMethod.Get, at);
                using var response = await http.SendAsync(
                    request,
                    HttpCompletionOption.ResponseHeadersRead,
                    whole.Token
                );
                if (OutsideHttp.Redirect(response, at) is { } next)
                {
                    at = next;
                    continue;
                }
                if ((int)response.StatusCode is >= 500 or 429)
                    throw new HttpRequestException("The rules cannot be read.");
                if (!response.IsSuccessStatusCode)
                    return "";
                var type = response.Content.Headers.ContentType?.MediaType;
                // Hosts without rules often show their front page.
                if (type is "text/html" or "application/xhtml+xml")
                    return "";
                await using var body = new LimitedStream(
                    await response.Content.ReadAsStreamAsync(whole.Token),
                    limits.Rules
                );
                using var reader = new StreamReader(body, Encoding.UTF8);
                return await reader.ReadToEndAsync(whole.Token);
            }
            catch (OperationCanceledException) when (!cancel.IsCancellationRequested)
            {
                throw new HttpRequestException("The rules took too long.");
            }
        }
        return "";
    }
}
