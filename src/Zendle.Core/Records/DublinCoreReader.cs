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
        return new()
        {
            Identifier = identifier,
            Datestamp = datestamp,
            Title = inside ?? title,
            TitleIsTranslated = inside is not null,
            OtherTitles = [.. Values("title").Skip(1).Where(t => t != title).Distinct()],
            Abstract = ModsReader.LongText(dc.Elements(Dc + "description").Select(d => d.Value).FirstOrDefault(d => !string.IsNullOrWhiteSpace(d)), "abstract", notes),
            OtherAbstracts = [.. Values("description").Skip(1)],
            Keywords = [.. Values("subject").Where(s => s.Length < 300)],
            People = people,
            Year = date?.Year,
            Date = date?.Date,
            Type = Values("type").Select(DocumentTypes.Read).FirstOrDefault(t => t != DocumentType.Other),
            Language = Values("language").Select(Languages.Code).FirstOrDefault(c => c is not null),
            Publisher = Values("publisher").FirstOrDefault(),
            Venue = Values("source").FirstOrDefault() is { } source ? new(source) : null,
            Doi = identifiers.Select(Identifiers.Doi).FirstOrDefault(d => d is not null),
            Isbn = identifiers.Select(Identifiers.Isbn).FirstOrDefault(i => i is not null),
            Copies = [.. identifiers.Where(i => Uri.TryCreate(i, UriKind.Absolute, out var u) && (u.Scheme is "http" or "https")).Select(i => new Copy(i, CopyAccess.Unknown))],
            References = [.. Values("relation").Select(r => (Text: r, Doi: Identifiers.Doi(r))).Where(r => r.Doi is not null).Select(r => new Reference(r.Text, r.Doi))],
            Notes = notes,
        };
    }
}
