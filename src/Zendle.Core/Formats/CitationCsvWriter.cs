using System.Globalization;
using CsvHelper.Configuration;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>
/// Writes CSV (RFC 4180) with a header line. Cells that a spreadsheet would take for a formula are made harmless by a
/// leading apostrophe.
/// </summary>
public static class CitationCsvWriter
{
    private static readonly string[] Columns =
    [
        "work",
        "key",
        "title",
        "authors",
        "editors",
        "ORCID",
        "year",
        "date",
        "type",
        "venue",
        "volume",
        "issue",
        "pages",
        "ISSN",
        "ISBN",
        "publisher",
        "series",
        "doi",
        "language",
        "cited",
        "stage",
        "reason",
        "tags",
        "databases",
        "free copy",
        "licence",
        "funder",
        "keywords",
        "abstract",
    ];

    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IEnumerable<Citation> citations)
    {
        using var csv = SafeCsv.To(to);
        foreach (var column in Columns)
            csv.WriteField(column);
        csv.NextRecord();
        foreach (var c in citations)
        {
            csv.WriteField(c.WorkId);
            csv.WriteField(c.Key);
            csv.WriteField(c.Title);
            csv.WriteField(Names(c.Authors));
            csv.WriteField(Names(c.Editors));
            csv.WriteField(
                string.Join("; ", c.Authors.Where(p => p.Orcid is not null).Select(p => $"{p.Short} {p.Orcid}"))
            );
            csv.WriteField(c.Year);
            csv.WriteField(c.Date is { Length: > 4 } ? c.Date : null);
            csv.WriteField(c.Genre is null ? DocumentTypes.Name(c.Type) : $"{DocumentTypes.Name(c.Type)} ({c.Genre})");
            csv.WriteField(c.Venue?.Title);
            csv.WriteField(c.Venue?.Volume);
            csv.WriteField(c.Venue?.Issue);
            csv.WriteField(c.Venue?.Pages());
            csv.WriteField(c.Venue?.Issn);
            csv.WriteField(c.Isbn);
            csv.WriteField(c.Publisher);
            csv.WriteField(c.Series);
            csv.WriteField(c.Doi);
            csv.WriteField(c.Language is null ? null : Languages.Name(c.Language));
            csv.WriteField(c.Cited);
            csv.WriteField(c.Stage);
            csv.WriteField(c.Reason);
            csv.WriteField(string.Join("; ", c.Tags));
            csv.WriteField(string.Join("; ", c.Databases));
            csv.WriteField(c.FreeAddress);
            csv.WriteField(c.Licence);
            csv.WriteField(string.Join("; ", c.Funders));
            csv.WriteField(string.Join("; ", c.Keywords));
            csv.WriteField(c.Abstract);
            csv.NextRecord();
        }
    }

    private static string Names(IEnumerable<PersonName> people) => string.Join("; ", people.Select(p => p.Inverted));
}
