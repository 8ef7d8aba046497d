using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Zendle.Server;

/// <summary>
/// Says of closed sets (acts) in the API description what its generator leaves out, so that types made of it can be told
/// apart by their kind.
/// </summary>
internal static class KindsAreTold
{
    private const string Kind = "kind";

    /// <summary>Each member names its kind, as reading one requires.</summary>
    public static Task Require(OpenApiDocument document, OpenApiDocumentTransformerContext _, CancellationToken __)
    {
        foreach (var schema in (document.Components?.Schemas?.Values ?? []).OfType<OpenApiSchema>())
            if (schema.Properties?.TryGetValue(Kind, out var kind) == true && kind.Enum?.Count == 1)
                (schema.Required ??= new HashSet<string>()).Add(Kind);
        return Task.CompletedTask;
    }

    /// <summary>
    /// A list of numbers is told as one in every member: the generator tells a type once in a closed set, and points
    /// there from the other members in a way that gets lost.
    /// </summary>
    public static async Task Repeat(
        OpenApiSchema schema,
        OpenApiSchemaTransformerContext context,
        CancellationToken cancel
    )
    {
        if (context.JsonPropertyInfo?.PropertyType != typeof(IReadOnlyList<int>) || schema.Type is not null)
            return;
        var numbers = await context.GetOrCreateSchemaAsync(typeof(int[]), null, cancel);
        (schema.Type, schema.Items) = (numbers.Type, numbers.Items);
    }
}
