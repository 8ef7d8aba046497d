using System.Globalization;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads the front and the reference list of an article in JATS (ANSI/NISO Z39.96) or its older sisters, in whichever
/// namespace, into a <see cref="Record"/>. The body, where a service sends it, is left alone.
/// </summary>
public static class JatsReader
{
    private const int MostReferences = 5_000;

    /// <summary>Reads one <c>article</c>. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="article">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement article, string identifier, DateTimeOffset datestamp)
    {
        var draft = new RecordDraft();
        var front = Child(article, "front") ?? Child(article, "front-stub") ?? article;
        var meta = Child(front, "article-meta") ?? front;
        var (ownLanguage, kind) = (ElementText.LanguageOf(article), (string?)article.Attribute("article-type"));
        if ((string?)article.Attribute(XNamespace.Xml + "lang") is { Length: > 0 } language)
            draft.Languages.Add(language);
        if (kind is { Length: > 0 })
            draft.Types.Add(new("article-type", kind));
        draft.Types.AddRange(
            meta.Descendants()
                .Where(e =>
                    e.Name.LocalName == "subj-group" && (string?)e.Attribute("subj-group-type") is "heading" or null
                )
                .Elements()
                .Where(e => e.Name.LocalName == "subject")
                .Take(3)
                .Select(e => new Said("subject", ElementText.Of(e)))
        );
        // In JATS a plain article is one in a journal.
        draft.Types.Add(new("article", "article"));
        Titles(meta, draft);
        People(meta, draft);
        Dates(meta, draft);
        Venue(front, meta, draft);
        Numbers(meta, draft);
        foreach (var text in All(meta, "abstract").Concat(All(meta, "trans-abstract")))
            if (
                (string?)text.Attribute("abstract-type")
                is null
                    or "summary"
                    or "section"
                    or "structured"
                    or "executive-summary"
            )
                draft.Descriptions.Add(
                    new(
                        WithoutHeading(text),
                        ElementText.LanguageOf(text) ?? (text.Name.LocalName == "abstract" ? ownLanguage : null)
                    )
                );
        draft.Keywords.AddRange(
            All(meta, "kwd-group").Descendants().Where(e => e.Name.LocalName is "kwd").Select(ElementText.Of)
        );
        draft.Funders.AddRange(
            meta.Descendants()
                .Where(e => e.Name.LocalName == "funding-source")
                .Select(e =>
                    ElementText.Of(e.Descendants().FirstOrDefault(i => i.Name.LocalName == "institution") ?? e)
                )
        );
        Rights(meta, draft);
        References(article, draft);
        return draft.ToRecord(identifier, datestamp);
    }

    private static XElement? Child(XElement? parent, string name) =>
        parent?.Elements().FirstOrDefault(e => e.Name.LocalName == name);

    private static IEnumerable<XElement> All(XElement parent, string name) =>
        parent.Elements().Where(e => e.Name.LocalName == name);

    private static string? Text(XElement? parent, string name) =>
        ElementText.Of(Child(parent, name)) is { Length: > 0 } text ? text : null;

    private static void Titles(XElement meta, RecordDraft draft)
    {
        var group = Child(meta, "title-group") ?? meta;
        var title = Text(group, "article-title") ?? "";
        if (Text(group, "subtitle") is { } sub && title.Length > 0)
            title = title.EndsWith('?') || title.EndsWith('!') ? $"{title} {sub}" : $"{title}: {sub}";
        if (title.Length > 0)
            draft.Titles.Add(title);
        draft.Titles.AddRange(
            group
                .Descendants()
                .Where(e =>
                    e.Name.LocalName == "trans-title"
                    || (
                        e.Name.LocalName == "alt-title"
                        && (string?)e.Attribute("alt-title-type")
                            is not ("running-head" or "right-running" or "left-running" or "short")
                    )
                )
                .Select(ElementText.Of)
        );
    }

    private static void People(XElement meta, RecordDraft draft)
    {
        var places = meta.Descendants()
            .Where(e => e.Name.LocalName == "aff" && e.Attribute("id") is not null)
            .GroupBy(e => (string)e.Attribute("id")!)
            .ToDictionary(g => g.Key, g => PlaceIn(g.First()));
        foreach (var contributor in All(meta, "contrib-group").Elements().Where(e => e.Name.LocalName == "contrib"))
        {
            var kind = ((string?)contributor.Attribute("contrib-type") ?? "author").ToLowerInvariant();
            var isEditor = kind is "editor" or "guest-editor" or "volume-editor";
            if (!isEditor && kind is not ("author" or "person" or "collab" or "group" or "corresp"))
                continue;
            // An article's editor handled it; only a book's put it together.
            if (isEditor)
                continue;
            if (Name(contributor, places) is { } person)
                draft.People.Add(person);
        }
    }

    private static PersonName? Name(XElement contributor, Dictionary<string, string> places)
    {
        var name =
            Child(contributor, "name")
            ?? Child(Child(contributor, "name-alternatives"), "name")
            ?? Child(contributor, "string-name")
            ?? Child(Child(contributor, "name-alternatives"), "string-name");
        var body = Child(contributor, "collab") ?? Child(Child(contributor, "collab-alternatives"), "collab");
        var (family, given) = Parts(name);
        if (family.Length == 0 && body is not null)
            // The members of a group stand inside it; the group is the author.
            (family, given) = (
                PlainText.Clean(string.Concat(body.Nodes().OfType<XText>().Select(t => t.Value))) is { Length: > 0 } own
                    ? own
                    : Text(body, "institution") ?? Text(body, "named-content") ?? "",
                ""
            );
        if (family.Length == 0)
            return null;
        var orcid = contributor
            .Elements()
            .Where(e => e.Name.LocalName is "contrib-id" or "ext-link" or "uri")
            .Select(e =>
                Identifiers.Orcid(e.Value)
                ?? e.Attributes().Select(a => Identifiers.Orcid(a.Value)).FirstOrDefault(o => o is not null)
            )
            .FirstOrDefault(o => o is not null);
        var place = Child(contributor, "aff") is { } own2
            ? PlaceIn(own2)
            : contributor
                .Elements()
                .Where(e => e.Name.LocalName == "xref" && (string?)e.Attribute("ref-type") == "aff")
                .SelectMany(e => ((string?)e.Attribute("rid") ?? "").Split(' '))
                .Select(places.GetValueOrDefault)
                .FirstOrDefault(p => p is { Length: > 0 });
        return new(family, given, orcid, place is { Length: > 0 } ? place : null);
    }

    private static (string Family, string Given) Parts(XElement? name)
    {
        if (name is null)
            return ("", "");
        var (family, given) = (
            Text(name, "surname") ?? "",
            Text(name, "given-names") ?? Text(name, "given-name") ?? ""
        );
        if (family.Length == 0)
            return given.Length > 0 ? (given, "") : NameLists.SplitOne(ElementText.Of(name));
        return (
            Text(name, "prefix") is { } particle && char.IsLower(particle[0]) ? $"{particle} {family}" : family,
            given
        );
    }

    /// <summary>An affiliation without its mark.</summary>
    private static string PlaceIn(XElement place)
    {
        var copy = new XElement(place);
        foreach (
            var mark in copy.Descendants()
                .Where(e => e.Name.LocalName is "label" or "institution-id" or "email")
                .ToArray()
        )
            mark.Remove();
        if (copy.Elements().FirstOrDefault(e => e.Name.LocalName == "sup") is { } sign && copy.FirstNode == sign)
            sign.Remove();
        return ElementText.Of(copy).Trim(' ', ',', ';', '.');
    }

    /// <summary>
    /// Dates of publication, the first of them on paper or on screen; those of receipt, acceptance and collection stand
    /// behind.
    /// </summary>
    private static void Dates(XElement meta, RecordDraft draft)
    {
        foreach (var date in All(meta, "pub-date"))
        {
            var kind = (
                (string?)date.Attribute("pub-type") ?? (string?)date.Attribute("date-type") ?? ""
            ).ToLowerInvariant();
            if (Written(date) is not { Length: > 0 } text)
                continue;
            (
                kind is "collection" or "pmc-release" or "nihms-submitted" or "retracted" or "corrected" or "preprint"
                    ? draft.LesserDates
                    : draft.Dates
            ).Add(new(kind.Length > 0 ? $"pub-date ({kind})" : "pub-date", text));
        }
        foreach (
            var date in meta.Descendants()
                .Where(e => e.Name.LocalName == "date" && e.Parent?.Name.LocalName == "history")
        )
            if ((string?)date.Attribute("date-type") is "pub" or "accepted" && Written(date) is { Length: > 0 } text)
                draft.LesserDates.Add(new("history", text));
        if (Text(Child(meta, "permissions"), "copyright-year") is { } year)
            draft.LesserDates.Add(new("copyright-year", year));
    }

    private static string? Written(XElement date)
    {
        if ((string?)date.Attribute("iso-8601-date") is { Length: > 0 } iso)
            return iso;
        if (Text(date, "year") is not { } year)
            return Text(date, "string-date");
        var (month, day) = (Text(date, "month"), Text(date, "day"));
        if (month is null)
            return year;
        if (!int.TryParse(month, NumberStyles.None, CultureInfo.InvariantCulture, out var m))
            return $"{month} {year}";
        return int.TryParse(day, NumberStyles.None, CultureInfo.InvariantCulture, out var d)
            ? string.Create(CultureInfo.InvariantCulture, $"{year}-{m:00}-{d:00}")
            : string.Create(CultureInfo.InvariantCulture, $"{year}-{m:00}");
    }

    private static void Venue(XElement front, XElement meta, RecordDraft draft)
    {
        var journal = Child(front, "journal-meta");
        var title =
            Text(Child(journal, "journal-title-group"), "journal-title")
            ?? Text(journal, "journal-title")
            ?? Text(Child(journal, "journal-title-group"), "abbrev-journal-title")
            ?? Text(journal, "abbrev-journal-title")
            ?? Text(Child(meta, "conference"), "conf-name");
        draft.Publisher = Text(Child(journal, "publisher"), "publisher-name");
        if (title is null)
            return;
        var first = Text(meta, "fpage") ?? Text(meta, "elocation-id");
        draft.Venue = new(
            title,
            journal
                ?.Elements()
                .Where(e => e.Name.LocalName is "issn-l" or "issn")
                .OrderByDescending(e => e.Name.LocalName == "issn-l")
                .Select(e => Identifiers.Issn(e.Value))
                .FirstOrDefault(i => i is not null),
            Text(meta, "volume"),
            Text(meta, "issue"),
            first,
            Text(meta, "fpage") is null ? first : Text(meta, "lpage") ?? first
        );
    }

    private static void Numbers(XElement meta, RecordDraft draft)
    {
        foreach (var id in All(meta, "article-id"))
            if (((string?)id.Attribute("pub-id-type"))?.ToLowerInvariant() is "doi" or "handle" or "ark" or "urn")
                draft.Identifiers.Add(
                    (string?)id.Attribute("pub-id-type") is "handle" && Identifiers.Handle(id.Value) is null
                        ? $"hdl:{id.Value.Trim()}"
                        : id.Value.Trim()
                );
        foreach (var link in All(meta, "self-uri"))
            if (
                link.Attributes().FirstOrDefault(a => a.Name.LocalName == "href")?.Value is { } address
                && Uri.TryCreate(address, UriKind.Absolute, out var uri)
                && uri.Scheme is "http" or "https"
            )
                draft.Copies.Add(new(uri!.ToString(), CopyAccess.Unknown));
        foreach (var related in All(meta, "related-article"))
        {
            var kind = (string?)related.Attribute("related-article-type") ?? "";
            var doi = Identifiers.Doi(related.Attributes().FirstOrDefault(a => a.Name.LocalName == "href")?.Value);
            if (doi is null)
                continue;
            if (kind is "preprint" or "alt-language" or "companion-preprint")
                draft.Relations.Add($"isVersionOf: {doi}");
            else if (
                kind
                is "corrected-article"
                    or "retracted-article"
                    or "commentary-article"
                    or "letter"
                    or "object-of-concern"
                    or "article-reference"
            )
                draft.Related.Add(new("original", null, doi));
        }
    }

    private static void Rights(XElement meta, RecordDraft draft)
    {
        foreach (var licence in meta.Descendants().Where(e => e.Name.LocalName == "license"))
        {
            draft.Rights.AddRange(
                licence
                    .DescendantsAndSelf()
                    .SelectMany(e => e.Attributes().Where(a => a.Name.LocalName == "href").Select(a => a.Value))
            );
            draft.Rights.AddRange(
                licence.Descendants().Where(e => e.Name.LocalName == "license_ref").Select(e => e.Value.Trim())
            );
            if ((string?)licence.Attribute("license-type") is "open-access" or "OpenAccess")
                draft.Rights.Add("open access");
            draft.Rights.Add(ElementText.Of(licence));
        }
        if (meta.Descendants().Any(e => e.Name.LocalName == "free_to_read"))
            draft.Rights.Add("open access");
    }

    /// <summary>An abstract without the word "Abstract" above it.</summary>
    private static string WithoutHeading(XElement text)
    {
        if (Child(text, "title") is not { } heading)
            return ElementText.Raw(text);
        var copy = new XElement(text);
        copy.Elements().First(e => e.Name.LocalName == "title").Remove();
        return ElementText.Of(heading).Length < 30 ? ElementText.Raw(copy) : ElementText.Raw(text);
    }

    private static void References(XElement article, RecordDraft draft)
    {
        var list = article
            .Elements()
            .Where(e => e.Name.LocalName is "back" or "front")
            .Descendants()
            .Where(e => e.Name.LocalName == "ref")
            .Take(MostReferences);
        foreach (var entry in list)
        {
            var citation = entry
                .Descendants()
                .FirstOrDefault(e =>
                    e.Name.LocalName is "element-citation" or "mixed-citation" or "citation" or "nlm-citation"
                );
            if (citation is not null)
                draft.References.Add(ReferenceIn(citation));
            else if (ElementText.Of(entry) is { Length: > 0 } text)
                draft.References.Add(PrintedReference.Read(text));
        }
    }

    private static Reference ReferenceIn(XElement citation)
    {
        // What stands between the parts makes a printed reference; parts alone do not.
        var isPrinted =
            citation.Name.LocalName == "mixed-citation"
            || citation.Nodes().OfType<XText>().Any(t => t.Value.Trim().Length > 0);
        var printed = isPrinted ? ElementText.AsPrinted(citation) : "";
        var doi = citation
            .Descendants()
            .Where(e => e.Name.LocalName is "pub-id" or "ext-link" or "uri" or "comment")
            .Select(e =>
                Identifiers.Doi(e.Value)
                ?? e.Attributes()
                    .Select(a => a.Name.LocalName == "href" ? Identifiers.Doi(a.Value) : null)
                    .FirstOrDefault(d => d is not null)
            )
            .FirstOrDefault(d => d is not null);
        var title = Text(citation, "article-title") ?? Text(citation, "chapter-title") ?? Text(citation, "data-title");
        var source = Text(citation, "source");
        var first = citation.Descendants().FirstOrDefault(e => e.Name.LocalName is "name" or "string-name" or "collab");
        var family =
            first is null ? null
            : first.Name.LocalName == "collab" ? ElementText.Of(first)
            : Parts(first).Family;
        var year = Text(citation, "year") is { } y ? PublicationDate.ReadYear(y) : null;
        if (printed.Length > 0)
        {
            var read = PrintedReference.Read(printed);
            return new(printed, doi ?? read.Doi, title ?? read.Title, family ?? read.FirstPerson, year ?? read.Year);
        }
        var text = string.Join(
            ". ",
            new[]
            {
                first is null ? null : ElementText.Of(first),
                year?.ToString(CultureInfo.InvariantCulture),
                title,
                source,
                Text(citation, "volume"),
                Text(citation, "fpage"),
            }.OfType<string>()
        );
        return new(text.Length > 0 ? text : ElementText.Of(citation), doi, title ?? source, family, year);
    }
}
