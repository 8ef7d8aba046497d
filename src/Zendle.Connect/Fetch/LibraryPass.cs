using System.Net;

namespace Zendle.Connect.Fetch;

/// <summary>A cookie that a library's proxy gave.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Value">Its value.</param>
/// <param name="Path">Under which path it is given back.</param>
/// <param name="Domain">The domain to whose hosts it is given back; empty for the proxy's own host alone.</param>
public sealed record PassCookie(string Name, string Value, string Path, string Domain = "");

/// <summary>
/// What a library gave a person to read there, as it is kept (encrypted): the cookies of its proxy, or a bearer token
/// (RFC 6750).
/// </summary>
/// <param name="Cookies">The cookies; empty for none.</param>
/// <param name="Bearer">The token; null for none.</param>
public sealed record LibrarySecret(IReadOnlyList<PassCookie> Cookies, string? Bearer);

/// <summary>
/// Lets one fetch go through a library: what it gave a person goes to its proxy and to no other host, and of pages without
/// signposts the links are followed that lead through the proxy, or to where the work is known to lie.
/// </summary>
/// <param name="Proxy">What stands before an address to open it through the proxy; null where there is none.</param>
/// <param name="Secret">What it gave the person; null for nothing.</param>
public sealed record LibraryPass(Uri? Proxy, LibrarySecret? Secret)
{
    /// <summary>Hosts at which the work is known to lie.</summary>
    public IReadOnlyCollection<string> Hosts { get; init; } = [];

    /// <summary>
    /// Whether an address belongs to the proxy: same scheme and port, and its host or one under it, where some proxies have a
    /// name for each publisher.
    /// </summary>
    public bool IsOfProxy(Uri address) =>
        Proxy is not null
        && Proxy.Scheme == address.Scheme
        && Proxy.Port == address.Port
        && (
            string.Equals(Proxy.Host, address.Host, StringComparison.OrdinalIgnoreCase)
            || (
                Proxy.HostNameType == UriHostNameType.Dns
                && address.Host.EndsWith("." + Proxy.Host, StringComparison.OrdinalIgnoreCase)
            )
        );

    /// <summary>Whether a link of a library's page leads to the text: through the proxy, or straight to where it lies.</summary>
    public bool Leads(Uri link) =>
        Proxy is null
            ? Hosts.Contains(link.Host, StringComparer.OrdinalIgnoreCase)
            : link.AbsoluteUri.StartsWith(Proxy.AbsoluteUri, StringComparison.Ordinal)
                || (IsOfProxy(link) && !string.Equals(link.Host, Proxy.Host, StringComparison.OrdinalIgnoreCase));

    /// <summary>The address that opens another through the proxy; null where there is none.</summary>
    public Uri? Through(Uri target) =>
        Proxy is null ? null : new Uri(Proxy.AbsoluteUri + Uri.EscapeDataString(target.AbsoluteUri));

    /// <summary>Puts the cookies where a visit keeps its own.</summary>
    internal void Give(CookieContainer to)
    {
        foreach (var cookie in Secret?.Cookies ?? [])
            try
            {
                if (cookie.Domain.Length == 0)
                    to.Add(Proxy!, new Cookie(cookie.Name, cookie.Value, cookie.Path));
                else
                    to.Add(new Cookie(cookie.Name, cookie.Value, cookie.Path, cookie.Domain));
            }
            catch (CookieException) { }
    }
}
