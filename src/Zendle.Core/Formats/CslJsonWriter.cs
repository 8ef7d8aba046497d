using System.Text.Encodings.Web;
using System.Text.Json;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>Writes CSL-JSON (CSL 1.0.2, csl-data): an array of items.</summary>
public static class CslJsonWriter
{
    /// <summary>Writes all citations, in order, as UTF-8.</summary>
    public static void Write(Stream to, IReadOnlyList<Citation> citations)
    {
        using var json = new Utf8JsonWriter(
            to,
            new() { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping }
        );
        json.WriteStartArray();
        foreach (var c in citations)
            WriteOne(json, c);
        json.WriteEndArray();
    }

    private static void WriteOne(Utf8JsonWriter json, Citation c)
    {
        json.WriteStartObject();
        json.WriteString("id", c.Key);
        json.WriteString("type", Kind(c.Type));
        json.WriteString("title", c.Title);
        Names(json, "author", c.Authors);
        Names(json, "editor", c.Editors);
        if (c.Year is { } year)
        {
            json.WriteStartObject("issued");
            json.WriteStartArray("date-parts");
            json.WriteStartArray();
            json.WriteNumberValue(year);
            if (c.Month is { } month)
                json.WriteNumberValue(month);
            if (c.Day is { } day)
                json.WriteNumberValue(day);
            json.WriteEndArray();
            json.WriteEndArray();
            json.WriteEndObject();
        }
        if (c.Venue is { } venue)
        {
            Text("container-title", venue.Title);
            Text("volume", venue.Volume);
            Text("issue", venue.Issue);
            Text("page", venue.Pages("-"));
            Text("ISSN", venue.Issn);
        }
        Text("collection-title", c.Series);
        Text("genre", c.Genre ?? (c.Type == DocumentType.Preprint ? "Preprint" : null));
        Text("publisher", c.Publisher);
        Text("DOI", c.Doi);
        Text("ISBN", c.Isbn);
        Text("URL", c.FreeAddress);
        Text("language", Languages.TwoLetters(c.Language));
        Text("abstract", c.Abstract);
        Text("keyword", string.Join(", ", c.Keywords));
        // What the format has no field for goes where it asks for such things (csl-data, "custom").
        if (c.Tags.Count > 0 || c.Funders.Count > 0 || c.Authors.Any(p => p.Orcid is not null))
        {
            json.WriteStartObject("custom");
            List("tags", c.Tags);
            List("funder", c.Funders);
            List(
                "orcid",
                [.. c.Authors.Where(p => p.Orcid is not null).Select(p => $"{p.Short} https://orcid.org/{p.Orcid}")]
            );
            json.WriteEndObject();
        }
        json.WriteEndObject();

        void List(string name, IReadOnlyList<string> values)
        {
            if (values.Count == 0)
                return;
            json.WriteStartArray(name);
            foreach (var value in values)
                json.WriteStringValue(value);
            json.WriteEndArray();
        }

        void Text(string name, string? value)
        {
            if (!string.IsNullOrEmpty(value))
                json.WriteString(name, value);
        }
    }

    private static void Names(Utf8JsonWriter json, string role, IEnumerable<PersonName> people)
    {
        var isFirst = true;
        foreach (var p in people)
        {
            if (isFirst)
                json.WriteStartArray(role);
            isFirst = false;
            json.WriteStartObject();
            if (p.Given.Length == 0)
                json.WriteString("literal", p.Family);
            else
            {
                json.WriteString("family", p.Family);
                json.WriteString("given", p.Given);
            }
            json.WriteEndObject();
        }
        if (!isFirst)
            json.WriteEndArray();
    }

    private static string Kind(DocumentType type) =>
        type switch
        {
            DocumentType.ConferencePaper => "paper-conference",
            DocumentType.Thesis => "thesis",
            DocumentType.Report => "report",
            DocumentType.Preprint => "article",
            DocumentType.Book => "book",
            DocumentType.Chapter => "chapter",
            DocumentType.Dataset => "dataset",
            DocumentType.Manuscript => "manuscript",
            DocumentType.Other => "document",
            _ => "article-journal",
        };
}
