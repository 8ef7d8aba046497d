using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.Maps;
using Zendle.Server.Features.Search;
using Zendle.Server.Identity;
using Zendle.Store.Made;

namespace Zendle.Server.Features.Maps;

/// <summary>What is asked of a map in an address.</summary>
internal sealed record MapQuery(
    [FromQuery(Name = "lanes")] LaneField Lanes = LaneField.Topic,
    [FromQuery(Name = "order")] LaneOrder Order = LaneOrder.Size,
    [FromQuery(Name = "along")] MapAlong Along = MapAlong.Year,
    [FromQuery(Name = "size")] MapSize Size = MapSize.Cited,
    [FromQuery(Name = "database")] int Database = 0,
    [FromQuery(Name = "open")] bool Open = false,
    [FromQuery(Name = "suggest")] int Suggest = 0,
    [FromQuery(Name = "against")] int Against = 0,
    [FromQuery(Name = "plan")] int Plan = 0,
    [FromQuery(Name = "width")] double Width = 800,
    [FromQuery(Name = "height")] double Height = 600
);

/// <summary>Any set as a map.</summary>
internal static class MapEndpoints
{
    private const double LeastWidth = 320,
        MostWidth = 8_000;

    public static void MapMaps(this RouteGroupBuilder review)
    {
        review.MapGet("/steps/{stepId:int}/map", Map).Produces<MapDto>();
        review
            .MapPost(
                "/steps/{stepId:int}/map/topics",
                async Task<IResult> (
                    int reviewId,
                    int stepId,
                    SearchService search,
                    TopicMemory topics,
                    CancellationToken cancel
                ) =>
                {
                    using var view = await search.View(reviewId, stepId);
                    if (view is null)
                        return SearchEndpoints.NoStep();
                    await topics.Anew(view, stepId, cancel);
                    return TypedResults.NoContent();
                }
            )
            .Require(Role.Screener)
            .Produces(204);
        MapFile(review, "graphml", "application/graphml+xml", MapFiles.GraphMl);
        MapFile(review, "csv", "text/csv", MapFiles.Csv);
    }

    /// <summary>A map as a file of some format.</summary>
    private static void MapFile(
        RouteGroupBuilder review,
        string ending,
        string type,
        Action<Stream, MapDto, string> write
    ) =>
        review
            .MapGet(
                $"/steps/{{stepId:int}}/map/{ending}",
                async (
                    int reviewId,
                    int stepId,
                    [AsParameters] MapQuery asked,
                    SearchService search,
                    MapService maps,
                    ZendleContext context,
                    TimeProvider clock,
                    CancellationToken cancel
                ) =>
                {
                    var (map, fault) = await Drawn(reviewId, stepId, asked, search, maps, cancel);
                    if (map is null)
                        return fault!;
                    var title = await context
                        .Reviews.Where(r => r.Id == reviewId)
                        .Select(r => r.Title)
                        .SingleAsync(cancel);
                    using var to = new MemoryStream();
                    write(to, map, title);
                    var day = DateOnly.FromDateTime(clock.GetLocalNow().Date);
                    return (IResult)
                        TypedResults.File(
                            to.ToArray(),
                            type,
                            FileNames.Export(title, "map", map.Works.Count, day, ending)
                        );
                }
            )
            .Produces(200, contentType: type);

    private static async Task<IResult> Map(
        int reviewId,
        int stepId,
        [AsParameters] MapQuery asked,
        SearchService search,
        MapService maps,
        CancellationToken cancel
    )
    {
        var (map, fault) = await Drawn(reviewId, stepId, asked, search, maps, cancel);
        return fault ?? TypedResults.Ok(map!);
    }

    private static async Task<(MapDto? Map, IResult? Fault)> Drawn(
        int reviewId,
        int stepId,
        MapQuery asked,
        SearchService search,
        MapService maps,
        CancellationToken cancel
    )
    {
        using var view = await search.View(reviewId, stepId);
        if (view is null)
            return (null, SearchEndpoints.NoStep());
        if (view.Answer.Count > MapService.MostWorks)
            return (
                null,
                Problems.Of(
                    400,
                    $"A map shows at most {MapService.MostWorks:N0} works; these are {view.Answer.Count:N0}.",
                    "Narrow the list first: by years, a subject or more words."
                )
            );
        if (!double.IsFinite(asked.Width) || !double.IsFinite(asked.Height))
            return (null, Problems.Of(400, "A map has a width and a height in pixels."));
        using var other = asked.Against == 0 ? null : await search.View(reviewId, asked.Against);
        if (asked.Against != 0 && other is null)
            return (null, SearchEndpoints.NoStep());
        var frame = new MapFrame(
            Math.Clamp(asked.Width, LeastWidth, MostWidth),
            Math.Clamp(asked.Height, 0, MostWidth)
        );
        return (
            await maps.Of(
                reviewId,
                view,
                other?.Answer,
                new(
                    stepId,
                    asked.Lanes,
                    asked.Order,
                    asked.Along,
                    asked.Size,
                    asked.Database,
                    asked.Open,
                    Math.Clamp(asked.Suggest, 0, MapService.MostSuggested),
                    view.Snapshot.Columns.IsWork(asked.Plan) ? asked.Plan : 0,
                    frame
                ),
                cancel
            ),
            null
        );
    }
}
