using System.Text.Json;

namespace Zendle.Outside.World;

/// <summary>
/// A subtopic or neighbouring field, with the words its studies use. <c>Kind</c> names the grammar of its prose;
/// <c>Friend</c> marks fields that use the scenario's words in another sense.
/// </summary>
public sealed record Topic(
    string Key,
    string Area,
    string Kind,
    bool Core,
    double Weight,
    int Start,
    string[] Things,
    string[] Responses,
    string[] Factors,
    string[] Settings,
    string[] Keywords,
    string[] Titles,
    string[] Aims,
    string[] Findings,
    bool Friend = false,
    string[]? Groups = null,
    string[]? Outcomes = null,
    string[]? Pests = null
);

/// <summary>
/// Sentence frames of one kind of study: slots in braces, alternatives in brackets, and before a frame the years it
/// belongs to (<c>&lt;1990</c>, <c>&gt;2005</c>).
/// </summary>
public sealed record KindFrames(string[] Titles, string[] Aims, string[] Methods, string[] Findings, string[] Meanings);

/// <summary>Words that all fields share.</summary>
public sealed record SharedWords(
    string[] Places,
    Dictionary<string, string> Countries,
    string[] Plants,
    string[] Crops,
    string[] Habitats,
    string[] Seasons,
    Dictionary<string, string[]> Alan,
    Dictionary<string, string[]> Sky,
    Dictionary<string, string[]> Lamp,
    string[] Lapse,
    Dictionary<string, string> Journals,
    string[] Proceedings,
    string[] Series,
    string[] Publishers,
    string[] Families1,
    string[] Families2,
    string[] Givens,
    string[] Institutes,
    string[] Funders,
    Dictionary<string, string[]> Foreign,
    Dictionary<string, string[]> Translated,
    Dictionary<string, string[]> Neighbours
);

/// <summary>Sentences of running text, by section, with the same slots as titles and abstracts.</summary>
public sealed record SectionFrames(string[] Introduction, string[] Methods, string[] Results, string[] Discussion);

/// <summary>The made-up scenario, read from the files in <c>demo/</c>.</summary>
public sealed record Scenario(
    Topic[] Topics,
    Dictionary<string, KindFrames> Kinds,
    SharedWords Words,
    SectionFrames Sections
)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);

    /// <summary>Reads the scenario from a folder.</summary>
    public static Scenario Read(string folder)
    {
        T Part<T>(string name) => JsonSerializer.Deserialize<T>(File.ReadAllText(Path.Combine(folder, name)), Json)!;
        return new(
            Part<Topic[]>("topics.json"),
            Part<Dictionary<string, KindFrames>>("kinds.json"),
            Part<SharedWords>("words.json"),
            Part<SectionFrames>("sections.json")
        );
    }
}
