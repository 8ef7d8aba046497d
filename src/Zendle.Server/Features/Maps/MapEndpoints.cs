using System.Globalization;
using System.Text;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Formats;
using Zendle.Core.Maps;
using Zendle.Core.Reviews;
using Zendle.Server.Features.Search;
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
        review.MapGet("/steps/{stepId:int}/map/graphml", GraphMl).Produces(200, contentType: "application/graphml+xml");
        review.MapGet("/steps/{stepId:int}/map/csv", Csv).Produces(200, contentType: "text/csv");
    }

    private static async Task<IResult> Map(
        int reviewId,
        int stepId,
        [AsParameters] MapQuery asked,
        SearchService search,
        MapService maps
    )
    {
        var (map, fault) = await Drawn(reviewId, stepId, asked, search, maps);
        return fault ?? TypedResults.Ok(map!);
    }

    private static async Task<(MapDto? Map, IResult? Fault)> Drawn(
        int reviewId,
        int stepId,
        MapQuery asked,
        SearchService search,
        MapService maps
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
        var frame = new MapFrame(
            Math.Clamp(asked.Width, LeastWidth, MostWidth),
            Math.Clamp(asked.Height, 0, MostWidth)
        );
        return (
            maps.Of(
                reviewId,
                view,
                new(
                    asked.Lanes,
                    asked.Order,
                    asked.Along,
                    asked.Size,
                    asked.Database,
                    asked.Open,
                    Math.Clamp(asked.Suggest, 0, MapService.MostSuggested),
                    frame
                )
            ),
            null
        );
    }

    private static async Task<IResult> GraphMl(
        int reviewId,
        int stepId,
        [AsParameters] MapQuery asked,
        SearchService search,
        MapService maps,
        ZendleContext context,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (map, fault) = await Drawn(reviewId, stepId, asked, search, maps);
        if (map is null)
            return fault!;
        var title = await Title(context, reviewId, cancel);
        using var to = new MemoryStream();
        GraphMlWriter.Write(
            to,
            title,
            [
                new("title", "string"),
                new("label", "string"),
                new("year", "int"),
                new("stage", "string"),
                new("lane", "string"),
                new("size", "double"),
                new("x", "double"),
                new("y", "double"),
            ],
            map.Works.Select(w => new GraphNode(
                Id(w),
                new Dictionary<string, object?>
                {
                    ["title"] = w.Title,
                    ["label"] = w.Name,
                    ["year"] = w.Year,
                    ["stage"] = Stages.Name(w.Stage),
                    ["lane"] = Label(map, w),
                    ["size"] = w.Size,
                    ["x"] = w.X,
                    ["y"] = w.Y,
                }
            )),
            map.Works.SelectMany(w => w.Cites.Select(c => (Id(w), Id(map.Works[c]))))
        );
        return File(to, "application/graphml+xml", title, map, clock, "graphml");
    }

    private static async Task<IResult> Csv(
        int reviewId,
        int stepId,
        [AsParameters] MapQuery asked,
        SearchService search,
        MapService maps,
        ZendleContext context,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (map, fault) = await Drawn(reviewId, stepId, asked, search, maps);
        if (map is null)
            return fault!;
        var cited = map.Works.SelectMany(w => w.Cites).CountBy(c => c).ToDictionary();
        using var to = new MemoryStream();
        using (var text = new StreamWriter(to, new UTF8Encoding(true), leaveOpen: true))
        using (var csv = SafeCsv.To(text))
        {
            foreach (
                var head in (string[])
                    ["work", "label", "title", "year", "stage", "lane", "size", "cites here", "cited here", "x", "y"]
            )
                csv.WriteField(head);
            csv.NextRecord();
            for (var i = 0; i < map.Works.Count; i++)
            {
                var w = map.Works[i];
                csv.WriteField(w.Id);
                csv.WriteField(w.Name);
                csv.WriteField(w.Title);
                csv.WriteField(w.Year);
                csv.WriteField(Stages.Name(w.Stage));
                csv.WriteField(Label(map, w));
                csv.WriteField(w.Size);
                csv.WriteField(w.Cites.Count);
                csv.WriteField(cited.GetValueOrDefault(i));
                csv.WriteField(w.X);
                csv.WriteField(w.Y);
                csv.NextRecord();
            }
        }
        return File(to, "text/csv", await Title(context, reviewId, cancel), map, clock, "csv");
    }

    private static string Id(MapWorkDto work) => string.Create(CultureInfo.InvariantCulture, $"work{work.Id}");

    private static string Label(MapDto map, MapWorkDto work) =>
        map.Lanes[work.Lane] is { Kind: LaneKind.Value } lane ? lane.Label
        : map.Lanes[work.Lane].Kind == LaneKind.Others ? "others"
        : "none";

    private static Task<string> Title(ZendleContext context, int reviewId, CancellationToken cancel) =>
        context.Reviews.Where(r => r.Id == reviewId).Select(r => r.Title).SingleAsync(cancel);

    private static IResult File(
        MemoryStream content,
        string type,
        string title,
        MapDto map,
        TimeProvider clock,
        string ending
    ) =>
        TypedResults.File(
            content.ToArray(),
            type,
            FileNames.Export(title, "map", map.Works.Count, DateOnly.FromDateTime(clock.GetLocalNow().Date), ending)
        );
}
