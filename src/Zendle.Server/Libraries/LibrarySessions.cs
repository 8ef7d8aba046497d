using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Connect.Library;
using Zendle.Store.Made;

namespace Zendle.Server.Libraries;

/// <summary>
/// People's sessions at their libraries, encrypted for one person and one library each: what is opened for another fails,
/// whatever the row says. Never told to anyone, and never logged.
/// </summary>
internal sealed class LibrarySessions(
    IDbContextFactory<ZendleContext> contexts,
    IDataProtectionProvider protection,
    TimeProvider clock
)
{
    private IDataProtector For(string account, int library) =>
        protection.CreateProtector(
            "library session",
            account,
            library.ToString(System.Globalization.CultureInfo.InvariantCulture)
        );

    /// <summary>Keeps what a library gave a person; what it gave before is forgotten.</summary>
    public async Task Keep(string account, int library, LibraryKey key, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        await context
            .LibrarySessions.Where(s => s.AccountId == account && s.LibraryId == library)
            .ExecuteDeleteAsync(cancel);
        context.LibrarySessions.Add(
            new()
            {
                AccountId = account,
                LibraryId = library,
                Secret = For(account, library).Protect(JsonSerializer.SerializeToUtf8Bytes(key.Secret)),
                At = clock.GetUtcNow(),
                EndsAt = key.EndsAt,
            }
        );
        await context.SaveChangesAsync(cancel);
    }

    /// <summary>What a library gave a person; null when there is nothing, or it has ended.</summary>
    public async Task<LibrarySecret?> Open(string account, int library, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var row = await context
            .LibrarySessions.AsNoTracking()
            .SingleOrDefaultAsync(s => s.AccountId == account && s.LibraryId == library, cancel);
        if (row is null || row.EndsAt < clock.GetUtcNow())
            return null;
        try
        {
            return JsonSerializer.Deserialize<LibrarySecret>(For(account, library).Unprotect(row.Secret));
        }
        catch (CryptographicException)
        {
            // The keys of the installation are others: the session is of no use any more.
            return null;
        }
    }

    /// <summary>Ends a person's session; false when there was none.</summary>
    public async Task<bool> End(string account, int library, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
                .LibrarySessions.Where(s => s.AccountId == account && s.LibraryId == library)
                .ExecuteDeleteAsync(cancel) > 0;
    }

    /// <summary>A person's sessions that go on, by library.</summary>
    public async Task<Dictionary<int, LibrarySessionRow>> Of(string account, CancellationToken cancel)
    {
        var now = clock.GetUtcNow();
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
            .LibrarySessions.AsNoTracking()
            .Where(s => s.AccountId == account && (s.EndsAt == null || s.EndsAt > now))
            .ToDictionaryAsync(s => s.LibraryId, cancel);
    }
}
