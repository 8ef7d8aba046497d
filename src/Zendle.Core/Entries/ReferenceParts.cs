using System.Text.RegularExpressions;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// A printed reference in its three parts: people, title, and what says where it appeared. Styles part them by quotation
/// marks, by a year, by a colon, or by a full stop that is no initial's.
/// </summary>
/// <param name="People">The people; empty when none show.</param>
/// <param name="Title">The title; empty when none shows.</param>
/// <param name="Behind">What follows the title.</param>
internal sealed partial record ReferenceParts(string People, string Title, string Behind)
{
    private const int FewestLetters = 3,
        FewestSmallWords = 3,
        LongestBody = 100;

    /// <summary>Parts a reference. O(length²) at worst, over one reference.</summary>
    /// <param name="text">The reference on one line, without DOI and addresses.</param>
    public static ReferenceParts Of(string text)
    {
        if (
            Quoted().Match(text) is { Success: true } quoted
            && quoted.Groups["title"].Value.Contains(' ', StringComparison.Ordinal)
        )
            return new(
                WithoutYear(text[..quoted.Index]),
                Trimmed(quoted.Groups["title"].Value),
                text[(quoted.Index + quoted.Length)..].Trim(' ', ',', '.')
            );
        if (Start(text) is not var (people, start) || start >= text.Length)
            return new("", "", "");
        var end = End(text, start);
        return new(people, Trimmed(text[start..end]), text[end..].Trim(' ', '.', ',', ']'));
    }

    /// <summary>Where the title begins, with the people before it; null when neither a year, a colon nor a stop tells.</summary>
    private static (string People, int Start)? Start(string text)
    {
        if (
            BehindPeople().Match(text) is { Success: true } year
            && (AreNames(text[..year.Index]) || MayBeABody(text[..year.Index], year.Value))
        )
            return (text[..year.Index].Trim(), year.Index + year.Length);
        for (var i = 1; i + 2 < text.Length; i++)
        {
            var isColon = text[i] == ':' && text[i + 1] == ' ' && text.AsSpan(0, i).Contains('.');
            if (!isColon && !(text[i] == '.' && text[i + 1] == ' '))
                continue;
            var head = text[..(isColon ? i : i + 1)];
            var next = text[(i + 2)..];
            var stop = next.IndexOf(". ", StringComparison.Ordinal);
            if (
                AreNames(head)
                && char.IsLetterOrDigit(next[0])
                && !InitialFirst().IsMatch(next)
                && !IsListOfNames(stop < 0 ? next : next[..(stop + 1)])
            )
                return (head.Trim(), i + 2);
        }
        return null;
    }

    /// <summary>Where the title ends: at a stop that is no abbreviation's, or where brackets say what kind it is.</summary>
    private static int End(string text, int start)
    {
        for (var i = start + 1; i < text.Length; i++)
        {
            if (text[i] == '[' && text[i - 1] == ' ')
                return i;
            if (text[i] is not ('.' or '?' or '!') || i - start < FewestLetters)
                continue;
            if (i + 1 == text.Length)
                return text[i] == '.' ? i : i + 1;
            var isInitial =
                char.IsUpper(text[i - 1])
                && text[i - 2] is ' ' or '.'
                && i + 2 < text.Length
                && char.IsLower(text[i + 2]);
            if (text[i] == '?' && text[i + 1] == ' ' && GoesOnAsTitle(text, i + 2))
                continue;
            if (text[i + 1] == ' ' && !isInitial && !(i + 2 < text.Length && char.IsLower(text[i + 2])))
                return text[i] == '.' ? i : i + 1;
        }
        return text.Length;
    }

    /// <summary>Whether what follows a question is its second half rather than a venue: venues have few small words.</summary>
    private static bool GoesOnAsTitle(string text, int start)
    {
        var stop = text.IndexOf(". ", start, StringComparison.Ordinal);
        return stop > 0 && SmallWord().Count(text[start..stop]) >= FewestSmallWords;
    }

    /// <summary>Whether a text may be people and nothing else: names, particles, initials, and what joins them.</summary>
    private static bool AreNames(string text)
    {
        var words = Split().Split(text).Where(w => w.Length > 0).ToArray();
        return words.Length > 0
            && text.IndexOfAny([':', '?', '“']) < 0
            && words.Any(w => w.Length > 1)
            && words.All(w => char.IsUpper(w[0]) || w[0] == '-' || IsCaseless(w[0]) || Joining().IsMatch(w));
    }

    /// <summary>"Agency of Night Skies (2019)": a body before a year in brackets, one phrase without a stop.</summary>
    private static bool MayBeABody(string people, string year) =>
        people.Length is > 2 and <= LongestBody
        && year.TrimStart(' ', ',') is ['(' or '[', ..]
        && char.IsUpper(people[0])
        && people.IndexOfAny(['.', ':', '?', '“', '(']) < 0;

    /// <summary>Whether a text goes on with more people: it has initials or joins names, and nothing but names.</summary>
    private static bool IsListOfNames(string text) => AreNames(text) && GoesOn().IsMatch(text);

    private static bool IsCaseless(char c) => char.IsLetter(c) && !char.IsUpper(c) && !char.IsLower(c);

    private static string WithoutYear(string people) => YearAtEnd().Replace(people, "").Trim(' ', ',', ':');

    private static string Trimmed(string title) =>
        title.Trim(' ', ',', '.', ';', ':', '“', '”', '"', '«', '»', '‘', '’');

    [GeneratedRegex(
        @"(?:“(?<title>[^”]{8,})”|""(?<title>[^""]{8,})""|«(?<title>[^»]{8,})»|(?<=[ (])‘(?<title>[^‘]{8,}?)’(?=[,. ]))",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Quoted();

    /// <summary>A year behind the people: "(2014). ", ", 2014. ", "(2014, May): ", " 2014 ".</summary>
    [GeneratedRegex(
        @"[\s,]*(?:[(\[](?:[12]\d{3}[a-z]?|n\.d\.|in press|forthcoming)[^)\]]{0,20}[)\]]\s*[.,:]?|[,. ]\s*[12]\d{3}[a-z]?[.,:])\s+",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex BehindPeople();

    [GeneratedRegex(@"[\s(,.]*\b[12]\d{3}[a-z]?\b[)\s,.:]*$", RegexOptions.CultureInvariant)]
    private static partial Regex YearAtEnd();

    [GeneratedRegex(@"^\p{Lu}\p{Ll}?\.[ -]", RegexOptions.CultureInvariant)]
    private static partial Regex InitialFirst();

    [GeneratedRegex(@"(?<= )(?!(?:and|of|the|in|for|on|und|der|et|de|des)\b)\p{Ll}{3,}", RegexOptions.CultureInvariant)]
    private static partial Regex SmallWord();

    [GeneratedRegex(@"[\s,.;:&()\[\]]+", RegexOptions.CultureInvariant)]
    private static partial Regex Split();

    [GeneratedRegex(
        @"^(?:and|und|et|y|e|al|eds?|van|von|de|der|den|del|di|da|dos|du|la|le|el|ten|ter|zu|af|av|bin|ibn)$|^[dl]['’]",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Joining();

    [GeneratedRegex(
        @"(?:^|[\s.-])\p{Lu}\.|\p{L} \p{Lu}{1,3}(?:[,.]|$)|\b(?:and|und|et|y)\b|&",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex GoesOn();
}
