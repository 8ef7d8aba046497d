using System.Xml.Linq;

namespace Zendle.Core.Records.Readers;

/// <summary>
/// Reads <c>oai_openaire</c>, the application profile of the OpenAIRE guidelines for literature repository managers
/// (version 4), into a <see cref="Record"/>.
/// </summary>
public static class OpenAireReader
{
    /// <summary>Namespace of the profile.</summary>
    public static readonly XNamespace Oaire = "http://namespace.openaire.eu/schema/oaire/";

    /// <summary>Reads one record. Tolerant in the same way as <see cref="ModsReader"/>.</summary>
    /// <param name="resource">The <c>resource</c> element.</param>
    /// <param name="identifier">OAI identifier of the record.</param>
    /// <param name="datestamp">OAI datestamp of the record.</param>
    public static Record Read(XElement resource, string identifier, DateTimeOffset datestamp)
    {
        var draft = new RecordDraft();
        DataCiteParts.Titles(resource, draft);
        DataCiteParts.People(resource, draft);
        DataCiteParts.Dates(resource, draft);
        DataCiteParts.Subjects(resource, draft);
        DataCiteParts.Numbers(resource, draft);
        DataCiteParts.Rights(resource, draft);
        DataCiteParts.Funders(resource, draft);
        foreach (var element in resource.Elements())
            Plain(element, draft);
        // Behind all else: which version a file is may be said after it.
        foreach (var file in resource.Parts("file"))
            File(file, draft);
        Citation(resource, draft);
        return draft.ToRecord(identifier, datestamp);
    }

    /// <summary>Elements that stand by themselves, those of Dublin Core among them.</summary>
    private static void Plain(XElement element, RecordDraft draft)
    {
        switch (element.Name.LocalName)
        {
            case "description":
                draft.Descriptions.Add(new(ElementText.Raw(element), ElementText.LanguageOf(element)));
                break;
            case "language":
                draft.Languages.Add(ElementText.Of(element));
                break;
            case "publisher":
                draft.Publisher ??= ElementText.Of(element);
                break;
            case "source":
                draft.Sources.Add(new("source", ElementText.Of(element)));
                break;
            case "coverage":
                draft.Places.Add(ElementText.Of(element));
                break;
            case "resourceType":
                // The concept says more than the word beside it, which may be in any language.
                draft.Types.Add(new("resourceType", element.Told("uri") ?? ""));
                draft.Types.Add(new("resourceType", ElementText.Of(element)));
                break;
            case "version":
                draft.Version ??=
                    WorkVersions.Read(ElementText.Of(element)) ?? WorkVersions.Read(element.Told("uri") ?? "");
                break;
        }
    }

    private static void File(XElement file, RecordDraft draft)
    {
        if (WebAddress.Of(file.Value) is not { } address)
            return;
        var access = Records.Rights.Of([file.Told("accessRightsURI") ?? ""]).Access;
        draft.Copies.Add(new(address.ToString(), access, draft.Version));
    }

    private static void Citation(XElement resource, RecordDraft draft)
    {
        draft.Venue = new(
            resource.TextOf("citationTitle") ?? "",
            Volume: resource.TextOf("citationVolume"),
            Issue: resource.TextOf("citationIssue"),
            FirstPage: resource.TextOf("citationStartPage"),
            LastPage: resource.TextOf("citationEndPage")
        );
    }
}
