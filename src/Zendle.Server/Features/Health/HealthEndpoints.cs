using Zendle.Server.Corpus;
using Zendle.Server.Features.Search;

namespace Zendle.Server.Features.Health;

/// <summary>What is remembered so that it need not be worked out again, in bytes; bounded, whatever is asked.</summary>
/// <param name="Sets">Sets of records and works.</param>
/// <param name="SetsMost">How many bytes of sets there may be.</param>
/// <param name="Answers">Answers and their orders.</param>
/// <param name="AnswersMost">How many bytes of answers there may be.</param>
/// <param name="WordsByEnd">The words by their ends, once somebody truncated at the start; no more than the corpus has.</param>
internal sealed record RememberedDto(long Sets, long SetsMost, long Answers, long AnswersMost, long WordsByEnd);

/// <summary>How Zendle is.</summary>
/// <param name="Doing">What it waits for while it is not ready, or while the demo is still being made.</param>
internal sealed record HealthDto(
    string Version,
    bool Ready,
    int Databases,
    int Records,
    int Works,
    int Citations,
    string? Fault,
    string? Doing,
    RememberedDto? Remembered = null
);

/// <summary>How far the demo is.</summary>
/// <param name="Doing">What is going on, in a sentence; null when it is made, or this is no demo.</param>
internal sealed record PreparingDto(string? Doing);

internal static class HealthEndpoints
{
    /// <summary>Tells those who have signed in already how far the demo is.</summary>
    public static void MapPreparing(this RouteGroupBuilder signedIn) =>
        signedIn.MapGet("/preparing", (StartUp start) => new PreparingDto(start.Preparing));

    public static void MapHealth(this WebApplication app) =>
        app.MapGet(
                "/health",
                (StartUp start, CorpusService corpus, SearchService search) =>
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
                            start.Preparing,
                            new(
                                snapshot.Remembered.Bytes,
                                snapshot.Remembered.Most,
                                search.Remembered.Bytes,
                                search.Remembered.Most,
                                snapshot.WordsByEnd
                            )
                        )
                    );
                }
            )
            .ExcludeFromDescription();
}
