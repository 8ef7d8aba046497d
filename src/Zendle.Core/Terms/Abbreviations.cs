using System.Text.RegularExpressions;

namespace Zendle.Core.Terms;

/// <summary>An abbreviation and what it stands for, as a text gives both.</summary>
/// <param name="Short">The abbreviation: "HSF".</param>
/// <param name="Long">What it stands for: "heat shock transcription factor".</param>
public readonly record struct Abbreviation(string Short, string Long);

/// <summary>
/// Finds abbreviations that a text explains, by one of the two standing in brackets behind the other (Schwartz and Hearst
/// 2003, "A simple algorithm for identifying abbreviation definitions in biomedical text").
/// </summary>
public static partial class Abbreviations
{
    private const int Shortest = 2,
        Longest = 10,
        MostWords = 2;

    /// <summary>The abbreviations of a text, in the order they stand. O(length).</summary>
    public static IEnumerable<Abbreviation> In(string text)
    {
        foreach (Match brackets in Brackets().Matches(text))
        {
            // What follows a comma or semicolon in the brackets is another matter: "(ALAN; see below)".
            var inside = brackets.Groups[1].Value.Split(',', ';')[0].Trim();
            var before = LastSentence(text[..brackets.Index]);
            if (IsShort(inside))
            {
                var most = Math.Min(inside.Length + 5, inside.Length * 2);
                if (LongFormOf(inside, string.Join(' ', LastWords(before, most))) is { } found)
                    yield return new(inside, found);
            }
            // The other way round: "ALAN (artificial light at night)".
            else if (
                LastWords(before, 1) is [var word]
                && IsShort(word)
                && word.Any(char.IsUpper)
                && LongFormOf(word, inside) is { } whole
                && whole.Length == inside.Length
            )
                yield return new(word, whole);
        }
    }

    /// <summary>
    /// The shortest end of some words that has the letters and digits of the abbreviation in their order, the first of
    /// them at the beginning of a word; null when none has.
    /// </summary>
    private static string? LongFormOf(string abbreviation, string words)
    {
        var at = words.Length - 1;
        for (var s = abbreviation.Length - 1; s >= 0; s--)
        {
            if (!char.IsLetterOrDigit(abbreviation[s]))
                continue;
            var wanted = char.ToLowerInvariant(abbreviation[s]);
            while (
                at >= 0
                && (
                    char.ToLowerInvariant(words[at]) != wanted
                    || (s == 0 && at > 0 && char.IsLetterOrDigit(words[at - 1]))
                )
            )
                at--;
            if (at < 0)
                return null;
            at--;
        }
        var found = words[(words.LastIndexOf(' ', Math.Max(at, 0)) + 1)..].Trim('“', '”', '"', '\'', '‘', '’', ' ');
        var parts = found.Split(' ');
        return
            found.Length > abbreviation.Length
            && parts.Length <= Math.Min(abbreviation.Length + 5, abbreviation.Length * 2)
            && !parts.Contains(abbreviation, StringComparer.OrdinalIgnoreCase)
            ? found
            : null;
    }

    private static bool IsShort(string text) =>
        text.Length is >= Shortest and <= Longest
        && char.IsLetterOrDigit(text[0])
        && text.Any(char.IsLetter)
        && text.Split(' ').Length <= MostWords
        // An abbreviation is not written like a word of the sentence: "(see)", "(moths)".
        && text.Skip(1).Any(c => char.IsUpper(c) || char.IsDigit(c));

    private static string[] LastWords(string text, int most) =>
        text.Split(' ', StringSplitOptions.RemoveEmptyEntries).TakeLast(most).ToArray();

    private static string LastSentence(string text)
    {
        var from = text.LastIndexOfAny(['.', ';', ':', '(', ')', '?', '!']);
        return from < 0 ? text : text[(from + 1)..];
    }

    [GeneratedRegex(@"\(([^()]{2,120})\)")]
    private static partial Regex Brackets();
}
