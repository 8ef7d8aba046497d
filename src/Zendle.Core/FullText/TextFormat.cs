using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>What kind of file a text is.</summary>
public enum TextFormat
{
    /// <summary>PDF (ISO 32000).</summary>
    Pdf,

    /// <summary>A web page (HTML).</summary>
    Html,

    /// <summary>An article in XML: JATS (ANSI/NISO Z39.96).</summary>
    Jats,

    /// <summary>Plain text.</summary>
    Plain,

    /// <summary>EPUB (EPUB 3.3, W3C): web pages in an archive.</summary>
    Epub,
}

/// <summary>Tells formats apart by what files begin with, whatever they are called, and says what they are.</summary>
public static partial class TextFormats
{
    private const int Looked = 8_192;

    /// <summary>The format of a file; null when it is none of them. O(1): only its beginning is looked at.</summary>
    public static TextFormat? Of(ReadOnlySpan<byte> file)
    {
        var start = file[..Math.Min(Looked, file.Length)];
        if (start[..Math.Min(1024, start.Length)].IndexOf("%PDF-"u8) >= 0)
            return TextFormat.Pdf;
        // The archive begins with an entry that holds nothing but its media type (OCF, EPUB 3.3, 4.2.6).
        if (start.StartsWith("PK\u0003\u0004"u8))
            return start.IndexOf("application/epub+zip"u8) >= 0 ? TextFormat.Epub : null;
        if (start.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xFE]) || start.StartsWith((ReadOnlySpan<byte>)[0xFE, 0xFF]))
            return ByMarks((start[0] == 0xFF ? Encoding.Unicode : Encoding.BigEndianUnicode).GetString(start[2..]));
        if (start.IsEmpty || start.IndexOf((byte)0) >= 0)
            return null;
        return ByMarks(Encoding.UTF8.GetString(start)) ?? (IsText(start) ? TextFormat.Plain : null);
    }

    /// <summary>What the format is called where a number of pages would stand.</summary>
    public static string Name(TextFormat format) =>
        format switch
        {
            TextFormat.Html => "web page",
            TextFormat.Jats => "JATS XML",
            TextFormat.Plain => "plain text",
            TextFormat.Epub => "EPUB",
            _ => "PDF",
        };

    /// <summary>The ending of its file names.</summary>
    public static string Ending(TextFormat format) =>
        format switch
        {
            TextFormat.Html => ".html",
            TextFormat.Jats => ".xml",
            TextFormat.Plain => ".txt",
            TextFormat.Epub => ".epub",
            _ => ".pdf",
        };

    private static TextFormat? ByMarks(string start)
    {
        var isArticle = string.Equals(Root().Match(start).Groups[1].Value, "article", StringComparison.Ordinal);
        // HTML has an element of that name, too.
        return isArticle && Jats().IsMatch(start) ? TextFormat.Jats
            : isArticle || Page().IsMatch(start) ? TextFormat.Html
            : null;
    }

    /// <summary>No more than one character in a hundred is of those that text does not have.</summary>
    private static bool IsText(ReadOnlySpan<byte> start)
    {
        var odd = 0;
        foreach (var b in start)
            if (b < 0x20 && b is not ((byte)'\t' or (byte)'\n' or (byte)'\r' or (byte)'\f'))
                odd++;
        return odd * 100 <= start.Length;
    }

    // The first element of an XML file, behind its declaration, comments and a document type with or without declarations
    // of its own.
    [GeneratedRegex(
        @"^[\uFEFF\s]*(?:<\?[^>]{0,400}\?>|<!--.{0,2000}?-->|<!DOCTYPE\s+[^\[>]{0,600}(?:\[[^\]]{0,4000}\]\s*)?>|\s)*"
            + @"<(?:[\w.-]{1,40}:)?([\w.-]{1,40})",
        RegexOptions.CultureInvariant | RegexOptions.Singleline,
        PatternTime.Milliseconds
    )]
    private static partial Regex Root();

    [GeneratedRegex(
        @"\bJATS\b|-//NLM//DTD|\s(?:dtd-version|article-type)\s*=|<(?:[\w.-]{1,40}:)?(?:front|article-meta)[\s>]",
        RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Jats();

    [GeneratedRegex(
        @"<!doctype\s+html|<html[\s>]|<head[\s>]|<body[\s>]",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant,
        PatternTime.Milliseconds
    )]
    private static partial Regex Page();
}
