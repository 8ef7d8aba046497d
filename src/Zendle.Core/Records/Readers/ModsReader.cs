using System.Globalization;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads MODS 3.8 into a <see cref="Record"/>. Tolerant: what cannot be understood is left out with a note, never
/// thrown. References come as <c>relatedItem type="references"</c> or as <c>note type="citation/reference"</c>; a
/// database's own citation count stands in <c>extension</c> as an element named <c>citedCount</c>; an entry known only
/// from reference lists says so in <c>recordInfo/recordOrigin</c>.
/// </summary>
public static partial class ModsReader
{
    /// <summary>Namespace of MODS 3.</summary>
    public static readonly XNamespace Mods = "http://www.loc.gov/mods/v3";

    /// <summary>So many people are kept of one record.</summary>
    internal const int MostPeople = 2_000;

    /// <summary>Reads one <c>mods</c> element.</summary>
    /// <param name="mods">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement mods, string identifier, DateTimeOffset datestamp)
    {
        var notes = new List<string>();
        var (title, translated) = Title(mods);
        if (title.Length == 0)
            notes.Add(ReaderNotes.NoTitle);
        var host = mods.Elements(Mods + "relatedItem").FirstOrDefault(r => (string?)r.Attribute("type") is "host");
        var people = People(mods, notes);
        var doi = Doi(mods, notes);
        var readings = new List<Reading>();
        var language = LanguageOf(mods, notes);
        var abstracts = AbstractsOf(mods, language, notes, readings);
        var date = DateOf(mods, host, notes, readings);
        var rights = RightsOf(mods);
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = title,
            TitleIsTranslated = translated,
            OtherTitles =
            [
                .. mods.Elements(Mods + "titleInfo")
                    .Where(t => t.Attribute("type") is not null)
                    .Select(t => TitleIn(t).Title)
                    .Where(t => t.Length > 0 && t != title)
                    .Distinct(),
            ],
            Abstract = abstracts.Abstract,
            OtherAbstracts = abstracts.Others,
            Contents = Contents(mods),
            Keywords = Values(
                mods.Elements(Mods + "subject").Where(s => s.Attribute("authority") is null).Elements(Mods + "topic")
            ),
            ControlledTerms = Values(
                mods.Elements(Mods + "subject")
                    .Where(s => s.Attribute("authority") is not null)
                    .Elements(Mods + "topic")
            ),
            Subjects = Values(mods.Elements(Mods + "classification")),
            People = people.Exists(p => p.Role is null) ? people.FindAll(p => p.Role is null) : people,
            Editors =
            [
                .. people.Exists(p => p.Role is null) ? people.Where(p => p.Role is not null) : [],
                .. host is null ? [] : People(host, []).Where(p => p.Role == "editor"),
            ],
            Year = date?.Year,
            Date = date?.Date,
            Type = TypeOf(mods),
            Language = language,
            Venue = VenueOf(host, notes),
            Publisher = NullIfEmpty(
                PlainText.Clean(mods.Elements(Mods + "originInfo").Elements(Mods + "publisher").FirstOrDefault()?.Value)
            ),
            Doi = doi,
            Genre = mods.Elements(Mods + "genre")
                .Select(g => DocumentTypes.ThesisGenre(g.Value))
                .FirstOrDefault(g => g is not null),
            Licence = rights.Licence,
            Isbn =
                mods.Elements(Mods + "identifier")
                    .Where(i => (string?)i.Attribute("type") == "isbn")
                    .Select(i => Identifiers.Isbn(i.Value))
                    .FirstOrDefault(i => i is not null)
                ?? Isbn(mods, host, notes),
            OwnNumbers =
            [
                .. mods.Elements(Mods + "identifier")
                    .Select(i =>
                        (
                            Kind: ((string?)i.Attribute("type"))?.Trim().ToLowerInvariant(),
                            Number: PlainText.Clean(i.Value)
                        )
                    )
                    .Where(i =>
                        i.Kind
                            is { Length: > 0 and < 40 }
                                and not (
                                    "doi"
                                    or "isbn"
                                    or "issn"
                                    or "issn-l"
                                    or "uri"
                                    or "hdl"
                                    or "handle"
                                    or "ark"
                                    or "urn"
                                )
                        && i.Number.Length is > 0 and < 100
                    )
                    .Select(i =>
                        Identifiers.Preprint(i.Number)
                        ?? Identifiers.Preprint($"{i.Kind}:{i.Number}")
                        ?? $"{i.Kind}:{i.Number}"
                    )
                    .Concat(
                        mods.Elements(Mods + "identifier")
                            .Select(i =>
                                Identifiers.Handle(
                                    (string?)i.Attribute("type") is "hdl"
                                    && !i.Value.Contains(':', StringComparison.Ordinal)
                                        ? $"hdl:{i.Value.Trim()}"
                                        : i.Value
                                )
                                    is { } h
                                    ? $"hdl:{h}"
                                    : Identifiers.Ark(i.Value)
                                        ?? Identifiers.Urn(i.Value)
                                        ?? Identifiers.Preprint(i.Value)
                            )
                            .OfType<string>()
                    )
                    .Distinct(),
            ],
            Places = Values(mods.Elements(Mods + "subject").Elements(Mods + "geographic")),
            Related =
            [
                .. mods.Elements(Mods + "relatedItem")
                    .Where(r =>
                        (string?)r.Attribute("type")
                            is "preceding"
                                or "succeeding"
                                or "original"
                                or "series"
                                or "constituent"
                                or "isReferencedBy"
                                or "reviewOf"
                    )
                    .Select(r => new RelatedWork(
                        (string)r.Attribute("type")!,
                        NullIfEmpty(TitleIn(r.Element(Mods + "titleInfo")).Title),
                        DoiIn(r)
                    ))
                    .Where(r => r.Title is not null || r.Doi is not null),
            ],
            IsOnlyCited = mods.Elements(Mods + "recordInfo")
                .Elements(Mods + "recordOrigin")
                .Any(o => o.Value.Contains("reference lists", StringComparison.OrdinalIgnoreCase)),
            Funders = Values(mods.Elements(Mods + "note").Where(n => (string?)n.Attribute("type") == "funding")),
            Versions =
            [
                .. mods.Elements(Mods + "relatedItem")
                    .Where(r => (string?)r.Attribute("type") is "otherVersion" or "otherFormat")
                    .Select(r => DoiIn(r))
                    .Append(Identifiers.OfAllVersions(doi))
                    .Concat(
                        mods.Elements(Mods + "identifier")
                            .Where(i => (string?)i.Attribute("type") is "doi")
                            .Select(i => Identifiers.Doi(i.Value))
                    )
                    .OfType<string>()
                    .Where(d => d != doi)
                    .Distinct()
                    .Select(d => new VersionLink(d)),
            ],
            Version = mods.Elements(Mods + "note")
                .Where(n => (string?)n.Attribute("type") == "version")
                .Select(n => WorkVersions.Read(n.Value))
                .FirstOrDefault(v => v is not null),
            References = References(mods),
            CitedCount = mods.Elements(Mods + "extension")
                .Elements()
                .Where(e => e.Name.LocalName == "citedCount")
                .Select(e =>
                    int.TryParse(e.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? (int?)n : null
                )
                .FirstOrDefault(n => n is not null),
            Copies = [.. rights.Over(Copies(mods))],
            Readings = readings,
            Notes = notes,
        };
    }

    /// <summary>What a record says of its rights, and of the end of an embargo among its dates.</summary>
    internal static Rights RightsOf(XElement mods) =>
        Rights.Of(
            mods.Elements(Mods + "accessCondition")
                .SelectMany(c =>
                    c.Attributes()
                        .Where(a => a.Name.LocalName == "href")
                        .Select(a => a.Value)
                        .Append(PlainText.Clean(c.Value))
                )
                .Concat(
                    mods.Elements(Mods + "originInfo")
                        .Elements(Mods + "dateOther")
                        .Where(d =>
                            ((string?)d.Attribute("type"))?.Contains("embargo", StringComparison.OrdinalIgnoreCase)
                            == true
                        )
                        .Select(d => EmbargoEnd.Said(d.Value))
                )
                .Where(r => r.Length > 0)
        );

    private static string? LanguageOf(XElement mods, List<string> notes)
    {
        var written = mods.Elements(Mods + "language")
            .Elements(Mods + "languageTerm")
            .Select(t => PlainText.Clean(t.Value))
            .Where(t => t.Length > 0)
            .ToArray();
        var code = written.Select(Languages.Code).FirstOrDefault(c => c is not null);
        if (code is null && written.Length > 0)
            notes.Add(ReaderNotes.UnknownLanguage(written[0]));
        return code;
    }

    private static (string Title, bool Translated) Title(XElement mods)
    {
        return TitleIn(
            mods.Elements(Mods + "titleInfo").FirstOrDefault(t => t.Attribute("type") is null)
                ?? mods.Elements(Mods + "titleInfo").FirstOrDefault()
        );
    }

    private static (string Title, bool Translated) TitleIn(XElement? info)
    {
        if (info is null)
            return ("", false);
        var title = PlainText.Clean(
            string.Join(' ', info.Element(Mods + "nonSort")?.Value, info.Element(Mods + "title")?.Value, PartOf(info))
        );
        var sub = PlainText.Clean(info.Element(Mods + "subTitle")?.Value);
        var whole = TitleText.With(title, sub);
        // Some indexes close titles with a full stop.
        if (whole.Length > 4 && whole[^1] == '.' && char.IsLetter(whole[^2]) && whole[^3] != '.' && whole[^3] != ' ')
            whole = whole[..^1];
        whole = TitleText.Closed(whole);
        var inside = PlainText.InsideBrackets(whole);
        return (inside ?? whole, inside is not null || (string?)info.Attribute("type") == "translated");
    }

    private static List<PersonName> People(XElement mods, List<string> notes)
    {
        var people = new List<PersonName>();
        var isThesis = TypeOf(mods) == DocumentType.Thesis;
        foreach (
            var name in mods.Elements(Mods + "name")
                .Where(n => (string?)n.Attribute("type") is null or "personal" or "corporate")
        )
        {
            var role = name.Elements(Mods + "role")
                .Elements(Mods + "roleTerm")
                .Select(r => r.Value.Trim().ToLowerInvariant())
                .FirstOrDefault();
            if (role is not (null or "aut" or "author" or "edt" or "editor" or "cre" or "creator"))
                continue;
            // An organisation among the authors is one of them, under its whole name; the university of a thesis is
            // not.
            if ((string?)name.Attribute("type") == "corporate")
            {
                if (role is null || (isThesis && role is not ("aut" or "author")))
                    continue;
                var body = PlainText.Clean(string.Join(' ', name.Elements(Mods + "namePart").Select(p => p.Value)));
                if (body.Length > 0)
                    people.Add(new(body, "", Role: role is "edt" or "editor" ? "editor" : null));
                continue;
            }
            foreach (var person in PeopleIn(name, role is "edt" or "editor" ? "editor" : null, notes))
            {
                if (people.Count == MostPeople)
                {
                    notes.Add(ReaderNotes.TooManyPeople(MostPeople));
                    return people;
                }
                people.Add(person);
            }
        }
        // A body speaks where no person does.
        if (people.Count == 0)
            people.AddRange(
                mods.Elements(Mods + "name")
                    .Where(n => (string?)n.Attribute("type") is "corporate" or "conference")
                    .Select(n => PlainText.Clean(string.Join(' ', n.Elements(Mods + "namePart").Select(p => p.Value))))
                    .Where(n => n.Length > 0)
                    .Select(n => new PersonName(n, ""))
            );
        return people;
    }

    /// <summary>
    /// The people one name element tells of: mostly one; all of them where a repository puts the whole list into one
    /// string.
    /// </summary>
    private static IEnumerable<PersonName> PeopleIn(XElement name, string? role, List<string> notes)
    {
        var parts = name.Elements(Mods + "namePart").ToArray();
        if (
            parts.Length == 1
            && parts[0].Attribute("type") is null
            && NameLists.Split(PlainText.Clean(parts[0].Value)) is { Count: > 1 } list
        )
        {
            notes.Add(ReaderNotes.NamesInOneField);
            return list.Select(n => new PersonName(n.Family, n.Given, Role: role));
        }
        if (Person(name) is not { } person)
            return [];
        foreach (
            var given in name.Elements(Mods + "nameIdentifier")
                .Where(i => person.Orcid is null && (string?)i.Attribute("type") == "orcid")
        )
            notes.Add(ReaderNotes.WrongCheckDigit("ORCID iD", given.Value, $" of {person.Short}"));
        return [person with { Role = role }];
    }

    private static PersonName? Person(XElement name)
    {
        string Part(string type) =>
            PlainText.Clean(
                string.Join(
                    ' ',
                    name.Elements(Mods + "namePart")
                        .Where(p => (string?)p.Attribute("type") == type)
                        .Select(p => p.Value)
                )
            );
        var (family, given) = (Part("family"), Part("given"));
        if (family.Length == 0)
        {
            var whole = PlainText.Clean(
                string.Join(
                    ' ',
                    name.Elements(Mods + "namePart").Where(p => p.Attribute("type") is null).Select(p => p.Value)
                )
            );
            (family, given) = NameLists.SplitOne(whole);
        }
        if (family.Length == 0)
            return null;
        var orcid = name.Elements(Mods + "nameIdentifier")
            .Select(i => Identifiers.Orcid(i.Value))
            .FirstOrDefault(o => o is not null);
        return new(family, given, orcid, NullIfEmpty(PlainText.Clean(name.Element(Mods + "affiliation")?.Value)));
    }

    /// <summary>
    /// When the work came out: by its dates of issue, one that is marked as the key before the others and never the end
    /// of a range; then by the part of its host; then by copyright and creation. Of one year the most precise holds.
    /// </summary>
    private static PublicationDate? DateOf(XElement mods, XElement? host, List<string> notes, List<Reading> readings)
    {
        List<Said> key = [],
            issued = [],
            printed = [],
            copyright = [],
            created = [];
        foreach (var date in mods.Elements(Mods + "originInfo").Elements())
        {
            var list = date.Name.LocalName switch
            {
                "dateIssued" => (string?)date.Attribute("keyDate") is "yes" ? key : issued,
                "copyrightDate" => copyright,
                "dateCreated" => created,
                _ => null,
            };
            if (
                list is not null
                && (string?)date.Attribute("point") is not "end"
                && PlainText.Clean(date.Value) is { Length: > 0 } text
            )
                list.Add(new(date.Name.LocalName, text));
        }
        if (host is not null)
            foreach (var date in host.Elements(Mods + "part").Elements(Mods + "date"))
                if (PlainText.Clean(date.Value) is { Length: > 0 } text)
                    printed.Add(new("part date", text));
        string? implausible = null;
        foreach (var group in new[] { key, issued, printed, copyright, created })
        {
            if (PublicationDate.Choose([.. group.Select(d => d.Text)]) is not { } date)
            {
                implausible ??= group.Count > 0 ? group[0].Text : null;
                continue;
            }
            if (implausible is not null)
                notes.Add(ReaderNotes.Implausible(implausible));
            if (date.Why is { } why)
                notes.Add(why);
            // What another date of the same year tells more precisely is told.
            if (printed.Count + key.Count > 0 && Finer(date, [.. printed, .. issued]) is { } finer)
                return finer;
            if (group.Count > 1 || implausible is not null)
                readings.Add(
                    new(
                        "date",
                        $"{group.First(d => d.Text == date.Written).Where} “{ReaderNotes.Brief(date.Written)}”",
                        date.Why ?? ""
                    )
                );
            return date;
        }
        if (implausible is not null)
            notes.Add(ReaderNotes.Implausible(implausible));
        return null;
    }

    private static PublicationDate? Finer(PublicationDate date, IEnumerable<Said> others) =>
        PublicationDate.Choose([.. others.Select(d => d.Text).Where(d => PublicationDate.ReadYear(d) == date.Year)])
            is { } finer
        && finer.Date.Length > date.Date.Length
            ? finer
            : null;

    /// <summary>The abstract in the language of the work; others, and remarks that are none.</summary>
    private static BareDescriptions AbstractsOf(
        XElement mods,
        string? language,
        List<string> notes,
        List<Reading> readings
    )
    {
        var all = mods.Elements(Mods + "abstract").ToArray();
        if (all.Length == 0)
            return new("", [], []);
        if (all is [var single])
        {
            var text = LongText(ElementText.Raw(single), "abstract", notes);
            var one = BareDescriptions.Of([new(text, null)], language);
            notes.AddRange(one.Remarks.Where(r => r.Length > 0).Select(ReaderNotes.NoAbstract));
            return one;
        }
        var cleaned = all.Select(a => new Described(
                LongText(ElementText.Raw(a), "abstract", notes),
                ElementText.LanguageOf(a)
            ))
            .Where(d => d.Text.Length > 0)
            .DistinctBy(d => d.Text)
            .ToArray();
        var sorted = BareDescriptions.Of(cleaned, language);
        notes.AddRange(sorted.Remarks.Take(6).Select(ReaderNotes.NoAbstract));
        if (cleaned.Length > 1 && sorted.Abstract.Length > 0)
            readings.Add(
                new(
                    "abstract",
                    $"abstract “{ReaderNotes.Brief(sorted.Abstract)}”",
                    $"Of {cleaned.Length} abstracts the longest that is running "
                        + $"text{(language is null ? "" : " in the language of the work")}."
                )
            );
        return sorted;
    }

    private static List<string> Contents(XElement mods) =>
        [
            .. mods.Elements(Mods + "tableOfContents")
                .SelectMany(t => t.Value.Split(" -- "))
                .Select(PlainText.Clean)
                .Where(t => t.Length > 0)
                .Concat(
                    mods.Elements(Mods + "relatedItem")
                        .Where(r => (string?)r.Attribute("type") == "constituent")
                        .Select(r => TitleIn(r.Element(Mods + "titleInfo")).Title)
                        .Where(t => t.Length > 0)
                )
                .Take(500),
        ];

    private static string? Isbn(XElement mods, XElement? host, List<string> notes)
    {
        foreach (
            var id in mods.Elements(Mods + "identifier")
                .Where(i => (string?)i.Attribute("type") == "isbn" && i.Value.Any(char.IsAsciiDigit))
        )
            notes.Add(ReaderNotes.WrongCheckDigit("ISBN", id.Value));
        return host
            ?.Elements(Mods + "identifier")
            .Where(i => (string?)i.Attribute("type") == "isbn")
            .Select(i => Identifiers.Isbn(i.Value))
            .FirstOrDefault(i => i is not null);
    }

    /// <summary>Number and name of a part, as titles of series have them: "Part 2, Larvae".</summary>
    private static string? PartOf(XElement info) =>
        NullIfEmpty(
            string.Join(
                ", ",
                info.Elements().Where(e => e.Name.LocalName is "partNumber" or "partName").Select(e => e.Value.Trim())
            )
        );

    private static DocumentType TypeOf(XElement mods) =>
        mods.Elements(Mods + "genre")
            .Concat(mods.Elements(Mods + "typeOfResource"))
            .Select(g => DocumentTypes.Read(g.Value))
            .FirstOrDefault(t => t != DocumentType.Other);

    private static VenuePart? VenueOf(XElement? host, List<string> notes)
    {
        if (host is null)
            return null;
        var title = PlainText.Clean(host.Element(Mods + "titleInfo")?.Element(Mods + "title")?.Value);
        if (title.Length == 0)
            return null;
        string? issn = null;
        foreach (var id in host.Elements(Mods + "identifier").Where(i => (string?)i.Attribute("type") == "issn"))
        {
            issn ??= Identifiers.Issn(id.Value);
            if (issn is null)
                notes.Add(ReaderNotes.WrongCheckDigit("ISSN", id.Value));
        }
        var part = host.Element(Mods + "part");
        string? Detail(string type) =>
            NullIfEmpty(
                PlainText.Clean(
                    part?.Elements(Mods + "detail")
                        .FirstOrDefault(d => (string?)d.Attribute("type") == type)
                        ?.Element(Mods + "number")
                        ?.Value
                )
            );
        var extent = part
            ?.Elements(Mods + "extent")
            .FirstOrDefault(e => (string?)e.Attribute("unit") is "page" or "pages" or null);
        var first = NullIfEmpty(PlainText.Clean(extent?.Element(Mods + "start")?.Value));
        var last = NullIfEmpty(PlainText.Clean(extent?.Element(Mods + "end")?.Value));
        if (first is not null && last is not null && last.Length < first.Length && last.All(char.IsAsciiDigit))
            last = first[..(first.Length - last.Length)] + last;
        return new(title, issn, Detail("volume"), Detail("issue") ?? Detail("number"), first, last);
    }

    private static string? Doi(XElement mods, List<string> notes)
    {
        foreach (
            var id in mods.Elements(Mods + "identifier").Where(i => (string?)i.Attribute("type") is "doi" or "uri")
        )
        {
            if (Identifiers.Doi(id.Value) is { } doi)
                return doi;
            if ((string?)id.Attribute("type") == "doi")
                notes.Add(ReaderNotes.NoDoi(id.Value));
        }
        return null;
    }

    private static string? DoiIn(XElement related) =>
        related.Elements(Mods + "identifier").Select(i => Identifiers.Doi(i.Value)).FirstOrDefault(d => d is not null);

    private static List<Reference> References(XElement mods)
    {
        var references = new List<Reference>();
        foreach (var related in mods.Elements(Mods + "relatedItem"))
            if ((string?)related.Attribute("type") == "references")
                references.Add(Structured(related));
        foreach (var note in mods.Elements(Mods + "note"))
            if (
                (string?)note.Attribute("type") == "citation/reference"
                && PlainText.Clean(note.Value) is { Length: > 0 } text
            )
                references.Add(PrintedReference.Read(text));
        return references;
    }

    /// <summary>
    /// A reference that a database has taken apart; its parts are looked at once, for there may be hundreds.
    /// </summary>
    private static Reference Structured(XElement related)
    {
        string? title = null,
            printed = null,
            doi = null;
        PersonName? person = null;
        int? year = null;
        foreach (var part in related.Elements())
        {
            if (part.Name.Namespace != Mods)
                continue;
            switch (part.Name.LocalName)
            {
                case "titleInfo":
                    title ??= NullIfEmpty(PlainText.Clean(part.Element(Mods + "title")?.Value));
                    break;
                case "name":
                    person ??= Person(part);
                    break;
                case "originInfo":
                    year ??= part.Elements(Mods + "dateIssued")
                        .Select(d => PublicationDate.ReadYear(d.Value))
                        .FirstOrDefault(y => y is not null);
                    break;
                case "note":
                    printed ??= PlainText.Clean(part.Value);
                    break;
                case "identifier":
                    doi ??= Identifiers.Doi(part.Value);
                    break;
            }
        }
        var text = printed is { Length: > 0 }
            ? printed
            : string.Join(
                ". ",
                new[]
                {
                    person?.Short.TrimEnd('.'),
                    year?.ToString(CultureInfo.InvariantCulture),
                    title,
                }.OfType<string>()
            );
        return new(text, doi, title, person?.Family, year);
    }

    private static List<Copy> Copies(XElement mods)
    {
        var copies = new List<Copy>();
        foreach (var location in mods.Elements(Mods + "location"))
        foreach (var url in location.Elements(Mods + "url"))
        {
            if (WebAddress.Of(url.Value) is not { } address)
                continue;
            var access = (string?)url.Attribute("note") switch
            {
                "free" => CopyAccess.Free,
                "closed" => CopyAccess.Closed,
                _ => CopyAccess.Unknown,
            };
            copies.Add(
                new(address.ToString(), access, WorkVersions.Read((string?)url.Attribute("displayLabel") ?? ""))
            );
        }
        return copies;
    }

    internal static string LongText(string? text, string what, List<string> notes)
    {
        if (text is not null && text.Length > PlainText.Longest)
            notes.Add(ReaderNotes.Cut(what, text.Length));
        return PlainText.Clean(text);
    }

    private static List<string> Values(IEnumerable<XElement> elements) =>
        [
            .. elements
                .Select(e => PlainText.Clean(e.Value))
                .Where(v => v.Length is > 0 and < 300)
                .Distinct(StringComparer.OrdinalIgnoreCase)
                .Take(200),
        ];

    private static string? NullIfEmpty(string text) => text.Length == 0 ? null : text;
}
