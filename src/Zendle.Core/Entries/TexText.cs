using System.Collections.Frozen;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// What a value of BibTeX says without TeX: accents as letters, escaped signs as themselves, dashes, no braces. Formulas
/// between dollars go through <see cref="Markup"/>.
/// </summary>
/// <remarks>One pass; O(length).</remarks>
internal static class TexText
{
    /// <summary>Combining signs by the command that puts them on the next letter.</summary>
    private static readonly FrozenDictionary<char, char> Accents = new Dictionary<char, char>
    {
        ['`'] = '\u0300',
        ['\''] = '\u0301',
        ['^'] = '\u0302',
        ['~'] = '\u0303',
        ['"'] = '\u0308',
        ['='] = '\u0304',
        ['.'] = '\u0307',
        ['u'] = '\u0306',
        ['v'] = '\u030C',
        ['H'] = '\u030B',
        ['c'] = '\u0327',
        ['k'] = '\u0328',
        ['r'] = '\u030A',
        ['d'] = '\u0323',
        ['b'] = '\u0331',
    }.ToFrozenDictionary();

    /// <summary>Commands that stand for a letter or sign.</summary>
    private static readonly FrozenDictionary<string, string> Signs = new Dictionary<string, string>
    {
        ["ss"] = "ß",
        ["ae"] = "æ",
        ["AE"] = "Æ",
        ["oe"] = "œ",
        ["OE"] = "Œ",
        ["o"] = "ø",
        ["O"] = "Ø",
        ["aa"] = "å",
        ["AA"] = "Å",
        ["l"] = "ł",
        ["L"] = "Ł",
        ["dh"] = "ð",
        ["DH"] = "Ð",
        ["th"] = "þ",
        ["TH"] = "Þ",
        ["dj"] = "đ",
        ["DJ"] = "Đ",
        ["i"] = "i",
        ["j"] = "j",
        ["textendash"] = "–",
        ["textemdash"] = "—",
        ["textbackslash"] = "\\",
        ["textasciitilde"] = "~",
        ["textasciicircum"] = "^",
        ["textbraceleft"] = "{",
        ["textbraceright"] = "}",
        ["textquoteleft"] = "‘",
        ["textquoteright"] = "’",
        ["textquotedblleft"] = "“",
        ["textquotedblright"] = "”",
        ["textdegree"] = "°",
        ["textmu"] = "µ",
        ["textregistered"] = "®",
        ["texttrademark"] = "™",
        ["ldots"] = "…",
        ["dots"] = "…",
        ["slash"] = "/",
        ["newline"] = " ",
        ["par"] = " ",
    }.ToFrozenDictionary();

    /// <summary>Signs that stand for one other, longest first.</summary>
    private static readonly (string Tex, string Text)[] Ligatures =
    [
        ("---", "—"),
        ("--", "–"),
        ("``", "“"),
        ("''", "”"),
    ];

    /// <summary>The plain text of a value, on one line.</summary>
    public static string Plain(string value)
    {
        var text = new StringBuilder(value.Length);
        for (var i = 0; i < value.Length; )
            switch (value[i])
            {
                case '\\':
                    i = Command(value, i + 1, text);
                    break;
                case '$' when value.IndexOf('$', i + 1) is > 0 and var end && end - i < 200:
                    text.Append(Markup.ToText(value[i..(end + 1)]));
                    i = end + 1;
                    break;
                case '{' or '}':
                    i++;
                    break;
                case '~':
                    text.Append(' ');
                    i++;
                    break;
                default:
                    var ligature = Array.Find(
                        Ligatures,
                        l => string.CompareOrdinal(value, i, l.Tex, 0, l.Tex.Length) == 0
                    );
                    text.Append(ligature.Text ?? value[i].ToString());
                    i += ligature.Tex?.Length ?? 1;
                    break;
            }
        return ReferenceFile.Line(text.ToString().Normalize());
    }

    /// <summary>Writes what a command stands for; gives the place behind it and what it takes.</summary>
    private static int Command(string value, int at, StringBuilder text)
    {
        if (at >= value.Length)
            return at;
        var end = at;
        while (end < value.Length && char.IsAsciiLetter(value[end]))
            end++;
        var name = value[at..Math.Max(end, at + 1)];
        // A sign is an accent at once, a letter only where it is the whole command: \c{c}, but not \cite.
        if (name.Length == 1 && Accents.TryGetValue(name[0], out var accent))
        {
            var (letter, behind) = Letter(value, at + 1);
            if (letter is { } on)
            {
                text.Append(on).Append(accent);
                return behind;
            }
        }
        if (end == at)
        {
            text.Append(
                value[at] switch
                {
                    '-' or '/' or '!' => "", // where a word may be divided, and the like
                    '\\' or ' ' or ',' or ';' or ':' => " ",
                    var c => c.ToString(),
                }
            );
            return at + 1;
        }
        if (Signs.TryGetValue(name, out var sign))
            text.Append(sign);
        // The blank that ends a command is not written; braces with nothing in them end one, too.
        return end < value.Length && value[end] == ' ' ? end + 1 : end;
    }

    /// <summary>The letter an accent stands on: bare, in braces, or a dotless i or j; and the place behind it.</summary>
    private static (char? Letter, int Behind) Letter(string value, int at)
    {
        while (at < value.Length && value[at] == ' ')
            at++;
        var isBraced = at < value.Length && value[at] == '{';
        if (isBraced)
            at++;
        if (at + 1 < value.Length && value[at] == '\\' && value[at + 1] is 'i' or 'j')
            at++;
        if (at >= value.Length || !char.IsLetter(value[at]))
            return (null, at);
        var behind = at + 1;
        if (isBraced && behind < value.Length && value[behind] == '}')
            behind++;
        else if (
            !isBraced
            && value[at] is 'i' or 'j'
            && value[at - 1] == '\\'
            && behind < value.Length
            && value[behind] == ' '
        )
            behind++;
        return (value[at], behind);
    }
}
