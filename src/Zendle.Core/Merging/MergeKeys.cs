using System.Text;
using Zendle.Core.Queries;
using Zendle.Core.Records;

namespace Zendle.Core.Merging;

/// <summary>The 64-bit keys by which records of one work, and references to it, find each other.</summary>
/// <remarks>A key only proposes; <see cref="RecordMerger"/> decides. 64 bits make a chance collision among 10^7 keys less likely than 10^-5.</remarks>
public static class MergeKeys
{
    /// <summary>Key of a normalised DOI; 0 for none.</summary>
    public static ulong Doi(string? doi) => doi is null ? 0 : Hash("doi", doi);

    /// <summary>
    /// Key of a title with the first person's family name; 0 when either is missing or the title is too short (under three words) to
    /// tell works apart. The year is not part of it: records disagree on years more often than on anything else.
    /// </summary>
    public static ulong TitleAndPerson(string? title, string? family)
    {
        if (string.IsNullOrWhiteSpace(title) || string.IsNullOrWhiteSpace(family)) return 0;
        var key = new StringBuilder(title.Length);
        var count = 0;
        foreach (var word in Words.Of(title))
        {
            if (word.IsClosedForm) continue;
            key.Append(word.Text);
            count++;
        }
        return count < 3 ? 0 : Hash(PersonKey(family), key.ToString());
    }

    /// <summary>A family name for comparing: folded, letters only, so that "Ouverleaux-Tann" meets "OUVERLEAUX TANN".</summary>
    public static string PersonKey(string family) => string.Concat(Words.Fold(family).Where(char.IsLetter));

    private static ulong Hash(string kind, string text) => Mix(Encoding.UTF8.GetBytes(kind + "\u0001" + text));

    /// <summary>FNV-1a (Fowler, Noll, Vo) over the bytes with a final mix, so that every bit depends on every byte; never 0.</summary>
    private static ulong Mix(byte[] bytes)
    {
        var hash = 14695981039346656037UL;
        foreach (var b in bytes) hash = (hash ^ b) * 1099511628211UL;
        hash ^= hash >> 32;
        hash *= 0xD6E8FEB86659FD93UL;
        hash ^= hash >> 32;
        return hash == 0 ? 1 : hash;
    }
}
