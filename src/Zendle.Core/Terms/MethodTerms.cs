using System.Collections.Frozen;

namespace Zendle.Core.Terms;

/// <summary>
/// Terms that name how a study was done. English names of methods end with one of few nouns, whatever the field: a
/// "field experiment", a "cohort study", a "linear mixed model".
/// </summary>
public static class MethodTerms
{
    /// <summary>Nouns that a method's name ends with, when a word before says which.</summary>
    private static readonly FrozenSet<string> Heads = """
        analysis analyses assay assays census chromatography comparison comparisons count counts cultivation dating
        design designs estimation experiment experiments imaging interview interviews inventory measurement
        measurements mapping method methods metabarcoding microscopy model models modelling modeling monitoring
        observation observations photography questionnaire questionnaires recapture recording recordings regression
        review reviews sampling scan scans screening sensing sequencing simulation simulations spectroscopy
        spectrometry studies study survey surveys synthesis technique techniques telemetry test tests tomography
        tracking transect transects trapping traps trial trials
        """.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries).ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Words that name a method by themselves.</summary>
    private static readonly FrozenSet<string> Alone = """
        bibliometrics chromatography ethnography experiment experiments interviews metabarcoding metaanalysis microscopy
        questionnaire questionnaires radiotelemetry sequencing simulation simulations spectroscopy spectrometry survey
        surveys telemetry tomography transects
        """.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries).ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Words before a head that say nothing of the method: "present study", "first experiment".</summary>
    private static readonly FrozenSet<string> Empty = """
        additional adjusted all available careful common current different earlier existing experimental extensive few
        final first following further future good great important large larger last late later little longer main many
        more most much new next novel old older one other our own past possible present previous published recent same
        second separate set several shorter similar simple single small smaller such third three total two types used
        using various year years
        """.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries).ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Whether a term names a method.</summary>
    /// <param name="words">Its words, folded, in order; at least one.</param>
    public static bool Is(IReadOnlyList<string> words) =>
        words.Count == 1
            ? Alone.Contains(words[0])
            : Heads.Contains(words[^1])
                && !words.Take(words.Count - 1).Any(w => Empty.Contains(w) || FunctionWords.Contains(w));
}
