using System.Diagnostics;
using System.Globalization;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Reviews;
using Zendle.Core.Reviews.Acts;
using Zendle.Index.Questions;
using Zendle.Server.Features.Databases;
using Zendle.Server.Features.Gather;
using Zendle.Server.Features.Reviews;
using Zendle.Server.Features.Search;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Made;

namespace Zendle.Server.Demo;

/// <summary>The account that the demo offers.</summary>
internal static class DemoAccount
{
    public const string Name = "demo";
    public const string Password = "night garden 26";
}

/// <summary>
/// Puts the demo's start data in, through the same services that people's acts go through: harvest, search, decide.
/// </summary>
internal sealed class DemoSeeder(IServiceProvider services, ZendleOptions options, ILogger<DemoSeeder> log)
{
    private static readonly TimeSpan Often = TimeSpan.FromSeconds(1),
        Patience = TimeSpan.FromMinutes(2);
    private const string Title = "Street lighting and night pollination",
        MadeAs = "demo-review";
    private static readonly string[] Harvested = ["meridian", "lifeleaf", "select", "harbour", "farnet"];

    /// <summary>Makes the account that the demo offers, if it is not there; then somebody can sign in.</summary>
    public async Task Begin()
    {
        await using var scope = services.CreateAsyncScope();
        await Account(scope.ServiceProvider.GetRequiredService<UserManager<Account>>());
    }

    /// <summary>The demo review; null while it is not made.</summary>
    public async Task<int?> Made(CancellationToken cancel)
    {
        await using var context = await services
            .GetRequiredService<IDbContextFactory<ZendleContext>>()
            .CreateDbContextAsync(cancel);
        if (await context.Settings.AsNoTracking().SingleOrDefaultAsync(s => s.Name == MadeAs, cancel) is { } made)
            return int.Parse(made.Value, CultureInfo.InvariantCulture);
        // In folders of before nothing says which it is.
        return await context.Reviews.Where(r => r.Title == Title).Select(r => (int?)r.Id).FirstOrDefaultAsync(cancel);
    }

    /// <summary>Seeds an installation that does not hold the demo review yet.</summary>
    /// <param name="says">Is told what is going on, and how far it is.</param>
    /// <param name="cancel">Stops; the next start goes on.</param>
    /// <returns>Whether it was seeded now.</returns>
    public async Task<bool> Seed(Action<string> says, CancellationToken cancel)
    {
        await using var scope = services.CreateAsyncScope();
        var context = scope.ServiceProvider.GetRequiredService<ZendleContext>();
        var account = await Account(scope.ServiceProvider.GetRequiredService<UserManager<Account>>());
        var isMade = await Made(cancel) is not null;
        // A corpus that was lost is harvested again, also beside a review that is there.
        var databases = await scope.ServiceProvider.GetRequiredService<DatabaseService>().List(cancel);
        if (!isMade || databases.Databases.Count == 0)
            await Harvest(scope.ServiceProvider, says, cancel);
        if (isMade)
            return false;
        says("Preparing the demo review: searches, decisions, full texts.");
        var reviews = services.GetRequiredService<ReviewService>();
        var review = await reviews.Create(
            Title,
            "Does artificial light at night change what moths do, and with it the night-time pollination of wild plants and crops?",
            account.Id
        );
        context.Settings.Add(new() { Name = MadeAs, Value = review.ToString(CultureInfo.InvariantCulture) });
        await context.SaveChangesAsync(cancel);
        await Work(review, account.Id);
        await reviews.Create("Lamps and bats along hedgerows", "", account.Id);
        log.LogInformation("The demo review is ready.");
        return true;
    }

    /// <summary>Arranges the texts of the demo review with the outside again, as soon as it answers.</summary>
    public async Task ArrangeAgain(CancellationToken cancel)
    {
        if (options.Outside is null)
            return;
        if (await Made(cancel) is not { } review)
            return;
        for (var tries = 0; tries < 60; tries++)
        {
            try
            {
                await Arrange(review, cancel);
                return;
            }
            catch (Exception e)
                when (e is HttpRequestException || (e is TaskCanceledException && !cancel.IsCancellationRequested))
            {
                await Task.Delay(TimeSpan.FromSeconds(1), cancel);
            }
        }
    }

    private async Task<ArrangedTexts> Arrange(int review, CancellationToken cancel)
    {
        var (_, facts) = await services.GetRequiredService<DecisionService>().Of(review);
        return await services.GetRequiredService<DemoTexts>().Arrange(facts.Kept.ToArray(), cancel);
    }

    private static async Task<Account> Account(UserManager<Account> users)
    {
        if (await users.FindByNameAsync(DemoAccount.Name) is { } there)
            return there;
        var account = new Account
        {
            UserName = DemoAccount.Name,
            DisplayName = "Demo researcher",
            IsCurator = true,
        };
        var made = await users.CreateAsync(account, DemoAccount.Password);
        if (!made.Succeeded)
            throw new InvalidOperationException(string.Join(' ', made.Errors.Select(e => e.Description)));
        return account;
    }

    private async Task Harvest(IServiceProvider scope, Action<string> says, CancellationToken cancel)
    {
        var databases = scope.GetRequiredService<DatabaseService>();
        var jobs = scope.GetRequiredService<JobRunner>();
        var there = (await databases.List(cancel)).Databases.ToDictionary(d => d.Address, d => d.Id);
        await Outside(says, cancel);
        foreach (var (i, key) in Harvested.Index())
        {
            var address = new Uri(options.Outside!, $"/{key}/oai").ToString();
            // One that a kill interrupted goes on, and is waited for too.
            var job = there.TryGetValue(address, out var id)
                ? await jobs.Ask(HarvestJob.Kind, id)
                : await databases.Add(new(address, "mods", null, Trusted: key == "meridian"), cancel);
            var ended = jobs.Ended(job.Id).WaitAsync(cancel);
            while (await Task.WhenAny(ended, Task.Delay(Often, cancel)) != ended)
                says(await Progress(scope, job.Id, $"database {i + 1} of {Harvested.Length}", cancel));
            await ended;
        }
        var harvested = (await databases.List(cancel)).Databases.ToDictionary(d => d.Address, d => d.Id);
        int Id(string key) => harvested[new Uri(options.Outside!, $"/{key}/oai").ToString()];
        await scope
            .GetRequiredService<VocabularyService>()
            .Set(Id("lifeleaf"), new Uri(options.Outside!, "/lifeleaf/vocabulary"), cancel);
        // With it everything that came is shown.
        await databases.SetPart(Id("select"), Id("lifeleaf"), cancel);
    }

    /// <summary>Waits for the simulated outside, which makes its world while Zendle starts.</summary>
    private async Task Outside(Action<string> says, CancellationToken cancel)
    {
        using var http = new HttpClient();
        for (var watch = Stopwatch.StartNew(); watch.Elapsed < Patience; await Task.Delay(100, cancel))
        {
            try
            {
                using var reply = await http.GetAsync(new Uri(options.Outside!, "/health"), cancel);
                if (reply.IsSuccessStatusCode)
                    return;
            }
            catch (HttpRequestException)
            {
                says("Waiting for the demo's simulated databases.");
            }
        }
    }

    private static async Task<string> Progress(IServiceProvider scope, int id, string which, CancellationToken cancel)
    {
        await using var context = await scope
            .GetRequiredService<IDbContextFactory<ZendleContext>>()
            .CreateDbContextAsync(cancel);
        var job = await context.Jobs.AsNoTracking().SingleAsync(j => j.Id == id, cancel);
        var of = job.Total is { } total ? $" of {total:N0}" : "";
        return $"Harvesting {which}: {job.Done:N0}{of} records.";
    }

    /// <summary>Mid-work: two searches with their narrowing, works kept, tagged and set aside.</summary>
    private async Task Work(int review, string account)
    {
        var (paths, search, decisions) = (
            services.GetRequiredService<PathService>(),
            services.GetRequiredService<SearchService>(),
            services.GetRequiredService<DecisionService>()
        );
        async Task<int> Path(params StepAct[] acts)
        {
            var step = 0;
            foreach (var act in acts)
                step = (await paths.Take(review, account, step, act))!.Value;
            return step;
        }
        async Task<int[]> First(int step, SortOrder order, int count)
        {
            using var view = (await search.View(review, step))!;
            return [.. search.Order(view, order, hideJudged: true).Take(count)];
        }
        async Task Decide(DecisionAct act, int[] works, string? value = null) =>
            await decisions.Decide(review, account, act, works, value);

        var friends = await Path(new SearchAct("moth* AND (coating* OR textile* OR film*)"));
        await Decide(
            DecisionAct.SetAside,
            await First(friends, SortOrder.Relevance, 7),
            "the words mean something else"
        );

        var crops = await Path(
            new SearchAct("(crop* OR yield OR \"fruit set\") AND moth* AND night*"),
            new YearsAct(1990, 2026)
        );
        var fromCrops = await First(crops, SortOrder.Relevance, 22);
        await Decide(DecisionAct.Keep, fromCrops);
        await Decide(DecisionAct.Tag, fromCrops[..14], "crops");

        var main = await Path(
            new SearchAct("light"),
            new AddAct("moth*"),
            new AddAct("(pollinat* OR \"flower visit*\" OR \"pollen transport\" OR \"seed set\")"),
            new YearsAct(1985, 2026),
            new NarrowAct(Facet.Type, ["article", "review", "systematic review"])
        );
        var best = await First(main, SortOrder.Relevance, 30);
        await Decide(DecisionAct.Keep, best);
        var cited = await First(main, SortOrder.Cited, 10);
        await Decide(DecisionAct.Keep, cited);
        await Decide(DecisionAct.Tag, best[..16], "field experiment");
        await Decide(DecisionAct.Tag, [.. best[10..22], .. cited[..4]], "flower visits");
        await Decide(DecisionAct.Tag, best[20..], "pollen transport");
        await Decide(DecisionAct.Tag, cited, "anchor");
        await Decide(DecisionAct.SetAside, await First(main, SortOrder.Oldest, 3), "no comparison with darkness");
        await Decide(DecisionAct.SetAside, await First(main, SortOrder.Newest, 2), "not a study of its own");
        // Texts of some are in hand, some are stuck, most are not sought yet.
        var texts = await Arrange(review, CancellationToken.None);
        var (_, job) = await services
            .GetRequiredService<GatherService>()
            .Seek(review, account, [.. texts.InHand, .. texts.Stuck], again: false);
        if (job is not null)
            await services.GetRequiredService<JobRunner>().Ended(job.Id);
        await paths.Visit(review, account, main);
        // The two searches whose results were screened are of record; the rest was exploration.
        await using var scope = services.CreateAsyncScope();
        await scope
            .ServiceProvider.GetRequiredService<ZendleContext>()
            .Runs.Where(r => r.ReviewId == review && (r.StepId == main || r.StepId == crops))
            .ExecuteUpdateAsync(u => u.SetProperty(r => r.OfRecord, true));
    }
}
