using System.Text;

namespace Zendle.Documents.Pdf;

/// <summary>
/// Letters that are raised above their line, while the line is put together: between two marks that no text has. What is
/// raised may be a number that cites, a mark behind a name, a power, or the letters of an ordinal.
/// </summary>
internal static class RaisedText
{
    private const char Begin = '\uE010',
        End = '\uE011';

    /// <summary>So much smaller than the line is a letter that may be raised.</summary>
    public const double Smaller = 0.82;

    private const double LeastRise = 0.12,
        MostRise = 0.75;

    /// <summary>Fewest letters of the word before a number that cites: behind fewer it is a power, as of a unit.</summary>
    private const int FewestBefore = 3;

    /// <summary>Whether a letter is raised above a line.</summary>
    /// <param name="rise">How far above the line it stands, in points.</param>
    /// <param name="size">Its size.</param>
    /// <param name="line">Size of the line.</param>
    public static bool Is(double rise, double size, double line) =>
        size <= line * Smaller && rise >= line * LeastRise && rise <= line * MostRise;

    /// <summary>What a letter stands for; fonts of signs have letters of private use, which would be taken for marks.</summary>
    public static string Plain(string letter) =>
        letter.AsSpan().ContainsAny(Begin, End) ? letter.Replace(Begin, '\uFFFD').Replace(End, '\uFFFD') : letter;

    /// <summary>Adds a raised letter to a line.</summary>
    public static void Add(StringBuilder line, string letter)
    {
        if (line.Length > 0 && line[^1] == End)
            line.Length--;
        else
            line.Append(Begin);
        line.Append(letter).Append(End);
    }

    /// <summary>The line as its words are: without raised numbers and marks; raised letters of a word stay.</summary>
    public static string Words(string line) => Written(line, (raised, _) => IsMark(raised) ? "" : raised);

    /// <summary>The line with raised numbers in brackets, where they may cite; null where none is raised.</summary>
    public static string? WithNumbers(string line) =>
        line.Contains(Begin, StringComparison.Ordinal)
            ? Written(
                line,
                (raised, before) =>
                    !IsMark(raised) ? raised
                    : IsNumbers(raised) && MayCite(before) ? $"[{raised.Trim()}]"
                    : ""
            )
            : null;

    private static string Written(string line, Func<string, StringBuilder, string> write)
    {
        if (!line.Contains(Begin, StringComparison.Ordinal))
            return line;
        var text = new StringBuilder(line.Length);
        for (var i = 0; i < line.Length; i++)
        {
            if (line[i] != Begin)
            {
                text.Append(line[i]);
                continue;
            }
            var end = line.IndexOf(End, i);
            text.Append(write(line[(i + 1)..end], text));
            i = end;
        }
        return text.ToString();
    }

    /// <summary>Numbers, signs and single letters, as they stand behind names and sentences; no letters of a word.</summary>
    private static bool IsMark(string raised)
    {
        for (var i = 0; i < raised.Length; i++)
            if (char.IsLetter(raised[i]) && ((i > 0 && char.IsLetter(raised[i - 1])) || raised.Length > 8))
                return false;
        return true;
    }

    /// <summary>Numbers with commas and dashes between them: "3", "3,4", "3–6, 9".</summary>
    private static bool IsNumbers(string raised)
    {
        var isDigit = false;
        foreach (var c in raised)
        {
            if (!char.IsAsciiDigit(c) && !(isDigit && c is ',' or '-' or '–' or ' '))
                return false;
            isDigit = char.IsAsciiDigit(c) || c == ' ' || c == ',';
        }
        return raised.Length > 0 && char.IsAsciiDigit(raised.TrimEnd()[^1]);
    }

    private static bool MayCite(StringBuilder before)
    {
        var at = before.Length;
        while (at > 0 && before[at - 1] is '.' or ',' or ';' or ':' or ')' or ']' or '"' or '”' or '’' or '?' or '!')
            at--;
        if (at < before.Length && at > 0 && char.IsLetterOrDigit(before[at - 1]))
            return true;
        var letters = 0;
        while (at > 0 && char.IsLetter(before[--at]))
            letters++;
        return letters >= FewestBefore;
    }
}
