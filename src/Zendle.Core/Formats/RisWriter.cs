using System.Globalization;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>Writes RIS: two-letter tags, two spaces, hyphen, space; one entry from TY to ER; lines end in CR LF.</summary>
public static class RisWriter
{
    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IEnumerable<Citation> citations)
    {
        foreach (var c in citations)
        {
            Line("TY", Kind(c.Type));
            foreach (var p in c.People) Line("AU", p.Given.Length == 0 ? p.Family : $"{p.Family}, {p.Given}");
            Line("TI", c.Title);
            if (c.Year is { } year) Line("PY", year.ToString(CultureInfo.InvariantCulture));
            if (c.Venue is { } venue)
            {
                Line(c.Type is DocumentType.Chapter or DocumentType.ConferencePaper ? "T2" : "JO", venue.Title);
                Line("VL", venue.Volume);
                Line("IS", venue.Issue);
                Line("SP", venue.FirstPage);
                Line("EP", venue.LastPage);
                Line("SN", venue.Issn ?? c.Isbn);
            }
            else Line("SN", c.Isbn);
            Line("PB", c.Publisher);
            Line("DO", c.Doi);
            Line("UR", c.FreeAddress ?? (c.Copies.Count > 0 ? c.Copies[0].Address : null));
            if (c.Language is { } language) Line("LA", Languages.Name(language));
            Line("AB", c.Abstract);
            foreach (var keyword in c.Keywords) Line("KW", keyword);
            foreach (var tag in c.Tags) Line("KW", tag);
            if (c.Stage.Length > 0) Line("N1", c.Reason is null ? c.Stage : $"{c.Stage}: {c.Reason}");
            to.Write("ER  - \r\n\r\n");
        }

        void Line(string tag, string? value)
        {
            if (string.IsNullOrEmpty(value)) return;
            to.Write(tag);
            to.Write("  - ");
            to.Write(OneLine(value));
            to.Write("\r\n");
        }
    }

    private static string OneLine(string value) => value.AsSpan().IndexOfAny('\r', '\n') < 0 ? value : new StringBuilder(value).Replace('\r', ' ').Replace('\n', ' ').ToString();

    private static string Kind(DocumentType type) => type switch
    {
        DocumentType.Article or DocumentType.Review or DocumentType.SystematicReview or DocumentType.Editorial or DocumentType.Letter
            or DocumentType.Correction or DocumentType.RetractionNotice => "JOUR",
        DocumentType.ConferencePaper => "CPAPER",
        DocumentType.Thesis => "THES",
        DocumentType.Report => "RPRT",
        DocumentType.Preprint => "UNPB",
        DocumentType.Book => "BOOK",
        DocumentType.Chapter => "CHAP",
        DocumentType.Dataset => "DATA",
        _ => "GEN",
    };
}
