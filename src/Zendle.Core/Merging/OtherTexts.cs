using Zendle.Core.Records;
using Zendle.Core.Records.Readers;

namespace Zendle.Core.Merging;

/// <summary>
/// What the records of a work say beside the title and the abstract that were chosen for it. All of it is searched, so
/// all of it can be read.
/// </summary>
public static class OtherTexts
{
    /// <summary>
    /// Titles beside the chosen one: translated, alternative and uniform ones, and other databases' own; each once, case
    /// and punctuation aside.
    /// </summary>
    public static IReadOnlyList<string> Titles(IReadOnlyCollection<SourcedRecord> records, ChosenFields chosen)
    {
        var own = MergeFacts.Plain(chosen.Title.Value);
        return
        [
            .. records
                .SelectMany(r => r.Record.Titles)
                .Where(t => t.Length > 0)
                .DistinctBy(MergeFacts.Plain)
                // One that lost its subtitle says nothing more.
                .Where(t => !own.Contains(MergeFacts.Plain(t), StringComparison.Ordinal)),
        ];
    }

    /// <summary>Every abstract of the records, the chosen one first, each once.</summary>
    public static IReadOnlyList<string> Abstracts(IReadOnlyCollection<SourcedRecord> records, ChosenFields chosen) =>
        [
            .. records
                .SelectMany(r => r.Record.Abstracts)
                .Prepend(chosen.Abstract.Value)
                .Where(a => a.Length > 0)
                .Distinct(),
        ];

    /// <summary>
    /// Abstracts beside the chosen one, each with its language: those that a record gives as further ones, and other
    /// databases' own when they are in another language. Of one language the longest stands for what it holds whole.
    /// </summary>
    public static IReadOnlyList<OtherAbstract> AbstractsByLanguage(
        IReadOnlyCollection<SourcedRecord> records,
        ChosenFields chosen
    )
    {
        var text = chosen.Abstract.Value;
        string[] own = [.. records.Select(r => r.Record.Abstract).Where(a => a.Length > 0 && a != text).Distinct()];
        var further = records.SelectMany(r => r.Record.OtherAbstracts).ToArray();
        if (own.Length == 0 && further.Length == 0)
            return [];
        var language = BareDescriptions.LanguageOf(text);
        var all = further
            .Select(a => a with { Language = a.Language ?? BareDescriptions.LanguageOf(a.Text) })
            .Concat(
                own.Select(a => new OtherAbstract(a, BareDescriptions.LanguageOf(a)))
                    .Where(a => a.Language is not null && language is not null && a.Language != language)
            )
            .OrderByDescending(a => a.Text.Length)
            .ToArray();
        var kept = new List<OtherAbstract>();
        foreach (var one in all)
            if (!Holds(text, one.Text) && !kept.Exists(k => Holds(k.Text, one.Text)))
                kept.Add(one);
        return [.. kept.OrderBy(a => a.Language is null).ThenBy(a => a.Language, StringComparer.Ordinal)];

        static bool Holds(string whole, string part) => whole.Contains(part, StringComparison.Ordinal);
    }
}
