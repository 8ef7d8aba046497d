using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Fetch;
using Zendle.Core.Loans;
using Zendle.Core.Records;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Server.Loans;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Loans;

internal static class LoanEndpoints
{
    private const int LongestName = 200,
        MostDesks = 20;

    public static void MapLoans(this RouteGroupBuilder review, RouteGroupBuilder api)
    {
        review.MapGet(
            "/loans",
            (int reviewId, LoanService loans, ClaimsPrincipal user, CancellationToken cancel) =>
                loans.List(reviewId, Access.AccountId(user), cancel)
        );
        review.MapGet(
            "/report/loans",
            (int reviewId, LoanService loans, CancellationToken cancel) => loans.Account(reviewId, cancel)
        );
        review.MapPost("/loans/drafts", Drafts).Require(Role.Screener).Produces<LoanDraftsDto>();
        review.MapPost("/loans", Ask).Require(Role.Screener).Produces<LoansAskedDto>();
        review.MapPost("/loans/{loanId:int}", Act).Require(Role.Screener).Produces(204);
        api.MapPost(
            "/loans/check",
            (LoanFields fields, LoanService loans, CancellationToken cancel) => loans.Check(fields, cancel)
        );
        api.MapGet(
            "/libraries/{id:int}/desks",
            (int id, ZendleContext context, CancellationToken cancel) => Desks(context, id, cancel)
        );
        api.MapPost("/libraries/{id:int}/desks", Add).RequireCurator().Produces<IReadOnlyList<LoanDeskDto>>();
        api.MapDelete("/libraries/{id:int}/desks/{deskId:int}", Remove).RequireCurator();
        api.MapGet(
                "/libraries/{id:int}/desks/{deskId:int}/back",
                (int deskId, HttpContext http, LoanSecrets secrets, ZendleOptions options) =>
                    new LoanDeskBackDto(secrets.Back(At(http, options), deskId).AbsoluteUri)
            )
            .RequireCurator();
    }

    /// <summary>Where desks write to: no page of ours, so without the guard of pages; the address itself is the proof.</summary>
    public static void MapLoanMessages(this WebApplication app) =>
        app.MapPost($"{LoanSecrets.Path}/{{token}}", Message)
            .WithMetadata(new Allows("anyone"))
            .ExcludeFromDescription()
            .DisableAntiforgery();

    private static Uri At(HttpContext http, ZendleOptions options) =>
        options.Address ?? new($"{http.Request.Scheme}://{http.Request.Host}/");

    private static async Task<IResult> Message(
        string token,
        HttpContext http,
        LoanSecrets secrets,
        LoanInbox inbox,
        CancellationToken cancel
    )
    {
        if (secrets.DeskOf(token) is not { } desk)
            return TypedResults.NotFound();
        // One byte more than a message may have says that it is too long.
        var bytes = new byte[Iso18626Reader.MostBytes + 1];
        var length = await http.Request.Body.ReadAtLeastAsync(bytes, bytes.Length, throwOnEndOfStream: false, cancel);
        return TypedResults.Bytes(await inbox.Take(desk, bytes[..length], cancel), "application/xml");
    }

    private static async Task<IResult> Drafts(
        int reviewId,
        LoanDraftsRequest request,
        LoanService loans,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        request.Works.Count > LoanService.MostAtOnce
            ? TooMany()
            : TypedResults.Ok(await loans.Drafts(reviewId, Access.AccountId(user), request.Works, cancel));

    private static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult TooMany() =>
        Problems.Of(400, $"At most {LoanService.MostAtOnce} works are asked for at once.", "Nothing was asked for.");

    private static async Task<IResult> Ask(
        int reviewId,
        AskLoansRequest request,
        LoanService loans,
        HttpContext http,
        ZendleOptions options,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        request.Requests.Count > LoanService.MostAtOnce
            ? TooMany()
            : TypedResults.Ok(
                await loans.Ask(reviewId, Access.AccountId(user), request.Requests, At(http, options), cancel)
            );

    private static async Task<IResult> Act(
        int reviewId,
        int loanId,
        LoanActRequest request,
        LoanService loans,
        ClaimsPrincipal user,
        CancellationToken cancel
    ) =>
        await loans.Act(reviewId, Access.AccountId(user), loanId, request.Act, cancel) is { } why
            ? Problems.Of(why.Status, why.Sentence, "Nothing was changed.")
            : TypedResults.NoContent();

    private static async Task<IReadOnlyList<LoanDeskDto>> Desks(
        ZendleContext context,
        int library,
        CancellationToken cancel
    ) =>
        [
            .. (
                await context
                    .LoanDesks.AsNoTracking()
                    .Where(d => d.LibraryId == library)
                    .OrderBy(d => d.Rank)
                    .ToListAsync(cancel)
            ).Select(d => new LoanDeskDto(
                d.Id,
                d.LibraryId,
                d.Name,
                d.Supplier,
                d.Requester,
                d.Address,
                d.CopyCost,
                d.LendCost,
                d.Currency,
                d.MostOpen,
                d.Days,
                d.Account is not null
            )),
        ];

    private static async Task<IResult> Add(
        int id,
        NewLoanDeskRequest request,
        ZendleContext context,
        AddressPolicy policy,
        LoanSecrets secrets,
        EventHub hub,
        CancellationToken cancel
    )
    {
        const string Act = "Nothing was added.";
        if (!await context.Libraries.AnyAsync(l => l.Id == id, cancel))
            return Problems.Of(404, "There is no such library.", "Perhaps it was removed already.");
        string[] texts = [request.Name, request.Supplier, request.Requester];
        if (Array.Exists(texts, t => t.Trim().Length is 0 or > LongestName))
            return Problems.Of(
                400,
                $"A desk needs a name and the identifiers of both libraries, of at most {LongestName} letters each.",
                Act
            );
        var (address, fault) = WrittenAddress.Read(request.Address, policy, "The desk’s address is not valid.", Act);
        if (fault is not null)
            return fault;
        var currency = request.Currency?.Trim().ToUpperInvariant() ?? "";
        if (
            request.CopyCost is < 0 or > 100_000
            || request.LendCost is < 0 or > 100_000
            || request.MostOpen is < 1 or > 10_000
            || request.Days is < 0 or > 1_000
            || (request.CopyCost ?? request.LendCost) is not null
                && !(currency.Length == 3 && currency.All(char.IsAsciiLetterUpper))
        )
            return Problems.Of(
                400,
                "Costs cannot be negative and need a currency of three letters; limits and days are whole numbers.",
                Act
            );
        var ranks = await context.LoanDesks.Where(d => d.LibraryId == id).Select(d => d.Rank).ToListAsync(cancel);
        if (ranks.Count >= MostDesks)
            return Problems.Of(400, $"A library has at most {MostDesks} desks.", Act);
        context.LoanDesks.Add(
            new()
            {
                LibraryId = id,
                Rank = ranks.Select(r => r + 1).DefaultIfEmpty(0).Max(),
                Name = request.Name.Trim(),
                Supplier = request.Supplier.Trim(),
                Requester = request.Requester.Trim(),
                Address = address!.AbsoluteUri,
                CopyCost = request.CopyCost,
                LendCost = request.LendCost,
                Currency = currency,
                MostOpen = request.MostOpen,
                Days = request.Days,
                Account = string.IsNullOrWhiteSpace(request.Account) ? null : request.Account.Trim(),
                Code = string.IsNullOrWhiteSpace(request.Code) ? null : secrets.Keep(request.Code),
            }
        );
        await context.SaveChangesAsync(cancel);
        hub.Tell(new("libraries"));
        return TypedResults.Ok(await Desks(context, id, cancel));
    }

    private static async Task<IResult> Remove(
        int id,
        int deskId,
        ZendleContext context,
        EventHub hub,
        CancellationToken cancel
    )
    {
        if (await context.LoanDesks.Where(d => d.Id == deskId && d.LibraryId == id).ExecuteDeleteAsync(cancel) == 0)
            return Problems.Of(404, "There is no such desk.", "Perhaps it was removed already.");
        hub.Tell(new("libraries"));
        return TypedResults.NoContent();
    }
}
