using System.Security.Claims;
using Microsoft.AspNetCore.Http.Features;
using Zendle.Connect.Fetch;
using Zendle.Core.Records;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Server.Libraries;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Libraries;

internal static class LibraryEndpoints
{
    private const int LongestName = 200,
        LongestAddress = 2_000;

    public static void MapLibraries(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/libraries",
            (LibraryService libraries, ClaimsPrincipal user, CancellationToken cancel) =>
                libraries.All(Access.AccountId(user), cancel)
        );
        api.MapGet("/libraries/directory", Find).Produces<LibraryDirectoryDto>();
        api.MapPost("/libraries/choose", Choose).Produces<LibrariesDto>();
        api.MapPut("/libraries/used", Use).Produces<LibrariesDto>();
        api.MapPost("/libraries", Add).RequireCurator().Produces<LibrariesDto>();
        api.MapPost("/libraries/{id:int}/holdings", Bring).RequireCurator().Produces<JobDto>().DisableAntiforgery();
        api.MapPost(
                "/libraries/{id:int}/refresh",
                async Task<IResult> (int id, LibraryService libraries) =>
                    await libraries.Refresh(id) is { } job ? TypedResults.Ok(JobDto.Of(job)) : NoLibrary()
            )
            .RequireCurator()
            .Produces<JobDto>();
        api.MapDelete(
                "/libraries/{id:int}",
                async Task<IResult> (int id, LibraryService libraries, CancellationToken cancel) =>
                    await libraries.Remove(id, cancel) ? TypedResults.NoContent() : NoLibrary()
            )
            .RequireCurator();
        api.MapPost("/libraries/{id:int}/session", SignIn).RequireRateLimiting("sign-in").Produces<SignedInDto>();
        api.MapDelete(
            "/libraries/{id:int}/session",
            async Task<IResult> (int id, LibrarySignIns signIns, ClaimsPrincipal user, CancellationToken cancel) =>
                await signIns.End(Access.AccountId(user), id, cancel)
                    ? TypedResults.NoContent()
                    : Problems.Of(404, "You are not signed in there.")
        );
        api.MapPost("/libraries/{id:int}/window", Window).Produces<LibraryWindowDto>();
        api.MapPost("/libraries/return", Return).Produces<SignedInDto>();
    }

    private static IResult NoLibrary() =>
        Problems.Of(404, "There is no such library.", "Perhaps it was removed already.");

    /// <summary>Asks the outside for something; why it did not come is told as it is.</summary>
    private static async Task<IResult> Told(int status, string? act, Func<Task<IResult>> ask, string before = "")
    {
        try
        {
            return await ask();
        }
        catch (OutsideFaultException e)
        {
            return Problems.Of(status, before + e.Message, act);
        }
    }

    private const string NoDirectory = "The directory of libraries cannot be read: ";

    private static Task<IResult> Find(
        string? find,
        LibraryService libraries,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        Told(
            502,
            "Try again later.",
            async () => TypedResults.Ok(await libraries.Find(Access.AccountId(user), find ?? "", cancel)),
            NoDirectory
        );

    private static Task<IResult> Choose(
        ChooseLibraryRequest request,
        LibraryService libraries,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        Told(
            502,
            "Nothing was changed.",
            async () =>
                await libraries.Choose(Access.AccountId(user), request.Identifier, cancel)
                    ? TypedResults.Ok(await libraries.All(Access.AccountId(user), cancel))
                    : Problems.Of(404, "The directory does not list this library.", "Nothing was changed."),
            NoDirectory
        );

    private static async Task<IResult> Use(
        UsedLibrariesRequest request,
        LibraryService libraries,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        await libraries.Use(Access.AccountId(user), request.Libraries, cancel)
            ? TypedResults.Ok(await libraries.All(Access.AccountId(user), cancel))
            : Problems.Of(
                400,
                "One of these libraries no longer exists, or there are more than ten.",
                "Nothing was changed."
            );

    private static async Task<IResult> Add(
        NewLibraryRequest request,
        LibraryService libraries,
        AddressPolicy policy,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        var name = Line(request.Name);
        if (name.Length is 0 or > LongestName)
            return Problems.Of(400, $"A library needs a name of at most {LongestName} letters.", "Nothing was added.");
        var addresses = new Dictionary<string, string?>();
        foreach (
            var (what, written) in new[]
            {
                ("holdings", request.HoldingsAddress),
                ("link resolver", request.Resolver),
                ("proxy", request.ProxyPrefix),
            }
        )
        {
            addresses[what] = null;
            if (string.IsNullOrWhiteSpace(written))
                continue;
            if (
                WrittenAddress
                    .Read(written, policy, $"The address of its {what} is not valid.", "Nothing was added.")
                    .Fault is
                { } fault
            )
                return fault;
            // As it was written: what comes after the prefix is joined to its last letter.
            addresses[what] = written.Trim();
        }
        await libraries.Add(
            new()
            {
                Name = name,
                Town = Line(request.Town),
                Country = Line(request.Country),
                HoldingsAddress = addresses["holdings"],
                Resolver = addresses["link resolver"],
                ProxyPrefix = addresses["proxy"],
                SignIn =
                    request.AsksPassword && addresses["proxy"] is not null
                        ? LibrarySignIn.Password
                        : LibrarySignIn.None,
            },
            cancel
        );
        return TypedResults.Ok(await libraries.All(Access.AccountId(user), cancel));
    }

    private static string Line(string? text) =>
        string.Join(' ', (text ?? "").Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries)) is var line
        && line.Length > LongestName
            ? line[..LongestName]
            : line;

    /// <summary>The body is the file of holdings itself.</summary>
    private static async Task<IResult> Bring(
        int id,
        HttpContext http,
        LibraryService libraries,
        LibraryShelf shelf,
        CancellationToken cancel
    )
    {
        if (shelf.All.All(l => l.Id != id))
            return NoLibrary();
        if (http.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
            size.MaxRequestBodySize = HoldingsJob.MostBytes;
        var path = HoldingsJob.Brought(shelf, id);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var part = $"{path}.{Guid.NewGuid():N}.part";
        try
        {
            await using (var to = File.Create(part))
                await http.Request.Body.CopyToAsync(to, cancel);
            File.Move(part, path, overwrite: true);
        }
        catch (BadHttpRequestException)
        {
            return Problems.Of(413, "The file is larger than 2 GB, or broke off on its way.", "Nothing was changed.");
        }
        finally
        {
            File.Delete(part);
        }
        return TypedResults.Ok(JobDto.Of((await libraries.Refresh(id))!));
    }

    private static Task<IResult> SignIn(
        int id,
        LibrarySignInRequest request,
        LibrarySignIns signIns,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        Told(
            422,
            "Name and password are not kept.",
            async () =>
                TypedResults.Ok(
                    new SignedInDto(
                        await signIns.SignIn(Access.AccountId(user), id, request.Name, request.Password, cancel)
                    )
                )
        );

    private static async Task<IResult> Window(
        int id,
        LibraryWindowRequest request,
        LibrarySignIns signIns,
        HttpContext http,
        ClaimsPrincipal user
    ) =>
        // Only this application's own page is led back to.
        Uri.TryCreate(request.Back, UriKind.Absolute, out var back)
        && back.GetLeftPart(UriPartial.Authority) == $"{http.Request.Scheme}://{http.Request.Host}"
            ? await Told(
                404,
                null,
                () =>
                    Task.FromResult<IResult>(
                        TypedResults.Ok(
                            new LibraryWindowDto(signIns.Window(Access.AccountId(user), id, back).AbsoluteUri)
                        )
                    )
            )
            : Problems.Of(400, "The window cannot lead back to another site.");

    private static Task<IResult> Return(
        LibraryReturnRequest request,
        LibrarySignIns signIns,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        Told(
            422,
            null,
            async () =>
                TypedResults.Ok(
                    new SignedInDto(await signIns.Return(Access.AccountId(user), request.State, request.Code, cancel))
                )
        );
}
