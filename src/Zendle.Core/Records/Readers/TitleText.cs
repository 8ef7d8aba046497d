namespace Zendle.Core.Records.Readers;

/// <summary>How titles are put together and closed, whatever the format.</summary>
internal static class TitleText
{
    /// <summary>A title with its subtitle: behind a colon, or behind the sign that closes the title.</summary>
    public static string With(string title, string? sub) =>
        string.IsNullOrEmpty(sub) ? title
        : title.EndsWith('?') || title.EndsWith('!') ? $"{title} {sub}"
        : $"{title}: {sub}";

    /// <summary>Without the full stop that some put behind a question or an exclamation mark.</summary>
    public static string Closed(string title) =>
        title.EndsWith("?.", StringComparison.Ordinal) || title.EndsWith("!.", StringComparison.Ordinal)
            ? title[..^1]
            : title;
}
