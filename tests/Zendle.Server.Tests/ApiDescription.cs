using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Zendle.Server.Tests;

/// <summary>An operation of the API, as its description tells it.</summary>
/// <param name="Method">GET, POST …</param>
/// <param name="Path">The path with its places in braces.</param>
/// <param name="Allows">Whom it lets through; empty when nothing is said.</param>
/// <param name="Body">Schema of its JSON body; null for none.</param>
internal sealed record ApiOperation(string Method, string Path, string Allows, JsonNode? Body)
{
    /// <summary>The path with values in its places; what no value is given for is 1.</summary>
    public string At(params (string Place, object Value)[] values) =>
        Regex.Replace(
            values.Aggregate(
                Path.Replace("{facet}", "Type", StringComparison.Ordinal),
                (p, v) => p.Replace($"{{{v.Place}}}", $"{v.Value}", StringComparison.Ordinal)
            ),
            @"\{\w+\}",
            "1"
        );
}

/// <summary>The API as its description tells it, and bodies that fit.</summary>
internal static class ApiDescription
{
    public static JsonNode Whole { get; } =
        JsonNode.Parse(File.ReadAllText(Path.Combine(Root.Folder, "src/interface/api/openapi.json")))!;

    /// <summary>All operations.</summary>
    public static IEnumerable<ApiOperation> Operations =>
        from path in Whole["paths"]!.AsObject()
        from operation in path.Value!.AsObject()
        select new ApiOperation(
            operation.Key.ToUpperInvariant(),
            path.Key,
            operation.Value!["x-allows"]?.GetValue<string>() ?? "",
            operation.Value["requestBody"]?["content"]?["application/json"]?["schema"]
        );

    private static JsonNode Resolved(JsonNode schema) =>
        schema["$ref"] is { } reference ? Whole["components"]!["schemas"]![reference.GetValue<string>().Split('/')[^1]]!
        : schema["oneOf"]?.AsArray().FirstOrDefault(s => s!["$ref"] is not null) is { } one ? Resolved(one)
        : schema;

    /// <summary>How many kinds of bodies a schema allows: the members of the largest closed set among its parts.</summary>
    public static int Kinds(JsonNode schema)
    {
        var parts = Resolved(schema)["properties"]?.AsObject().Select(p => Resolved(p.Value!)) ?? [];
        return parts.Select(p => p["anyOf"]?.AsArray().Count ?? 1).DefaultIfEmpty(1).Max();
    }

    /// <summary>A value that fits a schema.</summary>
    /// <param name="schema">The schema.</param>
    /// <param name="name">Name of the property it is for.</param>
    /// <param name="step">A step of the review that is asked.</param>
    /// <param name="depth">How deep it lies.</param>
    /// <param name="member">Which member of a closed set is taken, counted from 0.</param>
    public static JsonNode? Fit(JsonNode schema, string name, int step, int depth = 0, int member = 0)
    {
        var s = Resolved(schema);
        if (s["anyOf"] is JsonArray members)
            return Fit(members[member % members.Count]!, name, step, depth, member);
        if (s["enum"] is JsonArray values)
            return values.First(v => v is not null)!.DeepClone();
        var type = s["type"] is JsonArray several
            ? several.Select(t => t!.GetValue<string>()).First(t => t != "null")
            : s["type"]?.GetValue<string>() ?? "object";
        return type switch
        {
            "string" => s["format"]?.GetValue<string>() == "uuid" ? $"{Guid.Empty}"
            : s["format"]?.GetValue<string>() == "date" ? "2026-11-29"
            : name is "name" ? "ann"
            : "moth*",
            "integer" => name.Contains("step", StringComparison.OrdinalIgnoreCase) || name == "parentId" ? step : 1,
            "number" => 1,
            "boolean" => true,
            "array" => depth > 3 ? new JsonArray() : new JsonArray(Fit(s["items"]!, name, step, depth + 1, member)),
            _ => depth > 3
                ? null
                : new JsonObject(
                    s["properties"]
                        ?.AsObject()
                        .Select(p => KeyValuePair.Create(p.Key, Fit(p.Value!, p.Key, step, depth + 1, member)))
                        ?? []
                ),
        };
    }
}
