using System.Globalization;
using System.Text;
using Zendle.Core.Formats;
using Zendle.Core.Maps;
using Zendle.Core.Reviews;

namespace Zendle.Server.Features.Maps;

/// <summary>Maps as files for other programs.</summary>
internal static class MapFiles
{
    /// <summary>Works as nodes, citations as edges from what cites to what is cited.</summary>
    public static void GraphMl(Stream to, MapDto map, string title) =>
        GraphMlWriter.Write(
            to,
            title,
            [
                new("title", "string"),
                new("label", "string"),
                new("year", "int"),
                new("stage", "string"),
                new("lane", "string"),
                new("tags", "string"),
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
                    ["tags"] = w.Tags.Count == 0 ? null : Tags(map, w),
                    ["size"] = w.Size,
                    ["x"] = w.X,
                    ["y"] = w.Y,
                }
            )),
            map.Works.SelectMany(w => w.Cites.Select(c => (Id(w), Id(map.Works[c]))))
        );

    /// <summary>Works as rows, in the order of the map's works.</summary>
    public static void Csv(Stream to, MapDto map, string _)
    {
        var cited = map.Works.SelectMany(w => w.Cites).CountBy(c => c).ToDictionary();
        using (var text = new StreamWriter(to, new UTF8Encoding(true), leaveOpen: true))
        using (var csv = SafeCsv.To(text))
        {
            foreach (
                var head in (string[])
                    [
                        "work",
                        "label",
                        "title",
                        "year",
                        "stage",
                        "lane",
                        "tags",
                        "size",
                        "cites here",
                        "cited here",
                        "x",
                        "y",
                    ]
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
                csv.WriteField(Tags(map, w));
                csv.WriteField(w.Size);
                csv.WriteField(w.Cites.Count);
                csv.WriteField(cited.GetValueOrDefault(i));
                csv.WriteField(w.X);
                csv.WriteField(w.Y);
                csv.NextRecord();
            }
        }
    }

    private static string Id(MapWorkDto work) => string.Create(CultureInfo.InvariantCulture, $"work{work.Id}");

    private static string Tags(MapDto map, MapWorkDto work) =>
        string.Join("; ", work.Tags.Select(t => map.Tags[t].Name));

    private static string Label(MapDto map, MapWorkDto work) =>
        map.Lanes[work.Lane] is { Kind: LaneKind.Value } lane ? lane.Label
        : map.Lanes[work.Lane].Kind == LaneKind.Others ? "others"
        : "none";
}
