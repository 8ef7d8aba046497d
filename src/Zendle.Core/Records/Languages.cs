using System.Collections.Frozen;

namespace Zendle.Core.Records;

/// <summary>Language codes (ISO 639-2/B) and their English names, for those that scholarly records commonly carry.</summary>
public static class Languages
{
    private static readonly (string Code, string Two, string Name)[] Known =
    [
        ("eng", "en", "English"), ("ger", "de", "German"), ("fre", "fr", "French"), ("spa", "es", "Spanish"), ("por", "pt", "Portuguese"),
        ("ita", "it", "Italian"), ("dut", "nl", "Dutch"), ("swe", "sv", "Swedish"), ("dan", "da", "Danish"), ("nor", "no", "Norwegian"),
        ("fin", "fi", "Finnish"), ("pol", "pl", "Polish"), ("cze", "cs", "Czech"), ("hun", "hu", "Hungarian"), ("rus", "ru", "Russian"),
        ("tur", "tr", "Turkish"), ("ara", "ar", "Arabic"), ("heb", "he", "Hebrew"), ("chi", "zh", "Chinese"), ("jpn", "ja", "Japanese"), ("kor", "ko", "Korean"),
    ];

    private static readonly FrozenDictionary<string, string> Codes = Known
        .SelectMany(k => new[] { (k.Code, k.Code), (k.Two, k.Code), (k.Name.ToLowerInvariant(), k.Code) })
        .Concat([("deu", "ger"), ("fra", "fre"), ("nld", "dut"), ("ces", "cze"), ("zho", "chi")])
        .ToFrozenDictionary(p => p.Item1, p => p.Item2);

    private static readonly FrozenDictionary<string, string> NamesByCode = Known.ToFrozenDictionary(k => k.Code, k => k.Name);

    /// <summary>The ISO 639-2/B code for a code or an English name; null when it is neither.</summary>
    public static string? Code(string? codeOrName) =>
        codeOrName is null ? null : Codes.GetValueOrDefault(codeOrName.Trim().ToLowerInvariant());

    /// <summary>English name of a code; the code itself when we have no name for it.</summary>
    public static string Name(string code) => NamesByCode.GetValueOrDefault(code, code);

    /// <summary>Two-letter code (ISO 639-1) for CSL; null when unknown.</summary>
    public static string? TwoLetters(string? code) => Array.Find(Known, k => k.Code == code).Two;
}
