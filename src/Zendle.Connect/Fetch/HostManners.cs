using System.Collections.Concurrent;

namespace Zendle.Connect.Fetch;

/// <summary>What is known of a host's rules.</summary>
/// <param name="Rules">Its rules.</param>
/// <param name="Sentence">What was found, for a person.</param>
/// <param name="ReadAt">When they were read, UTC.</param>
/// <param name="Until">Until when they hold; then they are read again.</param>
/// <param name="Fault">Why they cannot be read; null when they can.</param>
public sealed record HostRules(
    RobotsRules Rules,
    string Sentence,
    DateTimeOffset ReadAt,
    DateTimeOffset Until,
    Exception? Fault = null
);

/// <summary>
/// Remembers the rules of hosts for a day. A host that has none allows everything; one whose rules cannot be read allows
/// nothing until they can (RFC 9309, 2.3.1).
/// </summary>
internal sealed class HostManners(TimeProvider clock)
{
    /// <summary>The name under which hosts may have rules for Zendle.</summary>
    public const string Program = "zendle";

    private const int MostHosts = 2_000;
    private static readonly TimeSpan Day = TimeSpan.FromDays(1),
        Soon = TimeSpan.FromMinutes(1);

    private readonly ConcurrentDictionary<string, Task<HostRules>> known = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The rules of a host, read once for all who ask at the same time.</summary>
    /// <param name="address">An address of the host.</param>
    /// <param name="read">Reads its robots.txt: the text, "" where there is none; throws when it cannot be had.</param>
    public async Task<HostRules> Of(Uri address, Func<Uri, Task<string>> read)
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
        var own = known.GetOrAdd(host, _ => Read(new(address, "/robots.txt"), read));
        try
        {
            return await own;
        }
        catch (OperationCanceledException)
        {
            // Whoever asked first gave up; whoever waited asks anew, and ends by their own word alone.
            known.TryRemove(new(host, own));
            return await Read(new(address, "/robots.txt"), read);
        }
    }

    /// <summary>What is known of a host; null when its rules were not read yet.</summary>
    public HostRules? Known(string host) =>
        known.TryGetValue(host, out var task) && task.IsCompletedSuccessfully ? task.Result : null;

    private async Task<HostRules> Read(Uri at, Func<Uri, Task<string>> read)
    {
        try
        {
            var text = await read(at);
            var (rules, now) = (RobotsRules.Read(text, Program), clock.GetUtcNow());
            return new(
                rules,
                text.Length == 0 ? "no rules"
                    : rules.Rules.Count == 0 ? "allows all of it"
                    : rules.Allows(new(at, "/")) ? $"{rules.Rules.Count} rules"
                    : "keeps programs away, but for what its rules allow",
                now,
                now + Day
            );
        }
        catch (Exception e)
            when (e is HttpRequestException or IOException or InvalidDataException or ReplyTooLongException)
        {
            var now = clock.GetUtcNow();
            return new(RobotsRules.None, "its rules cannot be read", now, now + Soon, e);
        }
    }
}
