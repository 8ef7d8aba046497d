using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Zendle.Outside.World;

/// <summary>A sentence as it was written.</summary>
/// <param name="Frame">The frame it was made from, as it stands in the scenario.</param>
/// <param name="Role">1 aim, 2 method, 3 finding, 4 meaning.</param>
/// <param name="Stage">Of a method: its stage.</param>
/// <param name="Text">What was written.</param>
public sealed record Sentence(string Frame, int Role, int Stage, string Text);

/// <summary>
/// Writes titles and sentences from frames: picks among a frame's alternatives, then fills its slots with words that
/// suit the study, the topic and the year (older studies speak of sodium lamps and sky brightness, newer ones of LEDs
/// and skyglow), and with the figures of the study.
/// </summary>
public sealed partial class Prose
{
    private const int FewestOwnTitles = 4;
    private readonly Scenario scenario;
    private readonly Topic topic;
    private readonly Study study;
    private readonly int year;
    private readonly Dice dice;
    private readonly SharedWords words;
    private readonly Dictionary<string, string> filled;
    private readonly HashSet<string> told = [];
    private readonly bool isPlant;

    /// <summary>Prose of one work.</summary>
    /// <param name="scenario">Frames and words.</param>
    /// <param name="topic">The topic.</param>
    /// <param name="study">What is reported.</param>
    /// <param name="year">Year of the work.</param>
    /// <param name="dice">The work's own dice: works that report one study word it each in their own way.</param>
    public Prose(Scenario scenario, Topic topic, Study study, int year, Dice dice)
    {
        (this.scenario, this.topic, this.study, this.year, this.dice) = (scenario, topic, study, year, dice);
        words = scenario.Words;
        isPlant = IsPlant(study.Things);
        var f = study.Figures;
        var (low, high) = f.Interval(study.Effect, study.Direction);
        // What the study is of is drawn from its own dice: every work that reports it speaks of the same flower.
        var own = new Dice(17).For("study words", study.Id);
        filled = new()
        {
            ["thing"] = study.Things,
            ["things"] = study.Things,
            ["taxon"] = isPlant
                ? own.Of([.. topic.Things.Where(t => !IsPlant(t)).DefaultIfEmpty("insects")])
                : study.Things,
            ["response"] = study.Response,
            ["factor"] = study.Factor,
            ["place"] = study.Place,
            ["country"] = study.Country,
            ["setting"] = study.Setting,
            ["group"] = study.Things,
            ["pest"] = study.Things,
            ["plant"] = words.Plants.Contains(study.Things) ? study.Things : own.Of(words.Plants),
            ["crop"] = words.Crops.Contains(study.Things) ? study.Things : own.Of(words.Crops),
            ["habitat"] = own.Of(words.Habitats),
            ["season"] = own.Of(words.Seasons),
            ["outcome"] = topic.Outcomes is { } outcomes ? own.Of(outcomes) : "ill health",
            ["lapse"] = own.Of(words.Lapse),
            ["k"] = Number(f.Samples),
            ["m"] = Number(f.Sites),
            ["per"] = Number(f.PerSite),
            ["treated"] = Number(f.Treated),
            ["control"] = Number(f.Control),
            ["from"] = Number(f.From),
            ["to"] = Number(f.To),
            ["years"] = Number(f.Years),
            ["p"] = Number(f.Variance),
            ["q"] = Number(f.Share),
            ["dist"] = Number(f.Distance),
            ["days"] = Number(f.Days),
            ["levels"] = Number(f.Levels),
            ["low"] = low < 0 ? "−" + Number(-low) : Number(low),
            ["high"] = Number(high),
            ["alan"] = ByAge(own, words.Alan),
            ["sky"] = ByAge(own, words.Sky),
            ["lamp"] = ByAge(own, words.Lamp),
        };
    }

    /// <summary>The sentences of the abstract, in order.</summary>
    public List<Sentence> Sentences { get; } = [];

    /// <summary>The frame of the title.</summary>
    public string TitleFrame { get; private set; } = "";

    /// <summary>A title; that of a review is a review's.</summary>
    public string Title(string type)
    {
        var kind = scenario.Kinds[KindOf(type)];
        var own = KindOf(type) == topic.Kind && topic.Titles.Length > 0 && dice.Chance(0.45);
        var frames = own
            ? Array.FindAll(topic.Titles, t => Suits(t) && TellsWhatWasStudied(t) && !PromisesAnotherFactor(t))
            : [];
        // Few of its own would make many studies sound alike.
        TitleFrame = dice.Of(frames.Length < FewestOwnTitles ? [.. frames, .. kind.Titles.Where(Suits)] : frames);
        return Fill(Rules(kind).Picked(TitleFrame, dice), title: true);
    }

    /// <summary>An abstract: aim, method, findings, meaning; older ones are shorter, notices have none.</summary>
    public string Abstract(string type)
    {
        if (type is "editorial" or "letter" or "correction" or "retraction notice")
            return "";
        if (year < 1985 && dice.Chance(0.45))
            return "";
        var kind = scenario.Kinds[KindOf(type)];
        // What a topic says of itself without a slot is said once in many works only.
        var isOwn = KindOf(type) == topic.Kind;
        var own = isOwn ? Array.FindAll(topic.Aims, a => a.Contains('{', StringComparison.Ordinal)) : [];
        Tell(1, own.Length > 0 && dice.Chance(0.25) ? own : kind.Aims, kind);
        if (year > 1995 && dice.Chance(0.35))
            Tell(1, kind.Aims, kind);
        if (year > 1972)
            foreach (var stage in Stages())
                Tell(2, Array.FindAll(kind.Methods, m => Frames.Stage(m) == stage), kind, stage);
        Tell(3, isOwn && topic.Findings.Length > 0 && dice.Chance(0.5) ? topic.Findings : kind.Findings, kind);
        if (year > 1980 && dice.Chance(0.55))
            Tell(3, kind.More, kind);
        if (dice.Chance(0.85))
            Tell(4, kind.Meanings, kind);
        return string.Join(' ', Sentences.Select(s => s.Text));
    }

    /// <summary>
    /// A frame without rules, in whatever language, told of the study. Names of landscapes are English; those of countries
    /// are the same in every language.
    /// </summary>
    public string Told(string frame) => Fill(frame);

    /// <summary>Paragraphs of a section: every sentence of it once, in an order of its own.</summary>
    public IReadOnlyList<string> Paragraphs(string[] frames, int perParagraph)
    {
        var rules = Rules(scenario.Kinds[topic.Kind]);
        return
        [
            .. frames
                .Where(Suits)
                .OrderBy(Frames.Stage)
                .ThenBy(_ => dice.Unit())
                .Chunk(perParagraph)
                .Select(c => string.Join(' ', c.Select(f => Fill(rules.Picked(f, dice))))),
        ];
    }

    /// <summary>Methods are told in order: what was set up, what was measured, what was reckoned.</summary>
    private IEnumerable<int> Stages() =>
        year < 1989 || dice.Chance(0.35) ? [1]
        : dice.Chance(0.6) ? [1, 2]
        : [1, 2, 3];

    private static readonly HashSet<string> EverydayWords =
    [
        "light",
        "lighting",
        "lamp",
        "lamps",
        "night",
        "street",
        "artificial",
        "with",
        "after",
        "load",
        "time",
    ];

    private string KindOf(string type) => type is "review" or "systematic review" ? "synthesis" : topic.Kind;

    private bool Suits(string frame) => Frames.Suits(frame, year, isPlant, study.Direction);

    /// <summary>A title that names a plant or a crop is of a study of one, or of its visitors.</summary>
    private bool TellsWhatWasStudied(string frame) =>
        !isPlant
        || !frame.Contains("{taxon}", StringComparison.OrdinalIgnoreCase)
        || frame.Contains("{plant}", StringComparison.OrdinalIgnoreCase);

    private bool IsPlant(string things) =>
        words.Plants.Contains(things) || words.Crops.Contains(things) || topic.Plants?.Contains(things) == true;

    /// <summary>
    /// Whether a title names what other studies of the topic looked at and this one did not: "Clouds amplify…" over a
    /// study of aerosols.
    /// </summary>
    private bool PromisesAnotherFactor(string title)
    {
        var said = WordsOf(title).ToArray();
        bool Names(string factor) =>
            WordsOf(factor)
                .Any(word =>
                    said.Any(s =>
                        s.StartsWith(word, StringComparison.Ordinal) || word.StartsWith(s, StringComparison.Ordinal)
                    )
                );
        return !Names(study.Factor) && topic.Factors.Any(Names);
    }

    private static IEnumerable<string> WordsOf(string text) =>
        text.ToLowerInvariant()
            .Split([' ', ',', ':', '?', '{', '}', '-'], StringSplitOptions.RemoveEmptyEntries)
            .Where(w => w.Length > 3 && !EverydayWords.Contains(w));

    private static Frames Rules(KindFrames kind) => new(kind.Parts);

    private void Tell(int role, string[] frames, KindFrames kind, int stage = 0)
    {
        var suited = Array.FindAll(frames, f => Suits(f) && !told.Contains(f));
        if (suited.Length == 0)
            return;
        // Nobody says the same thing twice in one abstract.
        var frame = dice.Of(suited);
        told.Add(frame);
        Sentences.Add(new(frame, role, stage, Fill(Rules(kind).Picked(frame, dice))));
    }

    private string Fill(string frame, bool title = false)
    {
        var text = new StringBuilder();
        for (var i = 0; i < frame.Length; i++)
        {
            if (frame[i] != '{')
            {
                text.Append(frame[i]);
                continue;
            }
            var end = frame.IndexOf('}', i);
            var slot = frame[(i + 1)..end];
            var word = Word(slot.ToLowerInvariant());
            if (title && slot.StartsWith("alan", StringComparison.OrdinalIgnoreCase))
                word = word.Replace(" (ALAN)", "", StringComparison.Ordinal);
            var starts = text.Length == 0 || (text.Length > 1 && text[^1] == ' ' && text[^2] is '.' or '?' or '!');
            text.Append(char.IsUpper(slot[0]) || starts ? char.ToUpperInvariant(word[0]) + word[1..] : word);
            i = end;
        }
        var whole = text.ToString();
        if (char.IsLower(whole[0]))
            whole = char.ToUpperInvariant(whole[0]) + whole[1..];
        return SoundsLikeVowel().Replace(whole.Replace("the the ", "the ", StringComparison.Ordinal), "$1n ");
    }

    private string Word(string slot) =>
        slot == "change" ? Change()
        : filled.TryGetValue(slot, out var known) ? known
        : throw new InvalidOperationException($"The scenario uses an unknown slot: {slot}.");

    /// <summary>What the study found, in words: its direction and size are facts of the study.</summary>
    private string Change()
    {
        var was = IsPlural(study.Response) ? "were" : "was";
        return (study.Direction, study.Effect) switch
        {
            (0, _) => dice.Of([
                "did not differ",
                "showed no difference that could be told from chance",
                "stayed the same",
                "did not change",
                "remained as before",
            ]),
            (< 0, > 60) => dice.Of([
                $"fell by {study.Effect} %",
                $"fell to {100 - study.Effect} % of the level without it",
                $"{was} {study.Effect} % lower",
                "all but ceased",
            ]),
            (< 0, var e) => dice.Of([
                $"fell by {e} %",
                $"{was} {e} % lower",
                $"declined by {e} %",
                $"dropped by {e} %",
                $"{was} reduced by {e} %",
            ]),
            (_, > 70) => dice.Of([
                $"rose by {study.Effect} %",
                string.Create(CultureInfo.InvariantCulture, $"{was} {1 + study.Effect / 100.0:0.0} times as high"),
                $"{was} {study.Effect} % higher",
            ]),
            (_, var e) => dice.Of([$"rose by {e} %", $"{was} {e} % higher", $"increased by {e} %", $"gained {e} %"]),
        };
    }

    /// <summary>
    /// "Flower visits" and "metaphors of flame" are many; "seed mass" and "catch per species" are one.
    /// </summary>
    private static bool IsPlural(string response) =>
        response.Split([" of ", " by ", " per "], StringSplitOptions.None)[0] is var head
        && head.EndsWith('s')
        && !head.EndsWith("ss", StringComparison.Ordinal);

    private static string Number(int number) => number.ToString(CultureInfo.InvariantCulture);

    private string ByAge(Dice own, Dictionary<string, string[]> ages) =>
        own.Of(
            ages.Where(a => int.Parse(a.Key, CultureInfo.InvariantCulture) <= year)
                .MaxBy(a => int.Parse(a.Key, CultureInfo.InvariantCulture))
                .Value
        );

    /// <summary>An 8, an 11, an 18 and an 80 are spoken with a vowel.</summary>
    [GeneratedRegex(@"\b([Aa]) (?=(?:8\d?|11|18)(?!\d))")]
    private static partial Regex SoundsLikeVowel();
}
