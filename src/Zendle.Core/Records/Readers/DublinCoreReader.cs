using System.Collections.Frozen;
using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads <c>oai_dc</c> (Dublin Core as OAI-PMH 2.0 requires of every repository), and Dublin Core refined by the DCMI
/// metadata terms, into a <see cref="Record"/>.
/// </summary>
public static partial class DublinCoreReader
{
    /// <summary>Namespace of the fifteen Dublin Core elements.</summary>
    public static readonly XNamespace Dc = "http://purl.org/dc/elements/1.1/";

    /// <summary>Namespace of the terms that refine them ("qualified" Dublin Core).</summary>
    public static readonly XNamespace Terms = "http://purl.org/dc/terms/";

    /// <summary>Whether an element is one of Dublin Core, bare or refined.</summary>
    public static bool IsTerm(XElement element) => element.Name.Namespace == Dc || element.Name.Namespace == Terms;

    /// <summary>
    /// Reads one element that holds elements of Dublin Core, bare (<c>oai_dc:dc</c>) or refined by terms; whatever the
    /// element itself is called. Tolerant in the same way as <see cref="ModsReader"/>.
    /// </summary>
    /// <param name="dc">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement dc, string identifier, DateTimeOffset datestamp)
    {
        var draft = new RecordDraft();
        var (creators, contributors, issued, titles) = (
            new List<string>(),
            new List<string>(),
            new List<Said>(),
            new List<string>()
        );
        foreach (var element in dc.Elements())
        {
            if (!IsTerm(element))
                continue;
            var name = element.Name.LocalName;
            if (name is "description" or "abstract")
            {
                draft.Descriptions.Add(new(ElementText.Raw(element), ElementText.LanguageOf(element)));
                continue;
            }
            var text = ElementText.Of(element);
            if (text.Length == 0)
                continue;
            switch (name)
            {
                case "title":
                    titles.Add(text);
                    break;
                case "alternative":
                    draft.Titles.Add(text);
                    break;
                case "creator":
                    creators.Add(text);
                    break;
                case "contributor":
                    contributors.Add(text);
                    break;
                case "subject":
                    draft.Keywords.Add(text);
                    break;
                case "issued":
                    issued.Add(new(name, text));
                    break;
                case "date":
                    draft.Dates.Add(new(name, text));
                    break;
                case "created" or "dateCopyrighted" or "available" or "dateSubmitted" or "dateAccepted":
                    if (name == "available")
                        draft.Available ??= text;
                    draft.LesserDates.Add(new(name, text));
                    break;
                case "type":
                    draft.Types.Add(new(name, text));
                    break;
                case "language":
                    draft.Languages.Add(text);
                    break;
                case "publisher":
                    draft.Publisher ??= text;
                    break;
                case "identifier":
                    draft.Identifiers.Add(text);
                    break;
                case "relation":
                    draft.Relations.Add(text);
                    break;
                case "source" or "bibliographicCitation":
                    draft.Sources.Add(new(name, text));
                    break;
                case "rights" or "license" or "accessRights":
                    draft.Rights.Add(text);
                    break;
                case "spatial":
                    draft.Places.Add(text);
                    break;
                case "tableOfContents":
                    draft.Contents.AddRange(text.Split(" -- ", StringSplitOptions.TrimEntries));
                    break;
                case var tie when Ties.Contains(tie):
                    draft.Relations.Add($"{tie}: {text}");
                    if (
                        tie == "isPartOf"
                        && Identifiers.Issn(text) is null
                        && !Uri.TryCreate(text, UriKind.Absolute, out _)
                    )
                        draft.Sources.Add(new(tie, text));
                    break;
            }
        }
        draft.Titles.InsertRange(0, titles);
        // What is called the date of issue is it, whatever else is called a date.
        if (issued.Count > 0)
        {
            draft.LesserDates.AddRange(draft.Dates);
            draft.Dates.Clear();
            draft.Dates.AddRange(issued);
        }
        var others = BareContributors.Of(contributors);
        draft.People.AddRange(People(creators, draft.Notes));
        draft.Editors.AddRange(others.Editors);
        draft.Funders.AddRange(others.Funders);
        return draft.ToRecord(identifier, datestamp);
    }

    /// <summary>Terms that tie a work to others.</summary>
    private static readonly FrozenSet<string> Ties = new[]
    {
        "isPartOf",
        "hasPart",
        "isVersionOf",
        "hasVersion",
        "isFormatOf",
        "hasFormat",
        "references",
        "isReferencedBy",
        "replaces",
        "isReplacedBy",
        "requires",
        "isRequiredBy",
        "conformsTo",
    }.ToFrozenSet(StringComparer.Ordinal);

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
        return people;
    }

    [GeneratedRegex(
        @"\(?\s*(?:https?://orcid\.org/|orcid(?: id)?\s*:?\s*)?\d{4}-?\d{4}-?\d{4}-?\d{3}[\dXx]\s*\)?",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex OrcidText();
}
