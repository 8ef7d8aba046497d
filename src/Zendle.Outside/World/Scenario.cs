using System.Text.Json;

namespace Zendle.Outside.World;

/// <summary>A subtopic or neighbouring field, with the words its studies use.</summary>
public sealed record Topic(string Key, string Area, bool Core, double Weight, int Start, string[] Titles, string[] Aims, string[] Findings, string[] Taxa, string[] Responses,
    string[] Keywords, bool Friend = false, string[]? Groups = null, string[]? Outcomes = null, string[]? Pests = null);

/// <summary>Words that all fields share.</summary>
public sealed record SharedWords(string[] Places, string[] Plants, string[] Crops, string[] Habitats, Dictionary<string, string[]> Alan, Dictionary<string, string[]> Sky,
    Dictionary<string, string[]> Lamp, string[] Lapse, string[] Methods, string[] Meanings, string[] PlainMeanings, Dictionary<string, string> Journals, string[] Publishers,
    string[] Families1, string[] Families2, string[] Givens, string[] Institutes, string[] Funders, Dictionary<string, string[]> Foreign, Dictionary<string, string[]> Translated);

/// <summary>The made-up scenario, read from the files in <c>demo/</c>.</summary>
public sealed record Scenario(Topic[] Topics, SharedWords Words)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Reads the scenario from a folder.</summary>
    public static Scenario Read(string folder) => new(
        JsonSerializer.Deserialize<Topic[]>(File.ReadAllText(Path.Combine(folder, "topics.json")), Json)!,
        JsonSerializer.Deserialize<SharedWords>(File.ReadAllText(Path.Combine(folder, "words.json")), Json)!);
}
