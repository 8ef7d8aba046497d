using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;

namespace Zendle.Core.Reviews.Acts;

/// <summary>
/// How acts are written down: JSON (RFC 8259) with the kind of the act, its parts and the version of this form. What
/// earlier versions wrote is read by bringing it up to this version, one version at a time.
/// </summary>
/// <remarks>
/// Version 0 had no number: one bag with the parts of all kinds, most of them null; and states written as they were
/// folded. Version 1 has a type for each kind.
/// </remarks>
public static class StoredActs
{
    /// <summary>The version that is written.</summary>
    public const int Version = 1;

    private const string Mark = "version";

    /// <summary>How acts are read and written, also where they travel.</summary>
    public static JsonSerializerOptions Json { get; } =
        new(JsonSerializerDefaults.Web)
        {
            Converters = { new JsonStringEnumConverter() },
            DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
            AllowOutOfOrderMetadataProperties = true,
        };

    /// <summary>Writes an act down; equal acts give equal texts.</summary>
    public static string Write(StepAct act) => $"{{\"{Mark}\":{Version},{JsonSerializer.Serialize(act, Json)[1..]}";

    /// <summary>Reads an act that was written down.</summary>
    /// <exception cref="UnreadableActException">It is no act, or a later version of Zendle wrote it.</exception>
    public static StepAct Read(string stored) =>
        Readable(() => Current(Parsed(stored)).Deserialize<StepAct>(Json) ?? throw new JsonException("No act."));

    /// <summary>
    /// Ids of the works that an act names one by one; none when it cannot be read: what looks at every step must not end
    /// at a damaged one.
    /// </summary>
    public static IEnumerable<int> WorksIn(string stored)
    {
        try
        {
            return Read(stored).NamedWorks();
        }
        catch (UnreadableActException)
        {
            return [];
        }
    }

    /// <summary>Writes several acts down, such as those that lead to a state.</summary>
    public static string WriteAll(IEnumerable<StepAct> acts) =>
        $"{{\"{Mark}\":{Version},\"acts\":{JsonSerializer.Serialize(acts, Json)}}}";

    /// <summary>Reads several acts that were written down.</summary>
    /// <exception cref="UnreadableActException">They are no acts, or a later version of Zendle wrote them.</exception>
    public static IReadOnlyList<StepAct> ReadAll(string stored) =>
        Readable(() =>
            CurrentState(Parsed(stored))["acts"].Deserialize<List<StepAct>>(Json) ?? throw new JsonException("No acts.")
        );

    /// <summary>What an act of any version is written as today.</summary>
    /// <inheritdoc cref="Read" path="/exception"/>
    public static string Upgraded(string stored) => Write(Read(stored));

    /// <summary>What a state of any version is written as today: as the acts that lead to it.</summary>
    /// <inheritdoc cref="ReadAll" path="/exception"/>
    public static string UpgradedState(string stored) => WriteAll(SearchState.Of(ReadAll(stored)).Acts());

    private static T Readable<T>(Func<T> read)
    {
        try
        {
            return read();
        }
        catch (Exception e) when (e is JsonException or NotSupportedException or InvalidOperationException)
        {
            throw new UnreadableActException(e);
        }
    }

    private static JsonObject Parsed(string stored) =>
        JsonNode.Parse(stored) as JsonObject ?? throw new JsonException("What was written down is no object.");

    private static int VersionOf(JsonObject written) =>
        written[Mark]?.GetValue<int>() switch
        {
            null => 0,
            > Version => throw new NotSupportedException(
                "This was written down by a later version of Zendle; this one cannot read it."
            ),
            var version => version.Value,
        };

    private static JsonObject Current(JsonObject act) => VersionOf(act) == 0 ? OutOfTheBag(act) : act;

    private static JsonObject CurrentState(JsonObject state) => VersionOf(state) == 0 ? ActsOf(state) : state;

    /// <summary>An act of version 0: of all parts those of its kind, under their names of today.</summary>
    private static JsonObject OutOfTheBag(JsonObject bag)
    {
        var kind = bag["kind"]?.GetValue<string>() ?? throw new JsonException("The act has no kind.");
        var act = new JsonObject { ["kind"] = kind };
        string[] parts = kind switch
        {
            "Search" or "Add" => ["expression"],
            "Databases" => ["databases"],
            "Years" => ["from", "to"],
            "Narrow" => ["facet", "values", "excluded"],
            "Trail" => ["seeds", "way"],
            "Way" => ["way"],
            "Ties" => ["atLeast"],
            "Compare" => ["other", "apart", "said"],
            "Among" => ["said"],
            _ => [],
        };
        foreach (var part in parts)
            if (bag[part] is { } value)
                act[part] =
                    part == "other"
                        ? new JsonArray([.. value.AsArray().Select(a => OutOfTheBag(a!.AsObject()))])
                        : value.DeepClone();
        if (kind == "Inside" && bag["values"] is { } words)
            act["words"] = words.DeepClone();
        if (kind == "Among" && bag["seeds"] is { } works)
            act["works"] = works.DeepClone();
        return act;
    }

    /// <summary>A state of version 0, which was written part by part, as acts that lead to it.</summary>
    private static JsonObject ActsOf(JsonObject state)
    {
        var acts = new JsonArray();
        void Act(string kind, params (string Part, JsonNode? Value)[] parts)
        {
            var act = new JsonObject { ["kind"] = kind };
            foreach (var (part, value) in parts)
                if (value is not null)
                    act[part] = value.DeepClone();
            acts.Add(act);
        }
        IEnumerable<JsonNode> Several(string part) => (state[part] as JsonArray ?? []).OfType<JsonNode>();
        if (state["trail"] is JsonObject trail)
        {
            Act("Trail", ("seeds", trail["seeds"]), ("way", trail["way"]));
            Act("Ties", ("atLeast", trail["atLeast"]));
        }
        else
            Act("Search", ("expression", state["expression"] ?? throw new JsonException("The state asks nothing.")));
        if (Several("databases").Any())
            Act("Databases", ("databases", state["databases"]));
        if (state["from"] is not null || state["to"] is not null)
            Act("Years", ("from", state["from"]), ("to", state["to"]));
        foreach (var n in Several("narrowings"))
            Act("Narrow", ("facet", n["facet"]), ("values", n["values"]), ("excluded", n["excluded"]));
        if (Several("inside").Any())
            Act("Inside", ("words", state["inside"]));
        foreach (var other in Several("others"))
            Act(
                "Compare",
                ("other", new JsonArray([.. other["acts"]!.AsArray().Select(a => OutOfTheBag(a!.AsObject()))])),
                ("apart", other["apart"]),
                ("said", other["said"])
            );
        if (state["among"] is JsonArray among)
            Act("Among", ("works", among));
        return new() { ["acts"] = acts };
    }
}
