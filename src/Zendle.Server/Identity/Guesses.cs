using System.Collections.Concurrent;

namespace Zendle.Server.Identity;

/// <summary>
/// Counts wrong passwords. Counted for a name from one address, so that a stranger elsewhere cannot shut anyone out;
/// names that do not exist are counted like those that do.
/// </summary>
internal sealed class Guesses(TimeProvider clock)
{
    /// <summary>The sentence for too many.</summary>
    public const string Sentence = "Too many wrong passwords from here.";

    private const int Most = 10,
        MostRemembered = 50_000;
    private static readonly TimeSpan Window = TimeSpan.FromMinutes(5);
    private readonly ConcurrentDictionary<string, (int Count, DateTimeOffset Since)> wrong = new(
        StringComparer.Ordinal
    );

    /// <summary>What is counted for a sign-in.</summary>
    public static string Key(string name, HttpContext http) =>
        $"{name.Trim().ToUpperInvariant()[..Math.Min(100, name.Trim().Length)]} {http.Connection.RemoteIpAddress}";

    /// <summary>Whether no more may be tried for the moment.</summary>
    public bool AreTooMany(string key) =>
        wrong.TryGetValue(key, out var so) && clock.GetUtcNow() - so.Since < Window && so.Count >= Most;

    /// <summary>Notes a wrong one.</summary>
    public void Wrong(string key)
    {
        var now = clock.GetUtcNow();
        if (wrong.Count >= MostRemembered)
            foreach (var (old, so) in wrong)
                if (now - so.Since >= Window)
                    wrong.TryRemove(old, out _);
        if (wrong.Count >= MostRemembered)
            wrong.Clear();
        wrong.AddOrUpdate(key, (1, now), (_, so) => now - so.Since < Window ? (so.Count + 1, so.Since) : (1, now));
    }

    /// <summary>Forgets the wrong ones after a right one.</summary>
    public void Right(string key) => wrong.TryRemove(key, out _);
}
