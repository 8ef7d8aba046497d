namespace Zendle.Connect.Fetch;

/// <summary>What fetching one document may cost.</summary>
public sealed record FetchLimits
{
    /// <summary>Most bytes of a document, after decompression.</summary>
    public long Document { get; init; } = 80_000_000;

    /// <summary>Most bytes of a page.</summary>
    public long Page { get; init; } = 12_000_000;

    /// <summary>Most bytes of a figure.</summary>
    public long Figure { get; init; } = 12_000_000;

    /// <summary>Most time until a reply begins.</summary>
    public TimeSpan Begin { get; init; } = TimeSpan.FromSeconds(20);

    /// <summary>Most time until a reply has ended.</summary>
    public TimeSpan Whole { get; init; } = TimeSpan.FromSeconds(90);

    /// <summary>Most redirects in a row.</summary>
    public int Redirects { get; init; } = 6;

    /// <summary>How often a host that asks to wait is asked again.</summary>
    public int Waits { get; init; } = 3;

    /// <summary>Most bytes of a host's rules (RFC 9309, 2.5).</summary>
    public long Rules { get; init; } = 512_000;

    /// <summary>How often a request that failed on its way is made again.</summary>
    public int Retries { get; init; } = 1;

    /// <summary>How long the host is left alone before.</summary>
    public TimeSpan RetryPause { get; init; } = TimeSpan.FromSeconds(2);

    /// <summary>The longest wait a host may ask for.</summary>
    public TimeSpan LongestWait { get; init; } = TimeSpan.FromSeconds(60);

    /// <summary>Requests at one host at a time.</summary>
    public int PerHost { get; init; } = 2;
}
