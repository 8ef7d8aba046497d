using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Microsoft.Net.Http.Headers;

namespace Zendle.Server;

/// <summary>
/// What every request must look like, declared once: what is not nullable is there, enumerations hold one of their
/// names, texts and lists have an end. Endpoints look only at what is particular to them.
/// </summary>
internal static class RequestShape
{
    /// <summary>Most bytes of a request's body; what takes files says so itself.</summary>
    public const long MostBytes = 4_000_000;

    private const int MostItems = 100_000,
        LongestText = 100_000,
        Deepest = 12;
    private static readonly ConcurrentDictionary<Type, PropertyInfo[]> Properties = new();
    private static readonly ConcurrentDictionary<Type, bool> Ours = new();

    // One of each for all: what the serializer has made for a type is shared between options that are alike in everything.
    private static readonly JsonStringEnumConverter ByName = new(namingPolicy: null, allowIntegerValues: false);
    private static readonly DefaultJsonTypeInfoResolver Demanding = new() { Modifiers = { Require } };

    /// <summary>How request bodies are read.</summary>
    public static void Configure(JsonSerializerOptions options)
    {
        options.Converters.Add(ByName);
        options.NumberHandling = JsonNumberHandling.Strict; // so that numbers are numbers in the interface's types too
        options.RespectNullableAnnotations = true;
        options.MaxDepth = 40;
        options.AllowOutOfOrderMetadataProperties = true; // the kind of an act may stand anywhere in it
        options.TypeInfoResolver = Demanding;
    }

    /// <summary>
    /// What is not nullable must be there. Numbers and yes-or-no that are left out are 0 and no; an enumeration has no
    /// such value.
    /// </summary>
    private static void Require(JsonTypeInfo type)
    {
        if (
            type.Kind != JsonTypeInfoKind.Object
            || type.Type.Namespace?.StartsWith("Zendle", StringComparison.Ordinal) != true
        )
            return;
        // Without this the reader would take a member of a closed set that names no kind for a fault of ours.
        if (type.Type.IsAbstract && type.PolymorphismOptions is { } closed)
            type.CreateObject = () => throw new JsonException($"“{closed.TypeDiscriminatorPropertyName}” is missing.");
        foreach (var property in type.Properties)
            if (
                property.AssociatedParameter is { HasDefaultValue: false } parameter
                && (property.PropertyType.IsEnum || (!property.PropertyType.IsValueType && !parameter.IsNullable))
            )
                property.IsRequired = true;
    }

    /// <summary>
    /// Refuses a body whose charset nobody knows, which the framework would take for a fault of ours.
    /// </summary>
    public static void UseKnownCharsets(this WebApplication app, Func<HttpContext, Task> refuse) =>
        app.Use(
            (http, next) =>
            {
                if (
                    http.Request.ContentType is not { Length: > 0 } written
                    || !MediaTypeHeaderValue.TryParse(written, out var type)
                    || !type.Charset.HasValue
                )
                    return next(http);
                try
                {
                    if (type.Encoding is not null)
                        return next(http);
                }
                catch (ArgumentException) { }
                return refuse(http);
            }
        );

    /// <summary>Looks at the arguments of every endpoint.</summary>
    public static async ValueTask<object?> Check(EndpointFilterInvocationContext call, EndpointFilterDelegate next)
    {
        foreach (var argument in call.Arguments)
            if (
                argument is not null
                && (argument is Enum || IsOurs(argument.GetType()) || argument is string)
                && Fault(argument, 0) is { } fault
            )
                return Problems.Of(400, fault, "Nothing was changed.");
        return await next(call);
    }

    /// <summary>What is wrong with a value or anything in it; null for nothing.</summary>
    private static string? Fault(object value, int depth)
    {
        switch (value)
        {
            case Enum e:
                return Enum.IsDefined(e.GetType(), e) ? null : $"“{e}” is not one of the values allowed here.";
            case string text:
                if (text.Length > LongestText)
                    return $"A text has {text.Length:N0} characters; at most {LongestText:N0} are read.";
                return text.Contains('\0', StringComparison.Ordinal) ? "A text contains an invalid character." : null;
            case IEnumerable items:
                var count = 0;
                foreach (var item in items)
                {
                    if (++count > MostItems)
                        return $"A list is longer than {MostItems:N0}.";
                    if (item is null)
                        return "A list has an empty entry.";
                    if (item is not (int or long or double or bool) && Fault(item, depth + 1) is { } inside)
                        return inside;
                }
                return null;
        }
        if (!IsOurs(value.GetType()))
            return null;
        if (depth > Deepest)
            return "The request is nested too deeply.";
        foreach (
            var property in Properties.GetOrAdd(
                value.GetType(),
                t =>
                    [
                        .. t.GetProperties(BindingFlags.Public | BindingFlags.Instance)
                            .Where(p => p.GetIndexParameters().Length == 0 && p.CanRead),
                    ]
            )
        )
            if (
                property.GetValue(value) is { } part
                && !part.GetType().IsPrimitive
                && Fault(part, depth + 1) is { } inside
            )
                return inside;
        return null;
    }

    /// <summary>Requests are records of this project; services are no records.</summary>
    private static bool IsOurs(Type type) =>
        Ours.GetOrAdd(
            type,
            t =>
                t.Namespace?.StartsWith("Zendle", StringComparison.Ordinal) == true
                && t.GetMethod("<Clone>$") is not null
        );
}
