using Microsoft.AspNetCore.Http.Features;
using Microsoft.EntityFrameworkCore;
using Zendle.Server.Corpus;
using Zendle.Server.Events;
using Zendle.Server.Identity;
using Zendle.Server.Jobs;
using Zendle.Store.Corpus;
using Zendle.Store.Made;

namespace Zendle.Server.Features.TieTables;

/// <summary>A source of citations that is no database.</summary>
/// <param name="Name">Its name, as ledgers have it.</param>
/// <param name="IsOfTexts">Whether it is the gathered texts; they cannot be removed.</param>
/// <param name="Rows">Rows of a table, or texts whose list counts.</param>
/// <param name="Unread">Rows without two DOIs.</param>
/// <param name="Citations">Citations between works here that it reports.</param>
/// <param name="OnlyHere">Those of them that nobody else reports.</param>
/// <param name="Unknown">Different DOIs of a table that no work here has.</param>
/// <param name="Job">The job that puts it in, while it runs or when it failed.</param>
internal sealed record TieSourceDto(
    int Id,
    string Name,
    bool IsOfTexts,
    int Rows,
    int Unread,
    int Citations,
    int OnlyHere,
    int Unknown,
    DateTimeOffset At,
    JobDto? Job
);

internal static class TieTableEndpoints
{
    private const long Largest = 8L << 30;

    public static void MapTieTables(this RouteGroupBuilder api)
    {
        api.MapGet("/tie-sources", List);
        api.MapPost("/tie-sources", Add).RequireCurator().Produces<JobDto>().DisableAntiforgery();
        api.MapDelete(
                "/tie-sources/{id:int}",
                async Task<IResult> (int id, TieTableService tables, CancellationToken cancel) =>
                    await tables.Remove(id, cancel)
                        ? TypedResults.NoContent()
                        : Problems.Of(404, "There is no such table.", "Perhaps it was removed already.")
            )
            .RequireCurator();
    }

    private static async Task<IReadOnlyList<TieSourceDto>> List(
        CorpusService corpus,
        CorpusReader reader,
        IDbContextFactory<ZendleContext> contexts,
        JobRunner jobs,
        CancellationToken cancel
    )
    {
        // Jobs first: what one has put in when it is done is in every snapshot taken after.
        await using var made = await contexts.CreateDbContextAsync(cancel);
        var last = (
            await made
                .Jobs.AsNoTracking()
                .Where(j => j.Kind == TieTableJob.Kind.Name)
                .GroupBy(j => j.Subject)
                .Select(g => g.OrderByDescending(j => j.Id).First())
                .ToListAsync(cancel)
        ).ToDictionary(j => j.Subject, jobs.AsItStands);
        using var snapshot = corpus.Snapshot();
        var counts = TieCounts.Of(snapshot);
        var found = new List<TieSourceDto>();
        foreach (var source in await reader.TieSources(cancel))
        {
            var count = counts[source.Id];
            found.Add(
                new(
                    source.Id,
                    source.Name,
                    source.IsOfTexts,
                    source.IsOfTexts ? counts.Texts : source.Rows,
                    source.Unread,
                    count.Citations,
                    count.OnlyHere,
                    source.IsOfTexts ? 0 : await counts.Unknown(snapshot, reader, source.Id, cancel),
                    source.At,
                    last.GetValueOrDefault(source.Id) is { State: not JobState.Done } job ? JobDto.Of(job) : null
                )
            );
        }
        return found;
    }

    /// <summary>The body is the table itself; its name stands in the address.</summary>
    private static async Task<IResult> Add(
        string name,
        HttpContext http,
        TieTableService tables,
        CancellationToken cancel
    )
    {
        if (http.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
            size.MaxRequestBodySize = Largest;
        try
        {
            return TypedResults.Ok(JobDto.Of(await tables.Add(name, http.Request.Body, cancel)));
        }
        catch (TieTableFaultException e)
        {
            return Problems.Of(422, e.Message, "Nothing was added.");
        }
        catch (BadHttpRequestException)
        {
            return Problems.Of(413, "The table is larger than 8 GB, or broke off on its way.", "Nothing was added.");
        }
    }
}
