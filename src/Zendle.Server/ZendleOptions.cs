namespace Zendle.Server;

/// <summary>Settings of an installation, from the command line, the environment or appsettings.</summary>
public sealed record ZendleOptions
{
    /// <summary>Data folder; absolute.</summary>
    public required string Data { get; init; }

    /// <summary>Whether to make the demo account and the demo review.</summary>
    public bool Demo { get; init; }

    /// <summary>Address of the simulated outside; null without one.</summary>
    public Uri? Outside { get; init; }

    /// <summary>Origins that may be asked; empty for any public one.</summary>
    public IReadOnlyList<Uri> Allowed { get; init; } = [];

    /// <summary>Where DOIs are resolved, ending in a slash; null not to follow them.</summary>
    public Uri? DoiResolver { get; init; }

    /// <summary>Where the directory of libraries lies; null for none.</summary>
    public Uri? LibraryDirectory { get; init; }

    /// <summary>
    /// Where this installation is reached from outside, for the messages of loan desks; null for where people reach it.
    /// </summary>
    public Uri? Address { get; init; }

    /// <summary>
    /// How long a harvest waits before it asks again after a fault; each further wait is twice as long.
    /// </summary>
    public TimeSpan FirstRetry { get; init; } = Connect.Harvest.OaiLimits.Usual.FirstRetry;

    /// <summary>How long one request may evaluate questions.</summary>
    public TimeSpan QuestionTime { get; init; } = TimeSpan.FromSeconds(12);

    /// <summary>Host names that requests may be addressed to; empty for this machine's own names only.</summary>
    public IReadOnlyList<string> Hosts { get; init; } = [];

    /// <summary>Addresses of the reverse proxies whose word about the client and the scheme is taken.</summary>
    public IReadOnlyList<System.Net.IPAddress> Proxies { get; init; } = [];

    /// <summary>Where hosts that are asked can write to: an address of mail or of a page; null for nowhere.</summary>
    public string? Contact { get; init; }

    /// <summary>How many tries to sign in an address has in a minute.</summary>
    public int SignInsPerMinute { get; init; } = 10;

    /// <summary>A contact as it can stand in a header.</summary>
    private static string? ContactFrom(string? text) =>
        string.IsNullOrWhiteSpace(text) ? null
        : text.Trim() is { Length: < 200 } contact
        && contact.All(c => c is > ' ' and < '\u007F' and not ('(' or ')' or '\\' or '"'))
            ? contact
        : throw new FormatException("The contact must be an address without spaces, brackets or accented letters.");

    private static string[] Listed(string? text) =>
        (text ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries);

    /// <summary>Reads the settings.</summary>
    /// <exception cref="FormatException">An address in them is none.</exception>
    public static ZendleOptions From(IConfiguration configuration)
    {
        var section = configuration.GetSection("Zendle");
        var outside = section["Outside"] is { Length: > 0 } o ? new Uri(o) : null;
        var allowed = Listed(section["Allowed"]).Select(a => new Uri(a));
        return new()
        {
            Data = Path.GetFullPath(section["Data"] is { Length: > 0 } data ? data : "data"),
            Demo = section.GetValue("Demo", false),
            Outside = outside,
            Allowed = [.. outside is null ? allowed : allowed.Append(outside)],
            DoiResolver =
                section["DoiResolver"] is { Length: > 0 } resolver ? new Uri(resolver)
                : outside is null ? null
                : new Uri(outside, "/doi/"),
            LibraryDirectory =
                section["LibraryDirectory"] is { Length: > 0 } directory ? new Uri(directory)
                : outside is null ? null
                : new Uri(outside, "/libraries"),
            Address = section["Address"] is { Length: > 0 } address ? new Uri(address) : null,
            FirstRetry = TimeSpan.FromSeconds(
                section.GetValue("FirstRetrySeconds", Connect.Harvest.OaiLimits.Usual.FirstRetry.TotalSeconds)
            ),
            QuestionTime = TimeSpan.FromSeconds(section.GetValue("QuestionSeconds", 12.0)),
            Hosts = Listed(section["Hosts"]),
            Contact = ContactFrom(section["Contact"]),
            Proxies = [.. Listed(section["Proxies"]).Select(System.Net.IPAddress.Parse)],
            SignInsPerMinute = section.GetValue("SignInsPerMinute", 10),
        };
    }
}
