using System.Text.RegularExpressions;
using Zendle.Core.Text;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Tells, of several descriptions of a bare record, which is the abstract, which are abstracts in other languages, and
/// which are remarks.
/// </summary>
/// <param name="Abstract">The abstract; empty for none.</param>
/// <param name="Others">Abstracts in other languages, or shorter ones.</param>
/// <param name="Remarks">What is no abstract.</param>
internal sealed partial record BareDescriptions(
    string Abstract,
    IReadOnlyList<OtherAbstract> Others,
    IReadOnlyList<string> Remarks
)
{
    private const int FewestWords = 12;

    /// <summary>
    /// The commonest short words of languages that repositories carry: what tells them apart in a few sentences.
    /// </summary>
    private static readonly (string Code, HashSet<string> Words)[] Common =
    [
        ("eng", ["the", "of", "and", "in", "to", "is", "was", "were", "that", "with", "for", "are", "this"]),
        ("ger", ["der", "die", "und", "das", "den", "von", "mit", "wurde", "nicht", "ist", "zu", "im", "auf"]),
        ("fre", ["le", "la", "les", "des", "et", "du", "une", "dans", "que", "est", "sur", "pour", "par"]),
        ("spa", ["el", "los", "las", "y", "del", "una", "que", "en", "por", "con", "se", "para", "es"]),
        ("por", ["o", "os", "e", "da", "do", "uma", "que", "em", "dos", "das", "com", "não", "foi"]),
        ("ita", ["il", "di", "che", "della", "gli", "sono", "per", "una", "nel", "dei", "con", "è", "e"]),
        ("dut", ["de", "het", "een", "van", "en", "dat", "op", "niet", "zijn", "met", "voor", "werd", "te"]),
        ("swe", ["och", "att", "det", "som", "en", "på", "för", "med", "av", "är", "till", "den", "inte"]),
    ];

    /// <summary>Sorts descriptions, as they came.</summary>
    /// <param name="described">All descriptions, cleaned, with the language that they say they are in.</param>
    /// <param name="language">Language of the text, when the record says it.</param>
    public static BareDescriptions Of(IReadOnlyList<Described> described, string? language)
    {
        // Mostly there is one, and the only question is whether it is an abstract.
        if (described is [var single])
            return single.Text.Length == 0 || IsRemark(single.Text)
                ? new("", [], [single.Text])
                : new(single.Text, [], []);
        var values = described.Select(d => d.Text).ToArray();
        var prose = values.Where(IsProse).Distinct().ToArray();
        var chosen = described
            .Where(d => language is not null && IsProse(d.Text) && (d.Language ?? LanguageOf(d.Text)) == language)
            .Select(d => d.Text)
            .DefaultIfEmpty("")
            .MaxBy(p => p.Length)!;
        if (chosen.Length == 0)
            chosen = prose.DefaultIfEmpty("").MaxBy(p => p.Length)!;
        // Something short that stands alone and is not known to be a remark may be all there is.
        if (chosen.Length == 0)
            chosen = values.Where(v => !IsRemark(v)).DefaultIfEmpty("").MaxBy(v => v.Length)!;
        return new(
            chosen,
            [
                .. prose
                    .Where(p => p != chosen)
                    .Select(p => new OtherAbstract(p, described.First(d => d.Text == p).Language ?? LanguageOf(p))),
            ],
            [.. values.Where(v => v != chosen && !prose.Contains(v)).Distinct()]
        );
    }

    private static bool IsProse(string text) => !IsRemark(text) && text.Count(c => c == ' ') + 1 >= FewestWords;

    private static bool IsRemark(string text) =>
        Remark().IsMatch(text)
        || (
            text.Length < 200
            && !text.Contains(' ', StringComparison.Ordinal)
            && Uri.TryCreate(text, UriKind.Absolute, out _)
        );

    /// <summary>The language of some sentences by its commonest words; null when none stands out.</summary>
    internal static string? LanguageOf(string text)
    {
        var words = Words.Of(text.Length > 4_000 ? text[..4_000] : text).Select(w => w.Text).ToArray();
        var best = Common
            .Select(l => (l.Code, Share: words.Count(w => l.Words.Contains(w)) / (double)Math.Max(1, words.Length)))
            .OrderByDescending(l => l.Share)
            .Take(2)
            .ToArray();
        return best[0].Share > 0.08 && best[0].Share > best[1].Share * 1.2 ? best[0].Code : null;
    }

    [GeneratedRegex(
        @"^(?:(?:non[- ])?(?:peer[- ]?)?(?:reviewed|refereed)\b.{0,20}$|includes? (?:bibliograph|index"
            + @"|references)|includes abstracts?|bibliograph(?:y|ical)|literaturverz|\d+ (?:p|pp|pages|s|leaves|bl"
            + @"|f)\.?\b.{0,60}$|(?:first |final |accepted |published |author'?s? |submitted |post"
            + @"|pre)[- ]?(?:published|version|manuscript|print)\b.{0,160}$"
            + @"|(?:this (?:work|item|article|document) is )?(?:licen[sc]ed under|made available"
            + @"|distributed under|copyright|©|\(c\) ?\d|all rights reserved|creative commons"
            + @"|open access\b.{0,60}$)|submitted (?:by|on|for)|approved for|deposited|item (?:withdrawn"
            + @"|created)|provenance"
            + @"|(?:this (?:work|research|study|project) was )?(?:funded|supported|sponsored|financed) by"
            + @"|(?:funding|sponsor(?:ship)?|grant|acknowledge?ments?)\s*[:.]|title (?:from|varies)|vita\b"
            + @"|typescript|thesis \(|diss\b|(?:master|doctoral|ph\.?d)\W.{0,20}(?:thesis"
            + @"|dissertation)\b.{0,120}$|english abstract|abstract in|text in|publication status|status[:=]"
            + @"|keywords?\s*:|doi\s*:|issn\b|isbn\b)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Remark();
}
