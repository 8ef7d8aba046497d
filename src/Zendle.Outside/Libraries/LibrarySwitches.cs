using System.Collections.Concurrent;

namespace Zendle.Outside.Libraries;

/// <summary>What goes wrong at the libraries, for tests; and what was.</summary>
public sealed class LibrarySwitches
{
    /// <summary>
    /// All faults: nothing; the resolver fails, goes in circles, or is slow; the proxy takes no session for one any more;
    /// its sign-in page comes again, with status 200, whatever is typed; the holdings are no table.
    /// </summary>
    public static readonly string[] Kinds = ["none", "down", "loop", "slow", "ended", "refuse", "no-table"];

    private readonly ConcurrentDictionary<string, string> set = new();

    /// <summary>Sets the fault of a library; false for a fault there is none of.</summary>
    public bool Set(string library, string kind)
    {
        if (!Kinds.Contains(kind))
            return false;
        set[library] = kind;
        return true;
    }

    /// <summary>Whether a library has a fault.</summary>
    public bool Has(string library, string kind) => set.TryGetValue(library, out var at) && at == kind;

    /// <summary>Its fault; "none" for none.</summary>
    public string Of(string library) => set.GetValueOrDefault(library, "none");
}
