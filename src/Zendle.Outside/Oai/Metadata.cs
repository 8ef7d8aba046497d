using System.Globalization;
using System.Xml.Linq;
using Zendle.Outside.World;

namespace Zendle.Outside.Oai;

/// <summary>Writes entries as MODS 3.8 and as Dublin Core.</summary>
public static class Metadata
{
    /// <summary>MODS namespace.</summary>
    public static readonly XNamespace M = "http://www.loc.gov/mods/v3";
    private static readonly XNamespace Dc = "http://purl.org/dc/elements/1.1/";
    private static readonly XNamespace OaiDc = "http://www.openarchives.org/OAI/2.0/oai_dc/";
    private static readonly XNamespace Xsi = "http://www.w3.org/2001/XMLSchema-instance";

    /// <summary>MODS 3.8.</summary>
    public static XElement Mods(Entry e, string host)
    {
        var w = e.Work;
        var mods = new XElement(M + "mods", new XAttribute("version", "3.8"), new XAttribute(Xsi + "schemaLocation", "http://www.loc.gov/mods/v3 http://www.loc.gov/standards/mods/v3/mods-3-8.xsd"),
            new XElement(M + "titleInfo", new XElement(M + "title", e.Title)));
        foreach (var p in e.People) mods.Add(Name(p, e.InitialsOnly));
        mods.Add(new XElement(M + "genre", e.Type));
        mods.Add(new XElement(M + "originInfo",
            w.Journal is null ? (w.Type is "thesis" or "report" ? new XElement(M + "publisher", w.People[0].Institute) : null) : new XElement(M + "publisher", w.Journal.Publisher),
            new XElement(M + "dateIssued", new XAttribute("encoding", "w3cdtf"), e.Year.ToString(CultureInfo.InvariantCulture))));
        mods.Add(new XElement(M + "language", new XElement(M + "languageTerm", new XAttribute("type", "code"), new XAttribute("authority", "iso639-2b"), w.Language)));
        if (e.Abstract.Length > 0) mods.Add(new XElement(M + "abstract", e.Abstract));
        foreach (var k in e.Keywords) mods.Add(new XElement(M + "subject", new XElement(M + "topic", k)));
        if (e.Subject is not null) mods.Add(new XElement(M + "subject", new XAttribute("authority", "local"), new XElement(M + "topic", e.Subject)));
        if (e.Doi is not null) mods.Add(new XElement(M + "identifier", new XAttribute("type", "doi"), e.Doi));
        if (w.Funder is not null) mods.Add(new XElement(M + "note", new XAttribute("type", "funding"), w.Funder));
        if (e.Version is not null) mods.Add(new XElement(M + "note", new XAttribute("type", "version"), e.Version));
        if (w.Journal is not null && e.Version != "preprint")
            mods.Add(new XElement(M + "relatedItem", new XAttribute("type", "host"), new XElement(M + "titleInfo", new XElement(M + "title", w.Journal.Title)),
                new XElement(M + "identifier", new XAttribute("type", "issn"), w.Journal.Issn),
                new XElement(M + "part", Detail("volume", w.Volume), Detail("issue", w.Issue),
                    e.NoPages ? null : new XElement(M + "extent", new XAttribute("unit", "page"), new XElement(M + "start", w.FirstPage), new XElement(M + "end", w.LastPage)))));
        if (e.OtherVersion is not null)
            mods.Add(new XElement(M + "relatedItem", new XAttribute("type", "otherVersion"), new XElement(M + "identifier", new XAttribute("type", "doi"), e.OtherVersion)));
        for (var i = 0; i < e.References.Count; i++) mods.Add(e.PrintedReferences
            ? new XElement(M + "note", new XAttribute("type", "citation/reference"), DatabaseViews.Printed(e.References[i], w.Id + i * 7))
            : Reference(e.References[i]));
        foreach (var (path, access, version) in e.Copies)
            mods.Add(new XElement(M + "location", new XElement(M + "url", new XAttribute("note", access), new XAttribute("displayLabel", version), host + path)));
        if (e.Cited is { } cited) mods.Add(new XElement(M + "extension", new XElement("citedCount", cited)));
        return mods;
    }

    /// <summary>Dublin Core as every repository has it.</summary>
    public static XElement DublinCore(Entry e, string host) => new(OaiDc + "dc",
        new XAttribute(XNamespace.Xmlns + "oai_dc", OaiDc), new XAttribute(XNamespace.Xmlns + "dc", Dc),
        new XElement(Dc + "title", e.Title), e.People.Select(p => new XElement(Dc + "creator", $"{p.Family}, {p.Given}")),
        e.Keywords.Select(k => new XElement(Dc + "subject", k)), e.Abstract.Length > 0 ? new XElement(Dc + "description", e.Abstract) : null,
        new XElement(Dc + "date", e.Year), new XElement(Dc + "type", e.Type), new XElement(Dc + "language", e.Work.Language),
        e.Work.Journal is null ? null : new XElement(Dc + "source", e.Work.Journal.Title),
        e.Doi is null ? null : new XElement(Dc + "identifier", "doi:" + e.Doi), e.Copies.Select(c => new XElement(Dc + "identifier", host + c.Path)));

    private static XElement Name(Person p, bool initialsOnly) => new(M + "name", new XAttribute("type", "personal"),
        new XElement(M + "namePart", new XAttribute("type", "family"), p.Family),
        new XElement(M + "namePart", new XAttribute("type", "given"), initialsOnly ? string.Join(' ', p.Given.Split(' ').Select(g => g[..1] + ".")) : p.Given),
        p.Orcid is null || initialsOnly ? null : new XElement(M + "nameIdentifier", new XAttribute("type", "orcid"), p.Orcid),
        initialsOnly ? null : new XElement(M + "affiliation", p.Institute),
        new XElement(M + "role", new XElement(M + "roleTerm", new XAttribute("type", "code"), new XAttribute("authority", "marcrelator"), "aut")));

    private static XElement Detail(string type, int number) => new(M + "detail", new XAttribute("type", type), new XElement(M + "number", number));

    private static XElement Reference(Work w) => new(M + "relatedItem", new XAttribute("type", "references"),
        new XElement(M + "titleInfo", new XElement(M + "title", w.Translated ?? w.Title)), Name(w.People[0], true),
        new XElement(M + "originInfo", new XElement(M + "dateIssued", w.Year)),
        w.Doi is null ? null : new XElement(M + "identifier", new XAttribute("type", "doi"), w.Doi));
}
