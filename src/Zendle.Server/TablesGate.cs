namespace Zendle.Server;

/// <summary>
/// Lets requests of the first seconds wait until the tables are there: a first start makes them, one of a new version
/// changes them, and whoever is quicker is not to get a fault for it.
/// </summary>
internal static class TablesGate
{
    /// <summary>Tables are up in a second or two; who waits longer is told what is going on instead.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(15);

    /// <summary>Puts the gate before all that follows, for addresses that ask the tables.</summary>
    public static void UseTables(this WebApplication app) =>
        app.Use(
            async (http, next) =>
            {
                var start = http.RequestServices.GetRequiredService<StartUp>();
                if (!start.TablesReady.IsCompleted && !http.Request.Path.StartsWithSegments("/health"))
                    try
                    {
                        await start.TablesReady.WaitAsync(Patience, http.RequestAborted);
                    }
                    catch (TimeoutException)
                    {
                        await Faults.Problem(http, 503, "Zendle is still starting.", $"{start.Doing} Try again soon.");
                        return;
                    }
                await next();
            }
        );
}
