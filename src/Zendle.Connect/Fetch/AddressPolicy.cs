using System.Net;
using System.Net.Sockets;

namespace Zendle.Connect.Fetch;

/// <summary>Which addresses Zendle may ask. Checked for the address, again for the machine it resolves to, and after every redirect.</summary>
/// <param name="Allowed">
/// Origins (scheme, host, port) that are allowed, wherever they lie. When empty, any http or https address is allowed that resolves to
/// a public machine; loopback, private and link-local ranges are not.
/// </param>
public sealed record AddressPolicy(IReadOnlyList<Uri> Allowed)
{
    /// <summary>Why an address may not be asked, in a sentence; null when it may.</summary>
    public string? WhyNot(Uri address)
    {
        if (address.Scheme is not ("http" or "https")) return $"Only http and https addresses can be asked, not {address.Scheme}.";
        if (address.UserInfo.Length > 0) return "An address with a name or password in it is not asked.";
        if (Allowed.Count > 0)
            return IsListed(address) ? null : $"The settings do not allow {address.GetLeftPart(UriPartial.Authority)}. Allowed are {string.Join(", ", Allowed.Select(a => a.GetLeftPart(UriPartial.Authority)))}.";
        return IPAddress.TryParse(address.DnsSafeHost, out var ip) && !IsPublic(ip) ? "The address lies in a private network, which the settings do not allow." : null;
    }

    /// <summary>Connects to the host only when it resolves to a machine that may be asked.</summary>
    public async ValueTask<Stream> Connect(SocketsHttpConnectionContext context, CancellationToken cancel)
    {
        var addresses = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, cancel);
        var listed = Allowed.Any(a => a.DnsSafeHost.Equals(context.DnsEndPoint.Host, StringComparison.OrdinalIgnoreCase) && a.Port == context.DnsEndPoint.Port);
        var usable = listed ? addresses : Array.FindAll(addresses, IsPublic);
        if (usable.Length == 0) throw new AddressNotAllowedException($"{context.DnsEndPoint.Host} resolves to a private network, which the settings do not allow.");
        var socket = new Socket(SocketType.Stream, ProtocolType.Tcp) { NoDelay = true };
        try
        {
            await socket.ConnectAsync(usable, context.DnsEndPoint.Port, cancel);
            return new NetworkStream(socket, ownsSocket: true);
        }
        catch
        {
            socket.Dispose();
            throw;
        }
    }

    private bool IsListed(Uri address) => Allowed.Any(a => Uri.Compare(a, address, UriComponents.SchemeAndServer, UriFormat.SafeUnescaped, StringComparison.OrdinalIgnoreCase) == 0);

    /// <summary>Whether an IP address lies outside the loopback, private, link-local, carrier and multicast ranges (RFC 6890).</summary>
    internal static bool IsPublic(IPAddress ip)
    {
        if (ip.IsIPv4MappedToIPv6) ip = ip.MapToIPv4();
        if (IPAddress.IsLoopback(ip) || ip.Equals(IPAddress.Any) || ip.Equals(IPAddress.IPv6Any)) return false;
        if (ip.AddressFamily == AddressFamily.InterNetworkV6) return !ip.IsIPv6LinkLocal && !ip.IsIPv6SiteLocal && !ip.IsIPv6UniqueLocal && !ip.IsIPv6Multicast;
        var b = ip.GetAddressBytes();
        return !(b[0] is 0 or 10 or 127 or >= 224 || (b[0] == 100 && b[1] is >= 64 and < 128) || (b[0] == 169 && b[1] == 254)
            || (b[0] == 172 && b[1] is >= 16 and < 32) || (b[0] == 192 && b[1] == 168) || (b[0] == 192 && b[1] == 0 && b[2] == 0) || (b[0] == 198 && b[1] is 18 or 19));
    }
}

/// <summary>An address turned out, after name resolution, to be one that may not be asked.</summary>
/// <param name="sentence">Why, for a person.</param>
public sealed class AddressNotAllowedException(string sentence) : HttpRequestException(sentence);
