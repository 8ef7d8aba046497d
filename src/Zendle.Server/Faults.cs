using Microsoft.AspNetCore.Diagnostics;
using Microsoft.Data.Sqlite;
using Zendle.Core.Reviews.Acts;
using Zendle.Index;
using Zendle.Server.Corpus;
using Zendle.Server.Features.Search;
using Zendle.Store.Files;
using Zendle.Store.Sqlite;

namespace Zendle.Server;

/// <summary>What a person is told of an exception that reached the end of a request.</summary>
internal static class Faults
{
    private const int SqliteConstraint = 19;

    /// <summary>The client has gone; nobody reads this status (as reverse proxies log it).</summary>
    private const int ClientGone = 499;

    /// <summary>Answers for the exception of a request.</summary>
    public static Task Answer(HttpContext http)
    {
        var e = http.Features.Get<IExceptionHandlerFeature>()?.Error;
        if (e is OperationCanceledException && http.RequestAborted.IsCancellationRequested)
        {
            http.Response.StatusCode = ClientGone;
            return Task.CompletedTask;
        }
        var (status, title, detail) = Of(e);
        return Problem(http, status, title, detail);
    }

    /// <summary>
    /// Whether an exception is an answer rather than a fault of Zendle: the person is told all there is to know, and the
    /// log keeps its room for what nobody expected.
    /// </summary>
    public static bool IsExpected(Exception e) => e is OperationCanceledException || Of(e).Status != 500;

    private static (int Status, string Title, string? Detail) Of(Exception? e) =>
        e switch
        {
            NotReadyException => (503, e.Message, null),
            UnreadableActException => (422, e.Message, "Other paths are not affected; nothing was changed."),
            BudgetSpentException => (
                422,
                e.Message,
                "Give truncated words more letters, or use fewer of them with NEAR; the list is unchanged."
            ),
            TooManyHeavyException => (
                429,
                e.Message,
                "Wait until one has ended; what you ask now is asked again then."
            ),
            BadHttpRequestException bad => (
                bad.StatusCode,
                bad.StatusCode == 413 ? "The request is too large." : "The request could not be read.",
                "Nothing was changed."
            ),
            NoRoomException => (
                507,
                DiskFull.Sentence,
                "Nothing of this was stored, and what was there before is safe. Free some room, then try again."
            ),
            not null when DiskFull.Is(e) => (
                507,
                DiskFull.Sentence,
                "Nothing of this was stored, and what was there before is safe. Free some room, then try again."
            ),
            not null when Find<SqliteException>(e) is { SqliteErrorCode: SqliteConstraint } => (
                409,
                "Someone else made the same change at the same moment.",
                "Look at the current state, then try again."
            ),
            _ => (
                500,
                "Something went wrong inside Zendle.",
                "Nothing you had done before is lost. Try again; the details are in the log."
            ),
        };

    private static T? Find<T>(Exception e)
        where T : Exception => e as T ?? (e.InnerException is { } inner ? Find<T>(inner) : null);

    /// <summary>Writes problem details.</summary>
    public static Task Problem(HttpContext http, int status, string title, string? detail)
    {
        http.Response.StatusCode = status;
        return http.Response.WriteAsJsonAsync(
            new
            {
                status,
                title,
                detail,
            },
            (System.Text.Json.JsonSerializerOptions?)null,
            "application/problem+json"
        );
    }
}
