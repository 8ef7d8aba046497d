namespace Zendle.Store.Made;

/// <summary>How a person signs in at a library.</summary>
public enum LibrarySignIn
{
    /// <summary>Not at all: its proxy, if it has one, knows readers by their network.</summary>
    None,

    /// <summary>With name and password, in the form of its proxy.</summary>
    Password,

    /// <summary>In a window of the library's own, which gives Zendle a key (OAuth 2.0, RFC 6749 with RFC 7636).</summary>
    Window,
}

/// <summary>A library whose holdings are known, for everyone of the installation who uses it.</summary>
public sealed class LibraryRow
{
    /// <summary>Id.</summary>
    public int Id { get; set; }

    /// <summary>Its name.</summary>
    public required string Name { get; set; }

    /// <summary>Where it is; empty when not said.</summary>
    public string Town { get; set; } = "";

    /// <summary>In which country; empty when not said.</summary>
    public string Country { get; set; } = "";

    /// <summary>Its identifier in the directory it was chosen from (ISIL, ISO 15511); empty for one added by hand.</summary>
    public string Identifier { get; set; } = "";

    /// <summary>Where its holdings lie as KBART; null when a file was brought.</summary>
    public string? HoldingsAddress { get; set; }

    /// <summary>Its link resolver (OpenURL 1.0); null for none.</summary>
    public string? Resolver { get; set; }

    /// <summary>What stands before an address to open it through its proxy; null for none.</summary>
    public string? ProxyPrefix { get; set; }

    /// <summary>How people sign in.</summary>
    public LibrarySignIn SignIn { get; set; }

    /// <summary>Where its own sign-in window opens; null without one.</summary>
    public string? AuthorizeAddress { get; set; }

    /// <summary>Where what the window gives is changed into a key; null without one.</summary>
    public string? TokenAddress { get; set; }

    /// <summary>The number of the holdings that count; 0 before the first came.</summary>
    public int Load { get; set; }

    /// <summary>When they came, UTC; null before.</summary>
    public DateTimeOffset? LoadedAt { get; set; }

    /// <summary>Lines in them.</summary>
    public int Lines { get; set; }

    /// <summary>Lines that could not be read.</summary>
    public int Unread { get; set; }

    /// <summary>The first faults of such lines, a sentence each, parted by line breaks; empty for none.</summary>
    public string Faults { get; set; } = "";
}

/// <summary>That a person uses a library, and in which order.</summary>
public sealed class UsedLibraryRow
{
    /// <summary>Who.</summary>
    public required string AccountId { get; set; }

    /// <summary>The library.</summary>
    public int LibraryId { get; set; }

    /// <summary>Its rank among those of the person, the one asked first at 0.</summary>
    public int Rank { get; set; }
}

/// <summary>A person's session at a library. Only Zendle's server can open it, and for that person alone.</summary>
public sealed class LibrarySessionRow
{
    /// <summary>Whose.</summary>
    public required string AccountId { get; set; }

    /// <summary>At which library.</summary>
    public int LibraryId { get; set; }

    /// <summary>What the library gave, encrypted (ASP.NET Core Data Protection).</summary>
    public required byte[] Secret { get; set; }

    /// <summary>When it began, UTC.</summary>
    public DateTimeOffset At { get; set; }

    /// <summary>When it ends, UTC; null when the library did not say.</summary>
    public DateTimeOffset? EndsAt { get; set; }
}
