namespace Zendle.Core.Records;

/// <summary>An address on the web.</summary>
public static class WebAddress
{
    /// <summary>The absolute http or https address that a text is; null when it is none.</summary>
    public static Uri? Of(string? text) =>
        Uri.TryCreate(text?.Trim(), UriKind.Absolute, out var address) && address.Scheme is "http" or "https"
            ? address
            : null;

    /// <summary>
    /// What an address is compared by: without its scheme, "www.", a fragment and a closing slash, its host in small
    /// letters; null when the text is none.
    /// </summary>
    public static string? Key(string? text) =>
        Of(text) is not { } address
            ? null
            : (
                address.Authority.StartsWith("www.", StringComparison.OrdinalIgnoreCase)
                    ? address.Authority[4..]
                    : address.Authority
            ).ToLowerInvariant() + address.PathAndQuery.TrimEnd('/');
}
