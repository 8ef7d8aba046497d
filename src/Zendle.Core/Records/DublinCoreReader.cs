using System.Xml.Linq;

namespace Zendle.Core.Records;

/// <summary>Reads <c>oai_dc</c> (Dublin Core as OAI-PMH 2.0 requires of every repository) into a <see cref="Record"/>.</summary>
public static class DublinCoreReader
{
    /// <summary>Namespace of the fifteen Dublin Core elements.</summary>
    public static readonly XNamespace Dc = "http://purl.org/dc/elements/1.1/";

    /// <summary>Reads one <c>oai_dc:dc</c> element. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="dc">The element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement dc, string identifier, DateTimeOffset datestamp)
    {
        List<string> Values(string name) => [.. dc.Elements(Dc + name).Select(e => PlainText.Clean(e.Value)).Where(v => v.Length > 0)];
        var notes = new List<string>();
        var title = Values("title").FirstOrDefault("");
        var inside = PlainText.InsideBrackets(title);
        var identifiers = Values("identifier");
        if (title.Length == 0) notes.Add(ReaderNotes.NoTitle);
        var date = PublicationDate.Choose(Values("date"));
        if (date is null && Values("date").FirstOrDefault() is { } odd) notes.Add(ReaderNotes.Implausible(odd));
        if (date?.Why is { } why) notes.Add(why);
        if (Values("language") is { Count: > 0 } languages && languages.All(l => Languages.Code(l) is null)) notes.Add(ReaderNotes.UnknownLanguage(languages[0]));
        var people = Values("creator").SelectMany(c =>
        {
            var names = NameLists.Split(c);
            if (names.Count > 1) notes.Add(ReaderNotes.NamesInOneField);
            return names;
        }).Take(ModsReader.MostPeople).Where(n => n.Family.Length > 0).Select(n => new PersonName(n.Family, n.Given)).ToArray();
        var language = Values("language").Select(Languages.Code).FirstOrDefault(c => c is not null);
        // Cleaned texts are compared; what is kept is read from what came, so that a cut can be noted.
        var raw = dc.Elements(Dc + "description").Select(d => d.Value).Where(v => PlainText.Clean(v).Length > 0).GroupBy(PlainText.Clean).ToDictionary(g => g.Key, g => g.First());
        var descriptions = BareDescriptions.Of([.. raw.Keys], language);
        notes.AddRange(descriptions.Remarks.Take(6).Select(ReaderNotes.NoAbstract));
        var relations = BareRelations.Of(Values("relation"), identifiers.Select(Identifiers.Doi).FirstOrDefault(d => d is not null));
        var venue = SourceLine.Read(Values("source"));
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = inside ?? title,
            TitleIsTranslated = inside is not null,
            OtherTitles = [.. Values("title").Skip(1).Where(t => t != title).Distinct()],
            Abstract = ModsReader.LongText(descriptions.Abstract.Length > 0 ? raw[descriptions.Abstract] : null, "abstract", notes),
            OtherAbstracts = descriptions.Others,
            Keywords = [.. Values("subject").Where(s => s.Length < 300)],
            People = people,
            Year = date?.Year,
            Date = date?.Date,
            Type = Values("type").Select(DocumentTypes.Read).FirstOrDefault(t => t != DocumentType.Other),
            Language = language,
            Publisher = Values("publisher").FirstOrDefault(),
            Venue = venue is null ? null : venue with { Issn = venue.Issn ?? relations.PartOf },
            Doi = relations.Own,
            Versions = relations.Versions,
            Isbn = identifiers.Select(Identifiers.Isbn).FirstOrDefault(i => i is not null),
            Copies = [.. identifiers.Where(i => Uri.TryCreate(i, UriKind.Absolute, out var u) && (u.Scheme is "http" or "https")).Select(i => new Copy(i, CopyAccess.Unknown))],
            References = relations.References,
            Notes = notes,
        };
    }
}
