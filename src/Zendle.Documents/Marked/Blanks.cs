namespace Zendle.Documents.Marked;

/// <summary>Blanks in marked-up texts, where any number of them, and ends of lines, are one.</summary>
internal static class Blanks
{
    /// <summary>A text with single blanks, and none about it.</summary>
    public static string Single(string text) =>
        string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
}
