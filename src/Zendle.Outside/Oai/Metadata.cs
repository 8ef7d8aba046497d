using System.Globalization;
using System.Xml.Linq;
using Zendle.Outside.World;
using Zendle.Outside.World.Databases;

namespace Zendle.Outside.Oai;

/// <summary>Writes entries as MODS 3.8 and as Dublin Core.</summary>
public static class Metadata
{
    /// <summary>MODS namespace.</summary>
    public static readonly XNamespace M = "http://www.loc.gov/mods/v3";
    internal static readonly XNamespace Dc = "http://purl.org/dc/elements/1.1/";
    private static readonly XNamespace OaiDc = "http://www.openarchives.org/OAI/2.0/oai_dc/";
    internal static readonly XNamespace Xsi = "http://www.w3.org/2001/XMLSchema-instance";

    /// <summary>MODS 3.8.</summary>
    public static XElement Mods(Entry e, OutsideDatabase database, string host)
    {
        var w = e.Work;
        var mods = new XElement(
            M + "mods",
            new XAttribute("version", "3.8"),
            new XAttribute(
                Xsi + "schemaLocation",
                "http://www.loc.gov/mods/v3 http://www.loc.gov/standards/mods/v3/mods-3-8.xsd"
            ),
            new XElement(M + "titleInfo", new XElement(M + "title", e.Title)),
            e.OtherTitle is null
                ? null
                : new XElement(
                    M + "titleInfo",
                    new XAttribute("type", "alternative"),
                    new XAttribute("lang", w.Language),
                    new XElement(M + "title", e.OtherTitle)
                )
        );
        foreach (var p in e.People)
            mods.Add(Name(p, e.Names, w.Type == "book" && e.People.Count > 1 ? "edt" : "aut"));
        mods.Add(new XElement(M + "genre", e.Type));
        mods.Add(
            new XElement(
                M + "originInfo",
                Publisher(w) is { } publisher ? new XElement(M + "publisher", publisher) : null,
                e.Date is null
                    ? new XElement(
                        M + "dateIssued",
                        new XAttribute("encoding", "w3cdtf"),
                        e.Year.ToString(CultureInfo.InvariantCulture)
                    )
                    : new XElement(M + "dateIssued", e.Date),
                Embargo(e, (day, _) => new XElement(M + "dateOther", new XAttribute("type", "embargoEnd"), day))
            ),
            Embargo(
                e,
                (_, rights) =>
                    new XElement(M + "accessCondition", new XAttribute("type", "restriction on access"), rights)
            )
        );
        mods.Add(
            new XElement(
                M + "language",
                new XElement(
                    M + "languageTerm",
                    new XAttribute("type", "code"),
                    new XAttribute("authority", "iso639-2b"),
                    w.Language
                )
            )
        );
        if (e.Abstract.Length > 0)
            mods.Add(new XElement(M + "abstract", e.Abstract));
        if (e.Contents.Length > 0)
            mods.Add(new XElement(M + "tableOfContents", string.Join(" -- ", e.Contents)));
        foreach (var k in e.Keywords)
            mods.Add(new XElement(M + "subject", new XElement(M + "topic", k)));
        // A thesaurus has terms; a subject area is a class.
        foreach (var k in e.Descriptors)
            mods.Add(
                e.Vocabulary == "lifeleaf"
                    ? new XElement(
                        M + "subject",
                        new XAttribute("authority", e.Vocabulary),
                        new XElement(M + "topic", k)
                    )
                    : new XElement(M + "classification", new XAttribute("authority", e.Vocabulary), k)
            );
        if (e.Vocabulary == "lifeleaf")
            mods.Add(
                new XElement(
                    M + "subject",
                    new XAttribute("authority", "lifeleaf"),
                    new XElement(M + "geographic", w.Study.Country)
                )
            );
        if (e.Doi is not null)
            mods.Add(new XElement(M + "identifier", new XAttribute("type", "doi"), e.Doi));
        if (e.Isbn is not null && w.Type == "book")
            mods.Add(new XElement(M + "identifier", new XAttribute("type", "isbn"), e.Isbn));
        if (e.Own is { } own)
            mods.Add(new XElement(M + "identifier", new XAttribute("type", own.Kind), own.Number));
        if (w.Funder is not null && !e.OnlyCited)
            mods.Add(new XElement(M + "note", new XAttribute("type", "funding"), w.Funder));
        if (e.Version is not null)
            mods.Add(new XElement(M + "note", new XAttribute("type", "version"), e.Version));
        if (e.Venue is not null && e.Version != "preprint")
            mods.Add(Host(e, w));
        if (e.OtherVersion is not null)
            mods.Add(Related("otherVersion", null, e.OtherVersion));
        if (w.About >= 0 && !e.OnlyCited)
            mods.Add(Related("preceding", database.Works[w.About].Title, database.Works[w.About].Doi));
        foreach (var (place, cited) in e.References)
            if (Reference(e, place, cited < 0 ? null : database.Works[cited], database.Noise) is { } reference)
                mods.Add(reference);
        foreach (var (path, access, version) in e.Copies)
            mods.Add(
                new XElement(
                    M + "location",
                    new XElement(
                        M + "url",
                        new XAttribute("note", access),
                        new XAttribute("displayLabel", version),
                        host + path
                    )
                )
            );
        if (e.OnlyCited)
            mods.Add(new XElement(M + "recordInfo", new XElement(M + "recordOrigin", "derived from reference lists")));
        if (e.Cited is { } count)
            mods.Add(new XElement(M + "extension", new XElement("citedCount", count)));
        return mods;
    }

    /// <summary>Dublin Core as every repository has it.</summary>
    public static XElement DublinCore(Entry e, string host) =>
        Bare(
            new XElement(Dc + "title", e.Title),
            e.People.Select(p => new XElement(Dc + "creator", $"{p.Family}, {p.Given}")),
            e.Keywords.Concat(e.Descriptors).Select(k => new XElement(Dc + "subject", k)),
            e.Abstract.Length > 0 ? new XElement(Dc + "description", e.Abstract) : null,
            new XElement(Dc + "date", e.Year),
            new XElement(Dc + "type", e.Type),
            new XElement(Dc + "language", e.Work.Language),
            e.Venue is null ? null : new XElement(Dc + "source", e.Venue),
            e.Doi is null ? null : new XElement(Dc + "identifier", "doi:" + e.Doi),
            e.Copies.Select(c => new XElement(Dc + "identifier", host + c.Path)),
            Embargo(e, (_, rights) => new XElement(Dc + "rights", rights)),
            Embargo(e, (day, _) => new XElement(Dc + "date", $"info:eu-repo/date/embargoEnd/{day}"))
        );

    /// <summary>What tells of an embargo; null for none. The guidelines of OpenAIRE have words for it.</summary>
    private static XElement? Embargo(Entry e, Func<string, string, XElement> told) =>
        e.OpensOn is { } day
            ? told(day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture), "info:eu-repo/semantics/embargoedAccess")
            : null;

    /// <summary>Some elements of Dublin Core in the container that the protocol has for them.</summary>
    internal static XElement Bare(params object?[] elements) =>
        new(
            OaiDc + "dc",
            new XAttribute(XNamespace.Xmlns + "oai_dc", OaiDc),
            new XAttribute(XNamespace.Xmlns + "dc", Dc),
            new XAttribute(Xsi + "schemaLocation", $"{OaiDc} http://www.openarchives.org/OAI/2.0/oai_dc.xsd"),
            elements
        );

    /// <summary>
    /// What stands in a record for one reference; null for one that the database's way of giving references cannot
    /// tell.
    /// </summary>
    private static XElement? Reference(Entry e, int place, Work? cited, double noise) =>
        e.ReferencesAs switch
        {
            ReferenceForm.Printed => new(
                M + "note",
                new XAttribute("type", "citation/reference"),
                PrintedReferences.Of(e.Work, place, cited, noise)
            ),
            ReferenceForm.Parts when cited is not null => new(
                M + "relatedItem",
                new XAttribute("type", "references"),
                new XElement(M + "titleInfo", new XElement(M + "title", cited.Translated ?? cited.Title)),
                Name(cited.People[0], NameForm.Initials, "aut"),
                new XElement(M + "originInfo", new XElement(M + "dateIssued", cited.Year)),
                cited.Doi is null || (e.Work.Id + place) % 5 == 0
                    ? null
                    : new XElement(M + "identifier", new XAttribute("type", "doi"), cited.Doi)
            ),
            ReferenceForm.Parts => new(
                M + "note",
                new XAttribute("type", "citation/reference"),
                PrintedReferences.Of(e.Work, place, null, noise)
            ),
            ReferenceForm.Dois when cited?.Doi is { } doi => Related("references", null, doi),
            _ => null,
        };

    private static XElement Host(Entry e, Work w)
    {
        var numbered = w.Journal is not null || w.Type == "conference paper";
        return new(
            M + "relatedItem",
            new XAttribute("type", w.Type == "book" ? "series" : "host"),
            new XElement(M + "titleInfo", new XElement(M + "title", e.Venue)),
            w.Journal is null || e.OnlyCited
                ? null
                : new XElement(M + "identifier", new XAttribute("type", "issn"), w.Journal.Issn),
            w.Book is null || e.Isbn is null
                ? null
                : new XElement(M + "identifier", new XAttribute("type", "isbn"), e.Isbn),
            w.Type == "book"
                ? null
                : new XElement(
                    M + "part",
                    numbered ? Detail("volume", w.Volume) : null,
                    w.Journal is null ? null : Detail("issue", w.Issue),
                    e.NoPages
                        ? null
                        : new XElement(
                            M + "extent",
                            new XAttribute("unit", "page"),
                            new XElement(M + "start", w.FirstPage),
                            new XElement(M + "end", w.LastPage)
                        )
                )
        );
    }

    private static string? Publisher(Work w) =>
        w.Journal?.Publisher ?? w.Publisher ?? (w.Type is "thesis" or "report" ? w.People[0].Institute : null);

    private static XElement Related(string type, string? title, string? doi) =>
        new(
            M + "relatedItem",
            new XAttribute("type", type),
            title is null ? null : new XElement(M + "titleInfo", new XElement(M + "title", title)),
            doi is null ? null : new XElement(M + "identifier", new XAttribute("type", "doi"), doi)
        );

    private static XElement Name(Signature p, NameForm form, string role)
    {
        var initials = p
            .Given.Split(' ')
            .Select(g => string.Join('-', g.Split('-').Select(x => x[..1] + ".")))
            .ToArray();
        var name = new XElement(M + "name", new XAttribute("type", "personal"));
        switch (form)
        {
            case NameForm.Whole:
                name.Add(new XElement(M + "namePart", $"{p.Given} {p.Family}"));
                break;
            case NameForm.Catalogue:
                name.Add(
                    new XElement(
                        M + "namePart",
                        string.Create(CultureInfo.InvariantCulture, $"{p.Family}, {p.Given}, {p.Person.From - 26}-")
                    )
                );
                break;
            default:
                name.Add(
                    new XElement(
                        M + "namePart",
                        new XAttribute("type", "family"),
                        form == NameForm.Bare ? Slips.Plain(p.Family) : p.Family
                    )
                );
                name.Add(
                    new XElement(
                        M + "namePart",
                        new XAttribute("type", "given"),
                        form switch
                        {
                            NameForm.Full => p.Given,
                            NameForm.Bare => Slips.Plain(initials[0]),
                            _ => string.Join(' ', initials),
                        }
                    )
                );
                break;
        }
        if (form == NameForm.Full)
        {
            if (p.Orcid is not null)
                name.Add(new XElement(M + "nameIdentifier", new XAttribute("type", "orcid"), p.Orcid));
            name.Add(new XElement(M + "affiliation", p.Institute));
        }
        name.Add(
            new XElement(
                M + "role",
                new XElement(
                    M + "roleTerm",
                    new XAttribute("type", "code"),
                    new XAttribute("authority", "marcrelator"),
                    role
                )
            )
        );
        return name;
    }

    private static XElement Detail(string type, int number) =>
        new(M + "detail", new XAttribute("type", type), new XElement(M + "number", number));
}
