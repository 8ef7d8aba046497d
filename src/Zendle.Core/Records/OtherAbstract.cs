using System.Text.Json;
using System.Text.Json.Serialization;

namespace Zendle.Core.Records;

/// <summary>An abstract beside the one that was chosen: in another language, or a shorter one.</summary>
/// <param name="Text">The abstract, cleaned.</param>
/// <param name="Language">
/// Language as an ISO 639-2/B code: what the record says, else by its commonest words; null when neither tells.
/// </param>
[JsonConverter(typeof(OtherAbstractJson))]
public sealed record OtherAbstract(string Text, string? Language);

/// <summary>Reads what was written down before languages were kept, too: a text alone.</summary>
public sealed class OtherAbstractJson : JsonConverter<OtherAbstract>
{
    /// <inheritdoc />
    public override OtherAbstract Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType == JsonTokenType.String)
            return new(reader.GetString()!, null);
        using var written = JsonDocument.ParseValue(ref reader);
        return new(
            written.RootElement.GetProperty("t").GetString()!,
            written.RootElement.TryGetProperty("l", out var language) ? language.GetString() : null
        );
    }

    /// <inheritdoc />
    public override void Write(Utf8JsonWriter writer, OtherAbstract value, JsonSerializerOptions options)
    {
        writer.WriteStartObject();
        writer.WriteString("t", value.Text);
        if (value.Language is not null)
            writer.WriteString("l", value.Language);
        writer.WriteEndObject();
    }
}
