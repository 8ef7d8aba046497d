using System.Reflection;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Zendle.Connect.Clocks;
using Zendle.Connect.Fetch;
using Zendle.Connect.Harvest;
using Zendle.Connect.Library;
using Zendle.Connect.Loans;
using Zendle.Core.FullText;
using Zendle.Documents.Citing;
using Zendle.Documents.Reading;
using Zendle.Index.Questions;
using Zendle.Server;
using Zendle.Server.Corpus;
using Zendle.Server.Demo;
using Zendle.Server.Events;
using Zendle.Server.Features.Cite;
using Zendle.Server.Features.Databases;
using Zendle.Server.Features.Decisions;
using Zendle.Server.Features.Entries;
using Zendle.Server.Features.Events;
using Zendle.Server.Features.Export;
using Zendle.Server.Features.Gather;
using Zendle.Server.Features.Health;
using Zendle.Server.Features.Libraries;
using Zendle.Server.Features.Loans;
using Zendle.Server.Features.Maps;
using Zendle.Server.Features.Read;
using Zendle.Server.Features.References;
using Zendle.Server.Features.Report;
using Zendle.Server.Features.Reviews;
using Zendle.Server.Features.Rounds;
using Zendle.Server.Features.Search;
using Zendle.Server.Features.Search.Senses;
using Zendle.Server.Features.Search.SetWords;
using Zendle.Server.Features.Search.Terms;
using Zendle.Server.Features.TieTables;
using Zendle.Server.Features.Trails;
using Zendle.Server.Features.Works;
using Zendle.Server.Identity;
using Zendle.Server.Jobs;
using Zendle.Server.Libraries;
using Zendle.Server.Loans;
using Zendle.Server.Reviews;
using Zendle.Store;
using Zendle.Store.Made;

if (args is ["backup" or "restore", ..])
    return BackupCommand.Run(args);

// The build starts the application once to write its OpenAPI description; then nothing is opened or run.
var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

// Settings are read once. Watching their files for changes would watch every folder beneath them, too.
var builder = WebApplication.CreateBuilder(["--hostBuilder:reloadConfigOnChange=false", .. args]);
var options = ZendleOptions.From(builder.Configuration);
if (describing)
    options = options with { Data = Path.Combine(Path.GetTempPath(), "zendle-describe") };
string? fault = null;
var folder = describing ? DataFolder.OfNobody : DataFolder.Take(options.Data, out fault);
if (folder is null)
{
    Console.Error.WriteLine(fault);
    return 1;
}

NativeMemory.OfFewArenas();

// Work on all cores (columns, people) must not keep requests waiting for a thread.
ThreadPool.GetMinThreads(out var workers, out var ports);
ThreadPool.SetMinThreads(Math.Max(workers, 48), ports);

// The keys of sessions lie as files in the data folder (docs/running.md); that they do is not worth a warning each start.
builder
    .Logging.AddFilter("Microsoft", LogLevel.Warning)
    .AddFilter("Microsoft.EntityFrameworkCore", LogLevel.Error)
    .AddFilter("Microsoft.AspNetCore.DataProtection.KeyManagement", LogLevel.Error);
builder
    .Services.AddSingleton(_ => folder)
    .AddSingleton(options)
    .AddSingleton(TimeProvider.System)
    .AddSingleton<Busy>()
    .AddZendleStore(options.Data);
builder
    .Services.AddDataProtection()
    .PersistKeysToFileSystem(new(Path.Combine(options.Data, "keys")))
    .SetApplicationName("Zendle");
builder.Services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
builder
    .Services.AddIdentityCore<Account>(o =>
        (
            o.Password.RequiredLength,
            o.Password.RequireDigit,
            o.Password.RequireLowercase,
            o.Password.RequireUppercase,
            o.Password.RequireNonAlphanumeric
        ) = (1, false, false, false, false)
    )
    .AddEntityFrameworkStores<ZendleContext>()
    .AddSignInManager()
    .AddPasswordValidator<PasswordRules>();
builder.Services.ConfigureApplicationCookie(o =>
{
    (o.Cookie.Name, o.Cookie.HttpOnly, o.Cookie.SameSite, o.ExpireTimeSpan, o.SlidingExpiration) = (
        "zendle",
        true,
        SameSiteMode.Strict,
        TimeSpan.FromDays(14),
        true
    );
    o.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
    o.Events.OnValidatePrincipal = Sessions.Validate;
    o.Events.OnRedirectToLogin = c =>
        Faults.Problem(c.HttpContext, 401, "You are not signed in.", "Sign in; nothing is lost.");
    o.Events.OnRedirectToAccessDenied = c => Faults.Problem(c.HttpContext, 403, "You may not do that.", null);
});
builder.Services.AddAuthorization();
builder.Services.AddAntiforgery(o =>
    (o.HeaderName, o.Cookie.Name, o.Cookie.SameSite, o.Cookie.SecurePolicy) = (
        "X-Zendle-Token",
        "zendle-token",
        SameSiteMode.Strict,
        CookieSecurePolicy.SameAsRequest
    )
);

// Requests addressed to another name than ours come by a trick (DNS rebinding); behind a proxy its names are said in
// the settings.
builder.Services.PostConfigure<HostFilteringOptions>(o =>
    (o.AllowedHosts, o.AllowEmptyHosts) = ([.. options.Hosts, "localhost", "127.0.0.1", "[::1]"], false)
);
builder.Services.Configure<ForwardedHeadersOptions>(o =>
{
    o.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
    o.KnownProxies.Clear();
    o.KnownIPNetworks.Clear();
    foreach (var proxy in options.Proxies)
        o.KnownProxies.Add(proxy);
});
builder.Services.Configure<Microsoft.AspNetCore.Server.Kestrel.Core.KestrelServerOptions>(o =>
    (o.Limits.MaxRequestBodySize, o.AddServerHeader) = (RequestShape.MostBytes, false)
);
builder.Services.AddRateLimiter(o =>
{
    o.RejectionStatusCode = 429;
    o.OnRejected = (c, _) =>
        new(
            Faults.Problem(
                c.HttpContext,
                429,
                "Too many tries to sign in from this address.",
                "Wait a minute, then try again."
            )
        );
    o.AddPolicy(
        "sign-in",
        http =>
            RateLimitPartition.GetFixedWindowLimiter(
                http.Connection.RemoteIpAddress?.ToString() ?? "",
                _ => new() { PermitLimit = options.SignInsPerMinute, Window = TimeSpan.FromMinutes(1) }
            )
    );
});

// Last, so that nothing is put before what it says.
builder.Services.PostConfigure<Microsoft.AspNetCore.Http.Json.JsonOptions>(o =>
    RequestShape.Configure(o.SerializerOptions)
);
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = false);
builder
    .Services.AddProblemDetails()
    .AddOpenApi(api =>
    {
        api.AddOperationTransformer(Allows.Tell);
        api.AddDocumentTransformer(KindsAreTold.Require);
        api.AddSchemaTransformer(KindsAreTold.Repeat);
    });
var allowed = new AddressPolicy(options.Allowed);
builder
    .Services.AddSingleton<FirstAccountCode>()
    .AddSingleton<Sessions>()
    .AddSingleton<Guesses>()
    .AddSingleton<HeavyTurns>()
    .AddSingleton<Access>()
    .AddSingleton<ColumnsBuild>()
    .AddSingleton<CorpusIdentity>()
    .AddSingleton<ICorpusMarks>(p => p.GetRequiredService<CorpusIdentity>())
    .AddSingleton<MadeOn>()
    .AddSingleton<KeyRegister>()
    .AddSingleton<TextArchives>()
    .AddSingleton<CorpusService>()
    .AddSingleton<EventHub>()
    .AddSingleton<DecisionService>()
    .AddSingleton<CorpusChange>()
    .AddSingleton<NeighbourFinder>()
    .AddSingleton<CitingTexts>()
    .AddSingleton<GatheredTexts>()
    .AddSingleton<SearchService>()
    .AddSingleton<FoundByRuns>()
    .AddSingleton<RoundService>()
    .AddSingleton<PathService>()
    .AddSingleton<SinceThen>()
    .AddSingleton<NamedSearches>()
    .AddSingleton<NamedMaps>()
    .AddSingleton<FoundDays>()
    .AddSingleton<MissedKept>()
    .AddSingleton<AbbreviatedTerms>()
    .AddSingleton<VocabularyTerms>()
    .AddSingleton<VocabularyService>()
    .AddSingleton(_ => new VocabularyClient(allowed))
    .AddSingleton<OfferedTerms>()
    .AddSingleton<Partings>()
    .AddSingleton<TopicMemory>()
    .AddSingleton<SenseService>()
    .AddSingleton<MapService>()
    .AddSingleton<SetWordsService>()
    .AddSingleton<RefusedTerms>()
    .AddSingleton<TermWords>()
    .AddSingleton<PhraseGaps>()
    .AddSingleton<Completions>()
    .AddSingleton<ReadingService>()
    .AddSingleton<WorkRows>()
    .AddSingleton<RecordsService>()
    .AddSingleton<EntryService>()
    .AddSingleton<ResolutionService>()
    .AddSingleton<ReferenceTeller>()
    .AddSingleton<ReviewService>()
    .AddSingleton<DatabaseService>()
    .AddSingleton<DemoSeeder>()
    .AddSingleton<DemoTexts>()
    .AddSingleton<JobRunner>()
    .AddSingleton<JobSchedule>()
    .AddSingleton(p => new FollowedClock(p.GetRequiredService<TimeProvider>(), options.Outside, allowed))
    .AddSingleton<StartUp>()
    .AddJob<HarvestJob>(HarvestJob.Kind)
    .AddSingleton(allowed)
    .AddSingleton<LibraryShelf>()
    .AddSingleton<IHeldWorks>(p => p.GetRequiredService<LibraryShelf>())
    .AddSingleton<LibrarySessions>()
    .AddSingleton<LibraryWays>()
    .AddSingleton<LibraryService>()
    .AddSingleton<LibrarySignIns>()
    .AddSingleton<IAwaitsSignIn>(p => p.GetRequiredService<GatherService>())
    .AddSingleton(_ => new LibraryDirectory(allowed))
    .AddSingleton(p => new LibraryDoor(allowed, p.GetRequiredService<TimeProvider>()))
    .AddSingleton(_ => new OutsideDocuments(allowed, "holdings", options.Contact))
    .AddJob<HoldingsJob>(HoldingsJob.Kind)
    .AddSingleton<GatherService>()
    .AddSingleton<TextDelivery>()
    .AddSingleton<BooksHere>()
    .AddSingleton<BookRecords>()
    .AddSingleton<LoanSecrets>()
    .AddSingleton<LoanService>()
    .AddSingleton<LoanInbox>()
    .AddSingleton<LoanPost>()
    .AddSingleton(_ => new LoanDesk(allowed, options.Contact))
    .AddSingleton<GatherProgress>()
    .AddSingleton(_ => DocumentReader.Usual())
    .AddSingleton<TextIntake>()
    .AddSingleton<TextFigures>()
    .AddSingleton<ReadableTexts>()
    .AddSingleton<ReadingList>()
    .AddSingleton<TextsInHand>()
    .AddSingleton<TextLists>()
    .AddSingleton<TieTableService>()
    .AddJob<TieTableJob>(TieTableJob.Kind)
    .AddJob<GatherJob>(GatherJob.Kind)
    .AddJob<ReadTextsJob>(ReadTextsJob.Kind)
    .AddJob<OpeningsJob>(OpeningsJob.Kind)
    .AddSingleton(_ => StyleShelf.Shipped())
    .AddSingleton<ReferenceFormatter>(p => new(p.GetRequiredService<StyleShelf>()))
    .AddSingleton(RouteChain.Usual(options.DoiResolver))
    .AddSingleton(p => new DocumentFetcher(
        allowed,
        new FetchLimits(),
        p.GetRequiredService<TimeProvider>(),
        options.Contact
    ))
    .AddSingleton<FormatTrial>()
    .AddSingleton(p => new OaiClient(
        allowed,
        OaiLimits.Usual with
        {
            FirstRetry = options.FirstRetry,
        },
        p.GetRequiredService<TimeProvider>(),
        options.Contact
    ));

// What is added first is stopped last.
if (!describing)
    builder
        .Services.AddHostedService<Checkpoints>()
        .AddHostedService<AtRest>()
        .AddHostedService(p => p.GetRequiredService<StartUp>())
        .AddHostedService(p => p.GetRequiredService<JobRunner>())
        .AddHostedService(p => p.GetRequiredService<JobSchedule>())
        .AddHostedService(p => p.GetRequiredService<LoanPost>());

var app = builder.Build();
if (options.Proxies.Count > 0)
    app.UseForwardedHeaders();
app.UseHostFiltering();
if (!describing)
    app.UseHsts();
app.UseExceptionHandler(
    new ExceptionHandlerOptions
    {
        ExceptionHandler = Faults.Answer,
        SuppressDiagnosticsCallback = c => Faults.IsExpected(c.Exception),
    }
);
app.UseInterface();
app.UseStatusCodePages(c =>
    c.HttpContext.Response.StatusCode switch
    {
        400 => Faults.Problem(c.HttpContext, 400, "The request could not be read.", null),
        404 => Faults.Problem(c.HttpContext, 404, "There is nothing at this address.", null),
        405 => Faults.Problem(c.HttpContext, 405, "This address does not support that method.", null),
        413 => Faults.Problem(c.HttpContext, 413, "The request is too large.", "Nothing was changed."),
        415 => Faults.Problem(c.HttpContext, 415, "The content type of the request is not supported.", null),
        _ => Task.CompletedTask,
    }
);
app.UseTables();
app.UseAuthentication();
app.UseRateLimiter();
app.UseAuthorization();
app.UseRequestBudget(options);
app.UseKnownCharsets(http =>
    Faults.Problem(http, 415, "The character set of the request is not supported.", "Nothing was changed.")
);
app.MapHealth();
app.MapLoanMessages();

var open = app.MapGroup("/api")
    .WithMetadata(new Allows("anyone"))
    .AddEndpointFilter(
        async (call, next) =>
        {
            var http = call.HttpContext;
            if (
                HttpMethods.IsGet(http.Request.Method)
                || await http.RequestServices.GetRequiredService<IAntiforgery>().IsRequestValidAsync(http)
            )
                return await next(call);
            return Problems.Of(400, "This page is out of date.", "Reload it and try again; nothing was changed.");
        }
    )
    .AddEndpointFilter(RequestShape.Check);
var signedIn = open.MapGroup("").RequireAuthorization().WithMetadata(new Allows("signed in"));
open.MapIdentity(signedIn);
var review = signedIn.MapGroup("/reviews/{reviewId:int}").RequireMember();
signedIn.MapReviews(review);
review.MapSearch();
review.MapTerms();
review.MapNamedSearches();
review.MapWorks();
review.MapBooks();
review.MapEntries(signedIn);
review.MapScore();
review.MapReferences();
review.MapResolutions();
review.MapTrails();
review.MapSaid();
review.MapCiters();
review.MapOutline();
review.MapMaps();
review.MapNamedMaps();
review.MapNeighbours();
review.MapRounds();
review.MapGather();
review.MapRead();
review.MapCite(signedIn);
review.MapDecisions();
review.MapExport();
review.MapTextArchives();
review.MapReport();
signedIn.MapDatabases();
signedIn.MapHosts();
signedIn.MapLibraries();
review.MapLoans(signedIn);
signedIn.MapHeld();
signedIn.MapTieTables();
signedIn.MapRecords();
signedIn.MapEvents();
signedIn.MapPreparing();
app.Run();
return Environment.ExitCode;
