using System.Collections.Concurrent;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Outside.Oai;
using Zendle.Outside.Pages;
using Zendle.Outside.World;

namespace Zendle.Outside.Libraries;

/// <summary>
/// The libraries' proxies: an address behind the prefix opens for whoever has signed in, if the library holds the work. One
/// library asks for name and password in a form and gives a cookie; the other signs readers in in a window of its own and
/// gives a bearer token (OAuth 2.0 authorization code, RFC 6749, with proof key, RFC 7636).
/// </summary>
public sealed partial class LibraryProxy(
    IReadOnlyList<Work> works,
    LibraryPages pages,
    Hosts hosts,
    OutsideClock clock,
    LibrarySwitches switches
)
{
    private static readonly TimeSpan Lasts = TimeSpan.FromHours(8);
    private readonly ConcurrentDictionary<string, DateTimeOffset> sessions = new();
    private readonly ConcurrentDictionary<string, (string Challenge, string Back)> codes = new();

    /// <summary>Maps the addresses.</summary>
    public void Map(WebApplication app)
    {
        app.MapGet("/library/{key}/proxy", (string key, string url, HttpContext http) => Enter(key, url, http));
        app.MapGet("/library/{key}/through/{**rest}", Through);
        app.MapGet("/library/{key}/sign-in", (string key, string then) => Form(key, then, null));
        app.MapPost("/library/{key}/sign-in", SignIn).DisableAntiforgery();
        app.MapGet("/library/{key}/authorize", (HttpContext http) => Window(http.Request.Query, null));
        app.MapPost("/library/{key}/authorize", Authorize).DisableAntiforgery();
        app.MapPost("/library/{key}/token", Token).DisableAntiforgery();
    }

    private bool IsKnown(OutsideLibrary library, HttpContext http)
    {
        var key = library.HasWindow
            ? http.Request.Headers.Authorization.ToString() is var header
            && header.StartsWith("Bearer ", StringComparison.Ordinal)
                ? header["Bearer ".Length..]
                : null
            : http.Request.Cookies["reading"];
        return key is not null
            && !switches.Has(library.Key, "ended")
            && sessions.TryGetValue($"{library.Key} {key}", out var ends)
            && ends > clock.Now;
    }

    private IResult Enter(string key, string url, HttpContext http)
    {
        if (LibraryPages.Of(key) is not { } library)
            return Results.NotFound();
        if (!IsKnown(library, http))
            return Refused(library, http, http.Request.Path + http.Request.QueryString);
        if (
            !Uri.TryCreate(url, UriKind.Absolute, out var target)
            || target.Authority != http.Request.Host.Value
            || !(
                target.AbsolutePath.StartsWith("/publisher/", StringComparison.Ordinal)
                || target.AbsolutePath.StartsWith("/doi/", StringComparison.Ordinal)
            )
        )
            return LibraryPages.Page("Not through here", "<p>This library has no contract with that host.</p>", 403);
        var path = target.AbsolutePath.StartsWith("/doi/", StringComparison.Ordinal)
            ? hosts.Resolved(Uri.UnescapeDataString(target.AbsolutePath["/doi/".Length..]))
            : target.AbsolutePath;
        return path is null ? Results.NotFound() : Results.Redirect($"/library/{key}/through{path}");
    }

    private static IResult Refused(OutsideLibrary library, HttpContext http, string then)
    {
        if (!library.HasWindow)
            return Results.Redirect($"/library/{library.Key}/sign-in?then={Uri.EscapeDataString(then)}");
        http.Response.Headers.WWWAuthenticate = "Bearer";
        return LibraryPages.Page("Sign in", "<p>Please sign in to your library first.</p>", 401);
    }

    private async Task<IResult> Through(string key, string rest, HttpContext http)
    {
        if (LibraryPages.Of(key) is not { } library)
            return Results.NotFound();
        if (!IsKnown(library, http))
            return Refused(library, http, http.Request.Path);
        if (
            TextPath().Match(rest) is not { Success: true } match
            || !int.TryParse(match.Groups[1].ValueSpan, out var id)
            || id >= works.Count
        )
            return Results.NotFound();
        return await hosts.Serve(http, id, match.Groups[2].Value, pages.Covers(library, works[id]));
    }

    [GeneratedRegex(@"^publisher/[a-z0-9-]+/(\d{1,7})(/text\.(?:pdf|html|xml|epub))?$", RegexOptions.CultureInvariant)]
    private static partial Regex TextPath();

    private static IResult Form(string key, string then, string? fault) =>
        LibraryPages.Of(key) is not { } library
            ? Results.NotFound()
            : LibraryPages.Page(
                $"{library.Name}: sign in",
                $"""
                {(fault is null ? "" : $"<p role=\"alert\">{fault}</p>")}
                <form method="get" action="/libraries"><input name="q" type="search"> <button>Find a library</button></form>
                <form method="post" action="sign-in"><input type="hidden" name="then" value="{WebUtility.HtmlEncode(
                    then
                )}">
                <label>Card number or name <input name="card" type="text"></label>
                <label>Password <input name="secret" type="password"></label> <button name="go" value="1">Sign in</button></form>
                """
            );

    private async Task<IResult> SignIn(string key, HttpContext http)
    {
        var form = await http.Request.ReadFormAsync();
        var then = form["then"].ToString();
        if (LibraryPages.Of(key) is not { HasWindow: false })
            return Results.NotFound();
        if (switches.Has(key, "refuse") || !IsReader(form["card"], form["secret"]))
            return Form(key, then, "Name or password is not right.");
        http.Response.Cookies.Append(
            "reading",
            NewSession(key),
            new()
            {
                Path = $"/library/{key}",
                HttpOnly = true,
                MaxAge = Lasts,
            }
        );
        // Never to another site.
        return Results.Redirect(
            then.StartsWith($"/library/{key}/", StringComparison.Ordinal) ? then : $"/library/{key}/sign-in?then="
        );
    }

    private static bool IsReader(string? name, string? password) =>
        OutsideLibrary.Readers.TryGetValue(name ?? "", out var right) && right == password;

    private string NewSession(string key)
    {
        var token = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(20));
        sessions[$"{key} {token}"] = clock.Now + Lasts;
        return token;
    }

    private static IResult Window(
        IEnumerable<KeyValuePair<string, Microsoft.Extensions.Primitives.StringValues>> asked,
        string? fault
    ) =>
        LibraryPages.Page(
            "Quillmere University Library: sign in",
            $"""
            {(fault is null ? "" : $"<p role=\"alert\">{fault}</p>")}
            <p>Zendle asks to open texts for you until you end it.</p>
            <form method="post" action="authorize">{string.Concat(
                asked
                    .Where(a => a.Key is "redirect_uri" or "state" or "code_challenge" or "client_id")
                    .Select(a =>
                        $"<input type=\"hidden\" name=\"{a.Key}\" value=\"{WebUtility.HtmlEncode(a.Value.ToString())}\">"
                    )
            )}
            <label>Name <input name="card" type="text"></label>
            <label>Password <input name="secret" type="password"></label> <button>Sign in</button></form>
            """
        );

    private async Task<IResult> Authorize(string key, HttpContext http)
    {
        var form = await http.Request.ReadFormAsync();
        if (LibraryPages.Of(key) is not { HasWindow: true })
            return Results.NotFound();
        if (switches.Has(key, "refuse") || !IsReader(form["card"], form["secret"]))
            return Window(form, "Name or password is not right.");
        var code = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        var back = form["redirect_uri"].ToString();
        codes[code] = (form["code_challenge"].ToString(), back);
        return Results.Redirect(
            $"{back}{(back.Contains('?', StringComparison.Ordinal) ? '&' : '?')}code={code}"
                + $"&state={Uri.EscapeDataString(form["state"].ToString())}"
        );
    }

    private async Task<IResult> Token(string key, HttpContext http)
    {
        var form = await http.Request.ReadFormAsync();
        var proof = Convert
            .ToBase64String(SHA256.HashData(Encoding.ASCII.GetBytes(form["code_verifier"].ToString())))
            .TrimEnd('=')
            .Replace('+', '-')
            .Replace('/', '_');
        if (
            LibraryPages.Of(key) is not { HasWindow: true }
            || form["grant_type"] != "authorization_code"
            || !codes.TryRemove(form["code"].ToString(), out var asked)
            || asked.Challenge != proof
            || asked.Back != form["redirect_uri"]
        )
            return Results.Json(new { error = "invalid_grant" }, statusCode: 400);
        return Results.Json(
            new
            {
                access_token = NewSession(key),
                token_type = "Bearer",
                expires_in = (int)Lasts.TotalSeconds,
            }
        );
    }
}
