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

    /// <summary>How many tries to sign in an address has in a minute.</summary>
    public int SignInsPerMinute { get; init; } = 10;

    /// <summary>Reads the settings.</summary>
    public static ZendleOptions From(IConfiguration configuration)
    {
        var section = configuration.GetSection("Zendle");
        var outside = section["Outside"] is { Length: > 0 } o ? new Uri(o) : null;
        var allowed = (section["Allowed"] ?? "").Split([',', ' '], StringSplitOptions.RemoveEmptyEntries).Select(a => new Uri(a));
        return new()
        {
            Data = Path.GetFullPath(section["Data"] is { Length: > 0 } data ? data : "data"),
            Demo = section.GetValue("Demo", false),
            Outside = outside,
            Allowed = [.. outside is null ? allowed : allowed.Append(outside)],
            DoiResolver = section["DoiResolver"] is { Length: > 0 } resolver ? new Uri(resolver) : outside is null ? null : new Uri(outside, "/doi/"),
            SignInsPerMinute = section.GetValue("SignInsPerMinute", 10),
        };
    }
}
