using System.Globalization;
using System.Text;

namespace Zendle.Connect.Fetch;

/// <summary>
/// What a host allows programs: its robots.txt (RFC 9309, Robots Exclusion Protocol), as it reads for one program.
/// </summary>
/// <param name="Rules">Its rules for the program.</param>
/// <param name="Delay">How long it wants to be left alone between requests (<c>Crawl-delay</c>, which many hosts write and the
/// standard does not have); zero where it does not say.</param>
public sealed record RobotsRules(IReadOnlyList<RobotsRule> Rules, TimeSpan Delay)
{
    /// <summary>Longest delay that is kept; hosts that ask for more mean programs that read all they have.</summary>
    public static readonly TimeSpan LongestDelay = TimeSpan.FromSeconds(30);

    private const int MostRules = 5_000;

    /// <summary>Nothing is allowed.</summary>
    public static RobotsRules None { get; } = new([new("/", false)], TimeSpan.Zero);

    /// <summary>
    /// Reads a robots.txt. All groups that name the program count together; where none does, those for <c>*</c>. Lines that
    /// mean nothing are passed over. O(length).
    /// </summary>
    /// <param name="text">The file.</param>
    /// <param name="program">The product token of the program, in lower case.</param>
    public static RobotsRules Read(string text, string program)
    {
        var (own, others) = (new Group(), new Group());
        var (isOwn, isAll, inRules) = (false, false, true);
        foreach (var raw in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var line = raw.Split('#', 2)[0];
            var colon = line.IndexOf(':', StringComparison.Ordinal);
            if (colon < 0)
                continue;
            var (name, value) = (line[..colon].Trim().Trim('\uFEFF').ToLowerInvariant(), line[(colon + 1)..].Trim());
            if (name == "user-agent")
            {
                // Several names in a row begin one group.
                if (inRules)
                    (isOwn, isAll, inRules) = (false, false, false);
                isOwn |= string.Equals(Token(value), program, StringComparison.OrdinalIgnoreCase);
                isAll |= value == "*";
                own.IsNamed |= isOwn;
                continue;
            }
            if (name is not ("allow" or "disallow" or "crawl-delay"))
                continue;
            inRules = true;
            if (isOwn)
                own.Add(name, value);
            if (isAll)
                others.Add(name, value);
        }
        var group = own.IsNamed ? own : others;
        return new(group.Rules, group.Delay);
    }

    /// <summary>
    /// Whether the program may ask for an address: the rule whose pattern is longest decides, of two alike the one that
    /// allows; without a rule it may. O(rules · length).
    /// </summary>
    public bool Allows(Uri address)
    {
        // The rules themselves can always be asked for.
        if (address.AbsolutePath == "/robots.txt")
            return true;
        var path = Plain(address.PathAndQuery);
        var rule = Rules
            .Where(r => r.Fits(path))
            .OrderByDescending(r => r.Pattern.Length)
            .ThenByDescending(r => r.IsAllowed)
            .FirstOrDefault();
        return rule?.IsAllowed ?? true;
    }

    /// <summary>A path in which letters are written alike, whether with per cent signs or without.</summary>
    internal static string Plain(string path) =>
        Uri.TryCreate("http://host.example" + (path.StartsWith('/') ? path : "/" + path), UriKind.Absolute, out var uri)
            ? uri.PathAndQuery
            : path;

    /// <summary>The name of a program without its version.</summary>
    private static string Token(string name)
    {
        var length = 0;
        while (length < name.Length && (char.IsAsciiLetter(name[length]) || name[length] is '-' or '_'))
            length++;
        return name[..length];
    }

    private sealed class Group
    {
        public bool IsNamed { get; set; }

        public List<RobotsRule> Rules { get; } = [];

        public TimeSpan Delay { get; private set; }

        public void Add(string name, string value)
        {
            if (name == "crawl-delay")
            {
                if (
                    double.TryParse(
                        value,
                        NumberStyles.AllowDecimalPoint,
                        CultureInfo.InvariantCulture,
                        out var seconds
                    )
                    && seconds > 0
                )
                    Delay = seconds < LongestDelay.TotalSeconds ? TimeSpan.FromSeconds(seconds) : LongestDelay;
            }
            // A rule without a path says nothing.
            else if (value.Length > 0 && Rules.Count < MostRules)
                Rules.Add(new(value, name == "allow"));
        }
    }
}

/// <summary>A rule of a host.</summary>
/// <param name="Pattern">Which paths it is about: a beginning, with <c>*</c> for anything and a closing <c>$</c> for the
/// end.</param>
/// <param name="IsAllowed">Whether they are allowed.</param>
public sealed record RobotsRule(string Pattern, bool IsAllowed)
{
    private readonly string[] parts = Parts(Pattern);

    /// <summary>Whether it is about a path.</summary>
    internal bool Fits(string path)
    {
        var isWhole = Pattern.EndsWith('$');
        var at = 0;
        for (var i = 0; i < parts.Length; i++)
        {
            var part = parts[i];
            if (i == 0)
            {
                if (!path.StartsWith(part, StringComparison.Ordinal))
                    return false;
                at = part.Length;
            }
            else if (i == parts.Length - 1 && isWhole)
                return path.Length - part.Length >= at && path.EndsWith(part, StringComparison.Ordinal);
            else
            {
                var found = path.IndexOf(part, at, StringComparison.Ordinal);
                if (found < 0)
                    return false;
                at = found + part.Length;
            }
        }
        return !isWhole || at == path.Length;
    }

    private static string[] Parts(string pattern) =>
        [
            .. (pattern.EndsWith('$') ? pattern[..^1] : pattern)
                .Split('*')
                .Select((p, i) => i == 0 ? RobotsRules.Plain(p) : Escaped(p)),
        ];

    /// <summary>A part in the middle of a path, its letters written as addresses write them.</summary>
    private static string Escaped(string part)
    {
        var text = new StringBuilder(part.Length);
        foreach (var rune in part.EnumerateRunes())
            text.Append(rune.IsAscii ? rune.ToString() : Uri.EscapeDataString(rune.ToString()));
        return text.ToString();
    }
}
