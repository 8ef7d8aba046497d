using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads the DataCite metadata schema, versions 3 and 4, into a <see cref="Record"/>; also inside the envelope that
/// OAI-PMH services put around it (<c>oai_datacite</c>).
/// </summary>
public static class DataCiteReader
{
    /// <summary>What the namespaces of all versions begin with.</summary>
    public const string NamespaceStart = "http://datacite.org/schema/kernel";

    /// <summary>The <c>resource</c> in an element; null when there is none.</summary>
    internal static XElement? ResourceIn(XElement metadata) =>
        metadata
            .DescendantsAndSelf()
            .FirstOrDefault(e =>
                e.Name.LocalName == "resource"
                && e.Name.NamespaceName.StartsWith(NamespaceStart, StringComparison.Ordinal)
            );

    /// <summary>Whether a record of the schema stands in an element.</summary>
    public static bool IsIn(XElement metadata) => ResourceIn(metadata) is not null;

    /// <summary>Reads one record. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="metadata">The <c>resource</c>, or what stands around it.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement metadata, string identifier, DateTimeOffset datestamp)
    {
        var (root, draft) = (ResourceIn(metadata) ?? metadata, new RecordDraft());
        DataCiteParts.Titles(root, draft);
        DataCiteParts.People(root, draft);
        draft.Publisher = root.TextOf("publisher");
        DataCiteParts.Dates(root, draft);
        Year(root.TextOf("publicationYear") ?? "", draft);
        var kind = root.Part("resourceType");
        if (kind is not null)
        {
            // What a repository writes itself is finer than the list of the schema: "PhD thesis" beside "Text".
            draft.Types.Add(new("resourceType", ElementText.Of(kind)));
            draft.Types.Add(new("resourceTypeGeneral", kind.Told("resourceTypeGeneral") ?? ""));
        }
        if (root.TextOf("language") is { } language)
            draft.Languages.Add(language);
        DataCiteParts.Subjects(root, draft);
        DataCiteParts.Numbers(root, draft);
        DataCiteParts.Rights(root, draft);
        DataCiteParts.Funders(root, draft);
        Descriptions(root, draft);
        Host(root, draft);
        return draft.ToRecord(identifier, datestamp);
    }

    /// <summary>The year of publication holds; a date of issue makes it finer only when it is of that year.</summary>
    private static void Year(string year, RecordDraft draft)
    {
        if (PublicationDate.ReadYear(year) is not { } told)
            return;
        draft.Dates.RemoveAll(d => PublicationDate.ReadYear(d.Text) != told);
        draft.Dates.Add(new("publicationYear", year));
    }

    private static void Descriptions(XElement root, RecordDraft draft)
    {
        foreach (var description in DataCiteParts.In(root, "descriptions", "description"))
            switch (description.Told("descriptionType")?.ToLowerInvariant())
            {
                case "abstract" or null or "":
                    draft.Descriptions.Add(new(ElementText.Raw(description), ElementText.LanguageOf(description)));
                    break;
                case "tableofcontents":
                    draft.Contents.AddRange(ElementText.Of(description).Split(" -- ", StringSplitOptions.TrimEntries));
                    break;
                case "seriesinformation":
                    draft.Sources.Add(new("series information", ElementText.Of(description)));
                    break;
            }
        // Some know no kind but "other".
        if (draft.Descriptions.Count == 0)
            draft.Descriptions.AddRange(
                DataCiteParts
                    .In(root, "descriptions", "description")
                    .Where(d => d.Told("descriptionType")?.ToLowerInvariant() is "other" or "methods")
                    .Select(d => new Described(ElementText.Raw(d), ElementText.LanguageOf(d)))
            );
    }

    /// <summary>What the work appeared in: a related item of version 4.4.</summary>
    private static void Host(XElement root, RecordDraft draft)
    {
        var item = DataCiteParts
            .In(root, "relatedItems", "relatedItem")
            .FirstOrDefault(i => i.Told("relationType") is "IsPublishedIn" or "IsPartOf");
        if (item is null)
            return;
        string? Part(string name) =>
            ElementText.Of(item.Descendants().FirstOrDefault(e => e.Name.LocalName == name)) is { Length: > 0 } text
                ? text
                : null;
        var number = item.Part("relatedItemIdentifier");
        draft.HostIsbn ??= Identifiers.Isbn(number?.Value);
        if (Part("title") is { } title)
            draft.Venue = new(
                title,
                Identifiers.Issn(number?.Value),
                Part("volume"),
                Part("issue"),
                Part("firstPage") ?? Part("number"),
                Part("lastPage")
            );
    }
}
