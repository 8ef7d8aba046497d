namespace Zendle.Core.Queries;

/// <summary>
/// Other spellings of an English word that a person may want beside it: British and American, singular and plural. They
/// are offered with their counts, never added silently; a form that no record holds is not offered, so the rules may be
/// generous.
/// </summary>
public static class SpellingVariants
{
    private static readonly (string British, string American)[] Endings =
    [
        ("our", "or"),
        ("isation", "ization"),
        ("ise", "ize"),
        ("ised", "ized"),
        ("ising", "izing"),
        ("yse", "yze"),
        ("tre", "ter"),
        ("ogue", "og"),
        ("elling", "eling"),
        ("elled", "eled"),
        ("ence", "ense"),
    ];

    private static readonly (string British, string American)[] Whole =
    [
        ("grey", "gray"),
        ("sulphur", "sulfur"),
        ("aluminium", "aluminum"),
        ("plough", "plow"),
        ("mould", "mold"),
        ("programme", "program"),
        ("metre", "meter"),
        ("behaviour", "behavior"),
        ("behavioural", "behavioral"),
        ("colour", "color"),
        ("coloured", "colored"),
    ];

    private static readonly (string British, string American)[] Inside =
    [
        ("haem", "hem"),
        ("paed", "ped"),
        ("oestr", "estr"),
        ("foet", "fet"),
        ("caec", "cec"),
        ("aeti", "eti"),
        ("palaeo", "paleo"),
        ("behaviour", "behavior"),
        ("colour", "color"),
    ];

    private static readonly (string One, string Many)[] Irregular =
    [
        ("larva", "larvae"),
        ("pupa", "pupae"),
        ("species", "species"),
        ("taxon", "taxa"),
        ("genus", "genera"),
        ("phenomenon", "phenomena"),
        ("index", "indices"),
        ("analysis", "analyses"),
        ("hypothesis", "hypotheses"),
        ("stimulus", "stimuli"),
        ("stamen", "stamina"),
        ("ovum", "ova"),
        ("antenna", "antennae"),
        ("datum", "data"),
        ("mouse", "mice"),
        ("leaf", "leaves"),
        ("child", "children"),
        ("man", "men"),
        ("woman", "women"),
    ];

    /// <summary>
    /// Variants of a folded word, without the word itself, each once; none for patterns, numbers and words under three
    /// letters.
    /// </summary>
    public static IReadOnlyList<string> Of(string word)
    {
        if (word.Length < 3 || TermNode.IsPattern(word) || !word.All(char.IsLetter))
            return [];
        var found = new List<string>();
        foreach (var (one, many) in Irregular)
        {
            if (word == one)
                found.Add(many);
            if (word == many)
                found.Add(one);
        }
        if (found.Count == 0 && word.Length > 3)
            found.AddRange(Number(word));
        foreach (var (a, b) in Whole)
            AddIf(word == a, b, word == b, a);
        foreach (var (a, b) in Inside)
        {
            AddIf(word.Contains(a, StringComparison.Ordinal), word.Replace(a, b, StringComparison.Ordinal), false, "");
            AddIf(
                false,
                "",
                word.Contains(b, StringComparison.Ordinal) && !word.Contains(a, StringComparison.Ordinal),
                word.Replace(b, a, StringComparison.Ordinal)
            );
        }
        if (word.Length > 4)
            foreach (var (a, b) in Endings)
                AddIf(
                    word.EndsWith(a, StringComparison.Ordinal),
                    word[..^Math.Min(a.Length, word.Length)] + b,
                    word.EndsWith(b, StringComparison.Ordinal) && !word.EndsWith(a, StringComparison.Ordinal),
                    word[..^Math.Min(b.Length, word.Length)] + a
                );
        return [.. found.Where(f => f != word).Distinct()];

        void AddIf(bool first, string one, bool second, string other)
        {
            if (first)
                found.Add(one);
            else if (second)
                found.Add(other);
        }
    }

    /// <summary>Singular of a plural, or plural of a singular, by the common rules.</summary>
    private static IEnumerable<string> Number(string word)
    {
        if (word.EndsWith("ies", StringComparison.Ordinal))
            yield return word[..^3] + "y";
        else if (
            word.EndsWith("sses", StringComparison.Ordinal)
            || word.EndsWith("ches", StringComparison.Ordinal)
            || word.EndsWith("shes", StringComparison.Ordinal)
            || word.EndsWith("xes", StringComparison.Ordinal)
        )
            yield return word[..^2];
        else if (
            word.EndsWith('s')
            && !word.EndsWith("ss", StringComparison.Ordinal)
            && !word.EndsWith("us", StringComparison.Ordinal)
            && !word.EndsWith("is", StringComparison.Ordinal)
        )
            yield return word[..^1];
        else if (word.EndsWith('y') && word.Length > 2 && !"aeiou".Contains(word[^2], StringComparison.Ordinal))
            yield return word[..^1] + "ies";
        else if (
            word.EndsWith("ss", StringComparison.Ordinal)
            || word.EndsWith("ch", StringComparison.Ordinal)
            || word.EndsWith("sh", StringComparison.Ordinal)
            || word.EndsWith('x')
        )
            yield return word + "es";
        else
            yield return word + "s";
    }
}
