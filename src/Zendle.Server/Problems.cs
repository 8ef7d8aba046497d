using Microsoft.AspNetCore.Http.HttpResults;

namespace Zendle.Server;

/// <summary>Errors as RFC 9457 problem details with a sentence that a researcher understands.</summary>
internal static class Problems
{
    /// <summary>A problem.</summary>
    /// <param name="status">HTTP status.</param>
    /// <param name="sentence">What happened.</param>
    /// <param name="act">What to do; null when there is nothing.</param>
    public static ProblemHttpResult Of(int status, string sentence, string? act = null) =>
        TypedResults.Problem(statusCode: status, title: sentence, detail: act);
}
