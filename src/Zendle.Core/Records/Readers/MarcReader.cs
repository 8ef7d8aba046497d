using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads MARC 21 for bibliographic data as MARCXML into a <see cref="Record"/>. The punctuation that ISBD puts at the
/// ends of subfields is taken away.
/// </summary>
public static partial class MarcReader
{
    /// <summary>Namespace of MARCXML.</summary>
    public static readonly XNamespace Marc = "http://www.loc.gov/MARC21/slim";

    /// <summary>Reads one <c>record</c>. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="metadata">The <c>record</c>, or the <c>collection</c> around it.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement metadata, string identifier, DateTimeOffset datestamp)
    {
        var marc = new Fields(
            metadata.Name.LocalName == "collection"
                ? metadata.Elements().FirstOrDefault(e => e.Name.LocalName == "record") ?? metadata
                : metadata
        );
        var draft = new RecordDraft();
        Titles(marc, draft);
        People(marc, draft);
        Dates(marc, draft);
        Types(marc, draft);
        Numbers(marc, draft);
        Texts(marc, draft);
        Host(marc, draft);
        Links(marc, draft);
        return draft.ToRecord(identifier, datestamp);
    }

    private static void Titles(Fields marc, RecordDraft draft)
    {
        if (marc.Of("245").FirstOrDefault() is { } own)
            draft.Titles.Add(TitleIn(own));
        foreach (var field in marc.Of("242", "246", "130", "240", "247"))
            if (TitleIn(field) is { Length: > 0 } other && draft.Titles.Count > 0)
                draft.Titles.Add(other);
    }

    /// <summary>Title, subtitle, number and name of the part.</summary>
    private static string TitleIn(Field field)
    {
        var title = Bare(field['a']);
        var part = string.Join(", ", field.All('n').Concat(field.All('p')).Select(Bare).Where(p => p.Length > 0));
        var sub = Bare(field['b']);
        if (sub.Length > 0)
            title = TitleText.With(title, sub);
        return part.Length > 0 ? $"{title}. {part}" : title;
    }

    private static void People(Fields marc, RecordDraft draft)
    {
        foreach (var field in marc.Of("100", "110", "111", "700", "710", "711"))
        {
            // A name with a title is another work, not a person of this one.
            if (field['t'].Length > 0)
                continue;
            var roles = field
                .All('4')
                .Concat(field.All('e'))
                .Select(r => Bare(r).TrimEnd('.').ToLowerInvariant())
                .Select(r => r[(r.LastIndexOf('/') + 1)..])
                .ToArray();
            var isEditor = roles.Any(r => EditorRole().IsMatch(r));
            var isAuthor = roles.Length == 0 || roles.Any(r => AuthorRole().IsMatch(r));
            if (roles.Any(r => r is "fnd" or "funder" or "sponsor" or "spn"))
                draft.Funders.Add(Bare(field['a']));
            if (!isEditor && !isAuthor)
                continue;
            var isPerson = field.Tag is "100" or "700";
            // A body beside the authors without a role is a publisher or a university more often than an author.
            if (!isPerson && field.Tag != "110" && field.Tag != "111" && roles.Length == 0)
                continue;
            var name = Bare(
                isPerson ? field['a'] : string.Join(". ", field.All('a').Concat(field.All('b')).Select(Bare))
            );
            if (name.Length == 0)
                continue;
            var (family, given) = isPerson ? NameLists.SplitOne(Suffixed(name, field)) : (name, "");
            var orcid = field
                .All('0')
                .Concat(field.All('1'))
                .Select(Identifiers.Orcid)
                .FirstOrDefault(o => o is not null);
            var affiliation = Bare(field['u']);
            draft.People.Add(
                new(
                    family,
                    given,
                    orcid,
                    affiliation.Length > 0 ? affiliation : null,
                    isEditor && !roles.Any(r => AuthorRole().IsMatch(r)) ? "editor" : null
                )
            );
        }
    }

    /// <summary>A name with what stands before a comma only in catalogues: "Berg, Mei, II".</summary>
    private static string Suffixed(string name, Field field) =>
        Bare(field['b']) is { Length: > 0 and < 6 } numeral && !name.Contains(',', StringComparison.Ordinal)
            ? $"{name} {numeral}"
            : name;

    private static void Dates(Fields marc, RecordDraft draft)
    {
        foreach (var field in marc.Of("260").Concat(marc.Of("264").Where(f => f.Second == '1')))
        {
            draft.Publisher ??= Bare(field['b']) is { Length: > 0 } publisher ? publisher : null;
            if (Bare(field['c']) is { Length: > 0 } date)
                draft.Dates.Add(new($"{field.Tag} $c", date));
        }
        foreach (var field in marc.Of("773"))
            if (HostYear().Match(field['g']) is { Success: true } year)
                draft.LesserDates.Add(new("773 $g", year.Value));
        foreach (var field in marc.Of("502"))
            if (PublicationDate.ReadYear(field['d']) is not null)
                draft.LesserDates.Add(new("502 $d", field['d']));
        foreach (var field in marc.Of("264").Where(f => f.Second == '4'))
            draft.LesserDates.Add(new("264 $c", Bare(field['c'])));
        // The fixed field: date 1, where it is a year.
        if (marc.Control("008") is { Length: >= 38 } fixedField)
        {
            if (PublicationDate.ReadYear(fixedField[7..11]) is not null)
                draft.LesserDates.Add(new("008", fixedField[7..11]));
            if (
                fixedField[35..38].Trim('|', ' ') is { Length: 3 } language
                && language is not ("und" or "mul" or "zxx")
            )
                draft.Languages.Add(language);
        }
        draft.Languages.InsertRange(0, marc.Of("041").SelectMany(f => f.All('a')).Select(Bare));
    }

    private static void Types(Fields marc, RecordDraft draft)
    {
        if (marc.Of("502").Any())
        {
            draft.Types.Add(new("502", "thesis"));
            draft.Genre = marc.Of("502")
                .SelectMany(f => f.All('b').Concat(f.All('a')))
                .Select(t => DocumentTypes.ThesisGenre($"thesis ({Degree(t)})"))
                .FirstOrDefault(g => g is not null);
            draft.Publisher ??= marc.Of("502").Select(f => Bare(f['c'])).FirstOrDefault(c => c.Length > 0);
        }
        foreach (var field in marc.Of("655", "980"))
            draft.Types.Add(new($"{field.Tag} $a", Bare(field['a'])));
        // Positions 6 and 7 of the leader: text; and whether it is a part, a whole, or a serial.
        if (marc.Leader is { Length: > 7 } leader)
        {
            var isInBook = marc.Of("773")
                .Any(f => f['z'].Length > 0 || f['7'].EndsWith("am", StringComparison.Ordinal));
            if (leader[6] is 'a' or 't')
                draft.Types.Add(
                    new(
                        "leader",
                        leader[7] switch
                        {
                            'a' => "chapter",
                            'b' => isInBook ? "chapter" : "article",
                            'm' => marc.Of("773").Any() ? (isInBook ? "chapter" : "article") : "book",
                            _ => "",
                        }
                    )
                );
        }
    }

    private static string Degree(string text) =>
        MasterDegree().IsMatch(text) ? "masters"
        : BachelorDegree().IsMatch(text) ? "bachelors"
        : DoctorDegree().IsMatch(text) ? "doctoral"
        : "";

    private static void Numbers(Fields marc, RecordDraft draft)
    {
        draft.Identifiers.AddRange(
            marc.Of("020").Select(f => Bare(f['a'])).Where(i => i.Length > 0).Select(i => $"ISBN {i}")
        );
        foreach (var field in marc.Of("024"))
            draft.Identifiers.Add(
                field['2'].ToLowerInvariant() is "hdl" or "handle" && Identifiers.Handle(field['a']) is null
                    ? $"hdl:{field['a'].Trim()}"
                    : field['a'].Trim()
            );
        foreach (var field in marc.Of("776", "775", "787"))
            if (
                field
                    .All('o')
                    .Concat(field.All('r'))
                    .Concat(field.All('w'))
                    .Select(Identifiers.Doi)
                    .OfType<string>()
                    .FirstOrDefault() is
                { } doi
            )
                draft.Relations.Add(field.Tag == "787" ? $"requires {doi}" : $"isVersionOf: {doi}");
    }

    private static void Texts(Fields marc, RecordDraft draft)
    {
        // Of summaries: an abstract (3) or what is not said; reviews, contents and warnings are none.
        foreach (var field in marc.Of("520").Where(f => f.First is ' ' or '3' or '8' or '2' or '#'))
            draft.Descriptions.Add(new(string.Join(' ', field.All('a').Concat(field.All('b'))), null));
        foreach (var field in marc.Of("505"))
            draft.Contents.AddRange(
                string.Join(" -- ", field.All('a').Concat(field.All('t')).DefaultIfEmpty(""))
                    .Split("--", StringSplitOptions.TrimEntries)
                    .Select(Bare)
            );
        foreach (var field in marc.Of("650", "600", "610", "630", "648"))
            if (field.Second is not '6' || field['a'].Length > 0)
                draft.ControlledTerms.Add(
                    string.Join(
                        " -- ",
                        field.All('a').Concat(field.All('x')).Select(s => Bare(s).TrimEnd('.')).Where(s => s.Length > 0)
                    )
                );
        draft.Keywords.AddRange(marc.Of("653").SelectMany(f => f.All('a')).Select(k => Bare(k).TrimEnd('.')));
        draft.Places.AddRange(marc.Of("651").Select(f => Bare(f['a']).TrimEnd('.')));
        draft.Funders.AddRange(marc.Of("536").Select(f => Bare(f['a'])));
        foreach (var field in marc.Of("540", "506", "542"))
            draft.Rights.AddRange(
                field.All('u').Concat(field.All('f')).Concat(field.All('a')).Select(Bare).Where(r => r.Length > 0)
            );
    }

    /// <summary>The journal or book that the work is a part of (773), or the series (490) of a report.</summary>
    private static void Host(Fields marc, RecordDraft draft)
    {
        if (marc.Of("773").FirstOrDefault() is not { } host)
        {
            if (marc.Of("490", "830").FirstOrDefault(f => f['a'].Length > 0) is { } series)
                draft.Related.Add(new("series", Bare(series['a']), null));
            return;
        }
        draft.HostIsbn ??= host.All('z').Select(Identifiers.Isbn).FirstOrDefault(i => i is not null);
        var title = Bare(host['t']);
        if (title.Length == 0)
            // A shortened title keeps its full stop.
            title = host['p'].TrimEnd(' ', '/', ':', ';', ',');
        if (title.Length == 0)
            title = Bare(host['a']);
        if (title.Length == 0)
            return;
        var issn = host.All('x').Select(Identifiers.Issn).FirstOrDefault(i => i is not null);
        // "Vol. 12, no. 3 (2019), p. 45-67" is taken apart as the source of a bare record is.
        var line = SourceLine.Read([$"{title} {host['g']}".Trim()]);
        if (line?.Volume is null && line?.FirstPage is null && host['g'].Length > 0)
            line = SourceLine.Read([$"{title}, {host['g']}"]);
        var told = Enumeration().Match(host['q']);
        string? Group(string name) => told.Groups[name] is { Success: true, Value.Length: > 0 } g ? g.Value : null;
        string? Labelled(Regex pattern, int group = 1) =>
            pattern.Match(host['g']) is { Success: true } m ? m.Groups[group].Value : null;
        var first = line?.FirstPage ?? Labelled(Pages()) ?? Group("first");
        draft.Venue = new(
            title,
            issn,
            line?.Volume ?? Labelled(Volume()) ?? Group("volume"),
            line?.Issue ?? Labelled(Issue()) ?? Group("issue"),
            first,
            line?.LastPage ?? (Labelled(Pages(), 2) is { Length: > 0 } last ? last : first)
        );
    }

    private static void Links(Fields marc, RecordDraft draft)
    {
        foreach (var field in marc.Of("856").Where(f => f.First is '4' or '0' or ' ' or '7' && f.Second is not '2'))
        foreach (var address in field.All('u').Select(u => u.Trim()))
        {
            if (
                Identifiers.Doi(address) is not null
                && address.Contains("doi.org/", StringComparison.OrdinalIgnoreCase)
            )
            {
                draft.Identifiers.Add(address);
                continue;
            }
            if (Identifiers.Handle(address) is not null)
                draft.Identifiers.Add(address);
            if (WebAddress.Of(address) is not { } uri)
                continue;
            // A table of contents or a cover is no copy of the work.
            if (NoCopy().IsMatch(field['3']) || NoCopy().IsMatch(field['y']))
                continue;
            draft.Copies.Add(
                new(
                    uri.ToString(),
                    Records.Rights.Of(field.All('z').Concat(field.All('7')).Concat(field.All('r'))).Access
                )
            );
        }
    }

    /// <summary>Without the signs that ISBD puts before the next subfield.</summary>
    private static string Bare(string text)
    {
        var plain = PlainText.Clean(text).TrimEnd(' ', '/', ':', ';', ',', '=');
        // A full stop at the end belongs to the punctuation, unless it closes an abbreviation or an initial.
        if (
            plain.Length > 4
            && plain[^1] == '.'
            && char.IsLower(plain[^2])
            && char.IsLower(plain[^3])
            && char.IsLower(plain[^4])
        )
            plain = plain[..^1];
        return plain.Trim();
    }

    /// <summary>A record by its fields.</summary>
    private sealed class Fields(XElement record)
    {
        private readonly ILookup<string, Field> fields = record
            .Elements()
            .Where(e => e.Name.LocalName == "datafield")
            .Select(e => new Field(e))
            .ToLookup(f => f.Tag, StringComparer.Ordinal);

        public string? Leader { get; } = record.Elements().FirstOrDefault(e => e.Name.LocalName == "leader")?.Value;

        /// <summary>Fields of some tags, tag after tag.</summary>
        public IEnumerable<Field> Of(params string[] tags) => tags.SelectMany(t => fields[t]);

        public string? Control(string tag) =>
            record
                .Elements()
                .FirstOrDefault(e => e.Name.LocalName == "controlfield" && (string?)e.Attribute("tag") == tag)
                ?.Value;
    }

    /// <summary>A data field.</summary>
    private sealed class Field(XElement element)
    {
        public string Tag { get; } = (string?)element.Attribute("tag") ?? "";

        public char First { get; } = Indicator(element, "ind1");

        public char Second { get; } = Indicator(element, "ind2");

        /// <summary>The first subfield of a code; empty for none.</summary>
        public string this[char code] => All(code).FirstOrDefault() ?? "";

        /// <summary>All subfields of a code.</summary>
        public IEnumerable<string> All(char code) =>
            element
                .Elements()
                .Where(e => (string?)e.Attribute("code") is { Length: 1 } c && c[0] == code)
                .Select(ElementText.Of);

        private static char Indicator(XElement element, string name) =>
            (string?)element.Attribute(name) is { Length: > 0 } value ? value[0] : ' ';
    }

    [GeneratedRegex(
        @"^(?:edt|editor|hrsg|herausgeber(?:in)?|hg|éd|éditeur|editor literario|org|edc)\b",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex EditorRole();

    [GeneratedRegex(
        @"^(?:aut|author|cre|creator|verfasser(?:in)?|auteur|autora?|dis|dissertant|joint author|aui|co-?author)\b",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex AuthorRole();

    [GeneratedRegex(@"\b(?:1[5-9]|20)\d{2}\b", RegexOptions.CultureInvariant)]
    private static partial Regex HostYear();

    [GeneratedRegex(
        @"\b(?:master|m\.? ?sc|m\.? ?a|m\.? ?phil|diplom|magister|mestrado|maestr)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex MasterDegree();

    [GeneratedRegex(
        @"\b(?:bachelor|b\.? ?sc|b\.? ?a\b|grado)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex BachelorDegree();

    [GeneratedRegex(
        @"ph\.? ?d|doctor|doktor|dr\.|d\.? ?phil|doutor|habil|diss",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex DoctorDegree();

    // 773 $q: volume:issue<first page.
    [GeneratedRegex(
        @"^(?<volume>[\w./-]+)?(?::(?<issue>[\w./-]+))?(?:<(?<first>\w+))?$",
        RegexOptions.CultureInvariant
    )]
    private static partial Regex Enumeration();

    [GeneratedRegex(
        @"\b(?:vol(?:ume)?|bd|band|jg|tome|t|v)\.?\s*:?\s*(\d{1,5}[A-Z]?)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Volume();

    [GeneratedRegex(
        @"\b(?:no|nr|n°|nº|num|núm|issue|iss|heft|number)\.?\s*:?\s*(\d{1,5}(?:[-/]\d{1,4})?)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Issue();

    [GeneratedRegex(
        @"\b(?:pp?|pages?|s|seiten?|page)\.?\s*:?\s*([eA-Z]?\d{1,7})(?:\s*[-–]\s*([eA-Z]?\d{1,7}))?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Pages();

    [GeneratedRegex(
        @"content|inhalt|cover|umschlag|abstract|table|review|rezension|sommaire|índice|biograph",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex NoCopy();
}
