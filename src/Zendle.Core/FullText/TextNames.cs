using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.FullText;

/// <summary>What the name of a gathered file can say.</summary>
/// <param name="Person">Family name of the first person; null when nobody is named.</param>
/// <param name="Year">Year; null when unknown.</param>
/// <param name="Title">Title of the work.</param>
/// <param name="Version">Version of the document; null when unknown.</param>
/// <param name="Venue">Journal or book; null when unknown.</param>
/// <param name="Key">Key under which the review cites the work; null when it has none.</param>
/// <param name="Format">What kind of file it is.</param>
public sealed record NamedText(
    string? Person,
    int? Year,
    string Title,
    WorkVersion? Version,
    string? Venue = null,
    string? Key = null,
    TextFormat Format = TextFormat.Pdf
);

/// <summary>
/// Names of gathered files when they are handed on, by a template: text with parts in braces. Letters of every script
/// stay; what file systems do not take is left out, and so are parts that are not known, with the brackets about them.
/// </summary>
public static partial class TextNames
{
    /// <summary>For example <c>Vossmann 2021 What moths carry (accepted manuscript).pdf</c>.</summary>
    public const string Usual = "{person} {year} {title} ({version})";

    /// <summary>The parts a template can have.</summary>
    public static IReadOnlyList<string> Parts { get; } = ["person", "year", "title", "version", "venue", "key"];

    private const int LongestTitle = 60,
        LongestTemplate = 200,
        Longest = 150;

    private static readonly HashSet<string> Devices = new(
        ["con", "prn", "aux", "nul", .. Enumerable.Range(0, 10).SelectMany(n => new[] { $"com{n}", $"lpt{n}" })],
        StringComparer.OrdinalIgnoreCase
    );

    /// <summary>What is wrong with a template, in a sentence; null for nothing.</summary>
    public static string? Fault(string template)
    {
        if (template.Length > LongestTemplate)
            return $"A name has at most {LongestTemplate} characters.";
        foreach (Match part in Part().Matches(template))
            if (!Parts.Contains(part.Groups[1].Value))
                return $"“{part.Value}” is not a part of a file name. "
                    + $"The parts are {string.Join(", ", Parts.Select(p => $"{{{p}}}"))}.";
        return Part().Replace(template, "").AsSpan().ContainsAny('{', '}')
            ? "A brace is open. Each part stands in braces, like {title}."
            : null;
    }

    /// <summary>The name of a file by the usual template.</summary>
    public static string Of(
        string? firstPerson,
        int? year,
        string title,
        WorkVersion? version,
        TextFormat format = TextFormat.Pdf
    ) => Of(Usual, new(firstPerson, year, title, version, Format: format));

    /// <summary>The name of a file.</summary>
    /// <param name="template">A template without fault.</param>
    /// <param name="text">What is known of the file.</param>
    public static string Of(string template, NamedText text)
    {
        var filled = Part()
            .Replace(
                template,
                part =>
                    part.Groups[1].Value switch
                    {
                        "person" => Clean(text.Person ?? ""),
                        "year" => text.Year?.ToString(CultureInfo.InvariantCulture) ?? "",
                        "title" => Clean(Short(text.Title)),
                        "version" => WorkVersions.Name(text.Version) ?? "",
                        "venue" => Clean(text.Venue ?? ""),
                        _ => Clean(text.Key ?? ""),
                    }
            );
        var name = Clean(Hollow().Replace(filled, " "), "()[]_")
            .TrimEnd(' ', '.', ',', '-', '_')
            .TrimStart(' ', ',', '_', '-', '.');
        if (name.Length > Longest)
            name = name[..(char.IsHighSurrogate(name[Longest - 1]) ? Longest - 1 : Longest)].TrimEnd(' ', '.');
        return (
                name.Length == 0 ? "text"
                : Devices.Contains(name) ? "_" + name
                : name
            ) + TextFormats.Ending(text.Format);
    }

    /// <summary>
    /// Names that differ: of those that are one but for capital letters, the later ones bear a number. In their order.
    /// </summary>
    public static IReadOnlyList<string> Apart(IEnumerable<string> names)
    {
        var (taken, apart) = (new HashSet<string>(StringComparer.OrdinalIgnoreCase), new List<string>());
        foreach (var name in names)
        {
            var own = name;
            for (var n = 2; !taken.Add(own); n++)
                own = $"{Path.GetFileNameWithoutExtension(name)} {n}{Path.GetExtension(name)}";
            apart.Add(own);
        }
        return apart;
    }

    private static string Short(string title)
    {
        var end = title.IndexOfAny([':', '?', '.']);
        var main = end > 12 ? title[..end] : title;
        if (main.Length <= LongestTitle)
            return main.Trim();
        var cut = main.LastIndexOf(' ', LongestTitle);
        return main[..(cut > 20 ? cut : LongestTitle)].Trim();
    }

    private static string Clean(string text, string more = "")
    {
        var clean = new StringBuilder(text.Length);
        foreach (var rune in text.Normalize().EnumerateRunes())
            if (
                Rune.IsLetterOrDigit(rune)
                || Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark
                || rune.Value is ' ' or '-' or '.' or ',' or '’'
                || (rune.IsBmp && more.Contains((char)rune.Value, StringComparison.Ordinal))
            )
                clean.Append(rune);
        var words = string.Join(' ', clean.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return words.TrimStart('.', '-');
    }

    [GeneratedRegex(@"\{([^{}]*)\}", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Part();

    [GeneratedRegex(@"\(\s*\)|\[\s*\]", RegexOptions.CultureInvariant, PatternTime.Milliseconds)]
    private static partial Regex Hollow();
}
