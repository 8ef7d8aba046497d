namespace Zendle.Core.Citing;

/// <summary>A citation style that ships.</summary>
/// <param name="Key">Its file's name without ending; how it is named in addresses.</param>
/// <param name="Title">Its title.</param>
/// <param name="Parent">Key of the style it follows; null for one that stands for itself.</param>
/// <param name="Locale">The language it is written for; null for any.</param>
/// <param name="Path">Where it lies in the pack.</param>
/// <param name="Words">Folded words of its title.</param>
public sealed record CitationStyle(
    string Key,
    string Title,
    string? Parent,
    string? Locale,
    string Path,
    IReadOnlyList<string> Words
);
