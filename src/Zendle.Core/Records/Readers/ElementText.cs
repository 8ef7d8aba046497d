using System.Text;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// The words of an element, also where real markup stands inside it (<c>CO&lt;sub&gt;2&lt;/sub&gt;</c> as elements, as
/// JATS and careless Dublin Core have it): sub- and superscripts join their word, blocks stand apart, notes and images
/// are left out.
/// </summary>
internal static class ElementText
{
    /// <summary>The plain text of an element; empty for none.</summary>
    public static string Of(XElement? element) => PlainText.Clean(Raw(element));

    /// <summary>The text of an element with the markup that a reader of text understands, uncleaned.</summary>
    public static string Raw(XElement? element)
    {
        if (element is null)
            return "";
        if (!element.HasElements)
            return element.Value;
        var text = new StringBuilder();
        Write(element, text);
        return text.ToString();
    }

    /// <summary>
    /// The text of a reference whose parts are marked where they stand: nothing is put between them but what is printed
    /// there, save between the parts of a name.
    /// </summary>
    public static string AsPrinted(XElement element)
    {
        var text = new StringBuilder();
        void Print(XElement inside)
        {
            foreach (var node in inside.Nodes())
            {
                if (node is XText words)
                    text.Append(words.Value);
                else if (node is XElement part)
                {
                    var isName = part.Name.LocalName is "given-names" or "surname" or "suffix" or "name";
                    if (isName && text.Length > 0 && char.IsLetterOrDigit(text[^1]))
                        text.Append(' ');
                    Print(part);
                }
            }
        }
        Print(element);
        return PlainText.Clean(text.ToString());
    }

    private static void Write(XElement element, StringBuilder text)
    {
        foreach (var node in element.Nodes())
        {
            if (text.Length > PlainText.Longest)
                return;
            if (node is XText words)
                text.Append(words.Value);
            else if (node is XElement inside)
                WriteInside(inside, text);
        }
    }

    private static void WriteInside(XElement element, StringBuilder text)
    {
        var name = element.Name.LocalName;
        if (name is "fn" or "inline-graphic" or "graphic" or "private-char" or "object-id" or "alternatives-text")
            return;
        // The sign of a footnote is no part of a title or a name.
        if (name == "xref" && (string?)element.Attribute("ref-type") is "fn" or "aff" or "corresp" or "author-notes")
            return;
        // A formula in two forms is told once.
        if (name is "alternatives" && element.Elements().FirstOrDefault() is { } first)
        {
            WriteInside(first, text);
            return;
        }
        if (name is "sub" or "sup" or "inf")
        {
            text.Append('<').Append(name == "inf" ? "sub" : name).Append('>');
            Write(element, text);
            text.Append("</").Append(name == "inf" ? "sub" : name).Append('>');
            return;
        }
        if (name is "tex-math" && !element.Value.Contains('$', StringComparison.Ordinal))
        {
            text.Append('$').Append(element.Value.Trim()).Append('$');
            return;
        }
        var isApart = !Markup.IsInsideWord(name);
        if (isApart)
            text.Append(' ');
        Write(element, text);
        // Headings of an abstract's parts are told from what follows.
        if (name == "title" && text.Length > 0 && char.IsLetterOrDigit(text[^1]))
            text.Append(':');
        if (isApart)
            text.Append(' ');
    }

    /// <summary>The language an element says it is in (ISO 639-2/B); null when it does not say.</summary>
    public static string? LanguageOf(XElement element) =>
        Languages.Code((string?)element.Attribute(XNamespace.Xml + "lang") ?? (string?)element.Attribute("lang"));
}
