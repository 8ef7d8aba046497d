using System.Collections.Frozen;
using Zendle.Core.Text;

namespace Zendle.Core.Records;

/// <summary>
/// Language codes (ISO 639-2/B) and their English names, for those that scholarly records commonly carry.
/// </summary>
public static class Languages
{
    private static readonly (string Code, string Two, string Name, string Others)[] Known =
    [
        ("eng", "en", "English", "anglais|ingles|englisch|engels"),
        ("ger", "de", "German", "deu|deutsch|allemand|aleman|alemao"),
        ("fre", "fr", "French", "fra|francais|franzosisch|frances"),
        ("spa", "es", "Spanish", "espanol|castellano|castilian|spanisch|espagnol|espanhol"),
        ("por", "pt", "Portuguese", "portugues|portugiesisch|portugais"),
        ("ita", "it", "Italian", "italiano|italienisch|italien"),
        ("dut", "nl", "Dutch", "nld|nederlands|flemish|niederlandisch"),
        ("swe", "sv", "Swedish", "svenska|schwedisch"),
        ("dan", "da", "Danish", "dansk|danisch"),
        ("nor", "no", "Norwegian", "norsk|nob|nno|nb|nn|bokmal|nynorsk"),
        ("fin", "fi", "Finnish", "suomi|finnisch"),
        ("pol", "pl", "Polish", "polski|polnisch"),
        ("cze", "cs", "Czech", "ces|cestina|cesky|tschechisch"),
        ("slo", "sk", "Slovak", "slk|slovencina"),
        ("hun", "hu", "Hungarian", "magyar"),
        ("rus", "ru", "Russian", "русскии|russisch|ruso"),
        ("ukr", "uk", "Ukrainian", "українська|украінська"),
        ("bul", "bg", "Bulgarian", "български"),
        ("tur", "tr", "Turkish", "turkce|turkisch"),
        ("ara", "ar", "Arabic", "العربية"),
        ("heb", "he", "Hebrew", "iw|עברית"),
        ("chi", "zh", "Chinese", "zho|cmn|中文|汉语|漢語|chinesisch"),
        ("jpn", "ja", "Japanese", "日本語|japanisch"),
        ("kor", "ko", "Korean", "한국어"),
        ("gre", "el", "Greek", "ell|ελληνικα"),
        ("rum", "ro", "Romanian", "ron|romana"),
        ("hrv", "hr", "Croatian", "scr|hrvatski"),
        ("srp", "sr", "Serbian", "scc|srpski|српски"),
        ("slv", "sl", "Slovenian", "slovene|slovenscina"),
        ("est", "et", "Estonian", "eesti"),
        ("lav", "lv", "Latvian", "latviesu"),
        ("lit", "lt", "Lithuanian", "lietuviu"),
        ("ice", "is", "Icelandic", "isl|islenska"),
        ("gle", "ga", "Irish", "gaeilge"),
        ("wel", "cy", "Welsh", "cym|cymraeg"),
        ("cat", "ca", "Catalan", "catala|valencian"),
        ("glg", "gl", "Galician", "galego"),
        ("baq", "eu", "Basque", "eus|euskara"),
        ("lat", "la", "Latin", "latine"),
        ("per", "fa", "Persian", "fas|farsi|فارسی"),
        ("hin", "hi", "Hindi", "हिन्दी"),
        ("ben", "bn", "Bengali", ""),
        ("tam", "ta", "Tamil", ""),
        ("urd", "ur", "Urdu", ""),
        ("tha", "th", "Thai", ""),
        ("vie", "vi", "Vietnamese", "tieng viet"),
        ("ind", "id", "Indonesian", "bahasa indonesia"),
        ("may", "ms", "Malay", "msa|bahasa melayu"),
        ("swa", "sw", "Swahili", "kiswahili"),
        ("afr", "af", "Afrikaans", ""),
        ("alb", "sq", "Albanian", "sqi|shqip"),
        ("arm", "hy", "Armenian", "hye"),
        ("geo", "ka", "Georgian", "kat"),
        ("mac", "mk", "Macedonian", "mkd"),
        ("mlt", "mt", "Maltese", "malti"),
        ("bos", "bs", "Bosnian", "bosanski"),
        ("kaz", "kk", "Kazakh", ""),
    ];

    private static readonly FrozenDictionary<string, string> Codes = Known
        .SelectMany(k =>
            new[] { k.Code, k.Two, Words.Fold(k.Name) }
                .Concat(k.Others.Split('|', StringSplitOptions.RemoveEmptyEntries).Select(Words.Fold))
                .Select(w => (Word: w, k.Code))
        )
        .DistinctBy(p => p.Word)
        .ToFrozenDictionary(p => p.Word, p => p.Code);

    private static readonly FrozenDictionary<string, string> NamesByCode = Known.ToFrozenDictionary(
        k => k.Code,
        k => k.Name
    );

    /// <summary>
    /// The ISO 639-2/B code for a code of any part of ISO 639, with or without region ("en_US", "pt-BR"), or for a name
    /// in English or in the language itself; of several the first. Null when it is none we know.
    /// </summary>
    public static string? Code(string? codeOrName)
    {
        if (string.IsNullOrWhiteSpace(codeOrName) || codeOrName.Length > 200)
            return null;
        foreach (
            var part in codeOrName.Split(
                [';', ',', '/', '|', '+', '&'],
                StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries
            )
        )
        {
            var word = Words.Fold(part.Trim('.', '[', ']', '(', ')', ' '));
            if (Codes.TryGetValue(word, out var code))
                return code;
            // A region or a script behind a code of two or three letters.
            var end = word.IndexOfAny(['-', '_', ' ', '(']);
            if (end is 2 or 3 && Codes.TryGetValue(word[..end], out code))
                return code;
            if (end > 3 && Codes.TryGetValue(word[..end], out code))
                return code;
        }
        return null;
    }

    /// <summary>English name of a code; the code itself when we have no name for it.</summary>
    public static string Name(string code) => NamesByCode.GetValueOrDefault(code, code);

    /// <summary>Two-letter code (ISO 639-1) for CSL; null when unknown.</summary>
    public static string? TwoLetters(string? code) => Array.Find(Known, k => k.Code == code).Two;

    /// <summary>
    /// The name by which babel and polyglossia hyphenate a language (the langid of biblatex); null for those they have
    /// no name for, and for no language.
    /// </summary>
    public static string? Babel(string? code) =>
        code switch
        {
            null => null,
            "ger" => "ngerman",
            "por" => "portuguese",
            "slv" => "slovene",
            "gre" => "greek",
            "nor" => "norsk",
            "may" => "malay",
            "eng"
            or "fre"
            or "spa"
            or "ita"
            or "dut"
            or "swe"
            or "dan"
            or "fin"
            or "pol"
            or "cze"
            or "slo"
            or "hun"
            or "rus"
            or "ukr"
            or "bul"
            or "tur"
            or "rum"
            or "hrv"
            or "est"
            or "lav"
            or "lit"
            or "ice"
            or "gle"
            or "wel"
            or "cat"
            or "glg"
            or "baq"
            or "lat"
            or "afr"
            or "alb"
            or "mac"
            or "vie" => Name(code).ToLowerInvariant(),
            _ => null,
        };
}
