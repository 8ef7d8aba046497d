using System.Globalization;
using System.Text.RegularExpressions;

namespace Zendle.Outside.World;

/// <summary>A work with the prose that was written for it.</summary>
public sealed record Written(Work Work, Prose Prose);

/// <summary>
/// Reads every abstract and title of a world and finds what no real one would say: sentences that stand elsewhere word
/// for word, titles of one mould, figures that are not the study's, findings that turn round, methods out of order.
/// </summary>
public static partial class WorldLint
{
    /// <summary>
    /// The share of sentences of abstracts that stand, word for word, in the abstract of another study, 0 to 1.
    /// </summary>
    public static double Repeated(IReadOnlyList<Written> all)
    {
        var studies = new Dictionary<string, HashSet<int>>(StringComparer.Ordinal);
        foreach (var (work, prose) in all)
        foreach (var sentence in prose.Sentences)
        {
            if (!studies.TryGetValue(sentence.Text, out var of))
                studies[sentence.Text] = of = [];
            of.Add(work.Study.Id);
        }
        var sentences = all.SelectMany(w => w.Prose.Sentences).ToArray();
        return sentences.Count(s => studies[s.Text].Count > 1) / (double)sentences.Length;
    }

    /// <summary>The commonest frames of titles, with the share of all titles that were made from each.</summary>
    public static IEnumerable<(string Frame, double Share)> TitleFrames(IReadOnlyList<Written> all) =>
        all.Where(w => w.Prose.TitleFrame.Length > 0)
            .CountBy(w => w.Prose.TitleFrame)
            .OrderByDescending(f => f.Value)
            .ThenBy(f => f.Key, StringComparer.Ordinal)
            .Select(f => (f.Key, f.Value / (double)all.Count));

    /// <summary>All that is wrong, each with the number of its work.</summary>
    public static IEnumerable<(int Work, string What)> Faults(IReadOnlyList<Written> all, Scenario scenario)
    {
        foreach (var (work, prose) in all)
        {
            foreach (var sentence in prose.Sentences)
            {
                foreach (var what in InSentence(work, sentence))
                    yield return (work.Id, $"{what}: {sentence.Text}");
                if (prose.Sentences.Exists(s => s != sentence && s.Text == sentence.Text))
                    yield return (work.Id, $"told twice: {sentence.Text}");
            }
            var order = prose.Sentences.Select(s => s.Role * 10 + s.Stage).ToArray();
            if (!order.SequenceEqual(order.Order()))
                yield return (work.Id, "the parts of the abstract are out of order");
            if (
                WrongArticle().IsMatch(work.Abstract)
                || (work.Language == "eng" && work.About < 0 && WrongArticle().IsMatch(work.Title))
            )
                yield return (work.Id, $"a wrong article: {work.Title}");
            if (prose.TitleFrame.Length > 0 && work.About < 0 && Strange(work.Study, work.Title) is { } number)
                yield return (work.Id, $"{number} is no figure of the study: {work.Title}");
            if (work.Title.Contains("?,", StringComparison.Ordinal) || Doubled().IsMatch(work.Title))
                yield return (work.Id, $"a title that stumbles: {work.Title}");
            // Some towns are called as their country is.
            if (
                work.Language != "eng"
                && scenario.Words.Places.Any(p =>
                    work.Title.Contains(p, StringComparison.Ordinal) && !scenario.Words.Countries.ContainsValue(p)
                )
            )
                yield return (work.Id, $"half translated: {work.Title}");
            if (
                work.Topic.Fits?.GetValueOrDefault(work.Study.Response) is { } fits
                && !fits.Contains(work.Study.Things)
                && !(fits.Contains("@plants") && scenario.Words.Plants.Contains(work.Study.Things))
                && !(fits.Contains("@crops") && scenario.Words.Crops.Contains(work.Study.Things))
            )
                yield return (work.Id, $"{work.Study.Response} of {work.Study.Things} cannot be measured");
            var f = work.Study.Figures;
            if (f.Treated + f.Control != f.Sites || f.Sites * f.PerSite != f.Samples || f.To >= work.Year + 1)
                yield return (work.Id, "the figures of the study do not add up");
        }
    }

    private static IEnumerable<string> InSentence(Work work, Sentence sentence)
    {
        var study = work.Study;
        if (
            sentence.Text.Contains('{', StringComparison.Ordinal)
            || sentence.Text.Contains('[', StringComparison.Ordinal)
        )
            yield return "not filled";
        if (!char.IsUpper(sentence.Text[0]) && !char.IsDigit(sentence.Text[0]))
            yield return "begins small";
        if (sentence.Text.Contains("  ", StringComparison.Ordinal) || Doubled().IsMatch(sentence.Text))
            yield return "a word or space twice";
        if (Strange(study, sentence.Text) is { } number)
            yield return $"{number} is no figure of the study";
        // A finding says that something fell, rose or stayed, and every one of them says the same.
        if (Fell().IsMatch(sentence.Text) && study.Direction >= 0)
            yield return "fell, though it did not";
        if (Rose().IsMatch(sentence.Text) && study.Direction <= 0)
            yield return "rose, though it did not";
        foreach (Match m in Interval().Matches(sentence.Text))
        {
            int Of(int group) => int.Parse(m.Groups[group].Value.Replace('−', '-'), CultureInfo.InvariantCulture);
            if (Of(1) > study.Effect || Of(2) < study.Effect)
                yield return "the interval does not hold the effect";
        }
    }

    /// <summary>A number in a text that is none of the study's; null when all are.</summary>
    public static string? Strange(Study study, string text)
    {
        var told = study.Figures.Told(study.Effect, study.Direction);
        foreach (Match m in Number().Matches(text))
            if (
                int.TryParse(m.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
                    ? !told.Contains(number) && !IsConstant(text, m)
                    : m.Value != (1 + study.Effect / 100.0).ToString("0.0", CultureInfo.InvariantCulture)
            )
                return m.Value;
        return null;
    }

    /// <summary>"95 % interval" and "Part 1" are words, not figures.</summary>
    private static bool IsConstant(string text, Match number) =>
        (number.Value == "95" && text.AsSpan(number.Index).StartsWith("95 % "))
        || text.AsSpan(0, number.Index).EndsWith("Part ");

    [GeneratedRegex(@"\d+(?:\.\d+)?")]
    private static partial Regex Number();

    [GeneratedRegex(@"\b[Aa] (?:8\d?|11|18)(?!\d)|\b[Aa]n (?!8|11(?!\d)|18(?!\d))\d")]
    private static partial Regex WrongArticle();

    [GeneratedRegex(@"\b(\w{2,}) \1\b", RegexOptions.IgnoreCase)]
    private static partial Regex Doubled();

    [GeneratedRegex(@"\b(?:fell (?:by|to)|% lower|declined by|dropped by|reduced by|all but ceased)\b")]
    private static partial Regex Fell();

    [GeneratedRegex(@"\b(?:rose by|times as high|% higher|increased by|gained)\b")]
    private static partial Regex Rose();

    [GeneratedRegex(@"(?:interval|CI|\() ?(−?\d+) to (−?\d+) %")]
    private static partial Regex Interval();
}
