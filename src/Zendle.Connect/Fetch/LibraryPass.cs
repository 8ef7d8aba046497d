using System.Net;

namespace Zendle.Connect.Fetch;

/// <summary>A cookie that a library's proxy gave.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Value">Its value.</param>
/// <param name="Path">Under which path it is given back.</param>
public sealed record PassCookie(string Name, string Value, string Path);

/// <summary>
/// What a library gave a person to read there, as it is kept (encrypted): the cookies of its proxy, or a bearer token
/// (RFC 6750).
/// </summary>
/// <param name="Cookies">The cookies; empty for none.</param>
/// <param name="Bearer">The token; null for none.</param>
public sealed record LibrarySecret(IReadOnlyList<PassCookie> Cookies, string? Bearer);

/// <summary>
/// Lets one fetch go through a library: what it gave a person goes to its proxy and to no other host, and of pages without
/// signposts the links are followed that lead through the proxy.
/// </summary>
/// <param name="Proxy">What stands before an address to open it through the proxy; null where there is none.</param>
/// <param name="Secret">What it gave the person; null for nothing.</param>
public sealed record LibraryPass(Uri? Proxy, LibrarySecret? Secret)
{
    /// <summary>Whether an address belongs to the proxy's host: same scheme, name and port.</summary>
    public bool IsOfProxy(Uri address) =>
        Proxy is not null
        && Uri.Compare(
            Proxy,
            address,
            UriComponents.SchemeAndServer,
            UriFormat.SafeUnescaped,
            StringComparison.OrdinalIgnoreCase
        ) == 0;

    /// <summary>Whether a link leads through the proxy.</summary>
    public bool Leads(Uri link) =>
        Proxy is not null && link.AbsoluteUri.StartsWith(Proxy.AbsoluteUri, StringComparison.Ordinal);

    /// <summary>The address that opens another through the proxy; null where there is none.</summary>
    public Uri? Through(Uri target) =>
        Proxy is null ? null : new Uri(Proxy.AbsoluteUri + Uri.EscapeDataString(target.AbsoluteUri));

    /// <summary>Puts the cookies where a visit keeps its own.</summary>
    internal void Give(CookieContainer to)
    {
        foreach (var cookie in Secret?.Cookies ?? [])
            try
            {
                to.Add(Proxy!, new Cookie(cookie.Name, cookie.Value, cookie.Path));
            }
            catch (CookieException) { }
    }
}
