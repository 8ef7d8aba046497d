using System.Buffers;
using System.Globalization;
using System.Text;
using Zendle.Core.Records;

namespace Zendle.Core.Formats;

/// <summary>Writes BibTeX in UTF-8. Signs that TeX reads as commands are escaped; capitals inside titles are held by braces.</summary>
public static class BibTexWriter
{
    private static readonly SearchValues<char> Commands = SearchValues.Create(@"\{}%&$#_~^");

    /// <summary>Writes all citations, in order.</summary>
    public static void Write(TextWriter to, IReadOnlyList<Citation> citations)
    {
        var keys = CitationKeys.For(citations);
        for (var i = 0; i < citations.Count; i++) WriteOne(to, citations[i], keys[i]);
    }

    private static void WriteOne(TextWriter to, Citation c, string key)
    {
        to.Write($"@{Kind(c.Type)}{{{key}");
        Field("author", string.Join(" and ", c.People.Select(Name)));
        Field("title", Title(c.Title));
        Field("year", c.Year?.ToString(CultureInfo.InvariantCulture));
        if (c.Venue is { } venue)
        {
            Field(c.Type is DocumentType.Chapter or DocumentType.ConferencePaper ? "booktitle" : "journal", Escape(venue.Title));
            Field("volume", venue.Volume);
            Field("number", venue.Issue);
            Field("pages", venue.FirstPage is null ? null : venue.LastPage is null ? venue.FirstPage : $"{venue.FirstPage}--{venue.LastPage}");
            Field("issn", venue.Issn);
        }
        Field(c.Type == DocumentType.Thesis ? "school" : c.Type == DocumentType.Report ? "institution" : "publisher", c.Publisher is null ? null : Escape(c.Publisher));
        Field("isbn", c.Isbn);
        Field("doi", c.Doi);
        Field("url", c.FreeAddress);
        Field("language", c.Language is null ? null : Languages.Name(c.Language));
        Field("keywords", string.Join(", ", c.Keywords.Concat(c.Tags).Select(Escape)));
        Field("abstract", Escape(c.Abstract));
        to.Write("\n}\n\n");

        void Field(string name, string? value)
        {
            if (!string.IsNullOrEmpty(value)) to.Write($",\n  {name} = {{{value}}}");
        }
    }

    /// <summary>A name in the order family, given; one without given names is braced whole, so that an organisation stays one name.</summary>
    private static string Name(PersonName p) => p.Given.Length == 0 ? $"{{{Escape(p.Family)}}}" : $"{Escape(p.Family)}, {Escape(p.Given)}";

    /// <summary>Braces every word after the first that has a capital, so that styles which lower titles leave it.</summary>
    private static string Title(string title)
    {
        var words = title.Split(' ');
        return string.Join(' ', words.Select((w, i) => (i > 0 && w.Any(char.IsUpper)) || w.Skip(1).Any(char.IsUpper) ? $"{{{Escape(w)}}}" : Escape(w)));
    }

    private static string Escape(string text)
    {
        if (text.AsSpan().IndexOfAny(Commands) < 0) return text;
        var escaped = new StringBuilder(text.Length + 8);
        foreach (var c in text)
            escaped.Append(c switch
            {
                '\\' => @"\textbackslash{}",
                '~' => @"\textasciitilde{}",
                '^' => @"\textasciicircum{}",
                '{' or '}' or '%' or '&' or '$' or '#' or '_' => $"\\{c}",
                _ => c.ToString(),
            });
        return escaped.ToString();
    }

    private static string Kind(DocumentType type) => type switch
    {
        DocumentType.ConferencePaper => "inproceedings",
        DocumentType.Thesis => "phdthesis",
        DocumentType.Report => "techreport",
        DocumentType.Preprint => "unpublished",
        DocumentType.Book => "book",
        DocumentType.Chapter => "incollection",
        DocumentType.Dataset or DocumentType.Other => "misc",
        _ => "article",
    };
}
