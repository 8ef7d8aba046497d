using System.Globalization;
using System.Text;

namespace Zendle.Outside.World;

/// <summary>Fills the frames of a topic with words that suit the topic and the year: older studies speak of sodium lamps and sky brightness, newer ones of LEDs and skyglow.</summary>
public sealed class Prose(SharedWords words, Topic topic, int year, Dice dice)
{
    private readonly Dictionary<string, string> filled = [];

    /// <summary>A title.</summary>
    public string Title() => Fill(dice.Of(topic.Titles), title: true);

    /// <summary>An abstract: aim, method, one or two findings, meaning; older ones are shorter.</summary>
    public string Abstract(string type)
    {
        if (type is "editorial" or "letter" or "correction" or "retraction notice") return "";
        if (year < 1985 && dice.Chance(0.45)) return "";
        var parts = new List<string> { Fill(dice.Of(topic.Aims)) };
        if (year > 1975) parts.Add(Fill(dice.Of(words.Methods)));
        var first = dice.Below(topic.Findings.Length);
        parts.Add(Fill(topic.Findings[first]));
        if (year > 1990 && dice.Chance(0.7)) parts.Add(Fill(topic.Findings[(first + 1) % topic.Findings.Length], fresh: true));
        parts.Add(Fill(dice.Of(topic.Core || dice.Chance(0.3) ? words.Meanings : words.PlainMeanings)));
        return string.Join(' ', parts);
    }

    private string Fill(string frame, bool title = false, bool fresh = false)
    {
        if (fresh) foreach (var key in new[] { "p", "q", "k", "m", "n", "response" }) filled.Remove(key);
        var text = new StringBuilder();
        for (var i = 0; i < frame.Length; i++)
        {
            if (frame[i] != '{') { text.Append(frame[i]); continue; }
            var end = frame.IndexOf('}', i);
            var slot = frame[(i + 1)..end];
            var word = Word(slot.ToLowerInvariant());
            if (title && slot.StartsWith("alan", StringComparison.OrdinalIgnoreCase)) word = word.Replace(" (ALAN)", "", StringComparison.Ordinal);
            text.Append(char.IsUpper(slot[0]) || (text.Length == 0 && char.IsLower(word[0])) ? char.ToUpperInvariant(word[0]) + word[1..] : word);
            i = end;
        }
        return text.ToString();
    }

    private string Word(string slot)
    {
        if (filled.TryGetValue(slot, out var known)) return known;
        return filled[slot] = slot switch
        {
            "taxon" => dice.Of(topic.Taxa),
            "response" => dice.Of(topic.Responses),
            "plant" => dice.Of(words.Plants),
            "crop" => dice.Of(words.Crops),
            "habitat" => dice.Of(words.Habitats),
            "place" => dice.Of(words.Places),
            "lapse" => dice.Of(words.Lapse),
            "group" => dice.Of(topic.Groups!),
            "outcome" => dice.Of(topic.Outcomes!),
            "pest" => dice.Of(topic.Pests!),
            "alan" => ByAge(words.Alan),
            "sky" => ByAge(words.Sky),
            "lamp" => ByAge(words.Lamp),
            "p" => Number(12, 78),
            "q" => Number(4, 41),
            "k" => Number(18, 480),
            "m" => Number(3, 28),
            "n" => $"{dice.Between(1, 6)}.{dice.Between(1, 9)}",
            "years" => Number(2, 24),
            _ => throw new InvalidOperationException($"The scenario uses an unknown slot: {slot}."),
        };
    }

    private string Number(int low, int high) => dice.Between(low, high).ToString(CultureInfo.InvariantCulture);

    private string ByAge(Dictionary<string, string[]> ages) =>
        dice.Of(ages.Where(a => int.Parse(a.Key, CultureInfo.InvariantCulture) <= year).MaxBy(a => int.Parse(a.Key, CultureInfo.InvariantCulture)).Value);
}
