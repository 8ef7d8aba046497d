using Zendle.Index;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;

namespace Zendle.Server;

/// <summary>
/// Gives each signed-in request a budget for evaluating questions: it ends with the request, and with the client's
/// patience.
/// </summary>
internal static class RequestBudget
{
    /// <summary>A request that has evaluated for so long is a heavy one.</summary>
    private static readonly TimeSpan Light = TimeSpan.FromMilliseconds(400);

    /// <summary>Puts a budget around all that follows.</summary>
    public static void UseRequestBudget(this WebApplication app, ZendleOptions options) =>
        app.Use(
            async (http, next) =>
            {
                if (http.User.Identity?.IsAuthenticated != true)
                {
                    await next();
                    return;
                }
                http.RequestServices.GetRequiredService<Busy>().Touch();
                var (account, turns) = (
                    Access.AccountId(http.User),
                    http.RequestServices.GetRequiredService<HeavyTurns>()
                );
                using var budget = new Budget(
                    options.QuestionTime,
                    http.RequestAborted,
                    Light,
                    cancel => turns.Take(account, cancel)
                );
                budget.Begin();
                await next();
            }
        );
}
