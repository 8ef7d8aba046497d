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
        var front = article.Part("front") ?? article.Part("front-stub") ?? article;
        var meta = front.Part("article-meta") ?? front;
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
        foreach (var text in meta.Parts("abstract").Concat(meta.Parts("trans-abstract")))
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
            meta.Parts("kwd-group").Descendants().Where(e => e.Name.LocalName is "kwd").Select(ElementText.Of)
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

    private static void Titles(XElement meta, RecordDraft draft)
    {
        var group = meta.Part("title-group") ?? meta;
        var title = group.TextOf("article-title") ?? "";
        if (title.Length > 0)
            draft.Titles.Add(TitleText.With(title, group.TextOf("subtitle")));
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
        var affiliations = meta.Descendants()
            .Where(e => e.Name.LocalName == "aff" && e.Attribute("id") is not null)
            .GroupBy(e => (string)e.Attribute("id")!)
            .ToDictionary(g => g.Key, g => AffiliationIn(g.First()));
        foreach (var contributor in meta.Parts("contrib-group").Elements().Where(e => e.Name.LocalName == "contrib"))
        {
            // An article's editor handled it and put nothing together, so authors alone are named.
            var kind = ((string?)contributor.Attribute("contrib-type") ?? "author").ToLowerInvariant();
            if (
                kind is "author" or "person" or "collab" or "group" or "corresp"
                && Name(contributor, affiliations) is { } person
            )
                draft.People.Add(person);
        }
    }

    private static PersonName? Name(XElement contributor, Dictionary<string, string> affiliations)
    {
        var name =
            contributor.Part("name")
            ?? contributor.Part("name-alternatives").Part("name")
            ?? contributor.Part("string-name")
            ?? contributor.Part("name-alternatives").Part("string-name");
        var body = contributor.Part("collab") ?? contributor.Part("collab-alternatives").Part("collab");
        var (family, given) = Parts(name);
        if (family.Length == 0 && body is not null)
            // The members of a group stand inside it; the group is the author.
            (family, given) = (
                PlainText.Clean(string.Concat(body.Nodes().OfType<XText>().Select(t => t.Value))) is { Length: > 0 } own
                    ? own
                    : body.TextOf("institution") ?? body.TextOf("named-content") ?? "",
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
        var affiliation = contributor.Part("aff") is { } beside
            ? AffiliationIn(beside)
            : contributor
                .Elements()
                .Where(e => e.Name.LocalName == "xref" && (string?)e.Attribute("ref-type") == "aff")
                .SelectMany(e => ((string?)e.Attribute("rid") ?? "").Split(' '))
                .Select(affiliations.GetValueOrDefault)
                .FirstOrDefault(p => p is { Length: > 0 });
        return new(family, given, orcid, affiliation is { Length: > 0 } ? affiliation : null);
    }

    private static (string Family, string Given) Parts(XElement? name)
    {
        if (name is null)
            return ("", "");
        var (family, given) = (
            name.TextOf("surname") ?? "",
            name.TextOf("given-names") ?? name.TextOf("given-name") ?? ""
        );
        if (family.Length == 0)
            return given.Length > 0 ? (given, "") : NameLists.SplitOne(ElementText.Of(name));
        return (
            name.TextOf("prefix") is { } particle && char.IsLower(particle[0]) ? $"{particle} {family}" : family,
            given
        );
    }

    /// <summary>An affiliation without its mark.</summary>
    private static string AffiliationIn(XElement affiliation)
    {
        var copy = new XElement(affiliation);
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
        foreach (var date in meta.Parts("pub-date"))
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
        if (meta.Part("permissions").TextOf("copyright-year") is { } year)
            draft.LesserDates.Add(new("copyright-year", year));
    }

    private static string? Written(XElement date)
    {
        if ((string?)date.Attribute("iso-8601-date") is { Length: > 0 } iso)
            return iso;
        if (date.TextOf("year") is not { } year)
            return date.TextOf("string-date");
        var (month, day) = (date.TextOf("month"), date.TextOf("day"));
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
        var journal = front.Part("journal-meta");
        var title =
            journal.Part("journal-title-group").TextOf("journal-title")
            ?? journal.TextOf("journal-title")
            ?? journal.Part("journal-title-group").TextOf("abbrev-journal-title")
            ?? journal.TextOf("abbrev-journal-title")
            ?? meta.Part("conference").TextOf("conf-name");
        draft.Publisher = journal.Part("publisher").TextOf("publisher-name");
        if (title is null)
            return;
        var first = meta.TextOf("fpage") ?? meta.TextOf("elocation-id");
        draft.Venue = new(
            title,
            journal
                ?.Elements()
                .Where(e => e.Name.LocalName is "issn-l" or "issn")
                .OrderByDescending(e => e.Name.LocalName == "issn-l")
                .Select(e => Identifiers.Issn(e.Value))
                .FirstOrDefault(i => i is not null),
            meta.TextOf("volume"),
            meta.TextOf("issue"),
            first,
            meta.TextOf("fpage") is null ? first : meta.TextOf("lpage") ?? first
        );
    }

    private static void Numbers(XElement meta, RecordDraft draft)
    {
        foreach (var id in meta.Parts("article-id"))
            if (((string?)id.Attribute("pub-id-type"))?.ToLowerInvariant() is "doi" or "handle" or "ark" or "urn")
                draft.Identifiers.Add(
                    (string?)id.Attribute("pub-id-type") is "handle" && Identifiers.Handle(id.Value) is null
                        ? $"hdl:{id.Value.Trim()}"
                        : id.Value.Trim()
                );
        foreach (var link in meta.Parts("self-uri"))
            if (WebAddress.Of(link.Told("href")) is { } address)
                draft.Copies.Add(new(address.ToString(), CopyAccess.Unknown));
        foreach (var related in meta.Parts("related-article"))
        {
            var kind = (string?)related.Attribute("related-article-type") ?? "";
            var doi = Identifiers.Doi(related.Told("href"));
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
        // NISO RP-22-2015: free to read, from a day on where one is told.
        foreach (var free in meta.Descendants().Where(e => e.Name.LocalName == "free_to_read"))
            draft.Rights.Add(free.Told("start_date") is { Length: > 0 } day ? EmbargoEnd.Said(day) : "open access");
    }

    /// <summary>An abstract without the word "Abstract" above it.</summary>
    private static string WithoutHeading(XElement text)
    {
        if (text.Part("title") is not { } heading)
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
        var title =
            citation.TextOf("article-title") ?? citation.TextOf("chapter-title") ?? citation.TextOf("data-title");
        var source = citation.TextOf("source");
        var first = citation.Descendants().FirstOrDefault(e => e.Name.LocalName is "name" or "string-name" or "collab");
        var family =
            first is null ? null
            : first.Name.LocalName == "collab" ? ElementText.Of(first)
            : Parts(first).Family;
        var year = citation.TextOf("year") is { } y ? PublicationDate.ReadYear(y) : null;
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
                citation.TextOf("volume"),
                citation.TextOf("fpage"),
            }.OfType<string>()
        );
        return new(text.Length > 0 ? text : ElementText.Of(citation), doi, title ?? source, family, year);
    }
}
