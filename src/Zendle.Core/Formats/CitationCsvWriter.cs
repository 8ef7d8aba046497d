using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>Writes CSV (RFC 4180) with a header line. Cells that a spreadsheet would take for a formula are made harmless by a leading apostrophe.</summary>
public static class CitationCsvWriter
{
    private static readonly string[] Columns = ["work", "title", "people", "year", "type", "venue", "volume", "issue", "pages", "doi", "isbn", "language",
        "cited", "stage", "reason", "tags", "databases", "free copy", "keywords", "abstract"];

    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IEnumerable<Citation> citations)
    {
        // The package escapes = + - @ and the control characters that spreadsheets obey, wherever they start a cell.
        using var csv = new CsvHelper.CsvWriter(to, new CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.Escape, NewLine = "\r\n" }, leaveOpen: true);
        foreach (var column in Columns) csv.WriteField(column);
        csv.NextRecord();
        foreach (var c in citations)
        {
            csv.WriteField(c.WorkId);
            csv.WriteField(c.Title);
            csv.WriteField(string.Join("; ", c.People.Select(p => p.Given.Length == 0 ? p.Family : $"{p.Family}, {p.Given}")));
            csv.WriteField(c.Year);
            csv.WriteField(DocumentTypes.Name(c.Type));
            csv.WriteField(c.Venue?.Title);
            csv.WriteField(c.Venue?.Volume);
            csv.WriteField(c.Venue?.Issue);
            csv.WriteField(c.Venue?.FirstPage is null ? null : c.Venue.LastPage is null ? c.Venue.FirstPage : $"{c.Venue.FirstPage}–{c.Venue.LastPage}");
            csv.WriteField(c.Doi);
            csv.WriteField(c.Isbn);
            csv.WriteField(c.Language is null ? null : Languages.Name(c.Language));
            csv.WriteField(c.Cited);
            csv.WriteField(c.Stage);
            csv.WriteField(c.Reason);
            csv.WriteField(string.Join("; ", c.Tags));
            csv.WriteField(string.Join("; ", c.Databases));
            csv.WriteField(c.FreeAddress);
            csv.WriteField(string.Join("; ", c.Keywords));
            csv.WriteField(c.Abstract);
            csv.NextRecord();
        }
    }
}
