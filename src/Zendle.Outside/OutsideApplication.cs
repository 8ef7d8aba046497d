using System.Globalization;
using Zendle.Outside.Oai;
using Zendle.Outside.Pages;
using Zendle.Outside.World;

namespace Zendle.Outside;

/// <summary>Builds the simulated outside: databases over one made-up world.</summary>
public static class OutsideApplication
{
    /// <summary>Builds the application. Settings: <c>seed</c> (1), <c>works</c> (2,800), <c>demo</c> (folder of the scenario).</summary>
    public static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateSlimBuilder(args);
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var seed = ulong.Parse(builder.Configuration["seed"] ?? "1", CultureInfo.InvariantCulture);
        var size = int.Parse(builder.Configuration["works"] ?? "2800", CultureInfo.InvariantCulture);
        var works = WorldMaker.Make(Scenario.Read(builder.Configuration["demo"] ?? Path.Combine(AppContext.BaseDirectory, "demo")), seed, size);
        var databases = DatabaseViews.Make(works, seed);
        var (clock, faults) = (new OutsideClock(TimeProvider.System), new Faults());
        var services = databases.ToDictionary(d => d.Key, d => new OaiService(d, clock));
        var app = builder.Build();
        app.MapOai(services, faults);
        app.MapControls(clock, faults, services);
        app.MapPages(works, databases, clock, faults);
        app.MapGet("/health", () => Results.Json(new Dictionary<string, int> { ["works"] = works.Count, ["references"] = works.Sum(w => w.Cites.Length), ["records"] = databases.Sum(d => d.At(clock.Now).Count(e => !e.Deleted)) }));
        return app;
    }
}
