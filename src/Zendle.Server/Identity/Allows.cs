using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Zendle.Server.Identity;

/// <summary>Whom an endpoint lets through; its last word on it counts. Told in the API's description.</summary>
/// <param name="Least">"anyone", "signed in", "reader", "screener", "owner" (of the review), or "curator".</param>
internal sealed record Allows(string Least)
{
    private const string Name = "x-allows";

    /// <summary>Writes it into the description of an operation.</summary>
    public static Task Tell(
        OpenApiOperation operation,
        OpenApiOperationTransformerContext context,
        CancellationToken cancel
    )
    {
        if (context.Description.ActionDescriptor.EndpointMetadata.OfType<Allows>().LastOrDefault() is { } allows)
        {
            operation.Extensions ??= new Dictionary<string, IOpenApiExtension>();
            operation.Extensions[Name] = new JsonNodeExtension(allows.Least);
        }
        return Task.CompletedTask;
    }
}
