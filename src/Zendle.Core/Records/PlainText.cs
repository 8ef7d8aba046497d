using System.Net;
using System.Text;
using System.Text.RegularExpressions;

namespace Zendle.Core.Records;

/// <summary>
/// Turns what databases put into text fields into plain text: no markup, no entities, no control characters.
/// </summary>
public static partial class PlainText
{
    /// <summary>Longest text kept of one field, in characters; what is over is cut and noted by the reader.</summary>
    public const int Longest = 60_000;

    /// <summary>
    /// Removes markup and control characters, resolves character entities (also doubly escaped ones) and folds white
    /// space.
    /// </summary>
    /// <remarks>The result is text, never markup: the interface shows it as text, so nothing in it can act.</remarks>
    public static string Clean(string? text)
    {
        if (string.IsNullOrEmpty(text))
            return "";
        if (text.Length > Longest)
            text = text[..Longest];
        if (text.Contains('&', StringComparison.Ordinal))
            text = Decoded(text);
        if (text.StartsWith("{\\rtf", StringComparison.Ordinal))
            text = RtfControl()
                .Replace(RtfHex().Replace(text, m => ((char)Convert.ToInt32(m.Groups[1].Value, 16)).ToString()), "");
        if (text.Contains('<', StringComparison.Ordinal) || text.Contains('$', StringComparison.Ordinal))
            text = Markup.ToText(text);
        var plain = new StringBuilder(text.Length);
        var space = false;
        foreach (var c in text)
        {
            if (char.IsWhiteSpace(c))
            {
                space = plain.Length > 0;
                continue;
            }
            if (char.IsControl(c) || c is '\uFEFF' or '\uFFFE' or '\uFFFF' || (c >= '\u202A' && c <= '\u202E'))
                continue;
            if (space)
            {
                plain.Append(' ');
                space = false;
            }
            plain.Append(c);
        }
        return Composed(plain.ToString());
    }

    /// <summary>
    /// Decodes entities once. An ampersand that was encoded twice over is one; what it stands before stays as it is
    /// written.
    /// </summary>
    private static string Decoded(string text)
    {
        text = WebUtility.HtmlDecode(text);
        return text.Contains("&amp;", StringComparison.Ordinal)
            ? text.Replace("&amp;", "&", StringComparison.Ordinal)
            : text;
    }

    /// <summary>
    /// A letter and the accent that stands behind it as one letter (Unicode form C), so that it looks the same wherever
    /// it came from.
    /// </summary>
    private static string Composed(string text)
    {
        if (!text.AsSpan().ContainsAnyInRange('\u0300', '\u036F'))
            return text;
        try
        {
            return text.Normalize(NormalizationForm.FormC);
        }
        catch (ArgumentException)
        {
            return text;
        } // half a letter from outside the basic plane; it stays as it came
    }

    /// <summary>The original title inside a bracketed (translated) one; null when the title is not bracketed.</summary>
    public static string? InsideBrackets(string title)
    {
        var trimmed = title.TrimEnd('.', ' ');
        return trimmed.Length > 2 && trimmed[0] == '[' && trimmed[^1] == ']' ? trimmed[1..^1].Trim() : null;
    }

    [GeneratedRegex(@"\\'([0-9a-fA-F]{2})", RegexOptions.CultureInvariant)]
    private static partial Regex RtfHex();

    [GeneratedRegex(
        @"\{\\(?:fonttbl|colortbl|stylesheet|info)[^{}]*(?:\{[^{}]*\}[^{}]*)*\}|\\[a-zA-Z]+-?\d* ?|[{}]",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex RtfControl();
}
