using System.Collections.Concurrent;
using System.Security.Cryptography;
using Zendle.Connect.Fetch;
using Zendle.Connect.Library;
using Zendle.Server.Events;
using Zendle.Server.Libraries;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

/// <summary>What goes on when somebody has signed in to a library.</summary>
internal interface IAwaitsSignIn
{
    /// <summary>Goes on with what a person asked for and could not be had without signing in.</summary>
    /// <returns>How many works.</returns>
    Task<int> GoOn(string account);
}

/// <summary>Signs people in at their libraries, and out.</summary>
internal sealed class LibrarySignIns(
    LibraryDoor door,
    LibraryShelf shelf,
    LibrarySessions sessions,
    IAwaitsSignIn waiting,
    EventHub hub,
    TimeProvider clock
)
{
    /// <summary>A window that was opened and has not come back yet.</summary>
    private sealed record Opened(string Account, int Library, string Verifier, Uri Back, DateTimeOffset At);

    private const int MostOpened = 1_000;
    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(15);
    private readonly ConcurrentDictionary<string, Opened> opened = new();

    private LibraryRow Library(int id, LibrarySignIn how) =>
        shelf.All.FirstOrDefault(l => l.Id == id && l.SignIn == how)
        ?? throw new OutsideFaultException("This library has no such sign-in.");

    /// <summary>Signs in with name and password, which go to the library's proxy and are kept nowhere.</summary>
    /// <returns>How many works go on.</returns>
    /// <exception cref="OutsideFaultException">It did not work; the message says why.</exception>
    public async Task<int> SignIn(string account, int id, string name, string password, CancellationToken cancel)
    {
        var library = Library(id, LibrarySignIn.Password);
        return await Keep(account, id, await door.SignIn(new(library.ProxyPrefix!), name, password, cancel), cancel);
    }

    /// <summary>Where the library's own window opens.</summary>
    /// <param name="account">Who signs in.</param>
    /// <param name="id">The library.</param>
    /// <param name="back">Where it leads back to.</param>
    /// <exception cref="OutsideFaultException">The library has none.</exception>
    public Uri Window(string account, int id, Uri back)
    {
        var library = Library(id, LibrarySignIn.Window);
        var now = clock.GetUtcNow();
        foreach (var old in opened.Where(o => now - o.Value.At > Patience || opened.Count > MostOpened))
            opened.TryRemove(old.Key, out _);
        var (state, verifier) = (Random(), Random());
        opened[state] = new(account, id, verifier, back, now);
        return LibraryDoor.Window(new(library.AuthorizeAddress!), back, state, verifier);
    }

    private static string Random() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(32));

    /// <summary>Takes what a library's window gave, from the person alone who opened it.</summary>
    /// <returns>How many works go on.</returns>
    /// <exception cref="OutsideFaultException">It did not work; the message says why.</exception>
    public async Task<int> Return(string account, string state, string code, CancellationToken cancel)
    {
        if (
            !opened.TryGetValue(state, out var asked)
            || asked.Account != account
            || clock.GetUtcNow() - asked.At > Patience
            || !opened.TryRemove(state, out _)
        )
            throw new OutsideFaultException(
                "This sign-in was not begun here, or took too long. Please begin it again."
            );
        var library = Library(asked.Library, LibrarySignIn.Window);
        var key = await door.Exchange(new(library.TokenAddress!), code, asked.Back, asked.Verifier, cancel);
        return await Keep(account, asked.Library, key, cancel);
    }

    private async Task<int> Keep(string account, int id, LibraryKey key, CancellationToken cancel)
    {
        await sessions.Keep(account, id, key, cancel);
        var count = await waiting.GoOn(account);
        hub.Tell(new("libraries"));
        return count;
    }

    /// <summary>Ends a person's session at a library; false when there was none.</summary>
    public async Task<bool> End(string account, int id, CancellationToken cancel)
    {
        var had = await sessions.End(account, id, cancel);
        hub.Tell(new("libraries"));
        return had;
    }
}
