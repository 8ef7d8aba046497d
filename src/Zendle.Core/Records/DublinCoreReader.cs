using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Zendle.Core.Records;

/// <summary>
/// Reads <c>oai_dc</c> (Dublin Core as OAI-PMH 2.0 requires of every repository) into a <see cref="Record"/>.
/// </summary>
public static partial class DublinCoreReader
{
    /// <summary>Namespace of the fifteen Dublin Core elements.</summary>
    public static readonly XNamespace Dc = "http://purl.org/dc/elements/1.1/";

    /// <summary>Reads one <c>oai_dc:dc</c> element. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="dc">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement dc, string identifier, DateTimeOffset datestamp)
    {
        // Looked at once and cleaned once: a field is asked for several times.
        var cleaned = dc.Elements()
            .Where(e => e.Name.Namespace == Dc)
            .Select(e => (e.Name.LocalName, Text: PlainText.Clean(e.Value)))
            .Where(e => e.Text.Length > 0)
            .ToLookup(e => e.LocalName, e => e.Text);
        List<string> Values(string name) => [.. cleaned[name]];
        var (notes, readings) = (new List<string>(), new List<Reading>());
        var (titles, identifiers, types) = (Values("title"), Values("identifier"), Values("type"));
        var title = titles.Count > 0 ? titles[0] : "";
        var inside = PlainText.InsideBrackets(title);
        if (title.Length == 0)
            notes.Add(ReaderNotes.NoTitle);
        var contributors = BareContributors.Of(Values("contributor"));
        var people = People(Values("creator"), notes);
        // Where nobody wrote it whole, those who brought it together stand for it; they are called editors everywhere.
        if (people.Count == 0)
            people = [.. contributors.Editors];
        var date = DateOf(Values("date"), notes, readings);
        var language = LanguageOf(Values("language"), notes);
        var descriptions = DescriptionsOf(dc, language, notes, readings);
        var (doi, versions, relations) = DoisOf(identifiers, Values("relation"), readings);
        var source = SourceOf(Values("source"), readings);
        var rights = Rights.Of(Values("rights"));
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = inside ?? title,
            TitleIsTranslated = inside is not null,
            OtherTitles = [.. titles.Skip(1).Where(t => t != title).Distinct()],
            Abstract = descriptions.Abstract,
            OtherAbstracts = descriptions.Others,
            Keywords = [.. Values("subject").Where(s => s.Length < 300)],
            People = people,
            Editors = people.Exists(p => p.Role is null) ? contributors.Editors : [],
            Funders = contributors.Funders,
            Year = date?.Year,
            Date = date?.Date,
            Type = TypeOf(types, readings),
            Genre = types.Select(DocumentTypes.ThesisGenre).FirstOrDefault(g => g is not null),
            Language = language,
            Publisher = Values("publisher").FirstOrDefault(),
            Venue = source is null ? null : source with { Issn = source.Issn ?? relations.PartOf },
            Doi = doi,
            Versions = versions,
            Isbn = identifiers.Select(Identifiers.Isbn).FirstOrDefault(i => i is not null),
            OwnNumbers = [.. identifiers.SelectMany(NumbersOf).Distinct()],
            Licence = rights.Licence,
            Copies =
            [
                .. identifiers
                    .Where(i =>
                        Uri.TryCreate(i, UriKind.Absolute, out var u)
                        && (u.Scheme is "http" or "https")
                        && !IsResolver(u)
                    )
                    .Select(i => new Copy(i, rights.Access)),
            ],
            References = relations.References,
            Readings = readings,
            Notes = notes,
        };
    }

    private static PublicationDate? DateOf(List<string> dates, List<string> notes, List<Reading> readings)
    {
        var date = PublicationDate.Choose(dates);
        if (date is null && dates.Count > 0)
            notes.Add(ReaderNotes.Implausible(dates[0]));
        if (date?.Why is { } why)
            notes.Add(why);
        if (date is not null)
            readings.Add(new("date", $"date “{ReaderNotes.Brief(date.Written)}”", date.Why ?? ""));
        return date;
    }

    private static string? LanguageOf(List<string> written, List<string> notes)
    {
        var code = written.Select(Languages.Code).FirstOrDefault(c => c is not null);
        if (code is null && written.Count > 0)
            notes.Add(ReaderNotes.UnknownLanguage(written[0]));
        return code;
    }

    private static DocumentType TypeOf(List<string> types, List<Reading> readings)
    {
        foreach (var words in types)
        {
            if (DocumentTypes.Read(words) is not (not DocumentType.Other and var type))
                continue;
            readings.Add(new("type", $"type “{ReaderNotes.Brief(words)}”", ""));
            return type;
        }
        return DocumentType.Other;
    }

    private static BareDescriptions DescriptionsOf(
        XElement dc,
        string? language,
        List<string> notes,
        List<Reading> readings
    )
    {
        // Cleaned texts are compared; what is kept is read from what came, so that a cut can be noted.
        var raw = dc.Elements(Dc + "description")
            .Select(d => d.Value)
            .Where(v => PlainText.Clean(v).Length > 0)
            .GroupBy(PlainText.Clean)
            .ToDictionary(g => g.Key, g => g.First());
        var sorted = BareDescriptions.Of([.. raw.Keys], language);
        notes.AddRange(sorted.Remarks.Take(6).Select(ReaderNotes.NoAbstract));
        if (sorted.Abstract.Length == 0)
            return sorted;
        var why =
            raw.Count < 2
                ? ""
                : $"Of {raw.Count} descriptions the longest that is running text{(language is null ? "" : " in the language of the work")}.";
        readings.Add(new("abstract", $"description “{ReaderNotes.Brief(sorted.Abstract)}”", why));
        return sorted with { Abstract = ModsReader.LongText(raw[sorted.Abstract], "abstract", notes) };
    }

    private static (string? Doi, IReadOnlyList<VersionLink> Versions, BareRelations Relations) DoisOf(
        List<string> identifiers,
        List<string> relations,
        List<Reading> readings
    )
    {
        string[] dois = [.. identifiers.Select(Identifiers.Doi).OfType<string>().Distinct()];
        var related = BareRelations.Of(relations, dois.FirstOrDefault());
        if (related.Own is { } own)
            readings.Add(
                dois.Contains(own)
                    ? new(
                        "DOI",
                        $"identifier “{ReaderNotes.Brief(identifiers.First(i => Identifiers.Doi(i) == own))}”",
                        dois.Length > 1 ? $"The first of {dois.Length}; the others are kept as other versions." : ""
                    )
                    : new("DOI", "relation", "No identifier is a DOI; the relation names the work’s own.")
            );
        var others = related
            .Versions.Select(v => v.Doi)
            .Concat(dois)
            .Append(Identifiers.OfAllVersions(related.Own))
            .OfType<string>()
            .Where(d => d != related.Own)
            .Distinct();
        return (related.Own, [.. others.Select(d => new VersionLink(d))], related);
    }

    private static VenuePart? SourceOf(List<string> sources, List<Reading> readings)
    {
        if (SourceLine.Read(sources) is not { } source)
            return null;
        var written = sources.FirstOrDefault(v => v.Contains(source.Title, StringComparison.Ordinal)) ?? sources[0];
        readings.Add(
            new(
                "venue",
                $"source “{ReaderNotes.Brief(written)}”",
                source.Volume is null && source.FirstPage is null
                    ? "Volume and pages are not told in a form that can be told apart."
                    : "Volume, issue and pages were told apart by their signs."
            )
        );
        return source;
    }

    private static List<PersonName> People(IReadOnlyList<string> creators, List<string> notes)
    {
        var people = new List<PersonName>();
        foreach (var creator in creators)
        {
            var isEditor = BareContributors.IsEditor(creator, out var text);
            // An ORCID iD is written behind the name, or in an element of its own.
            var orcid = Identifiers.Orcid(text);
            if (orcid is not null)
                text = OrcidText().Replace(text, "").Trim(' ', ',', ';', '(', ')', '[', ']');
            if (text.Length == 0)
            {
                if (orcid is not null && people.Count > 0 && people[^1].Orcid is null)
                    people[^1] = people[^1] with { Orcid = orcid };
                continue;
            }
            var names = NameLists.Split(text);
            if (names.Count > 1)
                notes.Add(ReaderNotes.NamesInOneField);
            foreach (var (family, given) in names.Where(n => n.Family.Length > 0))
            {
                if (people.Count == ModsReader.MostPeople)
                    return people;
                people.Add(new(family, given, names.Count == 1 ? orcid : null, Role: isEditor ? "editor" : null));
            }
        }
        // Of people of whom some edited and some wrote, the authors are those who wrote.
        return people.Exists(p => p.Role is null) ? people.FindAll(p => p.Role is null) : people;
    }

    private static IEnumerable<string> NumbersOf(string identifier)
    {
        if (Identifiers.Handle(identifier) is { } handle)
            yield return $"hdl:{handle}";
        if (Identifiers.Ark(identifier) is { } ark)
            yield return ark;
        if (Identifiers.Urn(identifier) is { } urn)
            yield return urn;
    }

    /// <summary>An address that leads from a number to wherever the text lies today is no place of a copy.</summary>
    private static bool IsResolver(Uri address) =>
        address.Host is "doi.org" or "dx.doi.org" or "www.doi.org" or "orcid.org";

    [GeneratedRegex(
        @"\(?\s*(?:https?://orcid\.org/|orcid(?: id)?\s*:?\s*)?\d{4}-?\d{4}-?\d{4}-?\d{3}[\dXx]\s*\)?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex OrcidText();
}
