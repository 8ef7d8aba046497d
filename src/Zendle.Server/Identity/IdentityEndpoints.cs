using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

internal sealed record MeDto(
    bool SignedIn,
    string? Name,
    string? DisplayName,
    bool IsCurator,
    string RequestToken,
    DemoAccountDto? Demo,
    bool NeedsFirstAccount,
    string Version,
    IReadOnlyList<string> Curators,
    AnnouncementDto? Announcement
);

/// <summary>Something everyone who is signed in is to know of the installation.</summary>
/// <param name="Text">What it is.</param>
/// <param name="CanBePutAway">Whether this person can say that it has been read.</param>
internal sealed record AnnouncementDto(string Text, bool CanBePutAway);

internal sealed record DemoAccountDto(string Name, string Password);

internal sealed record SignInRequest(string Name, string Password);

internal sealed record PasswordRequest(string Current, string Next);

internal sealed record FirstAccountRequest(string Code, string Name, string DisplayName, string Password);

internal sealed record NewAccountRequest(string Name, string DisplayName, string Password);

internal static class IdentityEndpoints
{
    /// <summary>
    /// One account is made at a time, so that two at once cannot both be the first, or have one name.
    /// </summary>
    private static readonly SemaphoreSlim Making = new(1, 1);

    private static readonly Lazy<string> HashOfNobody = new(() =>
        new PasswordHasher<Account>().HashPassword(new(), Guid.NewGuid().ToString())
    );

    public static void MapIdentity(this RouteGroupBuilder open, RouteGroupBuilder signedIn)
    {
        open.MapGet("/me", Me);
        open.MapPost("/sign-in", SignIn).RequireRateLimiting("sign-in");
        open.MapPost("/first-account", FirstAccount).RequireRateLimiting("sign-in");
        signedIn.MapPost(
            "/sign-out",
            async (HttpContext http, Sessions sessions, EventHub hub) =>
            {
                await sessions.End(http);
                hub.Tell(new("members"));
                return TypedResults.NoContent();
            }
        );
        signedIn.MapPost("/password", ChangePassword);
        signedIn.MapPost("/accounts", AddAccount).RequireCurator();
        signedIn
            .MapPost(
                "/announcement/put-away",
                async (CorpusIdentity identity, EventHub hub, CancellationToken cancel) =>
                {
                    await identity.Seen(cancel);
                    hub.Tell(new("members"));
                    return TypedResults.NoContent();
                }
            )
            .RequireCurator();
    }

    private static async Task<MeDto> Me(
        HttpContext http,
        UserManager<Account> users,
        IAntiforgery antiforgery,
        CorpusIdentity identity,
        CorpusService corpus,
        ZendleOptions options,
        CancellationToken cancel
    )
    {
        var account = http.User.Identity?.IsAuthenticated == true ? await users.GetUserAsync(http.User) : null;
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        var curators = account is null
            ? []
            : await users.Users.Where(u => u.IsCurator).Select(u => u.DisplayName).ToListAsync(cancel);
        return new(
            account is not null,
            account?.UserName,
            account?.DisplayName,
            account?.IsCurator ?? false,
            token,
            options.Demo ? new(Demo.DemoAccount.Name, Demo.DemoAccount.Password) : null,
            !options.Demo && !await users.Users.AnyAsync(cancel),
            typeof(IdentityEndpoints).Assembly.GetName().Version!.ToString(3),
            curators,
            account is null ? null : await Announcement(account, identity, corpus, cancel)
        );
    }

    private static async Task<AnnouncementDto?> Announcement(
        Account account,
        CorpusIdentity identity,
        CorpusService corpus,
        CancellationToken cancel
    )
    {
        if (await identity.Lost(cancel) is { } lost)
            return new(lost, account.IsCurator);
        if (!corpus.IsReady)
            return new(
                "The index is being built from what was harvested. Searching begins when it is there; nothing is lost.",
                false
            );
        return corpus.IsBehind
            ? new("Zendle was interrupted. The newest records are still being put in, so counts will rise.", false)
            : null;
    }

    private static async Task<IResult> SignIn(
        SignInRequest request,
        HttpContext http,
        UserManager<Account> users,
        SignInManager<Account> signIn,
        Sessions sessions,
        Guesses guesses
    )
    {
        var key = Guesses.Key(request.Name, http);
        if (guesses.AreTooMany(key))
            return Problems.Of(429, Guesses.Sentence, "Wait five minutes, then try again.");
        var account = request.Name.Length > 256 ? null : await users.FindByNameAsync(request.Name.Trim());
        // For a name that nobody has a password is hashed too: the time tells nothing.
        var password = request.Password[..Math.Min(PasswordRules.Longest, request.Password.Length)];
        var isRight =
            users.PasswordHasher.VerifyHashedPassword(
                account ?? new(),
                account?.PasswordHash ?? HashOfNobody.Value,
                password
            ) != PasswordVerificationResult.Failed;
        if (account is null || !isRight || request.Password.Length > PasswordRules.Longest)
        {
            guesses.Wrong(key);
            return Problems.Of(401, "Name or password is wrong.", "Check both; the password is case-sensitive.");
        }
        guesses.Right(key);
        await sessions.Begin(http, signIn, account);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> FirstAccount(
        FirstAccountRequest request,
        HttpContext http,
        FirstAccountCode code,
        UserManager<Account> users,
        SignInManager<Account> signIn,
        Sessions sessions
    )
    {
        await Making.WaitAsync();
        try
        {
            if (await users.Users.AnyAsync())
                return Problems.Of(
                    409,
                    "This installation has its first account already.",
                    "Sign in, or ask a curator for an account."
                );
            if (!code.Matches(request.Code))
                return Problems.Of(403, "The code is wrong.", "The code is in the terminal where Zendle was started.");
            var account = new Account
            {
                UserName = request.Name.Trim(),
                DisplayName = request.DisplayName.Trim(),
                IsCurator = true,
            };
            if (Fault(account) is { } fault)
                return fault;
            var made = await users.CreateAsync(account, request.Password);
            if (!made.Succeeded)
                return Refused(made);
            code.Spend();
            await sessions.Begin(http, signIn, account);
            return TypedResults.NoContent();
        }
        finally
        {
            Making.Release();
        }
    }

    private static async Task<IResult> ChangePassword(
        PasswordRequest request,
        HttpContext http,
        UserManager<Account> users,
        SignInManager<Account> signIn,
        Sessions sessions,
        Guesses guesses,
        EventHub hub
    )
    {
        var account = (await users.GetUserAsync(http.User))!;
        var key = $"password of {account.Id}";
        if (guesses.AreTooMany(key))
            return Problems.Of(429, Guesses.Sentence, "Wait five minutes, then try again. Nothing was changed.");
        if (request.Current.Length > PasswordRules.Longest || !await users.CheckPasswordAsync(account, request.Current))
        {
            guesses.Wrong(key);
            return Problems.Of(400, "The current password is wrong.", "Nothing was changed.");
        }
        guesses.Right(key);
        var changed = await users.ChangePasswordAsync(account, request.Current, request.Next);
        if (!changed.Succeeded)
            return Refused(changed);
        // Whoever has a cookie of this account, this one too, is out; the person who changed it gets a new one.
        await sessions.EndAll(account.Id);
        await sessions.Begin(http, signIn, account);
        hub.Tell(new("members"));
        return TypedResults.NoContent();
    }

    private static async Task<IResult> AddAccount(NewAccountRequest request, UserManager<Account> users)
    {
        var account = new Account
        {
            UserName = request.Name.Trim(),
            DisplayName = request.DisplayName.Trim() is { Length: > 0 } d ? d : request.Name.Trim(),
        };
        if (Fault(account) is { } fault)
            return fault;
        await Making.WaitAsync();
        try
        {
            var made = await users.CreateAsync(account, request.Password);
            return made.Succeeded ? TypedResults.NoContent() : Refused(made);
        }
        finally
        {
            Making.Release();
        }
    }

    private static IResult? Fault(Account account) =>
        account.UserName!.Length > 80 || account.DisplayName.Length > 120
            ? Problems.Of(
                400,
                "A name has at most 80 characters, the name others see at most 120.",
                "Nothing was changed."
            )
            : null;

    private static IResult Refused(IdentityResult result) =>
        Problems.Of(
            400,
            string.Join(
                ' ',
                result
                    .Errors.Select(e =>
                        e.Code switch
                        {
                            "PasswordMismatch" => "The current password is wrong.",
                            "DuplicateUserName" => "There is an account of this name already.",
                            "InvalidUserName" => "A name holds letters, digits, and . - _ @ only.",
                            _ => e.Description,
                        }
                    )
                    .Distinct()
            ),
            "Nothing was changed."
        );
}
