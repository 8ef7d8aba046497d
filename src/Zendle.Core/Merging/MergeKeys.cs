using System.Globalization;
using System.Text;
using Zendle.Core.Text;

namespace Zendle.Core.Merging;

/// <summary>The 64-bit keys by which records of one work, and references to it, find each other.</summary>
/// <remarks>
/// A key only proposes; <see cref="Comparison"/> weighs and <see cref="RecordMerger"/> decides. 64 bits make a chance
/// collision among 10^7 keys less likely than 10^-5.
/// </remarks>
public static class MergeKeys
{
    private const int Bands = 6,
        Rows = 5,
        ShortestForBands = 20;

    /// <summary>
    /// The blocking keys of a record: its identifiers and those of its declared versions; each title with the first
    /// person; its main part with the first person; a long title alone; first person with volume and first page; all
    /// people with the year; and bands of a MinHash signature of the title's trigrams (Broder 1997), so that a misprint
    /// hides no pair.
    /// </summary>
    /// <remarks>
    /// With six bands of five rows two titles whose trigrams overlap by 0.9 (Jaccard) share a band in 99.5 of 100
    /// cases, by 0.8 in 91, by 0.5 in 17, and two that have nothing to do with each other, by 0.2, in one of five
    /// hundred: in a large corpus those are what comparing costs.
    /// </remarks>
    internal static HashSet<ulong> BlockingOf(MergeFacts facts)
    {
        var keys = new HashSet<ulong>();
        if (facts.Doi is not null)
            keys.Add(Doi(facts.Doi));
        foreach (var doi in facts.VersionDois)
            keys.Add(Doi(doi));
        foreach (var number in facts.OwnNumbers)
            keys.Add(Of("number", number));
        if (facts.Isbn is not null)
            keys.Add(Of("isbn", facts.Isbn));
        var first = facts.Families.Length > 0 ? facts.Families[0] : "";
        for (var i = 0; i < facts.Titles.Length; i++)
        {
            var title = facts.Titles[i];
            var words = title.Count(c => c == ' ') + 1;
            if (first.Length > 0 && words >= 3)
                keys.Add(PlainTitleAndPerson(title, first));
            if (words >= 5)
                keys.Add(Of("title", title));
            if (title.Length >= ShortestForBands)
                AddBands(keys, facts.Trigrams[i], first.Length > 0 ? first[..1] : "");
        }
        // A subtitle is what gets lost first.
        if (first.Length > 0 && facts.MainTitle.Count(c => c == ' ') >= 3)
            keys.Add(PlainTitleAndPerson(facts.MainTitle, first));
        if (first.Length > 0 && facts.FirstPage is { } page && facts.Volume is { } volume)
            keys.Add(PersonAndLocation(first, volume, page));
        if (facts.Families.Length > 1 && facts.Year is { } year)
            keys.Add(Of("people", string.Join(' ', facts.Families) + year.ToString(CultureInfo.InvariantCulture)));
        keys.Remove(0);
        return keys;
    }

    /// <summary>Key of a normalised DOI; 0 for none.</summary>
    public static ulong Doi(string? doi) => doi is null ? 0 : Of("doi", doi);

    /// <summary>
    /// Key of a title with the first person's family name; 0 when either is missing or the title is too short (under
    /// three words) to tell works apart. The year is not part of it: records disagree on years more often than on
    /// anything else.
    /// </summary>
    /// <param name="title">The title, or null.</param>
    /// <param name="family">The family name, or null.</param>
    public static ulong TitleAndPerson(string? title, string? family)
    {
        if (string.IsNullOrWhiteSpace(title) || string.IsNullOrWhiteSpace(family))
            return 0;
        return PlainTitleAndPerson(MergeFacts.Plain(title), PersonKey(family));
    }

    private static ulong PlainTitleAndPerson(string plain, string personKey) =>
        plain.AsSpan().Count(' ') < 2 ? 0 : Of(personKey, plain.Replace(" ", "", StringComparison.Ordinal));

    /// <summary>Key of a first person's family name (as <see cref="PersonKey"/>) with volume and first page.</summary>
    public static ulong PersonAndLocation(string personKey, string volume, string firstPage) =>
        Of("place", $"{personKey}\u0001{volume}\u0001{firstPage}");

    /// <summary>Key of volume, first page and year.</summary>
    public static ulong Location(string volume, string firstPage, int year) =>
        Of("vpy", string.Create(CultureInfo.InvariantCulture, $"{volume}\u0001{firstPage}\u0001{year}"));

    /// <summary>A hash of a folded word that is the same in every process, so that a chance collision is too.</summary>
    public static int Word(string word) => unchecked((int)Of("word", word));

    /// <summary>
    /// Key of a first person's family name (as <see cref="PersonKey"/>) with a year: where printed references are
    /// looked up.
    /// </summary>
    public static ulong PersonAndYear(string personKey, int year) =>
        Of("year", personKey + year.ToString(CultureInfo.InvariantCulture));

    /// <summary>
    /// A family name for comparing: folded, letters only, so that "Ouverleaux-Tann" meets "OUVERLEAUX TANN".
    /// </summary>
    public static string PersonKey(string family) => string.Concat(Words.Fold(family).Where(char.IsLetter));

    /// <summary>
    /// The key under which a work is found by the references that a person said mean it. Its lower half is the name's: who
    /// asks for the name is told when it changes.
    /// </summary>
    /// <param name="name">One of <see cref="ReferenceKeys.Names"/>.</param>
    public static ulong Resolved(ulong name) => name ^ 0x9E3779B9_00000000UL;

    /// <summary>Key of a text of a kind; never 0.</summary>
    public static ulong Of(string kind, string text) => Finished(Mixed(Mixed(Mixed(Start, kind), "\u0001"), text));

    private static void AddBands(HashSet<ulong> keys, int[] trigrams, string firstLetter)
    {
        Span<uint> least = stackalloc uint[Bands * Rows];
        least.Fill(uint.MaxValue);
        foreach (var trigram in trigrams)
            for (var h = 0; h < least.Length; h++)
            {
                var mixed = ((uint)trigram ^ (uint)(h * 0x9E3779B9)) * 0x85EBCA6B;
                mixed = (mixed ^ mixed >> 13) * 0xC2B2AE35;
                mixed ^= mixed >> 16;
                if (mixed < least[h])
                    least[h] = mixed;
            }
        for (var b = 0; b < Bands; b++)
        {
            var hash = Mixed(Mixed(Start, "band"), firstLetter) + (uint)b;
            for (var row = 0; row < Rows; row++)
                hash = (hash ^ least[b * Rows + row]) * Prime;
            keys.Add(Finished(hash));
        }
    }

    private const ulong Start = 14695981039346656037UL,
        Prime = 1099511628211UL;

    /// <summary>FNV-1a (Fowler, Noll, Vo) over the UTF-8 bytes of a text.</summary>
    private static ulong Mixed(ulong hash, string text)
    {
        Span<byte> few = stackalloc byte[512];
        var bytes =
            text.Length * 3 <= few.Length ? few[..Encoding.UTF8.GetBytes(text, few)] : Encoding.UTF8.GetBytes(text);
        foreach (var b in bytes)
            hash = (hash ^ b) * Prime;
        return hash;
    }

    /// <summary>A final mix, so that every bit depends on every byte; never 0.</summary>
    private static ulong Finished(ulong hash)
    {
        hash ^= hash >> 32;
        hash *= 0xD6E8FEB86659FD93UL;
        hash ^= hash >> 32;
        return hash == 0 ? 1 : hash;
    }
}
