using System.Globalization;
using System.Text;

namespace Zendle.Outside.World;

/// <summary>
/// Frames of sentences. One may begin with conditions in parentheses: a stage (<c>1</c> what was set up, <c>2</c> what
/// was measured, <c>3</c> what was reckoned), years (<c>before1990</c>, <c>after2005</c>), what was studied
/// (<c>animal</c>, <c>plant</c>), what was found (<c>down</c>, <c>up</c>, <c>changed</c> for either). Inside stand
/// alternatives in brackets, which may hold others, and rules in braces (<c>{#doubt}</c>), which stand for one of a list of frames.
/// </summary>
/// <param name="parts">The rules, by name.</param>
internal sealed class Frames(IReadOnlyDictionary<string, string[]> parts)
{
    private const int Deepest = 6;

    /// <summary>The stage of a frame; 0 for none.</summary>
    public static int Stage(string frame) =>
        frame.Length > 1 && frame[0] == '(' && char.IsAsciiDigit(frame[1]) ? frame[1] - '0' : 0;

    /// <summary>Whether the conditions of a frame hold.</summary>
    public static bool Suits(string frame, int year, bool isPlant, int direction)
    {
        if (
            frame.Length == 0
            || frame[0] != '('
            || frame.IndexOf(") ", StringComparison.Ordinal) is not (> 0 and var end)
        )
            return true;
        foreach (var condition in frame[1..end].Split(' '))
            if (
                condition switch
                {
                    "animal" => isPlant,
                    "plant" => !isPlant,
                    "down" => direction >= 0,
                    "up" => direction <= 0,
                    "changed" => direction == 0,
                    _ when condition.StartsWith("before", StringComparison.Ordinal) => year >= Number(condition, 6),
                    _ when condition.StartsWith("after", StringComparison.Ordinal) => year <= Number(condition, 5),
                    _ => false,
                }
            )
                return false;
        return true;

        static int Number(string text, int from) => int.Parse(text.AsSpan(from), CultureInfo.InvariantCulture);
    }

    /// <summary>A frame without its conditions.</summary>
    public static string Bare(string frame) =>
        frame.Length > 0 && frame[0] == '(' && frame.IndexOf(") ", StringComparison.Ordinal) is > 0 and var end
            ? frame[(end + 2)..]
            : frame;

    /// <summary>A frame with one of each set of alternatives and one of each rule; its slots stand still.</summary>
    public string Picked(string frame, Dice dice) => Picked(Bare(frame), dice, 0);

    private string Picked(string frame, Dice dice, int depth)
    {
        if (depth > Deepest)
            throw new InvalidOperationException($"The rules of the scenario go round in a circle: {frame}.");
        var text = new StringBuilder(frame.Length);
        for (var i = 0; i < frame.Length; i++)
            if (frame[i] == '[')
            {
                var (alternatives, end) = Alternatives(frame, i);
                text.Append(Picked(dice.Of(alternatives), dice, depth + 1));
                i = end;
            }
            else if (frame[i] == '{' && i + 1 < frame.Length && frame[i + 1] == '#')
            {
                var end = frame.IndexOf('}', i);
                text.Append(Picked(dice.Of(parts[frame[(i + 2)..end]]), dice, depth + 1));
                i = end;
            }
            else
                text.Append(frame[i]);
        return text.ToString();
    }

    private static (List<string> Alternatives, int End) Alternatives(string frame, int open)
    {
        var (found, depth, from) = (new List<string>(), 0, open + 1);
        for (var i = open; i < frame.Length; i++)
        {
            if (frame[i] == '[')
                depth++;
            else if (frame[i] == '|' && depth == 1)
            {
                found.Add(frame[from..i]);
                from = i + 1;
            }
            else if (frame[i] == ']' && --depth == 0)
            {
                found.Add(frame[from..i]);
                return (found, i);
            }
        }
        throw new InvalidOperationException($"A bracket of the scenario is not closed: {frame}.");
    }
}
