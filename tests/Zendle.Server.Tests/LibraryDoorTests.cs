using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Http;
using Zendle.Connect.Fetch;
using Zendle.Connect.Library;

namespace Zendle.Server.Tests;

/// <summary>Signing in at a library's proxy: forms of other dress than the simulated library's, and what must not happen.</summary>
public sealed class LibraryDoorTests : IAsyncLifetime
{
    private readonly WebApplication proxy = Site(),
        stranger = Site();
    private readonly List<string> told = [];

    private static WebApplication Site() =>
        WebApplication
            .CreateSlimBuilder(["--urls", "http://127.0.0.1:0", "--Logging:LogLevel:Default", "None"])
            .Build();

    private static IResult Html(string body) => Results.Text($"<html><body>{body}</body></html>", "text/html");

    private const string Inputs =
        "<input type=hidden name=csrf value='7 & 8'><input name=user><input type=checkbox name=stay>"
        + "<input type=password name=pin>";

    public async ValueTask InitializeAsync()
    {
        proxy.MapGet(
            "/good",
            (HttpContext http) => Known(http) ? Html("Hello") : Html($"<form method=post>{Inputs}</form>")
        );
        proxy.MapPost("/good", (Delegate)TakeForm);
        proxy.MapGet("/circle", () => Results.Redirect("/circle"));
        proxy.MapGet("/open", () => Html("Hello"));
        proxy.MapGet("/no-cookie", () => Html($"<form method=post action=/thanks>{Inputs}</form>"));
        proxy.MapPost("/thanks", () => Html("Thanks"));
        proxy.MapGet("/strays", () => Results.Redirect(stranger.Urls.First() + "/form"));
        proxy.MapGet(
            "/posts-away",
            () => Html($"<form method=post action='{stranger.Urls.First()}/form'>{Inputs}</form>")
        );
        proxy.MapGet("/fails", () => Results.StatusCode(500));
        proxy.MapGet("/huge", () => Results.Text(new string('a', 3_000_000), "text/html"));
        stranger.MapGet("/form", () => Html($"<form method=post>{Inputs}</form>"));
        stranger.MapPost(
            "/form",
            async (HttpContext http) => told.Add(await new StreamReader(http.Request.Body).ReadToEndAsync())
        );
        await proxy.StartAsync();
        await stranger.StartAsync();
    }

    private static bool Known(HttpContext http) => http.Request.Cookies["s"] == "1";

    private static async Task<IResult> TakeForm(HttpContext http)
    {
        var form = await http.Request.ReadFormAsync();
        if (form["csrf"] != "7 & 8" || form["user"] != "mei" || form["pin"] != "päss word" || form.ContainsKey("stay"))
            return Html($"<p>No.</p><form method=post>{Inputs}</form>");
        http.Response.Cookies.Append("s", "1", new() { MaxAge = TimeSpan.FromHours(2) });
        return Results.Redirect("/good");
    }

    public async ValueTask DisposeAsync()
    {
        await proxy.DisposeAsync();
        await stranger.DisposeAsync();
    }

    private async Task<LibraryKey> SignIn(string path, string password = "päss word")
    {
        using var door = new LibraryDoor(
            new AddressPolicy([new(proxy.Urls.First()), new(stranger.Urls.First())]),
            TimeProvider.System
        );
        return await door.SignIn(new($"{proxy.Urls.First()}{path}?url="), "mei", password, CancellationToken.None);
    }

    [Fact]
    public async Task A_form_is_filled_with_its_hidden_fields_and_its_cookie_kept_until_it_ends()
    {
        var key = await SignIn("/good");
        Assert.Equal(new PassCookie("s", "1", "/"), Assert.Single(key.Secret.Cookies));
        Assert.InRange(key.EndsAt!.Value - DateTimeOffset.UtcNow, TimeSpan.FromMinutes(115), TimeSpan.FromMinutes(121));
    }

    [Theory]
    [InlineData("/good", "wrong", "did not take this name and password")]
    [InlineData("/circle", "x", "goes round in circles")]
    [InlineData("/open", "x", "does not ask for a name")]
    [InlineData("/no-cookie", "x", "gave no session")]
    [InlineData("/fails", "x", "no form to sign in with")]
    [InlineData("/huge", "x", "cannot be reached, or broke off")]
    public async Task What_does_not_work_is_told_in_a_sentence_without_the_password(
        string path,
        string word,
        string why
    )
    {
        var fault = await Assert.ThrowsAsync<OutsideFaultException>(() => SignIn(path, word));
        Assert.Contains(why, fault.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("/strays")]
    [InlineData("/posts-away")]
    public async Task A_password_goes_to_the_configured_proxy_and_nowhere_else(string path)
    {
        var fault = await Assert.ThrowsAsync<OutsideFaultException>(() => SignIn(path));
        Assert.Contains("not the library's configured proxy", fault.Message, StringComparison.Ordinal);
        Assert.Empty(told);
    }
}
