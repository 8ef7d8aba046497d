using Zendle.Core.Text;

namespace Zendle.Core.People;

/// <summary>
/// A person's name as somebody types it: "Iwasfield, K", "Kwame Iwasfield", "K Iwasfield", "Iwasfield KB", or a family
/// name of two words. It is found
/// in every name that can be the same: in any order, given names in full or as initials, with or without what stands
/// before a family name. Wildcards hold within a word.
/// </summary>
public sealed class NameQuery
{
    private readonly (string Family, IReadOnlyList<string> Given)[] readings;

    private NameQuery((string, IReadOnlyList<string>)[] readings) => this.readings = readings;

    /// <summary>
    /// Reads a name of a family name and given names or initials. Null for a single word and for what holds no letters:
    /// that is looked for as a word of any name.
    /// </summary>
    public static NameQuery? Of(string written)
    {
        var comma = written.IndexOf(',', StringComparison.Ordinal);
        var readings = new List<(string, IReadOnlyList<string>)>();
        if (comma > 0)
            Add(written[..comma], written[(comma + 1)..]);
        else
        {
            var words = written.Split(
                [' ', '\t', '\u00A0'],
                StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
            );
            for (var i = 1; i < words.Length; i++)
            {
                Add(string.Join(' ', words[i..]), string.Join(' ', words[..i]));
                Add(string.Join(' ', words[..i]), string.Join(' ', words[i..]));
            }
            // "Ruiz Vidal" may be one family name, with or without a hyphen; an initial is no part of one.
            if (words.Length > 1 && Array.TrueForAll(words, w => w.Count(char.IsLetter) > 1 && !w.EndsWith('.')))
                readings.AddRange(Patterned(written).Select(f => (f, (IReadOnlyList<string>)[])));
        }
        return readings.Count == 0 ? null : new([.. readings]);

        void Add(string family, string given)
        {
            var parts = Mention.GivenParts(given, static c => char.IsLetter(c) || c is '*' or '?');
            // An initial alone is nobody's family name.
            if (parts.Count > 0 && family.Count(char.IsLetter) > 1)
                readings.AddRange(Patterned(family).Where(f => f.Length > 1).Select(f => (f, parts)));
        }
    }

    /// <summary>
    /// Patterns (with * and ?) that every form of a fitting name fits, for looking forms up; each is then held against
    /// <see cref="Finds"/>.
    /// </summary>
    public IEnumerable<string> Patterns =>
        readings.Select(r => r.Family + NameForms.Between + "*").Distinct(StringComparer.Ordinal);

    /// <summary>Whether a form of a name (see <see cref="NameForms"/>) can be the name that was typed.</summary>
    public bool Finds(ReadOnlySpan<char> form)
    {
        var at = form.IndexOf(NameForms.Between);
        if (at < 0)
            return false;
        string[] given = form[(at + 1)..].ToString().Split(' ', StringSplitOptions.RemoveEmptyEntries);
        foreach (var reading in readings)
            if (
                Glob.Matches(reading.Family, form[..at])
                && (reading.Given.Count == 0 || (given.Length > 0 && GivenNames.Compatible(reading.Given, given, Fit)))
            )
                return true;
        return false;
    }

    /// <summary>Whether a given name that was typed, with wildcards, can be one: an initial may be that of any pattern.</summary>
    private static bool Fit(string typed, string told) =>
        Glob.Matches(typed, told)
        || GivenNames.Fit(typed, told)
        || (typed[0] is '*' or '?' && (typed.Length == 1 || told.Length == 1));

    private static IEnumerable<string> Patterned(string family) =>
        family.AsSpan().IndexOfAny('*', '?') < 0
            ? NameForms.Families(family, parts: false)
            :
            [
                string.Join(
                    ' ',
                    family
                        .Split([' ', '-', '.'], StringSplitOptions.RemoveEmptyEntries)
                        .Select(w => Words.Fold(w))
                        .Where(w => w.Length > 0)
                ),
            ];
}
