using System.Buffers;
using System.Globalization;
using System.Net;
using System.Text;
using System.Text.RegularExpressions;

namespace Zendle.Connect.Harvest;

/// <summary>
/// The text of a reply that is not well-formed, with what can be mended without guessing mended: bytes that are no
/// UTF-8 are read as Windows-1252, signs that XML does not allow become spaces, HTML's names of signs become the signs,
/// a bare <c>&amp;</c> or <c>&lt;</c> is what it says. Each such place is marked.
/// </summary>
internal static partial class ReplyText
{
    /// <summary>
    /// Stands before each mended place until the records are taken apart; a noncharacter, which no text has.
    /// </summary>
    public const char Mended = '\uFDD0';

    private static readonly SearchValues<char> Suspicious = SearchValues.Create([
        .. Enumerable.Range(0, 32).Except([9, 10, 13]).Select(c => (char)c),
        '&',
        '\uFFFE',
        '\uFFFF',
        '<',
        .. Enumerable.Range(0xD800, 0x800).Select(c => (char)c),
    ]);

    static ReplyText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Decodes and mends.</summary>
    public static string Of(ReadOnlySequence<byte> bytes) => Sound(Decoded(bytes));

    private static string Decoded(ReadOnlySequence<byte> bytes)
    {
        var start = bytes.Slice(0, Math.Min(bytes.Length, 400)).ToArray();
        if (start is [0xFF, 0xFE, ..])
            return Encoding.Unicode.GetString(bytes);
        if (start is [0xFE, 0xFF, ..])
            return Encoding.BigEndianUnicode.GetString(bytes);
        var name = DeclaredEncoding().Match(Encoding.ASCII.GetString(start)).Groups[1].Value;
        if (name.Length > 0 && !name.StartsWith("utf", StringComparison.OrdinalIgnoreCase))
        {
            try
            {
                return Encoding.GetEncoding(name).GetString(bytes);
            }
            catch (ArgumentException) { } // an encoding that nobody knows: as if none had been named
        }
        var text = Encoding
            .GetEncoding("utf-8", EncoderFallback.ReplacementFallback, new AsWindows1252())
            .GetString(bytes);
        return text.TrimStart('\uFEFF', ' ', '\t', '\r', '\n');
    }

    private static string Sound(string text)
    {
        var sound = new StringBuilder(text.Length + 64);
        var at = 0;
        while (at < text.Length)
        {
            var next = text.AsSpan(at).IndexOfAny(Suspicious);
            if (next < 0)
                break;
            sound.Append(text, at, next);
            at += next;
            at += One(text, at, sound);
        }
        return sound.Append(text, at, text.Length - at).ToString();
    }

    /// <summary>Takes over one sign that may be unsound.</summary>
    /// <returns>How many characters of the text it stands for.</returns>
    private static int One(string text, int at, StringBuilder sound)
    {
        var c = text[at];
        switch (c)
        {
            case '<' when text.AsSpan(at).StartsWith("<![CDATA["):
                // Inside only signs that XML forbids are wrong; "&" and "<" stand for themselves.
                var end = text.IndexOf("]]>", at, StringComparison.Ordinal);
                end = end < 0 ? text.Length : end + 3;
                foreach (var inside in text.AsSpan(at, end - at))
                    sound.Append(inside < 32 && inside is not ('\t' or '\n' or '\r') ? ' ' : inside);
                return end - at;
            case '<':
                var follows = at + 1 < text.Length ? text[at + 1] : ' ';
                if (follows is '/' or '!' or '?' or '_' || char.IsLetter(follows))
                    sound.Append(c);
                else
                    sound.Append(Mended).Append("&lt;");
                return 1;
            case '&':
                var entity = Entity().Match(text, at);
                if (!entity.Success)
                {
                    sound.Append(Mended).Append("&amp;");
                    return 1;
                }
                if (entity.Groups[1].Value is "amp" or "lt" or "gt" or "quot" or "apos")
                    sound.Append(entity.Value);
                else if (entity.Groups[1].Value is ['#', .. var number])
                    sound.Append(Sign(number) is { } sign && IsAllowed(sign) ? entity.Value : $"{Mended} ");
                else if (WebUtility.HtmlDecode(entity.Value) is { } named && named != entity.Value)
                    sound.Append(Mended).Append(named);
                else
                    sound.Append(Mended).Append("&amp;").Append(entity.ValueSpan[1..]);
                return entity.Length;
            case >= '\uD800'
            and <= '\uDFFF' when char.IsHighSurrogate(c) && at + 1 < text.Length && char.IsLowSurrogate(text[at + 1]):
                sound.Append(c).Append(text[at + 1]);
                return 2;
            default:
                sound.Append(Mended).Append(' ');
                return 1;
        }
    }

    private static int? Sign(string number) =>
        number is ['x' or 'X', .. var hex]
            ? int.TryParse(hex, NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var h)
                ? h
                : null
            : int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var d)
                ? d
                : null;

    /// <summary>Char of XML 1.0, production 2.</summary>
    private static bool IsAllowed(int sign) =>
        sign is 9 or 10 or 13 or (>= 0x20 and <= 0xD7FF) or (>= 0xE000 and <= 0xFFFD) or (>= 0x10000 and <= 0x10FFFF);

    [GeneratedRegex("""\A\s*(?:\xEF\xBB\xBF)?\s*<\?xml[^>]*?encoding\s*=\s*["']([A-Za-z0-9._-]+)""")]
    private static partial Regex DeclaredEncoding();

    [GeneratedRegex(@"\G&(#[0-9]{1,7}|#[xX][0-9A-Fa-f]{1,6}|[A-Za-z][A-Za-z0-9]{1,31});")]
    private static partial Regex Entity();

    /// <summary>Reads bytes that are no UTF-8 as what they most often are, and marks the place.</summary>
    private sealed class AsWindows1252 : DecoderFallback
    {
        public override int MaxCharCount => 8;

        public override DecoderFallbackBuffer CreateFallbackBuffer() => new Buffer();

        private sealed class Buffer : DecoderFallbackBuffer
        {
            private static readonly Encoding Windows = Encoding.GetEncoding(1252);
            private string signs = "";
            private int at;

            public override int Remaining => signs.Length - at;

            public override bool Fallback(byte[] bytesUnknown, int index)
            {
                (signs, at) = (Mended + Windows.GetString(bytesUnknown), 0);
                return true;
            }

            public override char GetNextChar() => at < signs.Length ? signs[at++] : '\0';

            public override bool MovePrevious() => at > 0 && at-- > 0;
        }
    }
}
