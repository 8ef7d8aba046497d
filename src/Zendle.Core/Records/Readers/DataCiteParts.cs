using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// The parts that the DataCite metadata schema (version 4) and the OpenAIRE guidelines for literature repositories
/// (version 4), which borrow them, have in common: titles, people, dates, related identifiers, funders.
/// </summary>
/// <remarks>Elements are found by their local names: versions of the schema differ in their namespaces.</remarks>
internal static partial class DataCiteParts
{
    /// <summary>Elements of this name inside a list element, wherever the list stands at the top of the record.</summary>
    public static IEnumerable<XElement> In(XElement root, string list, string item) =>
        root.Parts(list).SelectMany(l => l.Parts(item)).Concat(root.Parts(item));

    /// <summary>Titles: the work's own first, joined with its subtitle.</summary>
    public static void Titles(XElement root, RecordDraft draft)
    {
        var all = In(root, "titles", "title")
            .Select(t => (Text: ElementText.Of(t), Kind: t.Told("titleType")?.ToLowerInvariant()))
            .Where(t => t.Text.Length > 0)
            .ToArray();
        var own = all.FirstOrDefault(t => t.Kind is null or "");
        if (own.Text is null)
            own = all.FirstOrDefault(t => t.Kind is not "subtitle");
        if (own.Text is null)
            return;
        var sub = all.FirstOrDefault(t => t.Kind == "subtitle").Text;
        var isSaid = sub is null || own.Text.Contains(sub, StringComparison.OrdinalIgnoreCase);
        draft.Titles.Add(TitleText.With(own.Text, isSaid ? null : sub));
        draft.Titles.AddRange(all.Where(t => t.Kind is not "subtitle" && t.Text != own.Text).Select(t => t.Text));
    }

    /// <summary>Creators, and those contributors who edited.</summary>
    public static void People(XElement root, RecordDraft draft)
    {
        foreach (var creator in In(root, "creators", "creator"))
            draft.People.AddRange(Names(creator, "creatorName", null, draft.Notes));
        foreach (var contributor in In(root, "contributors", "contributor"))
            switch (contributor.Told("contributorType")?.ToLowerInvariant())
            {
                case "editor":
                    draft.Editors.AddRange(Names(contributor, "contributorName", "editor", draft.Notes));
                    break;
                case "funder" or "sponsor":
                    draft.Funders.Add((contributor.TextOf("contributorName") ?? ""));
                    break;
            }
    }

    private static IEnumerable<PersonName> Names(XElement person, string element, string? role, List<string> notes)
    {
        var written = person.Elements().FirstOrDefault(e => e.Name.LocalName == element);
        var whole = ElementText.Of(written);
        var (family, given) = ((person.TextOf("familyName") ?? ""), (person.TextOf("givenName") ?? ""));
        var isBody = written is not null && written.Told("nameType") is "Organizational" or "organizational";
        if (family.Length == 0 && !isBody)
        {
            var names = NameLists.Split(whole);
            if (names.Count > 1)
            {
                notes.Add(ReaderNotes.NamesInOneField);
                return names.Select(n => new PersonName(n.Family, n.Given, Role: role));
            }
            (family, given) = names.Count == 1 ? names[0] : ("", "");
        }
        else if (isBody)
            (family, given) = (whole, "");
        if (family.Length == 0)
            return [];
        var orcid = person
            .Elements()
            .Where(e => e.Name.LocalName == "nameIdentifier")
            .Select(e => Identifiers.Orcid(e.Value))
            .FirstOrDefault(o => o is not null);
        var affiliation = (person.TextOf("affiliation") ?? "");
        return [new(family, given, orcid, affiliation.Length > 0 ? affiliation : null, role)];
    }

    /// <summary>
    /// Dates of a list: of issue, and those that stand for it where there is none. Embargoes and changes are neither.
    /// </summary>
    public static void Dates(XElement root, RecordDraft draft)
    {
        foreach (var date in In(root, "dates", "date"))
        {
            var (kind, text) = (date.Told("dateType")?.ToLowerInvariant(), ElementText.Of(date));
            if (text.Length == 0)
                continue;
            if (kind is "issued" or null or "")
                draft.Dates.Add(new(kind is null or "" ? "date" : "date of issue", text));
            else if (kind is "copyrighted" or "created" or "submitted" or "accepted" or "available")
            {
                if (kind == "available")
                    draft.Available ??= text;
                draft.LesserDates.Add(new($"date ({kind})", text));
            }
        }
    }

    /// <summary>Its numbers, the first of them before the others, and ties to other works.</summary>
    public static void Numbers(XElement root, RecordDraft draft)
    {
        foreach (var own in root.Parts("identifier"))
            draft.Identifiers.Add(Labelled(ElementText.Of(own), own.Told("identifierType")));
        foreach (var identifier in In(root, "alternateIdentifiers", "alternateIdentifier"))
            draft.Identifiers.Add(Labelled(ElementText.Of(identifier), identifier.Told("alternateIdentifierType")));
        foreach (var related in In(root, "relatedIdentifiers", "relatedIdentifier"))
        {
            var (tie, kind, text) = (
                related.Told("relationType") ?? "",
                related.Told("relatedIdentifierType"),
                ElementText.Of(related)
            );
            if (text.Length == 0 || tie.Length == 0)
                continue;
            Tie(draft, tie, kind, text);
        }
    }

    private static void Tie(RecordDraft draft, string tie, string? kind, string text)
    {
        switch (tie.ToLowerInvariant())
        {
            case "references" or "cites":
                draft.References.Add(Identifiers.Doi(text) is { } doi ? new(text, doi) : PrintedReference.Read(text));
                break;
            case "ispartof" or "ispublishedin":
                if (Identifiers.Isbn(text) is { } isbn && kind?.ToUpperInvariant() is "ISBN" or null)
                    draft.HostIsbn ??= isbn;
                else
                    draft.Relations.Add($"isPartOf: {text}");
                break;
            case "isversionof"
            or "hasversion"
            or "isvariantformof"
            or "isoriginalformof"
            or "isnewversionof"
            or "ispreviousversionof":
                draft.Relations.Add($"isVersionOf: {text}");
                break;
            case "isidenticalto":
                draft.Relations.Add($"is identical to {text}");
                break;
            case "reviews" when Identifiers.Doi(text) is { } reviewed:
                draft.Related.Add(new("reviewOf", null, reviewed));
                break;
        }
    }

    /// <summary>A number behind the name of its kind, so that nothing has to be guessed.</summary>
    private static string Labelled(string text, string? kind) =>
        kind?.ToUpperInvariant() switch
        {
            "HANDLE" or "HDL" when Identifiers.Handle(text) is null => $"hdl:{text}",
            "ISBN" => $"ISBN {text}",
            "DOI" or "URL" or "URN" or "ARK" or "HANDLE" or "HDL" or null => text,
            "ISSN" or "EISSN" or "LISSN" => "",
            var server when Identifiers.Preprint($"{server}:{text}") is { } preprint => preprint,
            _ => Uri.TryCreate(text, UriKind.Absolute, out _) || Identifiers.Doi(text) is not null ? text : "",
        };

    /// <summary>Who paid.</summary>
    public static void Funders(XElement root, RecordDraft draft) =>
        draft.Funders.AddRange(
            In(root, "fundingReferences", "fundingReference").Select(f => (f.TextOf("funderName") ?? ""))
        );

    /// <summary>What may be done with the text: by address and in words.</summary>
    public static void Rights(XElement root, RecordDraft draft)
    {
        foreach (var rights in In(root, "rightsList", "rights").Concat(In(root, "-", "licenseCondition")))
        {
            foreach (var attribute in new[] { "rightsURI", "uri" })
                if (rights.Told(attribute) is { Length: > 0 } address)
                    draft.Rights.Add(address);
            if (ElementText.Of(rights) is { Length: > 0 } words)
                draft.Rights.Add(words);
        }
    }

    /// <summary>
    /// Subjects: free keywords, terms of a vocabulary, and the classes of a classification told apart; places.
    /// </summary>
    public static void Subjects(XElement root, RecordDraft draft)
    {
        foreach (var subject in In(root, "subjects", "subject"))
            (
                subject.Told("subjectScheme") is not { Length: > 0 } scheme ? draft.Keywords
                : Classification().IsMatch(scheme) ? draft.Subjects
                : draft.ControlledTerms
            ).Add(ElementText.Of(subject));
        draft.Places.AddRange(
            In(root, "geoLocations", "geoLocation")
                .Elements()
                .Where(e => e.Name.LocalName == "geoLocationPlace")
                .Select(ElementText.Of)
        );
    }

    [GeneratedRegex(
        @"classif|ddc|dewey|udc|\bfos\b|fields? of science|\blcc\b|jel\b|msc\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Classification();
}
