using System.Collections.Concurrent;
using System.Security.Claims;
using System.Security.Cryptography;
using System.Text;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

/// <summary>
/// Who is signed in, on which device. A cookie carries the secret of its session and counts as long as that is in the
/// store, so that a sign-out or a change of password ends it at once, wherever it was copied to.
/// </summary>
internal sealed class Sessions(IDbContextFactory<ZendleContext> contexts, TimeProvider clock)
{
    private const string Claim = "zendle-session";
    private const int MostRemembered = 10_000;
    private static readonly TimeSpan Lasts = TimeSpan.FromDays(14);
    private readonly ConcurrentDictionary<string, (string Account, DateTimeOffset Until)> live = new(
        StringComparer.Ordinal
    );

    /// <summary>Signs an account in: begins a session and sets its cookie.</summary>
    public async Task Begin(HttpContext http, SignInManager<Account> signIn, Account account)
    {
        var secret = RandomNumberGenerator.GetHexString(64, lowercase: true);
        var now = clock.GetUtcNow();
        await using (var context = await contexts.CreateDbContextAsync())
        {
            await context.Sessions.Where(s => s.Until < now).ExecuteDeleteAsync();
            context.Sessions.Add(
                new()
                {
                    Id = Hash(secret),
                    AccountId = account.Id,
                    At = now,
                    Until = now + Lasts,
                }
            );
            await context.SaveChangesAsync();
        }
        var principal = await signIn.CreateUserPrincipalAsync(account);
        ((ClaimsIdentity)principal.Identity!).AddClaim(new(Claim, secret));
        await http.SignInAsync(
            IdentityConstants.ApplicationScheme,
            principal,
            new AuthenticationProperties { IsPersistent = true }
        );
    }

    /// <summary>Ends the session of a request.</summary>
    public async Task End(HttpContext http)
    {
        if (http.User.FindFirstValue(Claim) is { } secret)
            await End(s => s.Id == Hash(secret));
        await http.SignOutAsync(IdentityConstants.ApplicationScheme);
    }

    /// <summary>Ends all sessions of an account.</summary>
    public Task EndAll(string account) => End(s => s.AccountId == account);

    private async Task End(System.Linq.Expressions.Expression<Func<SessionRow, bool>> which)
    {
        await using var context = await contexts.CreateDbContextAsync();
        var ids = await context.Sessions.Where(which).Select(s => s.Id).ToListAsync();
        await context.Sessions.Where(s => ids.Contains(s.Id)).ExecuteDeleteAsync();
        foreach (var id in ids)
            live.TryRemove(id, out _);
    }

    /// <summary>Whether a principal's session still goes on.</summary>
    public async Task<bool> IsLive(ClaimsPrincipal user)
    {
        if (
            user.FindFirstValue(Claim) is not { } secret
            || user.FindFirstValue(ClaimTypes.NameIdentifier) is not { } account
        )
            return false;
        var (id, now) = (Hash(secret), clock.GetUtcNow());
        if (live.TryGetValue(id, out var known) && known.Account == account && known.Until - now > Lasts / 2)
            return true;
        await using var context = await contexts.CreateDbContextAsync();
        var row = await context.Sessions.SingleOrDefaultAsync(s =>
            s.Id == id && s.AccountId == account && s.Until > now
        );
        if (row is null)
            return false;
        if (row.Until - now < Lasts / 2)
        {
            row.Until = now + Lasts;
            await context.SaveChangesAsync();
        }
        if (live.Count >= MostRemembered)
            live.Clear();
        live[id] = (account, row.Until);
        // It may have ended while it was read.
        if (await context.Sessions.AnyAsync(s => s.Id == id))
            return true;
        live.TryRemove(id, out _);
        return false;
    }

    /// <summary>Refuses a cookie whose session has ended.</summary>
    public static async Task Validate(CookieValidatePrincipalContext context)
    {
        if (
            context.Principal is { } user
            && await context.HttpContext.RequestServices.GetRequiredService<Sessions>().IsLive(user)
        )
            return;
        context.RejectPrincipal();
        await context.HttpContext.SignOutAsync(IdentityConstants.ApplicationScheme);
    }

    private static string Hash(string secret) =>
        Convert.ToHexStringLower(SHA256.HashData(Encoding.ASCII.GetBytes(secret)));
}
