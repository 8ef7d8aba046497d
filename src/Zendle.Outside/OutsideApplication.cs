using System.Globalization;
using Zendle.Outside.Documents;
using Zendle.Outside.Libraries;
using Zendle.Outside.Loans;
using Zendle.Outside.Oai;
using Zendle.Outside.Pages;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside;

/// <summary>Builds the simulated outside: databases over one made-up world.</summary>
public static class OutsideApplication
{
    /// <summary>
    /// Builds the application. Settings: <c>seed</c> (1), <c>works</c> (12,000), <c>noise</c> (1), <c>demo</c> (folder
    /// of the scenario).
    /// </summary>
    public static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateSlimBuilder(args);
        builder.Logging.SetMinimumLevel(LogLevel.Warning);
        var seed = ulong.Parse(builder.Configuration["seed"] ?? "1", CultureInfo.InvariantCulture);
        var size = int.Parse(builder.Configuration["works"] ?? "12000", CultureInfo.InvariantCulture);
        var scenario = Scenario.Read(builder.Configuration["demo"] ?? Path.Combine(AppContext.BaseDirectory, "demo"));
        var works = WorldMaker.Make(scenario, seed, size);
        var noise = double.Parse(builder.Configuration["noise"] ?? "1", CultureInfo.InvariantCulture);
        works = Companions.With(works, seed, noise);
        var databases = DatabaseViews.Make(works, seed, noise);
        var (clock, faults) = (new OutsideClock(TimeProvider.System), new Faults());
        var services = databases.ToDictionary(d => d.Key, d => new OaiService(d, clock));
        var app = builder.Build();
        app.MapOai(services, faults);
        app.MapControls(clock, faults, services);
        var kinds = new CopyKinds();
        var switches = new LibrarySwitches();
        var desks = new LoanDeskPages(works, scenario, clock, new());
        app.MapPages(works, databases, clock, faults, kinds, () => LibraryPages.State(switches) + desks.State());
        var hosts = new Hosts(works, scenario, kinds, clock);
        hosts.Map(app);
        new BookPlatform(works, scenario).Map(app);
        var libraries = new LibraryPages(works, scenario, clock, switches);
        libraries.Map(app);
        desks.Map(app);
        new LibraryProxy(works, libraries, hosts, clock, switches).Map(app);
        app.MapGet(
            "/lifeleaf/vocabulary",
            (HttpContext http) =>
                Results.Text(
                    Vocabulary.Skosified(scenario, $"{http.Request.Scheme}://{http.Request.Host}").ToString(),
                    "application/rdf+xml"
                )
        );
        app.MapGet(
            "/health",
            () =>
                Results.Json(
                    new Dictionary<string, int>
                    {
                        ["works"] = works.Count,
                        ["references"] = works.Sum(w => w.Cites.Length),
                        ["records"] = databases.Sum(d => d.At(clock.Now).Count(e => !e.Deleted)),
                    }
                )
        );
        return app;
    }
}
