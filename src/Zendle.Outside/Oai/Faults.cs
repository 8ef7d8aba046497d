using System.Collections.Concurrent;

namespace Zendle.Outside.Oai;

/// <summary>Faults that can be switched on for each database, to see how a harvester bears them.</summary>
public sealed class Faults
{
    /// <summary>All kinds there are.</summary>
    public static readonly string[] Kinds =
    [
        "none",
        "slow",
        "busy",
        "malformed",
        "doctype",
        "redirect",
        "endless",
        "expired",
        "down",
        "cut",
    ];

    private readonly ConcurrentDictionary<string, (string Kind, int Left)> on = new();

    /// <summary>Switches a fault on for so many requests for records; "none" switches off.</summary>
    public bool Set(string database, string kind, int times)
    {
        if (!Kinds.Contains(kind))
            return false;
        if (kind == "none")
            on.TryRemove(database, out _);
        else
            on[database] = (kind, times);
        return true;
    }

    /// <summary>The fault for the next request, counted down.</summary>
    public string Next(string database)
    {
        if (!on.TryGetValue(database, out var fault))
            return "none";
        if (fault.Left <= 1)
            on.TryRemove(database, out _);
        else
            on[database] = (fault.Kind, fault.Left - 1);
        return fault.Kind;
    }

    /// <summary>What is on, for the page.</summary>
    public IReadOnlyDictionary<string, string> State =>
        on.ToDictionary(f => f.Key, f => $"{f.Value.Kind}, {f.Value.Left} times");
}
