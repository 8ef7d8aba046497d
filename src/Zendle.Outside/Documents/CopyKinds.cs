using System.Collections.Concurrent;
using Zendle.Outside.World;

namespace Zendle.Outside.Documents;

/// <summary>
/// What really lies behind the address of a copy: mostly what it says, now and then something else. Can be set for
/// tests.
/// </summary>
public sealed class CopyKinds
{
    /// <summary>All kinds there are.</summary>
    public static readonly string[] All =
    [
        "fine",
        "dead",
        "wrong",
        "truncated",
        "html",
        "wait",
        "landing-only",
        "sign-in",
        "other-title",
        "empty",
        "huge",
        "endless",
        "dripping",
        "encrypted",
        "scanned",
        "loop",
        "private",
        "bomb",
        "script",
        "many-pages",
        "page",
        "jats",
        "epub",
        "preview",
        .. LookAlikes.Kinds,
    ];

    private readonly ConcurrentDictionary<string, string> set = new();
    private readonly ConcurrentDictionary<string, int> asked = new();

    /// <summary>Sets what lies behind a path.</summary>
    public bool Set(string path, string kind)
    {
        if (!All.Contains(kind))
            return false;
        set[path] = kind;
        asked.TryRemove(path, out _);
        return true;
    }

    /// <summary>What was set by hand, for the page.</summary>
    public IReadOnlyDictionary<string, string> ByHand => set;

    /// <summary>What lies behind a copy of a work.</summary>
    /// <param name="path">Path of its landing page.</param>
    /// <param name="work">The work.</param>
    /// <param name="look">The look of the copy.</param>
    public string Of(string path, Work work, Look look)
    {
        if (set.TryGetValue(path, out var kind))
            return kind;
        var roll = new Dice(2269).For("copy " + look, work.Id).Unit();
        return look switch
        {
            Look.Typeset => roll switch
            {
                < 0.08 => "dead",
                < 0.14 => "wrong",
                < 0.20 => "truncated",
                < 0.23 => "html",
                < 0.31 => "wait",
                < 0.34 => "landing-only",
                < 0.37 => "sign-in",
                < 0.39 => "scanned",
                < 0.42 => "page",
                < 0.45 => "jats",
                _ => "fine",
            },
            Look.Manuscript => roll switch
            {
                < 0.05 => "other-title",
                < 0.08 => "truncated",
                < 0.10 => "wrong",
                _ => "fine",
            },
            _ => roll switch
            {
                < 0.08 => "other-title",
                < 0.12 => "wait",
                _ => "fine",
            },
        };
    }

    /// <summary>How often a path that asks to wait has been asked, this time included.</summary>
    public int Times(string path) => asked.AddOrUpdate(path, 1, (_, n) => n + 1);
}
