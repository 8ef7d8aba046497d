using System.Globalization;
using System.Text;

namespace Zendle.Outside.World;

/// <summary>
/// Writes titles and sentences from frames: picks among a frame's alternatives, then fills its slots with words that
/// suit the study, the topic and the year (older studies speak of sodium lamps and sky brightness, newer ones of LEDs
/// and skyglow).
/// </summary>
/// <remarks>
/// What stands after the alternatives were picked and before the slots are filled is a sentence's skeleton;
/// <see cref="Skeletons"/> collects them, so that repetition can be counted.
/// </remarks>
public sealed class Prose(Scenario scenario, Topic topic, Study study, int year, Dice dice)
{
    private const int FewestOwnTitles = 4;
    private static readonly string[] Fresh = ["p", "q", "k", "m", "n", "below", "above"];
    private readonly SharedWords words = scenario.Words;
    private readonly Dictionary<string, string> filled = new()
    {
        ["thing"] = study.Things,
        ["things"] = study.Things,
        ["taxon"] = study.Things,
        ["response"] = study.Response,
        ["factor"] = study.Factor,
        ["place"] = study.Place,
        ["setting"] = study.Setting,
        ["k"] = study.Samples.ToString(CultureInfo.InvariantCulture),
        ["years"] = study.Years.ToString(CultureInfo.InvariantCulture),
    };

    private readonly HashSet<string> told = [];

    /// <summary>The skeletons of the sentences written so far, titles aside.</summary>
    public List<string> Skeletons { get; } = [];

    /// <summary>A title; that of a review is a review's.</summary>
    public string Title(string type)
    {
        var kind = scenario.Kinds[type is "review" or "systematic review" ? "synthesis" : topic.Kind];
        var own = type is not ("review" or "systematic review") && topic.Titles.Length > 0 && dice.Chance(0.45);
        var frames = own ? Array.FindAll(topic.Titles, t => Belongs(t) && !PromisesAnotherFactor(t)) : [];
        // Few of its own would make many studies sound alike.
        return Fill(
            Picked(Suited(frames.Length < FewestOwnTitles ? [.. frames, .. kind.Titles] : frames)),
            title: true
        );
    }

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

    /// <summary>An abstract: aim, method, findings, meaning; older ones are shorter, notices have none.</summary>
    public string Abstract(string type)
    {
        if (type is "editorial" or "letter" or "correction" or "retraction notice")
            return "";
        if (year < 1985 && dice.Chance(0.45))
            return "";
        var kind = scenario.Kinds[type is "review" or "systematic review" ? "synthesis" : topic.Kind];
        var parts = new List<string> { Sentence(topic.Aims.Length > 0 && dice.Chance(0.4) ? topic.Aims : kind.Aims) };
        if (year > 1995 && dice.Chance(0.35))
            parts.Add(Sentence(kind.Aims));
        if (year > 1972)
            parts.Add(Sentence(kind.Methods));
        if (year > 1988 && dice.Chance(0.45))
            parts.Add(Sentence(kind.Methods));
        parts.Add(Sentence(kind.Findings));
        if (topic.Findings.Length > 0 && dice.Chance(0.5))
            parts.Add(Sentence(topic.Findings));
        if (year > 1980 && dice.Chance(0.3))
            parts.Add(Sentence(kind.Findings));
        if (dice.Chance(0.85))
            parts.Add(Sentence(kind.Meanings));
        return string.Join(' ', parts.Distinct());
    }

    /// <summary>Paragraphs of a section: every sentence of it once, in an order of its own, filled anew.</summary>
    public IReadOnlyList<string> Paragraphs(string[] frames, int perParagraph)
    {
        var order = frames.OrderBy(_ => dice.Unit()).ToArray();
        return
        [
            .. order.Chunk(perParagraph).Select(c => string.Join(' ', c.Select(f => Fill(Picked(f), fresh: true)))),
        ];
    }

    private string Sentence(string[] frames)
    {
        // Nobody says the same thing twice in one abstract with another figure.
        var frame = Suited(frames);
        for (var tries = 0; !told.Add(frame) && tries < 20; tries++)
            frame = Suited(frames);
        var skeleton = Picked(frame);
        Skeletons.Add(skeleton);
        return Fill(skeleton, fresh: Skeletons.Count > 1);
    }

    /// <summary>One of the frames that belong to the year, without its mark of years. One of them must.</summary>
    private string Suited(string[] frames)
    {
        while (true)
            if (dice.Of(frames) is var frame && Belongs(frame))
                return frame[0] is '<' or '>' ? frame[6..] : frame;
    }

    private bool Belongs(string frame) =>
        frame[0] switch
        {
            '<' => year < int.Parse(frame.AsSpan(1, 4), CultureInfo.InvariantCulture),
            '>' => year > int.Parse(frame.AsSpan(1, 4), CultureInfo.InvariantCulture),
            _ => true,
        };

    private string Picked(string frame)
    {
        if (!frame.Contains('[', StringComparison.Ordinal))
            return frame;
        var text = new StringBuilder();
        for (var i = 0; i < frame.Length; i++)
        {
            if (frame[i] != '[')
            {
                text.Append(frame[i]);
                continue;
            }
            var end = frame.IndexOf(']', i);
            text.Append(dice.Of(frame[(i + 1)..end].Split('|')));
            i = end;
        }
        return text.ToString();
    }

    private string Fill(string frame, bool title = false, bool fresh = false)
    {
        if (fresh)
            foreach (var key in Fresh)
                filled.Remove(key);
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
        return text.ToString();
    }

    private string Word(string slot)
    {
        if (slot == "change")
            return Change();
        if (filled.TryGetValue(slot, out var known))
            return known;
        return filled[slot] = slot switch
        {
            "plant" => dice.Of(words.Plants),
            "crop" => dice.Of(words.Crops),
            "habitat" => dice.Of(words.Habitats),
            "season" => dice.Of(words.Seasons),
            "lapse" => dice.Of(words.Lapse),
            "group" => dice.Of(topic.Groups!),
            "outcome" => dice.Of(topic.Outcomes!),
            "pest" => dice.Of(topic.Pests!),
            "alan" => ByAge(words.Alan),
            "sky" => ByAge(words.Sky),
            "lamp" => ByAge(words.Lamp),
            "low" => study.Direction == 0
                ? $"−{dice.Between(3, 11)}"
                : $"{Math.Max(1, study.Effect - dice.Between(2, 9))}",
            "high" => $"{study.Effect + dice.Between(2, 9)}",
            "below" => Around(-1),
            "above" => Around(1),
            "p" => Number(12, 78),
            "q" => Number(4, 41),
            "k" => Number(18, 480),
            "m" => Number(3, 28),
            "n" => $"{dice.Between(1, 6)}.{dice.Between(1, 9)}",
            _ => throw new InvalidOperationException($"The scenario uses an unknown slot: {slot}."),
        };
    }

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

    /// <summary>The end of an interval on one side of the figure that was written before it.</summary>
    private string Around(int side) =>
        (int.Parse(Word("p"), CultureInfo.InvariantCulture) + side * dice.Between(3, 9)).ToString(
            CultureInfo.InvariantCulture
        );

    private string Number(int low, int high) => dice.Between(low, high).ToString(CultureInfo.InvariantCulture);

    private string ByAge(Dictionary<string, string[]> ages) =>
        dice.Of(
            ages.Where(a => int.Parse(a.Key, CultureInfo.InvariantCulture) <= year)
                .MaxBy(a => int.Parse(a.Key, CultureInfo.InvariantCulture))
                .Value
        );
}
