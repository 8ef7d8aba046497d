using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;

namespace Zendle.Connect.Fetch;

/// <summary>
/// Which addresses Zendle may ask. Checked for the address, again for the machine it resolves to, and after every
/// redirect.
/// </summary>
/// <param name="Allowed"> Origins (scheme, host, port) that are allowed, wherever they lie. When empty, any http or
/// https address is allowed that resolves to a public machine; loopback, private and link-local ranges are not.
/// </param>
public sealed record AddressPolicy(IReadOnlyList<Uri> Allowed)
{
    /// <summary>Why an address may not be asked, in a sentence; null when it may.</summary>
    public string? WhyNot(Uri address)
    {
        if (address.Scheme is not ("http" or "https"))
            return $"Only http and https addresses can be asked, not {address.Scheme}.";
        if (address.UserInfo.Length > 0)
            return "An address must not contain a user name or password.";
        if (Allowed.Count > 0)
            return IsListed(address)
                ? null
                : $"The settings do not allow {address.GetLeftPart(UriPartial.Authority)}. Allowed are "
                    + $"{string.Join(", ", Allowed.Select(a => a.GetLeftPart(UriPartial.Authority)))}.";
        return IPAddress.TryParse(address.DnsSafeHost, out var ip) && !IsPublic(ip)
            ? "The address lies in a private network, which the settings do not allow."
            : null;
    }

    /// <summary>Connects to the host only when it resolves to a machine that may be asked.</summary>
    public async ValueTask<Stream> Connect(SocketsHttpConnectionContext context, CancellationToken cancel)
    {
        var addresses = await Dns.GetHostAddressesAsync(context.DnsEndPoint.Host, cancel);
        var listed = Allowed.Any(a =>
            a.DnsSafeHost.Equals(context.DnsEndPoint.Host, StringComparison.OrdinalIgnoreCase)
            && a.Port == context.DnsEndPoint.Port
        );
        var usable = listed ? addresses : Array.FindAll(addresses, IsPublic);
        if (usable.Length == 0)
            throw new AddressNotAllowedException(
                $"{context.DnsEndPoint.Host} resolves to a private network, which the settings do not allow."
            );
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

    private bool IsListed(Uri address) =>
        Allowed.Any(a =>
            Uri.Compare(
                a,
                address,
                UriComponents.SchemeAndServer,
                UriFormat.SafeUnescaped,
                StringComparison.OrdinalIgnoreCase
            ) == 0
        );

    /// <summary>
    /// Whether an IP address is one of a machine anyone can reach: in no range that the special-purpose registries keep
    /// from public use (RFC 6890 and the IANA registries for IPv4 and IPv6), no address that only wraps an IPv4 address
    /// of such a range (mapped, compatible, NAT64, 6to4, Teredo, ISATAP), and none of this machine's own.
    /// </summary>
    internal static bool IsPublic(IPAddress ip) => IsPublicRange(ip) && !OwnAddresses().Contains(Plain(ip));

    private static bool IsPublicRange(IPAddress ip)
    {
        if (ip.IsIPv4MappedToIPv6)
            ip = ip.MapToIPv4();
        if (ip.AddressFamily == AddressFamily.InterNetwork)
            return !Reserved4.Any(r => r.Contains(ip));
        // Only 2000::/3 is given out; what lies in it for special purposes is left out.
        if (!Given6.Contains(Plain(ip)) || Reserved6.Any(r => r.Contains(Plain(ip))))
            return false;
        return Wrapped(ip.GetAddressBytes()) is not { } inner || IsPublicRange(inner);
    }

    /// <summary>
    /// The IPv4 address inside an IPv6 address of ISATAP (RFC 5214); other wrappings lie in ranges that are refused
    /// whole.
    /// </summary>
    private static IPAddress? Wrapped(byte[] b) =>
        b[8] is 0 or 2 && b[9] == 0 && b[10] == 0x5E && b[11] == 0xFE ? new(b.AsSpan(12, 4)) : null;

    private static IPAddress Plain(IPAddress ip) =>
        ip.IsIPv4MappedToIPv6 ? ip.MapToIPv4()
        : ip.AddressFamily == AddressFamily.InterNetworkV6 ? new(ip.GetAddressBytes())
        : ip;

    private static readonly IPNetwork Given6 = IPNetwork.Parse("2000::/3");

    private static readonly IPNetwork[] Reserved4 =
    [
        .. new[]
        {
            "0.0.0.0/8",
            "10.0.0.0/8",
            "100.64.0.0/10",
            "127.0.0.0/8",
            "169.254.0.0/16",
            "172.16.0.0/12",
            "192.0.0.0/24",
            "192.0.2.0/24",
            "192.31.196.0/24",
            "192.52.193.0/24",
            "192.88.99.0/24",
            "192.168.0.0/16",
            "192.175.48.0/24",
            "198.18.0.0/15",
            "198.51.100.0/24",
            "203.0.113.0/24",
            "224.0.0.0/4",
            "240.0.0.0/4",
        }.Select(r => IPNetwork.Parse(r)),
    ];

    // Teredo and other protocol assignments, documentation, 6to4, AS112, segment routing. NAT64 (64:ff9b::/96 and /48),
    // IPv4-compatible (::/96), unique and link-local addresses and the rest lie outside 2000::/3.
    private static readonly IPNetwork[] Reserved6 =
    [
        .. new[] { "2001::/23", "2001:db8::/32", "2002::/16", "2620:4f:8000::/48", "3fff::/20" }.Select(r =>
            IPNetwork.Parse(r)
        ),
    ];

    private static (DateTime At, HashSet<IPAddress> Addresses) own = (DateTime.MinValue, []);

    /// <summary>Addresses of this machine's interfaces, looked up at most once a minute.</summary>
    private static HashSet<IPAddress> OwnAddresses()
    {
        var known = own;
        if (DateTime.UtcNow - known.At < TimeSpan.FromMinutes(1))
            return known.Addresses;
        try
        {
            var found = NetworkInterface
                .GetAllNetworkInterfaces()
                .SelectMany(i => i.GetIPProperties().UnicastAddresses)
                .Select(a => Plain(a.Address))
                .ToHashSet();
            own = (DateTime.UtcNow, found);
            return found;
        }
        catch (NetworkInformationException)
        {
            return known.Addresses;
        }
    }
}

/// <summary>An address turned out, after name resolution, to be one that may not be asked.</summary>
/// <param name="sentence">Why, for a person.</param>
public sealed class AddressNotAllowedException(string sentence) : HttpRequestException(sentence);
