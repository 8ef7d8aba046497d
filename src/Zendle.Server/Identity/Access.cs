using System.Security.Claims;
using Microsoft.EntityFrameworkCore;
using Zendle.Store.Made;

namespace Zendle.Server.Identity;

/// <summary>Who may do what.</summary>
public sealed class Access(IDbContextFactory<ZendleContext> contexts)
{
    /// <summary>Id of the account that asks.</summary>
    public static string AccountId(ClaimsPrincipal user) =>
        user.FindFirstValue(ClaimTypes.NameIdentifier) ?? throw new InvalidOperationException("Nobody is signed in.");

    /// <summary>The account's role in a review; null when it has none or there is no such review.</summary>
    public async Task<Role?> RoleIn(int reviewId, ClaimsPrincipal user)
    {
        var account = AccountId(user);
        await using var context = await contexts.CreateDbContextAsync();
        return await context
            .Members.Where(m => m.ReviewId == reviewId && m.AccountId == account)
            .Select(m => (Role?)m.Role)
            .FirstOrDefaultAsync();
    }

    /// <summary>Ids of the reviews the account is a member of.</summary>
    public async Task<HashSet<int>> ReviewIds(ClaimsPrincipal user)
    {
        var account = AccountId(user);
        await using var context = await contexts.CreateDbContextAsync();
        return [.. await context.Members.Where(m => m.AccountId == account).Select(m => m.ReviewId).ToListAsync()];
    }

    /// <summary>Whether the account is a curator.</summary>
    public async Task<bool> IsCurator(ClaimsPrincipal user)
    {
        var account = AccountId(user);
        await using var context = await contexts.CreateDbContextAsync();
        return await context.Users.AnyAsync(u => u.Id == account && u.IsCurator);
    }
}

internal static class AccessFilters
{
    /// <summary>Lets members through; to others a review does not exist.</summary>
    public static RouteGroupBuilder RequireMember(this RouteGroupBuilder group) =>
        group.AddEndpointFilter((call, next) => Check(call, next, Role.Reader)).WithMetadata(new Allows("reader"));

    /// <summary>Asks for a higher role on one endpoint.</summary>
    public static RouteHandlerBuilder Require(this RouteHandlerBuilder endpoint, Role role) =>
        endpoint
            .AddEndpointFilter((call, next) => Check(call, next, role))
            .WithMetadata(new Allows(role.ToString().ToLowerInvariant()));

    /// <summary>Lets curators through.</summary>
    public static T RequireCurator<T>(this T endpoints)
        where T : IEndpointConventionBuilder =>
        endpoints.WithMetadata(new Allows("curator")).AddEndpointFilter(CheckCurator);

    private static async ValueTask<object?> CheckCurator(
        EndpointFilterInvocationContext call,
        EndpointFilterDelegate next
    ) =>
        await call.HttpContext.RequestServices.GetRequiredService<Access>().IsCurator(call.HttpContext.User)
            ? await next(call)
            : Problems.Of(
                403,
                "Only a curator of this installation may do that.",
                "Ask a curator; the account page names them."
            );

    private static async ValueTask<object?> Check(
        EndpointFilterInvocationContext call,
        EndpointFilterDelegate next,
        Role wanted
    )
    {
        var http = call.HttpContext;
        if (!int.TryParse(http.Request.RouteValues["reviewId"]?.ToString(), out var reviewId))
            return Problems.Of(404, "There is no such review.");
        var role = await http.RequestServices.GetRequiredService<Access>().RoleIn(reviewId, http.User);
        if (role is null)
            return Problems.Of(404, "There is no such review, or you are not a member of it.");
        return role < wanted
            ? Problems.Of(
                403,
                $"As a {role.ToString()!.ToLowerInvariant()} of this review you cannot do that.",
                "An owner of the review can change your role."
            )
            : await next(call);
    }
}
