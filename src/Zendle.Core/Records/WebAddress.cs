namespace Zendle.Core.Records;

/// <summary>An address on the web.</summary>
public static class WebAddress
{
    /// <summary>The absolute http or https address that a text is; null when it is none.</summary>
    public static Uri? Of(string? text) =>
        Uri.TryCreate(text?.Trim(), UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
            ? address
            : null;
}
