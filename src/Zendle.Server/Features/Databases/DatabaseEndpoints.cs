using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Connect.Harvest;
using Zendle.Core.Records;
using Zendle.Core.Schedules;
using Zendle.Core.Terms;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Server.Jobs;
using Zendle.Server.Reviews;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Databases;

internal sealed record SpanCountDto(int Year, int Count);

internal sealed record ValueCountDto(string Value, int Count);

/// <summary>How much of a database's works another one holds too.</summary>
internal sealed record OverlapDto(int DatabaseId, int Works);

/// <summary>A database with what its records show of it.</summary>
/// <param name="IsOfEntries">Whether it holds custom entries; nothing is harvested then.</param>
/// <param name="DeletedRecord">How it tells of deletions: no, transient, persistent; empty when it has not been
/// asked.</param>
/// <param name="WholeAt">When everything was last asked for; null when that was in the first harvest only.</param>
/// <param name="Every">How often it is harvested by itself; null when only by hand.</param>
/// <param name="DueAt">When it is harvested next by itself; null when only by hand.</param>
/// <param name="Vocabulary">The vocabulary its indexers use, where a curator said where it lies.</param>
/// <param name="WithAbstract">Records that have an abstract; likewise the others. They tell which fields can be
/// searched.</param>
internal sealed record DatabaseDto(
    int Id,
    string Name,
    bool IsOfEntries,
    string Description,
    string Address,
    string Format,
    string? Set,
    int Records,
    int Works,
    int OnlyHere,
    IReadOnlyList<SpanCountDto> Years,
    IReadOnlyList<ValueCountDto> Types,
    int WithAbstract,
    int WithKeywords,
    int WithReferences,
    DateTimeOffset? HarvestedAt,
    bool Interrupted,
    JobDto? Job,
    IReadOnlyList<OverlapDto> Overlap,
    int? PartOf,
    string DeletedRecord,
    DateTimeOffset? WholeAt,
    Recurrence? Every,
    DateTimeOffset? DueAt,
    VocabularyDto? Vocabulary
);

/// <summary>The controlled vocabulary of a database.</summary>
internal sealed record VocabularyDto(string Address, DateTimeOffset FetchedAt, int Concepts);

/// <summary>Says where the vocabulary of a database lies; null for none.</summary>
internal sealed record VocabularyRequest(string? Address);

/// <summary>Says how often a database is harvested by itself; null for by hand only.</summary>
internal sealed record ScheduleRequest(Recurrence? Every);

/// <summary>Says of which database another is an extract; null for none.</summary>
internal sealed record PartOfRequest(int? PartOf);

/// <summary>All databases.</summary>
/// <param name="WholeEveryDays">After how many days everything is asked for again where a service does not keep word of
/// what it deletes.</param>
/// <param name="FollowsOutside">Whether schedules follow the clock of the simulated outside.</param>
internal sealed record DatabasesDto(
    IReadOnlyList<DatabaseDto> Databases,
    int Records,
    int Works,
    long Generation,
    int WholeEveryDays,
    bool FollowsOutside
);

internal sealed record AddressRequest(string Address, string? Set);

/// <summary>How many of a format's first records tell a field.</summary>
internal sealed record FieldShareDto(string Field, int Count);

/// <summary>A format on offer, and what its first records tell.</summary>
/// <param name="Name">What people call it; null when Zendle does not read it.</param>
/// <param name="Records">How many of its records were looked at.</param>
/// <param name="Fields">Every field with the number of records that tell it.</param>
/// <param name="Worth">The shares joined by what each field is worth to a review, in per cent.</param>
/// <param name="Fault">Why nothing came; null when something did.</param>
/// <param name="Preview">Its first records.</param>
internal sealed record FormatDto(
    string Prefix,
    string? Name,
    int Records,
    IReadOnlyList<FieldShareDto> Fields,
    int Worth,
    string? Fault,
    IReadOnlyList<PreviewRecordDto> Preview
);

internal sealed record OaiSetDto(string Spec, string Name);

/// <summary>A record as Zendle reads it from one format, as it is laid beside the same record of another.</summary>
/// <param name="People">Its people for one line.</param>
/// <param name="Venue">Venue with volume, issue and pages.</param>
/// <param name="Abstract">Its beginning; empty for none.</param>
/// <param name="Terms">How many keywords, controlled terms and subjects it has.</param>
internal sealed record PreviewRecordDto(
    string Identifier,
    string Title,
    string People,
    int? Year,
    string Type,
    string? Venue,
    string? Doi,
    string? Language,
    string Abstract,
    int Terms,
    int References,
    int Copies,
    string? Licence,
    IReadOnlyList<string> Notes
)
{
    private const int AbstractStart = 160;

    public static PreviewRecordDto Of(Record r) =>
        new(
            r.Identifier,
            r.Title,
            PeopleLine.Of(r.People),
            r.Year,
            DocumentTypes.Name(r.Type),
            r.Venue is { } v
                ? v.Title
                    + (v.Volume is null ? "" : $" {v.Volume}")
                    + (v.Issue is null ? "" : $"({v.Issue})")
                    + (v.Pages() is { } pages ? $", {pages}" : "")
                : null,
            r.Doi,
            r.Language is null ? null : Languages.Name(r.Language),
            r.Abstract.Length > AbstractStart ? r.Abstract[..AbstractStart] + "…" : r.Abstract,
            r.Keywords.Count + r.ControlledTerms.Count + r.Subjects.Count,
            r.References.Count,
            r.Copies.Count,
            r.Licence,
            r.Notes
        );
}

/// <summary>Asks for another format of a database; everything is then harvested anew.</summary>
internal sealed record FormatRequest(string Format);

/// <summary>What a service says of itself, before anything is copied.</summary>
internal sealed record LookDto(
    string Name,
    string Description,
    string Granularity,
    string DeletedRecord,
    IReadOnlyList<FormatDto> Formats,
    IReadOnlyList<OaiSetDto> Sets,
    string? BestFormat,
    int? Total
);

internal sealed record NewDatabaseRequest(string Address, string? Format, string? Set, bool Trusted);

internal static class DatabaseEndpoints
{
    public static void MapDatabases(this RouteGroupBuilder api)
    {
        api.MapGet(
            "/databases",
            async (DatabaseService service, CancellationToken cancel) => await service.List(cancel)
        );
        api.MapPost("/databases/look", Look).RequireCurator().Produces<LookDto>();
        api.MapPost("/databases", Add).RequireCurator().Produces<JobDto>();
        var harvested = api.MapGroup("/databases/{id:int}").RequireCurator().AddEndpointFilter(ThatAreHarvested);
        harvested.MapPut(
            "/part-of",
            async Task<IResult> (int id, PartOfRequest request, DatabaseService service, CancellationToken cancel) =>
                await service.SetPart(id, request.PartOf, cancel) is { } whyNot
                    ? Problems.Of(400, whyNot, "Nothing was changed.")
                    : TypedResults.NoContent()
        );
        harvested.MapPut("/schedule", SetSchedule);
        harvested.MapGet("/look", LookAgain).Produces<LookDto>();
        harvested.MapPut("/format", SetFormat).Produces<JobDto>();
        harvested.MapPost("/harvest", Harvest).Produces<JobDto>();
        harvested.MapPut("/vocabulary", SetVocabulary).Produces<int>();
        api.MapPost(
                "/jobs/{id:int}/stop",
                async Task<IResult> (int id, JobRunner jobs) =>
                    await jobs.Stop(id) ? TypedResults.NoContent() : Problems.Of(409, "This job has ended already.")
            )
            .RequireCurator();
        api.MapPost(
                "/jobs/{id:int}/resume",
                async Task<IResult> (int id, JobRunner jobs) =>
                    await jobs.Resume(id) ? TypedResults.NoContent() : Problems.Of(409, "This job cannot be resumed.")
            )
            .RequireCurator();
    }

    /// <summary>Custom entries have no service behind them.</summary>
    private static async ValueTask<object?> ThatAreHarvested(
        EndpointFilterInvocationContext call,
        EndpointFilterDelegate next
    )
    {
        var id = int.Parse((string)call.HttpContext.GetRouteValue("id")!, CultureInfo.InvariantCulture);
        await using var context = await call
            .HttpContext.RequestServices.GetRequiredService<IDbContextFactory<CorpusContext>>()
            .CreateDbContextAsync(call.HttpContext.RequestAborted);
        return await context.Databases.AnyAsync(d => d.Id == id && d.Address == DatabaseRow.OfEntries)
            ? Problems.Of(409, "Custom entries are not harvested; people add them.", "Nothing was changed.")
            : await next(call);
    }

    private static async Task<IResult> Look(AddressRequest request, DatabaseService service, CancellationToken cancel)
    {
        try
        {
            return TypedResults.Ok(await service.Look(request, cancel));
        }
        catch (HarvestFaultException e)
        {
            return Problems.Of(422, e.Message, "Nothing was added. Check the address, or try again later.");
        }
    }

    private static async Task<IResult> LookAgain(
        int id,
        DatabaseService service,
        IDbContextFactory<CorpusContext> contexts,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context.Databases.AsNoTracking().SingleOrDefaultAsync(d => d.Id == id, cancel) is { } database
            ? await Look(new(database.Address, database.SetName), service, cancel)
            : Problems.Of(404, "There is no such database.");
    }

    private static async Task<IResult> SetFormat(
        int id,
        FormatRequest request,
        DatabaseService service,
        CancellationToken cancel
    )
    {
        try
        {
            var (job, whyNot) = await service.SetFormat(id, request.Format, cancel);
            return job is null ? Problems.Of(409, whyNot!, "Nothing was changed.") : TypedResults.Ok(JobDto.Of(job));
        }
        catch (HarvestFaultException e)
        {
            return Problems.Of(422, e.Message, "Nothing was changed. Try again later.");
        }
    }

    private static async Task<IResult> Add(
        NewDatabaseRequest request,
        DatabaseService service,
        CancellationToken cancel
    )
    {
        try
        {
            return TypedResults.Ok(JobDto.Of(await service.Add(request, cancel)));
        }
        catch (HarvestFaultException e)
        {
            return Problems.Of(422, e.Message, "Nothing was added.");
        }
    }

    private static async Task<IResult> SetSchedule(
        int id,
        ScheduleRequest request,
        JobSchedule schedule,
        IDbContextFactory<CorpusContext> contexts,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        if (!await context.Databases.AnyAsync(d => d.Id == id, cancel))
            return Problems.Of(404, "There is no such database.");
        await schedule.Set(HarvestJob.Kind, id, request.Every, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<IResult> SetVocabulary(
        int id,
        VocabularyRequest request,
        VocabularyService vocabularies,
        IDbContextFactory<CorpusContext> contexts,
        CancellationToken cancel
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        if (!await context.Databases.AnyAsync(d => d.Id == id, cancel))
            return Problems.Of(404, "There is no such database.");
        var address = WebAddress.Of(request.Address);
        if (request.Address is not null && address is null)
            return Problems.Of(400, "A web address begins with http:// or https://.", "Nothing was changed.");
        try
        {
            return TypedResults.Ok(await vocabularies.Set(id, address, cancel));
        }
        catch (VocabularyFaultException e)
        {
            return Problems.Of(422, e.Message, "Nothing was changed.");
        }
    }

    private static async Task<IResult> Harvest(
        int id,
        JobRunner jobs,
        IDbContextFactory<CorpusContext> contexts,
        CancellationToken cancel,
        bool whole = false
    )
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        if (whole)
            await context
                .Databases.Where(d => d.Id == id)
                .ExecuteUpdateAsync(u => u.SetProperty(d => d.WholeAsked, true), cancel);
        return await context.Databases.AnyAsync(d => d.Id == id, cancel)
            ? TypedResults.Ok(JobDto.Of(await jobs.Ask(HarvestJob.Kind, id)))
            : Problems.Of(404, "There is no such database.");
    }
}

/// <summary>Looks at, adds and describes databases.</summary>
internal sealed class DatabaseService(
    OaiClient oai,
    FormatTrial trial,
    IDbContextFactory<CorpusContext> corpusContexts,
    IDbContextFactory<ZendleContext> contexts,
    CorpusReader reader,
    CorpusService corpus,
    CorpusChange change,
    CorpusIdentity identities,
    JobRunner jobs,
    JobSchedule schedule
)
{
    /// <summary>One database is added at a time, so that several wishes for one make one.</summary>
    private static readonly SemaphoreSlim Adding = new(1, 1);

    private const int PreviewSize = 10;

    /// <summary>Asks a service who it is, and for its first records in every format that can be read.</summary>
    public async Task<LookDto> Look(AddressRequest request, CancellationToken cancel)
    {
        var address = Address(request.Address);
        var identity = await oai.Identify(address, cancel);
        var formats = await oai.Formats(address, cancel);
        var sets = await oai.Sets(address, cancel);
        var tried = await trial.Of(address, formats, request.Set is { Length: > 0 } s ? s : null, cancel);
        var best = FormatTrial.Best(tried);
        return new(
            identity.Name,
            identity.Description,
            identity.Granularity,
            identity.DeletedRecord,
            [
                .. tried.Select(t => new FormatDto(
                    t.Offered.Prefix,
                    t.Name,
                    t.Records.Count,
                    [.. t.Coverage.Fields.Select(f => new FieldShareDto(f.Field, f.Count))],
                    (int)Math.Round(t.Coverage.Worth * 100),
                    t.Fault,
                    [.. t.Records.Take(PreviewSize).Select(PreviewRecordDto.Of)]
                )),
                .. formats
                    .Where(o => RecordReader.FormatOf(o) is null)
                    .Select(o => new FormatDto(o.Prefix, null, 0, [], 0, null, [])),
            ],
            [.. sets.Select(x => new OaiSetDto(x.Spec, x.Name))],
            best?.Offered.Prefix,
            best?.Total
        );
    }

    /// <summary>
    /// Takes another format of a database. Everything is asked for in it; until that has ended the records stay as they
    /// were read from the format before.
    /// </summary>
    /// <returns>The harvest; or null with the reason why not.</returns>
    public async Task<(JobRow? Job, string? WhyNot)> SetFormat(int id, string format, CancellationToken cancel)
    {
        await using var context = await corpusContexts.CreateDbContextAsync(cancel);
        if (await context.Databases.SingleOrDefaultAsync(d => d.Id == id, cancel) is not { } database)
            return (null, "There is no such database.");
        if (await jobs.IsRunning(HarvestJob.Kind, id))
            return (null, $"{database.Name} is being harvested. Stop the harvest first, or wait for its end.");
        var offered = await oai.Formats(new(database.Address), cancel);
        if (offered.FirstOrDefault(o => o.Prefix == format) is not { } wanted)
            return (null, $"{database.Name} does not offer “{format}”.");
        if (RecordReader.FormatOf(wanted) is null)
            return (null, $"Zendle does not read “{format}”.");
        if (database.Format != format)
        {
            (database.Format, database.WholeAsked) = (format, database.HarvestedUntil is not null);
            // A token belongs to the list it came with.
            (database.Token, database.RunStarted, database.RunDone, database.RunChanged) = (null, null, 0, 0);
            await context.SaveChangesAsync(cancel);
        }
        return (await jobs.Ask(HarvestJob.Kind, id), null);
    }

    /// <summary>Adds a database and asks for its first harvest.</summary>
    public async Task<JobRow> Add(NewDatabaseRequest request, CancellationToken cancel)
    {
        var address = Address(request.Address);
        var identity = await oai.Identify(address, cancel);
        var formats = await oai.Formats(address, cancel);
        var set = request.Set is { Length: > 0 } s ? s : null;
        var format =
            request.Format is { Length: > 0 } f
            && formats.Any(x => x.Prefix == f && RecordReader.FormatOf(x) is not null)
                ? f
                : await trial.Choose(address, formats, set, cancel)
                    ?? throw new HarvestFaultException(
                        $"{identity.Name} offers no format that Zendle reads; it reads "
                            + $"{string.Join(", ", RecordReader.Formats.Select(x => x.Name))}."
                    );
        await Adding.WaitAsync(cancel);
        try
        {
            await using var context = await corpusContexts.CreateDbContextAsync(cancel);
            if (
                await context.Databases.FirstOrDefaultAsync(
                    d => d.Address == address.ToString() && d.SetName == set,
                    cancel
                ) is
                { } there
            )
                throw new HarvestFaultException($"{there.Name} is among the databases already.");
            if (
                await context.Databases.CountAsync(cancel) + await context.TieSources.CountAsync(cancel)
                >= DatabaseRow.Most
            )
                throw new HarvestFaultException(
                    $"An installation holds at most {DatabaseRow.Most} databases and tables of citations."
                );
            var name = set is null ? identity.Name : $"{identity.Name} ({set})";
            var row = new DatabaseRow
            {
                Id = await identities.NumberFor(address.ToString(), set, name, cancel),
                Name = name,
                Description = identity.Description,
                Address = address.ToString(),
                Format = format,
                SetName = set,
                Granularity = identity.Granularity,
                DeletedRecord = identity.DeletedRecord,
                Trust = request.Trusted ? 0 : 1,
            };
            context.Databases.Add(row);
            await context.SaveChangesAsync(cancel);
            return await jobs.Ask(HarvestJob.Kind, row.Id);
        }
        finally
        {
            Adding.Release();
        }
    }

    /// <summary>
    /// Says of which database another is an extract: what only the whole brings in is then counted together with the
    /// extract.
    /// </summary>
    /// <param name="id">The extract.</param>
    /// <param name="whole">What contains it; null for nothing.</param>
    /// <param name="cancel">Stops.</param>
    /// <returns>Null when it is done; else why not.</returns>
    public async Task<string?> SetPart(int id, int? whole, CancellationToken cancel)
    {
        await using var context = await corpusContexts.CreateDbContextAsync(cancel);
        if (await context.Databases.SingleOrDefaultAsync(d => d.Id == id, cancel) is not { } extract)
            return "There is no such database.";
        if (whole is { } of)
        {
            if (of == id)
                return "A database cannot be an extract of itself.";
            if (
                await context.Databases.AsNoTracking().SingleOrDefaultAsync(d => d.Id == of, cancel)
                is not { } container
            )
                return "There is no such database to be an extract of.";
            if (container.PartOf is not null)
                return $"{container.Name} is an extract itself.";
            if (await context.Databases.AnyAsync(d => d.PartOf == id, cancel))
                return $"{extract.Name} has an extract of its own.";
        }
        extract.PartOf = whole;
        await change.Make(() => context.SaveChangesAsync(cancel), cancel);
        return null;
    }

    /// <summary>All databases with what their records show.</summary>
    public async Task<DatabasesDto> List(CancellationToken cancel)
    {
        // The jobs are read before the corpus: what a harvest that is told as ended brought is then in the counts
        // beside it.
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var lastJobs = await context
            .Jobs.AsNoTracking()
            .Where(j =>
                j.Kind == HarvestJob.Kind.Name
                && j.Id == context.Jobs.Where(o => o.Kind == j.Kind && o.Subject == j.Subject).Max(o => o.Id)
            )
            .ToDictionaryAsync(j => j.Subject, cancel);
        var recurring = await schedule.Of(HarvestJob.Kind, cancel);
        using var snapshot = corpus.Snapshot();
        var columns = snapshot.Columns;
        var databases = await reader.Databases(cancel);
        var counts = DatabaseCounts.Of(snapshot);
        await using var corpusContext = await corpusContexts.CreateDbContextAsync(cancel);
        var vocabularies = await corpusContext
            .Vocabularies.AsNoTracking()
            .Select(v => new { v.DatabaseId, Told = new VocabularyDto(v.Address, v.FetchedAt, v.Concepts) })
            .ToDictionaryAsync(v => v.DatabaseId, v => v.Told, cancel);
        return new(
            [
                .. databases.Select(d =>
                {
                    var count = counts[d.Id];
                    return new DatabaseDto(
                        d.Id,
                        d.Name,
                        d.IsOfEntries,
                        d.Description,
                        d.Address,
                        d.Format,
                        d.SetName,
                        count.Records,
                        count.Works,
                        count.OnlyHere,
                        [.. count.Years.Select(y => new SpanCountDto(y.Key, y.Value))],
                        [
                            .. count
                                .Types.OrderByDescending(t => t.Value)
                                .Select(t => new ValueCountDto(DocumentTypes.Name(t.Key), t.Value)),
                        ],
                        count.Abstract,
                        count.Keywords,
                        count.References,
                        d.HarvestedAt,
                        d.RunStarted is not null,
                        lastJobs.GetValueOrDefault(d.Id) is { } job ? JobDto.Of(jobs.AsItStands(job)) : null,
                        [
                            .. databases
                                .Where(o => o.Id != d.Id)
                                .Select(o => new OverlapDto(o.Id, counts.Both(d.Id, o.Id))),
                        ],
                        d.PartOf,
                        d.DeletedRecord,
                        d.WholeAt,
                        recurring.GetValueOrDefault(d.Id)?.Every,
                        recurring.GetValueOrDefault(d.Id)?.DueAt,
                        vocabularies.GetValueOrDefault(d.Id)
                    );
                }),
            ],
            columns.Records,
            columns.Works,
            snapshot.Generation,
            HarvestJob.WholeEvery.Days,
            schedule.FollowsOutside
        );
    }

    private static Uri Address(string text) =>
        WebAddress.Of(text) is { } address
            ? new UriBuilder(address) { Query = "", Fragment = "" }.Uri
            : throw new HarvestFaultException(
                $"“{(text.Length > 80 ? text[..80] + "…" : text)}” is not a web address; it begins with http:// or https://."
            );
}
