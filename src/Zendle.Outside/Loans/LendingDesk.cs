using System.Collections.Concurrent;

namespace Zendle.Outside.Loans;

/// <summary>A made-up library that supplies others, with its own ways.</summary>
/// <param name="Key">What stands for it in addresses.</param>
/// <param name="Name">Its name.</param>
/// <param name="Isil">Its identifier (ISIL), with a prefix that no country has.</param>
/// <param name="CopyCost">What a copy costs, in euros.</param>
/// <param name="LoanCost">What a loan costs, in euros.</param>
/// <param name="MostOpen">How many open requests a reader may have.</param>
/// <param name="Days">How many days it takes to supply.</param>
/// <param name="Lacks">Of how many works it lacks one.</param>
public sealed record LendingDesk(
    string Key,
    string Name,
    string Isil,
    decimal CopyCost,
    decimal LoanCost,
    int MostOpen,
    int Days,
    int Lacks
)
{
    /// <summary>Both of them, the cheaper one first.</summary>
    public static readonly LendingDesk[] All =
    [
        new("voorland", "Voorland lending desk", "XA-VLD", 4.50m, 8m, 20, 3, 4),
        new("harrow", "Harrow Sound exchange", "XD-HSX", 12m, 15m, 10, 6, 9),
    ];

    /// <summary>The desk of a key; null for none.</summary>
    public static LendingDesk? Of(string key) => Array.Find(All, d => d.Key == key);
}

/// <summary>What goes wrong at the desks, for tests.</summary>
public sealed class DeskSwitches
{
    /// <summary>
    /// All faults: nothing; it fails, is slow, answers with a page, refuses every message; it never says anything; what it writes
    /// is cut off, comes twice, in reverse, or after a message about a request that nobody made; the copy is another work's, a
    /// scan, gone, or at another host; it says that the copy went by post.
    /// </summary>
    public static readonly string[] Kinds =
    [
        "none",
        "down",
        "slow",
        "page",
        "refuse",
        "silent",
        "malformed",
        "twice",
        "reversed",
        "unknown",
        "wrong",
        "scan",
        "gone",
        "elsewhere",
        "by-post",
    ];

    private readonly ConcurrentDictionary<string, string> set = new();

    /// <summary>Sets the fault of a desk; false for a fault there is none of.</summary>
    public bool Set(string desk, string kind)
    {
        if (!Kinds.Contains(kind) || LendingDesk.Of(desk) is null)
            return false;
        set[desk] = kind;
        return true;
    }

    /// <summary>Whether a desk has a fault.</summary>
    public bool Has(string desk, string kind) => Of(desk) == kind;

    /// <summary>Its fault; "none" for none.</summary>
    public string Of(string desk) => set.GetValueOrDefault(desk, "none");
}
