using System.Globalization;
using System.Net;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using AngleSharp.Html.Dom;
using AngleSharp.Html.Parser;
using Zendle.Connect.Fetch;

namespace Zendle.Connect.Library;

/// <summary>What a sign-in gave.</summary>
/// <param name="Secret">What opens the proxy.</param>
/// <param name="EndsAt">When it ends; null when the library does not say.</param>
public sealed record LibraryKey(LibrarySecret Secret, DateTimeOffset? EndsAt);

/// <summary>
/// Signs people in at their libraries: with name and password in the form of the proxy, which alone is told them; or with
/// what the library's own window gave (OAuth 2.0 authorization code with proof key, RFC 6749 and 7636). Names and passwords
/// are not kept.
/// </summary>
public sealed class LibraryDoor(AddressPolicy policy, TimeProvider clock) : IDisposable
{
    private const int MostSteps = 8,
        MostBytes = 2_000_000;
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(30);
    private readonly HttpClient http = OutsideHttp.Client(policy, "library sign-in");

    /// <summary>Signs in with name and password.</summary>
    /// <param name="proxy">The library's proxy prefix.</param>
    /// <param name="name">Name or card number.</param>
    /// <param name="password">Password.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="OutsideFaultException">It did not work; the message says why and holds neither.</exception>
    public async Task<LibraryKey> SignIn(Uri proxy, string name, string password, CancellationToken cancel)
    {
        var pass = new LibraryPass(proxy, null);
        var (cookies, ends) = (new CookieContainer(), (DateTimeOffset?)null);
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(Patience);
        return await Guarded(
            proxy,
            async () =>
            {
                var page = await Follow(pass, new(HttpMethod.Get, pass.Through(proxy)), cookies, Note, limited.Token);
                if (FormOf(page) is not { } form)
                    return page.IsGood && cookies.Count == 0
                        ? throw new OutsideFaultException("The library's proxy does not ask for a name and password.")
                        : throw new OutsideFaultException("The library's proxy shows no form to sign in with.");
                page = await Follow(pass, form.Filled(name, password), cookies, Note, limited.Token);
                if (FormOf(page) is not null)
                    throw new OutsideFaultException("The library did not take this name and password.");
                var kept = cookies
                    .GetAllCookies()
                    .Select(c => new PassCookie(c.Name, c.Value, c.Path, c.Domain.StartsWith('.') ? c.Domain : ""))
                    .ToArray();
                return kept.Length == 0
                    ? throw new OutsideFaultException("The library's proxy gave no session.")
                    : new LibraryKey(new(kept, null), ends);
            },
            limited.Token,
            cancel
        );

        void Note(Cookie cookie)
        {
            if (cookie.Expires > DateTime.MinValue && (ends is null || cookie.Expires.ToUniversalTime() > ends))
                ends = new DateTimeOffset(cookie.Expires.ToUniversalTime(), TimeSpan.Zero);
        }
    }

    /// <summary>Changes what the library's window gave into a key.</summary>
    /// <param name="token">Where.</param>
    /// <param name="code">What the window gave.</param>
    /// <param name="back">Where the window led back to.</param>
    /// <param name="verifier">The proof whose hash the window was given.</param>
    /// <param name="cancel">Stops.</param>
    /// <exception cref="OutsideFaultException">It did not work; the message says why.</exception>
    public async Task<LibraryKey> Exchange(Uri token, string code, Uri back, string verifier, CancellationToken cancel)
    {
        using var limited = CancellationTokenSource.CreateLinkedTokenSource(cancel);
        limited.CancelAfter(Patience);
        return await Guarded(
            token,
            async () =>
            {
                if (policy.WhyNot(token) is { } whyNot)
                    throw new OutsideFaultException(whyNot);
                using var request = new HttpRequestMessage(HttpMethod.Post, token)
                {
                    Content = new FormUrlEncodedContent(
                        new Dictionary<string, string>
                        {
                            ["grant_type"] = "authorization_code",
                            ["code"] = code,
                            ["redirect_uri"] = back.AbsoluteUri,
                            ["client_id"] = ClientId,
                            ["code_verifier"] = verifier,
                        }
                    ),
                };
                using var reply = await http.SendAsync(
                    request,
                    HttpCompletionOption.ResponseHeadersRead,
                    limited.Token
                );
                if (!reply.IsSuccessStatusCode)
                    throw new OutsideFaultException("The library did not confirm the sign-in. Please try again.");
                using var json = JsonDocument.Parse(await Text(reply, limited.Token));
                if (
                    json.RootElement.ValueKind != JsonValueKind.Object
                    || !json.RootElement.TryGetProperty("access_token", out var value)
                    || value.GetString() is not { Length: > 0 and < 8_000 } bearer
                    || !bearer.All(c => c is > ' ' and < '\u007F')
                )
                    throw new OutsideFaultException("The library's answer to the sign-in has no key.");
                return new LibraryKey(
                    new([], bearer),
                    json.RootElement.TryGetProperty("expires_in", out var seconds)
                    && seconds.TryGetInt32(out var lasts)
                    && lasts > 0
                        ? clock.GetUtcNow().AddSeconds(lasts)
                        : null
                );
            },
            limited.Token,
            cancel
        );
    }

    /// <summary>What stands for Zendle at libraries.</summary>
    public const string ClientId = "zendle";

    /// <summary>Where a library's window opens.</summary>
    /// <param name="authorize">The library's address for it.</param>
    /// <param name="back">Where it leads back to.</param>
    /// <param name="state">What it gives back as it is.</param>
    /// <param name="verifier">The proof, whose hash it is given.</param>
    public static Uri Window(Uri authorize, Uri back, string state, string verifier)
    {
        var query =
            $"response_type=code&client_id={ClientId}&redirect_uri={Uri.EscapeDataString(back.AbsoluteUri)}"
            + $"&state={state}&code_challenge_method=S256&code_challenge={Challenge(verifier)}";
        return new UriBuilder(authorize)
        {
            Query = authorize.Query is { Length: > 1 } own ? $"{own[1..]}&{query}" : query,
        }.Uri;
    }

    /// <summary>The hash of a proof (RFC 7636, 4.2).</summary>
    private static string Challenge(string verifier) =>
        Convert
            .ToBase64String(SHA256.HashData(Encoding.ASCII.GetBytes(verifier)))
            .TrimEnd('=')
            .Replace('+', '-')
            .Replace('/', '_');

    private static async Task<T> Guarded<T>(
        Uri host,
        Func<Task<T>> act,
        CancellationToken limited,
        CancellationToken cancel
    )
    {
        try
        {
            return await act();
        }
        catch (OperationCanceledException e) when (limited.IsCancellationRequested && !cancel.IsCancellationRequested)
        {
            throw new OutsideFaultException($"{host.Host} took longer than {Patience.TotalSeconds:0} s.", e);
        }
        catch (HttpRequestException e) when (OutsideHttp.NotAllowed(e) is { } no)
        {
            throw new OutsideFaultException(no.Message, e);
        }
        catch (Exception e)
            when (e is HttpRequestException or IOException or InvalidDataException or ReplyTooLongException)
        {
            throw new OutsideFaultException($"{host.Host} cannot be reached, or broke off.", e);
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            throw new OutsideFaultException("The library's answer to the sign-in cannot be read.", e);
        }
    }

    /// <summary>A page that came in the end.</summary>
    private sealed record Shown(Uri At, string Html, bool IsGood);

    private async Task<Shown> Follow(
        LibraryPass pass,
        HttpRequestMessage request,
        CookieContainer cookies,
        Action<Cookie> note,
        CancellationToken cancel
    )
    {
        for (var steps = 0; ; steps++)
        {
            var at = request.RequestUri!;
            if (steps > MostSteps)
                throw new OutsideFaultException("The library's sign-in goes round in circles.");
            if (policy.WhyNot(at) is { } whyNot)
                throw new OutsideFaultException(whyNot);
            // What a person types goes to the configured proxy and nowhere else.
            if (!pass.IsOfProxy(at))
                throw new OutsideFaultException(
                    $"The sign-in leads to {at.Host}, which is not the library's configured proxy. Nothing was sent there."
                );
            if (cookies.GetCookieHeader(at) is { Length: > 0 } header)
                request.Headers.TryAddWithoutValidation("Cookie", header);
            using var asked = request;
            using var reply = await http.SendAsync(asked, HttpCompletionOption.ResponseHeadersRead, cancel);
            foreach (var given in reply.Headers.TryGetValues("Set-Cookie", out var values) ? values : [])
                try
                {
                    cookies.SetCookies(at, given);
                }
                catch (CookieException) { }
            foreach (var cookie in cookies.GetAllCookies().Cast<Cookie>())
                note(cookie);
            if (OutsideHttp.Redirect(reply, at) is not { } next)
                return new(at, await Text(reply, cancel), reply.IsSuccessStatusCode);
            request = new(HttpMethod.Get, next);
        }
    }

    private static async Task<string> Text(HttpResponseMessage reply, CancellationToken cancel)
    {
        await using var body = new LimitedStream(await reply.Content.ReadAsStreamAsync(cancel), MostBytes);
        using var reader = new StreamReader(body, Encoding.UTF8);
        return await reader.ReadToEndAsync(cancel);
    }

    /// <summary>The form of a page that asks for a password; null when none does.</summary>
    private static SignInForm? FormOf(Shown page)
    {
        using var document = new HtmlParser().ParseDocument(page.Html);
        foreach (var form in document.QuerySelectorAll("form").OfType<IHtmlFormElement>())
        {
            var inputs = form.QuerySelectorAll("input[name]").OfType<IHtmlInputElement>().ToArray();
            var password = Array.FindIndex(inputs, i => i.Type == "password");
            if (password < 0)
                continue;
            var name = Array.FindLastIndex(inputs, password, i => i.Type is "text" or "email" or "tel" or "number");
            if (name < 0)
                continue;
            return new(
                new(page.At, form.GetAttribute("action") is { Length: > 0 } action ? action : page.At.AbsoluteUri),
                inputs[name].Name!,
                inputs[password].Name!,
                [
                    .. inputs.Where(i => i.Type == "hidden").Select(i => (i.Name!, i.GetAttribute("value") ?? "")),
                    .. form.QuerySelectorAll("button[name][value], input[type=submit][name][value]")
                        .Take(1)
                        .Select(b => (b.GetAttribute("name")!, b.GetAttribute("value")!)),
                ]
            );
        }
        return null;
    }

    /// <summary>A form that asks for a password.</summary>
    private sealed record SignInForm(Uri Action, string Name, string Password, (string Name, string Value)[] Others)
    {
        public HttpRequestMessage Filled(string name, string password) =>
            new(HttpMethod.Post, Action)
            {
                Content = new FormUrlEncodedContent([
                    .. Others.Select(o => KeyValuePair.Create(o.Name, o.Value)),
                    KeyValuePair.Create(Name, name),
                    KeyValuePair.Create(Password, password),
                ]),
            };
    }

    /// <inheritdoc/>
    public void Dispose() => http.Dispose();
}
