using System.Globalization;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.FullText;

/// <summary>Names of gathered files when they are handed on: first person, year, short title, version.</summary>
public static class TextNames
{
    private const int LongestTitle = 60;

    /// <summary>
    /// For example <c>Vossmann 2021 What moths carry (accepted manuscript).pdf</c>. Letters of every script stay; what
    /// file systems do not take is left out; parts that are not known are left out.
    /// </summary>
    public static string Of(string? firstPerson, int? year, string title, WorkVersion? version)
    {
        var parts = new[]
        {
            Clean(firstPerson ?? ""),
            year?.ToString(CultureInfo.InvariantCulture) ?? "",
            Clean(Short(title)),
        }.Where(p => p.Length > 0);
        var name = string.Join(' ', parts);
        return (name.Length == 0 ? "text" : name) + (WorkVersions.Name(version) is { } v ? $" ({v})" : "") + ".pdf";
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

    private static string Clean(string text)
    {
        var clean = new StringBuilder(text.Length);
        foreach (var rune in text.Normalize().EnumerateRunes())
            if (
                Rune.IsLetterOrDigit(rune)
                || Rune.GetUnicodeCategory(rune) is UnicodeCategory.NonSpacingMark
                || rune.Value is ' ' or '-' or '.' or ',' or '’'
            )
                clean.Append(rune);
        var words = string.Join(' ', clean.ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return words.TrimStart('.', '-');
    }
}
