using Zendle.Server.Corpus;

namespace Zendle.Server.Features.Health;

internal sealed record HealthDto(
    string Version,
    bool Ready,
    int Databases,
    int Records,
    int Works,
    int Citations,
    string? Fault,
    string? Doing
);

internal static class HealthEndpoints
{
    public static void MapHealth(this WebApplication app) =>
        app.MapGet(
                "/health",
                (StartUp start, CorpusService corpus) =>
                {
                    var version = typeof(HealthEndpoints).Assembly.GetName().Version!.ToString(3);
                    if (!start.IsReady)
                        return TypedResults.Json(
                            new HealthDto(version, false, 0, 0, 0, 0, start.Fault, start.Doing),
                            statusCode: 503
                        );
                    using var snapshot = corpus.Snapshot();
                    return TypedResults.Json(
                        new HealthDto(
                            version,
                            true,
                            snapshot.DatabaseNames.Count,
                            snapshot.Columns.Records,
                            snapshot.Columns.Works,
                            snapshot.Columns.Graph.Ties,
                            null,
                            null
                        )
                    );
                }
            )
            .ExcludeFromDescription();
}
