using System.Text.Json;
using System.Text.Json.Serialization;

namespace Zendle.Server;

/// <summary>
/// How what Zendle keeps as JSON in a column (ledgers of runs, reports of harvests) is written down. Acts have a form of
/// their own: <see cref="Core.Reviews.Acts.StoredActs"/>.
/// </summary>
internal static class StoredJson
{
    /// <summary>Names in camel case, enumerations by name.</summary>
    public static JsonSerializerOptions Options { get; } =
        new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter() } };
}
