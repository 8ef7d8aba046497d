using System.Text.RegularExpressions;
using Zendle.Core.Records;

namespace Zendle.Core.Entries;

/// <summary>
/// Reads RIS: a tag of two signs, two blanks, a hyphen; one reference from TY to ER. A line without a tag goes on with
/// the one before. Where programs use different tags for one thing (T1, TI; JF, JO, T2; PY, Y1, DA), all are read.
/// </summary>
internal static partial class RisEntries
{
    /// <summary>Whether a text has the line that every reference of the format begins with.</summary>
    public static bool Looks(string text) => First().IsMatch(text);

    /// <summary>Its references.</summary>
    public static IEnumerable<EntryFields> Read(string text)
    {
        var (values, last) = (new Dictionary<string, List<string>>(StringComparer.Ordinal), (List<string>?)null);
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var tagged = Tag().Match(line);
            if (!tagged.Success)
            {
                if (last is [.., var before] && line.Trim().Length > 0)
                    last[^1] = before + " " + line.Trim();
                continue;
            }
            var tag = tagged.Groups[1].Value;
            if (tag is "TY" or "ER")
            {
                if (values.Count > 0)
                    yield return Of(values);
                (values, last) = ([], null);
                if (tag == "ER")
                    continue;
            }
            if (!values.TryGetValue(tag, out last))
                values.Add(tag, last = []);
            last.Add(tagged.Groups[2].Value.Trim());
        }
        if (values.Count > 0)
            yield return Of(values);
    }

    private static EntryFields Of(Dictionary<string, List<string>> values)
    {
        string One(params string[] tags) =>
            ReferenceFile.Line(
                tags.SelectMany(t => values.GetValueOrDefault(t) ?? []).FirstOrDefault(v => v.Length > 0) ?? ""
            );
        string All(string tag, string between) =>
            string.Join(
                between,
                (values.GetValueOrDefault(tag) ?? []).Select(ReferenceFile.Line).Where(v => v.Length > 0)
            );
        var kind = One("TY");
        var (people, first, end) = (All("AU", "\n"), One("SP"), One("EP"));
        return EntryFields.Empty with
        {
            Title = One("TI", "T1", "CT"),
            Type = DocumentTypes.Name(KindOf(kind)),
            People =
                people.Length > 0 ? people
                : All("A1", "\n") is { Length: > 0 } authors ? authors
                : All("ED", "\n"),
            Year = One("PY", "Y1", "DA", "Y2"),
            Venue = kind is "BOOK" ? "" : One("JF", "JO", "BT", "T2", "JA", "J2"),
            Volume = One("VL"),
            Issue = One("IS"),
            Pages = end.Length > 0 && !first.Contains('-', StringComparison.Ordinal) ? $"{first}-{end}" : first,
            Publisher = One("PB"),
            // Programs that know no tag for it put a DOI into one of the others.
            Doi =
                Array.Find([One("DO"), One("M3"), One("L3"), One("UR"), One("N1")], v => Identifiers.Doi(v) is not null)
                ?? "",
            Isbn = One("SN"),
            Address = One("UR"),
            Language = One("LA"),
            Keywords = All("KW", "; "),
            Abstract = One("AB", "N2"),
        };
    }

    private static DocumentType KindOf(string kind) =>
        kind switch
        {
            "JOUR" or "JFULL" or "MGZN" or "NEWS" or "EJOUR" => DocumentType.Article,
            "CONF" or "CPAPER" => DocumentType.ConferencePaper,
            "THES" => DocumentType.Thesis,
            "RPRT" or "GOVDOC" => DocumentType.Report,
            "UNPB" or "INPR" => DocumentType.Manuscript,
            "BOOK" or "EBOOK" or "EDBOOK" => DocumentType.Book,
            "CHAP" or "ECHAP" => DocumentType.Chapter,
            "DATA" or "AGGR" => DocumentType.Dataset,
            _ => DocumentType.Other,
        };

    [GeneratedRegex(@"^\s{0,8}TY\s{1,2}-\s", RegexOptions.Multiline | RegexOptions.CultureInvariant)]
    private static partial Regex First();

    [GeneratedRegex(@"^\s{0,8}([A-Z][A-Z0-9])\s{1,2}-(?:\s(.*))?$", RegexOptions.CultureInvariant)]
    private static partial Regex Tag();
}
