using System.Security.Claims;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Maps;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Maps;

/// <summary>A map under a name.</summary>
/// <param name="StepId">The step whose set it shows; 0 when that is not in the review any more.</param>
/// <param name="Set">What the set is: the label of its step.</param>
/// <param name="By">Who saved it last.</param>
/// <param name="At">When.</param>
/// <param name="Then">Works that were on it then.</param>
/// <param name="Now">Works that would be on it today.</param>
/// <param name="Came">Works of today that were not on it.</param>
/// <param name="Gone">Works that were on it and are not in the set today.</param>
internal sealed record NamedMapDto(
    int Id,
    string Name,
    int StepId,
    string Set,
    MapLook Look,
    string By,
    DateTimeOffset At,
    int Then,
    int Now,
    int Came,
    int Gone
);

/// <summary>A map that is to be saved.</summary>
internal sealed record SaveMapRequest(string Name, int StepId, MapLook Look);

/// <summary>Whether a map is removed.</summary>
internal sealed record MapRemovedRequest(bool IsRemoved);

/// <summary>Maps under a name stay with their review: the set, how it is looked at, and what was on it.</summary>
internal sealed class NamedMaps(
    IDbContextFactory<ZendleContext> contexts,
    SearchService search,
    SinceThen since,
    TimeProvider clock
)
{
    /// <summary>Most maps of a review.</summary>
    public const int Most = 200;

    /// <summary>Most characters of a name.</summary>
    public const int LongestName = 120;

    /// <summary>The maps of a review, by name.</summary>
    public async Task<List<NamedMapDto>> All(int reviewId, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var rows = await context
            .Maps.AsNoTracking()
            .Where(m => m.ReviewId == reviewId && !m.IsRemoved)
            .Join(context.Users, m => m.AccountId, u => u.Id, (m, u) => new { Map = m, By = u.DisplayName })
            .ToListAsync(cancel);
        var labels = await context
            .Steps.AsNoTracking()
            .Where(s => s.ReviewId == reviewId && !s.Removed)
            .ToDictionaryAsync(s => s.Id, s => s.Name ?? s.Label, cancel);
        var told = new List<NamedMapDto>();
        foreach (var row in rows.OrderBy(r => r.Map.Name, StringComparer.OrdinalIgnoreCase))
        {
            var (map, then) = (row.Map, WorkIds.Unpack(row.Map.Works));
            using var view = labels.ContainsKey(map.StepId) ? await search.View(reviewId, map.StepId) : null;
            var (came, gone) = view is null ? (0, 0) : await Since(view, then);
            var look = JsonSerializer.Deserialize<MapLook>(map.Look, StoredJson.Options)!;
            told.Add(
                new(
                    map.Id,
                    map.Name,
                    view is null ? 0 : map.StepId,
                    labels.GetValueOrDefault(map.StepId, ""),
                    // What it was held against may be gone, too.
                    labels.ContainsKey(look.Against)
                        ? look
                        : look with
                        {
                            Against = 0,
                        },
                    row.By,
                    map.At,
                    then.Length,
                    view?.Answer.Count ?? 0,
                    came,
                    gone
                )
            );
        }
        return told;
    }

    private async Task<(int Came, int Gone)> Since(SearchView view, int[] then)
    {
        var (_, came, gone) = await since.Of(view.Answer.InView, then);
        return (came.Length, gone);
    }

    /// <summary>Saves a map under a name, or over the one that is there.</summary>
    /// <param name="id">The map to save over; null for a new one.</param>
    /// <returns>The map's number, or what hinders it.</returns>
    public async Task<(int Id, string? Fault)> Save(
        int reviewId,
        string account,
        int? id,
        SaveMapRequest asked,
        CancellationToken cancel
    )
    {
        using var view = asked.StepId == 0 ? null : await search.View(reviewId, asked.StepId);
        if (view is null)
            return (0, "The set of this map is not in the review any more.");
        if (view.Answer.Count > MapService.MostWorks)
            return (0, $"A map shows at most {MapService.MostWorks:N0} works; these are {view.Answer.Count:N0}.");
        await using var context = await contexts.CreateDbContextAsync(cancel);
        var row = id is null
            ? null
            : await context.Maps.SingleOrDefaultAsync(m => m.ReviewId == reviewId && m.Id == id, cancel);
        if (id is not null && row is null)
            return (0, null);
        if (row is null && await context.Maps.CountAsync(m => m.ReviewId == reviewId && !m.IsRemoved, cancel) >= Most)
            return (0, $"A review holds at most {Most} named maps. Remove one first.");
        var (look, works) = (
            JsonSerializer.Serialize(asked.Look, StoredJson.Options),
            WorkIds.Pack([.. view.Answer.InView.Members()])
        );
        if (row is null)
            context.Maps.Add(
                row = new()
                {
                    ReviewId = reviewId,
                    Name = asked.Name.Trim(),
                    Look = look,
                    Works = works,
                    AccountId = account,
                }
            );
        else
            (row.Name, row.Look, row.Works, row.AccountId) = (asked.Name.Trim(), look, works, account);
        (row.StepId, row.At, row.IsRemoved) = (asked.StepId, clock.GetUtcNow(), false);
        await context.SaveChangesAsync(cancel);
        return (row.Id, null);
    }

    /// <summary>Removes a map, or brings it back; false when there is no such map.</summary>
    public async Task<bool> Remove(int reviewId, int id, bool isRemoved, CancellationToken cancel)
    {
        await using var context = await contexts.CreateDbContextAsync(cancel);
        return await context
                .Maps.Where(m => m.ReviewId == reviewId && m.Id == id)
                .ExecuteUpdateAsync(m => m.SetProperty(x => x.IsRemoved, isRemoved), cancel) > 0;
    }
}

internal static class NamedMapEndpoints
{
    public static void MapNamedMaps(this RouteGroupBuilder review)
    {
        review
            .MapGet("/maps", (int reviewId, NamedMaps maps, CancellationToken cancel) => maps.All(reviewId, cancel))
            .Produces<IReadOnlyList<NamedMapDto>>();
        review
            .MapPost(
                "/maps",
                (int reviewId, SaveMapRequest asked, NamedMaps maps, ClaimsPrincipal user, CancellationToken cancel) =>
                    Save(reviewId, null, asked, maps, user, cancel)
            )
            .Require(Role.Screener)
            .Produces<int>();
        review
            .MapPut(
                "/maps/{mapId:int}",
                (
                    int reviewId,
                    int mapId,
                    SaveMapRequest asked,
                    NamedMaps maps,
                    ClaimsPrincipal user,
                    CancellationToken cancel
                ) => Save(reviewId, mapId, asked, maps, user, cancel)
            )
            .Require(Role.Screener)
            .Produces<int>();
        review
            .MapPut(
                "/maps/{mapId:int}/removed",
                async Task<IResult> (
                    int reviewId,
                    int mapId,
                    MapRemovedRequest asked,
                    NamedMaps maps,
                    CancellationToken cancel
                ) => await maps.Remove(reviewId, mapId, asked.IsRemoved, cancel) ? TypedResults.NoContent() : NoMap()
            )
            .Require(Role.Screener)
            .Produces(204);
    }

    private static async Task<IResult> Save(
        int reviewId,
        int? id,
        SaveMapRequest asked,
        NamedMaps maps,
        ClaimsPrincipal user,
        CancellationToken cancel
    )
    {
        if (asked.Name.Trim().Length is 0 or > NamedMaps.LongestName)
            return Problems.Of(400, $"A map needs a name of at most {NamedMaps.LongestName} characters.");
        if (asked.Look.Fault is { } odd)
            return Problems.Of(400, odd, "Nothing was saved.");
        var (saved, fault) = await maps.Save(reviewId, Access.AccountId(user), id, asked, cancel);
        return fault is not null ? Problems.Of(400, fault, "Nothing was saved.")
            : saved == 0 ? NoMap()
            : TypedResults.Ok(saved);
    }

    private static IResult NoMap() => Problems.Of(404, "There is no such map in the review any more.");
}
