namespace Zendle.Core.Citing;

/// <summary>
/// Which shipped locale stands in for the one asked for, by CSL 1.0.2 ("Locale Fallback"): itself, its language's main
/// region, US English.
/// </summary>
/// <param name="Locale">The locale to use.</param>
/// <param name="Note">What to tell the reader; null when the asked one is used.</param>
public sealed record LocaleChoice(string Locale, string? Note)
{
    private static readonly Dictionary<string, string> MainRegions = new(StringComparer.OrdinalIgnoreCase)
    {
        ["af"] = "af-ZA",
        ["ar"] = "ar",
        ["bg"] = "bg-BG",
        ["ca"] = "ca-AD",
        ["cs"] = "cs-CZ",
        ["cy"] = "cy-GB",
        ["da"] = "da-DK",
        ["de"] = "de-DE",
        ["el"] = "el-GR",
        ["en"] = "en-US",
        ["es"] = "es-ES",
        ["et"] = "et-EE",
        ["eu"] = "eu",
        ["fa"] = "fa-IR",
        ["fi"] = "fi-FI",
        ["fr"] = "fr-FR",
        ["he"] = "he-IL",
        ["hr"] = "hr-HR",
        ["hu"] = "hu-HU",
        ["id"] = "id-ID",
        ["is"] = "is-IS",
        ["it"] = "it-IT",
        ["ja"] = "ja-JP",
        ["km"] = "km-KH",
        ["ko"] = "ko-KR",
        ["la"] = "la",
        ["lt"] = "lt-LT",
        ["lv"] = "lv-LV",
        ["mn"] = "mn-MN",
        ["nb"] = "nb-NO",
        ["nl"] = "nl-NL",
        ["nn"] = "nn-NO",
        ["pl"] = "pl-PL",
        ["pt"] = "pt-PT",
        ["ro"] = "ro-RO",
        ["ru"] = "ru-RU",
        ["sk"] = "sk-SK",
        ["sl"] = "sl-SI",
        ["sr"] = "sr-RS",
        ["sv"] = "sv-SE",
        ["th"] = "th-TH",
        ["tr"] = "tr-TR",
        ["uk"] = "uk-UA",
        ["vi"] = "vi-VN",
        ["zh"] = "zh-CN",
    };

    /// <summary>Chooses.</summary>
    /// <param name="asked">A language tag, like "de-AT"; null or empty for none.</param>
    /// <param name="styles">The language the style is written for; null for any. It stands when no other is asked
    /// for.</param>
    /// <param name="shipped">The locales there are.</param>
    public static LocaleChoice Of(string? asked, string? styles, IReadOnlyCollection<string> shipped)
    {
        var wanted = string.IsNullOrWhiteSpace(asked) ? styles ?? "en-US" : asked.Trim();
        string? Shipped(string l) => shipped.FirstOrDefault(s => s.Equals(l, StringComparison.OrdinalIgnoreCase));
        if (Shipped(wanted) is { } same)
            return new(same, null);
        var language = wanted.Split('-', '_')[0];
        if ((MainRegions.TryGetValue(language, out var main) ? Shipped(main) : Shipped(language)) is { } near)
            return new(near, $"There is no locale for {wanted}; {near} is used.");
        return new(
            Shipped("en-US") ?? shipped.FirstOrDefault() ?? "en-US",
            $"There is no locale for {wanted}; English is used."
        );
    }
}
