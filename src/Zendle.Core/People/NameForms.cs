using Zendle.Core.Records;
using Zendle.Core.Text;

namespace Zendle.Core.People;

/// <summary>
/// Under which forms a name is kept, so that it is found however it is written: "van der Berg" also as "Berg", each part
/// of a double name, "Müller" also as "Mueller".
/// </summary>
public static class NameForms
{
    /// <summary>Between the family name and the given names of a form.</summary>
    public const char Between = '|';

    private static readonly HashSet<string> Particles =
    [
        "de",
        "da",
        "do",
        "dos",
        "das",
        "del",
        "della",
        "di",
        "du",
        "van",
        "von",
        "vom",
        "der",
        "den",
        "het",
        "ten",
        "ter",
        "te",
        "la",
        "le",
        "el",
        "al",
        "bin",
        "ibn",
        "ben",
        "bint",
        "y",
        "e",
        "zu",
        "zum",
        "zur",
        "af",
        "av",
        "of",
        "st",
    ];

    /// <summary>
    /// The forms of a person's name, each a family name, <see cref="Between"/>, and the given names as folded parts with
    /// spaces between: "berg|anna k". Empty for a name without a family name.
    /// </summary>
    public static IReadOnlyList<string> Of(PersonName name)
    {
        var given = string.Join(' ', Mention.GivenParts(name.Given));
        return [.. Families(name.Family, parts: true).Select(f => f + Between + given)];
    }

    /// <summary>Ways to write a family name: as it is, without what stands before it, and so with its umlauts spelled.</summary>
    /// <param name="family">The name as written.</param>
    /// <param name="parts">Whether each part of a double name stands for it, too.</param>
    public static IReadOnlyList<string> Families(string family, bool parts)
    {
        var found = new List<string>();
        foreach (var written in new[] { family, Spelled(family) }.Distinct())
        {
            string[] words = [.. Words.AsWritten(written)];
            if (words.Length == 0)
                continue;
            found.Add(string.Join(' ', words));
            var own = words.SkipWhile(Particles.Contains).ToArray();
            if (own.Length > 0)
                found.Add(string.Join(' ', own));
            if (parts)
                found.AddRange(own.Where(w => w.Length > 1 && !Particles.Contains(w)));
        }
        return [.. found.Distinct()];
    }

    /// <summary>With vowels that have two dots or a stroke spelled in two letters, as lists without them print.</summary>
    private static string Spelled(string name) =>
        name.IndexOfAny(['ä', 'ö', 'ü', 'ø', 'å', 'Ä', 'Ö', 'Ü', 'Ø', 'Å']) < 0
            ? name
            : name.Replace("ä", "ae", StringComparison.OrdinalIgnoreCase)
                .Replace("ö", "oe", StringComparison.OrdinalIgnoreCase)
                .Replace("ü", "ue", StringComparison.OrdinalIgnoreCase)
                .Replace("ø", "oe", StringComparison.OrdinalIgnoreCase)
                .Replace("å", "aa", StringComparison.OrdinalIgnoreCase);
}
