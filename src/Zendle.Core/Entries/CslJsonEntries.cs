using System.Text.Json;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// Reads CSL-JSON (CSL 1.0.2, csl-data): an array of items, one item, or an object that has such an array in it. A value
/// may be a text, a number or a list of texts, for services send all three.
/// </summary>
internal static class CslJsonEntries
{
    /// <summary>Its references; null where the text is no JSON with items in it.</summary>
    public static IReadOnlyList<EntryFields>? Read(string text)
    {
        try
        {
            using var document = JsonDocument.Parse(
                text,
                new()
                {
                    AllowTrailingCommas = true,
                    CommentHandling = JsonCommentHandling.Skip,
                    MaxDepth = 32,
                }
            );
            return Items(document.RootElement) is { } items ? [.. items.Where(IsItem).Select(Of)] : null;
        }
        catch (Exception e) when (e is JsonException or InvalidOperationException)
        {
            return null; // no JSON, or JSON with half a character in it
        }
    }

    private static IEnumerable<JsonElement>? Items(JsonElement root) =>
        root.ValueKind == JsonValueKind.Array ? (root.EnumerateArray().Any(IsItem) ? root.EnumerateArray() : null)
        : IsItem(root) ? [root]
        : root.ValueKind != JsonValueKind.Object ? null
        : root.EnumerateObject()
            .Where(p => p.Value.ValueKind == JsonValueKind.Array && p.Value.EnumerateArray().Any(IsItem))
            .Select(p => (IEnumerable<JsonElement>)p.Value.EnumerateArray())
            .FirstOrDefault();

    private static bool IsItem(JsonElement item) =>
        item.ValueKind == JsonValueKind.Object && (Text(item, "title").Length > 0 || Text(item, "DOI").Length > 0);

    private static EntryFields Of(JsonElement item)
    {
        var people = Names(item, "author");
        return EntryFields.Empty with
        {
            Title = Text(item, "title"),
            Type = DocumentTypes.Name(KindOf(Text(item, "type"))),
            People = people.Length > 0 ? people : Names(item, "editor"),
            Year = Year(item),
            Venue = Text(item, "container-title"),
            Volume = Text(item, "volume"),
            Issue = Text(item, "issue"),
            Pages = Text(item, "page"),
            Publisher = Text(item, "publisher"),
            Doi = Text(item, "DOI"),
            Isbn = Text(item, "ISBN"),
            Address = Text(item, "URL"),
            Language = Text(item, "language"),
            Keywords = Text(item, "keyword"),
            Abstract = Text(item, "abstract"),
        };
    }

    private static string Text(JsonElement item, string name) =>
        item.TryGetProperty(name, out var value) ? Text(value) : "";

    private static string Text(JsonElement value) =>
        value.ValueKind switch
        {
            JsonValueKind.String => ReferenceFile.Line(value.GetString()!),
            JsonValueKind.Number => value.GetRawText(),
            JsonValueKind.Array => value.EnumerateArray().Select(Text).FirstOrDefault(t => t.Length > 0) ?? "",
            _ => "",
        };

    /// <summary>One name in each line, family name first; an organisation as it is called.</summary>
    private static string Names(JsonElement item, string role)
    {
        if (!item.TryGetProperty(role, out var people) || people.ValueKind != JsonValueKind.Array)
            return "";
        return string.Join('\n', people.EnumerateArray().Select(Name).Where(n => n.Length > 0));
    }

    private static string Name(JsonElement person)
    {
        if (person.ValueKind != JsonValueKind.Object)
            return Text(person);
        var particles = $"{Text(person, "dropping-particle")} {Text(person, "non-dropping-particle")}".Trim();
        var family = $"{particles} {Text(person, "family")}".Trim();
        var given = Text(person, "given");
        return family.Length == 0 ? (Text(person, "literal") is { Length: > 0 } whole ? whole : given)
            : given.Length == 0 ? family
            : $"{family}, {given}";
    }

    /// <summary>The year of a date in parts, or of one that is written out.</summary>
    private static string Year(JsonElement item)
    {
        foreach (var name in (string[])["issued", "published", "published-print", "published-online", "year"])
        {
            if (!item.TryGetProperty(name, out var date))
                continue;
            if (date.ValueKind != JsonValueKind.Object)
            {
                if (ReferenceFile.YearOf(Text(date)) is { Length: > 0 } plain)
                    return plain;
                continue;
            }
            if (
                date.TryGetProperty("date-parts", out var parts)
                && parts.ValueKind == JsonValueKind.Array
                && parts.EnumerateArray().FirstOrDefault() is { ValueKind: JsonValueKind.Array } first
                && ReferenceFile.YearOf(Text(first)) is { Length: > 0 } year
            )
                return year;
            if (ReferenceFile.YearOf($"{Text(date, "raw")} {Text(date, "literal")}") is { Length: > 0 } written)
                return written;
        }
        return "";
    }

    private static DocumentType KindOf(string kind) =>
        kind switch
        {
            "paper-conference" => DocumentType.ConferencePaper,
            "article" or "posted-content" => DocumentType.Preprint,
            "entry-encyclopedia" => DocumentType.Chapter,
            _ => DocumentTypes.Read(kind),
        };
}
