using System.Globalization;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>
/// Writes RIS: two-letter tags, two spaces, hyphen, space; one entry from TY to ER; lines end in CR LF. What stands in
/// a book or in proceedings has the title of that in T2 and BT, where readers of the format look for it.
/// </summary>
public static class RisWriter
{
    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IEnumerable<Citation> citations)
    {
        foreach (var c in citations)
        {
            Line("TY", Kind(c.Type));
            Line("ID", c.Key);
            foreach (var p in c.Authors)
                Line("AU", p.Inverted);
            foreach (var p in c.Editors)
                Line(c.IsInBook ? "A2" : "ED", p.Inverted);
            Line("TI", c.Title);
            if (c.Year is { } year)
                Line("PY", year.ToString(CultureInfo.InvariantCulture));
            if (c.Month is { } month)
                Line(
                    "DA",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{c.Year}/{month:00}/{(c.Day is { } day ? day.ToString("00", CultureInfo.InvariantCulture) : "")}/"
                    )
                );
            if (c.Venue is { } venue)
            {
                // Some readers look for a book's title in T2, others in BT and take T2 for its series.
                if (c.IsInBook)
                    Line("BT", venue.Title);
                Line(c.IsInBook ? "T2" : "JF", venue.Title);
                Line("VL", venue.Volume);
                Line("IS", venue.Issue);
                Line("SP", venue.FirstPage);
                Line("EP", venue.EndPage);
                Line("SN", venue.Issn);
            }
            Line("SN", c.Isbn);
            Line("T3", c.Series);
            Line("PB", c.Publisher);
            Line("M3", c.Genre ?? (c.Type == DocumentType.Preprint ? "Preprint" : null));
            Line("DO", c.Doi);
            Line("UR", c.FreeAddress);
            if (c.Language is { } language)
                Line("LA", Languages.Name(language));
            Line("AB", c.Abstract);
            foreach (var keyword in c.Keywords)
                Line("KW", keyword);
            if (c.Stage.Length > 0)
                Line("N1", c.Reason is null ? c.Stage : $"{c.Stage}: {c.Reason}");
            if (c.Tags.Count > 0)
                Line("N1", $"tags: {string.Join(", ", c.Tags)}");
            if (c.Funders.Count > 0)
                Line("N1", $"funded by: {string.Join("; ", c.Funders)}");
            to.Write("ER  - \r\n\r\n");
        }

        void Line(string tag, string? value)
        {
            if (string.IsNullOrEmpty(value))
                return;
            to.Write(tag);
            to.Write("  - ");
            to.Write(OneLine(value));
            to.Write("\r\n");
        }
    }

    private static string OneLine(string value) =>
        value.Any(char.IsControl) ? string.Concat(value.Select(c => char.IsControl(c) ? ' ' : c)) : value;

    private static string Kind(DocumentType type) =>
        type switch
        {
            DocumentType.Article
            or DocumentType.Review
            or DocumentType.SystematicReview
            or DocumentType.Editorial
            or DocumentType.Letter
            or DocumentType.Correction
            or DocumentType.RetractionNotice => "JOUR",
            DocumentType.ConferencePaper => "CONF",
            DocumentType.Thesis => "THES",
            DocumentType.Report => "RPRT",
            DocumentType.Preprint or DocumentType.Manuscript => "UNPB",
            DocumentType.Book => "BOOK",
            DocumentType.Chapter => "CHAP",
            DocumentType.Dataset => "DATA",
            _ => "GEN",
        };
}
