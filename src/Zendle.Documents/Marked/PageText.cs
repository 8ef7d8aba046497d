using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Text;

namespace Zendle.Documents.Marked;

/// <summary>The characters of a page or a plain text.</summary>
internal static partial class PageText
{
    private const int Looked = 2_048;
    private static readonly UTF8Encoding StrictUtf8 = new(false, throwOnInvalidBytes: true);

    static PageText() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>
    /// Reads a file by its byte order mark, as UTF-8 where it is that, else by the encoding its head names, else as
    /// Windows-1252 (WHATWG Encoding Standard: what pages that say nothing are read as).
    /// </summary>
    public static string Of(byte[] file)
    {
        if (file.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]))
            return Encoding.Unicode.GetString(file, 2, file.Length - 2);
        if (file.AsSpan().StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]))
            return Encoding.BigEndianUnicode.GetString(file, 2, file.Length - 2);
        try
        {
            // A page in another encoding is hardly ever UTF-8 by chance, and pages name a wrong one.
            return StrictUtf8.GetString(file).TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException)
        {
            return Named(file).GetString(file);
        }
    }

    private static Encoding Named(byte[] file)
    {
        var head = Encoding.Latin1.GetString(file, 0, Math.Min(Looked, file.Length));
        try
        {
            if (Charset().Match(head) is { Success: true } charset)
                return Encoding.GetEncoding(charset.Groups[1].Value);
        }
        catch (ArgumentException)
        {
            // Nobody knows an encoding of this name.
        }
        return Encoding.GetEncoding(1252);
    }

    [GeneratedRegex(
        @"(?:charset|encoding)\s*=\s*[""']?([\w.:-]{2,40})",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Charset();
}
