using System.Text.Json;

namespace Zendle.Outside.World;

/// <summary>
/// A subtopic or neighbouring field, with the words its studies use. <c>Kind</c> names the grammar of its prose;
/// <c>Friend</c> marks fields that use the scenario's words in another sense; <c>Fits</c> says of what a response can be
/// measured where not of all things (<c>@plants</c> and <c>@crops</c> stand for those words); <c>Plants</c> tells which
/// things are plants.
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
    string[]? Pests = null,
    string[]? Plants = null,
    Dictionary<string, string[]>? Fits = null
);

/// <summary>Sentence frames of one kind of study, see <c>Frames</c>.</summary>
/// <param name="Titles">Titles.</param>
/// <param name="Parts">Rules that frames may use, by name.</param>
/// <param name="Aims">What was asked.</param>
/// <param name="Methods">What was done, each with its stage.</param>
/// <param name="Findings">What was found of the effect.</param>
/// <param name="More">What else was seen; nothing of the effect's size.</param>
/// <param name="Meanings">What it means.</param>
public sealed record KindFrames(
    string[] Titles,
    Dictionary<string, string[]> Parts,
    string[] Aims,
    string[] Methods,
    string[] Findings,
    string[] More,
    string[] Meanings
);

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

/// <summary>
/// Sentences of running text of one kind of study, by section, with the same slots as titles and abstracts. Those of the
/// scenario's own topics stand under "core".
/// </summary>
public sealed record SectionFrames(string[] Introduction, string[] Methods, string[] Results, string[] Discussion);

/// <summary>The made-up scenario, read from the files in <c>demo/</c>.</summary>
public sealed record Scenario(
    Topic[] Topics,
    Dictionary<string, KindFrames> Kinds,
    SharedWords Words,
    Dictionary<string, SectionFrames> Sections
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
            Part<Dictionary<string, SectionFrames>>("sections.json")
        );
    }
}
