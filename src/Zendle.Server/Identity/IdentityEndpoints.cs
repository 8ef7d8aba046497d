using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

internal sealed record MeDto(bool SignedIn, string? Name, string? DisplayName, bool IsCurator, string RequestToken, DemoAccountDto? Demo, bool NeedsFirstAccount, string Version, IReadOnlyList<string> Curators);

internal sealed record DemoAccountDto(string Name, string Password);

internal sealed record SignInRequest(string Name, string Password);

internal sealed record PasswordRequest(string Current, string Next);

internal sealed record FirstAccountRequest(string Code, string Name, string DisplayName, string Password);

internal sealed record NewAccountRequest(string Name, string DisplayName, string Password);

internal static class IdentityEndpoints
{
    public static void MapIdentity(this RouteGroupBuilder open, RouteGroupBuilder signedIn)
    {
        open.MapGet("/me", Me);
        open.MapPost("/sign-in", SignIn).RequireRateLimiting("sign-in");
        open.MapPost("/first-account", FirstAccount).RequireRateLimiting("sign-in");
        signedIn.MapPost("/sign-out", async (SignInManager<Account> signIn) => { await signIn.SignOutAsync(); return TypedResults.NoContent(); });
        signedIn.MapPost("/password", ChangePassword);
        signedIn.MapPost("/accounts", AddAccount).RequireCurator();
    }

    private static async Task<MeDto> Me(HttpContext http, UserManager<Account> users, IAntiforgery antiforgery, ZendleOptions options)
    {
        var account = http.User.Identity?.IsAuthenticated == true ? await users.GetUserAsync(http.User) : null;
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        var curators = account is null ? [] : await users.Users.Where(u => u.IsCurator).Select(u => u.DisplayName).ToListAsync();
        return new(account is not null, account?.UserName, account?.DisplayName, account?.IsCurator ?? false, token,
            options.Demo ? new(Demo.DemoAccount.Name, Demo.DemoAccount.Password) : null, !options.Demo && !await users.Users.AnyAsync(), typeof(IdentityEndpoints).Assembly.GetName().Version!.ToString(3), curators);
    }

    private static async Task<IResult> SignIn(SignInRequest request, SignInManager<Account> signIn)
    {
        var result = await signIn.PasswordSignInAsync(request.Name.Trim(), request.Password, isPersistent: true, lockoutOnFailure: true);
        if (result.Succeeded) return TypedResults.NoContent();
        return result.IsLockedOut ? Problems.Of(401, "This account is locked for five minutes after too many wrong passwords.", "Wait, then try again.")
            : Problems.Of(401, "Name or password is wrong.", "Check both; capitals count in the password.");
    }

    private static async Task<IResult> FirstAccount(FirstAccountRequest request, FirstAccountCode code, UserManager<Account> users, SignInManager<Account> signIn)
    {
        if (await users.Users.AnyAsync()) return Problems.Of(409, "This installation has its first account already.", "Sign in, or ask a curator for an account.");
        if (!code.Matches(request.Code)) return Problems.Of(403, "The code is wrong.", "It stands in the terminal in which Zendle was started.");
        var account = new Account { UserName = request.Name.Trim(), DisplayName = request.DisplayName.Trim(), IsCurator = true };
        var made = await users.CreateAsync(account, request.Password);
        if (!made.Succeeded) return Refused(made);
        code.Spend();
        await signIn.SignInAsync(account, isPersistent: true);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> ChangePassword(PasswordRequest request, HttpContext http, UserManager<Account> users, SignInManager<Account> signIn)
    {
        var account = (await users.GetUserAsync(http.User))!;
        var changed = await users.ChangePasswordAsync(account, request.Current, request.Next);
        if (!changed.Succeeded) return Refused(changed);
        await signIn.RefreshSignInAsync(account);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> AddAccount(NewAccountRequest request, UserManager<Account> users)
    {
        var made = await users.CreateAsync(new Account { UserName = request.Name.Trim(), DisplayName = request.DisplayName.Trim() is { Length: > 0 } d ? d : request.Name.Trim() }, request.Password);
        return made.Succeeded ? TypedResults.NoContent() : Refused(made);
    }

    private static IResult Refused(IdentityResult result) => Problems.Of(400, string.Join(' ', result.Errors.Select(e => e.Code switch
    {
        "PasswordTooShort" => "The password needs at least 10 characters.",
        "PasswordMismatch" => "The current password is wrong.",
        "DuplicateUserName" => "There is an account of this name already.",
        "InvalidUserName" => "A name holds letters, digits, and . - _ @ only.",
        _ => e.Description,
    }).Distinct()), "Nothing was changed.");
}
