using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Zendle.Core.Records;

/// <summary>Reads <c>oai_dc</c> (Dublin Core as OAI-PMH 2.0 requires of every repository) into a <see cref="Record"/>.</summary>
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
        var cleaned = dc.Elements().Where(e => e.Name.Namespace == Dc).Select(e => (e.Name.LocalName, Text: PlainText.Clean(e.Value))).Where(e => e.Text.Length > 0).ToLookup(e => e.LocalName, e => e.Text);
        List<string> Values(string name) => [.. cleaned[name]];
        var (notes, readings) = (new List<string>(), new List<Reading>());
        var titles = Values("title");
        var title = titles.Count > 0 ? titles[0] : "";
        var inside = PlainText.InsideBrackets(title);
        var identifiers = Values("identifier");
        if (title.Length == 0) notes.Add(ReaderNotes.NoTitle);
        var date = PublicationDate.Choose(Values("date"));
        if (date is null && Values("date").FirstOrDefault() is { } odd) notes.Add(ReaderNotes.Implausible(odd));
        if (date?.Why is { } why) notes.Add(why);
        if (date is not null) readings.Add(new("date", $"date “{ReaderNotes.Brief(date.Written)}”", date.Why ?? ""));
        if (Values("language") is { Count: > 0 } languages && languages.All(l => Languages.Code(l) is null)) notes.Add(ReaderNotes.UnknownLanguage(languages[0]));
        var contributors = BareContributors.Of(Values("contributor"));
        var people = People(Values("creator"), notes);
        // Where nobody wrote it whole, those who brought it together stand for it; they are called editors everywhere.
        if (people.Count == 0) people = [.. contributors.Editors];
        var language = Values("language").Select(Languages.Code).FirstOrDefault(c => c is not null);
        // Cleaned texts are compared; what is kept is read from what came, so that a cut can be noted.
        var raw = dc.Elements(Dc + "description").Select(d => d.Value).Where(v => PlainText.Clean(v).Length > 0).GroupBy(PlainText.Clean).ToDictionary(g => g.Key, g => g.First());
        var descriptions = BareDescriptions.Of([.. raw.Keys], language);
        notes.AddRange(descriptions.Remarks.Take(6).Select(ReaderNotes.NoAbstract));
        if (descriptions.Abstract.Length > 0) readings.Add(new("abstract", $"description “{ReaderNotes.Brief(descriptions.Abstract)}”", raw.Count < 2 ? "" : $"Of {raw.Count} descriptions the longest that is running text{(language is null ? "" : " in the language of the work")}."));
        string[] dois = [.. identifiers.Select(Identifiers.Doi).OfType<string>().Distinct()];
        var relations = BareRelations.Of(Values("relation"), dois.FirstOrDefault());
        if (relations.Own is { } own) readings.Add(dois.Contains(own) ? new("DOI", $"identifier “{ReaderNotes.Brief(identifiers.First(i => Identifiers.Doi(i) == own))}”", dois.Length > 1 ? $"The first of {dois.Length}; the others are kept as other versions." : "") : new("DOI", "relation", "No identifier is a DOI; the relation names the work’s own."));
        var source = SourceLine.Read(Values("source"));
        if (source is not null) readings.Add(new("venue", $"source “{ReaderNotes.Brief(Values("source").FirstOrDefault(v => v.Contains(source.Title, StringComparison.Ordinal)) ?? Values("source")[0])}”", source.Volume is null && source.FirstPage is null ? "Volume and pages are not told in a form that can be told apart." : "Volume, issue and pages were told apart by their signs."));
        var type = Values("type").Select(t => (Words: t, Type: DocumentTypes.Read(t))).FirstOrDefault(t => t.Type != DocumentType.Other);
        if (type.Words is not null) readings.Add(new("type", $"type “{ReaderNotes.Brief(type.Words)}”", ""));
        var rights = Rights.Of(Values("rights"));
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = inside ?? title,
            TitleIsTranslated = inside is not null,
            OtherTitles = [.. titles.Skip(1).Where(t => t != title).Distinct()],
            Abstract = ModsReader.LongText(descriptions.Abstract.Length > 0 ? raw[descriptions.Abstract] : null, "abstract", notes),
            OtherAbstracts = descriptions.Others,
            Keywords = [.. Values("subject").Where(s => s.Length < 300)],
            People = people,
            Editors = people.Any(p => p.Role is null) ? contributors.Editors : [],
            Funders = contributors.Funders,
            Year = date?.Year,
            Date = date?.Date,
            Type = type.Type,
            Genre = Values("type").Select(DocumentTypes.ThesisGenre).FirstOrDefault(g => g is not null),
            Language = language,
            Publisher = Values("publisher").FirstOrDefault(),
            Venue = source is null ? null : source with { Issn = source.Issn ?? relations.PartOf },
            Doi = relations.Own,
            Versions = [.. relations.Versions.Select(v => v.Doi).Concat(dois).Append(Identifiers.OfAllVersions(relations.Own)).OfType<string>().Where(d => d != relations.Own).Distinct().Select(d => new VersionLink(d))],
            Isbn = identifiers.Select(Identifiers.Isbn).FirstOrDefault(i => i is not null),
            OwnNumbers = [.. identifiers.SelectMany(NumbersOf).Distinct()],
            Licence = rights.Licence,
            Copies = [.. identifiers.Where(i => Uri.TryCreate(i, UriKind.Absolute, out var u) && (u.Scheme is "http" or "https") && !IsResolver(u)).Select(i => new Copy(i, rights.Access))],
            References = relations.References,
            Readings = readings,
            Notes = notes,
        };
    }

    private static List<PersonName> People(IReadOnlyList<string> creators, List<string> notes)
    {
        var people = new List<PersonName>();
        foreach (var creator in creators)
        {
            var isEditor = BareContributors.IsEditor(creator, out var text);
            // An ORCID iD is written behind the name, or in an element of its own.
            var orcid = Identifiers.Orcid(text);
            if (orcid is not null) text = OrcidText().Replace(text, "").Trim(' ', ',', ';', '(', ')', '[', ']');
            if (text.Length == 0)
            {
                if (orcid is not null && people.Count > 0 && people[^1].Orcid is null) people[^1] = people[^1] with { Orcid = orcid };
                continue;
            }
            var names = NameLists.Split(text);
            if (names.Count > 1) notes.Add(ReaderNotes.NamesInOneField);
            foreach (var (family, given) in names.Where(n => n.Family.Length > 0))
            {
                if (people.Count == ModsReader.MostPeople) return people;
                people.Add(new(family, given, names.Count == 1 ? orcid : null, Role: isEditor ? "editor" : null));
            }
        }
        // Of people of whom some edited and some wrote, the authors are those who wrote.
        return people.Exists(p => p.Role is null) ? people.FindAll(p => p.Role is null) : people;
    }

    private static IEnumerable<string> NumbersOf(string identifier)
    {
        if (Identifiers.Handle(identifier) is { } handle) yield return $"hdl:{handle}";
        if (Identifiers.Ark(identifier) is { } ark) yield return ark;
        if (Identifiers.Urn(identifier) is { } urn) yield return urn;
    }

    /// <summary>An address that leads from a number to wherever the text lies today is no place of a copy.</summary>
    private static bool IsResolver(Uri address) => address.Host is "doi.org" or "dx.doi.org" or "www.doi.org" or "orcid.org";

    [GeneratedRegex(@"\(?\s*(?:https?://orcid\.org/|orcid(?: id)?\s*:?\s*)?\d{4}-?\d{4}-?\d{4}-?\d{3}[\dXx]\s*\)?", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex OrcidText();
}
