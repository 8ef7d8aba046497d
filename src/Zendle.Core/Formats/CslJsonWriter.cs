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
        var keys = CitationKeys.For(citations);
        using var json = new Utf8JsonWriter(to, new() { Indented = true, Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping });
        json.WriteStartArray();
        for (var i = 0; i < citations.Count; i++) WriteOne(json, citations[i], keys[i]);
        json.WriteEndArray();
    }

    private static void WriteOne(Utf8JsonWriter json, Citation c, string key)
    {
        json.WriteStartObject();
        json.WriteString("id", key);
        json.WriteString("type", Kind(c.Type));
        json.WriteString("title", c.Title);
        if (c.People.Count > 0)
        {
            json.WriteStartArray("author");
            foreach (var p in c.People)
            {
                json.WriteStartObject();
                if (p.Given.Length == 0) json.WriteString("literal", p.Family);
                else
                {
                    json.WriteString("family", p.Family);
                    json.WriteString("given", p.Given);
                }
                json.WriteEndObject();
            }
            json.WriteEndArray();
        }
        if (c.Year is { } year)
        {
            json.WriteStartObject("issued");
            json.WriteStartArray("date-parts");
            json.WriteStartArray();
            json.WriteNumberValue(year);
            json.WriteEndArray();
            json.WriteEndArray();
            json.WriteEndObject();
        }
        if (c.Venue is { } venue)
        {
            Text("container-title", venue.Title);
            Text("volume", venue.Volume);
            Text("issue", venue.Issue);
            Text("page", venue.FirstPage is null ? null : venue.LastPage is null ? venue.FirstPage : $"{venue.FirstPage}-{venue.LastPage}");
            Text("ISSN", venue.Issn);
        }
        Text("publisher", c.Publisher);
        Text("DOI", c.Doi);
        Text("ISBN", c.Isbn);
        Text("URL", c.FreeAddress);
        Text("language", Languages.TwoLetters(c.Language));
        Text("abstract", c.Abstract);
        Text("keyword", string.Join(", ", c.Keywords.Concat(c.Tags)));
        json.WriteEndObject();

        void Text(string name, string? value)
        {
            if (!string.IsNullOrEmpty(value)) json.WriteString(name, value);
        }
    }

    private static string Kind(DocumentType type) => type switch
    {
        DocumentType.ConferencePaper => "paper-conference",
        DocumentType.Thesis => "thesis",
        DocumentType.Report => "report",
        DocumentType.Preprint => "article",
        DocumentType.Book => "book",
        DocumentType.Chapter => "chapter",
        DocumentType.Dataset => "dataset",
        DocumentType.Other => "document",
        _ => "article-journal",
    };
}
