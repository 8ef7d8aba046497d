using System.Text;
using System.Text.RegularExpressions;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// Reads BibTeX and the fields that biblatex adds: entries with values in braces or quotation marks, numbers, words that
/// @string defines, and # between them. What stands outside entries is a comment.
/// </summary>
/// <remarks>
/// An entry that breaks off ends where a line begins the next one; its fields up to there are kept. O(length).
/// </remarks>
internal static partial class BibTexEntries
{
    private const int MostFields = 200;

    /// <summary>Whether a text has the beginning of an entry: a kind, an opening brace and a key.</summary>
    public static bool Looks(string text) => Entry().Matches(text).Any(m => KindsWithKeys(m.Groups[1].Value));

    /// <summary>Its references.</summary>
    public static IEnumerable<EntryFields> Read(string text)
    {
        var words = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        var begins = Entry().Matches(text);
        for (var i = 0; i < begins.Count; i++)
        {
            var (kind, at) = (begins[i].Groups[1].Value.ToLowerInvariant(), begins[i].Index + begins[i].Length);
            var end = i + 1 < begins.Count ? begins[i + 1].Index : text.Length;
            var reader = new Fields(text, at, end, words);
            if (kind == "string")
                foreach (var (name, value) in reader.All())
                    words[name] = value;
            else if (KindsWithKeys(kind))
            {
                reader.Key();
                var fields = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
                foreach (var (name, value) in reader.All())
                    fields.TryAdd(name, value);
                yield return Of(kind, fields);
            }
        }
    }

    private static bool KindsWithKeys(string kind) =>
        kind.ToLowerInvariant() is not ("comment" or "preamble" or "string");

    private static EntryFields Of(string kind, Dictionary<string, string> fields)
    {
        string One(params string[] names) =>
            names.Select(n => TexText.Plain(fields.GetValueOrDefault(n) ?? "")).FirstOrDefault(v => v.Length > 0) ?? "";
        // An address or an identifier is no text of TeX, but for the signs that had to be escaped.
        string Bare(params string[] names) =>
            names
                .Select(n => Escaped().Replace(fields.GetValueOrDefault(n) ?? "", "$1").Trim('{', '}', ' '))
                .FirstOrDefault(v => v.Length > 0)
            ?? "";
        var (title, subtitle) = (One("title"), One("subtitle"));
        var type = KindOf(kind);
        return EntryFields.Empty with
        {
            Title = subtitle.Length > 0 ? $"{title}: {subtitle}" : title,
            Type = DocumentTypes.Name(type),
            People = People(fields.GetValueOrDefault("author") ?? "") is { Length: > 0 } authors
                ? authors
                : People(fields.GetValueOrDefault("editor") ?? ""),
            Year = One("year", "date"),
            Venue = type is DocumentType.Book ? "" : One("journal", "journaltitle", "booktitle"),
            Volume = One("volume"),
            Issue = One("number", "issue"),
            Pages = One("pages", "eid", "article-number"),
            Publisher = One("publisher", "school", "institution", "organization"),
            Doi = Bare("doi", "note"),
            Isbn = Bare("isbn"),
            Address = Bare("url"),
            Language = One("language", "langid"),
            Keywords = One("keywords"),
            Abstract = One("abstract"),
        };
    }

    /// <summary>One name in each line, "Family, Given"; a name in braces as it stands.</summary>
    private static string People(string value) =>
        string.Join('\n', Names(value).Select(Name).Where(n => n.Length > 0 && n is not "others"));

    /// <summary>The names between words "and" that stand outside braces.</summary>
    private static IEnumerable<string> Names(string value)
    {
        var (depth, from) = (0, 0);
        for (var i = 0; i < value.Length; i++)
        {
            if (value[i] == '{')
                depth++;
            else if (value[i] == '}')
                depth--;
            else if (
                depth <= 0
                && char.IsWhiteSpace(value[i])
                && i + 4 < value.Length
                && string.Compare(value, i + 1, "and", 0, 3, StringComparison.OrdinalIgnoreCase) == 0
                && char.IsWhiteSpace(value[i + 4])
            )
            {
                yield return value[from..i];
                from = i + 4;
                i += 3;
            }
        }
        yield return value[from..];
    }

    /// <summary>
    /// "Berg, Mei", "van den Berg, Jr., Mei", "Mei van den Berg" or "{Society of Lamps}" as "Family, Given": what begins
    /// with a small letter belongs to the family name.
    /// </summary>
    private static string Name(string written)
    {
        written = written.Trim();
        if (IsBraced(written))
            return TexText.Plain(written);
        var parts = written.Split(',').Select(TexText.Plain).Where(p => p.Length > 0).ToArray();
        if (parts.Length > 2)
            return $"{parts[0]} {parts[1]}, {parts[2]}";
        if (parts.Length != 1)
            return string.Join(", ", parts);
        var words = parts[0].Split(' ');
        var family = Array.FindIndex(words, w => char.IsLower(w[0]));
        if (family <= 0)
            family = words.Length - 1;
        return family == 0 ? parts[0] : $"{string.Join(' ', words[family..])}, {string.Join(' ', words[..family])}";
    }

    /// <summary>Whether the brace a name begins with closes at its end.</summary>
    private static bool IsBraced(string written)
    {
        var depth = 0;
        for (var i = 0; i < written.Length; i++)
        {
            depth += written[i] switch
            {
                '{' => 1,
                '}' => -1,
                _ => 0,
            };
            if (depth == 0)
                return i > 0 && i == written.Length - 1;
        }
        return false;
    }

    private static DocumentType KindOf(string kind) =>
        kind switch
        {
            "conference" => DocumentType.ConferencePaper,
            "mvbook" => DocumentType.Book,
            _ => DocumentTypes.Read(kind),
        };

    /// <summary>The fields of one entry, from behind its opening brace to where it ends or the next begins.</summary>
    private sealed class Fields(string text, int from, int end, Dictionary<string, string> words)
    {
        private int at = from;

        /// <summary>Passes over the key.</summary>
        public void Key()
        {
            var start = at;
            while (at < end && text[at] is not (',' or '}' or ')' or '=' or '\n'))
                at++;
            if (at < end && text[at] == '=') // there is none: this is the name of the first field
                at = start;
        }

        /// <summary>Names and values, in order.</summary>
        public IEnumerable<(string Name, string Value)> All()
        {
            for (var n = 0; n < MostFields; n++)
            {
                while (at < end && (char.IsWhiteSpace(text[at]) || text[at] == ','))
                    at++;
                var start = at;
                while (at < end && (char.IsAsciiLetterOrDigit(text[at]) || text[at] is '_' or '-' or ':' or '.' or '+'))
                    at++;
                var name = text[start..at];
                Blanks();
                if (name.Length == 0 || at >= end || text[at] != '=')
                    yield break;
                at++;
                yield return (name, Value());
            }
        }

        private string Value()
        {
            var value = new StringBuilder();
            do
            {
                Blanks();
                if (at >= end)
                    break;
                value.Append(
                    text[at] == '{' ? Within('}')
                    : text[at] == '"' ? Within('"')
                    : Word()
                );
                Blanks();
            } while (at < end && text[at] == '#' && ++at < end);
            return value.ToString();
        }

        /// <summary>What stands between braces or quotation marks; to the end where it is never closed.</summary>
        private string Within(char close)
        {
            var (start, depth) = (++at, 0);
            for (; at < end; at++)
            {
                if (text[at] == '\\' && at + 1 < end)
                    at++;
                else if (text[at] == close && depth == 0)
                    return text[start..at++];
                else if (text[at] == '{')
                    depth++;
                else if (text[at] == '}' && depth > 0)
                    depth--;
            }
            return text[start..Math.Min(at, end)].TrimEnd();
        }

        private string Word()
        {
            var start = at;
            while (at < end && !char.IsWhiteSpace(text[at]) && text[at] is not (',' or '}' or ')' or '#'))
                at++;
            return words.GetValueOrDefault(text[start..at], text[start..at]);
        }

        private void Blanks()
        {
            while (at < end && char.IsWhiteSpace(text[at]))
                at++;
        }
    }

    // At the beginning of a line: an address of mail, or an @ inside an abstract, begins nothing.
    [GeneratedRegex(@"^[ \t]*@([A-Za-z]{3,20})\s{0,4}[{(]", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex Entry();

    [GeneratedRegex(@"\\([%&$#_{}~^])", RegexOptions.CultureInvariant)]
    private static partial Regex Escaped();
}
