using System.Text.RegularExpressions;
using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.People;

/// <summary>
/// A name as somebody types it, with * and initials, held against names: <see cref="NameQuery"/>, and a single word, which
/// any word of a name may be.
/// </summary>
public sealed partial class TypedName
{
    private readonly NameQuery? query;
    private readonly string[] words;

    private TypedName(string written) =>
        (Written, query, words) = (
            written,
            NameQuery.Of(written),
            [
                .. written
                    .Split([' ', '.', ',', '-'], StringSplitOptions.RemoveEmptyEntries)
                    .Select(w => Words.Fold(w))
                    .Where(w => w.Any(char.IsLetter)),
            ]
        );

    /// <summary>The name as it was typed.</summary>
    public string Written { get; }

    /// <summary>
    /// Reads a name, as texts cite it, too ("Berg et al. 2019", "Dr. M. Berg"); null for what has no letters.
    /// </summary>
    public static TypedName? Of(string written)
    {
        var name = Title().Replace(Alone(written), "").Trim(Around);
        return name.Any(char.IsLetter) ? new(name) : null;
    }

    /// <summary>What may stand around a name that was copied.</summary>
    private static readonly char[] Around = [' ', '\u00a0', ',', ';', '"', '“', '”', '„', '«', '»', '[', ']'];

    /// <summary>Whether a text names more than one person.</summary>
    public static bool AreSeveral(string written) => Between().IsMatch(Alone(written));

    /// <summary>A name without the year behind it, and without the others who are not named.</summary>
    private static string Alone(string written) => Others().Replace(Year().Replace(written.Trim(Around), ""), "");

    [GeneratedRegex(@"[\s,]*\(?(?:1[89]|20)\d\d[a-z]?\)?$", RegexOptions.CultureInvariant)]
    private static partial Regex Year();

    [GeneratedRegex(
        @"[\s,]*(?:" + PrintedNames.AndOthers + @"|\(?\beds?\b\.?\)?)$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Others();

    [GeneratedRegex(
        @"^(?:(?:dr|prof|professor|mr|mrs|ms)\b\.?\s+)+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Title();

    [GeneratedRegex(@"\p{L}\.?\s*(?:;|&|\band\b)\s*\p{L}", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex Between();

    /// <summary>Whether a name can be this one.</summary>
    public bool Fits(PersonName name) =>
        query is null
            ? words.Length > 0
                && Words.AsWritten($"{name.Family} {name.Given}").ToArray() is var its
                && words.All(w => its.Any(i => Glob.Matches(w, i)))
            : NameForms.Of(name).Any(f => query.Finds(f));

    /// <summary>
    /// Whether a name says less than this one: given names were typed, and it has fewer letters of them, so that it may be
    /// somebody else's.
    /// </summary>
    public bool IsDoubtful(PersonName name)
    {
        var comma = Written.IndexOf(',', StringComparison.Ordinal);
        string[] typed =
            query is null ? []
            : comma > 0 ? [.. Mention.GivenParts(Written[(comma + 1)..])]
            : [.. Mention.GivenParts(Written).Where(g => !Words.AsWritten(name.Family).Contains(g))];
        return typed.Sum(g => g.Length) > Mention.GivenParts(name.Given).Sum(g => g.Length);
    }
}
